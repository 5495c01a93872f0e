package org.protypos.target;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;

/** What compiles and runs code of a language on this machine, for the demo and for proofs. */
public interface Toolchain {
    /** What it needs and does not find here, or null when nothing is missing. */
    Missing missing();

    /** The example's sources that are written by hand, as paths below {@code examples/harbour}. */
    List<String> example();

    /** The command that compiles the example, as a person would begin it. */
    String compiles();

    /** The command that starts the example, as a person would write it. */
    String starts();

    /**
     * Compiles sources, with all warnings.
     *
     * @param sources folders of sources
     * @param into an existing folder for what comes out
     * @return what the compiler says; empty when it is content
     */
    String compile(List<Path> sources, Path into) throws IOException;

    /**
     * Runs the compiled example to its end.
     *
     * @param compiled the folder that was compiled into
     * @param lines where each line goes that it prints
     * @throws IOException when it fails
     */
    void start(Path compiled, Consumer<String> lines) throws IOException;

    /**
     * Something that is missing.
     *
     * @param what what it is that does not work
     * @param cure how to get it
     */
    record Missing(String what, String cure) {}

    /** Compiled types. */
    interface Types extends AutoCloseable {
        /**
         * Reads a message and writes it again.
         *
         * @throws Refused when the types refuse it
         */
        byte[] again(byte[] message) throws IOException, Refused;

        @Override
        void close() throws IOException;
    }

    /** The types refuse a message. */
    final class Refused extends Exception {
        private static final long serialVersionUID = 1L;

        private final int line;
        private final int column;
        private final String path;

        /**
         * Says why and where.
         *
         * @param reason what is wrong with it
         * @param line the line in the message, from 1
         * @param column the column, from 1
         * @param path the elements that lead there
         */
        public Refused(String reason, int line, int column, String path) {
            super(reason);
            this.line = line;
            this.column = column;
            this.path = path;
        }

        /** The line in the message, from 1. */
        public int line() {
            return line;
        }

        /** The column in the line, from 1. */
        public int column() {
            return column;
        }

        /** The elements from the root to the place. */
        public String path() {
            return path;
        }
    }
}
