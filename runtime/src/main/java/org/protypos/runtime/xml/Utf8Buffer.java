package org.protypos.runtime.xml;

import java.util.Arrays;
import java.util.Locale;

/** A growing array of bytes that takes text as UTF-8 and escapes what XML 1.0 wants escaped. */
final class Utf8Buffer {
    private byte[] bytes = new byte[1024];
    private int length;

    int length() {
        return length;
    }

    void copy(int from, int to, byte[] into, int at) {
        System.arraycopy(bytes, from, into, at, to - from);
    }

    private void reserve(int more) {
        if (bytes.length - length < more) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + more));
        }
    }

    void ascii(char c) {
        reserve(1);
        bytes[length++] = (byte) c;
    }

    /** Takes text that needs no escape: names, prefixes, markup. */
    void text(String text) {
        reserve(text.length() * 3);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c < 0x80) {
                bytes[length++] = (byte) c;
            } else {
                i += wide(text, i, c);
            }
        }
    }

    /** Takes text and escapes markup; line ends that a parser would change are kept by reference. */
    void escaped(String text, boolean inAttribute) {
        int size = text.length();
        reserve(size * 3 + 8);
        for (int i = 0; i < size; i++) {
            char c = text.charAt(i);
            if (c >= 0x80) {
                i += wide(text, i, c);
            } else if (c > '>' || c != '&' && c != '<' && c != '>' && c != '"' && c >= ' ') {
                bytes[length++] = (byte) c;
            } else {
                special(c, inAttribute);
                reserve((size - i) * 3 + 8);
            }
        }
    }

    private void special(char c, boolean inAttribute) {
        switch (c) {
            case '&' -> text("&amp;");
            case '<' -> text("&lt;");
            case '>' -> text("&gt;");
            case '\r' -> text("&#13;");
            case '"' -> text(inAttribute ? "&quot;" : "\"");
            case '\n' -> text(inAttribute ? "&#10;" : "\n");
            case '\t' -> text(inAttribute ? "&#9;" : "\t");
            default -> throw unwritable(c);
        }
    }

    private static IllegalArgumentException unwritable(char c) {
        return new IllegalArgumentException(
                String.format(Locale.ROOT, "the character U+%04X cannot stand in XML", (int) c));
    }

    /** Writes one character beyond ASCII and gives how many more chars than one it took. */
    private int wide(String text, int at, char c) {
        if (c < 0x800) {
            bytes[length++] = (byte) (0xc0 | c >> 6);
            bytes[length++] = (byte) (0x80 | c & 0x3f);
            return 0;
        }
        if (!Character.isSurrogate(c)) {
            if (c >= 0xfffe) {
                throw unwritable(c);
            }
            bytes[length++] = (byte) (0xe0 | c >> 12);
            bytes[length++] = (byte) (0x80 | c >> 6 & 0x3f);
            bytes[length++] = (byte) (0x80 | c & 0x3f);
            return 0;
        }
        int point = text.codePointAt(at);
        if (point <= 0xffff) {
            throw unwritable(c);
        }
        bytes[length++] = (byte) (0xf0 | point >> 18);
        bytes[length++] = (byte) (0x80 | point >> 12 & 0x3f);
        bytes[length++] = (byte) (0x80 | point >> 6 & 0x3f);
        bytes[length++] = (byte) (0x80 | point & 0x3f);
        return 1;
    }
}
