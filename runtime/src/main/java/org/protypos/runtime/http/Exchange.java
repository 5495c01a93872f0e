package org.protypos.runtime.http;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** A request, and the way to answer it. Used by one thread. */
public final class Exchange {
    private static final Map<Integer, String> REASONS = Map.ofEntries(
            Map.entry(200, "OK"),
            Map.entry(202, "Accepted"),
            Map.entry(204, "No Content"),
            Map.entry(400, "Bad Request"),
            Map.entry(403, "Forbidden"),
            Map.entry(404, "Not Found"),
            Map.entry(405, "Method Not Allowed"),
            Map.entry(408, "Request Timeout"),
            Map.entry(413, "Content Too Large"),
            Map.entry(415, "Unsupported Media Type"),
            Map.entry(431, "Request Header Fields Too Large"),
            Map.entry(500, "Internal Server Error"),
            Map.entry(501, "Not Implemented"),
            Map.entry(503, "Service Unavailable"),
            Map.entry(505, "HTTP Version Not Supported"));

    /** RFC 9110, section 5.6.7. */
    private static final DateTimeFormatter DATE =
            DateTimeFormatter.ofPattern("EEE, dd MMM yyyy HH:mm:ss 'GMT'", Locale.US);

    private final Peer peer;
    private final RequestHead head;
    private final Progress coming = new Progress();
    private final Progress going = new Progress();
    private final RequestBody body;
    private AnswerBody answer;
    private boolean closing;

    Exchange(Peer peer) {
        this.peer = peer;
        head = peer.head;
        body = new RequestBody(peer, coming);
    }

    /** The method, such as {@code POST}. */
    public String method() {
        return head.method();
    }

    /** The path that is asked for as it came, starting with a slash. */
    public String path() {
        return head.path();
    }

    /** The query as it came, or null. */
    public String query() {
        return head.query();
    }

    /** The names of the fields of the head, in small letters. */
    public Set<String> names() {
        return head.fields().keySet();
    }

    /** A field of the head, empty when it is absent; values of several such fields stand with a comma between. */
    public String field(String name) {
        return head.field(name);
    }

    /** The body, decoded to what it is without HTTP. */
    public InputStream body() {
        return body;
    }

    /** Closes the connection, whoever is reading or writing. May be called by any thread. */
    void breakOff() {
        peer.close();
    }

    /** Whether hardly anything has come or gone for so many nanoseconds. */
    boolean isStuck(long now, long allowed) {
        return coming.isStuck(now, allowed) || going.isStuck(now, allowed);
    }

    /** Says that this is the last request that is answered over this connection. */
    void close() {
        closing = true;
    }

    /**
     * Begins the answer.
     *
     * @param fields the fields of its head with their values, each a line, without those that say how far it goes
     * @param length the bytes of its body, or -1 when that is not known
     * @return takes the body, and is to be closed; nothing of it is sent when the request was HEAD
     */
    public OutputStream answer(int status, Map<String, List<String>> fields, long length) throws IOException {
        if (answer != null) {
            throw new IllegalStateException("the request has been answered");
        }
        coming.stop();
        boolean none = status == 204 || status == 304;
        boolean chunked = length < 0 && head.chunks() && !none;
        // What has not come yet would be taken for the next request.
        closing |= !head.persistent() || length < 0 && !head.chunks() || !body.isOver();
        // What is passed on keeps the date of who made it (RFC 9110, section 6.6.1).
        boolean isDated = fields.keySet().stream().anyMatch("Date"::equalsIgnoreCase);
        StringBuilder text = isDated ? start(status) : dated(start(status));
        fields.forEach((name, values) -> values.forEach(value -> text.append(name)
                .append(": ")
                .append(value.replaceAll("\\p{Cntrl}+", " "))
                .append("\r\n")));
        if (chunked) {
            text.append("Transfer-Encoding: chunked\r\n");
        } else if (length >= 0 && !none) {
            text.append("Content-Length: ").append(length).append("\r\n");
        }
        if (closing) {
            text.append("Connection: close\r\n");
        } else if (!head.chunks()) {
            text.append("Connection: keep-alive\r\n");
        }
        byte[] start = text.append("\r\n").toString().getBytes(StandardCharsets.ISO_8859_1);
        going.start();
        answer = new AnswerBody(start, none || head.method().equals("HEAD") ? 0 : length, chunked);
        answer.silent = none || head.method().equals("HEAD");
        return answer;
    }

    private static StringBuilder start(int status) {
        return new StringBuilder("HTTP/1.1 ")
                .append(status)
                .append(' ')
                .append(REASONS.getOrDefault(status, ""))
                .append("\r\n");
    }

    private static StringBuilder dated(StringBuilder start) {
        return start.append("Date: ")
                .append(DATE.format(ZonedDateTime.now(ZoneOffset.UTC)))
                .append("\r\n");
    }

    /** An answer to what is no request. */
    static byte[] refusal(int status, String reason) {
        return dated(start(status))
                .append("Content-Type: text/plain; charset=utf-8\r\nContent-Length: ")
                .append(reason.length() + 1)
                .append("\r\nConnection: close\r\n\r\n")
                .append(reason)
                .append('\n')
                .toString()
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    /** Whether the request was answered to the end and the connection is good for another one. */
    boolean isReusable() {
        going.stop();
        coming.stop();
        return answer != null && answer.complete && !closing;
    }

    /** The body of the answer, with the head before it: what is small goes in one piece. */
    private final class AnswerBody extends OutputStream {
        private static final int SIZE = 16 * 1024;

        private final ByteArrayOutputStream waiting = new ByteArrayOutputStream(1024);
        private final boolean chunked;
        private long left;
        private byte[] head;
        private boolean silent;
        private boolean complete;

        AnswerBody(byte[] head, long length, boolean chunked) {
            this.head = head;
            this.chunked = chunked;
            left = length;
        }

        @Override
        public void write(int one) throws IOException {
            write(new byte[] {(byte) one}, 0, 1);
        }

        @Override
        public void write(byte[] content, int offset, int length) throws IOException {
            if (silent || length == 0) {
                return;
            }
            if (left >= 0) {
                if (length > left) {
                    throw new IOException("the answer is longer than it says");
                }
                left -= length;
            }
            if (waiting.size() + length > SIZE) {
                flush();
            }
            if (length > SIZE && !chunked) {
                peer.send(content, offset, length);
                going.count(length);
                return;
            }
            for (int at = 0; at < length; at += SIZE) {
                waiting.write(content, offset + at, Math.min(SIZE, length - at));
                if (waiting.size() >= SIZE) {
                    flush();
                }
            }
        }

        @Override
        public void flush() throws IOException {
            ByteArrayOutputStream piece = new ByteArrayOutputStream(waiting.size() + 256);
            if (head != null) {
                piece.write(head);
                head = null;
            }
            if (waiting.size() > 0) {
                if (chunked) {
                    piece.write((Integer.toHexString(waiting.size()) + "\r\n").getBytes(StandardCharsets.US_ASCII));
                }
                waiting.writeTo(piece);
                if (chunked) {
                    piece.write('\r');
                    piece.write('\n');
                }
                waiting.reset();
            }
            if (complete && chunked && !silent) {
                piece.write("0\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
            }
            peer.send(piece.toByteArray(), 0, piece.size());
            going.count(piece.size());
        }

        @Override
        public void close() throws IOException {
            if (!complete) {
                complete = left <= 0;
                flush();
                going.stop();
            }
        }
    }
}
