namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.IO.Compression;
    using System.Linq;
    using System.Text;
    using System.Xml;
    using System.Xml.Linq;

    /// <summary>What came over HTTP, unpacked.</summary>
    internal sealed class Incoming
    {
        private const string XopType = "application/xop+xml";
        private const int LongestShown = 100;

        private static readonly HashSet<string> Ways = new HashSet<string>
        {
            "gzip", "x-gzip", "deflate", "br", "zstd", "compress", "x-compress", "exi"
        };

        private static readonly byte[] Nothing = Encoding.ASCII.GetBytes("<nothing/>");

        internal Incoming(byte[] body, MediaType type, MimePackage parts)
        {
            this.Body = body;
            this.Type = type;
            this.Parts = parts;
        }

        /// <summary>The message: the whole body, or the root of a package.</summary>
        internal byte[] Body { get; private set; }

        /// <summary>
        /// Its content type; for the root of an optimized package the type that the message would have alone (MTOM, section 4).
        /// </summary>
        internal MediaType Type { get; private set; }

        /// <summary>The package, or null when the message came alone.</summary>
        internal MimePackage Parts { get; private set; }

        /// <summary>The message as text, for people.</summary>
        internal string Text
        {
            get
            {
                try
                {
                    using (TextReader reader = MessageText.Decode(new MemoryStream(this.Body, false), this.Type.Charset, long.MaxValue))
                    {
                        return reader.ReadToEnd();
                    }
                }
                catch (Exception e) when (e is XmlFormatException || e is XmlException)
                {
                    return "(" + this.Body.Length + " bytes that are no text)";
                }
            }
        }

        /// <summary>Where to put a body of some content type while it comes.</summary>
        internal static Spool SpoolFor(MediaType type, XmlLimits limits, long attachments, string what)
        {
            return type.IsMultipart ? new Spool(attachments, true, what) : new Spool(limits.Bytes, false, what);
        }

        /// <summary>Unpacks a body.</summary>
        /// <exception cref="IOException">It cannot be unpacked or is longer than allowed.</exception>
        internal static Incoming Of(
            Spool came, MediaType type, string encoding, XmlLimits limits, long attachments, string what)
        {
            Spool body = Packs(encoding) && came.Length > 0 ? Unpacked(came, SpoolFor(type, limits, attachments, what)) : came;
            if (!type.IsMultipart)
            {
                return new Incoming(body.ToArray(), type, null);
            }
            MimePackage parts = MimePackage.Open(body, type);
            Spool root = new Spool(limits.Bytes, false, what);
            using (Stream content = parts.Root.Content.OpenRead())
            {
                content.CopyTo(root);
            }
            MediaType rootType = parts.Root.Type;
            string inner = rootType.Parameter("type");
            MediaType alone = rootType.Name == XopType && inner != null
                ? rootType.Named(new MediaType(inner).Name)
                : rootType;
            return new Incoming(root.ToArray(), alone, parts);
        }

        /// <summary>
        /// Whether a message came packed (RFC 9110, section 8.4). What names no way to pack (a charset, say) stands there by mistake, and
        /// is passed over.
        /// </summary>
        private static bool Packs(string encoding)
        {
            List<string> ways = encoding.Split(',').Select(way => way.Trim().ToLowerInvariant()).Where(Ways.Contains).ToList();
            if (ways.Count == 0)
            {
                return false;
            }

            // The older name is the same (RFC 9110, section 8.4.1.3).
            if (ways.Count > 1 || !ways[0].EndsWith("gzip", StringComparison.Ordinal))
            {
                throw new IOException("it is packed with \"" + Lexical.Shortened(encoding, LongestShown) + "\"; gzip alone can be read");
            }
            return true;
        }

        private static Spool Unpacked(Spool packed, Spool into)
        {
            try
            {
                using (GZipStream stream = new GZipStream(packed.OpenRead(0, packed.Length), CompressionMode.Decompress))
                {
                    stream.CopyTo(into);
                }
            }
            catch (InvalidDataException e)
            {
                throw new IOException(e.Message, e);
            }
            if ((uint)into.Length != StatedLength(packed))
            {
                throw new IOException("the packed data are damaged or end too early");
            }
            return into;
        }

        /// <summary>The number of bytes in packed data (RFC 1952, section 2.3.1): the platform takes data that are cut off for whole.</summary>
        private static uint StatedLength(Spool packed)
        {
            const int Size = 4;
            uint length = 0;
            if (packed.Length >= Size)
            {
                using (Stream stream = packed.OpenRead(packed.Length - Size, packed.Length))
                {
                    for (int i = 0; i < Size; i++)
                    {
                        length |= (uint)stream.ReadByte() << (8 * i);
                    }
                }
            }
            return length;
        }

        internal static byte[] Packed(byte[] message)
        {
            using (MemoryStream packed = new MemoryStream())
            {
                using (GZipStream stream = new GZipStream(packed, CompressionMode.Compress, true))
                {
                    stream.Write(message, 0, message.Length);
                }
                return packed.ToArray();
            }
        }

        /// <summary>Has a message read the body as an XML document. One without content is none, but a message may expect no more.</summary>
        internal void ReadDocument(SoapMessage into, XmlTypes types, XmlReading reading)
        {
            bool any = this.Body.Length > 0;
            reading.Read(any ? this.Body : Nothing, this.Type.Charset, types, this.Parts, input =>
            {
                into.ReadBody(input);
                if (any)
                {
                    input.Finish();
                }
                return into;
            });
        }

        /// <summary>Has a message without an envelope read the body (WSDL 1.1, sections 4 and 5).</summary>
        internal void ReadInto(SoapMessage into, string contentType, XmlTypes types, XmlReading reading)
        {
            switch (into.Form)
            {
                case MessageForm.Bytes:
                    AttachedParts.ReadOnly(Attachment.Of(this.Body, contentType), into);
                    break;
                case MessageForm.Text:
                    TextBody.Read(this, into, types, reading);
                    break;
                default:
                    this.ReadDocument(into, types, reading);
                    break;
            }
        }
    }

    /// <summary>One value as plain text (WSDL 1.1, section 5.2); the message reads and writes it as the content of its only part.</summary>
    internal static class TextBody
    {
        internal static string Write(SoapMessage message, XmlTypes types)
        {
            return Fields.TreeOf(message, types).Elements().First().Value;
        }

        internal static void Read(Incoming came, SoapMessage into, XmlTypes types, XmlReading reading)
        {
            XElement around = new XElement("text", new XElement(into.TextPart, Decoded(came)));
            reading.Read(NoTypes.Instance.WriteTree(around), null, types, null, input =>
            {
                into.ReadBody(input);
                input.Finish();
                return into;
            });
        }

        private static string Decoded(Incoming came)
        {
            try
            {
                return Encoding.GetEncoding(came.Type.Charset ?? "utf-8").GetString(came.Body);
            }
            catch (Exception e) when (e is ArgumentException || e is NotSupportedException)
            {
                return Encoding.UTF8.GetString(came.Body);
            }
        }
    }
}
