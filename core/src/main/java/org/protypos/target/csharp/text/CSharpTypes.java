package org.protypos.target.csharp.text;

import java.util.function.UnaryOperator;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.ValueFacets;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ScalarReading;

/** The C# type of everything a plan speaks of, and how values go from and to text. */
public final class CSharpTypes {
    /** A {@code decimal} holds 28 digits whatever they are (C# language specification, section 8.3.8). */
    private static final int DECIMAL_DIGITS = 28;

    private static final Code ONE = Code.of("one");

    private final CSharpContext context;
    private final TypeName lexical;
    private final ValueType.Cases<Code> objects;
    private final ValueType.Cases<UnaryOperator<Code>> parsed;
    private final ValueType.Cases<UnaryOperator<Code>> printed;

    /** The types of a contract. */
    CSharpTypes(CSharpContext context) {
        this.context = context;
        this.lexical = context.runtime("Lexical").members();
        this.objects = new ValueType.Cases<>(
                scalar -> scalar(scalar.kind()),
                enumerated -> Code.of(context.ref(enumerated.type())),
                converted -> Code.of(TypeName.foreign(converted.type())),
                carried -> Code.of(context.ref(carried.content())),
                items -> list(object(items.item())),
                structured -> Code.of(context.ref(structured.type())),
                anything -> linq("XElement"),
                named -> Code.of(
                        "$T<$T>",
                        context.runtime("XmlElement"),
                        named.content() == null ? context.runtime("XmlObject") : context.ref(named.content())),
                simple -> Code.of("$T<$T>", context.runtime("XmlElement"), context.runtime("XmlSimple")));
        this.parsed = ValueType.Cases.ofText(
                scalar -> text -> parse(scalar.kind(), text),
                enumerated -> text -> Code.of(
                        "input.Known<$T>($L, $T.Find, $S)",
                        context.ref(enumerated.type()),
                        parse(enumerated.type().base(), text),
                        context.registry(),
                        enumerated.type().name()),
                converted -> text -> shaped(converted, text, parser(converted)),
                carried -> text -> shaped(carried, text, parser(carried)),
                items -> text -> Code.of("input.List($L, one => $L)", text, parse(items.item(), ONE)));
        this.printed = ValueType.Cases.ofText(
                scalar -> value -> switch (scalar.kind()) {
                    case STRING, NORMALIZED, TOKEN, NAMES, QNAME -> value;
                    case HEX -> Code.of("$T.PrintHex($L)", lexical, value);
                    case BASE64 -> Code.of("$T.PrintBase64($L)", lexical, value);
                    case ATTACHMENT -> Code.of("$T.PrintBase64($L.ToArray())", lexical, value);
                    default -> Code.of("$T.Print($L)", lexical, value);
                },
                enumerated -> value -> Code.of("$T.ToXml($L)", context.registry(), value),
                converted -> value -> converted.print().indexOf('.') < 0
                        ? Code.of("$L.$N()", value, converted.print())
                        : Code.of("$T($L)", TypeName.foreign(converted.print()), value),
                carried -> value -> Code.of("$T.Instance.AsText($L, $L)", context.registry(), name(carried), value),
                items -> value -> Code.of("$T.Print($L, one => $L)", lexical, value, printItem(items.item(), ONE)));
    }

    /** The type of a property, and of parameters. */
    public Code of(Property property) {
        return switch (property.kind()) {
            case MIXED -> list(linq("XNode"));
            case ATTRIBUTE_WILDCARD ->
                Code.of(
                        "$T<$T, string>",
                        TypeName.ofLibrary("System.Collections.Generic", "Dictionary"),
                        linq("XName"));
            default ->
                property.isUnwrapped()
                        ? Code.of(
                                "$T<$T>",
                                TypeName.ofLibrary("System.Collections.Generic", "IList"),
                                item(property.inside()))
                        : stored(property);
        };
    }

    /** The type of what a property is kept in. */
    public Code field(Property property) {
        return property.isUnwrapped() ? stored(property) : of(property);
    }

    private Code stored(Property property) {
        return property.isMany() ? list(item(property)) : single(property);
    }

    /** The type of one value of a property in a list. */
    public Code item(Property property) {
        return property.nillable() && isValue(property.type()) ? Code.of("$T?", value(property)) : value(property);
    }

    private Code single(Property property) {
        return isValue(property.type()) && property.isAbsentable() ? Code.of("$T?", value(property)) : value(property);
    }

    /** The type of one value of a property that is there. */
    Code value(Property property) {
        if (property.kind() == Member.Kind.WILDCARD) {
            return linq("XElement");
        }
        return isSmallDecimal(property) ? Code.of("decimal") : object(property.type());
    }

    /** Whether a value is there whatever happens: of a type that has no null, and required. */
    public static boolean isAlwaysThere(Property property) {
        return isValue(property.type()) && !property.isAbsentable();
    }

    /** Whether all values of a property fit a {@code decimal}. */
    static boolean isSmallDecimal(Property property) {
        return property.type() instanceof ValueType.Scalar scalar
                && scalar.kind() == ScalarKind.DECIMAL
                && mostDigits(property.facets()) <= DECIMAL_DIGITS;
    }

    private static int mostDigits(ValueFacets facets) {
        int most = Integer.MAX_VALUE;
        ValueFacets step = facets instanceof ValueFacets.Fixed fixed ? fixed.base() : facets;
        while (step instanceof ValueFacets.Narrowed narrowed) {
            if (narrowed.step() instanceof FacetStep.Digits digits) {
                most = Math.min(most, digits.total());
            }
            step = narrowed.base();
        }
        return most;
    }

    /** Whether a type has no null. */
    public static boolean isValue(ValueType type) {
        if (type instanceof ValueType.Enumerated
                || type instanceof ValueType.Converted converted && CSharpConversions.isValue(converted)) {
            return true;
        }
        return type instanceof ValueType.Scalar scalar
                && (scalar.kind() == ScalarKind.BOOLEAN || scalar.kind().isNumber());
    }

    /** A list of items. */
    public Code list(Code item) {
        return Code.of("$T<$T>", TypeName.ofLibrary("System.Collections.Generic", "List"), item);
    }

    private static Code linq(String name) {
        return Code.of(TypeName.ofLibrary("System.Xml.Linq", name));
    }

    /** The type of a value. */
    public Code object(ValueType type) {
        return type.map(objects);
    }

    private Code scalar(ScalarKind kind) {
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES -> Code.of("string");
            case BOOLEAN -> Code.of("bool");
            case BYTE -> Code.of("sbyte");
            case UNSIGNED_BYTE -> Code.of("byte");
            case SHORT -> Code.of("short");
            case UNSIGNED_SHORT -> Code.of("ushort");
            case INT -> Code.of("int");
            case UNSIGNED_INT -> Code.of("uint");
            case LONG -> Code.of("long");
            case UNSIGNED_LONG -> Code.of("ulong");
            case INTEGER -> Code.of(TypeName.ofLibrary("System.Numerics", "BigInteger"));
            case DECIMAL -> Code.of(context.runtime("XmlDecimal"));
            case FLOAT -> Code.of("float");
            case DOUBLE -> Code.of("double");
            case DATE_TIME -> Code.of(context.runtime("XmlDateTime"));
            case DATE -> Code.of(context.runtime("XmlDate"));
            case TIME -> Code.of(context.runtime("XmlTime"));
            case DURATION -> Code.of(context.runtime("XmlDuration"));
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY -> Code.of(context.runtime("XmlPartialDate"));
            case HEX, BASE64 -> Code.of("byte[]");
            case ATTACHMENT -> Code.of(context.runtime("Attachment"));
            case QNAME -> linq("XName");
        };
    }

    /** The expression that makes a value of text, given as an expression. */
    public Code parse(Property property, Code text) {
        return isSmallDecimal(property) ? Code.of("input.ToSmallDecimal($L)", text) : parse(property.type(), text);
    }

    /** The expression that makes a value of text, given as an expression. */
    public Code parse(ValueType type, Code text) {
        return type.map(parsed).apply(text);
    }

    private Code shaped(ValueType.Shaped type, Code text, Code parser) {
        return Code.of(
                "input.Converted<$T>($L, $L, it => $L, $S)",
                object(type),
                parse(type.source(), text),
                parser,
                print(type, Code.of("it")),
                type.described());
    }

    /** The function that makes a value of text. */
    private Code parser(ValueType.Carried carried) {
        return Code.of(
                "it => $T.Instance.InText<$T>(it, $L)",
                context.registry(),
                context.ref(carried.content()),
                name(carried));
    }

    private Code parser(ValueType.Converted converted) {
        return converted.parse().equals("new")
                ? Code.of("it => new $T(it)", TypeName.foreign(converted.type()))
                : Code.of(TypeName.foreign(converted.parse()));
    }

    private Code name(ValueType.Carried carried) {
        return xname(carried.element().getNamespaceURI(), carried.element().getLocalPart());
    }

    /** The expression for a qualified name. */
    public static Code xname(String namespace, String local) {
        return Code.of(
                "$T.Get($S, $S)", TypeName.ofLibrary("System.Xml.Linq", "XName").members(), local, namespace);
    }

    private Code parse(ScalarKind kind, Code text) {
        return switch (kind) {
            case STRING, NAMES -> text;
            case YEAR -> partial(text, "Year");
            case YEAR_MONTH -> partial(text, "YearMonth");
            case MONTH -> partial(text, "Month");
            case MONTH_DAY -> partial(text, "MonthDay");
            case DAY -> partial(text, "Day");
            case QNAME -> Code.of("input.ToName($L)", text);
            default -> Code.of("input.$N($L)", CSharpText.capital(ScalarReading.method(kind)), text);
        };
    }

    private Code partial(Code text, String form) {
        return Code.of(
                "input.ToPartialDate($L, $T.$N)",
                text,
                context.runtime("PartialDateForm").members(),
                form);
    }

    /** The expression that makes text of a value; a qualified name stays one, for its prefix is chosen later. */
    public Code print(ValueType type, Code value) {
        return type.map(printed).apply(value);
    }

    private Code printItem(ValueType type, Code value) {
        return type.isName() ? Code.of("output.Name($L)", value) : print(type, value);
    }

    /** The literal for a default value, or null when the text is not of the type or has no literal. */
    public Code constant(Property property) {
        String text = property.defaultValue();
        ValueType type = property.type();
        if (type instanceof ValueType.Enumerated enumerated) {
            for (PlannedEnum.Constant constant : enumerated.type().constants()) {
                if (constant.value().equals(text.strip())) {
                    return Code.of("$T.$N", context.ref(enumerated.type()).members(), constant.name());
                }
            }
            return null;
        }
        try {
            return type instanceof ValueType.Scalar scalar
                    ? constant(scalar.kind(), text, isSmallDecimal(property))
                    : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private Code constant(ScalarKind kind, String text, boolean small) {
        String value = text.strip();
        return switch (kind) {
            case STRING, NAMES -> Code.of("$S", text);
            case NORMALIZED, TOKEN -> Code.of("$S", value);
            case BOOLEAN -> Code.of("$L", Lexical.parseBoolean(value));
            case BYTE -> Code.of("(sbyte)$L", bracketed(Byte.parseByte(value)));
            case UNSIGNED_BYTE -> Code.of("(byte)$L", Lexical.parseLong(value, 0, 0xff));
            case SHORT -> Code.of("(short)$L", bracketed(Short.parseShort(value)));
            case UNSIGNED_SHORT -> Code.of("(ushort)$L", Lexical.parseLong(value, 0, 0xffff));
            case INT -> Code.of("$L", Integer.parseInt(value));
            case UNSIGNED_INT -> Code.of("$LU", Lexical.parseLong(value, 0, 0xffff_ffffL));
            case LONG -> Code.of("$LL", Long.parseLong(value));
            case UNSIGNED_LONG -> Code.of("$LUL", Lexical.parseInteger(value));
            case INTEGER ->
                Code.of(
                        "$T.Parse($S)",
                        TypeName.ofLibrary("System.Numerics", "BigInteger").members(),
                        Lexical.parseInteger(value).toString());
            case DECIMAL ->
                small
                        ? Code.of("$Lm", Lexical.parseDecimal(value))
                        : Code.of(
                                "$T.Parse($S)",
                                context.runtime("XmlDecimal").members(),
                                Lexical.parseDecimal(value).toPlainString());
            case FLOAT -> Code.of("$Lf", finite(Float.valueOf(value)));
            case DOUBLE -> Code.of("$Ld", finite(Double.valueOf(value)));
            default -> null;
        };
    }

    private static Code bracketed(long value) {
        return Code.of(value < 0 ? "($L)" : "$L", value);
    }

    private static Number finite(Number value) {
        if (!Double.isFinite(value.doubleValue())) {
            throw new NumberFormatException("no literal");
        }
        return value;
    }
}
