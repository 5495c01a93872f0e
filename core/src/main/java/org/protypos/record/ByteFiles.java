package org.protypos.record;

import java.io.IOException;

/** Where the bytes are of which a record holds the name of a file. */
public interface ByteFiles {
    /** There are no files: who reads or writes a record that names one is told so. */
    ByteFiles NONE = new ByteFiles() {
        @Override
        public byte[] read(String name) throws IOException {
            throw new IOException("nobody has said in which folder the file " + name + " is");
        }

        @Override
        public String keep(byte[] bytes) throws IOException {
            throw new IOException("nobody has said in which folder the file for its bytes goes");
        }

        @Override
        public void forget(String name) {
            // None has been kept.
        }
    };

    /**
     * The bytes of a file.
     *
     * @throws IOException when there is no such file, it may not be read, or is too large
     */
    byte[] read(String name) throws IOException;

    /**
     * Puts bytes into a new file.
     *
     * @return its name
     * @throws IOException when it cannot be written
     */
    String keep(byte[] bytes) throws IOException;

    /** Takes a file back that was put there for a record which could not be written after all. */
    void forget(String name);
}
