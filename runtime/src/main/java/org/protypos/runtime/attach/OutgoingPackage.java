package org.protypos.runtime.attach;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.UUID;

/**
 * A message that is sent with parts beside it: binary content that its root only refers to (XOP 1.0), or attachments that
 * the contract names (WSDL 1.1, section 5.3; WS-I Attachments Profile 1.0, section 3.8).
 */
public final class OutgoingPackage {
    private static final String XOP_TYPE = "application/xop+xml";
    private static final String LINE = "\r\n";

    private final long threshold;
    private String identity;
    private final List<String> ids = new ArrayList<>();
    private final List<Attachment> parts = new ArrayList<>();
    private boolean referredTo;

    /**
     * Starts a package.
     *
     * @param threshold from how many bytes on binary content leaves the message; -1 for never
     */
    public OutgoingPackage(long threshold) {
        this.threshold = threshold;
    }

    /** What tells this package from all others; most messages are none and do not need it. */
    private String identity() {
        if (identity == null) {
            identity = UUID.randomUUID().toString();
        }
        return identity;
    }

    /** Whether binary content of so many bytes, -1 for an unknown number, leaves the message. */
    public boolean takes(long length) {
        return threshold >= 0 && (length < 0 || length >= threshold);
    }

    /**
     * Adds binary content that the message refers to.
     *
     * @return the reference (RFC 2392)
     */
    public String refer(Attachment content) {
        referredTo = true;
        String id = (parts.size() + 1) + "." + identity() + "@protypos.invalid";
        ids.add(id);
        parts.add(content);
        return "cid:" + id;
    }

    /**
     * Adds an attachment under the name of its message part.
     *
     * @throws IllegalArgumentException when there is none: a message has all its parts (WSDL 1.1, section 2.3.1)
     */
    public void attach(String part, Attachment content) {
        if (content == null) {
            throw new IllegalArgumentException("the attachment " + part + " must be given");
        }
        ids.add(escaped(part) + "=" + identity() + "@protypos.invalid");
        parts.add(content);
    }

    /**
     * Adds an attachment of which the contract says the media type; it stays as it is when it has one of its own.
     *
     * @throws IllegalArgumentException when there is none
     */
    public void attach(String part, Attachment content, String declared) {
        attach(part, content == null ? null : content.of(declared));
    }

    /** WS-I Attachments Profile 1.0, section 3.8: what may not stand in an identifier is escaped as in an address. */
    public static String escaped(String part) {
        StringBuilder escaped = new StringBuilder();
        for (byte one : part.getBytes(StandardCharsets.UTF_8)) {
            boolean plain = one >= 'a' && one <= 'z' || one >= 'A' && one <= 'Z' || one >= '0' && one <= '9';
            if (plain || "-_.".indexOf(one) >= 0) {
                escaped.append((char) one);
            } else {
                escaped.append('%').append(String.format(Locale.ROOT, "%02X", one & 0xFF));
            }
        }
        return escaped.toString();
    }

    /** The part that was added first. */
    public Attachment first() {
        return parts.get(0);
    }

    /** Some content as the body of a request, without a package around it. */
    public static BodyPublisher publisher(Attachment content) {
        BodyPublisher stream = BodyPublishers.ofInputStream(() -> opened(content));
        return content.length() <= 0 ? stream : BodyPublishers.fromPublisher(stream, content.length());
    }

    /** Whether nothing has left the message, so that it can be sent alone. */
    public boolean isEmpty() {
        return parts.isEmpty();
    }

    private String boundary() {
        return "part-" + identity();
    }

    private String rootId() {
        return "<root." + identity() + "@protypos.invalid>";
    }

    /**
     * The content type of the whole.
     *
     * @param root the content type that the root would have alone
     */
    public String contentType(String root) {
        String type = referredTo ? XOP_TYPE : MediaType.of(root).name();
        return "multipart/related; boundary=\"" + boundary() + "\"; type=\"" + type + "\"; start=\"" + rootId() + "\""
                + (referredTo ? "; start-info=\"" + quotable(root) + "\"" : "")
                + action(root);
    }

    private static String quotable(String root) {
        return MediaType.of(root).name();
    }

    /** SOAP 1.2 carries its action in the content type of the whole as well. */
    private static String action(String root) {
        String action = MediaType.of(root).parameter("action");
        return action == null ? "" : "; action=\"" + action + "\"";
    }

    private byte[] head(String id, String type) {
        boolean first = id.equals(rootId());
        String text = (first ? "" : LINE) + "--" + boundary() + LINE + "Content-Type: " + oneLine(type) + LINE
                + "Content-Transfer-Encoding: binary" + LINE + "Content-ID: " + id + LINE + LINE;
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A content type may come from anywhere; in a head it must not begin a line of its own. */
    private static String oneLine(String type) {
        return type.replaceAll("[\\p{Cntrl}]+", " ");
    }

    private byte[] rootHead(String root) {
        if (!referredTo) {
            return head(rootId(), root);
        }
        String info = quotable(root);
        String action = MediaType.of(root).parameter("action");
        String inner = action == null ? info : info + "; action=\\\"" + action + "\\\"";
        return head(rootId(), XOP_TYPE + "; charset=UTF-8; type=\"" + inner + "\"");
    }

    private byte[] end() {
        return (LINE + "--" + boundary() + "--" + LINE).getBytes(StandardCharsets.US_ASCII);
    }

    /** The number of bytes of the whole, or -1 when it is not known. */
    public long length(byte[] message, String root) {
        long length = rootHead(root).length + (long) message.length + end().length;
        for (int i = 0; i < parts.size(); i++) {
            if (parts.get(i).length() < 0) {
                return -1;
            }
            length += head("<" + ids.get(i) + ">", parts.get(i).contentType()).length
                    + parts.get(i).length();
        }
        return length;
    }

    /** Writes the whole. */
    public void write(byte[] message, String root, OutputStream to) throws IOException {
        to.write(rootHead(root));
        to.write(message);
        for (int i = 0; i < parts.size(); i++) {
            to.write(head("<" + ids.get(i) + ">", parts.get(i).contentType()));
            try (InputStream content = parts.get(i).open()) {
                content.transferTo(to);
            }
        }
        to.write(end());
    }

    /** The whole as the body of a request; the parts are read when it is sent. */
    public BodyPublisher publisher(byte[] message, String root) {
        List<BodyPublisher> pieces = new ArrayList<>();
        pieces.add(BodyPublishers.ofByteArray(rootHead(root)));
        pieces.add(BodyPublishers.ofByteArray(message));
        for (int i = 0; i < parts.size(); i++) {
            Attachment part = parts.get(i);
            pieces.add(BodyPublishers.ofByteArray(head("<" + ids.get(i) + ">", part.contentType())));
            pieces.add(BodyPublishers.ofInputStream(() -> opened(part)));
        }
        pieces.add(BodyPublishers.ofByteArray(end()));
        BodyPublisher whole = BodyPublishers.concat(pieces.toArray(new BodyPublisher[0]));
        long length = length(message, root);
        return length < 0 ? whole : BodyPublishers.fromPublisher(whole, length);
    }

    private static InputStream opened(Attachment part) {
        try {
            return part.open();
        } catch (IOException e) {
            throw new UncheckedIOException("an attachment cannot be read: " + e.getMessage(), e);
        }
    }
}
