package org.protypos.runtime.xml;

/**
 * What the values of one message may take of the memory. A message of tiny elements becomes objects that are many times as
 * large as it is itself, so its length alone bounds nothing. Sizes are estimates: objects with their references, texts
 * with their characters.
 */
final class MemoryBudget {
    /** An element without an object of its own: a text, a number, its place in a list. */
    private static final int ELEMENT = 40;

    private static final int OBJECT = 40;
    private static final int REFERENCE = 8;

    private static final int TEXT = 48;

    /** An attribute of which nothing is known is kept by its name in a table. */
    private static final int ATTRIBUTE = 128;

    /** What is kept beside values: a place for it, a name, a table, with what leads there. */
    private static final int NOTE = 160;

    /** The size of an object of a class, 0 while none has come. */
    private static final ClassValue<int[]> SIZES = new ClassValue<>() {
        @Override
        protected int[] computeValue(Class<?> type) {
            return new int[1];
        }
    };

    private final long all;
    private long left;

    MemoryBudget(long bytes) {
        all = bytes;
        left = bytes;
    }

    /** Takes an element; tells whether there was enough for it. */
    boolean element() {
        left -= ELEMENT;
        return left >= 0;
    }

    /** Takes an empty value of an element; tells whether there was enough for it. */
    boolean object(XmlObject value) {
        int[] size = SIZES.get(value.getClass());
        if (size[0] == 0) {
            Description members = new Description("");
            value.describe(members);
            size[0] = OBJECT + REFERENCE * members.members();
        }
        left -= size[0];
        return left >= 0;
    }

    /** Takes a text or bytes; tells whether there was enough for it. */
    boolean text(long length) {
        left -= length == 0 ? 0 : TEXT + length;
        return left >= 0;
    }

    /** Takes attributes that are kept by their names; tells whether there was enough for them. */
    boolean attributes(int count) {
        left -= (long) count * ATTRIBUTE;
        return left >= 0;
    }

    /** Takes what is kept beside values, with texts of so many characters; tells whether there was enough for it. */
    boolean notes(int count, long length) {
        left -= (long) count * NOTE + length;
        return left >= 0;
    }

    /** What to say when there was not enough. */
    String exceeded() {
        return "the values of the message take more than " + (all >> 10) + " KiB of memory";
    }
}
