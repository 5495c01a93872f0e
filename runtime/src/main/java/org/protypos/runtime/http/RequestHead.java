package org.protypos.runtime.http;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/**
 * The head of a request (RFC 9112, sections 2 to 6): what is asked for, the fields, and how far the body goes.
 *
 * @param method the method
 * @param path the path as it came, starting with a slash, or {@code *}
 * @param query the query as it came, or null
 * @param fields the values of the fields by their names in small letters; those of one name with a comma between
 * @param length the bytes of the body, or -1 when it comes in chunks
 * @param persistent whether the connection is to stay open
 * @param chunks whether the answer may come in chunks
 */
record RequestHead(
        String method,
        String path,
        String query,
        Map<String, String> fields,
        long length,
        boolean persistent,
        boolean chunks) {
    private static final int MOST_FIELDS = 200;
    private static final String MARKS = "!#$%&'*+-.^_`|~";

    /** The head makes no sense, or asks for what is not done here. */
    static final class BadHeadException extends Exception {
        private static final long serialVersionUID = 1L;

        private final int status;

        BadHeadException(int status, String message) {
            super(message, null, false, false);
            this.status = status;
        }

        int status() {
            return status;
        }
    }

    /** A field, empty when it is absent. */
    String field(String name) {
        return fields.getOrDefault(name.toLowerCase(Locale.ROOT), "");
    }

    /** Whether the sender waits to be told to send the body (RFC 9110, section 10.1.1). */
    boolean isAwaiting() {
        return field("expect").equalsIgnoreCase("100-continue");
    }

    /**
     * Where a head ends that begins at the start of some bytes.
     *
     * @param from from where on to look; earlier there is no end
     * @return the index behind the empty line, or -1 when it is not there yet
     */
    static int end(byte[] bytes, int from, int to) {
        for (int i = Math.max(0, from); i < to; i++) {
            if (bytes[i] == '\n') {
                int next = i + 1 < to && bytes[i + 1] == '\r' ? i + 2 : i + 1;
                if (next < to && bytes[next] == '\n') {
                    return next + 1;
                }
            }
        }
        return -1;
    }

    /**
     * Reads a head.
     *
     * @param length how many of the bytes it takes, the empty line at its end among them
     */
    static RequestHead read(byte[] bytes, int length) throws BadHeadException {
        String[] lines = new String(bytes, 0, length, StandardCharsets.ISO_8859_1).split("\r?\n", -1);
        String[] first = lines[0].split(" ", -1);
        if (first.length != 3 || !isToken(first[0])) {
            throw new BadHeadException(400, "the request does not begin with a method, an address and a version");
        }
        if (!first[2].matches("HTTP/1\\.[0-9]")) {
            throw new BadHeadException(first[2].startsWith("HTTP/") ? 505 : 400, "the version is HTTP/1.1 or HTTP/1.0");
        }
        Map<String, String> fields = fields(lines);
        boolean old = first[2].endsWith("0");
        if (!old && !fields.containsKey("host")) {
            throw new BadHeadException(400, "the field Host is missing");
        }
        String target = target(first[1], fields);
        int question = target.indexOf('?');
        return new RequestHead(
                first[0],
                question < 0 ? target : target.substring(0, question),
                question < 0 ? null : target.substring(question + 1),
                fields,
                bodyLength(fields, old),
                isPersistent(fields.getOrDefault("connection", ""), old),
                !old);
    }

    private static boolean isToken(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (!(c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9') && MARKS.indexOf(c) < 0) {
                return false;
            }
        }
        return !text.isEmpty();
    }

    private static Map<String, String> fields(String[] lines) throws BadHeadException {
        Map<String, String> fields = new LinkedHashMap<>();
        for (int i = 1; i < lines.length && !lines[i].isEmpty(); i++) {
            if (i > MOST_FIELDS) {
                throw new BadHeadException(431, "there are more than " + MOST_FIELDS + " fields");
            }
            int colon = lines[i].indexOf(':');
            String name = colon < 0 ? "" : lines[i].substring(0, colon).toLowerCase(Locale.ROOT);
            String value = lines[i].substring(colon + 1).strip();
            if (!isToken(name) || value.chars().anyMatch(c -> c < ' ' && c != '\t' || c == 127)) {
                throw new BadHeadException(400, "a field is written Name: value");
            }
            boolean once = name.equals("host") || name.equals("content-type") || name.equals("soapaction");
            if (once && fields.containsKey(name)) {
                throw new BadHeadException(400, "the field " + name + " is there twice");
            }
            fields.merge(name, value, (before, more) -> before + ", " + more);
        }
        return fields;
    }

    /** A proxy is asked with a whole address, of which the server then counts as the field Host (RFC 9112, section 3.2.2). */
    private static String target(String written, Map<String, String> fields) throws BadHeadException {
        String target = written;
        if (target.regionMatches(true, 0, "http://", 0, 7) || target.regionMatches(true, 0, "https://", 0, 8)) {
            int server = target.indexOf("//") + 2;
            int path = server;
            while (path < target.length() && "/?".indexOf(target.charAt(path)) < 0) {
                path++;
            }
            fields.put("host", target.substring(server, path));
            target = (path < target.length() && target.charAt(path) == '/' ? "" : "/") + target.substring(path);
        }
        boolean sound = target.startsWith("/") || target.equals("*");
        if (!sound || target.chars().anyMatch(c -> c <= ' ' || c >= 127 || c == '#')) {
            throw new BadHeadException(400, "the address asked for is none");
        }
        return target;
    }

    /** RFC 9112, section 6.3: whatever could be understood in two ways is refused. */
    private static long bodyLength(Map<String, String> fields, boolean old) throws BadHeadException {
        String coding = fields.get("transfer-encoding");
        String length = fields.get("content-length");
        if (coding != null) {
            if (old || length != null) {
                throw new BadHeadException(400, "it cannot be told where the body ends");
            }
            if (!coding.equalsIgnoreCase("chunked")) {
                throw new BadHeadException(501, "a body comes as it is or in chunks");
            }
            return -1;
        }
        if (length == null) {
            return 0;
        }
        String[] said = length.split("\\s*,\\s*", -1);
        for (String one : said) {
            if (!one.equals(said[0]) || !one.matches("[0-9]{1,18}")) {
                throw new BadHeadException(400, "the length of the body is not told");
            }
        }
        return Long.parseLong(said[0]);
    }

    /** RFC 9112, section 9.3. */
    private static boolean isPersistent(String connection, boolean old) {
        String asked = ("," + connection.toLowerCase(Locale.ROOT) + ",").replaceAll("\\s", "");
        return old ? asked.contains(",keep-alive,") : !asked.contains(",close,");
    }
}
