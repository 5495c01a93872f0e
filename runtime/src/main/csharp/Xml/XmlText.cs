namespace Protypos.Runtime
{
    using System;
    using System.Globalization;
    using System.Text;

    /// <summary>Characters of a message that grows, in one buffer.</summary>
    internal sealed class XmlText
    {
        private static readonly bool[] Plain = new bool[128];

        private char[] characters;

        static XmlText()
        {
            for (int c = ' '; c < Plain.Length; c++)
            {
                Plain[c] = "&<>\"".IndexOf((char)c) < 0;
            }
        }

        internal XmlText(int room)
        {
            this.characters = new char[room];
        }

        /// <summary>How many there are.</summary>
        internal int Length { get; private set; }

        private void Reserve(int more)
        {
            if (more > this.characters.Length - this.Length)
            {
                long twice = Math.Min(2L * this.characters.Length, 0x7fffffc7);
                Array.Resize(ref this.characters, (int)Math.Max(twice, checked(this.Length + more)));
            }
        }

        internal XmlText Append(char c)
        {
            this.Reserve(1);
            this.characters[this.Length++] = c;
            return this;
        }

        internal XmlText Append(string text)
        {
            this.Reserve(text.Length);
            text.CopyTo(0, this.characters, this.Length, text.Length);
            this.Length += text.Length;
            return this;
        }

        /// <summary>Adds a name with its prefix, empty for none.</summary>
        internal XmlText AppendName(string prefix, string name)
        {
            this.Reserve(prefix.Length + name.Length + 1);
            int at = this.Length;
            if (prefix.Length > 0)
            {
                prefix.CopyTo(0, this.characters, at, prefix.Length);
                at += prefix.Length;
                this.characters[at++] = ':';
            }
            name.CopyTo(0, this.characters, at, name.Length);
            this.Length = at + name.Length;
            return this;
        }

        /// <summary>Adds an element of text and nothing else.</summary>
        internal void AppendElement(string prefix, string name, string text)
        {
            this.Append('<').AppendName(prefix, name);
            if (text.Length == 0)
            {
                this.Append("/>");
                return;
            }
            this.Append('>');
            this.AppendEscaped(text, false);
            this.Append("</").AppendName(prefix, name).Append('>');
        }

        /// <summary>Adds the declaration of a namespace to a tag.</summary>
        internal void AppendDeclaration(string prefix, string space)
        {
            this.Append(prefix.Length == 0 ? " xmlns" : " xmlns:").Append(prefix).Append("=\"");
            this.AppendEscaped(space, true);
            this.Append('"');
        }

        /// <summary>Adds text so that it stays text (XML 1.0, section 2.4).</summary>
        /// <exception cref="ArgumentException">XML has no such character.</exception>
        internal void AppendEscaped(string text, bool attribute)
        {
            this.Reserve(text.Length);
            char[] to = this.characters;
            int at = this.Length;
            for (int i = 0; i < text.Length; i++)
            {
                char c = text[i];
                if (c < Plain.Length ? Plain[c] || (c == '"' && !attribute) : c < '\ud800' || (c > '\udfff' && c < '\ufffe'))
                {
                    to[at++] = c;
                    continue;
                }
                if (char.IsHighSurrogate(c) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
                {
                    to[at++] = c;
                    to[at++] = text[++i];
                    continue;
                }
                this.Length = at;
                this.Append(Escape(c, attribute));
                this.Reserve(text.Length - i - 1);
                to = this.characters;
                at = this.Length;
            }
            this.Length = at;
        }

        private static string Escape(char c, bool attribute)
        {
            switch (c)
            {
                case '&':
                    return "&amp;";
                case '<':
                    return "&lt;";
                case '>':
                    return attribute ? ">" : "&gt;";
                case '"':
                    return "&quot;";
                case '\r':
                    return "&#13;";
                case '\n':
                    return attribute ? "&#10;" : "\n";
                case '\t':
                    return attribute ? "&#9;" : "\t";
                default:
                    throw new ArgumentException("XML has no character U+" + ((int)c).ToString("X4", CultureInfo.InvariantCulture));
            }
        }

        /// <summary>All of it in UTF-8.</summary>
        /// <param name="before">what goes before it</param>
        /// <param name="at">a place in it</param>
        /// <param name="between">what goes into that place</param>
        internal byte[] ToUtf8(string before, int at, XmlText between)
        {
            Encoding utf8 = Encoding.UTF8;
            int rest = this.Length - at;
            int size = utf8.GetByteCount(before)
                + utf8.GetByteCount(between.characters, 0, between.Length)
                + utf8.GetByteCount(this.characters, 0, at)
                + utf8.GetByteCount(this.characters, at, rest);
            byte[] bytes = new byte[size];
            int end = utf8.GetBytes(before, 0, before.Length, bytes, 0);
            end += utf8.GetBytes(this.characters, 0, at, bytes, end);
            end += utf8.GetBytes(between.characters, 0, between.Length, bytes, end);
            utf8.GetBytes(this.characters, at, rest, bytes, end);
            return bytes;
        }
    }
}
