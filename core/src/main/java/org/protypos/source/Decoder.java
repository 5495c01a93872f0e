package org.protypos.source;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Turns the bytes of a document into text: byte-order mark, then declaration, then UTF-8 (XML 1.0, appendix F). */
public final class Decoder {
    private static final Pattern DECLARED =
            Pattern.compile("^<\\?xml[^>]*?encoding\\s*=\\s*[\"']([A-Za-z][A-Za-z0-9._-]*)[\"']");
    private static final int DECLARATION_LENGTH = 200;

    private Decoder() {}

    /**
     * Decodes a document.
     *
     * @throws UnsupportedCharsetException when the document names an encoding that this platform does not know
     */
    public static String decode(byte[] bytes) {
        String text = new String(bytes, charset(bytes));
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    /** Where a document stops being text in its encoding: a byte, and the character of the decoded text. */
    record Broken(int at, int offset) {}

    /**
     * Finds the first bytes of a document that are no characters in its encoding (XML 1.0, section 4.3.3), which decoding
     * replaces.
     *
     * @param text what has been decoded from the bytes
     * @return the place, or null when all is well
     */
    static Broken broken(byte[] bytes, String text) {
        if (text.indexOf('\uFFFD') < 0) {
            return null;
        }
        ByteBuffer in = ByteBuffer.wrap(bytes);
        CharBuffer out = CharBuffer.allocate(bytes.length + 1);
        CharsetDecoder decoder = charset(bytes).newDecoder();
        boolean broken = decoder.decode(in, out, true).isError();
        boolean isMarked = out.position() > 0 && out.get(0) == '\uFEFF';
        return broken ? new Broken(in.position(), out.position() - (isMarked ? 1 : 0)) : null;
    }

    /**
     * The encoding that a document is in, by its mark or its declaration.
     *
     * @throws UnsupportedCharsetException when it names one that this platform does not know
     */
    public static Charset charset(byte[] bytes) {
        Charset marked = mark(bytes);
        return marked == null ? declared(bytes) : marked;
    }

    private static Charset mark(byte[] bytes) {
        int first = unsigned(bytes, 0) << 8 | unsigned(bytes, 1);
        int second = unsigned(bytes, 2) << 8 | unsigned(bytes, 3);
        if (first == 0xfffe && second == 0 || first == '<' << 8 && second == 0) {
            return Charset.forName("UTF-32LE");
        }
        if (first == 0 && (second == 0xfeff || second == '<')) {
            return Charset.forName("UTF-32BE");
        }
        if (first == 0xfeff || first == '<') {
            return StandardCharsets.UTF_16BE;
        }
        if (first == 0xfffe || first == '<' << 8) {
            return StandardCharsets.UTF_16LE;
        }
        return first == 0xefbb && second >> 8 == 0xbf ? StandardCharsets.UTF_8 : null;
    }

    private static int unsigned(byte[] bytes, int index) {
        return index < bytes.length ? bytes[index] & 0xff : 0xaa;
    }

    private static Charset declared(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, DECLARATION_LENGTH), StandardCharsets.ISO_8859_1);
        Matcher matcher = DECLARED.matcher(start);
        if (!matcher.find()) {
            return StandardCharsets.UTF_8;
        }
        try {
            return Charset.forName(matcher.group(1));
        } catch (IllegalCharsetNameException e) {
            throw new UnsupportedCharsetException(matcher.group(1));
        }
    }
}
