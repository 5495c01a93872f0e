package org.protypos.source.fetch;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/** A zip or jar file that holds a contract. Nothing is unpacked onto the disk: its documents are read where they are. */
public final class Archive {
    /** The scheme of addresses within archives: such addresses can be resolved against each other, as paths can. */
    static final String SCHEME = "zip";

    private static final String INSIDE = "/!/";
    private static final int MOST_ENTRIES = 20_000;

    private final Path file;
    private final String base;

    Archive(Path path) {
        this.file = path.toAbsolutePath().normalize();
        this.base = SCHEME + ":" + file.toUri().getRawPath() + INSIDE;
    }

    /** The addresses of the WSDL documents in it, or of the schemas when there are none. */
    List<URI> entries() throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            if (zip.size() > MOST_ENTRIES) {
                throw new IOException("the archive has more than " + MOST_ENTRIES + " entries");
            }
            for (String suffix : List.of(".wsdl", ".xsd")) {
                List<URI> found = zip.stream()
                        .filter(entry -> !entry.isDirectory() && entry.getName().endsWith(suffix))
                        .map(ZipEntry::getName)
                        .sorted()
                        .map(this::address)
                        .toList();
                if (!found.isEmpty()) {
                    return found;
                }
            }
        }
        throw new IOException("no contract in the archive");
    }

    /** The address of a document in it. */
    URI address(String name) {
        try {
            return URI.create(
                    base + new URI(null, null, "/" + name, null).getRawPath().substring(1));
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException(e);
        }
    }

    /** The folder that the documents around an address are named from: the top of its archive, or where it lies itself. */
    public static URI home(URI address) {
        int inside = address.toString().indexOf(INSIDE);
        return SCHEME.equals(address.getScheme()) && inside > 0
                ? URI.create(address.toString().substring(0, inside + INSIDE.length()))
                : address.resolve(".");
    }

    /** Whether an address lies within. */
    boolean holds(URI address) {
        return address.toString().startsWith(base);
    }

    /** Opens the document at an address. */
    byte[] read(URI address) throws IOException {
        String name = URI.create("/" + address.toString().substring(base.length()))
                .getPath()
                .substring(1);
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry entry = zip.getEntry(name);
            if (entry == null) {
                throw new IOException("there is no such entry in the archive");
            }
            try (InputStream stream = zip.getInputStream(entry)) {
                return Fetcher.bounded(stream);
            }
        }
    }
}
