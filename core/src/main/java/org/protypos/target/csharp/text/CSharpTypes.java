package org.protypos.target.csharp.text;

import java.util.List;
import java.util.stream.Collectors;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.api.ValueFacets;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;

/** The C# type of everything a plan speaks of, and how values go from and to text. */
public final class CSharpTypes {
    /** A {@code decimal} holds 28 digits whatever they are (C# language specification, section 8.3.8). */
    private static final int DECIMAL_DIGITS = 28;

    private final CSharpContext context;
    private final CSharpFile file;

    /** Names types in a file. */
    public CSharpTypes(CSharpContext context, CSharpFile file) {
        this.context = context;
        this.file = file;
    }

    /** The type of a property, and of parameters. */
    public String of(Property property) {
        return switch (property.kind()) {
            case MIXED -> list(linq("XNode"));
            case ATTRIBUTE_WILDCARD ->
                file.type("System.Collections.Generic", "Dictionary") + "<" + linq("XName") + ", string>";
            default ->
                isUnwrapped(property)
                        ? file.type("System.Collections.Generic", "IList") + "<" + item(property.inside()) + ">"
                        : stored(property);
        };
    }

    /** Whether a property is the list in its element rather than the element. */
    public static boolean isUnwrapped(Property property) {
        return property.access() == Property.Access.UNWRAPPED;
    }

    /** The type of what a property is kept in. */
    public String field(Property property) {
        return isUnwrapped(property) ? stored(property) : of(property);
    }

    private String stored(Property property) {
        return property.isMany() ? list(item(property)) : single(property);
    }

    /** The type of one value of a property in a list. */
    public String item(Property property) {
        return property.nillable() && isValue(property.type()) ? value(property) + "?" : value(property);
    }

    private String single(Property property) {
        return value(property) + (isValue(property.type()) && property.isAbsentable() ? "?" : "");
    }

    /** The type of one value of a property that is there. */
    String value(Property property) {
        if (property.kind() == Member.Kind.WILDCARD) {
            return linq("XElement");
        }
        return isSmallDecimal(property) ? "decimal" : object(property.type());
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
        ValueFacets step = facets;
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
    public String list(String item) {
        return file.type("System.Collections.Generic", "List") + "<" + item + ">";
    }

    private String linq(String name) {
        return file.type("System.Xml.Linq", name);
    }

    /** The type of a value. */
    public String object(ValueType type) {
        if (type instanceof ValueType.Scalar scalar) {
            return scalar(scalar.kind());
        }
        if (type instanceof ValueType.Enumerated enumerated) {
            return context.ref(file, enumerated.type());
        }
        if (type instanceof ValueType.Structured structured) {
            return context.ref(file, structured.type());
        }
        if (type instanceof ValueType.Converted converted) {
            return file.foreign(converted.type());
        }
        if (type instanceof ValueType.Carried carried) {
            return context.ref(file, carried.content());
        }
        if (type instanceof ValueType.Items items) {
            return list(object(items.item()));
        }
        if (type instanceof ValueType.NamedElement named) {
            return named.content() == null
                    ? context.runtime(file, "XmlElement") + "<" + context.runtime(file, "XmlObject") + ">"
                    : context.runtime(file, "XmlElement") + "<" + context.ref(file, named.content()) + ">";
        }
        if (type instanceof ValueType.NamedSimple) {
            return context.runtime(file, "XmlElement") + "<" + context.runtime(file, "XmlSimple") + ">";
        }
        return linq("XElement");
    }

    private String scalar(ScalarKind kind) {
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES -> "string";
            case BOOLEAN -> "bool";
            case BYTE -> "sbyte";
            case UNSIGNED_BYTE -> "byte";
            case SHORT -> "short";
            case UNSIGNED_SHORT -> "ushort";
            case INT -> "int";
            case UNSIGNED_INT -> "uint";
            case LONG -> "long";
            case UNSIGNED_LONG -> "ulong";
            case INTEGER -> file.type("System.Numerics", "BigInteger");
            case DECIMAL -> context.runtime(file, "XmlDecimal");
            case FLOAT -> "float";
            case DOUBLE -> "double";
            case DATE_TIME -> context.runtime(file, "XmlDateTime");
            case DATE -> context.runtime(file, "XmlDate");
            case TIME -> context.runtime(file, "XmlTime");
            case DURATION -> context.runtime(file, "XmlDuration");
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY -> context.runtime(file, "XmlPartialDate");
            case HEX, BASE64 -> "byte[]";
            case ATTACHMENT -> context.runtime(file, "Attachment");
            case QNAME -> linq("XName");
        };
    }

    /** The expression that makes a value of text, given as an expression. */
    public String parse(Property property, String text) {
        return isSmallDecimal(property) ? "input.ToSmallDecimal(" + text + ")" : parse(property.type(), text);
    }

    /** The expression that makes a value of text, given as an expression. */
    public String parse(ValueType type, String text) {
        if (type instanceof ValueType.Items items) {
            return "input.List(" + text + ", one => " + parse(items.item(), "one") + ")";
        }
        if (type instanceof ValueType.Enumerated enumerated) {
            PlannedEnum target = enumerated.type();
            return "input.Known<" + context.ref(file, target) + ">(" + parse(target.base(), text) + ", "
                    + context.registry(file) + ".Find, " + CSharpText.literal(target.name()) + ")";
        }
        if (type instanceof ValueType.Converted || type instanceof ValueType.Carried) {
            return "input.Converted<" + object(type) + ">(" + plain(type.written(), text) + ", " + parser(type)
                    + ", it => " + print(type, "it") + ", " + CSharpText.literal(described(type)) + ")";
        }
        return parse(((ValueType.Scalar) type).kind(), text);
    }

    /** The text that a converter gets: with its white space as the simple type wants it. */
    private String plain(ValueType written, String text) {
        ScalarKind kind = ((ValueType.Scalar) written).kind();
        return parse(kind.isText() ? kind : ScalarKind.TOKEN, text);
    }

    private static String described(ValueType type) {
        return type instanceof ValueType.Carried carried
                ? "document with <" + carried.element().getLocalPart() + ">"
                : ((ValueType.Converted) type).type();
    }

    /** The function that makes a value of text. */
    private String parser(ValueType type) {
        if (type instanceof ValueType.Carried carried) {
            return "it => " + context.registry(file) + ".Instance.InText<" + context.ref(file, carried.content())
                    + ">(it, " + name(carried) + ")";
        }
        ValueType.Converted converted = (ValueType.Converted) type;
        return converted.parse().equals("new")
                ? "it => new " + file.foreign(converted.type()) + "(it)"
                : file.foreign(converted.parse());
    }

    private String name(ValueType.Carried carried) {
        return xname(carried.element().getNamespaceURI(), carried.element().getLocalPart());
    }

    /** The expression for a qualified name. */
    public String xname(String namespace, String local) {
        return file.statics("System.Xml.Linq", "XName") + ".Get(" + CSharpText.literal(local) + ", "
                + CSharpText.literal(namespace) + ")";
    }

    private String parse(ScalarKind kind, String text) {
        return switch (kind) {
            case STRING, NAMES -> text;
            case NORMALIZED -> "input.ToNormalized(" + text + ")";
            case TOKEN -> "input.ToToken(" + text + ")";
            case BOOLEAN -> "input.ToBoolean(" + text + ")";
            case BYTE -> "input.ToByte(" + text + ")";
            case UNSIGNED_BYTE -> "input.ToUnsignedByte(" + text + ")";
            case SHORT -> "input.ToShort(" + text + ")";
            case UNSIGNED_SHORT -> "input.ToUnsignedShort(" + text + ")";
            case INT -> "input.ToInt(" + text + ")";
            case UNSIGNED_INT -> "input.ToUnsignedInt(" + text + ")";
            case LONG -> "input.ToLong(" + text + ")";
            case UNSIGNED_LONG -> "input.ToUnsignedLong(" + text + ")";
            case INTEGER -> "input.ToInteger(" + text + ")";
            case DECIMAL -> "input.ToDecimal(" + text + ")";
            case FLOAT -> "input.ToFloat(" + text + ")";
            case DOUBLE -> "input.ToDouble(" + text + ")";
            case DATE_TIME -> "input.ToDateTime(" + text + ")";
            case DATE -> "input.ToDate(" + text + ")";
            case TIME -> "input.ToTime(" + text + ")";
            case DURATION -> "input.ToDuration(" + text + ")";
            case YEAR -> partial(text, "Year");
            case YEAR_MONTH -> partial(text, "YearMonth");
            case MONTH -> partial(text, "Month");
            case MONTH_DAY -> partial(text, "MonthDay");
            case DAY -> partial(text, "Day");
            case HEX -> "input.ToHex(" + text + ")";
            case BASE64 -> "input.ToBase64(" + text + ")";
            case ATTACHMENT -> "input.ToAttachment(" + text + ")";
            case QNAME -> "input.ToName(" + text + ")";
        };
    }

    private String partial(String text, String form) {
        return "input.ToPartialDate(" + text + ", " + context.statics(file, "PartialDateForm") + "." + form + ")";
    }

    /** The expression that makes text of a value; a qualified name stays one, for its prefix is chosen later. */
    public String print(ValueType type, String value) {
        if (type instanceof ValueType.Items items) {
            return context.statics(file, "Lexical") + ".Print(" + value + ", one => " + printItem(items.item(), "one")
                    + ")";
        }
        if (type instanceof ValueType.Enumerated) {
            return context.registry(file) + ".ToXml(" + value + ")";
        }
        if (type instanceof ValueType.Converted converted) {
            return converted.print().indexOf('.') < 0
                    ? value + "." + converted.print() + "()"
                    : file.foreign(converted.print()) + "(" + value + ")";
        }
        if (type instanceof ValueType.Carried carried) {
            return context.registry(file) + ".Instance.AsText(" + name(carried) + ", " + value + ")";
        }
        ScalarKind kind = ((ValueType.Scalar) type).kind();
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES, QNAME -> value;
            case HEX -> context.statics(file, "Lexical") + ".PrintHex(" + value + ")";
            case BASE64 -> context.statics(file, "Lexical") + ".PrintBase64(" + value + ")";
            case ATTACHMENT -> context.statics(file, "Lexical") + ".PrintBase64(" + value + ".ToArray())";
            default -> context.statics(file, "Lexical") + ".Print(" + value + ")";
        };
    }

    private String printItem(ValueType type, String value) {
        return type.isName() ? "output.Name(" + value + ")" : print(type, value);
    }

    /** The literal for a default value, or null when the text is not of the type or has no literal. */
    public String constant(Property property) {
        String text = property.defaultValue();
        ValueType type = property.type();
        if (type instanceof ValueType.Enumerated enumerated) {
            for (PlannedEnum.Constant constant : enumerated.type().constants()) {
                if (constant.value().equals(text.strip())) {
                    return context.statics(file, enumerated.type()) + "." + constant.name();
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

    private String constant(ScalarKind kind, String text, boolean small) {
        String value = text.strip();
        return switch (kind) {
            case STRING, NAMES -> CSharpText.literal(text);
            case NORMALIZED, TOKEN -> CSharpText.literal(value);
            case BOOLEAN -> String.valueOf(Lexical.parseBoolean(value));
            case BYTE -> "(sbyte)" + bracketed(Byte.parseByte(value));
            case UNSIGNED_BYTE -> "(byte)" + Lexical.parseLong(value, 0, 0xff);
            case SHORT -> "(short)" + bracketed(Short.parseShort(value));
            case UNSIGNED_SHORT -> "(ushort)" + Lexical.parseLong(value, 0, 0xffff);
            case INT -> String.valueOf(Integer.parseInt(value));
            case UNSIGNED_INT -> Lexical.parseLong(value, 0, 0xffff_ffffL) + "U";
            case LONG -> Long.parseLong(value) + "L";
            case UNSIGNED_LONG -> Lexical.parseInteger(value) + "UL";
            case INTEGER ->
                file.statics("System.Numerics", "BigInteger") + ".Parse(\"" + Lexical.parseInteger(value) + "\")";
            case DECIMAL ->
                small
                        ? Lexical.parseDecimal(value).toPlainString() + "m"
                        : context.statics(file, "XmlDecimal") + ".Parse(\""
                                + Lexical.parseDecimal(value).toPlainString() + "\")";
            case FLOAT -> finite(Float.parseFloat(value), String.valueOf(Float.parseFloat(value))) + "f";
            case DOUBLE -> finite(Double.parseDouble(value), String.valueOf(Double.parseDouble(value))) + "d";
            default -> null;
        };
    }

    private static String bracketed(long value) {
        return value < 0 ? "(" + value + ")" : String.valueOf(value);
    }

    private static String finite(double value, String text) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            throw new NumberFormatException("no literal");
        }
        return text;
    }

    /** The names and arguments of the element or attribute of a property. */
    public static String name(Property property) {
        return CSharpText.literal(property.xmlName().getNamespaceURI()) + ", "
                + CSharpText.literal(property.xmlName().getLocalPart());
    }

    /** Texts as the items of an array. */
    public static String literals(List<String> values) {
        return values.stream().map(CSharpText::literal).collect(Collectors.joining(", "));
    }
}
