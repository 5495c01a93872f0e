package org.protypos.runtime.parse;

/** What may stand where in XML (XML 1.0, fifth edition, sections 2.2 and 2.3). */
public final class Characters {
    private static final int NAME_START = 1;
    private static final int NAME = 2;
    private static final int SPACE = 4;
    private static final int PLAIN = 8;
    private static final byte[] KINDS = new byte[128];

    static {
        for (char c = 'a'; c <= 'z'; c++) {
            KINDS[c] = NAME_START | NAME;
            KINDS[Character.toUpperCase(c)] = NAME_START | NAME;
        }
        for (char c = '0'; c <= '9'; c++) {
            KINDS[c] = NAME;
        }
        KINDS['_'] = NAME_START | NAME;
        KINDS[':'] = NAME_START | NAME;
        KINDS['-'] = NAME;
        KINDS['.'] = NAME;
        for (char c : " \t\r\n".toCharArray()) {
            KINDS[c] = SPACE;
        }
        for (char c = ' '; c < 128; c++) {
            // What ends a run of text or of an attribute's value is not plain.
            boolean plain = c != ' ' && "<&]\"'".indexOf(c) < 0;
            KINDS[c] = (byte) (KINDS[c] | (plain ? PLAIN : 0));
        }
    }

    private Characters() {}

    static boolean isSpace(char c) {
        return c < 128 && (KINDS[c] & SPACE) != 0;
    }

    /** Whether it is a character that means nothing but itself, in text and in values. */
    static boolean isPlain(char c) {
        return c < 128 && (KINDS[c] & PLAIN) != 0;
    }

    static boolean isNameCharacter(char c) {
        return c < 128 && (KINDS[c] & NAME) != 0;
    }

    static boolean isNameStart(int c) {
        if (c < 128) {
            return (KINDS[c] & NAME_START) != 0;
        }
        return c >= 0xC0 && c <= 0x2FF && c != 0xD7 && c != 0xF7
                || c >= 0x370 && c <= 0x1FFF && c != 0x37E
                || c == 0x200C
                || c == 0x200D
                || c >= 0x2070 && c <= 0x218F
                || c >= 0x2C00 && c <= 0x2FEF
                || c >= 0x3001 && c <= 0xD7FF
                || c >= 0xF900 && c <= 0xFDCF
                || c >= 0xFDF0 && c <= 0xFFFD
                || c >= 0x10000 && c <= 0xEFFFF;
    }

    static boolean isName(int c) {
        if (c < 128) {
            return (KINDS[c] & NAME) != 0;
        }
        return isNameStart(c) || c == 0xB7 || c >= 0x300 && c <= 0x36F || c == 0x203F || c == 0x2040;
    }

    /** Whether text is a name without a colon (Namespaces in XML, section 3). */
    public static boolean isNcName(String text) {
        return !text.isEmpty()
                && text.indexOf(':') < 0
                && isNameStart(text.codePointAt(0))
                && text.codePoints().allMatch(Characters::isName);
    }

    /** Whether it may stand in a document at all. */
    public static boolean isLegal(int c) {
        return c >= 0x20 && c <= 0xD7FF
                || c == '\t'
                || c == '\n'
                || c == '\r'
                || c >= 0xE000 && c <= 0xFFFD
                || c >= 0x10000 && c <= 0x10FFFF;
    }
}
