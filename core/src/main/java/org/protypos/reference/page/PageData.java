package org.protypos.reference.page;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.reference.Node;
import org.protypos.source.Document;

/** What the scripts of a page draw, written as JSON. */
final class PageData {
    private final JsonGenerator json;

    /** Writes one object. */
    interface Content {
        void write(PageData data, JsonGenerator json) throws IOException;
    }

    /** The documents of one contract, by the numbers that they have in the page. */
    static final class Numbers {
        private final Map<String, Integer> numbers = new HashMap<>();
    }

    private PageData(JsonGenerator json) {
        this.json = json;
    }

    /** All of it; no sign in it can end the element that it is in. */
    static String text(Content content) {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = new JsonFactory().createGenerator(text)) {
            json.writeStartObject();
            content.write(new PageData(json), json);
            json.writeEndObject();
        } catch (IOException e) {
            throw new UncheckedIOException("a text in memory takes everything", e);
        }
        return text.toString().replace("<", "\\u003c");
    }

    void strings(String name, List<String> values) throws IOException {
        if (values.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart(name);
        for (String value : values) {
            json.writeString(value);
        }
        json.writeEndArray();
    }

    void optional(String name, String value) throws IOException {
        if (value != null && !value.isEmpty()) {
            json.writeStringField(name, value);
        }
    }

    /**
     * Writes the documents of a contract behind those that are there.
     *
     * @param from how many are there
     * @param side which of two contracts it is, or empty
     */
    Numbers documents(Contract contract, int from, String side) throws IOException {
        Numbers numbers = new Numbers();
        for (Document document : contract.documents().all()) {
            numbers.numbers.put(document.text().name(), from + numbers.numbers.size());
            json.writeStartObject();
            json.writeStringField("name", document.name());
            optional("side", side);
            json.writeStringField("text", document.text().text());
            json.writeEndObject();
        }
        return numbers;
    }

    void place(String name, Place place, Numbers documents) throws IOException {
        Integer document = place == null ? null : documents.numbers.get(place.document());
        if (document != null) {
            json.writeArrayFieldStart(name);
            json.writeNumber(document);
            json.writeNumber(place.line());
            json.writeEndArray();
        }
    }

    /** What a component is, without its structure, into the object that is open. */
    void component(Component component, ContractReference reference, Numbers documents) throws IOException {
        json.writeStringField("kind", component.kind().words());
        json.writeStringField("name", component.called());
        optional("namespace", component.name().getNamespaceURI());
        optional("within", component.within());
        json.writeStringField("id", component.designator());
        optional("about", component.documentation().strip());
        place("at", component.place(), documents);
        strings("traits", reference.traits(component));
        optional("base", reference.extended(component));
    }

    /** What a node is, without what is in it, into the object that is open. */
    void node(Node node) throws IOException {
        json.writeStringField("k", node.kind().name());
        json.writeStringField("n", node.label());
        optional("t", node.type());
        optional("o", node.occurs());
        optional("d", String.join("; ", node.demands()));
        optional("a", node.documentation());
        optional("r", node.refers());
    }
}
