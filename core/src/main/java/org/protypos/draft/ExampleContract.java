package org.protypos.draft;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.SchemaText;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchPort;
import org.protypos.draft.Sketch.SketchProtocol;
import org.protypos.draft.WsdlParts.DraftMessage;
import org.protypos.draft.WsdlParts.DraftOperation;
import org.protypos.draft.WsdlParts.Part;
import org.protypos.infer.Decisions;
import org.protypos.infer.Inference;
import org.protypos.infer.Inferred;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;

/**
 * Drafts a contract from examples of its messages: {@code readTide.request.xml} with {@code readTide.response.xml} or
 * {@code readTide.fault.xml}, bare or in envelopes; {@code readTide.low.request.xml} and so on are more of them.
 */
public final class ExampleContract {
    private static final Pattern FILE =
            Pattern.compile("([^.]+)(?:\\.([^.]+))?\\.(request|response|fault)\\.xml", Pattern.CASE_INSENSITIVE);

    private final Findings findings;
    private final Map<String, Operation> operations = new LinkedHashMap<>();
    private final DraftMessages messages = new DraftMessages();
    private boolean is12;
    private boolean isEncoded;

    private ExampleContract(Findings findings) {
        this.findings = findings;
    }

    /**
     * A file with an example.
     *
     * @param name its plain name
     */
    public record Example(String name, byte[] bytes) {}

    /**
     * An example of a call.
     *
     * @param operation the name of the operation
     * @param request the envelope of the request
     * @param answer that of the answer, or of the fault, or null when there is none
     */
    public record Call(String operation, MessageElement request, MessageElement answer) {}

    /**
     * What was drafted.
     *
     * @param texts the texts of its documents by file names, the WSDL first; empty when it cannot be
     * @param inferred what was inferred of its types
     * @param calls the examples, for a stand-in to answer with
     */
    public record Drafted(Map<String, String> texts, Inferred inferred, List<Call> calls) {}

    /** What examples show of an operation. */
    private static final class Operation {
        final Set<QName> requests = new LinkedHashSet<>();
        final Set<QName> responses = new LinkedHashSet<>();
        final Set<QName> faults = new LinkedHashSet<>();
        final Set<QName> headers = new LinkedHashSet<>();
        final Set<QName> answerHeaders = new LinkedHashSet<>();
        final Map<String, MessageElement> asked = new LinkedHashMap<>();
        final Map<String, MessageElement> answered = new LinkedHashMap<>();
        boolean isAnswered;
    }

    /**
     * Drafts a contract.
     *
     * @param name what it is called
     * @param address where it will be offered
     */
    public static Drafted of(
            String name, String address, List<Example> examples, Decisions decisions, Findings findings) {
        return new ExampleContract(findings).drafted(name, address, examples, decisions);
    }

    private Drafted drafted(String name, String address, List<Example> examples, Decisions decisions) {
        Inference inference = new Inference(decisions, findings);
        for (Example example : examples) {
            MessageElement root = MessageReader.read(example.name(), example.bytes(), findings);
            if (root != null) {
                inference.read(example.name(), new ByteArrayInputStream(example.bytes()));
                take(example, root);
            }
        }
        judge();
        Inferred inferred = inference.inferred();
        if (findings.hasErrors() || operations.isEmpty()) {
            return new Drafted(Map.of(), inferred, List.of());
        }
        List<Call> calls = new ArrayList<>();
        operations.forEach((operation, seen) -> seen.asked.forEach(
                (label, request) -> calls.add(new Call(operation, request, seen.answered.get(label)))));
        return new Drafted(texts(name, address, inferred), inferred, calls);
    }

    private void wrong(String message, String cure) {
        findings.error("examples", null, message, cure);
    }

    private void take(Example example, MessageElement root) {
        Matcher file = FILE.matcher(example.name());
        if (!file.matches() || !file.group(1).matches(XmlText.NAME)) {
            wrong(
                    example.name() + " does not say of what it is an example",
                    "call it readTide.request.xml, readTide.response.xml or readTide.fault.xml");
            return;
        }
        Operation operation = operations.computeIfAbsent(file.group(1), none -> new Operation());
        String label = file.group(2) == null ? "" : file.group(2);
        String kind = file.group(3).toLowerCase(Locale.ROOT);
        String namespace = root.name().getNamespaceURI();
        boolean enveloped = EnvelopeParts.isOfSoap(namespace);
        is12 |= namespace.equals(EnvelopeParts.SOAP_1_2);
        List<MessageElement> body = enveloped
                ? kind.equals("fault") ? EnvelopeParts.detail(root) : EnvelopeParts.inside(root, "Body")
                : List.of(root);
        if (body.size() != 1 && !(kind.equals("fault") && body.isEmpty())) {
            wrong(
                    example.name() + " holds " + body.size() + " elements where a message has one",
                    "leave it out, or write the contract by hand: it is not of the usual form");
            return;
        }
        Set<QName> names =
                switch (kind) {
                    case "request" -> operation.requests;
                    case "response" -> operation.responses;
                    default -> operation.faults;
                };
        body.forEach(element -> names.add(element.name()));
        boolean encoded = body.stream()
                .anyMatch(element -> Xml.SOAP_ENCODING.equals(element.attribute(namespace, "encodingStyle")));
        if (encoded && !isEncoded) {
            isEncoded = true;
            findings.warning(
                    "examples-encoded",
                    body.get(0).place(),
                    "the example is in the SOAP encoding, and the contract says what it would be without",
                    "draft contracts for messages as they are to be; the encoding is of old services alone");
        }
        (kind.equals("request") ? operation.asked : operation.answered)
                .put(label, enveloped ? root : enveloped(root, kind.equals("fault")));
        operation.isAnswered |= !kind.equals("request");
        if (enveloped && !kind.equals("fault")) {
            EnvelopeParts.inside(root, "Header")
                    .forEach(block ->
                            (kind.equals("request") ? operation.headers : operation.answerHeaders).add(block.name()));
        }
    }

    /** An envelope around what stands alone in its file. */
    private static MessageElement enveloped(MessageElement root, boolean fault) {
        MessageElement envelope = inside(null, new QName(EnvelopeParts.SOAP_1_1, "Envelope"), root.place());
        MessageElement body = inside(envelope, new QName(EnvelopeParts.SOAP_1_1, "Body"), root.place());
        if (fault) {
            MessageElement around = inside(body, new QName(EnvelopeParts.SOAP_1_1, "Fault"), root.place());
            inside(around, new QName("faultcode"), root.place()).setText("Server");
            inside(around, new QName("faultstring"), root.place())
                    .setText(root.name().getLocalPart());
            body = inside(around, new QName("detail"), root.place());
        }
        body.add(root);
        return envelope;
    }

    private static MessageElement inside(MessageElement around, QName name, Place place) {
        MessageElement made = new MessageElement(name, place);
        if (around != null) {
            around.add(made);
        }
        return made;
    }

    private void judge() {
        Map<QName, String> requests = new LinkedHashMap<>();
        operations.forEach((name, operation) -> {
            if (operation.requests.isEmpty()) {
                wrong("there is no request of " + name, "add " + name + ".request.xml");
            }
            one(name, "requests", operation.requests);
            one(name, "responses", operation.responses);
            operation.requests.forEach(element -> {
                String other = requests.putIfAbsent(element, name);
                if (other != null) {
                    wrong(
                            name + " and " + other + " both are asked with " + element.getLocalPart()
                                    + ": nobody could tell them apart",
                            "make them one, with two examples: " + other + ".other.request.xml");
                }
            });
            operation.answered.keySet().forEach(label -> {
                if (!operation.asked.containsKey(label) && !operation.requests.isEmpty()) {
                    wrong(
                            "there is an answer " + name + (label.isEmpty() ? "" : "." + label)
                                    + ", and no request that it is for",
                            "call the two alike");
                }
            });
        });
    }

    private void one(String name, String what, Set<QName> elements) {
        if (elements.size() > 1) {
            wrong(
                    "the " + what + " of " + name + " begin with different elements: "
                            + String.join(
                                    ", ",
                                    elements.stream().map(QName::getLocalPart).toList()),
                    "give each an operation of its own");
        }
    }

    private Map<String, String> texts(String name, String address, Inferred inferred) {
        String namespace =
                operations.values().iterator().next().requests.iterator().next().getNamespaceURI();
        Map<String, String> prefixes = new LinkedHashMap<>();
        String target = namespace.isEmpty() ? "urn:" + name : namespace;
        prefixes.put(target, "tns");
        inferred.schemas().stream()
                .filter(schema -> !schema.namespace().isEmpty())
                .forEach(schema -> prefixes.putIfAbsent(schema.namespace(), prefix(schema)));
        List<DraftOperation> drafted = new ArrayList<>();
        operations.forEach((operation, seen) -> drafted.add(operation(operation, seen)));
        String file = inferred.schemas().stream()
                .filter(schema -> schema.namespace().equals(namespace))
                .map(schema -> schema.file().replaceFirst("\\.xsd$", ""))
                .findFirst()
                .orElse("contract");
        Map<String, String> texts = new LinkedHashMap<>();
        texts.put(
                file + ".wsdl",
                WsdlText.of(new WsdlText.DraftContract(
                        name,
                        name,
                        name + "Service",
                        null,
                        Sketch.Style.DOCUMENT,
                        target,
                        prefixes,
                        inferred.schemas(),
                        messages.all(),
                        drafted,
                        List.of(),
                        List.of(new SketchPort(
                                name + "Port", is12 ? SketchProtocol.SOAP12 : SketchProtocol.SOAP11, address, null)))));
        texts.putAll(SchemaText.of(inferred.schemas()));
        return texts;
    }

    private static String prefix(DraftSchema schema) {
        String wanted = schema.file().replaceFirst("\\.xsd$", "");
        return wanted.matches("(?!(?i)xml)[A-Za-z][\\w-]*") && !WsdlText.PREFIXES.contains(wanted)
                ? wanted
                : "x" + wanted.replaceAll("[^\\w-]", "");
    }

    private DraftOperation operation(String name, Operation seen) {
        DraftMessage input =
                message(name + "Input", "parameters", seen.requests.iterator().next());
        DraftMessage output = !seen.isAnswered
                ? null
                : seen.responses.isEmpty()
                        ? message(name + "Output", "result", null)
                        : message(
                                name + "Output",
                                "result",
                                seen.responses.iterator().next());
        Map<String, DraftMessage> faults = new LinkedHashMap<>();
        seen.faults.forEach(element -> {
            String fault = SketchReader.capital(element.getLocalPart());
            faults.put(fault, message(fault, "fault", element));
        });
        SketchOperation said = new SketchOperation(
                name, new Sketch.Content(null, List.of()), null, Map.of(), List.of(), List.of(), null, null, null);
        return new DraftOperation(
                said,
                input,
                output,
                faults,
                seen.headers.stream().map(messages::header).toList(),
                seen.answerHeaders.stream().map(messages::header).toList());
    }

    /** A message that is one element, or without any. */
    private DraftMessage message(String name, String part, QName element) {
        return messages.of(name, element == null ? List.of() : List.of(new Part(part, element, null)));
    }
}
