namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Text;
    using System.Xml;

    /// <summary>What comes next in a message.</summary>
    internal enum MessageEvent
    {
        Start,
        Text,
        End,
        EndOfDocument
    }

    /// <summary>Takes a message apart into tags and text.</summary>
    internal abstract class MessageReader
    {
        /// <summary>Moves to what comes next.</summary>
        internal abstract MessageEvent Next();

        internal abstract MessageEvent Event { get; }

        internal abstract string LocalName { get; }

        internal abstract string NamespaceUri { get; }

        internal abstract string Text { get; }

        /// <summary>The attributes of the tag, declarations of namespaces not among them.</summary>
        internal abstract int AttributeCount { get; }

        internal abstract string AttributeNamespace(int index);

        internal abstract string AttributeName(int index);

        internal abstract string AttributeValue(int index);

        /// <summary>Declarations of namespaces on the tag: prefixes and namespaces in turn.</summary>
        internal abstract string[] Declarations { get; }

        /// <summary>The namespace of a prefix, or null.</summary>
        internal abstract string Lookup(string prefix);

        internal abstract int Line { get; }

        internal abstract int Column { get; }

        internal string Attribute(string name)
        {
            for (int i = 0; i < this.AttributeCount; i++)
            {
                if (this.AttributeName(i) == name && this.AttributeNamespace(i).Length == 0)
                {
                    return this.AttributeValue(i);
                }
            }
            return null;
        }
    }

    /// <summary>Takes a message apart by the parser of the platform.</summary>
    internal sealed class ParserReader : MessageReader
    {
        private static readonly string[] None = new string[0];

        private readonly XmlReader reader;
        private readonly IXmlLineInfo place;
        private MessageEvent current;
        private bool endPending;
        private bool loaded;
        private int count;
        private string[] attributes = new string[24];
        private string[] declarations = None;

        internal ParserReader(XmlReader reader)
        {
            this.reader = reader;
            this.place = reader as IXmlLineInfo;
        }

        /// <summary>Takes bytes apart in the encoding that the transport names, or the one that they name themselves.</summary>
        internal static ParserReader Of(Stream stream, string encoding, XmlLimits limits)
        {
            XmlReaderSettings settings = new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                IgnoreComments = true,
                IgnoreProcessingInstructions = true,
                MaxCharactersInDocument = limits.Bytes,
                MaxCharactersFromEntities = 1,
                CloseInput = false
            };
            try
            {
                return new ParserReader(XmlReader.Create(MessageText.Decode(stream, encoding, limits.Bytes), settings));
            }
            catch (XmlException e)
            {
                throw new XmlFormatException(e.Message, e.LineNumber, e.LinePosition, "", e);
            }
        }

        internal override MessageEvent Next()
        {
            if (this.endPending)
            {
                this.endPending = false;
                this.current = MessageEvent.End;
                return this.current;
            }
            this.current = this.Advance();
            return this.current;
        }

        private MessageEvent Advance()
        {
            this.loaded = false;
            while (this.reader.Read())
            {
                switch (this.reader.NodeType)
                {
                    case XmlNodeType.Element:
                        this.endPending = this.reader.IsEmptyElement;
                        return MessageEvent.Start;
                    case XmlNodeType.EndElement:
                        return MessageEvent.End;
                    case XmlNodeType.Text:
                    case XmlNodeType.CDATA:
                    case XmlNodeType.Whitespace:
                    case XmlNodeType.SignificantWhitespace:
                        return MessageEvent.Text;
                    case XmlNodeType.DocumentType:
                    case XmlNodeType.EntityReference:
                        throw new XmlException("a document type declaration is not allowed in a message", null, this.Line, this.Column);
                    default:
                        break;
                }
            }
            return MessageEvent.EndOfDocument;
        }

        internal override MessageEvent Event
        {
            get { return this.current; }
        }

        internal override string LocalName
        {
            get { return this.reader.LocalName; }
        }

        internal override string NamespaceUri
        {
            get { return this.reader.NamespaceURI; }
        }

        internal override string Text
        {
            get { return this.reader.Value; }
        }

        private void Load()
        {
            if (this.loaded)
            {
                return;
            }
            this.loaded = true;
            this.count = 0;
            this.declarations = None;
            List<string> declared = null;
            if (!this.reader.MoveToFirstAttribute())
            {
                return;
            }
            do
            {
                if (this.reader.NamespaceURI == XmlNames.Declarations)
                {
                    declared = declared ?? new List<string>();
                    declared.Add(this.reader.Prefix.Length == 0 ? "" : this.reader.LocalName);
                    declared.Add(this.reader.Value);
                    continue;
                }
                if (this.count * 3 == this.attributes.Length)
                {
                    Array.Resize(ref this.attributes, this.attributes.Length * 2);
                }
                this.attributes[this.count * 3] = this.reader.NamespaceURI;
                this.attributes[this.count * 3 + 1] = this.reader.LocalName;
                this.attributes[this.count * 3 + 2] = this.reader.Value;
                this.count++;
            }
            while (this.reader.MoveToNextAttribute());
            this.reader.MoveToElement();
            this.declarations = declared == null ? None : declared.ToArray();
        }

        internal override int AttributeCount
        {
            get
            {
                this.Load();
                return this.count;
            }
        }

        internal override string AttributeNamespace(int index)
        {
            return this.attributes[index * 3];
        }

        internal override string AttributeName(int index)
        {
            return this.attributes[index * 3 + 1];
        }

        internal override string AttributeValue(int index)
        {
            return this.attributes[index * 3 + 2];
        }

        internal override string[] Declarations
        {
            get
            {
                this.Load();
                return this.declarations;
            }
        }

        internal override string Lookup(string prefix)
        {
            return this.reader.LookupNamespace(prefix);
        }

        internal override int Line
        {
            get { return this.place == null ? 1 : Math.Max(1, this.place.LineNumber); }
        }

        internal override int Column
        {
            get { return this.place == null ? 1 : Math.Max(1, this.place.LinePosition); }
        }
    }

    /// <summary>Turns the bytes of a message into characters (XML 1.0, appendix F), and refuses bytes that stand for none.</summary>
    internal static class MessageText
    {
        private const int Room = 4096;

        // In it, what others on the way take for letters may be markup.
        private const int Utf7 = 65000;

        internal static TextReader Decode(Stream stream, string transport, long most)
        {
            BoundedStream bounded = new BoundedStream(stream, most);
            byte[] start = new byte[256];
            int length = 0;
            int read;
            while (length < start.Length && (read = bounded.Read(start, length, start.Length - length)) > 0)
            {
                length += read;
            }
            Stream whole = new PrecededStream(start, length, bounded);
            return new DecodedText(new StreamReader(whole, Strict(EncodingOf(start, length, transport)), true, Room));
        }

        private static Encoding Strict(string name)
        {
            try
            {
                Encoding known = Encoding.GetEncoding(name, EncoderFallback.ExceptionFallback, DecoderFallback.ExceptionFallback);
                if (known.CodePage != Utf7)
                {
                    return known;
                }
            }
            catch (Exception e) when (e is ArgumentException || e is NotSupportedException)
            {
                throw Unknown(name, e);
            }
            throw Unknown(name, null);
        }

        private static XmlFormatException Unknown(string encoding, Exception cause)
        {
            return new XmlFormatException("the encoding " + XmlCursor.Shorten(encoding) + " is not known", 1, 1, "", cause);
        }

        /// <summary>A mark at the start goes before all, then what the transport says, then the declaration.</summary>
        private static string EncodingOf(byte[] start, int length, string transport)
        {
            if (length >= 2 && ((start[0] == 0xfe && start[1] == 0xff) || (start[0] == 0xff && start[1] == 0xfe)))
            {
                return start[0] == 0xfe ? "utf-16BE" : "utf-16";
            }
            if (length >= 3 && start[0] == 0xef && start[1] == 0xbb && start[2] == 0xbf)
            {
                return "utf-8";
            }
            if (!string.IsNullOrEmpty(transport))
            {
                return transport;
            }
            if (length >= 2 && (start[0] == 0 || start[1] == 0))
            {
                return start[0] == 0 ? "utf-16BE" : "utf-16";
            }
            string declaration = Encoding.ASCII.GetString(start, 0, length);
            int end = declaration.StartsWith("<?xml", StringComparison.Ordinal) ? declaration.IndexOf("?>", StringComparison.Ordinal) : -1;
            int at = end < 0 ? -1 : declaration.IndexOf("encoding", 0, end, StringComparison.Ordinal);
            if (at >= 0)
            {
                int quote = declaration.IndexOfAny(new[] { '"', '\'' }, at);
                int close = quote < 0 ? -1 : declaration.IndexOf(declaration[quote], quote + 1);
                if (close > 0 && close < end)
                {
                    return declaration.Substring(quote + 1, close - quote - 1);
                }
            }
            return "utf-8";
        }

        /// <summary>Tells of bytes that stand for no character as of any other place that is not well-formed.</summary>
        private sealed class DecodedText : TextReader
        {
            private readonly StreamReader text;

            internal DecodedText(StreamReader text)
            {
                this.text = text;
            }

            public override int Peek()
            {
                return this.Guarded(() => this.text.Peek());
            }

            public override int Read()
            {
                return this.Guarded(() => this.text.Read());
            }

            public override int Read(char[] buffer, int index, int count)
            {
                try
                {
                    return this.text.Read(buffer, index, count);
                }
                catch (DecoderFallbackException e)
                {
                    throw Wrong(e);
                }
            }

            private int Guarded(Func<int> reading)
            {
                try
                {
                    return reading();
                }
                catch (DecoderFallbackException e)
                {
                    throw Wrong(e);
                }
            }

            private static XmlException Wrong(DecoderFallbackException e)
            {
                return new XmlException("the bytes are not of the encoding that the message is in", e);
            }
        }
    }

    /// <summary>A stream that is read from its start to its end, and for nothing else.</summary>
    internal abstract class ForwardStream : Stream
    {
        public override bool CanRead
        {
            get { return true; }
        }

        public override bool CanSeek
        {
            get { return false; }
        }

        public override bool CanWrite
        {
            get { return false; }
        }

        public override long Length
        {
            get { throw new NotSupportedException(); }
        }

        public override long Position
        {
            get { throw new NotSupportedException(); }
            set { throw new NotSupportedException(); }
        }

        public override void Flush()
        {
        }

        public override long Seek(long offset, SeekOrigin origin)
        {
            throw new NotSupportedException();
        }

        public override void SetLength(long value)
        {
            throw new NotSupportedException();
        }

        public override void Write(byte[] buffer, int offset, int count)
        {
            throw new NotSupportedException();
        }
    }

    /// <summary>A stream of which some bytes have been read already.</summary>
    internal sealed class PrecededStream : ForwardStream
    {
        private readonly byte[] start;
        private readonly int length;
        private readonly Stream rest;
        private int at;

        internal PrecededStream(byte[] start, int length, Stream rest)
        {
            this.start = start;
            this.length = length;
            this.rest = rest;
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            if (this.at == this.length)
            {
                return this.rest.Read(buffer, offset, count);
            }
            int size = Math.Min(count, this.length - this.at);
            Array.Copy(this.start, this.at, buffer, offset, size);
            this.at += size;
            return size;
        }
    }

    /// <summary>A stream of which so many bytes are read and no more.</summary>
    internal sealed class BoundedStream : ForwardStream
    {
        private readonly Stream stream;
        private readonly long most;
        private long read;

        internal BoundedStream(Stream stream, long most)
        {
            this.stream = stream;
            this.most = most;
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            int size = this.stream.Read(buffer, offset, count);
            this.read += size;
            if (this.read > this.most)
            {
                throw new XmlFormatException("the message is longer than " + this.most + " bytes");
            }
            return size;
        }
    }
}
