package org.protypos.target.java.text;

import java.util.function.UnaryOperator;
import org.protypos.api.type.ScalarKind;
import org.protypos.runtime.value.Lexical;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ScalarReading;

/** The Java type of everything a plan speaks of, and how values go from and to text. */
public final class JavaTypes {
    private static final Code ONE = Code.of("one");

    private final JavaContext context;
    private final ValueType.Cases<Code> objects;
    private final ValueType.Cases<UnaryOperator<Code>> parsed;
    private final ValueType.Cases<UnaryOperator<Code>> printed;

    /** The types of a contract. */
    JavaTypes(JavaContext context) {
        this.context = context;
        this.objects = new ValueType.Cases<>(
                scalar -> boxed(scalar.kind()),
                enumerated -> Code.of(context.ref(enumerated.type())),
                converted -> Code.of(TypeName.foreign(converted.type())),
                carried -> Code.of(context.ref(carried.content())),
                items -> list(object(items.item())),
                structured -> Code.of(context.ref(structured.type())),
                anything -> Code.of(context.xml("XmlObject")),
                named -> named.content() == null
                        ? Code.of("$T<?>", context.xml("XmlElement"))
                        : Code.of("$T<? extends $T>", context.xml("XmlElement"), context.ref(named.content())),
                simple -> Code.of("$T<? extends $T>", context.xml("XmlElement"), context.xml("XmlSimple")));
        this.parsed = ValueType.Cases.ofText(
                scalar -> text -> parse(scalar.kind(), text),
                enumerated -> text -> Code.of(
                        "input.known($L, $T::find, $S)",
                        parse(enumerated.type().base(), text),
                        context.ref(enumerated.type()),
                        enumerated.type().name()),
                converted -> text -> shaped(converted, text, parser(converted)),
                carried -> text -> shaped(carried, text, parser(carried)),
                items -> text -> Code.of("input.list($L, one -> $L)", text, parse(items.item(), ONE)));
        this.printed = ValueType.Cases.ofText(
                scalar -> value -> print(scalar.kind(), value),
                enumerated -> value -> Code.of("$L.value()", value),
                converted -> value -> printConverted(converted, value),
                carried -> value -> Code.of("$L.asText($L, $L)", documents(), name(carried), value),
                items -> value -> Code.of(
                        "$T.print($L, one -> $L)", context.value("Lexical"), value, printItem(items.item(), ONE)));
    }

    /** The type of a property for who sets it, and of parameters. */
    public Code of(Property property) {
        return switch (property.kind()) {
            case MIXED -> list(Code.of("Object"));
            case ATTRIBUTE_WILDCARD ->
                Code.of(
                        "$T<$T, String>",
                        TypeName.ofLibrary("java.util.Map"),
                        TypeName.ofLibrary("javax.xml.namespace.QName"));
            default -> property.isUnwrapped() ? of(property.inside()) : stored(property);
        };
    }

    /** The type of a property's field. */
    public Code field(Property property) {
        return property.isUnwrapped() ? stored(property) : of(property);
    }

    private Code stored(Property property) {
        return property.isMany() ? list(item(property)) : single(property);
    }

    /** The type that a property's getter gives. */
    public Code given(Property property) {
        return property.access() == Property.Access.OPTIONAL
                ? Code.of("$T<$T>", TypeName.ofLibrary("java.util.Optional"), of(property))
                : of(property);
    }

    /** The type of a property where an object is needed. */
    public Code boxed(Property property) {
        return property.isMany() || property.isUnwrapped() ? of(property) : item(property);
    }

    /** The call that gives the value of a property, null when it is absent. */
    public Code get(Property property) {
        return Code.of(property.access() == Property.Access.OPTIONAL ? "$N().orElse(null)" : "$N()", getter(property));
    }

    /** The type of one value of a property where an object is needed. */
    public Code item(Property property) {
        return object(property.type());
    }

    private Code single(Property property) {
        return isPrimitive(property)
                ? Code.of(primitive(((ValueType.Scalar) property.type()).kind()))
                : object(property.type());
    }

    /** Whether one value of a property is a primitive, which can be neither absent nor nil. */
    public static boolean isPrimitive(Property property) {
        return isPrimitive(property.type()) && !property.isAbsentable();
    }

    /** Whether the values of a type are primitives as long as they are always there. */
    public static boolean isPrimitive(ValueType type) {
        return type instanceof ValueType.Scalar scalar && primitive(scalar.kind()) != null;
    }

    /** The name of the method that gives a property. */
    public String getter(Property property) {
        return (isFlag(property) ? "is" : "get") + property.name();
    }

    private static boolean isFlag(Property property) {
        return property.type() instanceof ValueType.Scalar scalar
                && scalar.kind() == ScalarKind.BOOLEAN
                && !property.isMany();
    }

    Code list(Code item) {
        return Code.of("$T<$T>", TypeName.ofLibrary("java.util.List"), item);
    }

    /** The type of a value as an object. */
    public Code object(ValueType type) {
        return type.map(objects);
    }

    /** The type of a value that is always there. */
    private static String primitive(ScalarKind kind) {
        return switch (kind) {
            case BOOLEAN -> "boolean";
            case BYTE -> "byte";
            case UNSIGNED_BYTE, SHORT -> "short";
            case UNSIGNED_SHORT, INT -> "int";
            case UNSIGNED_INT, LONG -> "long";
            case FLOAT -> "float";
            case DOUBLE -> "double";
            default -> null;
        };
    }

    private Code boxed(ScalarKind kind) {
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES -> Code.of("String");
            case BOOLEAN -> Code.of("Boolean");
            case BYTE -> Code.of("Byte");
            case UNSIGNED_BYTE, SHORT -> Code.of("Short");
            case UNSIGNED_SHORT, INT -> Code.of("Integer");
            case UNSIGNED_INT, LONG -> Code.of("Long");
            case INTEGER, UNSIGNED_LONG -> Code.of(TypeName.ofLibrary("java.math.BigInteger"));
            case DECIMAL -> Code.of(TypeName.ofLibrary("java.math.BigDecimal"));
            case FLOAT -> Code.of("Float");
            case DOUBLE -> Code.of("Double");
            case DATE_TIME -> Code.of(context.value("XmlDateTime"));
            case DATE -> Code.of(context.value("XmlDate"));
            case TIME -> Code.of(context.value("XmlTime"));
            case DURATION -> Code.of(context.value("XmlDuration"));
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY -> Code.of(context.value("XmlPartialDate"));
            case HEX, BASE64 -> Code.of("byte[]");
            case ATTACHMENT -> Code.of(context.attach("Attachment"));
            case QNAME -> Code.of(TypeName.ofLibrary("javax.xml.namespace.QName"));
        };
    }

    /** The expression that makes a value of text, given as an expression. */
    public Code parse(ValueType type, Code text) {
        return type.map(parsed).apply(text);
    }

    private Code shaped(ValueType.Shaped type, Code text, Code parser) {
        return Code.of(
                "input.<$T>converted($L, $L, given -> $L, $S)",
                object(type),
                parse(type.source(), text),
                parser,
                print(type, Code.of("given")),
                type.described());
    }

    /** The function that makes a value of text. */
    private Code parser(ValueType.Carried carried) {
        return Code.of(
                "given -> $L.inText(given, $L, $T.class)", documents(), name(carried), context.ref(carried.content()));
    }

    private Code parser(ValueType.Converted converted) {
        if (converted.parse() == null) {
            return Code.of("$T::$N", context.value("Conversions"), JavaConversions.method(converted.type()));
        }
        return converted.parse().equals("new")
                ? Code.of("$T::new", TypeName.foreign(converted.type()))
                : method(converted.parse(), "$T::$N");
    }

    /** What a text in brackets follows where a value is made of it. */
    private Code maker(ValueType.Converted type) {
        if (type.parse() == null) {
            return Code.of("$T.$N", context.value("Conversions"), JavaConversions.method(type.type()));
        }
        return type.parse().equals("new")
                ? Code.of("new $T", TypeName.foreign(type.type()))
                : method(type.parse(), "$T.$N");
    }

    private Code documents() {
        return Code.of("$T.INSTANCE", context.registry());
    }

    private static Code name(ValueType.Carried carried) {
        return Code.of(
                "$S, $S", carried.element().getNamespaceURI(), carried.element().getLocalPart());
    }

    private static Code method(String full, String template) {
        int dot = full.lastIndexOf('.');
        return Code.of(template, TypeName.foreign(full.substring(0, dot)), full.substring(dot + 1));
    }

    private Code printConverted(ValueType.Converted type, Code value) {
        if (type.print() == null) {
            return Code.of("$T.print($L)", context.value("Conversions"), value);
        }
        return type.print().indexOf('.') < 0
                ? Code.of("$L.$N()", value, type.print())
                : Code.of("$L($L)", method(type.print(), "$T.$N"), value);
    }

    private Code parse(ScalarKind kind, Code text) {
        return switch (kind) {
            case STRING, NAMES -> text;
            // Java has no unsigned type that is wide enough.
            case UNSIGNED_LONG -> parse(ScalarKind.INTEGER, text);
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY ->
                Code.of("input.toPartialDate($L, $T.Form.$N)", text, context.value("XmlPartialDate"), kind.name());
            case QNAME -> Code.of("input.toQName($L)", text);
            default -> Code.of("input.$N($L)", ScalarReading.method(kind), text);
        };
    }

    /** The expression that makes text of a value; a qualified name stays one, for its prefix is chosen later. */
    public Code print(ValueType type, Code value) {
        return type.map(printed).apply(value);
    }

    private Code print(ScalarKind kind, Code value) {
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES, QNAME -> value;
            case HEX -> Code.of("$T.printHex($L)", context.value("Lexical"), value);
            case BASE64 -> Code.of("$T.printBase64($L)", context.value("Lexical"), value);
            case ATTACHMENT -> Code.of("$L.toBase64()", value);
            default -> Code.of("$T.print($L)", context.value("Lexical"), value);
        };
    }

    private Code printItem(ValueType type, Code value) {
        return type.isName() ? Code.of("out.name($L)", value) : print(type, value);
    }

    /** The literal for a default value, or null when the text is not of the type or has no literal. */
    public Code constant(ValueType type, String text) {
        if (type instanceof ValueType.Enumerated enumerated) {
            for (PlannedEnum.Constant constant : enumerated.type().constants()) {
                if (constant.value().equals(text.strip())) {
                    return Code.of("$T.$N", context.ref(enumerated.type()), constant.name());
                }
            }
            return null;
        }
        if (type instanceof ValueType.Converted converted) {
            return Code.of("$L($S)", maker(converted), text.strip());
        }
        try {
            return type instanceof ValueType.Scalar scalar ? constant(scalar.kind(), text) : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private Code constant(ScalarKind kind, String text) {
        String value = text.strip();
        return switch (kind) {
            case STRING, NAMES -> Code.of("$S", text);
            case NORMALIZED, TOKEN -> Code.of("$S", value);
            case BOOLEAN ->
                switch (value) {
                    case "true", "1" -> Code.of("true");
                    case "false", "0" -> Code.of("false");
                    default -> null;
                };
            case BYTE -> Code.of("(byte) $L", Byte.parseByte(value));
            case UNSIGNED_BYTE, SHORT -> Code.of("(short) $L", Short.parseShort(value));
            case UNSIGNED_SHORT, INT -> Code.of("$L", Integer.parseInt(value));
            case UNSIGNED_INT, LONG -> Code.of("$LL", Long.parseLong(value));
            case INTEGER, UNSIGNED_LONG ->
                Code.of("new $T($S)", boxed(kind), Lexical.parseInteger(value).toString());
            case DECIMAL ->
                Code.of("new $T($S)", boxed(kind), Lexical.parseDecimal(value).toPlainString());
            case FLOAT -> Code.of("$Lf", finite(Float.parseFloat(value)));
            case DOUBLE -> Code.of("$Ld", finite(Double.parseDouble(value)));
            default -> null;
        };
    }

    private static double finite(double value) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            throw new NumberFormatException("no literal");
        }
        return value;
    }
}
