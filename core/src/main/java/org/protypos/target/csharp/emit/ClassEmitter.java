package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.Member;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes a class for a complex type, with the types nested in it. */
public final class ClassEmitter {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final FieldNames fields;
    private final ReadingCode reading;
    private final WritingCode writing;
    private final CheckingCode checking;

    private ClassEmitter(CSharpContext context, CSharpFile file, PlannedClass type) {
        this.context = context;
        this.file = file;
        this.types = new CSharpTypes(context, file);
        this.fields = new FieldNames(type);
        CSharpDialect dialect = new CSharpDialect(types, fields);
        this.reading = new ReadingCode(context, file, dialect);
        this.writing = new WritingCode(context, file, dialect);
        this.checking = new CheckingCode(context, file, dialect);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedClass type) {
        CSharpFile file = context.file(type);
        new ClassEmitter(context, file, type).write(type);
        return file.finish();
    }

    private void write(PlannedClass type) {
        List<String> bases = new ArrayList<>();
        bases.add(type.base() == null ? context.runtime(file, "XmlObject") : context.ref(file, type.base()));
        bases.add(file.type("System", "IEquatable") + "<" + context.ref(file, type) + ">");
        type.interfaces().forEach(one -> bases.add(file.foreign(one)));
        file.doc(CSharpText.comment(type.documentation()), origin(type));
        file.block(
                "public ",
                type.isAbstract() ? "abstract " : "",
                "partial class ",
                type.name(),
                " : ",
                String.join(", ", bases));
        boolean any = false;
        for (Property property : type.properties()) {
            if (hasField(property)) {
                file.line("private ", types.field(property), " ", fields.of(property), ";");
                any = true;
            }
        }
        for (Property property : type.properties()) {
            if (any) {
                file.gap();
            }
            any = true;
            property(property);
        }
        reading.setOwner(type);
        writing.setOwner(type);
        if (type.xmlType() != null) {
            gap(any);
            any = true;
            schemaType(type.xmlType());
        }
        reading(type);
        writing(type);
        if (type.isMixed() && !type.inner().isEmpty()) {
            inner(type);
        }
        if (checking.hasChecks(type)) {
            checking(type);
        }
        if (!type.properties().isEmpty()) {
            describing(type);
        }
        equality(type);
        reading.writeConstants();
        checking.writeConstants();
        for (PlannedClass nested : type.nestedClasses()) {
            file.gap();
            new ClassEmitter(context, file, nested).write(nested);
        }
        for (PlannedEnum nested : type.nestedEnums()) {
            file.gap();
            EnumEmitter.write(file, nested);
        }
        file.close();
    }

    private void gap(boolean after) {
        if (after) {
            file.gap();
        }
    }

    private static String origin(PlannedClass type) {
        QName name = type.xmlType();
        return name != null
                ? "Type " + CSharpText.comment(name.getLocalPart())
                        + (name.getNamespaceURI().isEmpty()
                                ? "."
                                : " of namespace " + CSharpText.comment(name.getNamespaceURI()) + ".")
                : type.documentation().isBlank() ? "What " + CSharpText.comment(type.name()) + " holds." : "";
    }

    /** Whether a property is more than a place for a value. */
    private boolean hasField(Property property) {
        return property.isMany()
                || property.nilName() != null
                || CSharpTypes.isUnwrapped(property)
                || hasDefault(property);
    }

    private boolean hasDefault(Property property) {
        return property.kind() == Member.Kind.ATTRIBUTE
                && property.defaultValue() != null
                && types.constant(property) != null;
    }

    private void property(Property property) {
        if (CSharpTypes.isUnwrapped(property)) {
            unwrapped(property);
            return;
        }
        String type = types.of(property);
        file.doc(CSharpText.comment(property.documentation()), what(property), remark(property));
        if (!hasField(property)) {
            file.line("public ", type, " ", property.name(), " { get; set; }");
            return;
        }
        String field = "this." + fields.of(property);
        file.block("public ", type, " ", property.name());
        String value = property.isMany()
                ? field + " ?? (" + field + " = new " + type + "())"
                : hasDefault(property) ? field + " ?? " + types.constant(property) : field;
        file.block("get");
        file.line("return ", value, ";");
        file.close();
        file.gap();
        file.block("set");
        file.line(field, " = value;");
        if (property.nilName() != null) {
            file.line("this.", property.nilName(), " &= value == null;");
        }
        file.close();
        file.close();
        nilFlag(property);
    }

    private void nilFlag(Property property) {
        if (property.nilName() != null) {
            file.gap().doc("Whether the element is there and nil, rather than absent.");
            file.line("public bool ", property.nilName(), " { get; set; }");
        }
    }

    /** The property of an element that is taken for the list that it holds. */
    private void unwrapped(Property property) {
        String field = "this." + fields.of(property);
        Property inside = property.inside();
        String made = fields.made("Make" + property.name());
        String item = types.item(inside);
        String list = "new " + context.runtime(file, "ListInside") + "<" + item + ">";
        String element = types.field(property);
        file.doc(
                CSharpText.comment(property.documentation()),
                what(property),
                "Never null; the element is there as soon as an item is. Null takes it away, an empty list makes it.");
        file.block("public ", types.of(property), " ", property.name());
        file.block("get");
        file.line(
                "return ",
                list,
                "(() => ",
                field,
                "?.",
                inside.name(),
                ", () => this.",
                made,
                "().",
                inside.name(),
                ");");
        file.close();
        file.gap();
        file.block("set");
        file.block("if (value == null)");
        file.line(field, " = null;");
        file.orElse("else");
        file.line("this.", made, "().", inside.name(), " = new ", types.list(item), "(value);");
        file.close();
        file.close();
        file.close();
        file.gap();
        file.block("private ", element, " ", made, "()");
        if (property.nilName() != null) {
            file.line("this.", property.nilName(), " = false;");
        }
        file.block("if (", field, " == null)");
        file.line(field, " = new ", element, "();");
        file.close();
        file.gap();
        file.line("return ", field, ";");
        file.close();
        nilFlag(property);
    }

    private static String what(Property property) {
        if (!property.documentation().isBlank()) {
            return "";
        }
        return switch (property.kind()) {
            case ATTRIBUTE ->
                "The attribute " + CSharpText.comment(property.xmlName().getLocalPart()) + ".";
            case ELEMENT, SUBSTITUTABLE ->
                (property.isMany() ? "The elements " : "The element ")
                        + CSharpText.comment(property.xmlName().getLocalPart()) + ".";
            case TEXT -> "The text of the element.";
            case WILDCARD ->
                property.isMany() ? "Elements of any kind that is allowed." : "An element of any kind that is allowed.";
            case ATTRIBUTE_WILDCARD -> "Attributes of any kind that is allowed.";
            case GROUP -> "The members of the group that repeats, in their order.";
            case MIXED -> "Texts and elements, in their order.";
        };
    }

    private String remark(Property property) {
        return switch (property.cardinality()) {
            case MANY -> "Never null.";
            case OPTIONAL -> hasDefault(property) ? "" : "Null when absent.";
            case REQUIRED -> property.nillable() ? "Null when nil." : "";
        };
    }

    private void override(String signature) {
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override ", signature);
    }

    private void schemaType(QName name) {
        file.line("/// <inheritdoc/>");
        file.block("protected override ", file.type("System.Xml.Linq", "XName"), " XmlTypeName");
        file.block("get");
        file.line("return ", types.xname(name.getNamespaceURI(), name.getLocalPart()), ";");
        file.close();
        file.close();
    }

    private void reading(PlannedClass type) {
        String in = "(" + context.runtime(file, "XmlInput") + " input)";
        if (!type.attributes().isEmpty() || type.otherAttributes() != null) {
            override("void ReadXmlAttributes" + in);
            reading.readAttributes(type.attributes());
            if (type.base() != null) {
                file.line("base.ReadXmlAttributes(input);");
            }
            if (type.otherAttributes() != null) {
                reading.readOtherAttributes(
                        "this." + type.otherAttributesProperty().name(), type.otherAttributes());
            }
            file.close();
        }
        if (type.text() != null) {
            override("void ReadXmlBody" + in);
            String member = "this." + type.text().name();
            if (type.isMixed()) {
                file.line("input.Mixed(", member, ", this.InnerXml);");
            } else {
                file.line(member, " = ", types.parse(type.text(), bodyText(type.text())), ";");
                reading.keepText(type.text(), member);
            }
            file.close();
            if (type.isMixed() && type.inner().isEmpty()) {
                noInner();
            }
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("void ReadXmlElements" + in);
            if (type.base() != null) {
                file.line("base.ReadXmlElements(input);");
            }
            reading.read(type.content(), false);
            file.close();
        }
    }

    private static String bodyText(Property text) {
        return text.type().isBinary()
                ? "input.BinaryBody()"
                : "input."
                        + CSharpText.capital(
                                ReadingCode.source(text.type(), text.hasOddText() ? "standardBody" : "body"))
                        + "()";
    }

    private void writing(PlannedClass type) {
        String out = "(" + context.runtime(file, "XmlOutput") + " output)";
        if (type.isEncodedCall()) {
            override("void WriteXmlAttributes" + out);
            file.line("output.EncodingStyle(\"http://schemas.xmlsoap.org/soap/envelope/\");");
            file.close();
        }
        if (type.arrayItem() != null) {
            override("void WriteXmlAttributes" + out);
            file.line(
                    "output.ArrayOf(",
                    CSharpText.literal(type.arrayItem().getNamespaceURI()),
                    ", ",
                    CSharpText.literal(type.arrayItem().getLocalPart()),
                    ", this.",
                    type.elements().get(0).name(),
                    ".Count);");
            file.close();
        }
        if (!type.attributes().isEmpty() || type.attributeWildcard() != null) {
            override("void WriteXmlAttributes" + out);
            if (type.base() != null) {
                file.line("base.WriteXmlAttributes(output);");
            }
            type.attributes().forEach(writing::writeAttribute);
            if (type.attributeWildcard() != null) {
                file.line("output.Attributes(this.", type.attributeWildcard().name(), ");");
            }
            file.close();
        }
        if (type.text() != null) {
            override("void WriteXmlBody" + out);
            if (type.isMixed()) {
                file.line("output.Mixed(this.", type.text().name(), ");");
            } else {
                writeText(type.text());
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("void WriteXmlElements" + out);
            if (type.base() != null) {
                file.line("base.WriteXmlElements(output);");
            }
            // Of a choice, as of a sequence, what is there is written.
            writing.write(type.content());
            file.close();
        }
    }

    private void writeText(Property text) {
        String member = "this." + text.name();
        String there = CSharpDialect.writable(text, member);
        boolean always = CSharpTypes.isAlwaysThere(text);
        if (!always) {
            file.block("if (", member, " != null)");
        }
        if (text.type().isBinary()) {
            file.block("if (!output.Attached(", member, "))");
        }
        file.line(
                "output.Text(",
                text.type().isName() ? "output.Name(" + member + ")" : writing.printed(text, there, "0"),
                ");");
        if (text.type().isBinary()) {
            file.close();
        }
        if (!always) {
            file.close();
        }
    }

    private String innerSignature(PlannedClass type) {
        boolean inherited = type.base() != null && type.base().isMixed();
        return "protected " + (inherited ? "override " : "virtual ") + context.runtime(file, "XmlObject") + " InnerXml("
                + file.type("System.Xml.Linq", "XName") + " name)";
    }

    private void noInner() {
        file.gap().doc("Gives an empty value for an element that the type itself declares, or null.");
        file.block(
                "protected virtual ",
                context.runtime(file, "XmlObject"),
                " InnerXml(",
                file.type("System.Xml.Linq", "XName"),
                " name)");
        file.line("return null;");
        file.close();
    }

    /** What the elements hold that mixed content declares itself: what comes is held to that. */
    private void inner(PlannedClass type) {
        Map<String, Map<String, String>> byLocalName = new LinkedHashMap<>();
        type.inner().forEach((name, value) -> {
            String empty = EmptyValue.expression(context, file, value, null);
            if (empty != null) {
                byLocalName
                        .computeIfAbsent(name.getLocalPart(), any -> new LinkedHashMap<>())
                        .put(name.getNamespaceURI(), empty);
            }
        });
        file.gap().doc("Gives an empty value for an element that the type itself declares, or null.");
        file.block(innerSignature(type));
        String otherwise = type.base() != null && type.base().isMixed() ? "base.InnerXml(name)" : "null";
        if (!byLocalName.isEmpty()) {
            file.block("switch (name.LocalName)");
            byLocalName.forEach((local, byNamespace) -> {
                file.line("case ", CSharpText.literal(local), ":");
                file.indent();
                byNamespace.forEach((namespace, empty) -> {
                    file.block("if (name.NamespaceName == ", CSharpText.literal(namespace), ")");
                    file.line("return ", empty, ";");
                    file.close();
                });
                file.line("break;");
                file.outdent();
            });
            file.line("default:");
            file.line("    break;");
            file.close();
        }
        file.line("return ", otherwise, ";");
        file.close();
    }

    private void checking(PlannedClass type) {
        override("void CheckXml(" + context.runtime(file, "XmlCheck") + " to)");
        if (type.base() != null) {
            file.line("base.CheckXml(to);");
        }
        checking.attributes(type.attributes());
        checking.text(type);
        if (type.content() != null && !type.elements().isEmpty()) {
            checking.content(type.content(), true);
        }
        file.close();
    }

    /** What holds the value of a property; a list that nobody has asked for is none. */
    private String stored(Property property) {
        return hasField(property) ? "this." + fields.of(property) : "this." + property.name();
    }

    private void describing(PlannedClass type) {
        override("void DescribeXml(" + context.runtime(file, "XmlDescription") + " to)");
        if (type.base() != null) {
            file.line("base.DescribeXml(to);");
        }
        for (Property property : type.properties()) {
            file.line("to.Add(nameof(", property.name(), "), ", stored(property), ");");
        }
        file.close();
    }

    private void equality(PlannedClass type) {
        String self = context.ref(file, type);
        file.gap().line("/// <inheritdoc/>");
        file.block("public bool Equals(", self, " other)");
        file.line("return this.Equals((object)other);");
        file.close();
        file.gap().line("/// <inheritdoc/>");
        file.block("public override bool Equals(object other)");
        if (type.properties().isEmpty()) {
            file.line("return base.Equals(other);");
        } else {
            file.block("if (!base.Equals(other))");
            file.line("return false;");
            file.close();
            file.line(self, " that = (", self, ")other;");
            List<String> terms = new ArrayList<>();
            for (Property property : type.properties()) {
                String mine = stored(property);
                terms.add(compared(property, mine, "that" + mine.substring("this".length())));
                if (property.nilName() != null) {
                    terms.add("this." + property.nilName() + " == that." + property.nilName());
                }
            }
            file.line("return ", terms.get(0), terms.size() == 1 ? ";" : "");
            file.indent();
            for (int i = 1; i < terms.size(); i++) {
                file.line("&& ", terms.get(i), i == terms.size() - 1 ? ";" : "");
            }
            file.outdent();
        }
        file.close();
        file.gap().line("/// <inheritdoc/>");
        file.block("public override int GetHashCode()");
        if (type.properties().isEmpty()) {
            file.line("return base.GetHashCode();");
        } else {
            file.line("int hash = base.GetHashCode();");
            file.block("unchecked");
            String members = context.statics(file, "Members");
            for (Property property : type.properties()) {
                file.line("hash = 31 * hash + ", members, ".Hash(", stored(property), ");");
            }
            file.close();
            file.line("return hash;");
        }
        file.close();
    }

    private String compared(Property property, String mine, String other) {
        boolean text = property.type() instanceof ValueType.Scalar scalar
                && scalar.kind().isText();
        return !property.isMany() && (text || CSharpTypes.isValue(property.type())) && !isFloating(property.type())
                ? mine + " == " + other
                : context.statics(file, "Members") + ".AreEqual(" + mine + ", " + other + ")";
    }

    /** What is no number is equal to itself for who compares objects, and never by the operator. */
    private static boolean isFloating(ValueType type) {
        return type instanceof ValueType.Scalar scalar
                && switch (scalar.kind()) {
                    case FLOAT, DOUBLE -> true;
                    default -> false;
                };
    }
}
