package org.protypos.testing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/** What stands at the end of a case file is what comes of it; written anew with {@code -Dexpected.write=true}. */
public final class ExpectedText {
    private static final boolean WRITE = Boolean.getBoolean("expected.write");

    private ExpectedText() {}

    /**
     * Compares.
     *
     * @param result what has come of the case
     * @param markers what the end of the file may begin with; the first that is there counts
     */
    public static void check(Path file, String result, String... markers) throws IOException {
        String whole = Files.readString(file);
        int expected = Stream.of(markers)
                .map(whole::indexOf)
                .filter(at -> at >= 0)
                .findFirst()
                .orElse(-1);
        if (WRITE) {
            Files.writeString(file, (expected < 0 ? whole : whole.substring(0, expected)) + result);
        } else {
            assertThat(result).isEqualTo(whole.substring(expected));
        }
    }
}
