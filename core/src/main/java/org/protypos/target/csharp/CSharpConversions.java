package org.protypos.target.csharp;

import java.util.EnumSet;
import java.util.Set;
import org.protypos.plan.ScalarKind;
import org.protypos.plan.ValueType;

/** The types of the platform that simple types can become without a converter of anybody's. */
final class CSharpConversions {
    private static final Set<ScalarKind> INTEGRAL = EnumSet.of(
            ScalarKind.BYTE,
            ScalarKind.UNSIGNED_BYTE,
            ScalarKind.SHORT,
            ScalarKind.UNSIGNED_SHORT,
            ScalarKind.INT,
            ScalarKind.UNSIGNED_INT,
            ScalarKind.LONG,
            ScalarKind.UNSIGNED_LONG,
            ScalarKind.INTEGER);

    private CSharpConversions() {}

    /** What stands for values of a kind when a type is asked for; null for none. */
    static ValueType converted(ValueType.Scalar written, String type) {
        ScalarKind kind = written.kind();
        boolean integral = INTEGRAL.contains(kind);
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
