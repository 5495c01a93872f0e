package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTree;

/** Header blocks that say where a message goes and what it answers (WS-Addressing 1.0 Core, section 3; SOAP Binding). */
final class Addressing {
    static final String NAMESPACE = "http://www.w3.org/2005/08/addressing";

    private static final String ANONYMOUS = NAMESPACE + "/anonymous";
    private static final String NONE = NAMESPACE + "/none";

    /** The action of a fault that the contract does not declare. */
    static final String FAULT_ACTION = NAMESPACE + "/soap/fault";

    private Addressing() {}

    /** The header blocks of a request; the answer is wanted on the same connection. */
    static List<XmlElement<?>> ofRequest(String to, String action) {
        XmlTree replyTo = new XmlTree();
        replyTo.content().add(block("Address", ANONYMOUS));
        return List.of(
                block("To", to),
                block("Action", action),
                block("MessageID", "urn:uuid:" + UUID.randomUUID()),
                XmlElement.of(NAMESPACE, "ReplyTo", replyTo));
    }

    /** The header blocks of an answer; none when the request had no identifier to answer to. */
    static List<XmlElement<?>> ofAnswer(Envelope request, String action) {
        List<XmlElement<?>> blocks = new ArrayList<>();
        String id = request.header(new QName(NAMESPACE, "MessageID"));
        if (id != null) {
            blocks.add(block("Action", action == null ? FAULT_ACTION : action));
            blocks.add(block("MessageID", "urn:uuid:" + UUID.randomUUID()));
            blocks.add(block("RelatesTo", id.strip()));
        }
        return blocks;
    }

    /** The action that a message names in its header, or null. */
    static String action(Envelope message) {
        String action = message.header(new QName(NAMESPACE, "Action"));
        return action == null ? null : action.strip();
    }

    private static XmlElement<XmlTree> block(String name, String text) {
        XmlTree tree = new XmlTree();
        tree.content().add(text);
        return XmlElement.of(NAMESPACE, name, tree);
    }

    /** Whether the answer is wanted somewhere else than on the connection of the request, which is not done here. */
    static boolean wantsAnswerElsewhere(Envelope request) {
        String address = request.header(new QName(NAMESPACE, "ReplyTo"));
        String where = address == null ? "" : address.strip();
        return !where.isEmpty() && !where.equals(ANONYMOUS) && !where.equals(NONE);
    }
}
