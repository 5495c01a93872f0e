package org.protypos.runtime.parse;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The characters of a document, decoded as they are asked for: in the encoding that the transport names, or in the one that
 * the document shows by its first bytes or names in its declaration (XML 1.0, section 4.3.3 and appendix F).
 */
final class CharSource {
    private static final int SIZE = 4 * 1024;
    private static final int LONGEST_DECLARATION = 1024;
    private static final byte[] USUAL = MessageScanner.USUAL_DECLARATION.getBytes(StandardCharsets.US_ASCII);
    private static final int SURROGATES = 0xD800;
    private static final Pattern DECLARED =
            Pattern.compile("^<\\?xml\\s[^?>]*?\\sencoding\\s*=\\s*([\"'])([^\"']*)\\1");

    private final byte[] bytes = new byte[SIZE];
    private InputStream in;
    private int at;
    private int filled;
    private boolean ended;
    private CharsetDecoder decoder;
    private String given;

    /**
     * Begins with a document.
     *
     * @param stream its bytes
     * @param encoding the encoding that the transport names, or null
     * @throws IOException when the bytes cannot be had or the encoding is not known; its message says so
     */
    void open(InputStream stream, String encoding) throws IOException {
        in = stream;
        given = null;
        at = 0;
        filled = 0;
        ended = false;
        while (filled < 4 && !ended) {
            fill();
        }
        // RFC 7303, section 3.2: a byte order mark counts more than what the transport says, and that more than the
        // document.
        String marked = marked(bytes, filled);
        String name = marked != null ? marked : encoding != null ? encoding : ownEncoding();
        decoder = name.equalsIgnoreCase("UTF-8") ? null : decoder(name);
    }

    /** Begins with a document that somebody has decoded already. */
    void open(String text) {
        given = text;
        at = 0;
    }

    private static CharsetDecoder decoder(String name) throws IOException {
        try {
            return Charset.forName(name)
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException | UnsupportedOperationException e) {
            throw new IOException("the encoding " + name + " is not known", e);
        }
    }

    /** The encoding that a byte order mark shows (XML 1.0, appendix F.1), or null when there is none. */
    static String marked(byte[] start, int length) {
        int first = pair(start, length, 0);
        int second = pair(start, length, 2);
        if (first == 0xFEFF && second == 0 || first == 0xFFFE && second == 0 || first == 0 && second == 0xFEFF) {
            return "UTF-32";
        }
        return switch (first) {
            case 0xFEFF -> "UTF-16BE";
            case 0xFFFE -> "UTF-16LE";
            case 0xEFBB -> second >> 8 == 0xBF ? "UTF-8" : null;
            default -> null;
        };
    }

    /** Two bytes as one number; negative when there are not so many. */
    private static int pair(byte[] start, int length, int index) {
        int high = index < length ? start[index] & 0xFF : -1;
        int low = index + 1 < length ? start[index + 1] & 0xFF : -1;
        return high << 8 | low;
    }

    private String ownEncoding() throws IOException {
        int first = pair(bytes, filled, 0);
        int second = pair(bytes, filled, 2);
        if (first == 0x003C && second == 0x003F) {
            return "UTF-16BE";
        }
        if (first == 0x3C00 && second == 0x3F00) {
            return "UTF-16LE";
        }
        if (first == 0x4C6F && second == 0xA794) {
            return declared(Charset.forName("IBM037"));
        }
        return first == 0x3C3F && !isUsual() ? declared(StandardCharsets.ISO_8859_1) : "UTF-8";
    }

    private boolean isUsual() {
        return filled >= USUAL.length && Arrays.equals(bytes, 0, USUAL.length, USUAL, 0, USUAL.length);
    }

    /** The encoding that the declaration names, read in one that shares its characters. */
    private String declared(Charset like) throws IOException {
        int length = Math.min(filled, LONGEST_DECLARATION);
        String start = new String(bytes, 0, length, like);
        while (!start.contains("?>") && length < LONGEST_DECLARATION && !ended) {
            fill();
            length = Math.min(filled, LONGEST_DECLARATION);
            start = new String(bytes, 0, length, like);
        }
        Matcher found = DECLARED.matcher(start);
        if (!found.find()) {
            return "UTF-8";
        }
        String name = found.group(2);
        if (name.matches("(?i)utf-?(16|32).*|ISO-10646-UCS-.*")) {
            throw new IOException("the document says that it is in " + name + ", but it is not");
        }
        return name;
    }

    private void fill() throws IOException {
        int read = in.read(bytes, filled, bytes.length - filled);
        if (read < 0) {
            ended = true;
        } else {
            filled += read;
        }
    }

    /** Moves what is left to the front and adds to it. */
    private void refill() throws IOException {
        System.arraycopy(bytes, at, bytes, 0, filled - at);
        filled -= at;
        at = 0;
        fill();
    }

    /**
     * Decodes some characters.
     *
     * @return how many, or -1 when there are no more
     * @throws IOException when the bytes cannot be had or are not in the encoding
     */
    int read(char[] to, int offset, int length) throws IOException {
        if (given != null) {
            int count = Math.min(length, given.length() - at);
            given.getChars(at, at + count, to, offset);
            at += count;
            return count == 0 ? -1 : count;
        }
        while (true) {
            int count = decoder == null ? utf8(to, offset, length) : decoded(to, offset, length);
            if (count > 0) {
                return count;
            }
            if (ended && at == filled) {
                return -1;
            }
            int left = filled - at;
            refill();
            if (ended && left > 0 && filled == left && decoder == null) {
                throw new IOException("the message ends in the middle of a character");
            }
        }
    }

    private int decoded(char[] to, int offset, int length) throws IOException {
        ByteBuffer from = ByteBuffer.wrap(bytes, at, filled - at);
        CharBuffer into = CharBuffer.wrap(to, offset, length);
        CoderResult result = decoder.decode(from, into, ended);
        at = from.position();
        if (result.isError() && into.position() == offset) {
            throw new IOException(
                    "the bytes are not in the encoding " + decoder.charset().name());
        }
        if (ended && at < filled && result.isUnderflow()) {
            at = filled;
        }
        return into.position() - offset;
    }

    /** The Unicode Standard, table 3-7: every other sequence of bytes is malformed. */
    private int utf8(char[] to, int offset, int length) throws IOException {
        int out = offset;
        int last = offset + length;
        int from = at;
        while (from < filled && out < last) {
            int first = bytes[from];
            if (first >= 0) {
                to[out++] = (char) first;
                from++;
                continue;
            }
            int size = first >= (byte) 0xF0 ? 4 : first >= (byte) 0xE0 ? 3 : 2;
            if (from + size > filled || size == 4 && out + 2 > last) {
                break;
            }
            int point = size == 2 ? first & 0x1F : size == 3 ? first & 0x0F : first & 0x07;
            boolean wrong = first < (byte) 0xC2 || first > (byte) 0xF4;
            for (int i = 1; i < size; i++) {
                wrong |= (bytes[from + i] & 0xC0) != 0x80;
                point = point << 6 | bytes[from + i] & 0x3F;
            }
            boolean surrogate = size == 3 && (point & 0xF800) == SURROGATES;
            if (wrong
                    || surrogate
                    || size == 3 && point < 0x800
                    || size == 4 && (point < 0x10000 || point > 0x10FFFF)) {
                if (out > offset) {
                    break;
                }
                throw new IOException(noCharacter(from, size));
            }
            if (size == 4) {
                to[out++] = Character.highSurrogate(point);
                to[out++] = Character.lowSurrogate(point);
            } else {
                to[out++] = (char) point;
            }
            from += size;
        }
        at = from;
        return out - offset;
    }

    /** What is said of bytes that are no character: as numbers, and as what they most often were meant to be. */
    private String noCharacter(int from, int size) {
        String hex = HexFormat.ofDelimiter(" ").withUpperCase().formatHex(bytes, from, from + size);
        String text = new String(bytes, from, size, StandardCharsets.ISO_8859_1);
        boolean shown = text.chars().noneMatch(Character::isISOControl);
        return "the bytes " + hex + (shown ? " (\"" + text + "\" in ISO 8859-1)" : "") + " are no character in UTF-8";
    }
}
