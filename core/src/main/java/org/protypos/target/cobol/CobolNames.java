package org.protypos.target.cobol;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.protypos.target.TargetNames;

/**
 * How COBOL spells names: capitals, digits and hyphens, thirty at most, a letter first, no hyphen last (ISO/IEC 1989:2014,
 * section 8.3.1.1). Names that are too long lose letters where they are missed least, always the same ones.
 */
final class CobolNames implements TargetNames {
    static final String LANGUAGE = "cobol";
    static final int LONGEST = 30;
    /** Names that are made up leave room for a number, should they clash. */
    private static final int LONGEST_MADE = 26;

    /** What a member of a library and a program are called with. */
    static final int LONGEST_MEMBER = 8;

    private static final Set<String> RESERVED = reserved();

    /** The same names come in many records. */
    private final Map<String, String> spelled = new HashMap<>();

    private static Set<String> reserved() {
        try (InputStream in = CobolNames.class.getResourceAsStream("reserved.txt")) {
            return Set.copyOf(Arrays.asList(new String(in.readAllBytes(), StandardCharsets.US_ASCII)
                    .strip()
                    .split("\\s+")));
        } catch (IOException e) {
            throw new UncheckedIOException("the list of reserved words is part of the program", e);
        }
    }

    @Override
    public String language() {
        return LANGUAGE;
    }

    @Override
    public boolean hasRecords() {
        return true;
    }

    /** The words that cannot be names. */
    Set<String> reservedWords() {
        return RESERVED;
    }

    @Override
    public String packageName(String namespace) {
        return member(namespace.replaceFirst("[/#]+$", "").replaceFirst(".*[/:]", ""), LONGEST_MEMBER);
    }

    /** A name as COBOL spells it. */
    String spelled(String name) {
        return spelled.computeIfAbsent(name, any -> shortened(words(name), LONGEST_MADE));
    }

    /** A name with another before it that says where it belongs. */
    String spelled(String around, String name) {
        return spelled.computeIfAbsent(around + '\n' + name, any -> {
            List<String> all = new ArrayList<>(words(around));
            all.addAll(words(name));
            return shortened(all, LONGEST_MADE);
        });
    }

    /** A name for a member of a library: no hyphens, and so many letters at most. */
    String member(String name, int longest) {
        List<String> words = words(name);
        String joined = String.join("", words);
        if (joined.length() <= longest) {
            return joined;
        }
        String letters = shortened(words, longest + words.size() - 1).replace("-", "");
        return letters.substring(0, Math.min(longest, letters.length()));
    }

    private static List<String> words(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD).replaceAll("\\p{M}+", "");
        String parted = plain.replaceAll("(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", " ")
                .replaceAll("[^A-Za-z0-9]+", " ")
                .strip()
                .toUpperCase(Locale.ROOT);
        List<String> words = new ArrayList<>(List.of((parted.isEmpty() ? "FIELD" : parted).split(" ")));
        if (!Character.isLetter(words.get(0).charAt(0))) {
            words.add(0, "F");
        }
        return words;
    }

    /** Words joined by hyphens: the longest lose vowels from behind, then letters, until all fit. */
    private static String shortened(List<String> given, int longest) {
        List<String> words = new ArrayList<>(given);
        while (length(words) > longest) {
            int at = -1;
            for (int i = 0; i < words.size(); i++) {
                if (withoutVowel(words.get(i)) != null
                        && (at < 0 || words.get(i).length() > words.get(at).length())) {
                    at = i;
                }
            }
            if (at < 0) {
                break;
            }
            words.set(at, withoutVowel(words.get(at)));
        }
        while (length(words) > longest) {
            int at = 0;
            for (int i = 1; i < words.size(); i++) {
                at = words.get(i).length() > words.get(at).length() ? i : at;
            }
            String word = words.get(at);
            if (word.length() > 2) {
                words.set(at, word.substring(0, word.length() - 1));
            } else {
                words.remove(words.size() - 2);
            }
        }
        return String.join("-", words);
    }

    private static int length(List<String> words) {
        return words.stream().mapToInt(String::length).sum() + words.size() - 1;
    }

    /** The word without its last vowel that is neither first nor last; null when it has none, or is short. */
    private static String withoutVowel(String word) {
        if (word.length() <= 3) {
            return null;
        }
        for (int i = word.length() - 2; i > 0; i--) {
            if ("AEIOU".indexOf(word.charAt(i)) >= 0) {
                return word.substring(0, i) + word.substring(i + 1);
            }
        }
        return null;
    }

    @Override
    public boolean isName(String text) {
        return text.length() <= LONGEST
                && text.toUpperCase(Locale.ROOT).matches("[A-Z][A-Z0-9]*(-+[A-Z0-9]+)*")
                && text.equals(text.toUpperCase(Locale.ROOT))
                && !RESERVED.contains(text);
    }

    @Override
    public boolean canStandAround(String prefix, String suffix) {
        return (prefix + "X" + suffix).matches("[A-Z][A-Z0-9-]{0,20}") && !suffix.endsWith("-");
    }

    @Override
    public boolean isQualifiedName(String text) {
        return isName(text);
    }

    @Override
    public boolean isPackage(String text) {
        return text.matches("[A-Z][A-Z0-9]{0,7}");
    }
}
