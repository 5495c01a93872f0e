package org.protypos.profile;

import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Xml;

/** Judges whether an envelope of SOAP 1.1 keeps the Basic Profiles 1.1 and 1.2 (Basic Profile 1.1, section 3.1 and 3.2). */
public final class MessageProfile {
    private static final String SOAP = EnvelopeParts.SOAP_1_1;
    private static final Set<String> PARTS_OF_FAULT = Set.of("faultcode", "faultstring", "faultactor", "detail");
    private static final Set<String> CODES = Set.of("VersionMismatch", "MustUnderstand", "Client", "Server");
    private static final QName MUST_UNDERSTAND = new QName(SOAP, "mustUnderstand");
    private static final QName ENCODING = new QName(SOAP, "encodingStyle");

    private final Findings findings = new Findings();

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
        R1011("an element stands behind the body", "put it into the header or the body"),
        R1013("mustUnderstand is neither 0 nor 1", "write 0 or 1"),
        R1014("an element in the body is in no namespace", "give it one"),
        R1031(false, "the fault code has a dot", "put what is special into the detail"),
        R1032("Envelope, Header or Body has an attribute of SOAP", "take it away"),
        R2113("soapenc:arrayType is there", "write an element that repeats"),
        R9981("there is more than one element in the body", "put one element around them");

        private final boolean must;
        private final String wrong;
        private final String cure;

        Requirement(String wrong, String cure) {
            this(true, wrong, cure);
        }

        Requirement(boolean must, String wrong, String cure) {
            this.must = must;
            this.wrong = wrong;
            this.cure = cure;
        }

        @Override
        public boolean isMust() {
            return must;
        }

        @Override
        public String wrong() {
            return wrong;
        }

        @Override
        public String cure() {
            return cure;
        }
    }

    private MessageProfile() {}

    /** Every place where an envelope does not keep the profiles; none for what is no envelope of SOAP 1.1. */
    public static List<Finding> of(MessageElement root) {
        MessageProfile judge = new MessageProfile();
        if (root.name().equals(new QName(SOAP, "Envelope"))) {
            judge.envelope(root);
        }
        return judge.findings.sorted();
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
