package org.protypos.target.csharp.emit;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the code that reads content: a descent over the content model, one step for each leaf. */
final class ReadingCode {
    private static final int MOST_BRANCHES = 40;

    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final FieldNames fields;
    private final Map<Set<String>, String> starts = new LinkedHashMap<>();
    private PlannedClass owner;

    ReadingCode(CSharpContext context, CSharpFile file, FieldNames fields) {
        this.context = context;
        this.file = file;
        this.types = new CSharpTypes(context, file);
        this.fields = fields;
    }

    /** Says whose members the code that follows is about. */
    void setOwner(PlannedClass type) {
        owner = type;
    }

    private static String member(Property property) {
        return "this." + property.name();
    }

    /** Writes the statement that remembers how a value was written, for types that leave a choice. */
    void keepText(Property property, String value) {
        if (owner != null && property.hasOddText()) {
            String index = property.isMany() ? member(property) + ".Count - 1" : "0";
            String there = CSharpTypes.isAlwaysThere(property) || property.isMany() ? value : writable(property, value);
            String guard = CSharpTypes.isValue(property.type()) ? "" : " && " + value + " != null";
            file.open("if (input.IsOdd", guard, ")");
            file.line(
                    "this.KeepXmlText(input, nameof(",
                    property.name(),
                    "), ",
                    index,
                    ", ",
                    types.print(property.type(), there),
                    ");");
            file.close();
        }
    }

    /** The expression for a value that is known to be there. */
    static String writable(Property property, String value) {
        return CSharpTypes.isValue(property.type()) && property.isAbsentable() ? value + ".Value" : value;
    }

    void read(Content<Property> content, boolean optional) {
        if (content instanceof Content.InSequence<Property> sequence) {
            readSequence(sequence, optional);
        } else if (content instanceof Content.OneOf<Property> choice) {
            readChoice(choice, optional);
        } else if (content instanceof Content.InAnyOrder<Property> all) {
            readAll(all);
        } else {
            readLeaf((Content.Leaf<Property>) content, optional);
        }
    }

    private void readSequence(Content.InSequence<Property> sequence, boolean optional) {
        boolean guarded = (optional || sequence.optional())
                && !new Content.InSequence<Property>(sequence.parts(), false).isEmptiable();
        if (guarded) {
            file.open("if (", starts(sequence), ")");
        }
        sequence.parts().forEach(part -> read(part, false));
        if (guarded) {
            file.close();
        }
    }

    private void readChoice(Content.OneOf<Property> choice, boolean optional) {
        boolean must =
                !optional && !choice.optional() && choice.parts().stream().noneMatch(Content::isEmptiable);
        if (choice.parts().size() > MOST_BRANCHES) {
            readWideChoice(choice, must);
            return;
        }
        boolean first = true;
        for (Content<Property> part : choice.parts()) {
            branch(part, first);
            first = false;
            readStarted(part);
        }
        if (must) {
            file.next("else");
            lack(choice);
        }
        if (!first) {
            file.close();
        }
    }

    private void lack(Content<Property> content) {
        file.line("input.Lack(", CSharpText.literal(content.expected()), ");");
    }

    /** Many branches stand one below the other: compilers choke on a ladder of hundreds. */
    private void readWideChoice(Content.OneOf<Property> choice, boolean must) {
        file.open("do");
        for (Content<Property> part : choice.parts()) {
            file.open("if (", starts(part), ")");
            readStarted(part);
            file.line("break;");
            file.close();
        }
        if (must) {
            lack(choice);
        }
        file.close();
        file.line("while (false);");
    }

    private void branch(Content<Property> part, boolean first) {
        String head = "if (" + starts(part) + ")";
        if (first) {
            file.open(head);
        } else {
            file.next("else " + head);
        }
    }

    private void readAll(Content.InAnyOrder<Property> all) {
        int count = all.parts().size();
        file.line("int[] order = new int[", String.valueOf(count), "];");
        file.line("int came = 0;");
        if (count > 0) {
            file.open("while (input.AtElement() && came < order.Length)");
            for (int i = 0; i < count; i++) {
                branch(all.parts().get(i), i == 0);
                file.line("order[came++] = ", String.valueOf(i), ";");
                readStarted(all.parts().get(i));
            }
            file.next("else");
            file.line("break;");
            file.close();
            file.close();
        }
        for (int i = 0; i < count; i++) {
            Content<Property> part = all.parts().get(i);
            if (!all.optional() && !part.isEmptiable()) {
                file.line(
                        "input.Came(order, came, ", String.valueOf(i), ", ", CSharpText.literal(part.expected()), ");");
            }
        }
        file.line("this.KeepXmlOrder(order, came);");
    }

    /** Reads content of which the start has been seen. */
    private void readStarted(Content<Property> part) {
        if (part instanceof Content.Leaf<Property> leaf && !leaf.member().isMany()) {
            readValue(leaf);
        } else {
            read(part, false);
        }
    }

    private void readLeaf(Content.Leaf<Property> leaf, boolean optional) {
        Property property = leaf.member();
        boolean must = leaf.least() > 0 && !optional;
        if (property.isMany()) {
            if (must && !leaf.isGroupEmptiable()) {
                require(leaf);
            }
            if (owner != null && owner.endsAtMost(leaf)) {
                file.open(
                        "for (int times = 0; times < ",
                        String.valueOf(leaf.most()),
                        " && (",
                        starts(leaf),
                        "); times++)");
            } else {
                file.open("while (", starts(leaf), ")");
            }
            readValue(leaf);
            file.close();
        } else if (must) {
            require(leaf);
            readValue(leaf);
        } else {
            file.open("if (", starts(leaf), ")");
            readValue(leaf);
            file.close();
        }
    }

    private void require(Content.Leaf<Property> leaf) {
        if (leaf.member().kind() == Member.Kind.ELEMENT) {
            file.line("input.Expect(", CSharpTypes.name(leaf.member()), ");");
        } else {
            file.open("if (!(", starts(leaf), "))");
            lack(leaf);
            file.close();
        }
    }

    private void readValue(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        String value = readExpression(leaf);
        String target = member(property);
        if (property.isMany()) {
            if (property.nillable()) {
                file.open("if (", takeNil(property.type()), ")");
                file.line(target, ".Add(null);");
                file.next("else");
            }
            file.line("input.Add(", target, ", ", value, ");");
            if (owner != null && property.hasOddText()) {
                file.open("if (input.IsOdd)");
                String last = target + "[" + target + ".Count - 1]";
                String there = property.nillable() && CSharpTypes.isValue(property.type()) ? last + ".Value" : last;
                file.line(
                        "this.KeepXmlText(input, nameof(",
                        property.name(),
                        "), ",
                        target,
                        ".Count - 1, ",
                        types.print(property.type(), there),
                        ");");
                file.close();
            }
            if (property.nillable()) {
                file.close();
            }
        } else if (property.nillable()) {
            file.open("if (", takeNil(property.type()), ")");
            file.line(property.nilName() != null ? "this." + property.nilName() + " = true;" : target + " = null;");
            file.next("else");
            file.line(target, " = ", given(property, value), ";");
            keepText(property, target);
            file.close();
        } else {
            file.line(target, " = ", given(property, value), ";");
            keepText(property, target);
        }
    }

    /** The test that takes an element which is nil. */
    static String takeNil(ValueType type) {
        boolean structured = type instanceof ValueType.Structured || type instanceof ValueType.Anything;
        return structured ? "input.TakeNil()" : "input.TakeSimpleNil()";
    }

    /** A value of a type without null cannot be absent, so the input says whether a lenient reading has passed over it. */
    private static String given(Property property, String value) {
        return CSharpTypes.isValue(property.type()) && property.isAbsentable() ? "input.Given(" + value + ")" : value;
    }

    private String readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> "input.Group(new " + context.ref(file, property.group()) + "())";
            case WILDCARD ->
                leaf.wildcard().processing() == Wildcard.Processing.SKIP ? "input.Tree()" : "input.Element()";
            case SUBSTITUTABLE -> "input.Member<" + contentClass(type) + ">()";
            default -> property.defaultValue() == null ? element(property) : elementOr(property, type);
        };
    }

    /** The expression that reads an element which stands for a value of its own when it is empty. */
    private String elementOr(Property property, ValueType type) {
        String standard = CSharpText.literal(property.defaultValue());
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            return "input.Object(" + plain(structured.type()) + ", " + standard + ")";
        }
        return property.hasOddText()
                ? types.parse(property, "input." + source(type, "TextOr") + "(" + standard + ")")
                : element(property);
    }

    private String plain(PlannedClass type) {
        String name = context.ref(file, type);
        return type.isAbstract() ? "(" + name + ")null" : "new " + name + "()";
    }

    private String contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(file, named.content())
                : context.runtime(file, type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    /** The expression that reads the element of a property. */
    String element(Property property) {
        ValueType type = property.type();
        if (type instanceof ValueType.Structured structured) {
            return "input.Object(" + plain(structured.type()) + ")";
        }
        return type instanceof ValueType.Anything
                ? "input.Any()"
                : types.parse(
                        property, type.isBinary() ? "input.BinaryText()" : "input." + source(type, "Text") + "()");
    }

    /** The name of the method of the input that reads the text of a type. */
    static String source(ValueType type, String method) {
        return type.holdsNames() ? method.replaceFirst("(?=Or$)|$", "WithNames") : method;
    }

    private String starts(Content<Property> content) {
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
                names.add(CSharpText.literal(leaf.member().xmlName().getNamespaceURI() + " "
                        + leaf.member().xmlName().getLocalPart()));
            } else {
                tests.add(test(leaf));
            }
        }
        tests.add("input.AtOneOf(" + starts.computeIfAbsent(names, any -> fields.made("startNames")) + ")");
        return String.join(" || ", tests);
    }

    /** Writes the constants that the tests written so far refer to. */
    void writeConstants() {
        String set = file.type("System.Collections.Generic", "HashSet") + "<string>";
        starts.forEach((names, constant) -> {
            file.gap();
            file.open("private static readonly ", set, " ", constant, " = new ", set);
            names.forEach(name -> file.line(name, ","));
            file.close(";");
        });
        starts.clear();
    }

    private String test(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        return switch (property.kind()) {
            case SUBSTITUTABLE -> "input.AtMember(" + CSharpTypes.name(property) + ")";
            default ->
                leaf.wildcard() != null
                        ? wildcardTest(leaf.wildcard())
                        : "input.At(" + CSharpTypes.name(property) + ")";
        };
    }

    private static String wildcardTest(Wildcard wildcard) {
        List<String> namespaces = wildcard.namespaces();
        if (namespaces.contains("##any")) {
            return "input.AtElement()";
        }
        if (namespaces.contains("##other")) {
            return "input.AtOther(" + CSharpText.literal(wildcard.targetNamespace()) + ")";
        }
        return "input.AtAnyOf(" + listed(wildcard) + ")";
    }

    private static String listed(Wildcard wildcard) {
        return wildcard.namespaces().stream()
                .map(namespace -> switch (namespace) {
                    case "##targetNamespace" -> wildcard.targetNamespace();
                    case "##local" -> "";
                    default -> namespace;
                })
                .map(CSharpText::literal)
                .collect(Collectors.joining(", "));
    }

    /** Writes the statement that takes the attributes which a wildcard allows. */
    void readOtherAttributes(String into, Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            file.line("input.AnyAttributes(", into, ");");
        } else if (wildcard.namespaces().contains("##other")) {
            file.line("input.OtherAttributes(", into, ", ", CSharpText.literal(wildcard.targetNamespace()), ");");
        } else {
            file.line("input.AttributesOf(", into, ", ", listed(wildcard), ");");
        }
    }

    /** Writes the statements that read attributes. */
    void readAttributes(List<Property> attributes) {
        if (attributes.stream().anyMatch(attribute -> attribute.cardinality() == Member.Cardinality.OPTIONAL)) {
            file.line("string text;");
        }
        attributes.forEach(this::readAttribute);
    }

    private static String attribute(Property property, String method) {
        return "input." + source(property.type(), method) + "(" + CSharpTypes.name(property) + ")";
    }

    private void readAttribute(Property property) {
        String target = member(property);
        if (property.cardinality() == Member.Cardinality.REQUIRED) {
            file.line(target, " = ", types.parse(property, attribute(property, "RequiredAttribute")), ";");
            keepText(property, target);
            return;
        }
        file.line("text = ", attribute(property, "Attribute"), ";");
        file.open("if (text != null)");
        file.line(target, " = ", given(property, types.parse(property, "text")), ";");
        keepText(property, target);
        file.close();
    }
}
