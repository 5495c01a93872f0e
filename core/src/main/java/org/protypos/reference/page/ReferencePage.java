package org.protypos.reference.page;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.binding.Rule;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Setting;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.reference.Node;
import org.protypos.reference.Usages;
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
    private final Map<String, List<Rule>> rules = new HashMap<>();
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

    /** Marks the components that rules say something of, for those that the contract itself does not say. */
    public ReferencePage rules(Rules all) {
        for (Rule rule : all.all()) {
            if (!rule.isInContract()) {
                rule.matched().forEach(designator -> rules.computeIfAbsent(designator, any -> new ArrayList<>())
                        .add(rule));
            }
        }
        return this;
    }

    /** Adds what is to be said about the contract. */
    public ReferencePage findings(List<Finding> all) {
        findings = all;
        return this;
    }

    /**
     * The page as part of a site that has its style and its script.
     *
     * @param below where they are, without {@code .css} and {@code .js}
     * @param tried where operations are tried, by their designators behind {@code #of=}
     */
    public String served(String below, String tried) {
        return PageFrame.served(
                title,
                PageData.text((data, json) -> {
                    write(data, json);
                    json.writeStringField("tried", tried);
                }),
                below);
    }

    /** How it looks. */
    public static String style() {
        return PageFrame.style();
    }

    /** What draws it. */
    public static String script() {
        return PageFrame.script();
    }

    /** The page, complete in itself. */
    public String text() {
        return PageFrame.text(title, PageData.text(this::write));
    }

    private void write(PageData data, JsonGenerator json) throws IOException {
        json.writeArrayFieldStart("documents");
        PageData.Numbers documents = data.documents(contract, 0, "");
        json.writeEndArray();
        services(data, json);
        data.strings("languages", List.copyOf(languages.keySet()));
        components(data, json, documents);
        findings(data, json, documents);
    }

    private void services(PageData data, JsonGenerator json) throws IOException {
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
                data.strings("asks", PolicyAssertion.inWords(asked));
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void components(PageData data, JsonGenerator json, PageData.Numbers documents) throws IOException {
        Map<Component, Integer> numbers = new HashMap<>();
        reference.components().all().forEach(one -> numbers.put(one, numbers.size()));
        json.writeArrayFieldStart("components");
        for (Component component : reference.components().all()) {
            json.writeStartObject();
            data.component(component, reference, documents);
            code(json, component.designator());
            rules(data, json, component.designator());
            nodes(data, json, "own", reference.own(component));
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

    private void rules(PageData data, JsonGenerator json, String designator) throws IOException {
        List<Rule> some = rules.getOrDefault(designator, List.of());
        if (some.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart("rules");
        for (Rule rule : some) {
            json.writeStartObject();
            json.writeStringField("said", rule.said());
            data.optional("because", rule.because());
            json.writeStringField("where", rule.place().toString());
            Rule.Change change = rule.changes().stream()
                    .filter(one -> one.designator().equals(designator))
                    .findFirst()
                    .orElse(null);
            if (change != null) {
                json.writeStringField("was", change.before());
                json.writeStringField("is", change.after());
            }
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void nodes(PageData data, JsonGenerator json, String name, List<Node> nodes) throws IOException {
        if (nodes.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart(name);
        for (Node node : nodes) {
            json.writeStartObject();
            data.node(node);
            rules(data, json, node.designator());
            nodes(data, json, "c", node.children());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void findings(PageData data, JsonGenerator json, PageData.Numbers documents) throws IOException {
        json.writeArrayFieldStart("findings");
        for (Finding finding : findings) {
            json.writeStartObject();
            json.writeStringField("severity", finding.severity().name().toLowerCase(Locale.ROOT));
            json.writeStringField("message", finding.message());
            json.writeStringField("cure", Setting.in(finding.cure(), word -> "--" + word));
            data.place("at", finding.place(), documents);
            json.writeEndObject();
        }
        json.writeEndArray();
    }
}
