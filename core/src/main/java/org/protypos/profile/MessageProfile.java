package org.protypos.profile;

import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.capture.HttpCapture;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Xml;
import org.protypos.wire.Wire;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireOperation;
import org.protypos.wsdl.Protocol;

/**
 * Judges whether an envelope of SOAP 1.1 keeps the Basic Profiles 1.1 and 1.2, and where HTTP brought it its fields too (Basic
 * Profile 1.1, sections 3.1 to 3.4 and 4.7).
 */
public final class MessageProfile {
    private static final String SOAP = EnvelopeParts.SOAP_1_1;
    private static final Set<String> PARTS_OF_FAULT = Set.of("faultcode", "faultstring", "faultactor", "detail");
    private static final Set<String> CODES = Set.of("VersionMismatch", "MustUnderstand", "Client", "Server");
    private static final QName MUST_UNDERSTAND = new QName(SOAP, "mustUnderstand");
    private static final QName ENCODING = new QName(SOAP, "encodingStyle");

    private static final Set<String> UNICODE = Set.of("utf-8", "utf-16", "utf-16be", "utf-16le");

    private final Collection<WireBinding> bindings;

    private Findings findings = new Findings();

    /** The requirements that an envelope can break, in our wording. */
    private enum Requirement implements Rule {
        R1000("a fault has other parts than faultcode, faultstring, faultactor and detail", "put more into the detail"),
        R1001("a part of a fault is in a namespace", "write it without one"),
        R1004(
                false,
                "the fault code is none of SOAP and has no namespace",
                "use Client or Server, or a name of your own"),
        R1005("an element of SOAP says an encoding style", "take it away"),
        R1006("an element in the body says an encoding style", "take it away"),
        R1007("an element in what the body of an RPC carries says an encoding style", "take it away"),
        R1009("there is a processing instruction", "take it away"),
        R1011("an element stands behind the body", "put it into the header or the body"),
        R1012("the envelope is in another encoding than UTF-8 and UTF-16", "send it in UTF-8"),
        R1013("mustUnderstand is neither 0 nor 1", "write 0 or 1"),
        R1014("an element in the body is in no namespace", "give it one"),
        R1018("the content type does not say the encoding", "write charset=utf-8 into it"),
        R1031(false, "the fault code has a dot", "put what is special into the detail"),
        R1032("Envelope, Header or Body has an attribute of SOAP", "take it away"),
        R1033(false, "the prefix xml is declared", "take that away"),
        R1108("the request uses the extension framework of HTTP", "send it as a plain POST"),
        R1109("the value of SOAPAction is not in quotation marks", "put it into quotation marks"),
        R1111(false, "an answer that is no fault has another status than 200", "send it with 200"),
        R1112(false, "an answer without an envelope has another status than 200 or 202", "send it with 202"),
        R1124("an answer that is no fault has a status that means something went wrong", "send it with 200"),
        R1126("a fault has another status than 500", "send it with 500"),
        R1130("a request is sent elsewhere with another status than 307", "use 307"),
        R1132("the method is not POST", "use POST"),
        R1140(false, "it is not HTTP/1.1", "use HTTP/1.1"),
        R1141("it is neither HTTP/1.1 nor HTTP/1.0", "use HTTP/1.1"),
        R2113("soapenc:arrayType is there", "write an element that repeats"),
        R2744("SOAPAction is not that of the binding", "send the value of soapAction, in quotation marks"),
        R2745("SOAPAction is not empty, and the binding has none", "send two quotation marks"),
        R9981("there is more than one element in the body", "put one element around them");

        private final Wording wording;

        Requirement(String wrong, String cure) {
            this(true, wrong, cure);
        }

        Requirement(boolean must, String wrong, String cure) {
            this.wording = new Wording(must, wrong, cure);
        }

        @Override
        public Wording wording() {
            return wording;
        }
    }

    /**
     * Prepares for messages.
     *
     * @param contract the contract that they are exchanged under
     */
    public MessageProfile(Contract contract) {
        this.bindings = Wire.of(contract).bindings();
    }

    /** Every place where an envelope does not keep the profiles; none for what is no envelope of SOAP 1.1. */
    public List<Finding> of(MessageElement root) {
        findings = new Findings();
        if (isEnvelope(root)) {
            envelope(root);
            SourceText text = root.place().source();
            MarkupScan.instructions(text).forEach((place, target) -> tell(Requirement.R1009, place, target));
            MarkupScan.declaringXml(text).forEach(place -> tell(Requirement.R1033, place, null));
        }
        return findings.sorted();
    }

    /**
     * Every place where an HTTP message does not keep the profiles.
     *
     * @param root what it carries; null when it carries no XML
     */
    public List<Finding> of(HttpCapture message, MessageElement root) {
        findings = new Findings();
        boolean carries = root != null && isEnvelope(root);
        if (carries || message.isEmpty()) {
            if (carries) {
                of(root);
                encoding(message);
            }
            version(message);
            if (message.isRequest()) {
                request(message, carries ? root : null);
            } else {
                answer(message, carries ? root : null);
            }
        }
        return findings.sorted();
    }

    private static boolean isEnvelope(MessageElement root) {
        return root.name().equals(new QName(SOAP, "Envelope"));
    }

    private void version(HttpCapture message) {
        if (message.version().equals("HTTP/1.0")) {
            tell(Requirement.R1140, message.place(""), message.version());
        } else if (!message.version().equals("HTTP/1.1")) {
            tell(Requirement.R1141, message.place(""), message.version());
        }
    }

    private void encoding(HttpCapture message) {
        String charset = message.contentType().charset();
        if (message.contentType().isMultipart()) {
            return;
        }
        if (charset == null) {
            tell(
                    Requirement.R1018,
                    message.place("content-type"),
                    message.contentType().name());
        } else if (!UNICODE.contains(charset.toLowerCase(Locale.ROOT))) {
            tell(Requirement.R1012, message.place("content-type"), charset);
        }
    }

    private void request(HttpCapture message, MessageElement root) {
        if (message.method().startsWith("M-")) {
            tell(Requirement.R1108, message.place(""), message.method());
        } else if (!message.method().equals("POST")) {
            tell(Requirement.R1132, message.place(""), message.method());
        }
        String sent = message.field("soapaction");
        boolean quoted = sent != null && sent.matches("\"[^\"]*\"");
        if (sent != null && !quoted) {
            tell(Requirement.R1109, message.place("soapaction"), sent);
        }
        WireOperation operation = root == null ? null : operation(root);
        if (operation == null || sent != null && !quoted) {
            return;
        }
        String wanted = operation.bound().soapAction();
        if (!("\"" + wanted + "\"").equals(sent)) {
            tell(
                    wanted.isEmpty() ? Requirement.R2745 : Requirement.R2744,
                    message.place("soapaction"),
                    (sent == null ? "it is not there" : sent) + (wanted.isEmpty() ? "" : ", not \"" + wanted + "\""));
        }
    }

    private void answer(HttpCapture message, MessageElement root) {
        int status = message.status();
        Place place = message.place("");
        boolean fault = root != null
                && EnvelopeParts.inside(root, "Body").stream()
                        .anyMatch(child -> child.name().equals(new QName(SOAP, "Fault")));
        if (status / 100 == 3 && status != 304 && status != 307) {
            tell(Requirement.R1130, place, String.valueOf(status));
        } else if (fault && status != 500) {
            tell(Requirement.R1126, place, String.valueOf(status));
        } else if (root != null && !fault && status / 100 != 2) {
            tell(Requirement.R1124, place, String.valueOf(status));
        } else if (root != null && !fault && status != 200) {
            tell(Requirement.R1111, place, String.valueOf(status));
        } else if (root == null && status / 100 == 2 && status != 200 && status != 202) {
            tell(Requirement.R1112, place, String.valueOf(status));
        }
    }

    /** The operation whose request an envelope is, or null when a binding of SOAP 1.1 has none. */
    private WireOperation operation(MessageElement root) {
        QName first = EnvelopeParts.inside(root, "Body").stream()
                .map(MessageElement::name)
                .findFirst()
                .orElse(new QName(""));
        return operations()
                .filter(operation -> operation.request().beginnings().contains(first))
                .findFirst()
                .orElse(null);
    }

    private Stream<WireOperation> operations() {
        return bindings.stream()
                .filter(binding -> binding.binding().protocol() == Protocol.SOAP_1_1)
                .flatMap(binding -> binding.operations().stream());
    }

    /** Whether an element in the body is what a binding puts around the parts of a call or its answer. */
    private boolean isOfRpc(QName name) {
        return operations()
                .filter(operation ->
                        operation.bound().rpc() && !operation.request().isEncoded())
                .anyMatch(operation -> operation.request().beginnings().contains(name)
                        || operation.answer() != null
                                && operation.answer().beginnings().contains(name));
    }

    private void tell(Requirement requirement, Place place, String more) {
        requirement.tell(findings, place, more);
    }

    private static String local(MessageElement element) {
        return element.name().getLocalPart();
    }

    private void envelope(MessageElement envelope) {
        ofSoap(envelope);
        boolean behind = false;
        for (MessageElement part : envelope.children()) {
            if (behind) {
                tell(Requirement.R1011, part.place(), local(part));
            }
            if (part.name().equals(new QName(SOAP, "Header"))) {
                ofSoap(part);
                part.children().forEach(this::block);
            } else if (part.name().equals(new QName(SOAP, "Body"))) {
                ofSoap(part);
                body(part);
                behind = true;
            }
        }
        arrays(envelope);
    }

    private void ofSoap(MessageElement element) {
        element.attributes().keySet().stream()
                .filter(name -> name.getNamespaceURI().equals(SOAP))
                .forEach(name -> tell(Requirement.R1032, element.place(name), name.getLocalPart()));
        if (element.attributes().containsKey(ENCODING)) {
            tell(Requirement.R1005, element.place(ENCODING), local(element));
        }
    }

    private void block(MessageElement block) {
        String must = block.attributes().get(MUST_UNDERSTAND);
        if (must != null && !must.equals("0") && !must.equals("1")) {
            tell(Requirement.R1013, block.place(MUST_UNDERSTAND), must);
        }
    }

    private void body(MessageElement body) {
        if (body.children().size() > 1) {
            tell(Requirement.R9981, body.place(), body.children().size() + " elements");
        }
        for (MessageElement child : body.children()) {
            if (child.name().getNamespaceURI().isEmpty()) {
                tell(Requirement.R1014, child.place(), local(child));
            }
            if (child.attributes().containsKey(ENCODING)) {
                boolean soap = child.name().getNamespaceURI().equals(SOAP);
                tell(soap ? Requirement.R1005 : Requirement.R1006, child.place(ENCODING), local(child));
            }
            if (child.name().equals(new QName(SOAP, "Fault"))) {
                fault(child);
            } else if (isOfRpc(child.name())) {
                child.children().stream()
                        .filter(part -> part.attributes().containsKey(ENCODING))
                        .forEach(part -> tell(Requirement.R1007, part.place(ENCODING), local(part)));
            }
        }
    }

    private void fault(MessageElement fault) {
        for (MessageElement part : fault.children()) {
            if (!PARTS_OF_FAULT.contains(local(part))) {
                tell(Requirement.R1000, part.place(), local(part));
            } else if (!part.name().getNamespaceURI().isEmpty()) {
                tell(Requirement.R1001, part.place(), local(part));
            } else if (local(part).equals("faultcode")) {
                code(part);
            }
        }
    }

    private void code(MessageElement part) {
        String text = part.text().strip();
        String local = text.substring(text.indexOf(':') + 1);
        QName code = text.isEmpty() ? null : part.resolve(text);
        String namespace = code == null ? "" : code.getNamespaceURI();
        if (namespace.isEmpty()) {
            tell(Requirement.R1004, part.place(), text);
        } else if (namespace.equals(SOAP) && local.contains(".")) {
            tell(Requirement.R1031, part.place(), text);
        } else if (namespace.equals(SOAP) && !CODES.contains(local)) {
            tell(Requirement.R1004, part.place(), text);
        }
    }

    private void arrays(MessageElement element) {
        QName type = new QName(Xml.SOAP_ENCODING, "arrayType");
        if (element.attributes().containsKey(type)) {
            tell(Requirement.R2113, element.place(type), local(element));
        }
        element.children().forEach(this::arrays);
    }
}
