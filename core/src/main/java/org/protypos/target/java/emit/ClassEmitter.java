package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ContentWriting;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
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
    private final JavaDialect dialect;
    private final ReadingCode reading;
    private final WritingCode writing;
    private final CheckingCode checking;
    private final Pieces pieces;

    private ClassEmitter(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
        this.types = context.types();
        this.dialect = new JavaDialect(context);
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
        TypeName base = type.base() == null ? context.xml("XmlObject") : context.ref(type.base());
        file.doc(JavaText.comment(type.documentation()), origin(type.xmlType()));
        if (implementsMore(type)) {
            // An interface of somebody's may be serializable, which the compiler would have more to say about.
            file.line("@SuppressWarnings(\"serial\")");
        }
        file.block(
                "public $L$Lclass $N extends $T$L",
                type.host() == null ? Code.NONE : Code.of("static "),
                type.isAbstract() ? Code.of("abstract ") : Code.NONE,
                type.name(),
                base,
                EnumEmitter.implemented(type.interfaces()));
        for (Property property : type.properties()) {
            file.line("private $T $N;", types.field(property), dialect.field(property));
            if (property.nilName() != null) {
                file.line("private boolean $N;", context.field(property.nilName()));
            }
        }
        for (Property property : type.properties()) {
            accessors(type, property);
        }
        reading.setOwner(type);
        writing.setOwner(type, checking);
        checking.begin(type);
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
        if (name == null) {
            return "";
        }
        String local = "Type " + JavaText.comment(name.getLocalPart());
        return name.getNamespaceURI().isEmpty()
                ? local + "."
                : local + " of namespace " + JavaText.comment(name.getNamespaceURI()) + ".";
    }

    private void accessors(PlannedClass type, Property property) {
        if (property.isUnwrapped()) {
            unwrapped(type, property);
            return;
        }
        Code javaType = types.of(property);
        String field = dialect.field(property);
        file.gap().doc(JavaText.comment(property.documentation()), remark(property));
        String getter = types.getter(property);
        boolean collection = property.isMany();
        file.block("public $T $N()", types.given(property), getter);
        if (collection) {
            TypeName empty = property.kind() == Member.Kind.ATTRIBUTE_WILDCARD
                    ? TypeName.ofLibrary("java.util.LinkedHashMap")
                    : TypeName.ofLibrary("java.util.ArrayList");
            file.block("if (this.$N == null)", field);
            file.line("this.$N = new $T<>();", field, empty);
            file.close();
        }
        Code standard = property.kind() == Member.Kind.ATTRIBUTE && property.defaultValue() != null
                ? types.constant(property.type(), property.defaultValue())
                : null;
        Code value = standard == null
                ? Code.of("this.$N", field)
                : Code.of("this.$N == null ? $L : this.$N", field, standard, field);
        boolean optional = property.access() == Property.Access.OPTIONAL;
        file.line(
                "return $L;",
                optional ? Code.of("$T.ofNullable($L)", TypeName.ofLibrary("java.util.Optional"), value) : value);
        file.close();
        file.gap();
        TypeName self = context.ref(type);
        file.block("public $T set$N($T value)", self, property.name(), javaType);
        file.line("this.$N = value;", field);
        if (property.nilName() != null) {
            file.line("$L &= value == null;", dialect.nilFlag(property));
        }
        file.line("return this;");
        file.close();
        if (collection && property.kind() != Member.Kind.ATTRIBUTE_WILDCARD) {
            Code item = property.kind() == Member.Kind.MIXED ? Code.of("Object") : types.item(property);
            file.gap();
            file.block("public $T add$N($T value)", self, property.name(), item);
            file.line("$N().add(value);", getter);
            file.line("return this;");
            file.close();
        }
        if (property.nilName() != null) {
            nilAccessors(self, property);
        }
    }

    private void nilAccessors(TypeName self, Property property) {
        String nil = context.field(property.nilName());
        file.gap().doc("Whether the element is there and nil, rather than absent.");
        file.block("public boolean is$N()", property.nilName());
        file.line("return this.$N;", nil);
        file.close();
        file.gap();
        file.block("public $T set$N(boolean value)", self, property.nilName());
        file.line("this.$N = value;", nil);
        file.line("return this;");
        file.close();
    }

    /** The accessors of an element that is taken for the list that it holds. */
    private void unwrapped(PlannedClass type, Property property) {
        Code list = types.of(property);
        Code field = dialect.member(property);
        Code element = types.field(property);
        Property inside = property.inside();
        Code item = types.item(inside);
        TypeName self = context.ref(type);
        String around = "the element " + JavaText.comment(property.xmlName().getLocalPart());
        file.gap()
                .doc(
                        JavaText.comment(property.documentation()),
                        "Never null; " + around + " is there as soon as an item is.");
        file.block("public $T $N()", list, types.getter(property));
        Code there = Code.of("$L == null ? null : $L.get$N()", field, field, inside.name());
        String made = "make" + property.name();
        file.line("return new $T<>(", context.xml("ListInside"));
        file.line("        () -> $L,", there);
        file.line("        () -> this.$N().get$N());", made, inside.name());
        file.close();
        file.gap();
        file.block("private $T $N()", element, made);
        file.block("if ($L == null)", field);
        file.line("$L = new $T();", field, element);
        file.close();
        if (property.nilName() != null) {
            file.line("$L = false;", dialect.nilFlag(property));
        }
        file.line("return $L;", field);
        file.close();
        file.gap().doc("Null for no element; an empty list makes an empty one.");
        file.block("public $T set$N($T value)", self, property.name(), list);
        file.block("if (value == null)");
        file.line("$L = null;", field);
        file.orElse("else");
        file.line("$N().set$N(value);", made, inside.name());
        file.close();
        file.line("return this;");
        file.close();
        file.gap();
        file.block("public $T add$N($T value)", self, property.name(), item);
        file.line("$N().add(value);", types.getter(property));
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

    private void override(String template, Object... arguments) {
        file.gap();
        file.line("@Override");
        file.block(template, arguments);
    }

    private void reading(PlannedClass type) {
        Code in = Code.of("($T input)", context.xml("XmlInput"));
        if (type.arrayItem() != null) {
            override("protected void readAttributes$L", in);
            file.line("input.arrayOf();");
            file.close();
        }
        if (!type.attributes().isEmpty() || type.otherAttributes() != null) {
            override("protected void readAttributes$L", in);
            inPieces(type.attributes(), "readAttributes", "XmlInput input", reading::readAttributes);
            if (type.base() != null) {
                file.line("super.readAttributes(input);");
            }
            if (type.otherAttributes() != null) {
                reading.readOtherAttributes(
                        Code.of("get$N()", type.otherAttributesProperty().name()), type.otherAttributes());
            }
            file.close();
        }
        if (type.text() != null) {
            override("protected void readBody$L", in);
            Code field = dialect.member(type.text());
            if (type.isMixed()) {
                file.line("input.mixed(get$N());", type.text().name());
            } else {
                file.line("$L = $L;", field, types.parse(type.text().type(), bodyText(type.text())));
                reading.keepText(type.text(), field);
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("protected void readElements$L", in);
            if (type.base() != null) {
                file.line("super.readElements(input);");
            }
            content(type.content(), "readElements", "XmlInput input", part -> reading.read(part, false));
            file.close();
        }
        pieces.write();
        reading.writePieces();
    }

    private static Code bodyText(Property text) {
        return text.type().isBinary()
                ? Code.of("input.binaryBody()")
                : Code.of("input.$N()", ReadingCode.source(text.type(), text.hasOddText() ? "standardBody" : "body"));
    }

    /** Writes code for a list, in methods of its own where there is more than fits one. */
    private <T> void inPieces(List<T> all, String method, String parameter, Consumer<List<T>> write) {
        if (all.size() <= Pieces.MOST) {
            write.accept(all);
            return;
        }
        String[] words = parameter.split(" ");
        Code declared = Code.of("$T $N", context.xml(words[0]), words[1]);
        pieces.divide(all, Code.of("void"), method, declared, write, name -> file.line("$N($N);", name, words[1]));
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
        Code out = Code.of("($T out)", context.xml("XmlOutput"));
        if (type.isEncodedCall()) {
            override("protected void writeAttributes$L", out);
            file.line("out.encodingStyle(\"http://schemas.xmlsoap.org/soap/envelope/\");");
            file.close();
        }
        if (type.arrayItem() != null) {
            override("protected void writeAttributes$L", out);
            file.line(
                    "out.arrayOf($S, $S, get$N().size());",
                    type.arrayItem().getNamespaceURI(),
                    type.arrayItem().getLocalPart(),
                    type.elements().get(0).name());
            file.close();
        }
        if (!type.attributes().isEmpty() || type.attributeWildcard() != null) {
            override("protected void writeAttributes$L", out);
            if (type.base() != null) {
                file.line("super.writeAttributes(out);");
            }
            inPieces(
                    type.attributes(),
                    "writeAttributes",
                    "XmlOutput out",
                    some -> some.forEach(writing::writeAttribute));
            if (type.attributeWildcard() != null) {
                file.line("out.attributes(get$N());", type.attributeWildcard().name());
            }
            file.close();
        }
        if (type.text() != null) {
            override("protected void writeBody$L", out);
            if (type.isMixed()) {
                file.line("out.mixed(get$N());", type.text().name());
            } else {
                writeText(type.text());
            }
            file.close();
        }
        if (type.content() != null && !type.elements().isEmpty()) {
            override("protected void writeElements$L", out);
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
        Map<String, Map<String, Code>> byLocalName = new LinkedHashMap<>();
        type.inner().forEach((name, element) -> {
            Code empty = EmptyValue.expression(context, element);
            if (empty != null && byLocalName.size() < MOST_INNER) {
                byLocalName
                        .computeIfAbsent(name.getLocalPart(), any -> new LinkedHashMap<>())
                        .put(name.getNamespaceURI(), empty);
            }
        });
        override("protected $T inner(String namespace, String name)", context.xml("XmlObject"));
        file.block("switch (name)");
        byLocalName.forEach((local, byNamespace) -> {
            file.line("case $S:", local);
            byNamespace.forEach((namespace, empty) -> {
                file.line("    if (namespace.equals($S)) {", namespace);
                file.line("        return $L;", empty);
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
        override("protected void check($T to)", context.xml("Violations"));
        if (type.base() != null) {
            file.line("super.check(to);");
        }
        inPieces(type.attributes(), "checkAttributes", "Violations to", checking::attributes);
        checking.text(type);
        checking.narrowings(type);
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
        Code field = dialect.member(text);
        Code printed = writing.printed(text, field, ContentWriting.FIRST);
        boolean name = text.type() instanceof ValueType.Scalar scalar && scalar.kind() == ScalarKind.QNAME;
        boolean primitive = JavaTypes.isPrimitive(text);
        if (!primitive) {
            file.block("if ($L != null)", field);
        }
        boolean binary = text.type().isBinary();
        if (binary) {
            file.block("if (!out.attached($L))", field);
        }
        file.line("out.text($L);", name ? Code.of("out.name($L)", field) : printed);
        if (binary) {
            file.close();
        }
        if (!primitive) {
            file.close();
        }
    }

    private void xmlType(QName name) {
        TypeName qname = TypeName.ofLibrary("javax.xml.namespace.QName");
        override("protected $T xmlType()", qname);
        file.line("return new $T($S, $S);", qname, name.getNamespaceURI(), name.getLocalPart());
        file.close();
    }

    private void describing(PlannedClass type) {
        override("protected void describe($T to)", context.xml("Description"));
        if (type.base() != null) {
            file.line("super.describe(to);");
        }
        for (Property property : type.properties()) {
            String field = dialect.field(property);
            file.line("to.member($S, this.$N);", dialect.word(property), field);
        }
        file.close();
    }

    /** Compares some members: the last ones decide, earlier ones may end it. Compilers choke on endless conditions. */
    private void comparison(List<Property> properties, boolean last) {
        List<Code> terms = new ArrayList<>();
        for (Property property : properties) {
            String field = dialect.field(property);
            terms.add(Code.of("same(this.$N, that.$N)", field, field));
            if (property.nilName() != null) {
                String nil = context.field(property.nilName());
                terms.add(Code.of("this.$N == that.$N", nil, nil));
            }
        }
        for (int i = 0; i < terms.size(); i++) {
            String start = i > 0 ? "        && " : last ? "return " : "if (!(";
            String end = i < terms.size() - 1 ? "" : last ? ";" : ")) {";
            file.line(start + "$L" + end, terms.get(i));
        }
        if (!last) {
            file.line("    return false;");
            file.line("}");
        }
    }

    private void equality(PlannedClass type) {
        TypeName self = context.ref(type);
        override("public boolean equals(Object other)");
        file.block("if (!super.equals(other))");
        file.line("return false;");
        file.close();
        file.line("$T that = ($T) other;", self, self);
        List<Property> properties = type.properties();
        for (int from = 0; from < properties.size(); from += TERMS) {
            int to = Math.min(properties.size(), from + TERMS);
            comparison(properties.subList(from, to), to == properties.size());
        }
        file.close();
        override("public int hashCode()");
        file.line("int hash = super.hashCode();");
        for (Property property : type.properties()) {
            file.line("hash = 31 * hash + hash(this.$N);", dialect.field(property));
        }
        file.line("return hash;");
        file.close();
    }
}
