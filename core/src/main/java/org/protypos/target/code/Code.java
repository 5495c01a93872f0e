package org.protypos.target.code;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/**
 * A piece of source code, made from a template. Types in it are references, which get their names in the file that the code
 * is written to, and texts become literals there: nothing that a contract says can stand in it as anything but a text or a
 * name that was checked.
 *
 * <p>In a template, each mark takes the next argument: {@code $T} a type (a {@link TypeName}, or code that is one), {@code $S}
 * a text for a literal, {@code $N} a name, {@code $L} other code or a number. {@code $$} is a dollar sign.
 */
public final class Code {
    /** No code. */
    public static final Code NONE = new Code(List.of());

    /** Texts as they stand in the code, type names, and texts for literals. */
    private final List<Object> parts;

    private record Literal(String text) {}

    private Code(List<Object> parts) {
        this.parts = parts;
    }

    /** What takes a template apart gives its parts to, in their order. */
    private interface Taker {
        void text(String from, int begin, int end);

        void type(TypeName type);

        void literal(String text);
    }

    /** The code of a template. */
    public static Code of(String template, Object... arguments) {
        List<Object> parts = new ArrayList<>(2 * arguments.length + 1);
        fill(template, arguments, new Taker() {
            @Override
            public void text(String from, int begin, int end) {
                parts.add(from.substring(begin, end));
            }

            @Override
            public void type(TypeName type) {
                parts.add(type);
            }

            @Override
            public void literal(String text) {
                parts.add(new Literal(text));
            }
        });
        return new Code(parts);
    }

    /** Code that is a type. */
    public static Code of(TypeName type) {
        return new Code(List.of(type));
    }

    /** Pieces of code, with a separator between them. */
    public static Code join(String separator, Collection<Code> pieces) {
        List<Object> parts = new ArrayList<>(2 * pieces.size());
        for (Code piece : pieces) {
            if (!parts.isEmpty()) {
                parts.add(separator);
            }
            parts.addAll(piece.parts);
        }
        return new Code(parts);
    }

    /** Texts as literals, with commas between them. */
    public static Code literals(List<String> texts) {
        return join(", ", texts.stream().map(text -> of("$S", text)).toList());
    }

    /** Names, with commas between them. */
    public static Code names(List<String> names) {
        return join(", ", names.stream().map(name -> of("$N", name)).toList());
    }

    /** Whether there is nothing in it. */
    public boolean isEmpty() {
        return parts.isEmpty();
    }

    /** Writes the code of a template. */
    static void write(StringBuilder to, Spelling spelling, String template, Object... arguments) {
        fill(template, arguments, writer(to, spelling));
    }

    private static Taker writer(StringBuilder to, Spelling spelling) {
        return new Taker() {
            @Override
            public void text(String from, int begin, int end) {
                to.append(from, begin, end);
            }

            @Override
            public void type(TypeName type) {
                to.append(spelling.name(type));
            }

            @Override
            public void literal(String text) {
                to.append(spelling.literal(text));
            }
        };
    }

    private void give(Taker taker) {
        for (Object part : parts) {
            if (part instanceof String text) {
                taker.text(text, 0, text.length());
            } else if (part instanceof TypeName type) {
                taker.type(type);
            } else {
                taker.literal(((Literal) part).text());
            }
        }
    }

    /** The code as text, as a file would write it. */
    public String text(Spelling spelling) {
        StringBuilder text = new StringBuilder();
        give(writer(text, spelling));
        return text.toString();
    }

    private static void fill(String template, Object[] arguments, Taker taker) {
        int next = 0;
        int from = 0;
        int at = template.indexOf('$');
        while (at >= 0) {
            if (at > from) {
                taker.text(template, from, at);
            }
            char mark = template.charAt(at + 1);
            if (mark == '$') {
                taker.text(template, at, at + 1);
            } else {
                fill(mark, arguments[next++], taker);
            }
            from = at + 2;
            at = template.indexOf('$', from);
        }
        if (from < template.length()) {
            taker.text(template, from, template.length());
        }
        if (next != arguments.length) {
            throw new IllegalArgumentException(template + " has no place for " + arguments[next]);
        }
    }

    private static void fill(char mark, Object argument, Taker taker) {
        switch (mark) {
            case 'T' -> code(argument, taker);
            case 'S' -> taker.literal((String) argument);
            case 'N' -> text(checked((String) argument), taker);
            case 'L' -> {
                if (argument instanceof BigDecimal number) {
                    text(number.toPlainString(), taker);
                } else if (argument instanceof Number || argument instanceof Boolean) {
                    text(argument.toString(), taker);
                } else {
                    code(argument, taker);
                }
            }
            default -> throw new IllegalArgumentException("$" + mark);
        }
    }

    private static void text(String text, Taker taker) {
        taker.text(text, 0, text.length());
    }

    private static void code(Object argument, Taker taker) {
        if (argument instanceof TypeName type) {
            taker.type(type);
        } else {
            ((Code) argument).give(taker);
        }
    }

    private static String checked(String name) {
        for (int i = 0; i < name.length(); i++) {
            if (!Character.isJavaIdentifierPart(name.charAt(i))) {
                throw new IllegalArgumentException(name + " is no name");
            }
        }
        return name;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Code that && parts.equals(that.parts);
    }

    @Override
    public int hashCode() {
        return parts.hashCode();
    }
}
