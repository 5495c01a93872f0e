package org.protypos.target.java.text;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.api.type.ScalarKind;
import org.protypos.target.classes.ValueType;

/** The classes of the platform that simple types can become without a converter of anybody's. */
final class JavaConversions {
    /** Classes by simple name: their package, and the method that makes one of text. */
    private static final Map<String, Known> KNOWN = known();

    private record Known(String type, String method, Set<ScalarKind> from) {}

    private JavaConversions() {}

    private static Map<String, Known> known() {
        Map<String, Known> known = new LinkedHashMap<>();
        for (String name : List.of("LocalDateTime", "OffsetDateTime", "ZonedDateTime", "Instant")) {
            known.put(name, new Known("java.time." + name, "to" + name, Set.of(ScalarKind.DATE_TIME)));
        }
        known.put("LocalDate", new Known("java.time.LocalDate", "toLocalDate", Set.of(ScalarKind.DATE)));
        known.put("LocalTime", new Known("java.time.LocalTime", "toLocalTime", Set.of(ScalarKind.TIME)));
        known.put("OffsetTime", new Known("java.time.OffsetTime", "toOffsetTime", Set.of(ScalarKind.TIME)));
        known.put("Duration", new Known("java.time.Duration", "toDuration", Set.of(ScalarKind.DURATION)));
        known.put("Period", new Known("java.time.Period", "toPeriod", Set.of(ScalarKind.DURATION)));
        known.put("Year", new Known("java.time.Year", "toYear", Set.of(ScalarKind.YEAR)));
        known.put("YearMonth", new Known("java.time.YearMonth", "toYearMonth", Set.of(ScalarKind.YEAR_MONTH)));
        known.put("Month", new Known("java.time.Month", "toMonth", Set.of(ScalarKind.MONTH)));
        known.put("MonthDay", new Known("java.time.MonthDay", "toMonthDay", Set.of(ScalarKind.MONTH_DAY)));
        Set<ScalarKind> text = Set.of(ScalarKind.STRING, ScalarKind.NORMALIZED, ScalarKind.TOKEN);
        known.put("URI", new Known("java.net.URI", "toUri", text));
        known.put("UUID", new Known("java.util.UUID", "toUuid", text));
        return known;
    }

    /** What stands for values of a kind when a type is asked for by its simple or its full name; null for none. */
    static ValueType converted(ValueType.Scalar written, String type) {
        ScalarKind kind = written.kind();
        ScalarKind other =
                switch (type) {
                    case "int", "Integer", "java.lang.Integer" -> kind.isIntegral() ? ScalarKind.INT : null;
                    case "long", "Long", "java.lang.Long" -> kind.isIntegral() ? ScalarKind.LONG : null;
                    case "short", "Short", "java.lang.Short" -> kind.isIntegral() ? ScalarKind.SHORT : null;
                    case "BigInteger", "java.math.BigInteger" -> kind.isIntegral() ? ScalarKind.INTEGER : null;
                    case "BigDecimal", "java.math.BigDecimal" ->
                        kind.isIntegral() || kind == ScalarKind.DECIMAL ? ScalarKind.DECIMAL : null;
                    case "String", "java.lang.String" -> kind.isText() ? kind : ScalarKind.TOKEN;
                    default -> null;
                };
        if (other != null) {
            return new ValueType.Scalar(other);
        }
        Known known = KNOWN.get(type.substring(type.lastIndexOf('.') + 1));
        return known == null
                        || type.indexOf('.') > 0 && !type.equals(known.type())
                        || !known.from().contains(kind)
                ? null
                : new ValueType.Converted(written, known.type(), null, null);
    }

    /** The method of the runtime that makes a value of text. */
    static String method(String type) {
        return KNOWN.get(type.substring(type.lastIndexOf('.') + 1)).method();
    }
}
