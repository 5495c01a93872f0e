package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTree;

/** Header blocks that say where a message goes and what it answers (WS-Addressing 1.0 Core, section 3; SOAP Binding). */
final class Addressing {
    static final String NAMESPACE = "http://www.w3.org/2005/08/addressing";
    static final String ANONYMOUS = NAMESPACE + "/anonymous";
    static final String NONE = NAMESPACE + "/none";

    /** The action of a fault that the contract does not declare. */
    static final String FAULT_ACTION = NAMESPACE + "/soap/fault";

    /** The action of the faults that WS-Addressing itself defines (SOAP Binding, section 6). */
    private static final String OWN_FAULT_ACTION = NAMESPACE + "/fault";

    private Addressing() {}

    static QName name(String local) {
        return new QName(NAMESPACE, local, "wsa");
    }

    /** An identifier for a message. */
    static String newId() {
        return "urn:uuid:" + UUID.randomUUID();
    }

    /** The header blocks of a request; the answer is wanted on the same connection. */
    static List<XmlElement<?>> ofRequest(String to, String action, String id) {
        XmlTree replyTo = new XmlTree();
        replyTo.content().add(block("Address", ANONYMOUS));
        return List.of(
                block("To", to),
                block("Action", action),
                block("MessageID", id),
                XmlElement.of(NAMESPACE, "ReplyTo", replyTo));
    }

    static XmlElement<XmlTree> block(String name, String text) {
        XmlTree tree = new XmlTree();
        tree.content().add(text);
        return XmlElement.of(NAMESPACE, name, tree);
    }

    /**
     * Whether an answer says that it answers another message: one that names none is taken for the answer, as it came on the
     * connection of the request (Core, section 3.4).
     */
    static boolean isForAnother(Envelope answer, String id) {
        List<XmlTree> related = answer.headers(name("RelatesTo")).stream()
                .filter(block -> {
                    String kind = block.attributes().get(new QName("RelationshipType"));
                    return kind == null || kind.equals(NAMESPACE + "/reply");
                })
                .toList();
        return !related.isEmpty()
                && related.stream().noneMatch(block -> block.text().strip().equals(id));
    }

    /**
     * What is wrong with the addressing of a request (SOAP Binding, section 6.4).
     *
     * @param codes the subcode, and the one below it if there is one
     * @param header the header block that is meant, or null
     * @param action the action that is meant, or null
     */
    record Problem(List<String> codes, String reason, String header, String action) {
        static Problem invalid(String code, String header, String reason) {
            return new Problem(List.of("InvalidAddressingHeader", code), reason, header, null);
        }

        static Problem missing(String header) {
            return new Problem(
                    List.of("MessageAddressingHeaderRequired"),
                    "the header block wsa:" + header + " must be there and is not",
                    header,
                    null);
        }

        String faultAction() {
            return OWN_FAULT_ACTION;
        }

        /** The subcodes as names. */
        List<QName> names() {
            return codes.stream().map(Addressing::name).toList();
        }

        /** What the detail of the fault holds. */
        private XmlElement<XmlTree> detail() {
            if (action != null) {
                XmlTree about = new XmlTree();
                about.content().add(block("Action", action));
                return XmlElement.of(NAMESPACE, "ProblemAction", about);
            }
            XmlElement<XmlTree> about = block("ProblemHeaderQName", "wsa:" + header);
            about.value().prefixes().put("wsa", NAMESPACE);
            return about;
        }

        /** The detail of SOAP 1.2. */
        Consumer<XmlOutput> written() {
            return out -> out.element(detail());
        }

        /** The same as a header block, for SOAP 1.1 keeps the detail for what is wrong with a body (section 6.3). */
        XmlElement<?> asBlock() {
            XmlTree around = new XmlTree();
            around.content().add(detail());
            return XmlElement.of(NAMESPACE, "FaultDetail", around);
        }
    }

    /** Where an answer is wanted, and what is to stand in its header. */
    private record Destination(String address, List<XmlElement<?>> parameters) {
        static Destination of(XmlTree endpoint) {
            String address = null;
            List<XmlElement<?>> parameters = new ArrayList<>();
            for (Object item : endpoint.content()) {
                if (item instanceof XmlElement<?> part && part.value() instanceof XmlTree content) {
                    if (part.name().equals(name("Address"))) {
                        address = content.text().strip();
                    } else if (part.name().equals(name("ReferenceParameters"))) {
                        content.content().stream()
                                .filter(XmlElement.class::isInstance)
                                .forEach(one -> parameters.add((XmlElement<?>) one));
                    }
                }
            }
            return new Destination(address, parameters);
        }

        boolean isHere() {
            return address.equals(ANONYMOUS) || address.equals(NONE);
        }
    }

    /** What a request says of itself. */
    static final class OfRequest {
        private static final List<String> ONCE = List.of("To", "From", "ReplyTo", "FaultTo", "Action", "MessageID");

        private final Envelope request;
        private final Destination replyTo;
        private final Destination faultTo;

        OfRequest(Envelope request) {
            this.request = request;
            this.replyTo = destination("ReplyTo");
            this.faultTo = destination("FaultTo");
        }

        private Destination destination(String name) {
            List<XmlTree> blocks = request.headers(name(name));
            return blocks.isEmpty() ? null : Destination.of(blocks.get(0));
        }

        private String text(String name) {
            List<XmlTree> blocks = request.headers(name(name));
            return blocks.isEmpty() ? null : blocks.get(0).text().strip();
        }

        /** The action, or null. */
        String action() {
            return text("Action");
        }

        /**
         * What is wrong, or null. Who need not address a message is not held to the rules of doing so, but for where the answer is
         * to go: that cannot be passed over.
         *
         * @param required whether the contract asks for addressing
         * @param answered whether the operation has an answer
         * @param soapAction the action that HTTP names, empty for none
         * @param wanted the action of the operation, or null
         */
        Problem problem(boolean required, boolean answered, String soapAction, String wanted) {
            for (String name : List.of("ReplyTo", "FaultTo")) {
                Destination to = name.equals("ReplyTo") ? replyTo : faultTo;
                if (to != null && to.address() == null) {
                    return Problem.invalid("MissingAddressInEPR", name, "wsa:" + name + " has no address");
                }
                if (to != null && !to.isHere()) {
                    return Problem.invalid(
                            "OnlyAnonymousAddressSupported",
                            name,
                            "answers are given on the connection of the request only");
                }
            }
            return required ? broken(answered, soapAction, wanted) : null;
        }

        private Problem broken(boolean answered, String soapAction, String wanted) {
            for (String name : ONCE) {
                if (request.headers(name(name)).size() > 1) {
                    return Problem.invalid(
                            "InvalidCardinality", name, "the header block wsa:" + name + " is there more than once");
                }
            }
            String action = action();
            if (action == null) {
                return Problem.missing("Action");
            }
            if (answered && text("MessageID") == null) {
                return Problem.missing("MessageID");
            }
            if (!soapAction.isEmpty() && !soapAction.equals(action)) {
                return Problem.invalid(
                        "ActionMismatch",
                        "Action",
                        "wsa:Action and the SOAP action are two: " + action + " and " + soapAction);
            }
            return wanted == null || wanted.equals(action)
                    ? null
                    : new Problem(
                            List.of("ActionNotSupported"),
                            "the action " + action + " is not that of the message, which is " + wanted,
                            null,
                            action);
        }

        /** Whether anybody wants to hear the answer. */
        boolean wantsAnswer() {
            return replyTo == null || !NONE.equals(replyTo.address());
        }

        /** Whether anybody wants to hear a fault. */
        boolean wantsFault() {
            Destination to = faultTo == null ? replyTo : faultTo;
            return to == null || !NONE.equals(to.address());
        }

        /** The header blocks of the answer; none when the request has no identifier to answer to. */
        List<XmlElement<?>> ofAnswer(String action) {
            return blocks(action == null ? answering(action()) : action, replyTo);
        }

        /** The action of an answer of which the contract says nothing, in the form that the defaults have (Metadata, section 4.4.4). */
        private static String answering(String request) {
            String stem = request == null || !request.endsWith("Request")
                    ? request
                    : request.substring(0, request.length() - "Request".length());
            return stem == null ? null : stem + "Response";
        }

        /** Those of a fault. */
        List<XmlElement<?>> ofFault(String action) {
            return blocks(action == null ? FAULT_ACTION : action, faultTo == null ? replyTo : faultTo);
        }

        private List<XmlElement<?>> blocks(String action, Destination to) {
            List<XmlElement<?>> blocks = new ArrayList<>();
            String id = text("MessageID");
            boolean addressed = id != null || OWN_FAULT_ACTION.equals(action);
            if (addressed && action != null) {
                blocks.add(block("Action", action));
            }
            if (addressed) {
                blocks.add(block("MessageID", newId()));
            }
            if (id != null) {
                blocks.add(block("RelatesTo", id));
            }
            // SOAP Binding, section 2.2: they come back as header blocks, marked as what they are.
            for (XmlElement<?> parameter : to == null ? List.<XmlElement<?>>of() : to.parameters()) {
                if (parameter.value() instanceof XmlTree content) {
                    content.attributes().put(name("IsReferenceParameter"), "true");
                }
                blocks.add(parameter);
            }
            return blocks;
        }
    }
}
