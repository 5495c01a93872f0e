package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes a class for a complex type, with the classes nested in it. */
public final class ClassEmitter {
    private static final int TERMS = 40;

    /** Mixed content with more elements of its own keeps the rest of them as trees. */
    private static final int MOST_INNER = 1_000;

    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final ReadingCode reading;
    private final WritingCode writing;
    private final CheckingCode checking;
    private final Pieces pieces;

    private ClassEmitter(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
        this.types = new JavaTypes(context, file);
        JavaDialect dialect = new JavaDialect(types);
        this.reading = new ReadingCode(context, file, dialect);
        this.writing = new WritingCode(context, file, dialect);
        this.checking = new CheckingCode(context, file, dialect);
        this.pieces = new Pieces(file);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedClass type) {
        JavaFile file = context.file(type);
        new ClassEmitter(context, file).write(type);
        return file.finish();
    }

    private void write(PlannedClass type) {
        String base = type.base() == null ? context.xml(file, "XmlObject") : context.ref(file, type.base());
        file.doc(JavaText.comment(type.documentation()), origin(type.xmlType()));
        if (implementsMore(type)) {
            // An interface of somebody's may be serializable, which the compiler would have more to say about.
            file.line("@SuppressWarnings(\"serial\")");
        }
        file.block(
                "public ",
                type.host() == null ? "" : "static ",
                type.isAbstract() ? "abstract " : "",
                "class ",
                type.name(),
                " extends ",
                base,
                EnumEmitter.implemented(file, type.interfaces()));
        for (Property property : type.properties()) {
            file.line("private ", types.field(property), " ", JavaDialect.field(property), ";");
            if (property.nilName() != null) {
                file.line("private boolean ", JavaNames.variable(property.nilName()), ";");
            }
        }
        for (Property property : type.properties()) {
            accessors(type, property);
        }
        reading.setOwner(type);
        writing.setOwner(type);
        reading(type);
        writing(type);
        if (!type.inner().isEmpty()) {
            inner(type);
        }
        if (checking.hasChecks(type)) {
            checking(type);
        }
        if (type.xmlType() != null) {
            xmlType(type.xmlType());
        }
        if (!type.properties().isEmpty()) {
            describing(type);
            equality(type);
        }
        reading.writeConstants();
        checking.writeConstants();
        for (PlannedClass nested : type.nestedClasses()) {
            file.gap();
            write(nested);
        }
        for (PlannedEnum nested : type.nestedEnums()) {
            file.gap();
            EnumEmitter.write(file, nested);
        }
        file.close();
    }

    private static boolean implementsMore(PlannedClass type) {
        return !type.interfaces().isEmpty() || type.base() != null && implementsMore(type.base());
    }

    private static String origin(QName name) {
        return name == null
                ? ""
                : "Type " + JavaText.comment(name.getLocalPart())
                        + (name.getNamespaceURI().isEmpty()
                                ? "."
                                : " of namespace " + JavaText.comment(name.getNamespaceURI()) + ".");
    }

    private void accessors(PlannedClass type, Property property) {
        if (property.access() == Property.Access.UNWRAPPED) {
            unwrapped(type, property);
            return;
        }
        String javaType = types.of(property);
        String field = JavaDialect.field(property);
        file.gap().doc(JavaText.comment(property.documentation()), remark(property));
        String getter = types.getter(property);
        boolean collection = property.isMany();
        file.block("public ", types.given(property), " ", getter, "()");
        if (collection) {
            String empty = property.kind() == Member.Kind.ATTRIBUTE_WILDCARD
                    ? file.ref("java.util.LinkedHashMap")
                    : file.ref("java.util.ArrayList");
            file.block("if (this.", field, " == null)");
            file.line("this.", field, " = new ", empty, "<>();");
            file.close();
        }
        String standard = property.kind() == Member.Kind.ATTRIBUTE && property.defaultValue() != null
                ? types.constant(property.type(), property.defaultValue())
                : null;
        String value =
                standard == null ? "this." + field : "this." + field + " == null ? " + standard + " : this." + field;
        boolean optional = property.access() == Property.Access.OPTIONAL;
        file.line("return ", optional ? file.ref("java.util.Optional") + ".ofNullable(" + value + ")" : value, ";");
        file.close();
        file.gap();
        String self = context.ref(file, type);
        file.block("public ", self, " set", property.name(), "(", javaType, " value)");
        file.line("this.", field, " = value;");
        if (property.nilName() != null) {
            file.line("this.", JavaNames.variable(property.nilName()), " &= value == null;");
        }
        file.line("return this;");
        file.close();
        if (collection && property.kind() != Member.Kind.ATTRIBUTE_WILDCARD) {
            String item = property.kind() == Member.Kind.MIXED ? "Object" : types.item(property);
            file.gap();
            file.block("public ", self, " add", property.name(), "(", item, " value)");
            file.line(getter, "().add(value);");
            file.line("return this;");
            file.close();
        }
        if (property.nilName() != null) {
            nilAccessors(self, property);
        }
    }

    private void nilAccessors(String self, Property property) {
        String nil = JavaNames.variable(property.nilName());
        file.gap().doc("Whether the element is there and nil, rather than absent.");
        file.block("public boolean is", property.nilName(), "()");
        file.line("return this.", nil, ";");
        file.close();
        file.gap();
        file.block("public ", self, " set", property.nilName(), "(boolean value)");
        file.line("this.", nil, " = value;");
        file.line("return this;");
        file.close();
    }

    /** The accessors of an element that is taken for the list that it holds. */
    private void unwrapped(PlannedClass type, Property property) {
        String list = types.of(property);
        String field = "this." + JavaDialect.field(property);
        String element = types.field(property);
        Property inside = property.inside();
        String item = types.item(inside);
        String self = context.ref(file, type);
        String around = "the element " + JavaText.comment(property.xmlName().getLocalPart());
        file.gap()
                .doc(
                        JavaText.comment(property.documentation()),
                        "Never null; " + around + " is there as soon as an item is.");
        file.block("public ", list, " ", types.getter(property), "()");
        String there = field + " == null ? null : " + field + ".get" + inside.name() + "()";
        String made = "make" + property.name() + "()";
        file.line("return new ", context.xml(file, "ListInside"), "<>(");
        file.line("        () -> ", there, ",");
        file.line("        () -> this.", made, ".get", inside.name(), "());");
        file.close();
        file.gap();
        file.block("private ", element, " ", made);
        file.block("if (", field, " == null)");
        file.line(field, " = new ", element, "();");
        file.close();
        if (property.nilName() != null) {
            file.line("this.", JavaNames.variable(property.nilName()), " = false;");
        }
        file.line("return ", field, ";");
        file.close();
        file.gap().doc("Null for no element; an empty list makes an empty one.");
        file.block("public ", self, " set", property.name(), "(", list, " value)");
        file.block("if (value == null)");
        file.line(field, " = null;");
        file.orElse("else");
        file.line(made, ".set", inside.name(), "(value);");
        file.close();
        file.line("return this;");
        file.close();
        file.gap();
        file.block("public ", self, " add", property.name(), "(", item, " value)");
        file.line(types.getter(property), "().add(value);");
        file.line("return this;");
        file.close();
        if (property.nilName() != null) {
            nilAccessors(self, property);
        }
    }

    private static String remark(Property property) {
        if (property.access() == Property.Access.OPTIONAL) {
            return "Empty when absent.";
        }
        return switch (property.cardinality()) {
            case MANY -> "Never null.";
            case OPTIONAL ->
                property.kind() == Member.Kind.ATTRIBUTE && property.defaultValue() != null ? "" : "Null when absent.";
            case REQUIRED -> property.nillable() ? "Null when nil." : "";
        };
    }

    private void override(String signature) {
        file.gap();
        file.line("@Override");
        file.block(signature);
    }

    private void reading(PlannedClass type) {
        String in = "(" + context.xml(file, "XmlInput") + " in)";
        if (!type.attributes().isEmpty() || type.otherAttributes() != null) {
            override("protected void readAttributes" + in);
            inPieces(type.attributes(), "readAttributes", "XmlInput in", reading::readAttributes);
            if (type.base() != null) {
                file.line("super.readAttributes(in);");
            }
            if (type.otherAttributes() != null) {
                reading.readOtherAttributes(
                        "get" + type.otherAttributesProperty().name() + "()", type.otherAttributes());
            }
            file.close();
        }
        if (type.text() != null) {
            override("protected void readBody" + in);
            String field = "this." + JavaDialect.field(type.text());
            if (type.isMixed()) {
                file.line("in.mixed(get", type.text().name(), "());");
            } else {
                file.line(field, " = ", types.parse(type.text().type(), bodyText(type.text())), ";");
                reading.keepText(type.text(), field);
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("protected void readElements" + in);
            if (type.base() != null) {
                file.line("super.readElements(in);");
            }
            content(type.content(), "readElements", "XmlInput in", part -> reading.read(part, false));
            file.close();
        }
        pieces.write();
        reading.writePieces();
    }

    private static String bodyText(Property text) {
        return text.type().isBinary()
                ? "in.binaryBody()"
                : "in." + ReadingCode.source(text.type(), text.hasOddText() ? "standardBody" : "body") + "()";
    }

    /** Writes code for a list, in methods of its own where there is more than fits one. */
    private <T> void inPieces(List<T> all, String method, String parameter, Consumer<List<T>> write) {
        if (all.size() <= Pieces.MOST) {
            write.accept(all);
            return;
        }
        String[] words = parameter.split(" ");
        String declared = context.xml(file, words[0]) + " " + words[1];
        pieces.divide(all, "void", method, declared, write, name -> file.line(name, "(", words[1], ");"));
    }

    private void content(
            Content<Property> content, String method, String parameter, Consumer<Content<Property>> write) {
        if (content instanceof Content.InSequence<Property> sequence
                && !sequence.optional()
                && sequence.parts().size() > Pieces.MOST) {
            inPieces(sequence.parts(), method, parameter, parts -> parts.forEach(write));
        } else {
            write.accept(content);
        }
    }

    private void writing(PlannedClass type) {
        String out = "(" + context.xml(file, "XmlOutput") + " out)";
        if (type.isEncodedCall()) {
            override("protected void writeAttributes" + out);
            file.line("out.encodingStyle(\"http://schemas.xmlsoap.org/soap/envelope/\");");
            file.close();
        }
        if (type.arrayItem() != null) {
            override("protected void writeAttributes" + out);
            file.line(
                    "out.arrayOf(",
                    JavaText.literal(type.arrayItem().getNamespaceURI()),
                    ", ",
                    JavaText.literal(type.arrayItem().getLocalPart()),
                    ", get",
                    type.elements().get(0).name(),
                    "().size());");
            file.close();
        }
        if (!type.attributes().isEmpty() || type.attributeWildcard() != null) {
            override("protected void writeAttributes" + out);
            if (type.base() != null) {
                file.line("super.writeAttributes(out);");
            }
            inPieces(
                    type.attributes(),
                    "writeAttributes",
                    "XmlOutput out",
                    some -> some.forEach(writing::writeAttribute));
            if (type.attributeWildcard() != null) {
                file.line("out.attributes(get", type.attributeWildcard().name(), "());");
            }
            file.close();
        }
        if (type.text() != null) {
            override("protected void writeBody" + out);
            if (type.isMixed()) {
                file.line("out.mixed(get", type.text().name(), "());");
            } else {
                writeText(type.text());
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("protected void writeElements" + out);
            if (type.base() != null) {
                file.line("super.writeElements(out);");
            }
            // Of a choice, as of a sequence, what is there is written.
            Content<Property> content = type.content() instanceof Content.OneOf<Property> choice
                    ? new Content.InSequence<Property>(choice.parts(), false)
                    : type.content();
            content(content, "writeElements", "XmlOutput out", writing::write);
            file.close();
        }
        pieces.write();
    }

    private void inner(PlannedClass type) {
        Map<String, Map<String, String>> byLocalName = new LinkedHashMap<>();
        type.inner().forEach((name, value) -> {
            String empty = EmptyValue.expression(context, file, value, null);
            if (empty != null && byLocalName.size() < MOST_INNER) {
                byLocalName
                        .computeIfAbsent(name.getLocalPart(), any -> new LinkedHashMap<>())
                        .put(name.getNamespaceURI(), empty);
            }
        });
        override("protected " + context.xml(file, "XmlObject") + " inner(String namespace, String name)");
        file.block("switch (name)");
        byLocalName.forEach((local, byNamespace) -> {
            file.line("case ", JavaText.literal(local), ":");
            byNamespace.forEach((namespace, empty) -> {
                file.line("    if (namespace.equals(", JavaText.literal(namespace), ")) {");
                file.line("        return ", empty, ";");
                file.line("    }");
            });
            file.line("    break;");
        });
        file.line("default: break;");
        file.close();
        file.line("return super.inner(namespace, name);");
        file.close();
    }

    private void checking(PlannedClass type) {
        checking.begin(type);
        override("protected void check(" + context.xml(file, "Violations") + " to)");
        if (type.base() != null) {
            file.line("super.check(to);");
        }
        inPieces(type.attributes(), "checkAttributes", "Violations to", checking::attributes);
        checking.text(type);
        if (type.content() instanceof Content.OneOf<Property> choice
                && choice.parts().size() > Pieces.MOST) {
            file.line("to.choose();");
            inPieces(choice.parts(), "checkBranches", "Violations to", parts -> parts.forEach(checking::branch));
            checking.chosen(choice, true);
        } else if (type.content() != null && !type.elements().isEmpty()) {
            content(type.content(), "checkElements", "Violations to", part -> checking.content(part, true));
        }
        file.close();
        pieces.write();
    }

    private void writeText(Property text) {
        String field = "this." + JavaDialect.field(text);
        String printed = writing.printed(text, field, "0");
        boolean name = text.type() instanceof ValueType.Scalar scalar && scalar.kind() == ScalarKind.QNAME;
        boolean primitive = JavaTypes.isPrimitive(text);
        if (!primitive) {
            file.block("if (", field, " != null)");
        }
        boolean binary = text.type().isBinary();
        if (binary) {
            file.block("if (!out.attached(", field, "))");
        }
        file.line("out.text(", name ? "out.name(" + field + ")" : printed, ");");
        if (binary) {
            file.close();
        }
        if (!primitive) {
            file.close();
        }
    }

    private void xmlType(QName name) {
        String qname = file.ref("javax.xml.namespace.QName");
        override("protected " + qname + " xmlType()");
        file.line(
                "return new ",
                qname,
                "(",
                JavaText.literal(name.getNamespaceURI()),
                ", ",
                JavaText.literal(name.getLocalPart()),
                ");");
        file.close();
    }

    private void describing(PlannedClass type) {
        override("protected void describe(" + context.xml(file, "Description") + " to)");
        if (type.base() != null) {
            file.line("super.describe(to);");
        }
        for (Property property : type.properties()) {
            String field = JavaDialect.field(property);
            file.line("to.member(", JavaText.literal(field), ", this.", field, ");");
        }
        file.close();
    }

    /** Compares some members: the last ones decide, earlier ones may end it. Compilers choke on endless conditions. */
    private void comparison(List<Property> properties, boolean last) {
        List<String> terms = new ArrayList<>();
        for (Property property : properties) {
            String field = JavaDialect.field(property);
            terms.add("same(this." + field + ", that." + field + ")");
            if (property.nilName() != null) {
                String nil = JavaNames.variable(property.nilName());
                terms.add("this." + nil + " == that." + nil);
            }
        }
        for (int i = 0; i < terms.size(); i++) {
            String start = i > 0 ? "        && " : last ? "return " : "if (!(";
            String end = i < terms.size() - 1 ? "" : last ? ";" : ")) {";
            file.line(start, terms.get(i), end);
        }
        if (!last) {
            file.line("    return false;");
            file.line("}");
        }
    }

    private void equality(PlannedClass type) {
        String self = context.ref(file, type);
        override("public boolean equals(Object other)");
        file.block("if (!super.equals(other))");
        file.line("return false;");
        file.close();
        file.line(self, " that = (", self, ") other;");
        List<Property> properties = type.properties();
        for (int from = 0; from < properties.size(); from += TERMS) {
            int to = Math.min(properties.size(), from + TERMS);
            comparison(properties.subList(from, to), to == properties.size());
        }
        file.close();
        override("public int hashCode()");
        file.line("int hash = super.hashCode();");
        for (Property property : type.properties()) {
            file.line("hash = 31 * hash + hash(this.", JavaDialect.field(property), ");");
        }
        file.line("return hash;");
        file.close();
    }
}
