package org.protypos.message.sample;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.schema.ElementDeclaration;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.Protocol;

/** Makes up messages that are valid against a contract. The door of this package. */
public final class Samples {
    private static final Map<Protocol, String> ENVELOPES = Map.of(
            Protocol.SOAP_1_1, "http://schemas.xmlsoap.org/soap/envelope/",
            Protocol.SOAP_1_2, "http://www.w3.org/2003/05/soap-envelope");

    private final Contract contract;
    private final Vocabulary vocabulary;
    private final MinimalDepth depths;
    private final MessageChecker checker;
    private final boolean full;

    /**
     * Makes samples for a contract.
     *
     * @param contract a sound contract
     * @param full whether optional parts are shown, each at least once, rather than left out
     */
    public Samples(Contract contract, Vocabulary vocabulary, boolean full) {
        this.contract = contract;
        this.vocabulary = vocabulary;
        this.depths = new MinimalDepth(vocabulary);
        this.checker = new MessageChecker(vocabulary);
        this.full = full;
    }

    private SampleBuilder builder(boolean generous) {
        return new SampleBuilder(vocabulary, depths, new Prefixes(contract.documents()), generous);
    }

    /**
     * The global elements that can stand in a message: all but the abstract ones and those for which the contract lets
     * no content be complete.
     */
    public List<QName> elements() {
        List<QName> names = new ArrayList<>();
        for (ElementDeclaration element : vocabulary.schema().elements().values()) {
            if (!element.isAbstract() && depths.of(vocabulary.typeOf(element)) < MinimalDepth.ENDLESS) {
                names.add(element.name());
            }
        }
        return names;
    }

    /** A document with a global element as its root. */
    public String element(QName name) {
        ElementDeclaration declaration = vocabulary.element(name);
        return valid(generous -> {
            SampleBuilder builder = builder(generous);
            return builder.finish(builder.element(declaration));
        });
    }

    /**
     * Some messages can only be complete with optional parts, because references must lead to something; others only
     * without them. What is wanted is given unless only the other is valid.
     */
    private String valid(Function<Boolean, MessageElement> build) {
        MessageElement wanted = build.apply(full);
        if (!isValid(wanted)) {
            MessageElement other = build.apply(!full);
            wanted = isValid(other) ? other : wanted;
        }
        return MessageText.of(wanted);
    }

    private boolean isValid(MessageElement message) {
        return EnvelopeParts.of(message, vocabulary).stream()
                .allMatch(part -> checker.check(part).deviations().isEmpty());
    }

    /**
     * A SOAP message of an operation.
     *
     * @param binding the binding, of a version of SOAP
     * @param operation the operation
     * @param answer whether the answer is wanted rather than the request
     */
    public String message(Binding binding, Operation operation, boolean answer) {
        SampleBuilder builder = builder(full);
        String soap = ENVELOPES.get(binding.protocol());
        BoundOperation bound = binding.operation(operation);
        Operation.Use use = answer ? operation.output() : operation.input();
        BoundOperation.Carrier carrier = bound == null ? null : answer ? bound.output() : bound.input();
        MessageElement envelope = new MessageElement(new QName(soap, "Envelope"), null);
        MessageElement header = new MessageElement(new QName(soap, "Header"), null);
        if (carrier != null) {
            for (BoundOperation.Header block : carrier.headers()) {
                Message.Part part =
                        contract.wsdl().messages().get(block.message()).part(block.part());
                header.add(part(builder, part, block.namespace()));
            }
        }
        if (!header.content().isEmpty()) {
            envelope.add(header);
        }
        MessageElement body = new MessageElement(new QName(soap, "Body"), null);
        envelope.add(body);
        Message message = contract.wsdl().messages().get(use.message());
        MessageElement around = body;
        if (bound != null && bound.rpc()) {
            String namespace = carrier == null ? "" : carrier.namespace();
            around = new MessageElement(new QName(namespace, operation.name() + (answer ? "Response" : "")), null);
            body.add(around);
        }
        List<Message.Part> parts = BoundOperation.bodyParts(message, carrier);
        boolean encoded = carrier != null && carrier.encoded();
        for (Message.Part part : parts) {
            MessageElement element = part(builder, part, "");
            if (around == body && !encoded && parts.size() == 1 && isOfElements(part)) {
                // The body itself is of the type of its only part (WSDL 1.1, section 3.5).
                element.children().forEach(body::add);
            } else {
                around.add(element);
            }
        }
        return MessageText.of(builder.finish(envelope));
    }

    private boolean isOfElements(Message.Part part) {
        TypeModel type = part.type() == null ? null : vocabulary.type(part.type());
        return type != null && !type.isAnything() && type.text() == null && !type.mixed() && !type.isAbstract();
    }

    private MessageElement part(SampleBuilder builder, Message.Part part, String namespace) {
        if (part.element() != null) {
            return builder.element(vocabulary.element(part.element()));
        }
        TypeModel type = vocabulary.type(part.type());
        return builder.element(new QName(namespace, part.name()), type);
    }
}
