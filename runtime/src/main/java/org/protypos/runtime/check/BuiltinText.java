package org.protypos.runtime.check;

import java.math.BigInteger;
import java.util.List;
import java.util.regex.Pattern;
import org.protypos.runtime.value.Lexical;

/** What text of the built-in simple types looks like (XML Schema Part 2, section 3). */
final class BuiltinText {
    private static final String START = "\\p{L}\\p{Nl}_:";
    private static final String REST = START + "\\p{M}\\p{Nd}.\\-\u00b7\u0387\u203f\u2040";
    private static final Pattern NAME = Pattern.compile("[" + START + "][" + REST + "]*");
    private static final Pattern NMTOKEN = Pattern.compile("[" + REST + "]+");
    private static final Pattern LANGUAGE = Pattern.compile("[a-zA-Z]{1,8}(-[a-zA-Z0-9]{1,8})*");

    private BuiltinText() {}

    /** How a type treats white space (section 4.3.6). */
    static String whiteSpace(String builtin) {
        return switch (builtin) {
            case "string", "anySimpleType" -> "preserve";
            case "normalizedString" -> "replace";
            default -> "collapse";
        };
    }

    /** The built-in type that a built-in list type lists, or null. */
    static String item(String builtin) {
        return switch (builtin) {
            case "NMTOKENS" -> "NMTOKEN";
            case "IDREFS" -> "IDREF";
            case "ENTITIES" -> "ENTITY";
            default -> null;
        };
    }

    /** The primitive type that a built-in type is derived from. */
    static String primitive(String builtin) {
        return switch (builtin) {
            case "byte",
                    "short",
                    "int",
                    "long",
                    "unsignedByte",
                    "unsignedShort",
                    "unsignedInt",
                    "unsignedLong",
                    "integer",
                    "nonNegativeInteger",
                    "positiveInteger",
                    "nonPositiveInteger",
                    "negativeInteger" -> "decimal";
            case "normalizedString", "token", "language", "Name", "NCName", "NMTOKEN", "ID", "IDREF", "ENTITY" ->
                "string";
            default -> builtin;
        };
    }

    /** Whether text, its white space already treated, is of a type. */
    static boolean accepts(String builtin, String text) {
        try {
            return switch (builtin) {
                case "nonNegativeInteger", "unsignedLong", "positiveInteger", "nonPositiveInteger", "negativeInteger" ->
                    inRange(builtin, Lexical.parseInteger(text));
                case "Name" -> NAME.matcher(text).matches();
                case "NCName", "ID", "IDREF", "ENTITY" -> isNcName(text);
                case "NMTOKEN" -> NMTOKEN.matcher(text).matches();
                case "language" -> LANGUAGE.matcher(text).matches();
                case "QName", "NOTATION" -> isQName(text);
                case "anyURI" -> true;
                case "NMTOKENS", "IDREFS", "ENTITIES" -> !text.isEmpty() && allAccepted(item(builtin), text);
                default -> Lexical.parse(builtin, text) != null;
            };
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static boolean allAccepted(String item, String text) {
        List<String> items = Lexical.items(text);
        return items.stream().allMatch(one -> accepts(item, one));
    }

    private static boolean isNcName(String text) {
        return isSimpleName(text) || text.indexOf(':') < 0 && NAME.matcher(text).matches();
    }

    /** Most names are made of letters and digits that everybody has. */
    private static boolean isSimpleName(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean letter = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c == '_';
            if (!letter && (i == 0 || (c < '0' || c > '9') && c != '-' && c != '.')) {
                return false;
            }
        }
        return !text.isEmpty();
    }

    private static boolean isQName(String text) {
        int colon = text.indexOf(':');
        return isNcName(text.substring(colon + 1)) && (colon < 0 || isNcName(text.substring(0, colon)));
    }

    private static boolean inRange(String builtin, BigInteger value) {
        return switch (builtin) {
            case "positiveInteger" -> value.signum() > 0;
            case "nonPositiveInteger" -> value.signum() <= 0;
            case "negativeInteger" -> value.signum() < 0;
            case "unsignedLong" -> value.signum() >= 0 && value.bitLength() <= Long.SIZE;
            default -> value.signum() >= 0;
        };
    }
}
