package org.protypos.target.csharp;

import org.protypos.api.ScalarKind;
import org.protypos.target.classes.ValueType;

/** The types of the platform that simple types can become without a converter of anybody's. */
final class CSharpConversions {
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
        return other == null ? null : new ValueType.Scalar(other);
    }
}
