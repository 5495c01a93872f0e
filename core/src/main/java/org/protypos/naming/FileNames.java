package org.protypos.naming;

import java.nio.charset.StandardCharsets;
import java.util.List;

/** What names of classes may be for the sake of the files they are written into. */
public final class FileNames {
    /** Names that some file systems keep for devices, with any ending. */
    public static final List<String> DEVICES =
            List.of(("con prn aux nul com0 com1 com2 com3 com4 com5 com6 com7 com8 com9"
                            + " lpt0 lpt1 lpt2 lpt3 lpt4 lpt5 lpt6 lpt7 lpt8 lpt9")
                    .split(" "));

    private static final int LONGEST = 100;

    private FileNames() {}

    /**
     * A name that a file can have: itself, or its beginning and a number made of all of it. File systems count bytes.
     *
     * @param name the name as it is to be written
     * @param whole what the number is made of
     */
    public static String fitting(String name, String whole) {
        if (bytes(name) <= LONGEST) {
            return name;
        }
        StringBuilder cut = new StringBuilder();
        int[] points = name.codePoints().toArray();
        for (int i = 0; bytes(cut.toString()) < LONGEST - 12; i++) {
            cut.appendCodePoint(points[i]);
        }
        return cut + String.format("_%08x", whole.hashCode());
    }

    /** Whether a file can have a name that somebody has chosen, which may be longer than those that are made. */
    public static boolean isPossible(String name) {
        return bytes(name) <= 2 * LONGEST;
    }

    private static int bytes(String name) {
        return name.getBytes(StandardCharsets.UTF_8).length;
    }
}
