package org.protypos.runtime.parse;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** The text of an XML message, for whoever looks at it rather than reads it. */
public final class DecodedText {
    private DecodedText() {}

    /**
     * Decodes a message as it would be read: by its byte order mark, else by the encoding that the transport names, else by
     * its declaration (RFC 7303, section 3.2; XML 1.0, section 4.3.3).
     *
     * @param charset the encoding that the transport names, or null
     * @return the text; of bytes that are in no such encoding what UTF-8 makes of them
     */
    public static String of(byte[] message, String charset) {
        CharSource source = new CharSource();
        try {
            source.open(new ByteArrayInputStream(message), charset);
            StringBuilder text = new StringBuilder(message.length);
            char[] some = new char[8 * 1024];
            for (int count = source.read(some, 0, some.length); count >= 0; count = source.read(some, 0, some.length)) {
                text.append(some, 0, count);
            }
            return text.length() > 0 && text.charAt(0) == '\uFEFF' ? text.substring(1) : text.toString();
        } catch (IOException e) {
            return new String(message, StandardCharsets.UTF_8);
        }
    }

    /** The encoding to read a message in, or null to take it from the message: its byte order mark says more than any name. */
    public static String encoding(byte[] message, String charset) {
        return CharSource.marked(message, message.length) == null ? charset : null;
    }
}
