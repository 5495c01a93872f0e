package org.protypos.target.content;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.CodeLines;
import org.protypos.target.content.Dialect.Callee;

/**
 * Writes the code that reads content: a descent over the content model, one step for each leaf, for which one element of
 * look-ahead is enough (XML Schema Part 1, section 3.8.6: unique particle attribution). What is decided about a message
 * is decided here; a language says it in its own words.
 */
// The cases hold methods of the class below, and none is called before that is there.
@SuppressWarnings("this-escape")
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
    protected abstract void readWideChoice(Content.OneOf<Property> choice, Code otherwise);

    /** The expression that reads the element of a leaf. */
    protected abstract Code readExpression(Content.Leaf<Property> leaf);

    /** Where values are added to a property that has several. */
    protected abstract Code list(Property property);

    /** The statement that adds the value of a nil element. */
    protected abstract Code addNil(Code list);

    /** Writes the statement that remembers how the last of several values was written. */
    protected abstract void keepLastText(Property property, Code list);

    /** Writes the statement that remembers how a value was written, for types that leave a choice. */
    public abstract void keepText(Property property, Code value);

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

    private Code input(String method) {
        return dialect.call(Callee.INPUT, method, Code.NONE);
    }

    private Code input(String method, String template, Object... arguments) {
        return dialect.call(Callee.INPUT, method, Code.of(template, arguments));
    }

    private Void readSequence(Content.InSequence<Property> sequence, boolean optionalContent) {
        boolean guarded = (optionalContent || sequence.optional())
                && !new Content.InSequence<Property>(sequence.parts(), false).isEmptiable();
        if (guarded) {
            lines.block("if ($L)", starts(sequence));
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
        Code otherwise = must ? lack(choice) : Code.NONE;
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
            lines.line("$L", otherwise);
        }
        if (!first) {
            lines.close();
        }
        return null;
    }

    private Code lack(Content<Property> content) {
        return Code.of("$L;", input("lack", "$S", content.expected()));
    }

    private void branch(Content<Property> part, boolean first) {
        Code head = Code.of("if ($L)", starts(part));
        if (first) {
            lines.block("$L", head);
        } else {
            lines.orElse("else $L", head);
        }
    }

    private Void readAll(Content.InAnyOrder<Property> all) {
        int count = all.parts().size();
        Code length = Code.of("order.$N", arrayLength());
        lines.line("int[] order = new int[$L];", count);
        lines.line("int came = 0;");
        lines.block("while ($L && came < $L)", input("atElement"), length);
        for (int i = 0; i < count; i++) {
            branch(all.parts().get(i), i == 0);
            lines.line("order[came++] = $L;", i);
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
                lines.line("$L;", input("came", "order, came, $L, $S", i, part.expected()));
            }
        }
        lines.line("$L", keepOrder());
        return null;
    }

    /** The member of an array that is the number of its items. */
    protected abstract String arrayLength();

    /** The statement that remembers in which order the members came. */
    protected abstract Code keepOrder();

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
            lines.block("if ($L)", starts(leaf));
        } else if (owner != null && owner.endsAtMost(leaf)) {
            lines.block("for (int times = 0; times < $L && ($L); times++)", leaf.most(), starts(leaf));
        } else {
            lines.block("while ($L)", starts(leaf));
        }
        readValue(leaf);
        lines.close();
        return null;
    }

    private void require(Content.Leaf<Property> leaf) {
        if (leaf.member().kind() == Member.Kind.ELEMENT) {
            lines.line("$L;", input("expect", "$L", dialect.name(leaf.member())));
        } else {
            lines.block("if (!($L))", starts(leaf));
            lines.line("$L", lack(leaf));
            lines.close();
        }
    }

    private void readValue(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        Code value = readExpression(leaf);
        if (!property.nillable()) {
            take(property, value);
            return;
        }
        lines.block("if ($L)", takeNil(property.type()));
        if (property.isMany()) {
            lines.line("$L", addNil(list(property)));
        } else if (property.nilName() != null) {
            lines.line("$L = true;", dialect.nilFlag(property));
        } else {
            lines.line("$L = null;", dialect.member(property));
        }
        lines.orElse("else");
        take(property, value);
        lines.close();
    }

    private void take(Property property, Code value) {
        if (property.isMany()) {
            lines.line("$L;", input("add", "$L, $L", list(property), value));
            keepLastText(property, list(property));
        } else {
            lines.line("$L = $L;", dialect.member(property), given(property, value));
            keepText(property, dialect.member(property));
        }
    }

    /** The test that takes an element which is nil. */
    public final Code takeNil(ValueType type) {
        boolean structured = type instanceof ValueType.Structured || type instanceof ValueType.Anything;
        return input(structured ? "takeNil" : "takeSimpleNil");
    }

    /** A value of a type without null cannot be absent, so the input says whether a lenient reading has passed over it. */
    private Code given(Property property, Code value) {
        return dialect.isValue(property.type()) && property.isAbsentable() ? input("given", "$L", value) : value;
    }

    /** The test whether content starts here. */
    protected final Code starts(Content<Property> content) {
        Set<Code> tests = new LinkedHashSet<>();
        content.first().forEach(leaf -> tests.add(test(leaf)));
        if (tests.isEmpty()) {
            return Code.of("false");
        }
        return tests.size() > MOST_BRANCHES ? oneOf(content) : Code.join(" || ", tests);
    }

    /** A test for many names looks them up; wildcards and substitution groups stay tests of their own. */
    private Code oneOf(Content<Property> content) {
        Set<String> names = new LinkedHashSet<>();
        Set<Code> tests = new LinkedHashSet<>();
        for (Content.Leaf<Property> leaf : content.first()) {
            if (leaf.member().kind() == Member.Kind.ELEMENT) {
                QName name = leaf.member().xmlName();
                names.add(name.getNamespaceURI() + " " + name.getLocalPart());
            } else {
                tests.add(test(leaf));
            }
        }
        tests.add(input("atOneOf", "$N", startNames(names, content.first())));
        return Code.join(" || ", tests);
    }

    private Code test(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        if (property.kind() == Member.Kind.SUBSTITUTABLE) {
            return input("atMember", "$L", dialect.name(property));
        }
        return leaf.wildcard() != null ? wildcardTest(leaf.wildcard()) : input("at", "$L", dialect.name(property));
    }

    private Code wildcardTest(Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            return input("atElement");
        }
        return wildcard.namespaces().contains("##other")
                ? input("atOther", "$S", wildcard.targetNamespace())
                : input("atAnyOf", "$L", listed(wildcard));
    }

    private Code listed(Wildcard wildcard) {
        return Code.join(
                ", ",
                wildcard.namespaces().stream()
                        .map(namespace -> switch (namespace) {
                            case "##targetNamespace" -> wildcard.targetNamespace();
                            case "##local" -> "";
                            default -> namespace;
                        })
                        .map(namespace -> Code.of("$S", namespace))
                        .toList());
    }

    /** Writes the statement that takes the attributes which a wildcard allows. */
    public final void readOtherAttributes(Code into, Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            lines.line("$L;", input("anyAttributes", "$L", into));
        } else if (wildcard.namespaces().contains("##other")) {
            lines.line("$L;", input("otherAttributes", "$L, $S", into, wildcard.targetNamespace()));
        } else {
            lines.line("$L;", input("attributesOf", "$L, $L", into, listed(wildcard)));
        }
    }

    /** Writes the statements that read attributes. */
    public final void readAttributes(List<Property> attributes) {
        if (attributes.stream().anyMatch(attribute -> attribute.cardinality() == Member.Cardinality.OPTIONAL)) {
            lines.line("$L text;", textType());
        }
        attributes.forEach(this::readAttribute);
    }

    /** The type of a text. */
    protected abstract Code textType();

    /** The value of a property that a text stands for. */
    protected abstract Code parse(Property property, Code text);

    /** The name of the method of the input that reads the text of a type. */
    public static String source(ValueType type, String method) {
        return type.holdsNames() ? method.replaceFirst("(?=Or$)|$", "WithNames") : method;
    }

    private void readAttribute(Property property) {
        boolean required = property.cardinality() == Member.Cardinality.REQUIRED;
        Code text = input(
                source(property.type(), required ? "requiredAttribute" : "attribute"), "$L", dialect.name(property));
        Code member = dialect.member(property);
        if (required) {
            lines.line("$L = $L;", member, parse(property, text));
            keepText(property, member);
            return;
        }
        lines.line("text = $L;", text);
        lines.block("if (text != null)");
        lines.line("$L = $L;", member, given(property, parse(property, Code.of("text"))));
        keepText(property, member);
        lines.close();
    }

    /** The expression that reads an element which holds a value of a type. */
    protected final Code text(ValueType type, String whole) {
        return type.isBinary() ? input("binaryText") : input(source(type, whole));
    }
}
