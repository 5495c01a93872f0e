package org.protypos.runtime.xml;

/**
 * Bounds on a message that is read. Whatever passes them is refused before it can exhaust memory or stack.
 *
 * @param bytes the longest message, in bytes
 * @param depth the deepest nesting of elements
 * @param attributes the most attributes on one element
 */
public record XmlLimits(long bytes, int depth, int attributes) {
    /** 64 MiB, 400 levels, 1,000 attributes. */
    public static final XmlLimits DEFAULT = new XmlLimits(64L << 20, 400, 1_000);

    public XmlLimits {
        if (bytes < 1 || depth < 1 || attributes < 1) {
            throw new IllegalArgumentException("limits start at 1: " + bytes + ", " + depth + ", " + attributes);
        }
    }
}
