package org.protypos.exchange.standin;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** How an answer can be broken on purpose. */
public enum Breakage {
    /** It ends in the middle. */
    TRUNCATED,
    /** It is a web page. */
    HTML,
    /** There is nothing in it. */
    EMPTY;

    /** An answer broken like that. */
    byte[] applied(byte[] whole) {
        return switch (this) {
            case TRUNCATED -> Arrays.copyOf(whole, whole.length / 2);
            case HTML -> "<html><body>Please log in.</body></html>".getBytes(StandardCharsets.UTF_8);
            case EMPTY -> new byte[0];
        };
    }
}
