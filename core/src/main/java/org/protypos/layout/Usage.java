package org.protypos.layout;

/** How a value stands in the bytes of a record. */
public enum Usage {
    /** Characters of the record's code page, filled up with blanks. */
    TEXT,
    /** Bytes as they are, whatever they mean; filled up with zeros. */
    BYTES,
    /** The name of a file with the bytes that are meant, as text. */
    FILE,
    /** A digit a byte, in characters of the code page; a sign is part of the last. */
    ZONED,
    /** Two digits a byte, the sign in the last half byte. */
    PACKED,
    /** A binary number, the most significant byte first unless somebody says otherwise. */
    BINARY
}
