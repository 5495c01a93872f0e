namespace Protypos.Runtime
{
    using System;
    using System.IO;

    /// <summary>More bytes came than are allowed.</summary>
    internal sealed class TooLongException : IOException
    {
        internal TooLongException(string what, long most)
            : base(what + " is longer than " + most + " bytes")
        {
        }
    }

    /// <summary>
    /// Takes bytes that come in: few into memory, many into a temporary file, which the system takes back when nobody reads it any
    /// more. More than allowed are refused.
    /// </summary>
    internal sealed class Spool : Stream
    {
        private const int MostInMemory = 256 * 1024;

        private readonly object access = new object();
        private readonly long most;
        private readonly bool isLarge;
        private readonly string what;
        private MemoryStream memory = new MemoryStream();
        private FileStream file;
        private long length;

        /// <summary>Starts taking bytes.</summary>
        /// <param name="most">how many are allowed</param>
        /// <param name="isLarge">whether they may be too many for memory</param>
        /// <param name="what">what they are, for the complaint when there are more</param>
        internal Spool(long most, bool isLarge, string what)
        {
            this.most = most;
            this.isLarge = isLarge;
            this.what = what;
        }

        public override void Write(byte[] buffer, int offset, int count)
        {
            if (this.length + count > this.most)
            {
                throw new TooLongException(this.what, this.most);
            }
            this.length += count;
            if (this.file == null && this.isLarge && this.length > MostInMemory)
            {
                this.file = new FileStream(
                    Path.GetTempFileName(),
                    FileMode.Create,
                    FileAccess.ReadWrite,
                    FileShare.None,
                    4096,
                    FileOptions.DeleteOnClose);
                this.memory.WriteTo(this.file);
                this.memory = null;
            }
            ((Stream)this.file ?? this.memory).Write(buffer, offset, count);
        }

        /// <summary>All that was taken, in memory.</summary>
        internal byte[] ToArray()
        {
            if (this.file == null)
            {
                return this.memory.ToArray();
            }
            using (MemoryStream all = new MemoryStream())
            {
                this.OpenRead(0, this.length).CopyTo(all);
                return all.ToArray();
            }
        }

        /// <summary>Opens a piece of what was taken: from one byte on up to another. Several may be read at once.</summary>
        internal Stream OpenRead(long from, long to)
        {
            return this.file == null
                ? (Stream)new MemoryStream(this.memory.GetBuffer(), (int)from, (int)(to - from), false)
                : new Slice(this, from, to);
        }

        public override long Length
        {
            get { return this.length; }
        }

        public override bool CanRead
        {
            get { return false; }
        }

        public override bool CanSeek
        {
            get { return false; }
        }

        public override bool CanWrite
        {
            get { return true; }
        }

        public override long Position
        {
            get { return this.length; }
            set { throw new NotSupportedException(); }
        }

        public override void Flush()
        {
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            throw new NotSupportedException();
        }

        public override long Seek(long offset, SeekOrigin origin)
        {
            throw new NotSupportedException();
        }

        public override void SetLength(long value)
        {
            throw new NotSupportedException();
        }

        /// <summary>Reads a piece of the file.</summary>
        private sealed class Slice : ForwardStream
        {
            private readonly Spool spool;
            private readonly long start;
            private readonly long end;
            private long at;

            internal Slice(Spool spool, long from, long end)
            {
                this.spool = spool;
                this.start = from;
                this.at = from;
                this.end = end;
            }

            public override int Read(byte[] buffer, int offset, int count)
            {
                int wanted = (int)Math.Min(count, this.end - this.at);
                if (wanted <= 0)
                {
                    return 0;
                }
                lock (this.spool.access)
                {
                    this.spool.file.Position = this.at;
                    int read = this.spool.file.Read(buffer, offset, wanted);
                    this.at += read;
                    return read;
                }
            }

            public override long Length
            {
                get { return this.end - this.start; }
            }

            public override long Position
            {
                get { return this.at - this.start; }
                set { throw new NotSupportedException(); }
            }
        }
    }
}
