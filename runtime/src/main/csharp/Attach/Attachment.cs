namespace Protypos.Runtime
{
    using System;
    using System.IO;

    /// <summary>Bytes of some media type, perhaps too many to hold in memory. It can be opened any number of times.</summary>
    public sealed class Attachment : IEquatable<Attachment>
    {
        private readonly Func<Stream> open;

        private Attachment(Func<Stream> open, long length, string contentType)
        {
            this.open = open;
            this.Length = length;
            this.ContentType = contentType;
        }

        /// <summary>How many bytes there are.</summary>
        public long Length { get; private set; }

        /// <summary>The media type, or null when nobody has said any.</summary>
        public string ContentType { get; private set; }

        /// <summary>Bytes in memory.</summary>
        public static Attachment Of(byte[] content, string contentType = null)
        {
            if (content == null)
            {
                throw new ArgumentNullException("content");
            }
            return new Attachment(() => new MemoryStream(content, false), content.Length, contentType);
        }

        internal static Attachment Of(Func<Stream> open, long length, string contentType)
        {
            return new Attachment(open, length, contentType);
        }

        /// <summary>The bytes of a file, read when they are needed.</summary>
        public static Attachment OfFile(string path, string contentType = null)
        {
            return new Attachment(() => File.OpenRead(path), new FileInfo(path).Length, contentType);
        }

        /// <summary>The same bytes with another media type.</summary>
        public Attachment WithContentType(string contentType)
        {
            return new Attachment(this.open, this.Length, contentType);
        }

        /// <summary>Opens the bytes for reading; whoever does closes the stream.</summary>
        public Stream OpenRead()
        {
            return this.open();
        }

        /// <summary>All bytes.</summary>
        public byte[] ToArray()
        {
            using (Stream stream = this.OpenRead())
            using (MemoryStream all = new MemoryStream())
            {
                stream.CopyTo(all);
                return all.ToArray();
            }
        }

        internal string ToBase64()
        {
            return Convert.ToBase64String(this.ToArray());
        }

        /// <summary>Equal when the bytes are.</summary>
        public bool Equals(Attachment other)
        {
            return other != null
                && (ReferenceEquals(this, other) || (other.Length == this.Length && Members.AreEqual(other.ToArray(), this.ToArray())));
        }

        /// <inheritdoc/>
        public override bool Equals(object other)
        {
            return this.Equals(other as Attachment);
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            return this.Length.GetHashCode();
        }

        /// <inheritdoc/>
        public override string ToString()
        {
            return this.Length + " bytes" + (this.ContentType == null ? "" : " of " + this.ContentType);
        }
    }
}
