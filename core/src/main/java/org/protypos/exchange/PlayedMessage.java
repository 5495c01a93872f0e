package org.protypos.exchange;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;

/** A message as the elements of its body and its header. */
final class PlayedMessage extends SoapMessage {
    private final CalledOperation called;
    private final boolean encoded;
    private final List<XmlElement<?>> body = new ArrayList<>();
    private final List<XmlElement<?>> headers = new ArrayList<>();

    PlayedMessage(CalledOperation called, boolean encoded) {
        this.called = called;
        this.encoded = encoded;
    }

    CalledOperation called() {
        return called;
    }

    List<XmlElement<?>> body() {
        return body;
    }

    List<XmlElement<?>> headers() {
        return headers;
    }

    @Override
    protected boolean isEncoded() {
        return encoded;
    }

    @Override
    protected boolean hasHeaders() {
        return !headers.isEmpty();
    }

    @Override
    protected void writeHeaders(XmlOutput out) {
        headers.forEach(out::element);
    }

    @Override
    protected boolean takeHeader(XmlElement<?> block) {
        BoundOperation.Carrier carrier = called.bound().input();
        boolean known = carrier != null
                && carrier.headers().stream().anyMatch(header -> {
                    Message.Part part = called.contract()
                            .wsdl()
                            .messages()
                            .get(header.message())
                            .part(header.part());
                    QName name = part.element() != null ? part.element() : new QName(header.namespace(), part.name());
                    return name.equals(block.name());
                });
        if (known) {
            headers.add(block);
        }
        return known;
    }

    @Override
    protected void readBody(XmlInput in) {
        while (in.atElement()) {
            body.add(in.element());
        }
    }

    @Override
    protected void writeBody(XmlOutput out) {
        body.forEach(out::element);
    }

    static MessageElement tree(XmlElement<?> element) {
        return MessageReader.read("request", XmlTypes.NONE.write(element), new Findings());
    }

    static List<MessageElement> trees(List<XmlElement<?>> elements) {
        return elements.stream().map(PlayedMessage::tree).toList();
    }

    /** An element that stands for itself needs the prefixes that are declared around it. */
    static XmlElement<?> element(MessageElement tree) {
        for (MessageElement around = tree.parent(); around != null; around = around.parent()) {
            around.prefixes().forEach(tree.prefixes()::putIfAbsent);
        }
        return XmlTypes.NONE.read(new ByteArrayInputStream(MessageText.of(tree).getBytes(StandardCharsets.UTF_8)));
    }
}
