namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Text;
    using System.Text.RegularExpressions;

    /// <summary>
    /// A package that came: a root and the parts beside it (RFC 2387; SOAP Messages with Attachments, section 3; XOP 1.0, section
    /// 4). Only where each part stands is remembered; its bytes stay where they are.
    /// </summary>
    internal sealed class MimePackage : MessageParts
    {
        private const int MostParts = 1000;
        private const int LongestHead = 16 * 1024;

        private readonly List<Part> parts = new List<Part>();

        private MimePackage()
        {
        }

        /// <summary>A part.</summary>
        internal sealed class Part
        {
            /// <summary>Its identifier without angle brackets, empty when it has none.</summary>
            internal string Id;

            internal MediaType Type;

            internal Attachment Content;
        }

        /// <summary>The root: the message itself.</summary>
        internal Part Root { get; private set; }

        /// <summary>The parts beside the root, in their order.</summary>
        internal List<Part> Attached
        {
            get { return this.parts.FindAll(part => part != this.Root); }
        }

        /// <summary>Takes a package apart.</summary>
        /// <exception cref="IOException">It is no proper package, has too many parts, or cannot be read.</exception>
        internal static MimePackage Open(Spool body, MediaType type)
        {
            string boundary = type.Parameter("boundary");
            if (string.IsNullOrEmpty(boundary) || boundary.Length > 200)
            {
                throw new IOException("the content type names no boundary between the parts");
            }
            MimePackage package = new MimePackage();
            Scanner scanner = new Scanner(body, boundary);
            scanner.ToBoundary();
            HashSet<string> ids = new HashSet<string>();
            while (!scanner.IsLast)
            {
                if (package.parts.Count == MostParts)
                {
                    throw new IOException("the message has more than " + MostParts + " parts");
                }
                Part part = ReadPart(body, scanner);
                if (part.Id.Length > 0 && !ids.Add(part.Id))
                {
                    throw new IOException("two parts have the identifier " + part.Id);
                }
                package.parts.Add(part);
            }
            if (package.parts.Count == 0)
            {
                throw new IOException("the message has no part");
            }
            string start = type.Parameter("start");
            package.Root = start == null ? package.parts[0] : package.parts.Find(part => part.Id == Bare(start));
            if (package.Root == null)
            {
                throw new IOException(
                    "the content type says that the message begins with the part " + start + ", which is not there");
            }
            return package;
        }

        private static Part ReadPart(Spool body, Scanner scanner)
        {
            Dictionary<string, string> head = scanner.Head();
            long from = scanner.Position;
            long to = Math.Max(from, scanner.ToBoundary());
            string type = Field(head, "content-type", "application/octet-stream");
            string encoding = Field(head, "content-transfer-encoding", "binary").Trim().ToLowerInvariant();
            Attachment content;
            switch (encoding)
            {
                case "binary":
                case "8bit":
                case "7bit":
                    content = Attachment.Of(() => body.OpenRead(from, to), to - from, type);
                    break;
                case "base64":
                    content = Attachment.Of(Base64(Text(body, from, to)), type);
                    break;
                case "quoted-printable":
                    content = Attachment.Of(QuotedPrintable(Text(body, from, to)), type);
                    break;
                default:
                    throw new IOException("a part is in the unknown encoding " + encoding);
            }
            return new Part { Id = Bare(Field(head, "content-id", "")), Type = new MediaType(type), Content = content };
        }

        private static string Field(Dictionary<string, string> head, string name, string otherwise)
        {
            string value;
            return head.TryGetValue(name, out value) ? value : otherwise;
        }

        private static string Text(Spool body, long from, long to)
        {
            using (StreamReader reader = new StreamReader(body.OpenRead(from, to), Encoding.GetEncoding("iso-8859-1")))
            {
                return reader.ReadToEnd();
            }
        }

        private static byte[] Base64(string text)
        {
            try
            {
                return Convert.FromBase64String(text);
            }
            catch (FormatException e)
            {
                throw new IOException("a part is not base64", e);
            }
        }

        /// <summary>Decodes content in the encoding for text that is nearly plain (RFC 2045, section 6.7).</summary>
        private static byte[] QuotedPrintable(string text)
        {
            MemoryStream bytes = new MemoryStream();
            for (int i = 0; i < text.Length; i++)
            {
                if (text[i] != '=')
                {
                    bytes.WriteByte((byte)text[i]);
                }
                else if (i + 1 < text.Length && text[i + 1] == '\n')
                {
                    i++;
                }
                else if (i + 2 < text.Length && text[i + 1] == '\r' && text[i + 2] == '\n')
                {
                    i += 2;
                }
                else if (i + 2 < text.Length && Uri.IsHexDigit(text[i + 1]) && Uri.IsHexDigit(text[i + 2]))
                {
                    bytes.WriteByte((byte)(Uri.FromHex(text[i + 1]) * 16 + Uri.FromHex(text[i + 2])));
                    i += 2;
                }
                else
                {
                    throw new IOException("a part is not quoted-printable: = is followed by no digits");
                }
            }
            return bytes.ToArray();
        }

        private static string Bare(string id)
        {
            string text = id.Trim();
            return text.Length > 1 && text[0] == '<' && text[text.Length - 1] == '>' ? text.Substring(1, text.Length - 2) : text;
        }

        /// <summary>The part that a reference means (RFC 2392): an address that starts with <c>cid:</c>, in whatever letters.</summary>
        internal override Attachment Find(string reference)
        {
            if (!reference.StartsWith("cid:", StringComparison.OrdinalIgnoreCase))
            {
                return null;
            }
            string id = reference.Substring("cid:".Length);
            string decoded = Uri.UnescapeDataString(id);
            Part found = this.parts.Find(part => part != this.Root && (part.Id == decoded || part.Id == id));
            return found == null ? null : found.Content;
        }

        /// <summary>Finds the lines that part the parts, and reads the heads that follow them.</summary>
        private sealed class Scanner
        {
            private static readonly Regex Folded = new Regex("\r?\n[ \t]+");

            private readonly Stream stream;
            private readonly byte[] mark;
            private readonly int[] fallback;
            private readonly byte[] buffer = new byte[64 * 1024];
            private int at;
            private int filled;
            private int begun;
            private bool whole;
            private int before;

            internal Scanner(Spool body, string boundary)
            {
                // A package may begin with its first boundary: the line end before it is supplied.
                this.stream = new PrecededStream(new[] { (byte)'\r', (byte)'\n' }, 2, body.OpenRead(0, body.Length));
                this.Position = -2;
                this.mark = Encoding.GetEncoding("iso-8859-1").GetBytes("\n--" + boundary);
                this.fallback = Fallback(this.mark);
            }

            internal long Position { get; private set; }

            internal bool IsLast { get; private set; }

            /// <summary>For each prefix of the mark that has been seen, what is still seen of it when the next byte does not fit.</summary>
            private static int[] Fallback(byte[] mark)
            {
                int[] table = new int[mark.Length + 1];
                for (int i = 1, matched = 0; i < mark.Length; i++)
                {
                    while (matched > 0 && mark[i] != mark[matched])
                    {
                        matched = table[matched];
                    }
                    matched += mark[i] == mark[matched] ? 1 : 0;
                    table[i + 1] = matched;
                }
                return table;
            }

            private int Read()
            {
                if (this.at == this.filled)
                {
                    this.filled = this.stream.Read(this.buffer, 0, this.buffer.Length);
                    this.at = 0;
                    if (this.filled <= 0)
                    {
                        throw new IOException("the message ends before its last part does");
                    }
                }
                this.Position++;
                int next = this.buffer[this.at++];
                if (next == '\n')
                {
                    this.whole = this.before == '\r';
                }
                this.before = next;
                return next;
            }

            /// <summary>Goes past the next boundary and the rest of its line, and gives where the content before it ended.</summary>
            internal long ToBoundary()
            {
                int matched = this.begun;
                this.begun = 0;
                while (true)
                {
                    while (matched < this.mark.Length)
                    {
                        int one = this.Read();
                        while (matched > 0 && one != this.mark[matched])
                        {
                            matched = this.fallback[matched];
                        }
                        matched += one == this.mark[matched] ? 1 : 0;
                    }
                    long end = this.Position - this.mark.Length - (this.whole ? 1 : 0);
                    int next = this.Read();
                    if (next == '-' && this.Read() == '-')
                    {
                        this.IsLast = true;
                        return end;
                    }
                    while (next == ' ' || next == '\t')
                    {
                        next = this.Read();
                    }
                    if (next == '\n' || (next == '\r' && this.Read() == '\n'))
                    {
                        return end;
                    }
                    // It only begins like a boundary: the search goes on.
                    matched = 0;
                }
            }

            /// <summary>Reads the header fields of a part; they end with an empty line (RFC 5322, section 2.2).</summary>
            internal Dictionary<string, string> Head()
            {
                List<byte> text = new List<byte>();
                while (!EndsWithEmptyLine(text))
                {
                    if (text.Count == LongestHead)
                    {
                        throw new IOException("the head of a part is longer than " + LongestHead + " bytes");
                    }
                    text.Add((byte)this.Read());
                }
                this.begun = 1;
                Dictionary<string, string> fields = new Dictionary<string, string>();
                foreach (string line in Folded.Replace(Encoding.UTF8.GetString(text.ToArray()), " ").Split('\n'))
                {
                    int colon = line.IndexOf(':');
                    string name = colon > 0 ? line.Substring(0, colon).Trim().ToLowerInvariant() : null;
                    if (name != null && !fields.ContainsKey(name))
                    {
                        fields[name] = line.Substring(colon + 1).Trim();
                    }
                }
                return fields;
            }

            private static bool EndsWithEmptyLine(List<byte> text)
            {
                int length = text.Count;
                if (length == 0 || text[length - 1] != '\n')
                {
                    return false;
                }
                int start = length > 1 && text[length - 2] == '\r' ? length - 2 : length - 1;
                return start == 0 || text[start - 1] == '\n';
            }
        }
    }
}
