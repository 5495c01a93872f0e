namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.IO;
    using System.Text;
    using System.Threading.Tasks;

    /// <summary>
    /// A message that is sent with parts beside it: binary content that its root only refers to (XOP 1.0), or attachments that the
    /// contract names (WSDL 1.1, section 5.3; WS-I Attachments Profile 1.0, section 3.8).
    /// </summary>
    public sealed class OutgoingPackage
    {
        private const string XopType = "application/xop+xml";
        private const string Line = "\r\n";

        private readonly List<string> ids = new List<string>();
        private readonly List<Attachment> parts = new List<Attachment>();
        private readonly string identity = Guid.NewGuid().ToString();
        private bool referredTo;

        /// <summary>Starts a package.</summary>
        /// <param name="threshold">from how many bytes on binary content leaves the message; -1 for never</param>
        internal OutgoingPackage(long threshold)
        {
            this.References = new Referred(this, threshold);
        }

        /// <summary>Where binary content goes that the message refers to.</summary>
        internal OutgoingParts References { get; private set; }

        private sealed class Referred : OutgoingParts
        {
            private readonly OutgoingPackage around;
            private readonly long threshold;

            internal Referred(OutgoingPackage around, long threshold)
            {
                this.around = around;
                this.threshold = threshold;
            }

            internal override bool Takes(long length)
            {
                return this.threshold >= 0 && length >= this.threshold;
            }

            internal override string Refer(Attachment content)
            {
                this.around.referredTo = true;
                string id = (this.around.parts.Count + 1) + "." + this.around.identity + "@protypos.invalid";
                this.around.ids.Add(id);
                this.around.parts.Add(content);
                return "cid:" + id;
            }
        }

        /// <summary>Adds an attachment under the name of its message part.</summary>
        /// <exception cref="ArgumentException">There is none: a message has all its parts (WSDL 1.1, section 2.3.1).</exception>
        public void Attach(string part, Attachment content, string declaredType = null)
        {
            if (content == null)
            {
                throw new ArgumentException("the attachment " + part + " must be given");
            }
            this.ids.Add(Escaped(part) + "=" + this.identity + "@protypos.invalid");
            this.parts.Add(content.ContentType == null && declaredType != null ? content.WithContentType(declaredType) : content);
        }

        /// <summary>WS-I Attachments Profile 1.0, section 3.8: what may not stand in an identifier is escaped as in an address.</summary>
        internal static string Escaped(string part)
        {
            StringBuilder escaped = new StringBuilder();
            foreach (byte one in Encoding.UTF8.GetBytes(part))
            {
                bool plain = (one >= 'a' && one <= 'z') || (one >= 'A' && one <= 'Z') || (one >= '0' && one <= '9');
                escaped.Append(plain || "-_.".IndexOf((char)one) >= 0
                    ? ((char)one).ToString()
                    : "%" + one.ToString("X2", CultureInfo.InvariantCulture));
            }
            return escaped.ToString();
        }

        /// <summary>The part that was added first.</summary>
        internal Attachment First
        {
            get { return this.parts[0]; }
        }

        /// <summary>Whether nothing has left the message, so that it can be sent alone.</summary>
        internal bool IsEmpty
        {
            get { return this.parts.Count == 0; }
        }

        private string Boundary
        {
            get { return "part-" + this.identity; }
        }

        private string RootId
        {
            get { return "<root." + this.identity + "@protypos.invalid>"; }
        }

        /// <summary>The content type of the whole.</summary>
        /// <param name="root">the content type that the root would have alone</param>
        internal string ContentType(string root)
        {
            MediaType alone = new MediaType(root);
            string action = alone.Parameter("action");
            return "multipart/related; boundary=\"" + this.Boundary + "\"; type=\"" + (this.referredTo ? XopType : alone.Name)
                + "\"; start=\"" + this.RootId + "\""
                + (this.referredTo ? "; start-info=\"" + alone.Name + "\"" : "")
                + (action == null ? "" : "; action=\"" + action + "\"");
        }

        private byte[] Head(string id, string type)
        {
            return Encoding.UTF8.GetBytes((id == this.RootId ? "" : Line) + "--" + this.Boundary + Line
                + "Content-Type: " + OneLine(type ?? "application/octet-stream") + Line
                + "Content-Transfer-Encoding: binary" + Line + "Content-ID: " + id + Line + Line);
        }

        /// <summary>A content type may come from anywhere; in a head it must not begin a line of its own.</summary>
        internal static string OneLine(string type)
        {
            StringBuilder line = new StringBuilder();
            foreach (char c in type)
            {
                line.Append(char.IsControl(c) ? ' ' : c);
            }
            return line.ToString();
        }

        private byte[] RootHead(string root)
        {
            if (!this.referredTo)
            {
                return this.Head(this.RootId, root);
            }
            MediaType alone = new MediaType(root);
            string action = alone.Parameter("action");
            string inner = action == null ? alone.Name : alone.Name + "; action=\\\"" + action + "\\\"";
            return this.Head(this.RootId, XopType + "; charset=UTF-8; type=\"" + inner + "\"");
        }

        /// <summary>Writes the whole.</summary>
        internal async Task WriteAsync(byte[] message, string root, Stream to)
        {
            byte[] head = this.RootHead(root);
            await to.WriteAsync(head, 0, head.Length).ConfigureAwait(false);
            await to.WriteAsync(message, 0, message.Length).ConfigureAwait(false);
            for (int i = 0; i < this.parts.Count; i++)
            {
                head = this.Head("<" + this.ids[i] + ">", this.parts[i].ContentType);
                await to.WriteAsync(head, 0, head.Length).ConfigureAwait(false);
                using (Stream content = this.parts[i].OpenRead())
                {
                    await content.CopyToAsync(to).ConfigureAwait(false);
                }
            }
            byte[] end = Encoding.ASCII.GetBytes(Line + "--" + this.Boundary + "--" + Line);
            await to.WriteAsync(end, 0, end.Length).ConfigureAwait(false);
        }
    }
}
