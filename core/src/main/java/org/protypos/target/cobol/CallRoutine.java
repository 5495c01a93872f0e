package org.protypos.target.cobol;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.protypos.target.SourceFile;

/** The small routine that all calls go through: whoever has another way to the service replaces it alone. */
final class CallRoutine {
    static final String NAME = "CALLSERV";

    private CallRoutine() {}

    static SourceFile file() {
        try (InputStream in = CallRoutine.class.getResourceAsStream(NAME + ".cbl")) {
            return new SourceFile(NAME + ".cbl", new String(in.readAllBytes(), StandardCharsets.US_ASCII));
        } catch (IOException e) {
            throw new UncheckedIOException("the routine is part of the program", e);
        }
    }
}
