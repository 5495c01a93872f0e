package org.protypos.cli;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.List;
import java.util.Locale;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Place;

/** Writes one JSON document, for programs. */
final class Json {
    private static final JsonFactory FACTORY = new JsonFactory();

    private Json() {}

    /** What a document holds. */
    interface Body {
        void write(JsonGenerator json) throws IOException;
    }

    static void print(PrintWriter out, Body body) throws IOException {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = FACTORY.createGenerator(text).useDefaultPrettyPrinter()) {
            json.writeStartObject();
            body.write(json);
            json.writeEndObject();
        }
        out.println(text);
    }

    static void findings(JsonGenerator json, List<Finding> findings) throws IOException {
        json.writeArrayFieldStart("findings");
        for (Finding finding : findings) {
            json.writeStartObject();
            json.writeStringField("code", finding.code());
            json.writeStringField("severity", finding.severity().name().toLowerCase(Locale.ROOT));
            if (finding.place() != null) {
                place(json, finding.place());
            }
            json.writeStringField("message", finding.message());
            json.writeStringField("cure", finding.cure());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    static void place(JsonGenerator json, Place place) throws IOException {
        json.writeStringField("document", place.document());
        json.writeNumberField("line", place.line());
        json.writeNumberField("column", place.column());
    }

    static void strings(JsonGenerator json, String field, List<String> values) throws IOException {
        json.writeArrayFieldStart(field);
        for (String value : values) {
            json.writeString(value);
        }
        json.writeEndArray();
    }
}
