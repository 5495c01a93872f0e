package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.binding.ProposedRule;
import org.protypos.change.Difference;
import org.protypos.change.Evidence;
import org.protypos.change.Reader;
import org.protypos.cli.terminal.Json;

/** Writes a comparison into a JSON document. */
public final class ComparisonJson {
    private final ComparisonView view;

    /** Writes a comparison as JSON. */
    public ComparisonJson(ComparisonView view) {
        this.view = view;
    }

    /** Writes its fields into the object that is open. */
    public void write(JsonGenerator document) throws IOException {
        document.writeStringField("old", view.old());
        document.writeStringField("new", view.now());
        document.writeNumberField("breaking", view.some(true).size());
        document.writeArrayFieldStart("differences");
        for (Difference difference : view.result().differences()) {
            document.writeStartObject();
            document.writeStringField("change", difference.change().name().toLowerCase(Locale.ROOT));
            document.writeStringField("kind", difference.kind());
            document.writeStringField("component", difference.designator());
            document.writeStringField("fact", difference.fact());
            document.writeStringField("before", difference.before());
            document.writeStringField("after", difference.after());
            document.writeStringField(
                    "oldPlace",
                    difference.oldPlace() == null ? null : difference.oldPlace().toString());
            document.writeStringField(
                    "newPlace",
                    difference.newPlace() == null ? null : difference.newPlace().toString());
            Json.strings(document, "breaks", words(difference.breaks()));
            Json.strings(document, "misleads", words(difference.misleads()));
            document.writeArrayFieldStart("evidence");
            for (Evidence evidence : difference.evidence()) {
                write(document, evidence);
            }
            document.writeEndArray();
            document.writeEndObject();
        }
        document.writeEndArray();
        document.writeArrayFieldStart("renames");
        for (ProposedRule rule : view.result().renames()) {
            document.writeStartObject();
            document.writeStringField("on", rule.on());
            for (Map.Entry<String, String> value : rule.values().entrySet()) {
                document.writeStringField(value.getKey(), value.getValue());
            }
            document.writeEndObject();
        }
        document.writeEndArray();
    }

    private static List<String> words(Collection<Reader> readers) {
        return readers.stream().map(ComparisonJson::word).toList();
    }

    private static String word(Reader reader) {
        return reader.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private void write(JsonGenerator document, Evidence evidence) throws IOException {
        document.writeStartObject();
        document.writeStringField("reader", word(evidence.reader()));
        document.writeStringField("message", evidence.of());
        document.writeStringField("says", view.why(evidence));
        document.writeStringField("at", evidence.at());
        document.writeStringField("why", evidence.why());
        document.writeStringField(
                "contract",
                evidence.contract() == null ? null : evidence.contract().toString());
        document.writeStringField("witness", evidence.message());
        document.writeEndObject();
    }
}
