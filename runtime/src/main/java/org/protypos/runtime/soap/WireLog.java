package org.protypos.runtime.soap;

import java.lang.System.Logger.Level;
import org.protypos.runtime.parse.DecodedText;

/**
 * Writes messages to the logger of this package, at level {@code DEBUG}. What looks like a {@linkplain Secrets secret} is
 * blanked, and HTTP headers, which carry others, are not written.
 */
public final class WireLog {
    private static final System.Logger LOGGER = System.getLogger(WireLog.class.getPackageName());
    private static final int LONGEST = 100_000;

    private WireLog() {}

    static void request(SoapInterceptor.Call call, byte[] message) {
        log("request of " + call.operation() + " to " + call.address(), message, null);
    }

    static void answer(SoapInterceptor.Call call, int status, byte[] message, String charset) {
        log("answer to " + call.operation() + " (HTTP " + status + ")", message, charset);
    }

    private static void log(String what, byte[] message, String charset) {
        if (LOGGER.isLoggable(Level.DEBUG)) {
            String text = blanked(DecodedText.of(message, charset));
            LOGGER.log(
                    Level.DEBUG, what + "\n" + (text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text));
        }
    }

    /** A message with what looks like a secret replaced; of one that cannot be read, its size. */
    public static String blanked(String text) {
        return Secrets.blanked(text);
    }

    /** The value of an HTTP header, replaced when the header says who somebody is. */
    public static String blankedHeader(String name, String value) {
        return Secrets.isSecret(name) ? "***" : value;
    }
}
