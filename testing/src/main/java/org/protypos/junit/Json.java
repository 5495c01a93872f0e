package org.protypos.junit;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;

/** Writes pieces of JSON. */
final class Json {
    private static final JsonFactory FACTORY = new JsonFactory();

    private Json() {}

    /** Writes something. */
    interface Body {
        void write(JsonGenerator json) throws IOException;
    }

    static String of(Body body) {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = FACTORY.createGenerator(text)) {
            body.write(json);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    static String quoted(String text) {
        return of(json -> json.writeString(text));
    }
}
