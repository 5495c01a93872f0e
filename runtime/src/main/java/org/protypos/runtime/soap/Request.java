package org.protypos.runtime.soap;

import java.io.IOException;
import java.io.InputStream;
import java.util.Collection;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.Spool;
import org.protypos.runtime.value.Conversions;
import org.protypos.runtime.xml.Reading;

/**
 * A request as an endpoint sees it, whatever server took it.
 *
 * @param method the HTTP method
 * @param path the path beneath that of the endpoint, empty for the endpoint itself
 * @param query the query as it came, or null
 * @param addresses gives the address at which an endpoint is served, as the caller knows it: that of this one for an empty name,
 *     that of another by the name under which documents speak of its ports, and null for one that is not served here
 * @param names gives the names of all header fields that came
 * @param header gives a header field by name, or null; those of one name with a comma between
 * @param body the body, not read yet
 * @param reading how the message is read
 * @param attachments the most bytes that a message with attachments may have
 */
public record Request(
        String method,
        String path,
        String query,
        UnaryOperator<String> addresses,
        Supplier<Collection<String>> names,
        UnaryOperator<String> header,
        InputStream body,
        Reading reading,
        long attachments) {
    private static final Pattern ESCAPE = Pattern.compile("%[0-9A-Fa-f]{2}");
    private static final Pattern UNRESERVED = Pattern.compile("[A-Za-z0-9._~-]");

    public Request {
        path = normal(path);
    }

    /** The one form of a path, or a query, that callers write in several (RFC 3986, section 6.2.2; RFC 3987, section 3.1). */
    static String normal(String path) {
        String escaped = Conversions.escaped(path, true);
        return escaped.indexOf('%') < 0
                ? escaped
                : ESCAPE.matcher(escaped).replaceAll(found -> {
                    char meant = (char) Integer.parseInt(found.group().substring(1), 16);
                    return UNRESERVED.matcher(String.valueOf(meant)).matches()
                            ? String.valueOf(meant)
                            : found.group().toUpperCase(Locale.ROOT);
                });
    }

    /** The same request with a body that has been read before. */
    public Request of(InputStream again) {
        return new Request(method, path, query, addresses, names, header, again, reading, attachments);
    }

    /** The content type, of which nothing is known when it is absent. */
    public MediaType type() {
        return MediaType.of(field("Content-Type"));
    }

    /** A header field, empty when it is absent. */
    public String field(String name) {
        String value = header.apply(name);
        return value == null ? "" : value;
    }

    /**
     * The fields of the query, or of the form that was sent; of several of one name the last.
     *
     * @throws CallRefusedException when they are no fields, or too many
     */
    public Map<String, String> fields() throws IOException {
        try {
            return Fields.of(this, "").byName();
        } catch (Refused e) {
            throw new CallRefusedException(e.getMessage());
        }
    }

    /**
     * Reads the body.
     *
     * @throws Refused when it is too long or cannot be unpacked
     */
    Incoming message() throws IOException {
        return message(type());
    }

    /** Reads the body, of which the content type is known. */
    Incoming message(MediaType type) throws IOException {
        String what = "the message";
        Spool spool = Incoming.spool(type, reading.limits(), attachments, what);
        try {
            body.transferTo(spool);
        } catch (IOException e) {
            spool.close();
            if (spool.isFull()) {
                throw new Refused(413, e.getMessage());
            }
            throw e;
        }
        try {
            return Incoming.of(spool, type, field("Content-Encoding"), reading.limits(), attachments, what);
        } catch (IOException e) {
            spool.close();
            throw new Refused(400, "the message cannot be unpacked: " + e.getMessage());
        }
    }

    /** The request makes no sense before anybody has looked into its message. */
    static final class Refused extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private final int status;

        Refused(int status, String message) {
            super(message);
            this.status = status;
        }

        int status() {
            return status;
        }
    }
}
