namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Text;

    /// <summary>A content type: a media type and its parameters (RFC 2045, section 5.1).</summary>
    internal sealed class MediaType
    {
        private readonly Dictionary<string, string> parameters = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);

        /// <summary>Reads a content type; what makes no sense in it is passed over.</summary>
        internal MediaType(string text)
        {
            int at = text.IndexOf(';');
            this.Name = (at < 0 ? text : text.Substring(0, at)).Trim().ToLowerInvariant();
            while (at >= 0 && at < text.Length)
            {
                int equals = text.IndexOf('=', at);
                if (equals < 0)
                {
                    break;
                }
                string key = text.Substring(at + 1, equals - at - 1).Trim();
                string value;
                at = Value(text, equals + 1, out value);
                if (!this.parameters.ContainsKey(key))
                {
                    this.parameters[key] = value;
                }
            }
        }

        private MediaType(string name, MediaType other)
        {
            this.Name = name;
            this.parameters = other.parameters;
        }

        /// <summary>Takes a value, in quotation marks or not, and gives where the next semicolon stands, or -1.</summary>
        private static int Value(string text, int from, out string value)
        {
            int at = from;
            while (at < text.Length && text[at] == ' ')
            {
                at++;
            }
            if (at == text.Length || text[at] != '"')
            {
                int end = text.IndexOf(';', at);
                value = text.Substring(at, (end < 0 ? text.Length : end) - at).Trim();
                return end;
            }
            StringBuilder quoted = new StringBuilder();
            for (at++; at < text.Length && text[at] != '"'; at++)
            {
                if (text[at] == '\\' && at + 1 < text.Length)
                {
                    at++;
                }
                quoted.Append(text[at]);
            }
            value = quoted.ToString();
            return at >= text.Length ? -1 : text.IndexOf(';', at);
        }

        /// <summary>Type and subtype in lower case, empty when there is none.</summary>
        internal string Name { get; private set; }

        /// <summary>The same parameters with another name.</summary>
        internal MediaType Named(string name)
        {
            return new MediaType(name, this);
        }

        /// <summary>A parameter, or null.</summary>
        internal string Parameter(string key)
        {
            string value;
            return this.parameters.TryGetValue(key, out value) ? value : null;
        }

        /// <summary>The charset that is named, or null.</summary>
        internal string Charset
        {
            get { return this.Parameter("charset"); }
        }

        /// <summary>Whether the content is a package of several parts.</summary>
        internal bool IsMultipart
        {
            get { return this.Name.StartsWith("multipart/", StringComparison.Ordinal); }
        }

        /// <summary>Whether the content is XML (RFC 7303, section 4.2).</summary>
        internal bool IsXml
        {
            get
            {
                return this.Name.EndsWith("/xml", StringComparison.Ordinal) || this.Name.EndsWith("+xml", StringComparison.Ordinal);
            }
        }
    }
}
