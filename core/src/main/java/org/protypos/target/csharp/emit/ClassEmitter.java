package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.type.Member;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ContentWriting;
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
        this.types = context.types();
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
        List<Code> bases = new ArrayList<>();
        bases.add(Code.of(type.base() == null ? context.runtime("XmlObject") : context.ref(type.base())));
        bases.add(Code.of("$T<$T>", TypeName.ofLibrary("System", "IEquatable"), context.ref(type)));
        type.interfaces().forEach(one -> bases.add(Code.of(TypeName.foreign(one))));
        file.doc(CSharpText.comment(type.documentation()), origin(type));
        file.block(
                "public $Lpartial class $N : $L",
                type.isAbstract() ? Code.of("abstract ") : Code.NONE,
                type.name(),
                Code.join(", ", bases));
        boolean any = false;
        for (Property property : type.properties()) {
            if (hasField(property)) {
                file.line("private $T $N;", types.field(property), fields.of(property));
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
        writing.setOwner(type, checking);
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
        return property.isMany() || property.nilName() != null || property.isUnwrapped() || hasDefault(property);
    }

    private boolean hasDefault(Property property) {
        return property.kind() == Member.Kind.ATTRIBUTE
                && property.defaultValue() != null
                && types.constant(property) != null;
    }

    private void property(Property property) {
        if (property.isUnwrapped()) {
            unwrapped(property);
            return;
        }
        Code type = types.of(property);
        file.doc(CSharpText.comment(property.documentation()), what(property), remark(property));
        if (!hasField(property)) {
            file.line("public $T $N { get; set; }", type, property.name());
            return;
        }
        Code field = Code.of("this.$N", fields.of(property));
        file.block("public $T $N", type, property.name());
        file.block("get");
        file.line("return $L;", given(property, field));
        file.close();
        file.gap();
        file.block("set");
        file.line("$L = value;", field);
        if (property.nilName() != null) {
            file.line("this.$N &= value == null;", property.nilName());
        }
        file.close();
        file.close();
        nilFlag(property);
    }

    private Code given(Property property, Code field) {
        if (property.isMany()) {
            return Code.of("$L ?? ($L = new $T())", field, field, types.of(property));
        }
        return hasDefault(property) ? Code.of("$L ?? $L", field, types.constant(property)) : field;
    }

    private void nilFlag(Property property) {
        if (property.nilName() != null) {
            file.gap().doc("Whether the element is there and nil, rather than absent.");
            file.line("public bool $N { get; set; }", property.nilName());
        }
    }

    /** The property of an element that is taken for the list that it holds. */
    private void unwrapped(Property property) {
        Code field = Code.of("this.$N", fields.of(property));
        Property inside = property.inside();
        String made = fields.made("Make" + property.name());
        Code item = types.item(inside);
        Code element = types.field(property);
        file.doc(
                CSharpText.comment(property.documentation()),
                what(property),
                "Never null; the element is there as soon as an item is. Null takes it away, an empty list makes it.");
        file.block("public $T $N", types.of(property), property.name());
        file.block("get");
        file.line(
                "return new $T<$T>(() => $L?.$N, () => this.$N().$N);",
                context.runtime("ListInside"),
                item,
                field,
                inside.name(),
                made,
                inside.name());
        file.close();
        file.gap();
        file.block("set");
        file.block("if (value == null)");
        file.line("$L = null;", field);
        file.orElse("else");
        file.line("this.$N().$N = new $T(value);", made, inside.name(), types.list(item));
        file.close();
        file.close();
        file.close();
        file.gap();
        file.block("private $T $N()", element, made);
        if (property.nilName() != null) {
            file.line("this.$N = false;", property.nilName());
        }
        file.block("if ($L == null)", field);
        file.line("$L = new $T();", field, element);
        file.close();
        file.gap();
        file.line("return $L;", field);
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

    private void override(String template, Object... arguments) {
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override " + template, arguments);
    }

    private void schemaType(QName name) {
        file.line("/// <inheritdoc/>");
        file.block("protected override $T XmlTypeName", TypeName.ofLibrary("System.Xml.Linq", "XName"));
        file.block("get");
        file.line("return $L;", CSharpTypes.xname(name.getNamespaceURI(), name.getLocalPart()));
        file.close();
        file.close();
    }

    private void reading(PlannedClass type) {
        Code in = Code.of("($T input)", context.runtime("XmlInput"));
        if (type.arrayItem() != null) {
            override("void ReadXmlAttributes$L", in);
            file.line("input.ArrayOf();");
            file.close();
        }
        if (!type.attributes().isEmpty() || type.otherAttributes() != null) {
            override("void ReadXmlAttributes$L", in);
            reading.readAttributes(type.attributes());
            if (type.base() != null) {
                file.line("base.ReadXmlAttributes(input);");
            }
            if (type.otherAttributes() != null) {
                reading.readOtherAttributes(
                        Code.of("this.$N", type.otherAttributesProperty().name()), type.otherAttributes());
            }
            file.close();
        }
        if (type.text() != null) {
            override("void ReadXmlBody$L", in);
            Code member = Code.of("this.$N", type.text().name());
            if (type.isMixed()) {
                file.line("input.Mixed($L, this.InnerXml);", member);
            } else {
                file.line("$L = $L;", member, types.parse(type.text(), bodyText(type.text())));
                reading.keepText(type.text(), member);
            }
            file.close();
            if (type.isMixed() && type.inner().isEmpty()) {
                noInner();
            }
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("void ReadXmlElements$L", in);
            if (type.base() != null) {
                file.line("base.ReadXmlElements(input);");
            }
            reading.read(type.content(), false);
            file.close();
        }
    }

    private static Code bodyText(Property text) {
        return text.type().isBinary()
                ? Code.of("input.BinaryBody()")
                : Code.of(
                        "input.$N()",
                        CSharpText.capital(
                                ReadingCode.source(text.type(), text.hasOddText() ? "standardBody" : "body")));
    }

    private void writing(PlannedClass type) {
        Code out = Code.of("($T output)", context.runtime("XmlOutput"));
        if (type.isEncodedCall()) {
            override("void WriteXmlAttributes$L", out);
            file.line("output.EncodingStyle(\"http://schemas.xmlsoap.org/soap/envelope/\");");
            file.close();
        }
        if (type.arrayItem() != null) {
            override("void WriteXmlAttributes$L", out);
            file.line(
                    "output.ArrayOf($S, $S, this.$N.Count);",
                    type.arrayItem().getNamespaceURI(),
                    type.arrayItem().getLocalPart(),
                    type.elements().get(0).name());
            file.close();
        }
        if (!type.attributes().isEmpty() || type.attributeWildcard() != null) {
            override("void WriteXmlAttributes$L", out);
            if (type.base() != null) {
                file.line("base.WriteXmlAttributes(output);");
            }
            type.attributes().forEach(writing::writeAttribute);
            if (type.attributeWildcard() != null) {
                file.line(
                        "output.Attributes(this.$N);", type.attributeWildcard().name());
            }
            file.close();
        }
        if (type.text() != null) {
            override("void WriteXmlBody$L", out);
            if (type.isMixed()) {
                file.line("output.Mixed(this.$N);", type.text().name());
            } else {
                writeText(type.text());
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("void WriteXmlElements$L", out);
            if (type.base() != null) {
                file.line("base.WriteXmlElements(output);");
            }
            // Of a choice, as of a sequence, what is there is written.
            writing.write(type.content());
            file.close();
        }
    }

    private void writeText(Property text) {
        Code member = Code.of("this.$N", text.name());
        Code there = CSharpDialect.writable(text, member);
        boolean always = CSharpTypes.isAlwaysThere(text);
        if (!always) {
            file.block("if ($L != null)", member);
        }
        if (text.type().isBinary()) {
            file.block("if (!output.Attached($L))", member);
        }
        file.line(
                "output.Text($L);",
                text.type().isName()
                        ? Code.of("output.Name($L)", member)
                        : writing.printed(text, there, ContentWriting.FIRST));
        if (text.type().isBinary()) {
            file.close();
        }
        if (!always) {
            file.close();
        }
    }

    private Code innerSignature(PlannedClass type) {
        boolean inherited = type.base() != null && type.base().isMixed();
        return Code.of(
                inherited ? "protected override $T InnerXml($T name)" : "protected virtual $T InnerXml($T name)",
                context.runtime("XmlObject"),
                TypeName.ofLibrary("System.Xml.Linq", "XName"));
    }

    private void noInner() {
        file.gap().doc("Gives an empty value for an element that the type itself declares, or null.");
        file.block(
                "protected virtual $T InnerXml($T name)",
                context.runtime("XmlObject"),
                TypeName.ofLibrary("System.Xml.Linq", "XName"));
        file.line("return null;");
        file.close();
    }

    /** What the elements hold that mixed content declares itself: what comes is held to that. */
    private void inner(PlannedClass type) {
        Map<String, Map<String, Code>> byLocalName = new LinkedHashMap<>();
        type.inner().forEach((name, element) -> {
            Code empty = EmptyValue.expression(context, element);
            if (empty != null) {
                byLocalName
                        .computeIfAbsent(name.getLocalPart(), any -> new LinkedHashMap<>())
                        .put(name.getNamespaceURI(), empty);
            }
        });
        file.gap().doc("Gives an empty value for an element that the type itself declares, or null.");
        file.block("$L", innerSignature(type));
        boolean inherited = type.base() != null && type.base().isMixed();
        if (!byLocalName.isEmpty()) {
            file.block("switch (name.LocalName)");
            byLocalName.forEach((local, byNamespace) -> {
                file.line("case $S:", local);
                file.indent();
                byNamespace.forEach((namespace, empty) -> {
                    file.block("if (name.NamespaceName == $S)", namespace);
                    file.line("return $L;", empty);
                    file.close();
                });
                file.line("break;");
                file.outdent();
            });
            file.line("default:");
            file.line("    break;");
            file.close();
        }
        file.line(inherited ? "return base.InnerXml(name);" : "return null;");
        file.close();
    }

    private void checking(PlannedClass type) {
        override("void CheckXml($T to)", context.runtime("XmlCheck"));
        if (type.base() != null) {
            file.line("base.CheckXml(to);");
        }
        checking.attributes(type.attributes());
        checking.text(type);
        checking.narrowings(type);
        if (type.content() != null && !type.elements().isEmpty()) {
            checking.content(type.content(), true);
        }
        file.close();
    }

    /** What holds the value of a property; a list that nobody has asked for is none. */
    private Code stored(Property property) {
        return Code.of("this.$N", storedName(property));
    }

    private String storedName(Property property) {
        return hasField(property) ? fields.of(property) : property.name();
    }

    private void describing(PlannedClass type) {
        override("void DescribeXml($T to)", context.runtime("XmlDescription"));
        if (type.base() != null) {
            file.line("base.DescribeXml(to);");
        }
        for (Property property : type.properties()) {
            file.line("to.Add(nameof($N), $L);", property.name(), stored(property));
        }
        file.close();
    }

    private void equality(PlannedClass type) {
        TypeName self = context.ref(type);
        file.gap().line("/// <inheritdoc/>");
        file.block("public bool Equals($T other)", self);
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
            file.line("$T that = ($T)other;", self, self);
            List<Code> terms = new ArrayList<>();
            for (Property property : type.properties()) {
                terms.add(compared(property, stored(property), Code.of("that.$N", storedName(property))));
                if (property.nilName() != null) {
                    terms.add(Code.of("this.$N == that.$N", property.nilName(), property.nilName()));
                }
            }
            file.line(terms.size() == 1 ? "return $L;" : "return $L", terms.get(0));
            file.indent();
            for (int i = 1; i < terms.size(); i++) {
                file.line(i == terms.size() - 1 ? "&& $L;" : "&& $L", terms.get(i));
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
            TypeName members = context.runtime("Members").members();
            for (Property property : type.properties()) {
                file.line("hash = 31 * hash + $T.Hash($L);", members, stored(property));
            }
            file.close();
            file.line("return hash;");
        }
        file.close();
    }

    private Code compared(Property property, Code mine, Code other) {
        boolean text = property.type() instanceof ValueType.Scalar scalar
                && scalar.kind().isText();
        return !property.isMany() && (text || CSharpTypes.isValue(property.type())) && !isFloating(property.type())
                ? Code.of("$L == $L", mine, other)
                : Code.of("$T.AreEqual($L, $L)", context.runtime("Members").members(), mine, other);
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
