package org.protypos.target.java.text;

import org.protypos.api.ScalarKind;
import org.protypos.runtime.value.Lexical;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;

/** The Java type of everything a plan speaks of, and how values go from and to text. */
public final class JavaTypes {
    private final JavaContext context;
    private final JavaFile file;

    /** Names types in a file. */
    public JavaTypes(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
    }

    /** The type of a property for who sets it, and of parameters. */
    public String of(Property property) {
        return switch (property.kind()) {
            case MIXED -> list("Object");
            case ATTRIBUTE_WILDCARD ->
                file.ref("java.util.Map") + "<" + file.ref("javax.xml.namespace.QName") + ", String>";
            default -> property.access() == Property.Access.UNWRAPPED ? of(property.inside()) : stored(property);
        };
    }

    /** The type of a property's field. */
    public String field(Property property) {
        return property.access() == Property.Access.UNWRAPPED ? stored(property) : of(property);
    }

    private String stored(Property property) {
        return property.isMany() ? list(item(property)) : single(property);
    }

    /** The type that a property's getter gives. */
    public String given(Property property) {
        return property.access() == Property.Access.OPTIONAL
                ? file.ref("java.util.Optional") + "<" + of(property) + ">"
                : of(property);
    }

    /** The call that gives the value of a property, null when it is absent. */
    public String get(Property property) {
        return getter(property) + "()" + (property.access() == Property.Access.OPTIONAL ? ".orElse(null)" : "");
    }

    /** The type of one value of a property where an object is needed. */
    public String item(Property property) {
        return object(property.type());
    }

    private String single(Property property) {
        return isPrimitive(property) ? primitive(((ValueType.Scalar) property.type()).kind()) : object(property.type());
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
        String type = of(property);
        return (type.equals("boolean") || type.equals("Boolean") ? "is" : "get") + property.name();
    }

    String list(String item) {
        return file.ref("java.util.List") + "<" + item + ">";
    }

    /** The type of a value as an object. */
    public String object(ValueType type) {
        if (type instanceof ValueType.Scalar scalar) {
            return boxed(scalar.kind());
        }
        if (type instanceof ValueType.Enumerated enumerated) {
            return context.ref(file, enumerated.type());
        }
        if (type instanceof ValueType.Structured structured) {
            return context.ref(file, structured.type());
        }
        if (type instanceof ValueType.Converted converted) {
            return file.ref(converted.type());
        }
        if (type instanceof ValueType.Carried carried) {
            return context.ref(file, carried.content());
        }
        if (type instanceof ValueType.Items items) {
            return list(object(items.item()));
        }
        if (type instanceof ValueType.NamedElement named) {
            return context.xml(file, "XmlElement")
                    + (named.content() == null ? "<?>" : "<? extends " + context.ref(file, named.content()) + ">");
        }
        if (type instanceof ValueType.NamedSimple) {
            return context.xml(file, "XmlElement") + "<? extends " + context.xml(file, "XmlSimple") + ">";
        }
        return context.xml(file, "XmlObject");
    }

    /** The type of a value that is always there. */
    public static String primitive(ScalarKind kind) {
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

    private String boxed(ScalarKind kind) {
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES -> "String";
            case BOOLEAN -> "Boolean";
            case BYTE -> "Byte";
            case UNSIGNED_BYTE, SHORT -> "Short";
            case UNSIGNED_SHORT, INT -> "Integer";
            case UNSIGNED_INT, LONG -> "Long";
            case INTEGER, UNSIGNED_LONG -> file.ref("java.math.BigInteger");
            case DECIMAL -> file.ref("java.math.BigDecimal");
            case FLOAT -> "Float";
            case DOUBLE -> "Double";
            case DATE_TIME -> context.value(file, "XmlDateTime");
            case DATE -> context.value(file, "XmlDate");
            case TIME -> context.value(file, "XmlTime");
            case DURATION -> context.value(file, "XmlDuration");
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY -> context.value(file, "XmlPartialDate");
            case HEX, BASE64 -> "byte[]";
            case ATTACHMENT -> context.attach(file, "Attachment");
            case QNAME -> file.ref("javax.xml.namespace.QName");
        };
    }

    /** The expression that makes a value of text, given as an expression. */
    public String parse(ValueType type, String text) {
        if (type instanceof ValueType.Items items) {
            return "in.list(" + text + ", one -> " + parse(items.item(), "one") + ")";
        }
        if (type instanceof ValueType.Enumerated enumerated) {
            PlannedEnum target = enumerated.type();
            return "in.known(" + parse(target.base(), text) + ", " + context.ref(file, target) + "::find, "
                    + JavaText.literal(target.name()) + ")";
        }
        if (type instanceof ValueType.Converted || type instanceof ValueType.Carried) {
            return "in.<" + object(type) + ">converted(" + plain(type.written(), text) + ", " + parser(type)
                    + ", it -> " + print(type, "it") + ", " + JavaText.literal(described(type)) + ")";
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
            return "it -> " + documents() + ".inText(it, " + name(carried) + ", " + context.ref(file, carried.content())
                    + ".class)";
        }
        ValueType.Converted converted = (ValueType.Converted) type;
        if (converted.parse() == null) {
            return context.value(file, "Conversions") + "::" + JavaConversions.method(converted.type());
        }
        return converted.parse().equals("new") ? file.ref(converted.type()) + "::new" : method(converted.parse(), "::");
    }

    private String documents() {
        return file.ref(context.plan().rootPackage(), context.plan().registry()) + ".INSTANCE";
    }

    private static String name(ValueType.Carried carried) {
        return JavaText.literal(carried.element().getNamespaceURI()) + ", "
                + JavaText.literal(carried.element().getLocalPart());
    }

    private String method(String full, String between) {
        int dot = full.lastIndexOf('.');
        return file.ref(full.substring(0, dot)) + between + full.substring(dot + 1);
    }

    private String printConverted(ValueType.Converted type, String value) {
        if (type.print() == null) {
            return context.value(file, "Conversions") + ".print(" + value + ")";
        }
        return type.print().indexOf('.') < 0
                ? value + "." + type.print() + "()"
                : method(type.print(), ".") + "(" + value + ")";
    }

    private String parse(ScalarKind kind, String text) {
        return switch (kind) {
            case STRING, NAMES -> text;
            case NORMALIZED -> "in.toNormalized(" + text + ")";
            case TOKEN -> "in.toToken(" + text + ")";
            case BOOLEAN -> "in.toBoolean(" + text + ")";
            case BYTE -> "in.toByte(" + text + ")";
            case UNSIGNED_BYTE -> "in.toUnsignedByte(" + text + ")";
            case SHORT -> "in.toShort(" + text + ")";
            case UNSIGNED_SHORT -> "in.toUnsignedShort(" + text + ")";
            case INT -> "in.toInt(" + text + ")";
            case UNSIGNED_INT -> "in.toUnsignedInt(" + text + ")";
            case LONG -> "in.toLong(" + text + ")";
            case INTEGER, UNSIGNED_LONG -> "in.toInteger(" + text + ")";
            case DECIMAL -> "in.toDecimal(" + text + ")";
            case FLOAT -> "in.toFloat(" + text + ")";
            case DOUBLE -> "in.toDouble(" + text + ")";
            case DATE_TIME -> "in.toDateTime(" + text + ")";
            case DATE -> "in.toDate(" + text + ")";
            case TIME -> "in.toTime(" + text + ")";
            case DURATION -> "in.toDuration(" + text + ")";
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY ->
                "in.toPartialDate(" + text + ", " + context.value(file, "XmlPartialDate") + ".Form." + kind + ")";
            case HEX -> "in.toHex(" + text + ")";
            case BASE64 -> "in.toBase64(" + text + ")";
            case ATTACHMENT -> "in.toAttachment(" + text + ")";
            case QNAME -> "in.toQName(" + text + ")";
        };
    }

    /** The expression that makes text of a value; a qualified name stays one, for its prefix is chosen later. */
    public String print(ValueType type, String value) {
        if (type instanceof ValueType.Items items) {
            return context.value(file, "Lexical") + ".print(" + value + ", one -> " + printItem(items.item(), "one")
                    + ")";
        }
        if (type instanceof ValueType.Enumerated) {
            return value + ".value()";
        }
        if (type instanceof ValueType.Converted converted) {
            return printConverted(converted, value);
        }
        if (type instanceof ValueType.Carried carried) {
            return documents() + ".asText(" + name(carried) + ", " + value + ")";
        }
        ScalarKind kind = ((ValueType.Scalar) type).kind();
        return switch (kind) {
            case STRING, NORMALIZED, TOKEN, NAMES, QNAME -> value;
            case HEX -> context.value(file, "Lexical") + ".printHex(" + value + ")";
            case BASE64 -> context.value(file, "Lexical") + ".printBase64(" + value + ")";
            case ATTACHMENT -> value + ".toBase64()";
            default -> context.value(file, "Lexical") + ".print(" + value + ")";
        };
    }

    private String printItem(ValueType type, String value) {
        boolean name = type instanceof ValueType.Scalar scalar && scalar.kind() == ScalarKind.QNAME;
        return name ? "out.name(" + value + ")" : print(type, value);
    }

    /** The literal for a default value, or null when the text is not of the type or has no literal. */
    public String constant(ValueType type, String text) {
        if (type instanceof ValueType.Enumerated enumerated) {
            for (PlannedEnum.Constant constant : enumerated.type().constants()) {
                if (constant.value().equals(text.strip())) {
                    return context.ref(file, enumerated.type()) + "." + constant.name();
                }
            }
            return null;
        }
        if (type instanceof ValueType.Converted converted) {
            String given = "(" + JavaText.literal(text.strip()) + ")";
            return "new".equals(converted.parse())
                    ? "new " + file.ref(converted.type()) + given
                    : parser(converted).replace("::", ".") + given;
        }
        try {
            return type instanceof ValueType.Scalar scalar ? constant(scalar.kind(), text) : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private String constant(ScalarKind kind, String text) {
        String value = text.strip();
        return switch (kind) {
            case STRING, NAMES -> JavaText.literal(text);
            case NORMALIZED, TOKEN -> JavaText.literal(value);
            case BOOLEAN ->
                switch (value) {
                    case "true", "1" -> "true";
                    case "false", "0" -> "false";
                    default -> null;
                };
            case BYTE -> "(byte) " + Byte.parseByte(value);
            case UNSIGNED_BYTE, SHORT -> "(short) " + Short.parseShort(value);
            case UNSIGNED_SHORT, INT -> String.valueOf(Integer.parseInt(value));
            case UNSIGNED_INT, LONG -> Long.parseLong(value) + "L";
            case INTEGER, UNSIGNED_LONG -> "new " + boxed(kind) + "(\"" + Lexical.parseInteger(value) + "\")";
            case DECIMAL ->
                "new " + boxed(kind) + "(\"" + Lexical.parseDecimal(value).toPlainString() + "\")";
            case FLOAT -> finite(Float.parseFloat(value)) + "f";
            case DOUBLE -> finite(Double.parseDouble(value)) + "d";
            default -> null;
        };
    }

    private static String finite(double value) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            throw new NumberFormatException("no literal");
        }
        return String.valueOf(value);
    }
}
