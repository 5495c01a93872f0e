package org.protypos.runtime.value;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.MonthDay;
import java.time.OffsetDateTime;
import java.time.OffsetTime;
import java.time.Period;
import java.time.Year;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.Locale;
import java.util.UUID;

/**
 * Turns text of simple types into values of the platform's own classes, and back. Every method that reads throws a
 * runtime exception when the text is no such value.
 */
public final class Conversions {
    private Conversions() {}

    /** The day of an {@code xs:date}, without its time zone. */
    public static LocalDate toLocalDate(String text) {
        return XmlDate.of(text).toLocalDate();
    }

    /** Writes an {@code xs:date}. */
    public static String print(LocalDate value) {
        return XmlDate.of(value).toString();
    }

    /** Date and time of an {@code xs:dateTime}, without its time zone. */
    public static LocalDateTime toLocalDateTime(String text) {
        return XmlDateTime.of(text).toLocalDateTime();
    }

    /** Writes an {@code xs:dateTime} without a time zone. */
    public static String print(LocalDateTime value) {
        return XmlDateTime.of(value).toString();
    }

    /** Date and time of an {@code xs:dateTime} that has a time zone. */
    public static OffsetDateTime toOffsetDateTime(String text) {
        XmlDateTime value = XmlDateTime.of(text);
        if (!value.hasZone()) {
            throw new DateTimeException("no time zone is given");
        }
        return value.toOffsetDateTime(ZoneOffset.UTC);
    }

    /** Writes an {@code xs:dateTime} with its time zone. */
    public static String print(OffsetDateTime value) {
        return XmlDateTime.of(value).toString();
    }

    /** Date and time of an {@code xs:dateTime} that has a time zone. */
    public static ZonedDateTime toZonedDateTime(String text) {
        return toOffsetDateTime(text).toZonedDateTime();
    }

    /** Writes an {@code xs:dateTime} with the offset that the time zone has then. */
    public static String print(ZonedDateTime value) {
        return print(value.toOffsetDateTime());
    }

    /** The point in time of an {@code xs:dateTime} that has a time zone. */
    public static Instant toInstant(String text) {
        return toOffsetDateTime(text).toInstant();
    }

    /** Writes an {@code xs:dateTime} in UTC. */
    public static String print(Instant value) {
        return XmlDateTime.of(value).toString();
    }

    /** The time of an {@code xs:time}, without its time zone. */
    public static LocalTime toLocalTime(String text) {
        return XmlTime.of(text).toLocalTime();
    }

    /** Writes an {@code xs:time} without a time zone. */
    public static String print(LocalTime value) {
        return XmlTime.of(value).toString();
    }

    /** The time of an {@code xs:time} that has a time zone. */
    public static OffsetTime toOffsetTime(String text) {
        XmlTime value = XmlTime.of(text);
        return value.toLocalTime()
                .atOffset(ZoneOffset.of(value.text().substring(value.local().length())));
    }

    /** Writes an {@code xs:time} with its time zone. */
    public static String print(OffsetTime value) {
        return print(value.toLocalTime()) + value.getOffset();
    }

    /** An {@code xs:duration} of days and less. */
    public static Duration toDuration(String text) {
        return XmlDuration.of(text).toDuration();
    }

    /** Writes an {@code xs:duration}. */
    public static String print(Duration value) {
        return XmlDuration.of(value).toString();
    }

    /** An {@code xs:duration} of days and more. */
    public static Period toPeriod(String text) {
        return XmlDuration.of(text).toPeriod();
    }

    /** Writes an {@code xs:duration}. */
    public static String print(Period value) {
        return XmlDuration.of(value).toString();
    }

    /** An {@code xs:gYear}, without its time zone. */
    public static Year toYear(String text) {
        return Year.of(Integer.parseInt(partial(text, XmlPartialDate.Form.YEAR)));
    }

    /** Writes an {@code xs:gYear}. */
    public static String print(Year value) {
        return year(value.getValue());
    }

    /** An {@code xs:gYearMonth}, without its time zone. */
    public static YearMonth toYearMonth(String text) {
        String local = partial(text, XmlPartialDate.Form.YEAR_MONTH);
        int dash = local.lastIndexOf('-');
        return YearMonth.of(Integer.parseInt(local.substring(0, dash)), Integer.parseInt(local.substring(dash + 1)));
    }

    /** Writes an {@code xs:gYearMonth}. */
    public static String print(YearMonth value) {
        return year(value.getYear()) + String.format(Locale.ROOT, "-%02d", value.getMonthValue());
    }

    /** An {@code xs:gMonth}, without its time zone. */
    public static Month toMonth(String text) {
        return Month.of(
                Integer.parseInt(partial(text, XmlPartialDate.Form.MONTH).replace("-", "")));
    }

    /** Writes an {@code xs:gMonth}. */
    public static String print(Month value) {
        return String.format(Locale.ROOT, "--%02d", value.getValue());
    }

    /** An {@code xs:gMonthDay}, without its time zone. */
    public static MonthDay toMonthDay(String text) {
        return MonthDay.parse(partial(text, XmlPartialDate.Form.MONTH_DAY));
    }

    /** Writes an {@code xs:gMonthDay}. */
    public static String print(MonthDay value) {
        return value.toString();
    }

    private static String partial(String text, XmlPartialDate.Form form) {
        return XmlPartialDate.of(text, form).local();
    }

    private static String year(int value) {
        return String.format(Locale.ROOT, value < 0 ? "%05d" : "%04d", value);
    }

    /** A URI; characters that URIs do not have, but {@code xs:anyURI} does, are escaped (XML Linking, section 5.4). */
    public static URI toUri(String text) {
        return URI.create(escaped(text, false));
    }

    /**
     * Text in which all is escaped that URIs do not have (RFC 3986, section 2; RFC 3987, section 3.1).
     *
     * @param inAscii whether characters beyond ASCII are escaped too, which the platform's URIs may have
     */
    public static String escaped(String text, boolean inAscii) {
        StringBuilder escaped = new StringBuilder();
        for (int i = 0; i < text.length(); i = text.offsetByCodePoints(i, 1)) {
            int c = text.codePointAt(i);
            if (c <= ' ' || "\"<>\\^`{|}".indexOf(c) >= 0 || c == '%' && !isEscape(text, i) || inAscii && c >= 0x7F) {
                for (byte one : Character.toString(c).getBytes(StandardCharsets.UTF_8)) {
                    escaped.append(String.format(Locale.ROOT, "%%%02X", one));
                }
            } else {
                escaped.appendCodePoint(c);
            }
        }
        return escaped.toString();
    }

    private static boolean isEscape(String text, int at) {
        return at + 2 < text.length() && isHex(text.charAt(at + 1)) && isHex(text.charAt(at + 2));
    }

    private static boolean isHex(char c) {
        return c >= '0' && c <= '9' || c >= 'A' && c <= 'F' || c >= 'a' && c <= 'f';
    }

    /** Writes a URI. */
    public static String print(URI value) {
        return value.toString();
    }

    /** A UUID in its text form (RFC 4122, section 3). */
    public static UUID toUuid(String text) {
        return UUID.fromString(text);
    }

    /** Writes a UUID. */
    public static String print(UUID value) {
        return value.toString();
    }
}
