package org.protypos.target.content;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.Dialect.Callee;

/**
 * Writes the code that reads content: a descent over the content model, one step for each leaf, for which one element of
 * look-ahead is enough (XML Schema Part 1, section 3.8.6: unique particle attribution). What is decided about a message
 * is decided here; a language says it in its own words.
 */
public abstract class ContentReading {
    private static final int MOST_BRANCHES = 40;

    private final CodeLines lines;
    private final Dialect dialect;
    private final Content.Cases<Property, Void> started = cases(false);
    private final Content.Cases<Property, Void> optional = cases(true);
    private PlannedClass owner;

    /** Reads into members that a dialect names, by statements that are written to lines. */
    protected ContentReading(CodeLines lines, Dialect dialect) {
        this.lines = lines;
        this.dialect = dialect;
    }

    /** Says whose members the code that follows is about. */
    public final void setOwner(PlannedClass type) {
        owner = type;
    }

    /** Whose members the code is about; null for the parts of a message. */
    protected final PlannedClass owner() {
        return owner;
    }

    /** Writes what reads one of so many branches that they cannot stand in one ladder. */
    protected abstract void readWideChoice(Content.OneOf<Property> choice, String otherwise);

    /** The expression that reads the element of a leaf. */
    protected abstract String readExpression(Content.Leaf<Property> leaf);

    /** Where values are added to a property that has several. */
    protected abstract String list(Property property);

    /** The statement that adds the value of a nil element. */
    protected abstract String addNil(String list);

    /** Writes the statement that remembers how the last of several values was written. */
    protected abstract void keepLastText(Property property, String list);

    /** Writes the statement that remembers how a value was written, for types that leave a choice. */
    public abstract void keepText(Property property, String value);

    /** The name of a constant that holds the names of elements, with the leaves that they are from. */
    protected abstract String startNames(Set<String> names, List<Content.Leaf<Property>> leaves);

    private Content.Cases<Property, Void> cases(boolean optionalContent) {
        return new Content.Cases<>(
                sequence -> readSequence(sequence, optionalContent),
                choice -> readChoice(choice, optionalContent),
                this::readAll,
                leaf -> readLeaf(leaf, optionalContent));
    }

    /** Writes what reads content. */
    public final void read(Content<Property> content, boolean optionalContent) {
        content.choose(optionalContent ? optional : started);
    }

    private String input(String method, String... arguments) {
        return dialect.call(Callee.INPUT, method, arguments);
    }

    private Void readSequence(Content.InSequence<Property> sequence, boolean optionalContent) {
        boolean guarded = (optionalContent || sequence.optional())
                && !new Content.InSequence<Property>(sequence.parts(), false).isEmptiable();
        if (guarded) {
            lines.block("if (", starts(sequence), ")");
        }
        sequence.parts().forEach(part -> read(part, false));
        if (guarded) {
            lines.close();
        }
        return null;
    }

    private Void readChoice(Content.OneOf<Property> choice, boolean optionalContent) {
        boolean must = !optionalContent
                && !choice.optional()
                && choice.parts().stream().noneMatch(Content::isEmptiable);
        String otherwise = must ? lack(choice) : "";
        if (choice.parts().size() > MOST_BRANCHES) {
            readWideChoice(choice, otherwise);
            return null;
        }
        boolean first = true;
        for (Content<Property> part : choice.parts()) {
            branch(part, first);
            first = false;
            readStarted(part);
        }
        if (must) {
            lines.orElse("else");
            lines.line(otherwise);
        }
        if (!first) {
            lines.close();
        }
        return null;
    }

    private String lack(Content<Property> content) {
        return input("lack", dialect.literal(content.expected())) + ";";
    }

    private void branch(Content<Property> part, boolean first) {
        String head = "if (" + starts(part) + ")";
        if (first) {
            lines.block(head);
        } else {
            lines.orElse("else " + head);
        }
    }

    private Void readAll(Content.InAnyOrder<Property> all) {
        int count = all.parts().size();
        String length = "order." + arrayLength();
        lines.line("int[] order = new int[", String.valueOf(count), "];");
        lines.line("int came = 0;");
        lines.block("while (", input("atElement"), " && came < ", length, ")");
        for (int i = 0; i < count; i++) {
            branch(all.parts().get(i), i == 0);
            lines.line("order[came++] = ", String.valueOf(i), ";");
            readStarted(all.parts().get(i));
        }
        if (count > 0) {
            lines.orElse("else");
            lines.line("break;");
            lines.close();
        }
        lines.close();
        for (int i = 0; i < count; i++) {
            Content<Property> part = all.parts().get(i);
            if (!all.optional() && !part.isEmptiable()) {
                lines.line(input("came", "order", "came", String.valueOf(i), dialect.literal(part.expected())) + ";");
            }
        }
        lines.line(keepOrder());
        return null;
    }

    /** The member of an array that is the number of its items. */
    protected abstract String arrayLength();

    /** The statement that remembers in which order the members came. */
    protected abstract String keepOrder();

    /** Writes what reads content of which the start has been seen. */
    protected final void readStarted(Content<Property> part) {
        if (part instanceof Content.Leaf<Property> leaf && !leaf.member().isMany()) {
            readValue(leaf);
        } else {
            read(part, false);
        }
    }

    private Void readLeaf(Content.Leaf<Property> leaf, boolean optionalContent) {
        boolean must = leaf.least() > 0 && !optionalContent;
        boolean many = leaf.member().isMany();
        if (must && !(many && leaf.isGroupEmptiable())) {
            require(leaf);
        }
        if (!many && must) {
            readValue(leaf);
            return null;
        }
        if (!many) {
            lines.block("if (", starts(leaf), ")");
        } else if (owner != null && owner.endsAtMost(leaf)) {
            lines.block(
                    "for (int times = 0; times < ", String.valueOf(leaf.most()), " && (", starts(leaf), "); times++)");
        } else {
            lines.block("while (", starts(leaf), ")");
        }
        readValue(leaf);
        lines.close();
        return null;
    }

    private void require(Content.Leaf<Property> leaf) {
        if (leaf.member().kind() == Member.Kind.ELEMENT) {
            lines.line(input("expect", dialect.name(leaf.member())) + ";");
        } else {
            lines.block("if (!(", starts(leaf), "))");
            lines.line(lack(leaf));
            lines.close();
        }
    }

    private void readValue(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        String value = readExpression(leaf);
        if (!property.nillable()) {
            take(property, value);
            return;
        }
        lines.block("if (", takeNil(property.type()), ")");
        if (property.isMany()) {
            lines.line(addNil(list(property)));
        } else if (property.nilName() != null) {
            lines.line(dialect.nilFlag(property), " = true;");
        } else {
            lines.line(dialect.member(property), " = null;");
        }
        lines.orElse("else");
        take(property, value);
        lines.close();
    }

    private void take(Property property, String value) {
        if (property.isMany()) {
            lines.line(input("add", list(property), value) + ";");
            keepLastText(property, list(property));
        } else {
            lines.line(dialect.member(property), " = ", given(property, value), ";");
            keepText(property, dialect.member(property));
        }
    }

    /** The test that takes an element which is nil. */
    public final String takeNil(ValueType type) {
        boolean structured = type instanceof ValueType.Structured || type instanceof ValueType.Anything;
        return input(structured ? "takeNil" : "takeSimpleNil");
    }

    /** A value of a type without null cannot be absent, so the input says whether a lenient reading has passed over it. */
    private String given(Property property, String value) {
        return dialect.isValue(property.type()) && property.isAbsentable() ? input("given", value) : value;
    }

    /** The test whether content starts here. */
    protected final String starts(Content<Property> content) {
        Set<String> tests = new LinkedHashSet<>();
        content.first().forEach(leaf -> tests.add(test(leaf)));
        return tests.isEmpty() ? "false" : tests.size() > MOST_BRANCHES ? oneOf(content) : String.join(" || ", tests);
    }

    /** A test for many names looks them up; wildcards and substitution groups stay tests of their own. */
    private String oneOf(Content<Property> content) {
        Set<String> names = new LinkedHashSet<>();
        Set<String> tests = new LinkedHashSet<>();
        for (Content.Leaf<Property> leaf : content.first()) {
            if (leaf.member().kind() == Member.Kind.ELEMENT) {
                names.add(dialect.literal(leaf.member().xmlName().getNamespaceURI() + " "
                        + leaf.member().xmlName().getLocalPart()));
            } else {
                tests.add(test(leaf));
            }
        }
        tests.add(input("atOneOf", startNames(names, content.first())));
        return String.join(" || ", tests);
    }

    private String test(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        if (property.kind() == Member.Kind.SUBSTITUTABLE) {
            return input("atMember", dialect.name(property));
        }
        return leaf.wildcard() != null ? wildcardTest(leaf.wildcard()) : input("at", dialect.name(property));
    }

    private String wildcardTest(Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            return input("atElement");
        }
        return wildcard.namespaces().contains("##other")
                ? input("atOther", dialect.literal(wildcard.targetNamespace()))
                : input("atAnyOf", listed(wildcard));
    }

    private String listed(Wildcard wildcard) {
        return wildcard.namespaces().stream()
                .map(namespace -> switch (namespace) {
                    case "##targetNamespace" -> wildcard.targetNamespace();
                    case "##local" -> "";
                    default -> namespace;
                })
                .map(dialect::literal)
                .collect(Collectors.joining(", "));
    }

    /** Writes the statement that takes the attributes which a wildcard allows. */
    public final void readOtherAttributes(String into, Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            lines.line(input("anyAttributes", into) + ";");
        } else if (wildcard.namespaces().contains("##other")) {
            lines.line(input("otherAttributes", into, dialect.literal(wildcard.targetNamespace())) + ";");
        } else {
            lines.line(input("attributesOf", into, listed(wildcard)) + ";");
        }
    }

    /** Writes the statements that read attributes. */
    public final void readAttributes(List<Property> attributes) {
        if (attributes.stream().anyMatch(attribute -> attribute.cardinality() == Member.Cardinality.OPTIONAL)) {
            lines.line(textType(), " text;");
        }
        attributes.forEach(this::readAttribute);
    }

    /** The type of a text. */
    protected abstract String textType();

    /** The value of a property that a text stands for. */
    protected abstract String parse(Property property, String text);

    /** The name of the method of the input that reads the text of a type. */
    public static String source(ValueType type, String method) {
        return type.holdsNames() ? method.replaceFirst("(?=Or$)|$", "WithNames") : method;
    }

    private void readAttribute(Property property) {
        boolean required = property.cardinality() == Member.Cardinality.REQUIRED;
        String text =
                input(source(property.type(), required ? "requiredAttribute" : "attribute"), dialect.name(property));
        String member = dialect.member(property);
        if (required) {
            lines.line(member, " = ", parse(property, text), ";");
            keepText(property, member);
            return;
        }
        lines.line("text = ", text, ";");
        lines.block("if (text != null)");
        lines.line(member, " = ", given(property, parse(property, "text")), ";");
        keepText(property, member);
        lines.close();
    }

    /** The expression that reads an element which holds a value of a type. */
    protected final String text(ValueType type, String whole) {
        return type.isBinary() ? input("binaryText") : input(source(type, whole));
    }
}
