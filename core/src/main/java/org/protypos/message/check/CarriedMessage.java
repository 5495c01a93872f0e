package org.protypos.message.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.schema.Builtins;
import org.protypos.schema.SimpleType;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;

/**
 * The request or the answer of an operation as a binding carries it (WSDL 1.1, sections 3 to 5). Without SOAP there is
 * no envelope: fields, texts and bytes are then seen as one element called like the operation, with an element in it for
 * each part, and a document is the element that it is.
 *
 * @param isAnswer whether it is the answer rather than the request
 */
public record CarriedMessage(Contract contract, Binding binding, Operation operation, boolean isAnswer) {
    /**
     * A header block that the contract speaks of.
     *
     * @param name the name of its element
     * @param part the part that it carries
     */
    public record Block(QName name, Message.Part part) {}

    /** How the binding carries the operation. */
    public BoundOperation bound() {
        return binding.operation(operation);
    }

    private BoundOperation.Carrier carrier() {
        BoundOperation bound = bound();
        return bound == null ? null : isAnswer ? bound.output() : bound.input();
    }

    private Message message() {
        return contract.wsdl().messages().get((isAnswer ? operation.output() : operation.input()).message());
    }

    /** The parts that travel in the body. */
    public List<Message.Part> parts() {
        return BoundOperation.bodyParts(message(), carrier());
    }

    /** The action that the contract gives it, or null (WS-Addressing 1.0 Metadata, section 4.4.1). */
    public String action() {
        return (isAnswer ? operation.output() : operation.input()).action();
    }

    /** The parts that travel beside the envelope. */
    public List<String> attachments() {
        return carrier() == null ? List.of() : carrier().attachments();
    }

    /** The header blocks. */
    public List<Block> blocks() {
        List<Block> blocks = new ArrayList<>();
        for (BoundOperation.Header block :
                carrier() == null ? List.<BoundOperation.Header>of() : carrier().headers()) {
            Message.Part part = contract.wsdl().messages().get(block.message()).part(block.part());
            blocks.add(new Block(
                    part.element() != null ? part.element() : new QName(block.namespace(), part.name()), part));
        }
        return blocks;
    }

    /** Whether the body is in the SOAP encoding. */
    public boolean isEncoded() {
        return carrier() != null && carrier().encoded();
    }

    /** Whether it travels in an envelope. */
    public boolean isSoap() {
        return binding.protocol().isSoap();
    }

    private BoundOperation.Form bindingForm() {
        return carrier() == null ? BoundOperation.Form.XML : carrier().form();
    }

    /** Whether one element that no schema declares holds all parts. */
    public boolean isWrapped() {
        if (isSoap()) {
            return bound() != null && bound().rpc();
        }
        return switch (bindingForm()) {
            case URL_ENCODED, URL_REPLACEMENT, CONTENT -> true;
            case XML, ENVELOPE -> parts().isEmpty();
        };
    }

    /** The name of that element. */
    public QName wrapper() {
        String namespace = isSoap() && carrier() != null ? carrier().namespace() : "";
        return new QName(namespace, operation.name() + (isSoap() && isAnswer ? "Response" : ""));
    }

    /** The type of what a part holds; of bytes that no type describes it is {@code xs:base64Binary}. */
    public TypeModel type(Message.Part part, Vocabulary vocabulary) {
        TypeModel type = part.element() != null
                ? vocabulary.typeOf(vocabulary.element(part.element()))
                : vocabulary.type(part.type());
        return bindingForm() == BoundOperation.Form.CONTENT && !isSimple(type)
                ? vocabulary.type(Builtins.name("base64Binary"))
                : type;
    }

    /** The types of the parts in the body by their names. */
    public Map<String, TypeModel> types(Vocabulary vocabulary) {
        Map<String, TypeModel> types = new LinkedHashMap<>();
        parts().forEach(part -> types.put(part.name(), type(part, vocabulary)));
        return types;
    }

    private static boolean isSimple(TypeModel type) {
        return type.definition() instanceof SimpleType;
    }

    /** Whether the only part is of a complex type, so that the body itself is of that type (WSDL 1.1, section 3.5). */
    public boolean isOfElements(Vocabulary vocabulary) {
        if (!isSoap() || isWrapped() || parts().size() != 1 || parts().get(0).type() == null) {
            return false;
        }
        TypeModel type = type(parts().get(0), vocabulary);
        return !type.isAnything() && type.text() == null && !type.mixed() && !type.isAbstract();
    }

    /** What it is put into. */
    public SoapMessage.Form form(Vocabulary vocabulary) {
        if (isSoap()) {
            return SoapMessage.Form.ENVELOPE;
        }
        return switch (bindingForm()) {
            case URL_ENCODED -> SoapMessage.Form.FIELDS;
            case URL_REPLACEMENT -> SoapMessage.Form.REPLACED;
            case XML, ENVELOPE -> SoapMessage.Form.DOCUMENT;
            case CONTENT -> {
                List<Message.Part> parts = parts();
                TypeModel type = parts.isEmpty() ? null : type(parts.get(0), vocabulary);
                boolean binary = type != null
                        && List.of("base64Binary", "hexBinary")
                                .contains(type.text().builtin());
                yield type == null
                        ? SoapMessage.Form.DOCUMENT
                        : binary || parts.size() > 1 ? SoapMessage.Form.BYTES : SoapMessage.Form.TEXT;
            }
        };
    }

    /** What stands in the body of a message, or the message itself when it has no envelope. */
    public List<MessageElement> body(MessageElement root) {
        return isSoap() ? EnvelopeParts.inside(root, "Body") : List.of(root);
    }

    /** The header blocks of a message. */
    public List<MessageElement> header(MessageElement root) {
        return isSoap() ? EnvelopeParts.inside(root, "Header") : List.of();
    }
}
