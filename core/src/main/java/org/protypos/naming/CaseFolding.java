package org.protypos.naming;

import java.text.Normalizer;
import java.util.Locale;

/**
 * Decides which names one file may have on some disk: those that are the same when case is folded fully and composed
 * characters are taken apart (The Unicode Standard, section 3.13: canonical caseless matching).
 */
public final class CaseFolding {
    private static final char DOTLESS_I = '\u0131';

    private CaseFolding() {}

    /** What two names have in common exactly when they are one. */
    public static String of(String name) {
        char[] text = name.toCharArray();
        if (NameWords.isPlain(text)) {
            return plain(name, text);
        }
        StringBuilder folded = new StringBuilder();
        Normalizer.normalize(name, Normalizer.Form.NFD).codePoints().forEach(c -> folded.append(fold(c)));
        return Normalizer.normalize(folded, Normalizer.Form.NFD);
    }

    /** Nearly all names are of ASCII, and each is asked for several times. */
    private static String plain(String name, char[] folded) {
        boolean capitals = false;
        for (int i = 0; i < folded.length; i++) {
            if (folded[i] >= 'A' && folded[i] <= 'Z') {
                folded[i] += 'a' - 'A';
                capitals = true;
            }
        }
        return capitals ? new String(folded) : name;
    }

    /** Up and down again: what has no small form of its own, such as the sharp s, takes that of its capitals. */
    private static String fold(int c) {
        String text = Character.toString(c);
        return c == DOTLESS_I
                ? text
                : text.toLowerCase(Locale.ROOT).toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT);
    }
}
