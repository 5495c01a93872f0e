package org.protypos.source.fetch;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.file.FileSystemNotFoundException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Gets the bytes behind an address: a file, a document in an archive or on a web server. */
public final class Fetcher {
    static final int LARGEST_DOCUMENT = 128 << 20;

    private final Web web = new Web(System.getenv());
    private final List<Archive> archives = new ArrayList<>();

    /** Takes an archive whose documents may be asked for: no others than those that somebody has named. */
    public List<URI> open(Path archive) throws IOException {
        Archive opened = new Archive(archive);
        archives.add(opened);
        return opened.entries();
    }

    /** Opens an archive for one document in it. */
    public URI within(Path archive, String path) throws IOException {
        if (!Files.isRegularFile(archive)) {
            throw new IOException("there is no archive " + archive);
        }
        Archive opened = new Archive(archive);
        archives.add(opened);
        return opened.address(path);
    }

    private byte[] archived(URI address) throws IOException {
        for (Archive archive : archives) {
            if (archive.holds(address)) {
                return archive.read(address);
            }
        }
        throw new IOException("it lies in no archive of the contract");
    }

    /**
     * Says that somebody has named an address, and no document has.
     *
     * @return the address without the user and the password that may stand in it
     */
    public URI name(URI address) {
        return address.getHost() == null ? address : web.name(address);
    }

    /** Whether somebody has named the server of an address. */
    public boolean isNamed(URI address) {
        return web.isNamed(address);
    }

    /**
     * Gets a document.
     *
     * @throws IOException when it cannot be had; the message says why, for a person
     */
    public byte[] fetch(URI address) throws IOException {
        return switch (String.valueOf(address.getScheme())) {
            case "file" -> file(path(address));
            case "http", "https" -> web.fetch(address);
            case Archive.SCHEME -> archived(address);
            default ->
                throw new IOException("addresses of the kind \"" + address.getScheme() + ":\" cannot be fetched");
        };
    }

    /** The path that a file's address stands for on this system. */
    public static Path path(URI address) throws IOException {
        try {
            return Path.of(address);
        } catch (IllegalArgumentException | FileSystemNotFoundException e) {
            throw new IOException(
                    address.getAuthority() != null ? "it names another machine" : "it is no path of this system", e);
        }
    }

    private static byte[] file(Path path) throws IOException {
        try (InputStream stream = Files.newInputStream(path)) {
            return bounded(stream);
        } catch (NoSuchFileException e) {
            throw new IOException("there is no such file", e);
        } catch (IOException e) {
            throw new IOException(Files.isDirectory(path) ? "it is a directory" : "it cannot be read", e);
        }
    }

    /** Reads a stream whole; one that is larger than a document may be is an {@link IOException}. */
    public static byte[] bounded(InputStream stream) throws IOException {
        return bounded(stream.readNBytes(LARGEST_DOCUMENT + 1));
    }

    /** What was read of a document; one byte more than may be is an {@link IOException}. */
    static byte[] bounded(byte[] bytes) throws IOException {
        if (bytes.length > LARGEST_DOCUMENT) {
            throw new IOException("it is longer than " + LARGEST_DOCUMENT + " bytes");
        }
        return bytes;
    }
}
