package org.protypos.schema.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** Reads the pattern language of XML Schema (Part 2, appendix F), which differs from that of the platform. */
final class PatternParser {
    private static final String NAME_START = "\\p{L}\\p{Nl}_:";
    private static final String NAME_REST = NAME_START + "\\p{M}\\p{Nd}.\\-\\x{b7}\\x{387}\\x{203f}\\x{2040}";
    private static final int MOST_COUNT = 100_000;
    private static final int MOST_DEPTH = 100;

    private final String text;
    private int at;
    private int depth;

    PatternParser(String text) {
        this.text = text;
    }

    PatternNode parse() {
        PatternNode node = branches();
        if (at < text.length()) {
            throw wrong("a closing bracket has no opening one");
        }
        return node;
    }

    private IllegalArgumentException wrong(String message) {
        return new IllegalArgumentException(message + " (character " + (at + 1) + ")");
    }

    private boolean comes(char c) {
        return at < text.length() && text.charAt(at) == c;
    }

    private int next() {
        if (at >= text.length()) {
            throw wrong("the pattern ends too early");
        }
        int c = text.codePointAt(at);
        at += Character.charCount(c);
        return c;
    }

    private PatternNode branches() {
        if (++depth > MOST_DEPTH) {
            throw wrong("brackets are nested too deep");
        }
        List<PatternNode> branches = new ArrayList<>();
        branches.add(pieces());
        while (comes('|')) {
            at++;
            branches.add(pieces());
        }
        depth--;
        return branches.size() == 1 ? branches.get(0) : new PatternNode.Branches(branches);
    }

    private PatternNode pieces() {
        List<PatternNode> pieces = new ArrayList<>();
        while (at < text.length() && !comes('|') && !comes(')')) {
            pieces.add(quantified(atom()));
        }
        return pieces.size() == 1 ? pieces.get(0) : new PatternNode.Pieces(pieces);
    }

    private PatternNode atom() {
        int c = next();
        switch (c) {
            case '(' -> {
                PatternNode inner = branches();
                if (!comes(')')) {
                    throw wrong("a bracket is not closed");
                }
                at++;
                return inner;
            }
            case '[' -> {
                return new PatternNode.Characters(characterClass());
            }
            case '.' -> {
                return new PatternNode.Characters("[^\\n\\r]");
            }
            case '\\' -> {
                return new PatternNode.Characters("[" + escape() + "]");
            }
            case '?', '*', '+' -> throw wrong("a quantifier has nothing before it");
            default -> {
                return new PatternNode.Characters(literal(c));
            }
        }
    }

    private PatternNode quantified(PatternNode atom) {
        if (at >= text.length()) {
            return atom;
        }
        switch (text.charAt(at)) {
            case '?' -> {
                at++;
                return new PatternNode.Repeated(atom, 0, 1);
            }
            case '*' -> {
                at++;
                return new PatternNode.Repeated(atom, 0, Integer.MAX_VALUE);
            }
            case '+' -> {
                at++;
                return new PatternNode.Repeated(atom, 1, Integer.MAX_VALUE);
            }
            case '{' -> {
                at++;
                return counted(atom);
            }
            default -> {
                return atom;
            }
        }
    }

    private PatternNode counted(PatternNode atom) {
        int least = comes(',') ? 0 : count();
        int most = least;
        if (comes(',')) {
            at++;
            most = comes('}') ? Integer.MAX_VALUE : count();
        }
        if (!comes('}') || least > most) {
            throw wrong("a quantifier is written {n}, {n,} or {n,m}");
        }
        at++;
        return new PatternNode.Repeated(atom, least, most);
    }

    private int count() {
        int start = at;
        while (at < text.length() && Character.digit(text.charAt(at), 10) >= 0) {
            at++;
        }
        if (start == at || at - start > 6) {
            throw wrong("a quantifier needs a number");
        }
        return Math.min(MOST_COUNT, Integer.parseInt(text.substring(start, at)));
    }

    /** Everything behind the opening bracket, the closing one included. */
    private String characterClass() {
        if (++depth > MOST_DEPTH) {
            throw wrong("brackets are nested too deep");
        }
        StringBuilder java = new StringBuilder("[");
        if (comes('^')) {
            at++;
            java.append('^');
        }
        int start = at;
        while (!comes(']') || at == start) {
            if (comes('-') && at + 1 < text.length() && text.charAt(at + 1) == '[') {
                at += 2;
                String without = characterClass();
                if (!comes(']')) {
                    throw wrong("what is taken out of a character class stands at its end");
                }
                at++;
                depth--;
                return "[" + java + "]&&[^" + without + "]]";
            }
            member(java);
        }
        at++;
        depth--;
        return java.append(']').toString();
    }

    private void member(StringBuilder java) {
        int c = next();
        if (c == '[') {
            throw wrong("a bracket inside a character class is written \\[");
        }
        boolean escaped = c == '\\';
        int from = escaped ? singleEscape() : c;
        if (from < 0) {
            java.append(escape());
            return;
        }
        boolean range =
                comes('-') && at + 1 < text.length() && text.charAt(at + 1) != ']' && text.charAt(at + 1) != '[';
        if (!range) {
            java.append(literal(from));
            return;
        }
        at++;
        int to = next();
        if (to == '\\') {
            to = singleEscape();
        }
        if (to < from) {
            throw wrong("a range of characters runs backwards");
        }
        java.append(literal(from)).append('-').append(literal(to));
    }

    /** The character that an escape stands for, or -1 when it stands for a set. */
    private int singleEscape() {
        if (at >= text.length()) {
            throw wrong("the pattern ends too early");
        }
        char c = text.charAt(at);
        int single =
                switch (c) {
                    case 'n' -> '\n';
                    case 'r' -> '\r';
                    case 't' -> '\t';
                    default -> "\\|.?*+(){}-[]^$/ \"'!@#%&,:;<=>_`~".indexOf(c) >= 0 ? c : -1;
                };
        at += single < 0 ? 0 : 1;
        return single;
    }

    /** An escape behind its backslash, as what may stand inside a character class of the platform. */
    private String escape() {
        int single = singleEscape();
        if (single >= 0) {
            return literal(single);
        }
        int c = next();
        return switch (c) {
            case 's' -> " \\t\\n\\r";
            case 'S' -> "[^ \\t\\n\\r]";
            case 'd' -> "\\p{Nd}";
            case 'D' -> "\\P{Nd}";
            case 'w' -> "[^\\p{P}\\p{Z}\\p{C}]";
            case 'W' -> "[\\p{P}\\p{Z}\\p{C}]";
            case 'i' -> "[" + NAME_START + "]";
            case 'I' -> "[^" + NAME_START + "]";
            case 'c' -> "[" + NAME_REST + "]";
            case 'C' -> "[^" + NAME_REST + "]";
            case 'p', 'P' -> property(c);
            default -> throw wrong("there is no escape \\" + Character.toString(c));
        };
    }

    private String property(int kind) {
        int end = text.indexOf('}', at);
        if (!comes('{') || end < 0) {
            throw wrong("a character property is written \\p{Name}");
        }
        String name = text.substring(at + 1, end);
        at = end + 1;
        String java = "\\" + (char) kind + "{" + (name.startsWith("Is") ? "In" + name.substring(2) : name) + "}";
        try {
            Pattern.compile(java);
        } catch (PatternSyntaxException e) {
            throw wrong("there is no character property " + name);
        }
        return java;
    }

    private static String literal(int c) {
        boolean plain = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c > 0xffff;
        boolean printable = c > ' ' && c < 0x7f;
        if (plain && c <= 0xffff) {
            return Character.toString(c);
        }
        return printable ? "\\" + (char) c : String.format(Locale.ROOT, "\\x{%x}", c);
    }
}
