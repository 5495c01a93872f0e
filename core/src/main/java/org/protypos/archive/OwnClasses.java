package org.protypos.archive;

import jakarta.servlet.http.HttpServlet;
import java.io.IOException;
import java.io.InputStream;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.protypos.runtime.soap.Endpoint;

/**
 * Classes that this program has itself, as a library: wherever they were loaded from, and without those beside them there. What
 * is compiled is to see no more than it will see where it runs.
 */
enum OwnClasses {
    /** The runtime of generated code. */
    RUNTIME(Endpoint.class, "org/protypos/runtime/"),
    /** The API of servlet containers. */
    SERVLETS(HttpServlet.class, "jakarta/servlet/");

    private final Class<?> one;
    private final String prefix;

    OwnClasses(Class<?> one, String prefix) {
        this.one = one;
        this.prefix = prefix;
    }

    /** The folder or jar that they were loaded from. */
    private Path home() {
        try {
            return Path.of(
                    one.getProtectionDomain().getCodeSource().getLocation().toURI());
        } catch (URISyntaxException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A jar of them. */
    byte[] jar() throws IOException {
        Map<String, byte[]> entries = new TreeMap<>();
        Path home = home();
        if (Files.isDirectory(home)) {
            try (Stream<Path> found = Files.walk(home.resolve(prefix))) {
                for (Path file : found.filter(Files::isRegularFile).toList()) {
                    entries.put(home.relativize(file).toString().replace('\\', '/'), Files.readAllBytes(file));
                }
            }
        } else {
            try (ZipFile zip = new ZipFile(home.toFile())) {
                List<? extends ZipEntry> classes = zip.stream()
                        .filter(entry -> entry.getName().startsWith(prefix) && !entry.isDirectory())
                        .toList();
                for (ZipEntry entry : classes) {
                    try (InputStream in = zip.getInputStream(entry)) {
                        entries.put(entry.getName(), in.readAllBytes());
                    }
                }
            }
        }
        String module = prefix.substring(0, prefix.length() - 1).replace('/', '.');
        entries.put("META-INF/MANIFEST.MF", CodeArchive.manifest(Map.of("Automatic-Module-Name", module)));
        return ZipBytes.of("META-INF/MANIFEST.MF", entries);
    }
}
