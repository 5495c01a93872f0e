package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.SchemaText;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchPort;
import org.protypos.draft.Sketch.Style;
import org.protypos.draft.WsdlParts.DraftMessage;
import org.protypos.draft.WsdlParts.DraftOperation;
import org.protypos.draft.WsdlParts.Part;

/** Drafts a contract from a sketch: WSDL 1.1 and schemas apart, each in a file of its own. */
public final class ContractDraft {
    private final Sketch sketch;
    private final boolean bound;
    private final Findings findings;
    private final SchemaSketch schemas;
    private final DraftMessages messages = new DraftMessages();

    private ContractDraft(Sketch sketch, boolean bound, Findings findings) {
        this.sketch = sketch;
        this.bound = bound && !sketch.ports().isEmpty();
        this.findings = findings;
        this.schemas = new SchemaSketch(sketch, findings);
    }

    /**
     * Drafts a contract.
     *
     * @param bound whether it has bindings and ports, where the sketch says any
     * @param findings is told why it cannot be
     * @return the texts of its documents by file names, the WSDL first; empty when it cannot be
     */
    public static Map<String, String> of(Sketch sketch, boolean bound, Findings findings) {
        return new ContractDraft(sketch, bound, findings).texts();
    }

    private Map<String, String> texts() {
        List<DraftSchema> drafted = schemas.schemas();
        Map<String, String> texts = new LinkedHashMap<>();
        if (!sketch.operations().isEmpty()) {
            String text = wsdl(drafted);
            String file = drafted.isEmpty() ? "" : drafted.get(0).file();
            texts.put(file.replaceFirst("\\.xsd$", ".wsdl"), text);
        }
        texts.putAll(SchemaText.of(filled(drafted)));
        return findings.hasErrors() ? Map.of() : texts;
    }

    private void wrong(Place place, String message, String cure) {
        findings.error("sketch", place, message, cure);
    }

    private String wsdl(List<DraftSchema> drafted) {
        List<SketchPort> ports = bound ? sketch.ports() : List.of();
        boolean soap = ports.isEmpty()
                || ports.stream().anyMatch(port -> port.protocol().isSoap());
        boolean http = ports.stream().anyMatch(port -> !port.protocol().isSoap());
        Map<String, String> prefixes = new LinkedHashMap<>();
        sketch.sections()
                .forEach(section ->
                        prefixes.put(section.namespace(), section.prefix().isEmpty() ? "tns" : section.prefix()));
        List<DraftOperation> operations =
                soap ? sketch.operations().stream().map(this::operation).toList() : List.of();
        List<DraftOperation> overHttp =
                http ? sketch.operations().stream().map(this::overHttp).toList() : List.of();
        return WsdlText.of(new WsdlText.DraftContract(
                sketch.name(),
                sketch.portType(),
                sketch.service(),
                sketch.documentation(),
                sketch.style(),
                sketch.namespace(),
                prefixes,
                filled(drafted),
                messages.all(),
                operations,
                overHttp,
                ports));
    }

    /** The prefix that the sketch has for a section, unless the WSDL needs it for something else. */
    private static String prefix(Sketch.Section section) {
        String own = section.prefix();
        return own.isEmpty() ? "tns" : WsdlText.PREFIXES.contains(own) || own.matches("(?i)xml.*") ? "_" + own : own;
    }

    private static List<DraftSchema> filled(List<DraftSchema> drafted) {
        return drafted.stream()
                .filter(schema ->
                        !schema.elements().isEmpty() || !schema.types().isEmpty())
                .toList();
    }

    private DraftOperation operation(SketchOperation operation) {
        boolean rpc = sketch.style() == Style.RPC;
        DraftMessage input = messages.of(
                operation.name() + "Input",
                rpc
                        ? parts(operation.in(), operation.place())
                        : List.of(element("parameters", operation.name(), operation.in(), operation)));
        DraftMessage output = operation.out() == null
                ? null
                : messages.of(
                        operation.name() + "Output",
                        rpc
                                ? parts(operation.out(), operation.place())
                                : List.of(
                                        element("result", operation.name() + "Response", operation.out(), operation)));
        if (rpc && output != null) {
            input.parts().stream()
                    .filter(part -> output.parts().stream()
                            .anyMatch(other -> other.name().equals(part.name())))
                    .forEach(part -> findings.warning(
                            "sketch",
                            operation.place(),
                            part.name() + " goes in and comes out of " + operation.name()
                                    + ": many will take the two for one",
                            "call one of them otherwise"));
        }
        if (operation.out() == null && !operation.faults().isEmpty()) {
            wrong(
                    operation.place(),
                    operation.name() + " gives no answer, so that it can have no fault",
                    "add \"out: {}\" for an answer without content");
        }
        Map<String, DraftMessage> faults = new LinkedHashMap<>();
        operation
                .faults()
                .forEach((name, element) -> faults.put(
                        name,
                        messages.of(
                                name, List.of(new Part("fault", schemas.element(element, operation.place()), null)))));
        return new DraftOperation(
                operation,
                input,
                output,
                faults,
                operation.headers().stream()
                        .map(name -> header(name, operation))
                        .toList(),
                operation.answerHeaders().stream()
                        .map(name -> header(name, operation))
                        .toList());
    }

    private DraftMessage header(String name, SketchOperation operation) {
        return messages.header(schemas.element(name, operation.place()));
    }

    private Part element(String part, String wrapper, Sketch.Content content, SketchOperation operation) {
        return new Part(
                part,
                content.element() == null
                        ? new QName(sketch.namespace(), wrapper)
                        : schemas.element(content.element(), operation.place()),
                null);
    }

    /** Members as parts: each of a type that has a name, and there once. */
    private List<Part> parts(Sketch.Content content, Place place) {
        if (content.element() != null) {
            wrong(
                    place,
                    "messages of style rpc have parts of their own",
                    "write {name: type, ...} in place of " + content.element());
            return List.of();
        }
        List<Part> parts = new ArrayList<>();
        for (SketchMember member : content.members()) {
            if (member instanceof SketchMember.Named named && !named.isAttribute() && isPlain(named.term())) {
                parts.add(
                        new Part(named.name(), null, schemas.named(named.term().type(), named.place())));
            } else {
                wrong(
                        member.place() == null ? place : member.place(),
                        "a part is of a type that has a name, and there once",
                        "give the type a name below \"types:\", with what is optional or repeated inside");
            }
        }
        return parts;
    }

    private static boolean isPlain(TypeTerm term) {
        return TypeTerm.of(term.type()).equals(term);
    }

    private DraftOperation overHttp(SketchOperation operation) {
        if (sketch.style() == Style.RPC) {
            wrong(
                    operation.place(),
                    "plain HTTP answers with an element, which messages of style rpc have not",
                    "take style: document, or SOAP ports alone");
        }
        DraftMessage input = messages.of(operation.name() + "HttpInput", parts(operation.in(), operation.place()));
        for (SketchMember member : operation.in().members()) {
            if (member instanceof SketchMember.Named named
                    && !schemas.isOfValues(named.term().type())) {
                wrong(
                        named.place(),
                        named.name() + " is no plain value, and plain HTTP carries no other",
                        "take SOAP ports alone, or give its members one by one");
            }
        }
        DraftMessage output = operation.out() == null
                ? null
                : messages.of(
                        operation.name() + "HttpOutput",
                        List.of(element("result", operation.name() + "Response", operation.out(), operation)));
        return new DraftOperation(operation, input, output, Map.of(), List.of(), List.of());
    }
}
