package org.protypos.naming;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;

/** The words of which a name in a contract is made, composed: split at signs, behind digits, and where a capital begins one. */
public final class NameWords {
    private static final int ASCII = 0x80;
    private static final int PART = 1;
    private static final int DIGIT = 2;
    private static final int LETTER = 4;
    private static final int CAPITAL = 8;
    private static final int SMALL = 16;

    private final char[] text;
    private final IntPredicate isPart;
    private final List<String> words = new ArrayList<>(4);

    private NameWords(char[] text, IntPredicate isPart) {
        this.text = text;
        this.isPart = isPart;
    }

    /**
     * Splits a name.
     *
     * @param isPart whether a character that is not of ASCII may stand in a name of the language; of ASCII letters and digits
     *     may in every language, and what else some allow stands between words
     */
    public static List<String> of(String name, IntPredicate isPart) {
        char[] text = name.toCharArray();
        if (!isPlain(text)) {
            text = Normalizer.normalize(name, Normalizer.Form.NFC).toCharArray();
        }
        return new NameWords(text, isPart).split();
    }

    /** Whether all characters are of ASCII. */
    static boolean isPlain(char[] text) {
        for (char c : text) {
            if (c >= ASCII) {
                return false;
            }
        }
        return true;
    }

    private List<String> split() {
        int start = 0;
        int before = 0;
        int at = 0;
        int kind = kind(0);
        while (at < text.length) {
            int behind = at + (text[at] < ASCII ? 1 : Character.charCount(Character.codePointAt(text, at)));
            int next = kind(behind);
            boolean inside = (before & PART) != 0;
            boolean begins = (kind & PART) == 0 || begins(before, kind, next);
            if (inside && begins) {
                words.add(new String(text, start, at - start));
            }
            start = inside && !begins ? start : at;
            before = kind;
            kind = next;
            at = behind;
        }
        if ((before & PART) != 0) {
            words.add(new String(text, start, text.length - start));
        }
        return words;
    }

    /** Whether a word begins with a character that follows another part of a name. */
    private static boolean begins(int before, int kind, int next) {
        if ((before & DIGIT) != 0) {
            return (kind & LETTER) != 0;
        }
        return (kind & CAPITAL) != 0 && ((before & CAPITAL) == 0 || (next & SMALL) != 0);
    }

    /** What the character at a place is; nothing behind the last one. Most names are of ASCII, whose kinds need no tables. */
    private int kind(int at) {
        if (at == text.length) {
            return 0;
        }
        int c = text[at];
        if (c < ASCII) {
            return c >= 'a' && c <= 'z'
                    ? PART | LETTER | SMALL
                    : c >= 'A' && c <= 'Z' ? PART | LETTER | CAPITAL : c >= '0' && c <= '9' ? PART | DIGIT : 0;
        }
        int point = Character.codePointAt(text, at);
        return (isPart.test(point) ? PART : 0)
                | (Character.isDigit(point) ? DIGIT : 0)
                | (Character.isLetter(point) ? LETTER : 0)
                | (Character.isUpperCase(point) ? CAPITAL : 0)
                | (Character.isLowerCase(point) ? SMALL : 0);
    }
}
