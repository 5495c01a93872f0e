package org.protypos.cli.drafting;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;

/** The sketch that one begins with. */
public final class SketchBeginning {
    private SketchBeginning() {}

    public static String text() throws IOException {
        try (InputStream in = SketchBeginning.class.getResourceAsStream("beginning.sketch.yaml")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
