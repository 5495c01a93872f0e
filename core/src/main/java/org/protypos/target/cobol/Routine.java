package org.protypos.target.cobol;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.protypos.target.SourceFile;

/** The small routines between programs and what carries records: whoever has another way replaces one of them. */
enum Routine {
    /** Carries a request and waits for the answer. */
    CALLSERV,
    /** The same in steps of a batch; a program is called {@code CALLSERV} with it too. */
    CALLBTCH,
    /** Gives an answer and takes the next request. */
    NEXTSERV;

    SourceFile file() {
        try (InputStream in = Routine.class.getResourceAsStream(name() + ".cbl")) {
            return new SourceFile(name() + ".cbl", new String(in.readAllBytes(), StandardCharsets.US_ASCII));
        } catch (IOException e) {
            throw new UncheckedIOException("the routine is part of the program", e);
        }
    }
}
