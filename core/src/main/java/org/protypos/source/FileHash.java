package org.protypos.source;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * The hash by which the documents of contracts are pinned: SHA-256 in hexadecimal digits. Generated files have
 * checksums.
 */
public final class FileHash {
    private FileHash() {}

    /** The hash of some content. */
    public static String of(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
