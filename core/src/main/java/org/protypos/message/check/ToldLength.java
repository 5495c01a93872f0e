package org.protypos.message.check;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The length of a value as a complaint about it counts: in characters, octets or items (XML Schema Part 2, section 4.3.1). */
public final class ToldLength {
    private static final Pattern LENGTH = Pattern.compile("has a length of ([0-9]{1,9})");

    private ToldLength() {}

    /** The length that a complaint tells, or -1 when it tells none. */
    public static int in(String complaint) {
        Matcher told = LENGTH.matcher(complaint);
        int length = -1;
        // What is complained of is quoted before it.
        while (told.find()) {
            length = Integer.parseInt(told.group(1));
        }
        return length;
    }
}
