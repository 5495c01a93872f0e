package org.protypos.output;

import java.util.zip.CRC32;
import java.util.zip.CRC32C;
import org.protypos.source.FileHash;

/**
 * By what the content of generated files is known again: two cyclic redundancy checks of 32 bits each. They tell that
 * somebody has edited a file, not that somebody has forged one, who could change the ledger as well; and they are had at
 * the speed at which files are read, which a hash that withstands forgery is not.
 */
public final class Checksum {
    /** How many digits stand in ledgers of versions that hashed files with SHA-256. */
    private static final int HASH = 64;

    private static final int DIGITS = 16;

    private Checksum() {}

    /** The checksum of some content: 16 hexadecimal digits. */
    public static String of(byte[] bytes) {
        CRC32C first = new CRC32C();
        first.update(bytes, 0, bytes.length);
        CRC32 second = new CRC32();
        second.update(bytes, 0, bytes.length);
        String digits = Long.toHexString(first.getValue() << 32 | second.getValue());
        return "0".repeat(DIGITS - digits.length()) + digits;
    }

    /** Whether a text is a checksum, be it one of an earlier version. */
    static boolean isOne(String text) {
        return (text.length() == DIGITS || text.length() == HASH)
                && text.chars().allMatch(c -> c >= '0' && c <= '9' || c >= 'a' && c <= 'f');
    }

    /** Whether some content is what has this checksum, which may be one of an earlier version. */
    static boolean isOf(String checksum, byte[] bytes) {
        return checksum.equals(checksum.length() == HASH ? FileHash.of(bytes) : of(bytes));
    }
}
