package org.protypos.target.java.emit;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes the code that reads content: a descent over the content model, one step for each leaf. */
final class ReadingCode {
    private static final int MOST_BRANCHES = 40;

    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final Map<String, Set<String>> starts = new LinkedHashMap<>();
    private final Pieces pieces;
    private int labels;
    private PlannedClass owner;

    ReadingCode(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
        this.types = new JavaTypes(context, file);
        this.pieces = new Pieces(file);
    }

    /** Says whose members the code that follows is about. */
    void setOwner(PlannedClass type) {
        owner = type;
    }

    /** Writes the statement that remembers how a value was written, for types that leave a choice. */
    void keepText(Property property, String value) {
        if (owner != null && property.hasOddText()) {
            String index = property.isMany() ? accessor("get", property) + "().size() - 1" : "0";
            file.open("if (in.isOdd()) {");
            file.line(
                    "keepText(in, ",
                    JavaText.literal(field(property)),
                    ", ",
                    index,
                    ", ",
                    types.print(property.type(), value),
                    ");");
            file.close();
        }
    }

    /** The field of a property. */
    static String field(Property property) {
        return JavaNames.variable(property.name());
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
            file.open("if (", starts(sequence), ") {");
        }
        for (Content<Property> part : sequence.parts()) {
            read(part, false);
        }
        if (guarded) {
            file.close();
        }
    }

    private void readChoice(Content.OneOf<Property> choice, boolean optional) {
        boolean must =
                !optional && !choice.optional() && choice.parts().stream().noneMatch(Content::isEmptiable);
        String otherwise = must ? "in.lack(" + JavaText.literal(choice.expected()) + ");" : "";
        if (choice.parts().size() > MOST_BRANCHES) {
            readWideChoice(choice, otherwise);
            return;
        }
        boolean first = true;
        for (Content<Property> part : choice.parts()) {
            branch(part, first);
            first = false;
            readStarted(part);
        }
        if (must) {
            file.next("else {");
            file.line(otherwise);
        }
        if (!first) {
            file.close();
        }
    }

    /** Many branches stand one below the other: compilers choke on a ladder of hundreds. */
    private void readWideChoice(Content.OneOf<Property> choice, String otherwise) {
        int number = ++labels;
        String label = "choice" + number;
        file.open(label, ": {");
        if (choice.parts().size() <= Pieces.MOST) {
            readBranches(choice.parts(), "break " + label + ";");
        } else {
            pieces.divide(
                    choice.parts(),
                    "boolean",
                    "readChoice" + number,
                    context.xml(file, "XmlInput") + " in",
                    parts -> {
                        readBranches(parts, "return true;");
                        file.line("return false;");
                    },
                    name -> {
                        file.open("if (", name, "(in)) {");
                        file.line("break ", label, ";");
                        file.close();
                    });
        }
        if (!otherwise.isEmpty()) {
            file.line(otherwise);
        }
        file.close();
    }

    private void readBranches(List<Content<Property>> parts, String end) {
        for (Content<Property> part : parts) {
            file.open("if (", starts(part), ") {");
            readStarted(part);
            file.line(end);
            file.close();
        }
    }

    /** Writes the methods that read the branches for which the choices written so far were too wide. */
    void writePieces() {
        pieces.write();
    }

    private void branch(Content<Property> part, boolean first) {
        String head = "if (" + starts(part) + ") {";
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
        file.open("while (in.atElement() && came < order.length) {");
        for (int i = 0; i < count; i++) {
            branch(all.parts().get(i), i == 0);
            file.line("order[came++] = ", String.valueOf(i), ";");
            readStarted(all.parts().get(i));
        }
        if (count > 0) {
            file.next("else {");
            file.line("break;");
            file.close();
        }
        file.close();
        for (int i = 0; i < count; i++) {
            Content<Property> part = all.parts().get(i);
            if (!all.optional() && !part.isEmptiable()) {
                file.line("in.came(order, came, ", String.valueOf(i), ", ", JavaText.literal(part.expected()), ");");
            }
        }
        file.line("keepOrder(order, came);");
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
                        "); times++) {");
            } else {
                file.open("while (", starts(leaf), ") {");
            }
            readValue(leaf);
            file.close();
        } else if (must) {
            require(leaf);
            readValue(leaf);
        } else {
            file.open("if (", starts(leaf), ") {");
            readValue(leaf);
            file.close();
        }
    }

    private void require(Content.Leaf<Property> leaf) {
        if (leaf.member().kind() == Member.Kind.ELEMENT) {
            file.line("in.expect(", name(leaf.member()), ");");
        } else {
            file.open("if (!(", starts(leaf), ")) {");
            file.line("in.lack(", JavaText.literal(leaf.expected()), ");");
            file.close();
        }
    }

    private void readValue(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        String value = readExpression(leaf);
        String field = "this." + field(property);
        if (property.isMany()) {
            String list = accessor("get", property) + "()";
            if (property.nillable()) {
                file.open("if (", takeNil(property.type()), ") {");
                file.line(list, ".add(null);");
                file.next("else {");
            }
            file.line("in.add(", list, ", ", value, ");");
            keepText(property, list + ".get(" + list + ".size() - 1)");
            if (property.nillable()) {
                file.close();
            }
        } else if (property.nillable()) {
            file.open("if (", takeNil(property.type()), ") {");
            file.line(
                    property.nilName() != null
                            ? "this." + JavaNames.variable(property.nilName()) + " = true;"
                            : field + " = null;");
            file.next("else {");
            file.line(field, " = ", given(property, value), ";");
            keepText(property, field);
            file.close();
        } else {
            file.line(field, " = ", given(property, value), ";");
            keepText(property, field);
        }
    }

    /** The test that takes an element which is nil. */
    static String takeNil(ValueType type) {
        boolean structured = type instanceof ValueType.Structured || type instanceof ValueType.Anything;
        return structured ? "in.takeNil()" : "in.takeSimpleNil()";
    }

    /** A primitive cannot be absent, so the input says whether a lenient reading has passed over it. */
    private static String given(Property property, String value) {
        boolean boxed = property.type() instanceof ValueType.Scalar scalar
                && JavaTypes.primitive(scalar.kind()) != null
                && !JavaTypes.isPrimitive(property);
        return boxed ? "in.given(" + value + ")" : value;
    }

    private String readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> "in.group(new " + context.ref(file, ((ValueType.Structured) type).type()) + "())";
            case WILDCARD -> leaf.wildcard().processing() == Wildcard.Processing.SKIP ? "in.tree()" : "in.element()";
            case SUBSTITUTABLE -> "in.member(" + contentClass(type) + ".class)";
            default -> property.defaultValue() == null ? element(type) : elementOr(property, type);
        };
    }

    /** The expression that reads an element which stands for a value of its own when it is empty. */
    private String elementOr(Property property, ValueType type) {
        String standard = JavaText.literal(property.defaultValue());
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            String name = context.ref(file, structured.type());
            String plain = structured.type().isAbstract() ? "null" : "new " + name + "()";
            return "in.object(" + name + ".class, " + plain + ", " + standard + ")";
        }
        return property.hasOddText()
                ? types.parse(type, "in." + JavaTypes.source(type, "textOr") + "(" + standard + ")")
                : element(type);
    }

    private String contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(file, named.content())
                : context.xml(file, type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    /** The expression that reads an element with content of a type. */
    String element(ValueType type) {
        if (type instanceof ValueType.Structured structured) {
            String name = context.ref(file, structured.type());
            return "in.object(" + name + ".class, " + (structured.type().isAbstract() ? "null" : "new " + name + "()")
                    + ")";
        }
        return type instanceof ValueType.Anything
                ? "in.any()"
                : types.parse(
                        type, type.isBinary() ? "in.binaryText()" : "in." + JavaTypes.source(type, "text") + "()");
    }

    /** The two arguments for a property's element or attribute: namespace and local name. */
    static String name(Property property) {
        return JavaText.literal(property.xmlName().getNamespaceURI()) + ", "
                + JavaText.literal(property.xmlName().getLocalPart());
    }

    static String accessor(String verb, Property property) {
        return verb + property.name();
    }

    private String starts(Content<Property> content) {
        Set<String> tests = new LinkedHashSet<>();
        for (Content.Leaf<Property> leaf : content.first()) {
            tests.add(test(leaf));
        }
        return tests.isEmpty() ? "false" : tests.size() > MOST_BRANCHES ? oneOf(content) : String.join(" || ", tests);
    }

    /** A test for many names looks them up; wildcards and substitution groups stay tests of their own. */
    private String oneOf(Content<Property> content) {
        Set<String> names = new LinkedHashSet<>();
        Set<String> tests = new LinkedHashSet<>();
        for (Content.Leaf<Property> leaf : content.first()) {
            if (leaf.member().kind() == Member.Kind.ELEMENT) {
                names.add(JavaText.literal(leaf.member().xmlName().getNamespaceURI() + " "
                        + leaf.member().xmlName().getLocalPart()));
            } else {
                tests.add(test(leaf));
            }
        }
        String constant = starts.entrySet().stream()
                .filter(known -> known.getValue().equals(names))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseGet(() -> FreeName.beside(starts.keySet(), constantOf(content.first())));
        starts.put(constant, names);
        tests.add("in.atOneOf(" + constant + ")");
        return String.join(" || ", tests);
    }

    private static String constantOf(List<Content.Leaf<Property>> leaves) {
        String first = leaves.stream()
                .filter(leaf -> leaf.member().kind() == Member.Kind.ELEMENT)
                .findFirst()
                .map(leaf -> leaf.member().xmlName().getLocalPart())
                .orElse("nothing");
        return new JavaNames().constantName(first) + "_AND_OTHERS";
    }

    /** Writes the constants that the tests written so far refer to. */
    void writeConstants() {
        starts.forEach((constant, names) -> {
            file.gap();
            file.line(
                    "private static final ",
                    file.ref("java.util.Set"),
                    "<String> ",
                    constant,
                    " = ",
                    file.ref("java.util.Set"),
                    ".of(");
            file.indent();
            int left = names.size();
            for (String name : names) {
                file.line(name, --left == 0 ? ");" : ",");
            }
            file.outdent();
        });
        starts.clear();
    }

    private String test(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        return switch (property.kind()) {
            case SUBSTITUTABLE -> "in.atMember(" + name(property) + ")";
            default -> leaf.wildcard() != null ? wildcardTest(leaf.wildcard()) : "in.at(" + name(property) + ")";
        };
    }

    private static String wildcardTest(Wildcard wildcard) {
        List<String> namespaces = wildcard.namespaces();
        if (namespaces.contains("##any")) {
            return "in.atElement()";
        }
        if (namespaces.contains("##other")) {
            return "in.atOther(" + JavaText.literal(wildcard.targetNamespace()) + ")";
        }
        return "in.atAnyOf(" + listed(wildcard) + ")";
    }

    private static String listed(Wildcard wildcard) {
        return wildcard.namespaces().stream()
                .map(namespace -> switch (namespace) {
                    case "##targetNamespace" -> wildcard.targetNamespace();
                    case "##local" -> "";
                    default -> namespace;
                })
                .map(JavaText::literal)
                .collect(Collectors.joining(", "));
    }

    /** Writes the statement that takes the attributes which a wildcard allows. */
    void readOtherAttributes(String into, Wildcard wildcard) {
        if (wildcard.namespaces().contains("##any")) {
            file.line("in.anyAttributes(", into, ");");
        } else if (wildcard.namespaces().contains("##other")) {
            file.line("in.otherAttributes(", into, ", ", JavaText.literal(wildcard.targetNamespace()), ");");
        } else {
            file.line("in.attributesOf(", into, ", ", listed(wildcard), ");");
        }
    }

    /** Writes the statements that read attributes. */
    void readAttributes(List<Property> attributes) {
        if (attributes.stream().anyMatch(attribute -> attribute.cardinality() == Member.Cardinality.OPTIONAL)) {
            file.line("String text;");
        }
        attributes.forEach(this::readAttribute);
    }

    private static String attribute(Property property, String method) {
        return "in." + JavaTypes.source(property.type(), method) + "(" + name(property) + ")";
    }

    private void readAttribute(Property property) {
        String field = "this." + field(property);
        if (property.cardinality() == Member.Cardinality.REQUIRED) {
            file.line(field, " = ", types.parse(property.type(), attribute(property, "requiredAttribute")), ";");
            keepText(property, field);
            return;
        }
        String variable = "text";
        file.line(variable, " = ", attribute(property, "attribute"), ";");
        file.open("if (", variable, " != null) {");
        file.line(field, " = ", given(property, types.parse(property.type(), variable)), ";");
        keepText(property, field);
        file.close();
    }
}
