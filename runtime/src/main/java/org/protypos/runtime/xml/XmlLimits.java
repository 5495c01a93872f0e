package org.protypos.runtime.xml;

/**
 * Bounds on a message that is read. Whatever passes them is refused before it can exhaust memory or stack.
 *
 * @param bytes the longest message, in bytes
 * @param depth the deepest nesting of elements
 * @param attributes the most attributes on one element
 * @param memory what the values of one message may take of the memory, in bytes, by estimate
 */
public record XmlLimits(long bytes, int depth, int attributes, long memory) {
    /** 64 MiB, 400 levels, 1,000 attributes, and 512 MiB of memory or a quarter of what the process may have. */
    public static final XmlLimits DEFAULT = new XmlLimits(64L << 20, 400, 1_000);

    /** The bounds with the default one on memory. */
    public XmlLimits(long bytes, int depth, int attributes) {
        this(bytes, depth, attributes, Math.min(512L << 20, Runtime.getRuntime().maxMemory() / 4));
    }

    public XmlLimits {
        if (bytes < 1 || depth < 1 || attributes < 1 || memory < 1) {
            throw new IllegalArgumentException(
                    "limits start at 1: " + bytes + ", " + depth + ", " + attributes + ", " + memory);
        }
    }
}
