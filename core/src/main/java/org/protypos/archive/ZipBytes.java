package org.protypos.archive;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDateTime;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** A zip archive of which the bytes depend on nothing but what is in it. */
final class ZipBytes {
    private static final LocalDateTime ALWAYS = LocalDateTime.of(1980, 1, 1, 0, 0);

    private ZipBytes() {}

    /**
     * Makes an archive.
     *
     * @param first the entry that readers expect first, or null
     */
    static byte[] of(String first, Map<String, byte[]> entries) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Map<String, byte[]> rest = new TreeMap<>(entries);
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            if (first != null) {
                put(zip, first, rest.remove(first));
            }
            for (Map.Entry<String, byte[]> entry : rest.entrySet()) {
                put(zip, entry.getKey(), entry.getValue());
            }
        }
        return bytes.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(ALWAYS);
        zip.putNextEntry(entry);
        zip.write(bytes);
        zip.closeEntry();
    }
}
