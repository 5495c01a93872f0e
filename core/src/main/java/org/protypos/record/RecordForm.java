package org.protypos.record;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;

/**
 * How values stand in the bytes of records.
 *
 * @param charset the code page
 * @param littleEndian whether binary numbers have their least significant byte first
 * @param files where the bytes are of which records hold the name of a file
 */
public record RecordForm(Charset charset, boolean littleEndian, ByteFiles files) {
    private static final int EBCDIC_ZERO = 0xF0;

    /** The same for records that name no files. */
    public RecordForm(Charset charset, boolean littleEndian) {
        this(charset, littleEndian, ByteFiles.NONE);
    }

    /** Whether it is one of the EBCDIC family, in which digits are 0xF0 to 0xF9. */
    boolean isEbcdic() {
        return (zero() & 0xFF) == EBCDIC_ZERO;
    }

    /** The digit zero. */
    byte zero() {
        return "0".getBytes(charset)[0];
    }

    /** What fills texts up. */
    byte blank() {
        return " ".getBytes(charset)[0];
    }

    /** Whether records can be in it: a blank and a digit are one byte each. */
    public boolean isUsable() {
        return charset.canEncode() && " 0".getBytes(charset).length == 2;
    }

    /**
     * The bytes of a text.
     *
     * @throws CharacterCodingException when it has characters that the code page lacks
     */
    byte[] encoded(String text) throws CharacterCodingException {
        ByteBuffer bytes = charset.newEncoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT)
                .encode(CharBuffer.wrap(text));
        byte[] all = new byte[bytes.remaining()];
        bytes.get(all);
        return all;
    }

    /**
     * The text of bytes.
     *
     * @throws CharacterCodingException when they are no text
     */
    String decoded(byte[] bytes, int from, int length) throws CharacterCodingException {
        return charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT)
                .decode(ByteBuffer.wrap(bytes, from, length))
                .toString();
    }
}
