package org.protypos.runtime.soap;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;

/**
 * An answer as an endpoint gives it, whatever server sends it.
 *
 * @param status the HTTP status
 * @param headers the header fields with their values, each a line; the content type among them
 * @param length the number of bytes of the body, or -1 when it is not known
 * @param body writes the body
 */
public record Reply(int status, Map<String, List<String>> headers, long length, Body body) {
    /** Writes the body of an answer. */
    @FunctionalInterface
    public interface Body {
        /** Writes all of it. */
        void writeTo(OutputStream out) throws IOException;
    }

    /** An answer that is there already. */
    public static Reply of(int status, String contentType, byte[] body) {
        return new Reply(status, type(contentType), body.length, out -> out.write(body));
    }

    /** An answer with parts beside it, if there are any. */
    static Reply of(int status, String contentType, byte[] message, OutgoingPackage parts) {
        return parts.isEmpty()
                ? of(status, contentType, message)
                : new Reply(
                        status,
                        type(parts.contentType(contentType)),
                        parts.length(message, contentType),
                        out -> parts.write(message, contentType, out));
    }

    /** An answer that is some content as it is. */
    static Reply of(Attachment content) {
        return new Reply(200, type(oneLine(content.contentType())), content.length(), out -> {
            try (InputStream in = content.open()) {
                in.transferTo(out);
            }
        });
    }

    private static Map<String, List<String>> type(String contentType) {
        return Map.of("Content-Type", List.of(contentType));
    }

    /** A content type may come from anywhere; it must not begin another header field. */
    private static String oneLine(String type) {
        return type.replaceAll("\\p{Cntrl}+", " ");
    }

    /** An answer in words. */
    public static Reply plain(int status, String text) {
        return of(status, "text/plain; charset=utf-8", (text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** What to say to a method that is none of those allowed here (RFC 9110, section 15.5.6). */
    static Reply notAllowed(String allowed, String text) {
        Reply plain = plain(405, text);
        return new Reply(
                405,
                Map.of("Content-Type", plain.headers().get("Content-Type"), "Allow", List.of(allowed)),
                plain.length(),
                plain.body());
    }
}
