package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.SharedValues;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The envelope around a message (SOAP 1.1, section 4; SOAP 1.2 Part 1, section 5). Reading goes in two steps, for only
 * the body tells which operation is meant and the header comes before it: {@link #open} stops at the body's content.
 */
final class Envelope {
    private static final String SECURITY =
            "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd";

    private final XmlInput in;
    private final SoapVersion version;
    private final List<Block> blocks;

    /** A header block with whether the receiver must understand it. */
    private record Block(XmlElement<?> element, boolean mustUnderstand) {}

    private Envelope(XmlInput in, SoapVersion version, List<Block> blocks) {
        this.in = in;
        this.version = version;
        this.blocks = blocks;
    }

    /**
     * Reads an envelope.
     *
     * @param encoded whether the body is in the SOAP encoding
     * @param reader goes on from the content of the body; it may be called more than once, each time from nothing
     */
    static <T> T read(
            Incoming message, boolean encoded, XmlTypes types, Reading reading, Function<Envelope, T> reader) {
        String charset = message.type().charset();
        byte[] literal = encoded ? EncodedMessage.literal(message.body(), charset, reading.limits()) : message.body();
        return reading.read(literal, encoded ? null : charset, types, message.parts(), in -> {
            if (encoded) {
                in.setShared(new SharedValues());
            }
            return reader.apply(open(in));
        });
    }

    /** Reads up to the content of the body. */
    private static Envelope open(XmlInput in) {
        SoapVersion version = in.localName().equals("Envelope") ? SoapVersion.ofNamespace(in.namespace()) : null;
        if (version == null) {
            throw new NotAnEnvelopeException("the root element is <" + in.localName() + "> of namespace \""
                    + in.namespace() + "\", not a SOAP envelope");
        }
        in.setAside(version.namespace());
        in.enter();
        List<Block> blocks = new ArrayList<>();
        if (in.at(version.namespace(), "Header")) {
            in.enter();
            while (in.atElement()) {
                boolean must = isTrue(in.asideAttribute("mustUnderstand")) && isForUs(in, version);
                blocks.add(new Block(in.block(), must));
            }
            in.leave();
        }
        if (!in.at(version.namespace(), "Body")) {
            throw in.missing("the SOAP body");
        }
        in.enter();
        return new Envelope(in, version, blocks);
    }

    private static boolean isTrue(String flag) {
        return "1".equals(flag) || "true".equals(flag);
    }

    /** A block may be meant for somebody on the way: SOAP 1.1, section 4.2.2; SOAP 1.2 Part 1, section 2.2. */
    private static boolean isForUs(XmlInput in, SoapVersion version) {
        if (version == SoapVersion.SOAP_1_1) {
            String actor = in.asideAttribute("actor");
            return actor == null || actor.isEmpty() || actor.equals("http://schemas.xmlsoap.org/soap/actor/next");
        }
        String role = in.asideAttribute("role");
        return role == null
                || role.isEmpty()
                || role.equals(version.namespace() + "/role/next")
                || role.equals(version.namespace() + "/role/ultimateReceiver");
    }

    SoapVersion version() {
        return version;
    }

    XmlInput content() {
        return in;
    }

    /** The local names of the elements in the first element of the body. */
    List<String> partNames() {
        List<String> names = new ArrayList<>();
        in.enter();
        while (in.atElement()) {
            names.add(in.localName());
            in.skip();
        }
        return names;
    }

    boolean isFault() {
        return in.at(version.namespace(), "Fault");
    }

    SoapFault readFault(XmlTypes types) {
        return SoapFault.read(in, version, types);
    }

    /** The header blocks of a name as trees. */
    List<XmlTree> headers(QName name) {
        return blocks.stream()
                .filter(block -> block.element().name().equals(name))
                .map(block -> new ByteArrayInputStream(XmlTypes.NONE.write(block.element())))
                .map(written -> XmlTypes.NONE.read(written, XmlTree.class))
                .toList();
    }

    /**
     * Hands headers and body to the message they are for, and reads to the end.
     *
     * @param guarded whether somebody has looked at the security header block
     * @return the names of the blocks that had to be understood and were not; when there are any, the body is not read
     */
    List<QName> readInto(SoapMessage message, boolean guarded) {
        List<QName> notUnderstood = new ArrayList<>();
        for (Block block : blocks) {
            String namespace = block.element().name().getNamespaceURI();
            boolean known = namespace.equals(Addressing.NAMESPACE) || guarded && namespace.equals(SECURITY);
            if (!message.takeHeader(block.element()) && !known && block.mustUnderstand()) {
                notUnderstood.add(block.element().name());
            }
        }
        if (!notUnderstood.isEmpty()) {
            return notUnderstood;
        }
        message.readBody(in);
        in.leave();
        while (in.atElement()) {
            // SOAP 1.1, section 4.1.1 lets elements follow; SOAP 1.2 Part 1, section 5.1 does not.
            if (version == SoapVersion.SOAP_1_2) {
                throw in.error("<" + in.localName() + "> stands behind the body, where SOAP 1.2 has nothing");
            }
            in.skip();
        }
        in.leave();
        in.finish();
        return notUnderstood;
    }

    /**
     * Writes a message.
     *
     * @param blocks header blocks beside those of the message
     * @param parts where binary content and attachments go
     */
    static byte[] write(
            SoapVersion version,
            SoapMessage message,
            List<XmlElement<?>> blocks,
            OutgoingPackage parts,
            XmlTypes types) {
        boolean any = message.hasHeaders() || !blocks.isEmpty();
        Consumer<XmlOutput> headers = out -> {
            message.writeHeaders(out);
            blocks.forEach(out::element);
        };
        Consumer<XmlOutput> body = message.isEncoded() ? encoded(message, types) : message::writeBody;
        byte[] envelope = write(version, types, any ? headers : null, parts, body);
        message.writeAttachments(parts);
        return envelope;
    }

    /** Values that stand in several places are written once: they are found out before anything is written. */
    private static Consumer<XmlOutput> encoded(SoapMessage message, XmlTypes types) {
        SharedValues shared = new SharedValues();
        XmlOutput trial = new XmlOutput(types);
        trial.encode(shared, true);
        message.writeBody(trial);
        return out -> {
            out.encode(shared, false);
            message.writeBody(out);
            out.sharedValues();
        };
    }

    /** Says in a fault of SOAP 1.2 which header blocks were not understood (SOAP 1.2 Part 1, section 5.4.8). */
    static List<XmlElement<?>> notUnderstood(List<QName> names) {
        List<XmlElement<?>> blocks = new ArrayList<>();
        for (QName name : names) {
            XmlTree block = new XmlTree();
            boolean none = name.getNamespaceURI().isEmpty();
            block.attributes().put(new QName("qname"), (none ? "" : "nu:") + name.getLocalPart());
            if (!none) {
                block.prefixes().put("nu", name.getNamespaceURI());
            }
            blocks.add(XmlElement.of(SoapVersion.SOAP_1_2.namespace(), "NotUnderstood", block));
        }
        return blocks;
    }

    /** Writes a fault; {@code detail} may be null. */
    static byte[] writeFault(
            SoapVersion version,
            List<QName> code,
            String reason,
            List<XmlElement<?>> blocks,
            XmlTypes types,
            Consumer<XmlOutput> detail) {
        Consumer<XmlOutput> headers = blocks.isEmpty() ? null : out -> blocks.forEach(out::element);
        return write(version, types, headers, null, out -> SoapFault.write(out, version, code, reason, detail));
    }

    private static byte[] write(
            SoapVersion version,
            XmlTypes types,
            Consumer<XmlOutput> headers,
            OutgoingPackage parts,
            Consumer<XmlOutput> body) {
        XmlOutput out = new XmlOutput(types);
        out.setParts(parts);
        String namespace = version.namespace();
        out.inEnvelope(namespace);
        out.open(namespace, "Envelope");
        if (headers != null) {
            out.open(namespace, "Header");
            headers.accept(out);
            out.close();
        }
        out.open(namespace, "Body");
        body.accept(out);
        out.close();
        out.close();
        return out.finish();
    }

    /** The message is XML but no SOAP envelope of a known version. */
    static final class NotAnEnvelopeException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        NotAnEnvelopeException(String message) {
            super(message);
        }
    }
}
