package org.protypos.naming;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** What names of classes may be for the sake of the files they are written into. */
public final class FileNames {
    private static final int LONGEST = 100;
    /** So many bytes are a character of UTF-16 at most. */
    private static final int MOST_BYTES = 3;

    private FileNames() {}

    /**
     * A name that a file can have: itself, or its beginning and a number made of all of it. File systems count bytes.
     *
     * @param name the name as it is to be written
     * @param whole what the number is made of
     */
    public static String fitting(String name, String whole) {
        if (name.length() * MOST_BYTES <= LONGEST || bytes(name) <= LONGEST) {
            return name;
        }
        StringBuilder cut = new StringBuilder();
        int[] points = name.codePoints().toArray();
        for (int i = 0; bytes(cut.toString()) < LONGEST - 12; i++) {
            cut.appendCodePoint(points[i]);
        }
        return cut + String.format(Locale.ROOT, "_%08x", whole.hashCode());
    }

    /** Whether a file can have a name that somebody has chosen, which may be longer than those that are made. */
    public static boolean isPossible(String name) {
        return bytes(name) <= 2 * LONGEST;
    }

    private static int bytes(String name) {
        return name.getBytes(StandardCharsets.UTF_8).length;
    }
}
