package org.protypos.message.inclusion;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.protypos.message.model.Vocabulary;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.Builtins;
import org.protypos.schema.facet.FacetStep;
import org.protypos.schema.pattern.SchemaPattern;

/** All that an atomic type demands of its values, that of its bases too. */
final class AtomFacets {
    private static final String ANY_TEXT = "[\\s\\S]*";

    /** What the values of built-in types look like, where a pattern says it all (XML Schema Part 2, section 3). */
    private static final Map<String, String> LEXICAL = Map.ofEntries(
            Map.entry("string", ANY_TEXT),
            Map.entry("anySimpleType", ANY_TEXT),
            Map.entry("anyURI", ANY_TEXT),
            Map.entry("normalizedString", "[^\\t\\n\\r]*"),
            Map.entry("token", "(\\S+( \\S+)*)?"),
            Map.entry("language", "[a-zA-Z]{1,8}(-[a-zA-Z0-9]{1,8})*"),
            Map.entry("NMTOKEN", "\\c+"),
            Map.entry("Name", "\\i\\c*"),
            Map.entry("NCName", "[\\i-[:]][\\c-[:]]*"),
            Map.entry("ID", "[\\i-[:]][\\c-[:]]*"),
            Map.entry("IDREF", "[\\i-[:]][\\c-[:]]*"),
            Map.entry("ENTITY", "[\\i-[:]][\\c-[:]]*"),
            Map.entry("boolean", "true|false|1|0"),
            Map.entry("hexBinary", "([0-9a-fA-F]{2})*"),
            Map.entry("decimal", "[+\\-]?([0-9]+(\\.[0-9]*)?|\\.[0-9]+)"),
            Map.entry("integer", "[+\\-]?[0-9]+"));

    private final String builtin;
    private final String primitive;
    private static final Runnable NOTHING = () -> {};

    private final List<FacetStep> steps = new ArrayList<>();
    private final List<List<SchemaPattern>> patterns = new ArrayList<>();
    private BigDecimal least;
    private BigDecimal most;
    private int minLength;
    private int maxLength = Integer.MAX_VALUE;
    private int total = Integer.MAX_VALUE;
    private int fraction = Integer.MAX_VALUE;

    AtomFacets(ValueRule rule, Vocabulary vocabulary) {
        builtin = rule.builtin();
        primitive = rule.primitive();
        if (isWhole()) {
            fraction = 0;
        }
        BuiltIn type = BuiltIn.of(builtin);
        least = type == null ? null : type.least();
        most = type == null ? null : type.most();
        for (ValueRule at = rule; at != null; at = at.base()) {
            FacetStep step = vocabulary.step(at);
            if (step != null) {
                steps.add(step);
                narrow(step);
            }
        }
    }

    private void narrow(FacetStep step) {
        step.map(new FacetStep.Cases<Runnable>(
                        space -> NOTHING,
                        matching -> () -> patterns.add(matching.patterns()),
                        values -> NOTHING,
                        bound -> () -> least(inclusive(bound.bound(), bound.exclusive(), BigDecimal.ONE)),
                        bound -> () -> most(inclusive(bound.bound(), bound.exclusive(), BigDecimal.ONE.negate())),
                        length -> () -> {
                            minLength = Math.max(minLength, length.least());
                            maxLength = Math.min(maxLength, length.most());
                        },
                        digits -> () -> {
                            total = Math.min(total, digits.total());
                            fraction = Math.min(fraction, digits.fraction());
                        }))
                .run();
    }

    private void least(BigDecimal bound) {
        least = bound == null || least != null && least.compareTo(bound) > 0 ? least : bound;
    }

    private void most(BigDecimal bound) {
        most = bound == null || most != null && most.compareTo(bound) < 0 ? most : bound;
    }

    /** A bound of numbers as one that is a value itself where that can be said; of other numbers the bound itself. */
    private BigDecimal inclusive(String bound, boolean exclusive, BigDecimal inwards) {
        try {
            BigDecimal value = primitive.equals("decimal") ? Lexical.parseDecimal(bound) : null;
            return value != null && exclusive && isWhole() ? value.add(inwards) : value;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    String builtin() {
        return builtin;
    }

    String primitive() {
        return primitive;
    }

    /** Whether its values are whole numbers. */
    boolean isWhole() {
        return primitive.equals("decimal") && !builtin.equals("decimal");
    }

    List<FacetStep> steps() {
        return steps;
    }

    /** The least number, or null when there is none. */
    BigDecimal least() {
        return least;
    }

    /** The greatest number, or null when there is none. */
    BigDecimal most() {
        return most;
    }

    int minLength() {
        return minLength;
    }

    int maxLength() {
        return maxLength;
    }

    /** How many digits a value has at most, as its bounds say too. */
    int total() {
        if (isWhole() && least != null && most != null) {
            int digits = Math.max(least.abs().precision(), most.abs().precision());
            return Math.min(total, digits);
        }
        return total;
    }

    int fraction() {
        return fraction;
    }

    /** Patterns of each of which its texts match one; with what its built-in type looks like, if a pattern says that. */
    List<List<SchemaPattern>> language() {
        List<List<SchemaPattern>> all = new ArrayList<>(patterns);
        String lexical = LEXICAL.get(isWhole() ? "integer" : builtin);
        if (lexical != null) {
            all.add(List.of(SchemaPattern.of(lexical)));
        }
        return all;
    }

    /** What a built-in type looks like, or null when no pattern says just that. */
    static SchemaPattern lexical(String builtin) {
        String lexical = LEXICAL.get(builtin);
        return lexical == null ? null : SchemaPattern.of(lexical);
    }

    /** Whether all values of a built-in type are values of another, apart from bounds. */
    boolean isAlso(String other) {
        return switch (other) {
            case "string", "anySimpleType", "normalizedString", "token", "anyURI" -> true;
            case "float", "double" ->
                primitive.equals("decimal") || primitive.equals("float") || primitive.equals("double");
            default -> Builtins.derives(builtin, other) || isWhole() && Builtins.derives(other, "integer");
        };
    }
}
