package org.protypos.runtime.soap;

import java.io.IOException;
import org.protypos.runtime.value.Lexical;

/**
 * Whatever answers at a path of a server. It knows no server: {@link SoapServer} serves it, and so can whatever makes a {@link
 * Request} and sends a {@link Reply}. Safe for use by several threads.
 */
public abstract class Endpoint {
    private static final int MOST = 3_000;

    /** For those that answer. */
    protected Endpoint() {}

    /** Answers a request, whatever it is. Nothing but a broken connection makes it fail. */
    public abstract Reply answer(Request request) throws IOException;

    /** Whether documents of a contract speak of the ports that are served here by a name. */
    public boolean serves(String name) {
        return false;
    }

    /** A text of others for a message: what is not printable in ASCII becomes a question mark, and no text is long. */
    static String printable(String text) {
        return Lexical.shortened(text, MOST).replaceAll("[^ -~]", "?");
    }
}
