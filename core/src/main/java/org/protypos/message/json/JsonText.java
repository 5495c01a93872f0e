package org.protypos.message.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import com.fasterxml.jackson.dataformat.yaml.YAMLGenerator;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.MalformedText;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;

/** Parses JSON into values that know where they stand. */
public final class JsonText {
    /** YAML 1.1, section 4.2: these end lines, or are no part of a stream as they are. */
    private static final Pattern FRAGILE =
            Pattern.compile("[\\r\\x{85}\\x{2028}\\x{2029}\\x{FEFF}\\p{Cntrl}&&[^\\n\\t]]");

    private static final JsonFactory JSON = JsonFactory.builder()
            .streamReadConstraints(
                    StreamReadConstraints.builder().maxNestingDepth(1_000).build())
            .build();

    private final SourceText text;
    private final Findings findings;
    private final JsonParser in;

    private JsonText(SourceText text, Findings findings, JsonParser in) {
        this.text = text;
        this.findings = findings;
        this.in = in;
    }

    /**
     * Parses a text.
     *
     * @param findings is told why it is not well-formed
     * @return the value, or null when it is not
     */
    public static JsonValue parse(SourceText text, Findings findings) {
        return parse(JSON, text, findings);
    }

    /** Parses a text in YAML, which has the same values, likewise. */
    public static JsonValue parseYaml(SourceText text, Findings findings) {
        return parse(new YAMLFactory(), text, findings);
    }

    /** Writes YAML as a person would: quotes only where a value would be taken for another. */
    public static JsonGenerator yamlWriter(Writer out) throws IOException {
        return new YAMLFactory()
                .enable(YAMLGenerator.Feature.MINIMIZE_QUOTES)
                .enable(YAMLGenerator.Feature.ALWAYS_QUOTE_NUMBERS_AS_STRINGS)
                .disable(YAMLGenerator.Feature.WRITE_DOC_START_MARKER)
                .createGenerator(out);
    }

    /** Writes a value, in JSON or in YAML. */
    public static void write(JsonValue value, JsonGenerator out) throws IOException {
        if (value instanceof JsonValue.Members members) {
            out.writeStartObject();
            for (Map.Entry<String, JsonValue> member : members.members().entrySet()) {
                out.writeFieldName(member.getKey());
                write(member.getValue(), out);
            }
            out.writeEndObject();
        } else if (value instanceof JsonValue.Items items) {
            out.writeStartArray();
            for (JsonValue item : items.items()) {
                write(item, out);
            }
            out.writeEndArray();
        } else if (value instanceof JsonValue.Text text) {
            write(text.text(), out);
        } else if (value instanceof JsonValue.Literal literal && literal.text().matches("true|false")) {
            out.writeBoolean(literal.text().equals("true"));
        } else if (value instanceof JsonValue.Literal literal) {
            out.writeNumber(literal.text());
        } else {
            out.writeNull();
        }
    }

    /** Writes a text; in YAML one that holds what YAML takes for the end of a line is written so that it comes back. */
    public static void write(String text, JsonGenerator out) throws IOException {
        if (out instanceof YAMLGenerator yaml && FRAGILE.matcher(text).find()) {
            yaml.disable(YAMLGenerator.Feature.MINIMIZE_QUOTES);
            yaml.writeString(text);
            yaml.enable(YAMLGenerator.Feature.MINIMIZE_QUOTES);
        } else {
            out.writeString(text);
        }
    }

    private static JsonValue parse(JsonFactory factory, SourceText text, Findings findings) {
        try (JsonParser parser = factory.createParser(text.text())) {
            JsonText json = new JsonText(text, findings, parser);
            parser.nextToken();
            JsonValue value = json.value();
            if (value != null && parser.nextToken() != null) {
                json.wrong(json.here(), "something follows the value");
                return null;
            }
            return value;
        } catch (JsonProcessingException e) {
            findings.error(
                    "malformed-json",
                    MalformedText.place(text, e),
                    "the text is not well-formed: " + MalformedText.reason(e),
                    "mend it");
            return null;
        } catch (IOException e) {
            throw new IllegalStateException("text in memory can be read", e);
        }
    }

    private Place here() {
        return MalformedText.place(text, in.currentTokenLocation());
    }

    private void wrong(Place place, String message) {
        findings.error("malformed-json", place, message, "give one JSON value");
    }

    private JsonValue value() throws IOException {
        Place place = here();
        JsonToken token = in.currentToken();
        if (token == null) {
            wrong(place, "there is no value");
            return null;
        }
        switch (token) {
            case START_OBJECT -> {
                Map<String, JsonValue> members = new LinkedHashMap<>();
                while (in.nextToken() == JsonToken.FIELD_NAME) {
                    String name = in.currentName();
                    Place at = here();
                    in.nextToken();
                    if (members.put(name, value()) != null) {
                        wrong(at, "\"" + name + "\" is there twice");
                    }
                }
                return new JsonValue.Members(members, place);
            }
            case START_ARRAY -> {
                List<JsonValue> items = new ArrayList<>();
                while (in.nextToken() != JsonToken.END_ARRAY) {
                    items.add(value());
                }
                return new JsonValue.Items(items, place);
            }
            case VALUE_STRING -> {
                return new JsonValue.Text(in.getText(), place);
            }
            case VALUE_NULL -> {
                return new JsonValue.Nothing(place);
            }
            default -> {
                return new JsonValue.Literal(in.getText(), place);
            }
        }
    }
}
