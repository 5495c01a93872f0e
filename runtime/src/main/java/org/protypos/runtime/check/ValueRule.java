package org.protypos.runtime.check;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.runtime.value.Lexical;
import org.protypos.runtime.value.Order;

/**
 * What a simple type lets its values be (XML Schema Part 2, section 4): a built-in type, a list or a union, narrowed by
 * facets one after the other. Each facet gives a new rule; a rule never changes.
 */
public final class ValueRule {
    private static final int SHOWN_VALUES = 6;
    private static final int SHOWN_LENGTH = 60;

    private final String builtin;
    private final ValueRule item;
    private final List<ValueRule> members;
    private final ValueRule base;
    private final String whiteSpace;
    private final Facet facet;

    /**
     * Text that a rule does not allow.
     *
     * @param rule the rule, of all that were narrowed one after the other, that the text breaks
     * @param message what is wrong with it, such as {@code "12" is greater than 9}
     */
    public record Complaint(ValueRule rule, String message) {}

    private interface Facet {
        /** What is wrong, or null. */
        String complaint(ValueRule of, String text, UnaryOperator<String> namespaces);
    }

    private ValueRule(
            String builtin, ValueRule item, List<ValueRule> members, ValueRule base, String whiteSpace, Facet facet) {
        this.builtin = builtin;
        this.item = item;
        this.members = members;
        this.base = base;
        this.whiteSpace = whiteSpace;
        this.facet = facet;
    }

    /**
     * The rule of a built-in type.
     *
     * @param builtin its local name
     */
    public static ValueRule of(String builtin) {
        String listed = BuiltinText.item(builtin);
        ValueRule item = listed == null ? null : of(listed);
        return new ValueRule(builtin, item, null, null, BuiltinText.whiteSpace(builtin), null);
    }

    /** Items with white space between. */
    public static ValueRule listOf(ValueRule item) {
        return new ValueRule(null, item, null, null, "collapse", null);
    }

    /** Values of any of some types; the first that takes a text has it. */
    public static ValueRule unionOf(ValueRule... members) {
        return new ValueRule(null, null, List.of(members), null, "preserve", null);
    }

    private ValueRule with(Facet added) {
        return new ValueRule(builtin, item, members, this, whiteSpace, added);
    }

    /** The same rule under an identity of its own, so that a {@link Complaint} can tell the two apart. */
    public ValueRule named() {
        return with(null);
    }

    /** White space is treated in a way: {@code preserve}, {@code replace} or {@code collapse}. */
    public ValueRule whiteSpace(String treatment) {
        return new ValueRule(builtin, item, members, this, treatment, null);
    }

    /**
     * Text matches a pattern.
     *
     * @param pattern the pattern as the schema has it, for messages
     * @param java the same as a regular expression of the platform
     */
    public ValueRule pattern(String pattern, String java) {
        TextPattern matcher = new TextPattern(java);
        return with((of, text, namespaces) -> {
            String literal = of.literal(text, namespaces);
            return matcher.matches(literal) ? null : shown(literal) + " does not match " + pattern;
        });
    }

    /** Text as the member of a union that has it treats its white space (XML Schema Part 2, section 4.3.6). */
    private String literal(String text, UnaryOperator<String> namespaces) {
        ValueRule member = members == null ? null : member(text, namespaces);
        return member == null ? text : member.literal(member.normalized(text), namespaces);
    }

    /** The value is one of some. */
    public ValueRule values(String... allowed) {
        return values(null, allowed);
    }

    /**
     * The value is one of some that may hold qualified names.
     *
     * @param allowedNamespaces gives the namespace of a prefix where the allowed values stand
     */
    public ValueRule values(UnaryOperator<String> allowedNamespaces, String... allowed) {
        ValueRule narrowed = this;
        Set<Object> keys = new HashSet<>();
        return with((of, text, namespaces) -> {
            if (keys.isEmpty()) {
                for (String value : allowed) {
                    keys.add(narrowed.key(value, allowedNamespaces));
                }
            }
            return keys.contains(narrowed.key(text, namespaces))
                    ? null
                    : shown(text) + " is none of " + listed(allowed);
        });
    }

    /**
     * The value is one of many.
     *
     * @param joined texts of several values each, with U+001F between
     */
    public ValueRule joinedValues(String... joined) {
        List<String> values = new ArrayList<>();
        for (String text : joined) {
            values.addAll(List.of(text.split("\u001f", -1)));
        }
        return values(values.toArray(String[]::new));
    }

    private static String listed(String... values) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < Math.min(values.length, SHOWN_VALUES); i++) {
            text.append(i == 0 ? "" : ", ").append(shown(values[i]));
        }
        return values.length > SHOWN_VALUES
                ? text + " and " + (values.length - SHOWN_VALUES) + " more"
                : text.toString();
    }

    /** The value is not less than a bound, or greater than it when that is exclusive. */
    public ValueRule least(String bound, boolean exclusive) {
        return with((of, text, namespaces) -> {
            int order = Order.compare(of.primitive(), text, bound);
            boolean holds = order != Order.UNDECIDED && (exclusive ? order > 0 : order >= 0);
            return holds ? null : shown(text) + (exclusive ? " is not greater than " : " is less than ") + bound;
        });
    }

    /** The value is not greater than a bound, or less than it when that is exclusive. */
    public ValueRule most(String bound, boolean exclusive) {
        return with((of, text, namespaces) -> {
            int order = Order.compare(of.primitive(), text, bound);
            boolean holds = exclusive ? order < 0 : order <= 0;
            return holds ? null : shown(text) + (exclusive ? " is not less than " : " is greater than ") + bound;
        });
    }

    /** The length lies between two bounds: characters of text, bytes of binary, items of a list. */
    public ValueRule length(int least, int most) {
        return with((of, text, namespaces) -> {
            int length = of.lengthOf(text);
            if (length < 0 || length >= least && length <= most) {
                return null;
            }
            String bound = length < least ? "at least " + least : "at most " + most;
            return shown(text) + " has a length of " + length + ", not " + bound;
        });
    }

    private int lengthOf(String text) {
        if (item != null) {
            return Lexical.items(text).size();
        }
        return switch (String.valueOf(primitive())) {
            case "hexBinary" -> Lexical.parseHex(text).length;
            case "base64Binary" -> Lexical.parseBase64(text).length;
            case "QName", "NOTATION" -> -1;
            default -> text.codePointCount(0, text.length());
        };
    }

    /** The number has at most so many digits, and at most so many of them behind the point. */
    public ValueRule digits(int total, int fraction) {
        return with((of, text, namespaces) -> {
            BigDecimal value = Lexical.parseDecimal(text).stripTrailingZeros();
            int behind = Math.max(0, value.scale());
            int all = Math.max(value.precision() - Math.min(0, value.scale()), behind);
            if (behind > fraction) {
                return shown(text) + " has more than " + fraction + " digits behind the point";
            }
            return value.signum() != 0 && all > total ? shown(text) + " has more than " + total + " digits" : null;
        });
    }

    /** The primitive type behind the values, or null for lists and unions. */
    public String primitive() {
        return builtin == null || item != null ? null : BuiltinText.primitive(builtin);
    }

    /** The name of the built-in type behind the values, or null for lists and unions. */
    public String builtin() {
        return builtin;
    }

    /** Whether qualified names may stand in its values. */
    public boolean holdsNames() {
        if (members != null) {
            return members.stream().anyMatch(ValueRule::holdsNames);
        }
        return item != null ? item.holdsNames() : builtin.equals("QName") || builtin.equals("NOTATION");
    }

    /** The rule that this one narrows, or null. */
    public ValueRule base() {
        return base;
    }

    /** The rule of the items of a list, or null. */
    public ValueRule item() {
        return item;
    }

    /** The rules of the members of a union, or null. */
    public List<ValueRule> members() {
        return members;
    }

    /**
     * A value as the type wants it written: a pattern may want {@code 007} for 7, or {@code 1} for true.
     *
     * @param ordinary the ordinary way to write it
     * @return that, if the type takes it or no other way to write the same value; otherwise a way that the type takes
     */
    public String fitting(String ordinary) {
        if (complaint(ordinary, null) == null) {
            return ordinary;
        }
        if (builtin == null && item != null) {
            List<String> items = new ArrayList<>();
            Lexical.items(ordinary).forEach(one -> items.add(item.fitting(one)));
            return String.join(" ", items);
        }
        String primitive = primitive();
        String other = primitive == null
                ? null
                : Spellings.find(primitive, isWhole(), ordinary, way -> complaint(way, null) == null);
        return other == null ? ordinary : other;
    }

    private boolean isWhole() {
        return primitive().equals("decimal") && !builtin.equals("decimal");
    }

    /** Text with its white space treated as the type wants it. */
    public String normalized(String text) {
        return switch (whiteSpace) {
            case "collapse" -> Lexical.collapse(text);
            case "replace" -> Lexical.replace(text);
            default -> text;
        };
    }

    /**
     * Checks a text.
     *
     * @param namespaces gives the namespace of a prefix where the text stands, null for a prefix that is not declared
     * @return what is wrong, or null
     */
    public Complaint complaint(String text, UnaryOperator<String> namespaces) {
        return check(normalized(text), namespaces);
    }

    private Complaint check(String text, UnaryOperator<String> namespaces) {
        if (base == null) {
            String wrong = ownComplaint(text, namespaces);
            return wrong == null ? null : new Complaint(this, wrong);
        }
        Complaint inherited = base.check(text, namespaces);
        if (inherited != null) {
            return inherited;
        }
        String wrong;
        try {
            wrong = facet == null ? null : facet.complaint(this, text, namespaces);
        } catch (IllegalArgumentException e) {
            // A facet that makes no sense for its type, such as a bound that is no value of it, is not held against the
            // text.
            return null;
        }
        return wrong == null ? null : new Complaint(this, wrong);
    }

    private String ownComplaint(String text, UnaryOperator<String> namespaces) {
        if (members != null) {
            return member(text, namespaces) == null ? shown(text) + " is of none of the types allowed here" : null;
        }
        if (item != null) {
            if (builtin != null && text.isEmpty()) {
                return "a list of " + builtin + " has at least one item";
            }
            for (String one : Lexical.items(text)) {
                Complaint wrong = item.complaint(one, namespaces);
                if (wrong != null) {
                    return wrong.message();
                }
            }
            return null;
        }
        if (!BuiltinText.accepts(builtin, text)) {
            return shown(text) + " is no " + builtin;
        }
        boolean name = builtin.equals("QName") || builtin.equals("NOTATION");
        return name && namespaces != null && text.indexOf(':') > 0 && expanded(text, namespaces) == null
                ? "the prefix of " + shown(text) + " is not declared"
                : null;
    }

    /** The member of a union that has a text, or null. */
    private ValueRule member(String text, UnaryOperator<String> namespaces) {
        for (ValueRule member : members) {
            if (member.complaint(text, namespaces) == null) {
                return member;
            }
        }
        return null;
    }

    /**
     * Something that two texts of this type have in common exactly when they stand for the same value.
     *
     * @param namespaces gives the namespace of a prefix where the text stands; may be null where no name can be
     */
    public Object key(String text, UnaryOperator<String> namespaces) {
        String value = normalized(text);
        if (members != null) {
            ValueRule member = member(value, namespaces);
            return member == null ? value : member.key(value, namespaces);
        }
        if (item != null) {
            List<Object> keys = new ArrayList<>();
            Lexical.items(value).forEach(one -> keys.add(item.key(one, namespaces)));
            return keys;
        }
        String primitive = primitive();
        if (primitive.equals("QName") || primitive.equals("NOTATION")) {
            QName name = namespaces == null ? null : expanded(value, namespaces);
            return name == null ? value : name;
        }
        try {
            return List.of(primitive.equals("anySimpleType") ? "string" : primitive, Order.identity(primitive, value));
        } catch (IllegalArgumentException e) {
            return value;
        }
    }

    /**
     * Text with its white space treated and each qualified name in it written with its namespace: what stays the same when
     * a message is written with other prefixes.
     */
    public String expandedText(String text, UnaryOperator<String> namespaces) {
        String value = normalized(text);
        if (members != null) {
            ValueRule member = member(value, namespaces);
            return member == null ? value : member.expandedText(value, namespaces);
        }
        if (item != null) {
            List<String> items = new ArrayList<>();
            Lexical.items(value).forEach(one -> items.add(item.expandedText(one, namespaces)));
            return String.join(" ", items);
        }
        QName name = builtin.equals("QName") || builtin.equals("NOTATION") ? expanded(value, namespaces) : null;
        return name == null ? value : name.toString();
    }

    private static QName expanded(String text, UnaryOperator<String> namespaces) {
        int colon = text.indexOf(':');
        if (colon == text.length() - 1) {
            // What is nil, or waits for its default, holds no name.
            return null;
        }
        String namespace = namespaces.apply(colon < 0 ? "" : text.substring(0, colon));
        if (namespace == null && colon >= 0) {
            return null;
        }
        return new QName(namespace == null ? "" : namespace, text.substring(colon + 1));
    }

    private static String shown(String text) {
        return "\"" + Lexical.shortened(text, SHOWN_LENGTH) + "\"";
    }
}
