package org.protypos.schema.pattern;

import java.util.IdentityHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/** A pattern facet (XML Schema Part 2, section 4.3.4): as the platform writes it, and with texts that match it. */
public final class SchemaPattern {
    /** Characters that people like to see, in the order in which samples take them. */
    static final String LIKED = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz123456789 0.-_/:,+#@!";

    private static final int LONGEST_SAMPLE = 10_000;

    private final String text;
    private final PatternNode root;
    private final Map<PatternNode.Characters, String> liked = new IdentityHashMap<>();

    private SchemaPattern(String text, PatternNode root) {
        this.text = text;
        this.root = root;
    }

    /**
     * Reads a pattern.
     *
     * @throws IllegalArgumentException when it breaks the rules; the message says how
     */
    public static SchemaPattern of(String text) {
        return new SchemaPattern(text, new PatternParser(text).parse());
    }

    /** The pattern as the schema has it. */
    public String text() {
        return text;
    }

    /** The same as a regular expression of the platform, to be matched against the whole of a text. */
    public String toJava() {
        StringBuilder java = new StringBuilder();
        append(root, java);
        return java.toString();
    }

    PatternNode root() {
        return root;
    }

    /** How many states an automaton needs for it, about; saturated at {@link Integer#MAX_VALUE}. */
    public long states() {
        return states(root);
    }

    private static long states(PatternNode node) {
        long count = 1;
        if (node instanceof PatternNode.Pieces pieces) {
            count = pieces.pieces().stream().mapToLong(SchemaPattern::states).sum();
        } else if (node instanceof PatternNode.Branches branches) {
            count = branches.branches().stream()
                    .mapToLong(branch -> states(branch) + 1)
                    .sum();
        } else if (node instanceof PatternNode.Repeated repeated) {
            boolean endless = repeated.most() == Integer.MAX_VALUE;
            long times = endless ? repeated.least() + 1L : repeated.most();
            long forks = endless ? 1 : repeated.most() - repeated.least();
            count = states(repeated.piece()) * times + forks;
        }
        return Math.min(Integer.MAX_VALUE, count);
    }

    private static void append(PatternNode node, StringBuilder java) {
        if (node instanceof PatternNode.Characters characters) {
            java.append(characters.java());
        } else if (node instanceof PatternNode.Pieces pieces) {
            pieces.pieces().forEach(piece -> append(piece, java));
        } else if (node instanceof PatternNode.Repeated repeated) {
            boolean group = !(repeated.piece() instanceof PatternNode.Characters);
            java.append(group ? "(?:" : "");
            append(repeated.piece(), java);
            // What may be nothing may be there any number of times less; the platform would count each nothing.
            int least = isNullable(repeated.piece()) ? 0 : repeated.least();
            java.append(group ? ")" : "").append(quantifier(least, repeated.most()));
        } else if (node instanceof PatternNode.Branches branches) {
            String separator = "(?:";
            for (PatternNode branch : branches.branches()) {
                java.append(separator);
                append(branch, java);
                separator = "|";
            }
            java.append(')');
        }
    }

    private static boolean isNullable(PatternNode node) {
        if (node instanceof PatternNode.Pieces pieces) {
            return pieces.pieces().stream().allMatch(SchemaPattern::isNullable);
        }
        if (node instanceof PatternNode.Branches branches) {
            return branches.branches().stream().anyMatch(SchemaPattern::isNullable);
        }
        return node instanceof PatternNode.Repeated repeated && (repeated.least() == 0 || isNullable(repeated.piece()));
    }

    private static String quantifier(int least, int most) {
        if (most == Integer.MAX_VALUE) {
            return least == 0 ? "*" : least == 1 ? "+" : "{" + least + ",}";
        }
        return least == 0 && most == 1 ? "?" : "{" + least + "," + most + "}";
    }

    /**
     * A text that matches.
     *
     * @param stretch how often more than needed what repeats is repeated
     * @param variant which of the branches and characters to take, from 0
     */
    public String sample(int stretch, int variant) {
        StringBuilder text = new StringBuilder();
        sample(root, text, stretch, new int[] {variant});
        return text.toString();
    }

    private void sample(PatternNode node, StringBuilder text, int stretch, int[] variant) {
        if (text.length() > LONGEST_SAMPLE) {
            return;
        }
        if (node instanceof PatternNode.Characters characters) {
            text.append(character(characters, text.length(), variant));
        } else if (node instanceof PatternNode.Pieces pieces) {
            pieces.pieces().forEach(piece -> sample(piece, text, stretch, variant));
        } else if (node instanceof PatternNode.Repeated repeated) {
            int times = (int) Math.min(repeated.most(), (long) repeated.least() + stretch);
            int before = -1;
            // What adds nothing once adds nothing ever.
            for (int i = 0; i < times && text.length() > before; i++) {
                before = text.length();
                sample(repeated.piece(), text, stretch, variant);
            }
        } else if (node instanceof PatternNode.Branches branches) {
            int count = branches.branches().size();
            int chosen = variant[0] % count;
            variant[0] /= count;
            sample(branches.branches().get(chosen), text, stretch, variant);
        }
    }

    /**
     * A character of a set. What the variant asks for is used up, so that the next set varies with what is left; further
     * on in the text another is taken, for {@code ABC} reads better than {@code AAA}.
     */
    private String character(PatternNode.Characters characters, int position, int[] variant) {
        String known = liked.computeIfAbsent(characters, SchemaPattern::liked);
        if (!known.isEmpty()) {
            int chosen = (variant[0] + position) % known.length();
            variant[0] /= known.length();
            return String.valueOf(known.charAt(chosen));
        }
        return "";
    }

    /** The characters of a set that people like to see, or the first of it when it has none of those. */
    private static String liked(PatternNode.Characters characters) {
        Pattern pattern = Pattern.compile(characters.java());
        StringBuilder known = new StringBuilder();
        for (int i = 0; i < LIKED.length(); i++) {
            String c = LIKED.substring(i, i + 1);
            if (pattern.matcher(c).matches()) {
                known.append(c);
            }
        }
        for (int c = ' '; known.isEmpty() && c <= Character.MAX_VALUE; c++) {
            String text = Character.toString(c);
            if (!Character.isSurrogate((char) c) && pattern.matcher(text).matches()) {
                known.append(text);
            }
        }
        return known.toString();
    }
}
