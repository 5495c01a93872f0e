package org.protypos.runtime.attach;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A package that came: a root and the parts beside it (RFC 2387; SOAP Messages with Attachments, section 3; XOP 1.0,
 * section 4). Only where each part stands is remembered; its bytes stay where they are.
 */
public final class MimePackage {
    private static final int MOST_PARTS = 1_000;
    private static final int BUFFER = 64 * 1024;
    private static final int LONGEST_HEAD = 16 * 1024;

    private final List<Part> parts;
    private final Part root;

    /**
     * A part.
     *
     * @param id its identifier without angle brackets, empty when it has none
     * @param type its content type
     * @param content its bytes
     */
    public record Part(String id, MediaType type, Attachment content) {}

    private MimePackage(List<Part> parts, Part root) {
        this.parts = parts;
        this.root = root;
    }

    /**
     * Takes a package apart.
     *
     * @param body the whole body of the HTTP message
     * @param type its content type
     * @throws IOException when it is no proper package, has too many parts, or cannot be read
     */
    public static MimePackage open(Spool body, MediaType type) throws IOException {
        String boundary = type.parameter("boundary");
        if (boundary == null || boundary.isEmpty() || boundary.length() > 200) {
            throw new IOException("the content type names no boundary between the parts");
        }
        List<Part> parts = new ArrayList<>();
        Scanner scanner = new Scanner(body, boundary);
        scanner.toBoundary();
        while (!scanner.isLast()) {
            if (parts.size() == MOST_PARTS) {
                throw new IOException("the message has more than " + MOST_PARTS + " parts");
            }
            parts.add(part(body, scanner));
        }
        if (parts.isEmpty()) {
            throw new IOException("the message has no part");
        }
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!part.id().isEmpty() && !ids.add(part.id())) {
                throw new IOException("two parts have the identifier " + part.id());
            }
        }
        return new MimePackage(parts, root(parts, type.parameter("start")));
    }

    private static Part root(List<Part> parts, String start) throws IOException {
        if (start == null) {
            return parts.get(0);
        }
        for (Part part : parts) {
            if (part.id().equals(bare(start))) {
                return part;
            }
        }
        throw new IOException(
                "the content type says that the message begins with the part " + start + ", which is not there");
    }

    private static Part part(Spool body, Scanner scanner) throws IOException {
        Map<String, String> head = scanner.head();
        long from = scanner.position();
        long to = Math.max(from, scanner.toBoundary());
        String type = head.getOrDefault("content-type", Attachment.ANY_TYPE);
        String encoding =
                head.getOrDefault("content-transfer-encoding", "binary").strip().toLowerCase(Locale.ROOT);
        Attachment content =
                switch (encoding) {
                    case "binary", "8bit", "7bit" -> Attachment.of(() -> body.open(from, to), type, to - from);
                    case "base64" ->
                        Attachment.of(
                                () -> Base64.getMimeDecoder()
                                        .wrap(new BufferedInputStream(body.open(from, to), BUFFER)),
                                type,
                                -1);
                    case "quoted-printable" -> Attachment.of(() -> new QuotedPrintable(body.open(from, to)), type, -1);
                    default -> throw new IOException("a part is in the unknown encoding " + encoding);
                };
        return new Part(bare(head.getOrDefault("content-id", "")), MediaType.of(type), content);
    }

    private static String bare(String id) {
        String text = id.strip();
        return text.startsWith("<") && text.endsWith(">") ? text.substring(1, text.length() - 1) : text;
    }

    /** The root: the message itself. */
    public Part root() {
        return root;
    }

    /** The parts beside the root, in their order. */
    public List<Part> attached() {
        return parts.stream().filter(part -> part != root).toList();
    }

    /**
     * The part that a reference means (RFC 2392).
     *
     * @param reference an address that starts with {@code cid:}, in whatever letters
     * @return the part's bytes, or null when there is no such part
     */
    public Attachment find(String reference) {
        if (!reference.regionMatches(true, 0, "cid:", 0, "cid:".length())) {
            return null;
        }
        String id = reference.substring("cid:".length());
        String decoded;
        try {
            decoded = URLDecoder.decode(id.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            decoded = id;
        }
        for (Part part : parts) {
            if (part != root && (part.id().equals(decoded) || part.id().equals(id))) {
                return part.content();
            }
        }
        return null;
    }

    /** Finds the lines that part the parts, and reads the heads that follow them. */
    private static final class Scanner {
        private final InputStream in;
        private final byte[] mark;
        private final int[] fallback;
        private final byte[] buffer = new byte[128 * 1024];
        private int at;
        private int filled;
        private long position;
        private boolean last;

        /** How much of the mark the end of a head is already: a part without content ends with its head. */
        private int begun;

        /** Whether the line feed that came last had a carriage return before it; some senders write none. */
        private boolean whole;

        private int before;

        Scanner(Spool body, String boundary) {
            // A package may begin with its first boundary: the line end before it is supplied.
            InputStream start = new ByteArrayInputStream(new byte[] {'\r', '\n'});
            in = new SequenceInputStream(start, body.open());
            position = -2;
            mark = ("\n--" + boundary).getBytes(StandardCharsets.ISO_8859_1);
            fallback = fallback(mark);
        }

        /** For each prefix of the mark that has been seen, what is still seen of it when the next byte does not fit. */
        private static int[] fallback(byte[] mark) {
            int[] table = new int[mark.length + 1];
            for (int i = 1, matched = 0; i < mark.length; i++) {
                while (matched > 0 && mark[i] != mark[matched]) {
                    matched = table[matched];
                }
                matched += mark[i] == mark[matched] ? 1 : 0;
                table[i + 1] = matched;
            }
            return table;
        }

        long position() {
            return position;
        }

        boolean isLast() {
            return last;
        }

        private int read() throws IOException {
            if (at == filled) {
                filled = in.read(buffer);
                at = 0;
                if (filled < 0) {
                    throw new IOException("the message ends before its last part does");
                }
            }
            position++;
            int next = buffer[at++] & 0xFF;
            if (next == '\n') {
                whole = before == '\r';
            }
            before = next;
            return next;
        }

        /** Goes past the next boundary and the rest of its line, and gives where the content before it ended. */
        long toBoundary() throws IOException {
            int matched = begun;
            begun = 0;
            while (true) {
                while (matched < mark.length) {
                    byte next = (byte) read();
                    while (matched > 0 && next != mark[matched]) {
                        matched = fallback[matched];
                    }
                    matched += next == mark[matched] ? 1 : 0;
                }
                long end = position - mark.length - (whole ? 1 : 0);
                int next = read();
                if (next == '-' && read() == '-') {
                    last = true;
                    return end;
                }
                while (next == ' ' || next == '\t') {
                    next = read();
                }
                if (next == '\n' || next == '\r' && read() == '\n') {
                    return end;
                }
                // It only begins like a boundary: the search goes on.
                matched = 0;
            }
        }

        /** Reads the header fields of a part; they end with an empty line (RFC 5322, section 2.2). */
        Map<String, String> head() throws IOException {
            byte[] text = new byte[256];
            int length = 0;
            while (!endsWithEmptyLine(text, length)) {
                if (length == LONGEST_HEAD) {
                    throw new IOException("the head of a part is longer than " + LONGEST_HEAD + " bytes");
                }
                if (length == text.length) {
                    text = Arrays.copyOf(text, length * 2);
                }
                text[length++] = (byte) read();
            }
            begun = 1;
            Map<String, String> fields = new LinkedHashMap<>();
            String unfolded = new String(text, 0, length, StandardCharsets.UTF_8).replaceAll("\r?\n[ \t]+", " ");
            for (String line : unfolded.split("\r?\n")) {
                int colon = line.indexOf(':');
                if (colon > 0) {
                    fields.putIfAbsent(
                            line.substring(0, colon).strip().toLowerCase(Locale.ROOT),
                            line.substring(colon + 1).strip());
                }
            }
            return fields;
        }

        private static boolean endsWithEmptyLine(byte[] text, int length) {
            if (length == 0 || text[length - 1] != '\n') {
                return false;
            }
            int start = length > 1 && text[length - 2] == '\r' ? length - 2 : length - 1;
            return start == 0 || text[start - 1] == '\n';
        }
    }
}
