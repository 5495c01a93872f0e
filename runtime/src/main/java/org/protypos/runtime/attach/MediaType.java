package org.protypos.runtime.attach;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/**
 * A content type: a media type and its parameters (RFC 2045, section 5.1).
 *
 * @param name type and subtype in lower case, empty when there is none
 * @param parameters the parameters, their names in lower case
 */
public record MediaType(String name, Map<String, String> parameters) {
    /** Reads a content type; what makes no sense in it is passed over. */
    public static MediaType of(String text) {
        Map<String, String> parameters = new LinkedHashMap<>();
        int at = text.indexOf(';');
        String name = (at < 0 ? text : text.substring(0, at)).strip().toLowerCase(Locale.ROOT);
        while (at >= 0 && at < text.length()) {
            int equals = text.indexOf('=', at);
            if (equals < 0) {
                break;
            }
            String key = text.substring(at + 1, equals).strip().toLowerCase(Locale.ROOT);
            StringBuilder value = new StringBuilder();
            at = value(text, equals + 1, value);
            parameters.putIfAbsent(key, value.toString());
        }
        return new MediaType(name, parameters);
    }

    /** Takes a value, in quotation marks or not, and gives where the next semicolon stands, or -1. */
    private static int value(String text, int from, StringBuilder to) {
        int at = from;
        while (at < text.length() && text.charAt(at) == ' ') {
            at++;
        }
        if (at == text.length() || text.charAt(at) != '"') {
            int end = text.indexOf(';', at);
            to.append(text.substring(at, end < 0 ? text.length() : end).strip());
            return end;
        }
        for (at++; at < text.length() && text.charAt(at) != '"'; at++) {
            if (text.charAt(at) == '\\' && at + 1 < text.length()) {
                at++;
            }
            to.append(text.charAt(at));
        }
        return text.indexOf(';', at);
    }

    /** A parameter, or null. */
    public String parameter(String key) {
        return parameters.get(key);
    }

    /** The charset that is named, or null. */
    public String charset() {
        String charset = parameter("charset");
        return charset == null || charset.isBlank() ? null : charset;
    }

    /** Whether the content is a package of several parts. */
    public boolean isMultipart() {
        return name.startsWith("multipart/");
    }

    /** Whether the content is XML (RFC 7303, section 4.2). */
    public boolean isXml() {
        return name.endsWith("/xml") || name.endsWith("+xml");
    }
}
