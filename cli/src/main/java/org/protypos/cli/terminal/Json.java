package org.protypos.cli.terminal;

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
public final class Json {
    private static final JsonFactory FACTORY = new JsonFactory();

    private Json() {}

    /** What a document holds. */
    public interface Body {
        void write(JsonGenerator json) throws IOException;
    }

    /** Prints one JSON document that a body fills. */
    public static void print(PrintWriter out, Body body) throws IOException {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = FACTORY.createGenerator(text).useDefaultPrettyPrinter()) {
            json.writeStartObject();
            body.write(json);
            json.writeEndObject();
        }
        out.println(text);
    }

    /** Writes findings as a field of the object that is open. */
    public static void findings(JsonGenerator json, List<Finding> findings) throws IOException {
        json.writeArrayFieldStart("findings");
        for (Finding finding : findings) {
            json.writeStartObject();
            json.writeStringField("code", finding.code());
            json.writeStringField("severity", finding.severity().name().toLowerCase(Locale.ROOT));
            if (finding.place() != null) {
                place(json, finding.place());
            }
            json.writeStringField("message", finding.message());
            json.writeStringField("cure", Terminal.options(finding.cure()));
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** Writes a place as an object. */
    public static void place(JsonGenerator json, Place place) throws IOException {
        json.writeStringField("document", place.document());
        json.writeNumberField("line", place.line());
        json.writeNumberField("column", place.column());
    }

    /** Writes a field that is a list of texts. */
    public static void strings(JsonGenerator json, String field, List<String> values) throws IOException {
        json.writeArrayFieldStart(field);
        for (String value : values) {
            json.writeString(value);
        }
        json.writeEndArray();
    }
}
