package org.protypos.record;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicLong;

/** Files of bytes in one folder. No record reaches a file elsewhere, by its name or by a link. */
public final class FolderFiles implements ByteFiles {
    /** Messages are as long as this at most when they are called with, and bytes are longer in them than in files. */
    private static final int LARGEST = 64 << 20;

    private final Path folder;
    /** Names of another run, in the same folder, are others. */
    private final String run =
            Long.toString(System.currentTimeMillis(), Character.MAX_RADIX).toUpperCase(Locale.ROOT);

    private final AtomicLong last = new AtomicLong();

    /** Begins. */
    public FolderFiles(Path folder) {
        this.folder = folder;
    }

    @Override
    public byte[] read(String name) throws IOException {
        Path file = inside(name);
        if (file == null || !Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
            throw new IOException("there is no file " + name + " in " + folder);
        }
        try (InputStream in = Files.newInputStream(file, LinkOption.NOFOLLOW_LINKS)) {
            byte[] bytes = in.readNBytes(LARGEST + 1);
            if (bytes.length > LARGEST) {
                throw new IOException("the file " + name + " has more than " + LARGEST + " bytes");
            }
            return bytes;
        }
    }

    private Path inside(String name) {
        try {
            Path path = folder.resolve(name);
            boolean plain = folder.equals(path.getParent()) && !name.equals("..") && !name.equals(".");
            return plain ? path : null;
        } catch (InvalidPathException e) {
            return null;
        }
    }

    @Override
    public String keep(byte[] bytes) throws IOException {
        while (true) {
            String name = run + "-" + last.incrementAndGet() + ".BIN";
            try {
                Files.write(folder.resolve(name), bytes, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                return name;
            } catch (FileAlreadyExistsException e) {
                // Another run of the same moment has it; the next name may be free.
                continue;
            }
        }
    }

    @Override
    public void forget(String name) {
        try {
            Files.deleteIfExists(folder.resolve(name));
        } catch (IOException e) {
            // It stays: it does no harm, and what went wrong before is what counts.
            return;
        }
    }
}
