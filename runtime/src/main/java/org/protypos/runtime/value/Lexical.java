package org.protypos.runtime.value;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.function.Function;

/**
 * The lexical forms of the built-in simple types (XML Schema Part 2, section 3), to and from Java values. Parsing
 * methods take text with white space around it and throw {@link IllegalArgumentException} for text not of the type.
 */
public final class Lexical {
    private static final int MOST_DIGITS = 50_000;

    /** The digits that may stand before so many padding characters (XML Schema Part 2, section 3.2.16). */
    private static final String[] LAST_DIGITS = {"", "AEIMQUYcgkosw048", "AQgw"};

    private Lexical() {}

    private static boolean isSpace(char c) {
        return c == ' ' || c == '\n' || c == '\t' || c == '\r';
    }

    /** A text to be shown, with its end cut off when it has more characters than a number, of at least 3. */
    public static String shortened(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 3) + "...";
    }

    /** Takes white space off both ends and makes each run inside one space. */
    public static String collapse(String text) {
        int length = text.length();
        boolean clean = length == 0 || !isSpace(text.charAt(0)) && !isSpace(text.charAt(length - 1));
        for (int i = 1; clean && i < length; i++) {
            char c = text.charAt(i);
            clean = !isSpace(c) || c == ' ' && text.charAt(i - 1) != ' ';
        }
        return clean ? text : String.join(" ", items(text));
    }

    /** Whether a text is nothing but white space, which in XML is four characters alone (XML 1.0, section 2.3). */
    public static boolean isBlank(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (!isSpace(text.charAt(i))) {
                return false;
            }
        }
        return true;
    }

    /** Makes each white space character a space. */
    public static String replace(String text) {
        return text.replace('\t', ' ').replace('\n', ' ').replace('\r', ' ');
    }

    /** Splits at white space. */
    public static List<String> items(String text) {
        List<String> items = new ArrayList<>();
        int start = -1;
        for (int i = 0; i <= text.length(); i++) {
            boolean space = i == text.length() || isSpace(text.charAt(i));
            if (space && start >= 0) {
                items.add(text.substring(start, i));
                start = -1;
            } else if (!space && start < 0) {
                start = i;
            }
        }
        return items;
    }

    /** Parses {@code xs:boolean}. */
    public static boolean parseBoolean(String text) {
        return switch (collapse(text)) {
            case "true", "1" -> true;
            case "false", "0" -> false;
            default -> throw new IllegalArgumentException(text);
        };
    }

    /** Parses an integer type that fits a {@code long}, within bounds. */
    public static long parseLong(String text, long least, long most) {
        String digits = collapse(text);
        long value = Long.parseLong(ascii(digits));
        if (value < least || value > most) {
            throw new IllegalArgumentException(text);
        }
        return value;
    }

    /** Parses {@code xs:integer}. */
    public static BigInteger parseInteger(String text) {
        return new BigInteger(ascii(collapse(text)));
    }

    /** Parses {@code xs:decimal}: no exponent; zeros at the end are kept as scale. */
    public static BigDecimal parseDecimal(String text) {
        String digits = ascii(collapse(text));
        for (int i = 0; i < digits.length(); i++) {
            char c = digits.charAt(i);
            if (c == 'e' || c == 'E') {
                throw new IllegalArgumentException(text);
            }
        }
        return new BigDecimal(digits);
    }

    private static String bounded(String digits) {
        if (digits.length() > MOST_DIGITS) {
            throw new IllegalArgumentException("more than " + MOST_DIGITS + " digits");
        }
        return digits;
    }

    /**
     * Java's number parsers also take digits of other scripts, which XML Schema does not, and longer numbers than anybody
     * means cost them minutes (XML Schema Part 2, section 5.1 lets a processor have a limit).
     */
    private static String ascii(String text) {
        String digits = bounded(text);
        for (int i = 0; i < digits.length(); i++) {
            if (digits.charAt(i) > 'z') {
                throw new IllegalArgumentException(digits);
            }
        }
        return digits;
    }

    /** Parses {@code xs:float}. */
    public static float parseFloat(String text) {
        return switch (collapse(text)) {
            case "INF" -> Float.POSITIVE_INFINITY;
            case "-INF" -> Float.NEGATIVE_INFINITY;
            case "NaN" -> Float.NaN;
            default -> Float.parseFloat(numeric(text));
        };
    }

    /** Parses {@code xs:double}. */
    public static double parseDouble(String text) {
        return switch (collapse(text)) {
            case "INF" -> Double.POSITIVE_INFINITY;
            case "-INF" -> Double.NEGATIVE_INFINITY;
            case "NaN" -> Double.NaN;
            default -> Double.parseDouble(numeric(text));
        };
    }

    /** Java also takes "Infinity", type suffixes and hexadecimal, which XML Schema does not. */
    private static String numeric(String text) {
        String number = collapse(text);
        for (int i = 0; i < number.length(); i++) {
            if ("0123456789+-.eE".indexOf(number.charAt(i)) < 0) {
                throw new IllegalArgumentException(text);
            }
        }
        return number;
    }

    /** Parses {@code xs:hexBinary}. */
    public static byte[] parseHex(String text) {
        return HexFormat.of().parseHex(collapse(text));
    }

    /** Parses {@code xs:base64Binary}; white space may stand anywhere. */
    public static byte[] parseBase64(String text) {
        String packed = text;
        for (int i = 0; i < text.length(); i++) {
            if (isSpace(text.charAt(i))) {
                packed = String.join("", items(text));
                break;
            }
        }
        if (packed.length() % 4 != 0) {
            throw new IllegalArgumentException("base64 comes in groups of four characters");
        }
        int padding = packed.endsWith("==") ? 2 : packed.endsWith("=") ? 1 : 0;
        if (padding > 0 && LAST_DIGITS[padding].indexOf(packed.charAt(packed.length() - padding - 1)) < 0) {
            throw new IllegalArgumentException("the last digit holds bits beyond the last byte");
        }
        return Base64.getDecoder().decode(packed);
    }

    /**
     * Parses text of any built-in type.
     *
     * @param builtin the local name of the type
     * @return the Java value; text for types that have no Java type of their own
     */
    public static Object parse(String builtin, String text) {
        return switch (builtin) {
            case "boolean" -> parseBoolean(text);
            case "byte" -> (byte) parseLong(text, Byte.MIN_VALUE, Byte.MAX_VALUE);
            case "short" -> (short) parseLong(text, Short.MIN_VALUE, Short.MAX_VALUE);
            case "int" -> (int) parseLong(text, Integer.MIN_VALUE, Integer.MAX_VALUE);
            case "long" -> parseLong(text, Long.MIN_VALUE, Long.MAX_VALUE);
            case "unsignedByte" -> (short) parseLong(text, 0, 0xff);
            case "unsignedShort" -> (int) parseLong(text, 0, 0xffff);
            case "unsignedInt" -> parseLong(text, 0, 0xffff_ffffL);
            case "integer",
                    "nonNegativeInteger",
                    "positiveInteger",
                    "nonPositiveInteger",
                    "negativeInteger",
                    "unsignedLong" -> parseInteger(text);
            case "decimal" -> parseDecimal(text);
            case "float" -> parseFloat(text);
            case "double" -> parseDouble(text);
            case "hexBinary" -> parseHex(text);
            case "base64Binary" -> parseBase64(text);
            case "dateTime" -> XmlDateTime.of(bounded(text));
            case "date" -> XmlDate.of(bounded(text));
            case "time" -> XmlTime.of(bounded(text));
            case "duration" -> XmlDuration.of(bounded(text));
            case "gYear" -> XmlPartialDate.of(bounded(text), XmlPartialDate.Form.YEAR);
            case "gYearMonth" -> XmlPartialDate.of(bounded(text), XmlPartialDate.Form.YEAR_MONTH);
            case "gMonth" -> XmlPartialDate.of(bounded(text), XmlPartialDate.Form.MONTH);
            case "gMonthDay" -> XmlPartialDate.of(bounded(text), XmlPartialDate.Form.MONTH_DAY);
            case "gDay" -> XmlPartialDate.of(bounded(text), XmlPartialDate.Form.DAY);
            case "string", "anySimpleType" -> text;
            case "normalizedString" -> replace(text);
            default -> collapse(text);
        };
    }

    /** Prints {@code xs:boolean}. */
    public static String print(boolean value) {
        return value ? "true" : "false";
    }

    /** Prints an integer type. */
    public static String print(int value) {
        return Integer.toString(value);
    }

    /** Prints an integer type. */
    public static String print(long value) {
        return Long.toString(value);
    }

    /** Prints {@code xs:float}. */
    public static String print(float value) {
        return Float.isInfinite(value) ? value > 0 ? "INF" : "-INF" : Float.toString(value);
    }

    /** Prints {@code xs:double}. */
    public static String print(double value) {
        return Double.isInfinite(value) ? value > 0 ? "INF" : "-INF" : Double.toString(value);
    }

    /** Prints {@code xs:decimal}. */
    public static String print(BigDecimal value) {
        return value.toPlainString();
    }

    /** Prints {@code xs:integer}. */
    public static String print(BigInteger value) {
        return value.toString();
    }

    /** Prints a type that is held as text. */
    public static String print(String value) {
        return value;
    }

    /** Prints a date, a time or a duration. */
    public static String print(WrittenValue value) {
        return value.text();
    }

    /** Prints a list type. */
    public static <T> String print(List<T> values, Function<T, String> printer) {
        StringBuilder text = new StringBuilder();
        for (T value : values) {
            text.append(text.isEmpty() ? "" : " ").append(printer.apply(value));
        }
        return text.toString();
    }

    /** Prints {@code xs:hexBinary} in its canonical form, in upper case. */
    public static String printHex(byte[] value) {
        return HexFormat.of().withUpperCase().formatHex(value);
    }

    /** Prints {@code xs:base64Binary}. */
    public static String printBase64(byte[] value) {
        return Base64.getEncoder().encodeToString(value);
    }
}
