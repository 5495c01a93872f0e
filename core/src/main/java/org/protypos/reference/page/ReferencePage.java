package org.protypos.reference.page;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Place;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.reference.Node;
import org.protypos.reference.Usages;
import org.protypos.source.Document;
import org.protypos.source.XmlText;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Service;

/**
 * Writes one page about a contract that is complete in itself: what it offers, each component with its structure, who uses it, the
 * documents, and what is to be said about them. Nothing in it asks for anything else, and no text of the contract becomes markup.
 */
public final class ReferencePage {
    private final Contract contract;
    private final ContractReference reference;
    private final String title;
    private final Map<String, Map<String, String>> languages = new LinkedHashMap<>();
    private final Map<String, Map<String, String>> examples = new LinkedHashMap<>();
    private final Map<String, Integer> documents = new HashMap<>();
    private List<Finding> findings = List.of();

    /**
     * Begins.
     *
     * @param contract a sound contract
     * @param title what the page is called
     */
    public ReferencePage(Contract contract, ContractReference reference, String title) {
        this.contract = contract;
        this.reference = reference;
        this.title = title;
    }

    /** Adds the names and signatures that components have in a language, by designators. */
    public ReferencePage language(String name, Map<String, String> names) {
        languages.put(name, names);
        return this;
    }

    /** Adds example messages of a component, by their titles. */
    public ReferencePage examples(String designator, Map<String, String> messages) {
        examples.put(designator, messages);
        return this;
    }

    /** Adds what is to be said about the contract. */
    public ReferencePage findings(List<Finding> all) {
        findings = all;
        return this;
    }

    /** The page. */
    public String text() {
        String style = resource("reference.css");
        String script = resource("reference.js");
        return """
                <!DOCTYPE html>
                <html lang="en">
                <head>
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width, initial-scale=1">
                <meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'sha256-%s'; script-src 'sha256-%s'">
                <title>%s</title>
                <style>%s</style>
                </head>
                <body>
                <a class="skip" href="#content">To the content</a>
                <nav aria-label="Components">
                <h1><a href="#">%s</a></h1>
                <label>Search <input id="search" type="search" autocomplete="off" placeholder="/" aria-controls="list"></label>
                <p id="found" class="quiet" role="status"></p>
                <ul id="list"></ul>
                </nav>
                <main id="content" tabindex="-1"></main>
                <noscript><p>This page is drawn by a script that is in it. Where scripts may not run, protypos show --markdown writes the same as
                text.</p></noscript>
                <script type="application/json" id="data">%s</script>
                <script>%s</script>
                </body>
                </html>
                """.formatted(
                        hash(style),
                        hash(script),
                        XmlText.escaped(title, true),
                        style,
                        XmlText.escaped(title, true),
                        data(),
                        script);
    }

    private static String resource(String name) {
        try (InputStream in = ReferencePage.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("the page's parts are part of the program", e);
        }
    }

    private static String hash(String text) {
        try {
            return Base64.getEncoder()
                    .encodeToString(MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every platform has SHA-256", e);
        }
    }

    /** What the script draws; no sign in it can end the element that it is in. */
    private String data() {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = new JsonFactory().createGenerator(text)) {
            json.writeStartObject();
            documents(json);
            services(json);
            strings(json, "languages", List.copyOf(languages.keySet()));
            components(json);
            findings(json);
            json.writeEndObject();
        } catch (IOException e) {
            throw new UncheckedIOException("a text in memory takes everything", e);
        }
        return text.toString().replace("<", "\\u003c");
    }

    private static void strings(JsonGenerator json, String name, List<String> values) throws IOException {
        json.writeArrayFieldStart(name);
        for (String value : values) {
            json.writeString(value);
        }
        json.writeEndArray();
    }

    private void documents(JsonGenerator json) throws IOException {
        json.writeArrayFieldStart("documents");
        for (Document document : contract.documents().all()) {
            documents.put(document.text().name(), documents.size());
            json.writeStartObject();
            json.writeStringField("name", document.name());
            json.writeStringField("text", document.text().text());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void services(JsonGenerator json) throws IOException {
        json.writeArrayFieldStart("services");
        for (Service service : contract.wsdl().services().values()) {
            json.writeStartObject();
            json.writeStringField("name", service.name().getLocalPart());
            json.writeStringField("about", service.documentation());
            json.writeArrayFieldStart("ports");
            for (Service.Port port : service.ports()) {
                Binding binding = contract.wsdl().bindings().get(port.binding());
                json.writeStartObject();
                json.writeStringField("name", port.name());
                json.writeStringField("speaks", port.protocol().title());
                json.writeStringField("address", port.address());
                List<PolicyAssertion> asked =
                        PolicyAssertion.joined(port.policy(), binding == null ? List.of() : binding.policy());
                strings(json, "asks", PolicyAssertion.inWords(asked));
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void components(JsonGenerator json) throws IOException {
        Map<Component, Integer> numbers = new HashMap<>();
        reference.components().all().forEach(one -> numbers.put(one, numbers.size()));
        json.writeArrayFieldStart("components");
        for (Component component : reference.components().all()) {
            json.writeStartObject();
            json.writeStringField("kind", component.kind().words());
            json.writeStringField("name", component.name().getLocalPart());
            optional(json, "namespace", component.name().getNamespaceURI());
            optional(json, "within", component.within());
            json.writeStringField("id", component.designator());
            optional(json, "about", component.documentation().strip());
            place(json, component.place());
            List<String> traits = reference.traits(component);
            if (!traits.isEmpty()) {
                strings(json, "traits", traits);
            }
            optional(json, "base", reference.extended(component));
            code(json, component.designator());
            nodes(json, "own", reference.own(component));
            List<Usages.Use> uses = reference.usages().of(component);
            if (!uses.isEmpty()) {
                json.writeArrayFieldStart("uses");
                for (Usages.Use use : uses) {
                    json.writeStartArray();
                    json.writeNumber(numbers.get(use.user()));
                    json.writeString(use.as());
                    json.writeEndArray();
                }
                json.writeEndArray();
            }
            if (examples.containsKey(component.designator())) {
                json.writeObjectFieldStart("examples");
                for (Map.Entry<String, String> one :
                        examples.get(component.designator()).entrySet()) {
                    json.writeStringField(one.getKey(), one.getValue());
                }
                json.writeEndObject();
            }
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void code(JsonGenerator json, String designator) throws IOException {
        if (languages.values().stream().noneMatch(names -> names.containsKey(designator))) {
            return;
        }
        json.writeArrayFieldStart("code");
        for (Map<String, String> names : languages.values()) {
            json.writeString(names.getOrDefault(designator, ""));
        }
        json.writeEndArray();
    }

    private static void optional(JsonGenerator json, String name, String value) throws IOException {
        if (value != null && !value.isEmpty()) {
            json.writeStringField(name, value);
        }
    }

    private void place(JsonGenerator json, Place place) throws IOException {
        Integer document = place == null ? null : documents.get(place.document());
        if (document != null) {
            json.writeArrayFieldStart("at");
            json.writeNumber(document);
            json.writeNumber(place.line());
            json.writeEndArray();
        }
    }

    private void nodes(JsonGenerator json, String name, List<Node> nodes) throws IOException {
        if (nodes.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart(name);
        for (Node node : nodes) {
            json.writeStartObject();
            json.writeStringField("k", node.kind().name());
            json.writeStringField("n", node.label());
            optional(json, "t", node.type());
            optional(json, "o", node.occurs());
            optional(json, "d", String.join("; ", node.demands()));
            optional(json, "a", node.documentation());
            optional(json, "r", node.refers());
            nodes(json, "c", node.children());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void findings(JsonGenerator json) throws IOException {
        json.writeArrayFieldStart("findings");
        for (Finding finding : findings) {
            json.writeStartObject();
            json.writeStringField("severity", finding.severity().name().toLowerCase(Locale.ROOT));
            json.writeStringField("message", finding.message());
            json.writeStringField("cure", finding.cure());
            place(json, finding.place());
            json.writeEndObject();
        }
        json.writeEndArray();
    }
}
