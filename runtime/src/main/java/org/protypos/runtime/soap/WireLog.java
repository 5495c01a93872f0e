package org.protypos.runtime.soap;

import java.lang.System.Logger.Level;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;

/**
 * Writes messages to the logger of this package, at level {@code DEBUG}. What looks like a secret is blanked, and HTTP
 * headers, which carry others, are not written.
 */
public final class WireLog {
    private static final System.Logger LOGGER = System.getLogger(WireLog.class.getPackageName());
    private static final int LONGEST = 100_000;
    private static final String SECRET = "[\\w.-]*(?i:passw|secret|token|credential|api-?key|pin\\b)[\\w.-]*";
    private static final Pattern ELEMENTS =
            Pattern.compile("(<(?:[\\w.-]+:)?(" + SECRET + ")(?:\\s[^<>]*)?>)([^<]+)(</)");
    private static final Pattern ATTRIBUTES =
            Pattern.compile("(\\s(?:[\\w.-]+:)?" + SECRET + "\\s*=\\s*)(\"[^\"]*\"|'[^']*')");

    private static final Pattern HEADERS = Pattern.compile("(?i).*(authori[sz]ation|cookie).*|" + SECRET);

    private WireLog() {}

    static void request(SoapInterceptor.Call call, byte[] message) {
        log("request of " + call.operation() + " to " + call.address(), message);
    }

    static void answer(SoapInterceptor.Call call, int status, byte[] message) {
        log("answer to " + call.operation() + " (HTTP " + status + ")", message);
    }

    private static void log(String what, byte[] message) {
        if (LOGGER.isLoggable(Level.DEBUG)) {
            String text = new String(message, 0, Math.min(message.length, LONGEST), StandardCharsets.UTF_8);
            LOGGER.log(Level.DEBUG, what + "\n" + blanked(text));
        }
    }

    /** A message with the content of elements and attributes that look secret replaced. */
    public static String blanked(String text) {
        String elements = ELEMENTS.matcher(text).replaceAll("$1***$4");
        return ATTRIBUTES.matcher(elements).replaceAll("$1\"***\"");
    }

    /** The value of an HTTP header, replaced when the header says who somebody is. */
    public static String blankedHeader(String name, String value) {
        return HEADERS.matcher(name).matches() ? "***" : value;
    }
}
