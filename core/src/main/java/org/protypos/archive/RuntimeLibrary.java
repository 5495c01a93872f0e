package org.protypos.archive;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.protypos.runtime.soap.Endpoint;

/** The runtime as a library: its classes, from wherever they were loaded. */
final class RuntimeLibrary {
    private static final String CLASSES = "org/protypos/runtime/";

    private RuntimeLibrary() {}

    static byte[] jar() throws IOException {
        Path home = ClassFiles.home(Endpoint.class);
        Map<String, byte[]> entries = new TreeMap<>();
        if (Files.isDirectory(home)) {
            try (Stream<Path> found = Files.walk(home.resolve(CLASSES))) {
                for (Path file : found.filter(Files::isRegularFile).toList()) {
                    entries.put(home.relativize(file).toString().replace('\\', '/'), Files.readAllBytes(file));
                }
            }
        } else {
            try (ZipFile zip = new ZipFile(home.toFile())) {
                List<? extends ZipEntry> classes = zip.stream()
                        .filter(entry -> entry.getName().startsWith(CLASSES) && !entry.isDirectory())
                        .toList();
                for (ZipEntry entry : classes) {
                    try (InputStream in = zip.getInputStream(entry)) {
                        entries.put(entry.getName(), in.readAllBytes());
                    }
                }
            }
        }
        entries.put(
                "META-INF/MANIFEST.MF", CodeArchive.manifest(Map.of("Automatic-Module-Name", "org.protypos.runtime")));
        return ZipBytes.of("META-INF/MANIFEST.MF", entries);
    }
}
