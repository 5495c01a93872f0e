namespace Protypos.Runtime
{
    using System;

    /// <summary>Bounds on a message that is read. Whatever passes them is refused before it can exhaust memory or stack.</summary>
    public sealed class XmlLimits
    {
        /// <summary>64 MiB, 400 levels, 1,000 attributes, and 512 MiB of memory.</summary>
        public static readonly XmlLimits Default = new XmlLimits(64L << 20, 400, 1000, 512L << 20);

        /// <summary>Sets the bounds.</summary>
        /// <param name="bytes">the longest message, in bytes</param>
        /// <param name="depth">the deepest nesting of elements</param>
        /// <param name="attributes">the most attributes on one element</param>
        /// <param name="memory">what the values of one message may take of the memory, in bytes, by estimate</param>
        public XmlLimits(long bytes, int depth, int attributes, long memory)
        {
            if (bytes < 1 || depth < 1 || attributes < 1 || memory < 1)
            {
                throw new ArgumentOutOfRangeException("bytes", "limits start at 1");
            }
            this.Bytes = bytes;
            this.Depth = depth;
            this.Attributes = attributes;
            this.Memory = memory;
        }

        /// <summary>The longest message, in bytes.</summary>
        public long Bytes { get; private set; }

        /// <summary>The deepest nesting of elements.</summary>
        public int Depth { get; private set; }

        /// <summary>The most attributes on one element.</summary>
        public int Attributes { get; private set; }

        /// <summary>What the values of one message may take of the memory, in bytes, by estimate.</summary>
        public long Memory { get; private set; }
    }
}
