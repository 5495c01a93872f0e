package org.protypos.target.csharp.text;

import java.util.Set;
import org.protypos.api.type.ScalarKind;
import org.protypos.target.classes.ValueType;

/** The types of the platform that simple types can become without a converter of anybody's. */
final class CSharpConversions {
    /** What of the platform follows the lexical rules of XML Schema. */
    private static final String CONVERT = "System.Xml.XmlConvert";

    private static final Set<String> VALUES =
            Set.of(("System.DateTimeOffset System.DateTime System.TimeSpan System.Decimal"
                            + " System.Guid System.Boolean System.Byte System.SByte System.Int16 System.UInt16 System.Int32"
                            + " System.UInt32 System.Int64 System.UInt64 System.Single System.Double System.Numerics.BigInteger")
                    .split(" "));

    private CSharpConversions() {}

    /** What stands for values of a kind when a type is asked for; null for none. */
    static ValueType converted(ValueType.Scalar written, String type) {
        ScalarKind kind = written.kind();
        boolean integral = kind.isIntegral();
        ScalarKind other =
                switch (type) {
                    case "int", "System.Int32" -> integral ? ScalarKind.INT : null;
                    case "long", "System.Int64" -> integral ? ScalarKind.LONG : null;
                    case "short", "System.Int16" -> integral ? ScalarKind.SHORT : null;
                    case "uint", "System.UInt32" -> integral ? ScalarKind.UNSIGNED_INT : null;
                    case "ulong", "System.UInt64" -> integral ? ScalarKind.UNSIGNED_LONG : null;
                    case "BigInteger", "System.Numerics.BigInteger" -> integral ? ScalarKind.INTEGER : null;
                    case "string", "System.String" -> kind.isText() ? kind : ScalarKind.TOKEN;
                    default -> null;
                };
        return other != null ? new ValueType.Scalar(other) : ofPlatform(written, type);
    }

    /** Types of the platform that it makes of text itself, and text of them. */
    private static ValueType ofPlatform(ValueType.Scalar written, String type) {
        ScalarKind kind = written.kind();
        return switch (type) {
            case "DateTimeOffset", "System.DateTimeOffset" ->
                kind == ScalarKind.DATE_TIME ? byXmlConvert(written, "System.DateTimeOffset") : null;
            case "TimeSpan", "System.TimeSpan" ->
                kind == ScalarKind.DURATION ? byXmlConvert(written, "System.TimeSpan") : null;
            case "decimal", "System.Decimal" ->
                kind == ScalarKind.DECIMAL || kind.isIntegral() ? byXmlConvert(written, "System.Decimal") : null;
            case "Guid", "System.Guid" -> kind.isText() ? byXmlConvert(written, "System.Guid") : null;
            default -> null;
        };
    }

    private static ValueType byXmlConvert(ValueType.Scalar written, String type) {
        return new ValueType.Converted(
                written, type, CONVERT + ".To" + type.substring(type.lastIndexOf('.') + 1), CONVERT + ".ToString");
    }

    /** Whether a type that was asked for is known to have no null. */
    static boolean isValue(ValueType.Converted converted) {
        return VALUES.contains(converted.type());
    }
}
