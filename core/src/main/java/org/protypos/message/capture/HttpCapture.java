package org.protypos.message.capture;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.runtime.attach.Gzip;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.attach.Spool;
import org.protypos.source.Decoder;

/** An HTTP message as it went over the wire: a start line, fields, an empty line, the body (RFC 9112, section 2.1). */
public final class HttpCapture {
    private static final int LARGEST = 64 << 20;
    /** More of a file need not be read to know whether it is one. */
    public static final int LONGEST_START = 8 * 1024;

    private static final Pattern START = Pattern.compile(
            "(?:HTTP/[0-9]\\.[0-9] [0-9]{3}(?: [^\\r\\n]*)?|[A-Z][A-Z-]* \\S+ HTTP/[0-9]\\.[0-9])\\r?\\n");
    private static final Pattern DECLARATION = Pattern.compile("<\\?xml\\s[^>]*\\?>");

    private final SourceText head;
    private final List<Field> fields = new ArrayList<>();
    private final byte[] body;
    private final String[] start;

    /** A field, and where it stands in the file. */
    private record Field(String name, String value, int offset) {}

    private HttpCapture(String name, byte[] bytes) {
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        this.head = new SourceText(name, text);
        int at = text.indexOf('\n') + 1;
        this.start = text.substring(0, at).strip().split(" ", 3);
        while (at < text.length()) {
            int end = text.indexOf('\n', at);
            String line = text.substring(at, end < 0 ? text.length() : end);
            int colon = line.indexOf(':');
            if (colon > 0) {
                fields.add(new Field(
                        line.substring(0, colon).strip().toLowerCase(Locale.ROOT),
                        line.substring(colon + 1).strip(),
                        at));
            }
            at += line.length() + 1;
            if (line.isBlank()) {
                break;
            }
        }
        this.body = Arrays.copyOfRange(bytes, Math.min(at, bytes.length), bytes.length);
    }

    /**
     * Takes a file apart that begins as an HTTP message does.
     *
     * @param name how to call it in findings
     * @return the message, or null when the file is something else
     */
    public static HttpCapture of(String name, byte[] bytes) {
        String beginning = new String(bytes, 0, Math.min(bytes.length, LONGEST_START), StandardCharsets.ISO_8859_1);
        return START.matcher(beginning).lookingAt() ? new HttpCapture(name, bytes) : null;
    }

    /** Whether it is a request rather than an answer. */
    public boolean isRequest() {
        return !start[0].startsWith("HTTP/");
    }

    /** The method of a request. */
    public String method() {
        return start[0];
    }

    /** The version, such as {@code HTTP/1.1}. */
    public String version() {
        return start[isRequest() ? 2 : 0];
    }

    /** The status of an answer. */
    public int status() {
        return Integer.parseInt(start[1].substring(0, 3));
    }

    private Optional<Field> found(String name) {
        return fields.stream()
                .filter(field -> field.name().equals(name.toLowerCase(Locale.ROOT)))
                .findFirst();
    }

    /** The value of a field, or null. */
    public String field(String name) {
        return found(name).map(Field::value).orElse(null);
    }

    /** Where a field stands; the start line when it is not there. */
    public Place place(String name) {
        return head.at(found(name).map(Field::offset).orElse(0));
    }

    /** Its content type; one without a name when it has none. */
    public MediaType contentType() {
        String type = field("content-type");
        return MediaType.of(type == null ? "" : type);
    }

    /** Whether there is nothing in it. */
    public boolean isEmpty() {
        return body.length == 0;
    }

    /**
     * The document that it carries, of a package the root, in UTF-8. What stands in its lines stands in the same lines of the file, unless
     * it was packed.
     *
     * @throws IOException when the body is not what the fields say
     */
    public byte[] document() throws IOException {
        byte[] content = decoded();
        boolean packed = content != body;
        MediaType type = contentType();
        if (type.isMultipart()) {
            Spool spool = Spool.small(LARGEST, "the body");
            spool.write(content, 0, content.length);
            MimePackage parts = MimePackage.open(spool, type);
            content = parts.root().content().bytes();
            type = parts.root().type();
            packed = true;
        }
        String text = text(content, type.charset());
        Matcher declaration = DECLARATION.matcher(text);
        if (declaration.lookingAt()) {
            text = " ".repeat(declaration.end()) + text.substring(declaration.end());
        }
        String before = head.text().substring(0, head.text().length() - body.length);
        long lines = packed ? 0 : before.chars().filter(c -> c == '\n').count();
        return ("\n".repeat((int) lines) + text).getBytes(StandardCharsets.UTF_8);
    }

    /** The body without what was done to it for the way (RFC 9112, section 7.1; RFC 9110, section 8.4). */
    private byte[] decoded() throws IOException {
        byte[] content = body;
        String transfer = field("transfer-encoding");
        if (transfer != null && transfer.toLowerCase(Locale.ROOT).endsWith("chunked")) {
            content = unchunked();
        }
        String encoding = field("content-encoding");
        if (encoding == null || !Gzip.packs(encoding)) {
            return content;
        }
        try (InputStream in = Gzip.open(new ByteArrayInputStream(content))) {
            byte[] unpacked = in.readNBytes(LARGEST + 1);
            if (unpacked.length > LARGEST) {
                throw new IOException("the body is larger than " + (LARGEST >> 20) + " MB");
            }
            return unpacked;
        }
    }

    /** The chunks put together; a body that is not in chunks any more stays: many who capture put them together themselves. */
    private byte[] unchunked() {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        String text = new String(body, StandardCharsets.ISO_8859_1);
        int at = 0;
        while (true) {
            int end = text.indexOf('\n', at);
            String size =
                    end < 0 ? "" : text.substring(at, end).split(";", 2)[0].strip();
            if (!size.matches("[0-9A-Fa-f]{1,7}")) {
                return body;
            }
            int length = Integer.parseInt(size, 16);
            if (length == 0) {
                return all.toByteArray();
            }
            if (end + 1 + length > body.length) {
                return body;
            }
            all.write(body, end + 1, length);
            at = text.indexOf('\n', end + 1 + length) + 1;
        }
    }

    /** The body as text; bytes that are none in its encoding are not passed over. */
    private String text(byte[] content, String charset) throws IOException {
        try {
            String text = (charset == null ? Decoder.charset(content) : Charset.forName(charset))
                    .newDecoder()
                    .decode(ByteBuffer.wrap(content))
                    .toString();
            return text.startsWith("\uFEFF") ? text.substring(1) : text;
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            throw new IOException("the body is in the encoding " + charset + ", which is not known here", e);
        } catch (CharacterCodingException e) {
            throw new IOException("the body is not in the encoding that is said", e);
        }
    }
}
