package org.protypos.infer;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.parse.MessageScanner;
import org.protypos.runtime.value.Lexical;
import org.protypos.source.Xml;

/** Reads one document after the other, of any length, and remembers what it was like. */
final class DocumentObserver {
    private static final int MOST_DEPTH = 400;
    private static final int MOST_BYTES_AT_ONCE = 64 << 20;

    private static final ValueRule QNAME = ValueRule.of("QName");

    private final Observations seen;
    private final Decisions decisions;
    private final MessageScanner scanner = new MessageScanner();
    private final Deque<Frame> open = new ArrayDeque<>();
    private String document;

    DocumentObserver(Observations seen, Decisions decisions) {
        this.seen = seen;
        this.decisions = decisions;
    }

    /** What stands in an element. */
    private enum Inside {
        /** Documents of their own: it is a part of an envelope. */
        DOCUMENTS,
        /** The parts of a fault. */
        FAULT,
        /** Nothing that is looked at. */
        IGNORED,
        /** A structure. */
        STRUCTURE
    }

    /** An element that is open. */
    private static final class Frame {
        final Inside inside;
        final Structure structure;
        final Map<QName, int[]> counts = new LinkedHashMap<>();
        final Set<QName> round = new LinkedHashSet<>();
        final StringBuilder text = new StringBuilder();
        QName last;
        boolean hasText;
        boolean isNil;
        int line;

        Frame(Inside inside, Structure structure) {
            this.inside = inside;
            this.structure = structure;
        }
    }

    /** Bounds what is read before something comes of it: a text or a tag. */
    private static final class Portions extends FilterInputStream {
        private long portion;

        Portions(InputStream in) {
            super(in);
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int read = super.read(bytes, offset, length);
            portion += Math.max(0, read);
            if (portion > MOST_BYTES_AT_ONCE) {
                throw new IOException("a text or a tag has more than " + (MOST_BYTES_AT_ONCE >> 20) + " MB");
            }
            return read;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }
    }

    /**
     * Reads a document.
     *
     * @throws XMLStreamException when it is not well-formed or beyond a limit; what came before that has been observed
     */
    void read(String name, InputStream in) throws XMLStreamException {
        document = name;
        open.clear();
        Portions portions = new Portions(in);
        try {
            scanner.begin(portions, null);
            while (true) {
                int event = scanner.next();
                portions.portion = 0;
                switch (event) {
                    case XMLStreamConstants.START_ELEMENT -> start();
                    case XMLStreamConstants.END_ELEMENT -> end();
                    case XMLStreamConstants.CHARACTERS -> text();
                    default -> {
                        return;
                    }
                }
            }
        } finally {
            scanner.close();
        }
    }

    private void text() {
        Frame frame = open.peek();
        if (frame != null && frame.inside == Inside.STRUCTURE) {
            frame.hasText |= !scanner.isWhiteSpace();
            // Beside elements only whether there is any text matters.
            if (frame.counts.isEmpty()) {
                frame.text.append(scanner.getText());
            }
        }
    }

    private void start() throws XMLStreamException {
        if (open.size() == MOST_DEPTH) {
            throw new XMLStreamException(
                    "elements are nested deeper than " + MOST_DEPTH + " levels", scanner.getLocation());
        }
        QName name = new QName(orEmpty(scanner.getNamespaceURI()), scanner.getLocalName());
        Frame around = open.peek();
        Inside outside = around == null ? Inside.DOCUMENTS : around.inside;
        switch (outside) {
            case DOCUMENTS -> {
                Inside part = partOfEnvelope(name);
                if (part != null) {
                    open.push(new Frame(part, null));
                } else {
                    instance(seen.global(name), null);
                }
            }
            case FAULT ->
                open.push(new Frame(
                        name.getLocalPart().equalsIgnoreCase("detail") ? Inside.DOCUMENTS : Inside.IGNORED, null));
            case IGNORED -> open.push(new Frame(Inside.IGNORED, null));
            case STRUCTURE -> child(around, name);
        }
        if (seen.areTooMany()) {
            throw new XMLStreamException(
                    "there are more than " + Observations.MOST_STRUCTURES + " different elements in the documents",
                    scanner.getLocation());
        }
    }

    private Inside partOfEnvelope(QName name) {
        if (!EnvelopeParts.isOfSoap(name.getNamespaceURI())) {
            return null;
        }
        return switch (name.getLocalPart()) {
            case "Envelope", "Header", "Body" -> Inside.DOCUMENTS;
            case "Fault" -> Inside.FAULT;
            default -> Inside.IGNORED;
        };
    }

    private void child(Frame around, QName name) throws XMLStreamException {
        if (around.structure.isOpen) {
            open.push(new Frame(Inside.IGNORED, null));
            return;
        }
        Declaration child = seen.child(around.structure, name);
        int[] count = around.counts.get(name);
        if (count == null) {
            around.counts.put(name, new int[] {1});
            around.structure.order.add(name);
        } else {
            count[0]++;
        }
        if (name.equals(around.last)) {
            around.structure.rounds.addSeveral(name);
        } else if (around.last != null) {
            around.structure.order.add(around.last, name);
        }
        if (around.round.contains(name) && !name.equals(around.last)) {
            around.structure.rounds.add(around.round);
            around.round.clear();
        }
        around.round.add(name);
        around.last = name;
        if (around.structure.children.size() > Structure.MOST_NAMES) {
            around.structure.open();
            open.push(new Frame(Inside.IGNORED, null));
            return;
        }
        boolean foreign = Observations.isForeign(around.structure, name.getNamespaceURI());
        instance(child, foreign ? seen.global(name) : null);
    }

    /**
     * An instance of a declaration begins.
     *
     * @param global the global declaration that it is an instance of too, or null
     */
    private void instance(Declaration declaration, Declaration global) throws XMLStreamException {
        String said = ofInstance("type");
        QName stated = said == null ? null : resolved(said.strip());
        // That something is an array of the SOAP encoding says nothing of what it is.
        QName type = stated == null || stated.getNamespaceURI().equals(Xml.SOAP_ENCODING) ? null : stated;
        String nil = ofInstance("nil");
        boolean isNil = nil != null && isTrue(nil);
        for (Declaration one :
                global == null ? new Declaration[] {declaration} : new Declaration[] {declaration, global}) {
            one.isPlain |= type == null;
            // Who says that an element is not nil says it of one that might be (XML Schema Part 1, section 3.3.4).
            one.isNillable |= nil != null;
            if (type != null) {
                one.types.add(type);
            }
        }
        if (type != null && type.getNamespaceURI().equals(Xml.XSD)) {
            open.push(new Frame(Inside.IGNORED, null));
            return;
        }
        Structure structure = type == null ? declaration.plain() : seen.type(type);
        structure.count++;
        Frame frame = new Frame(Inside.STRUCTURE, structure);
        frame.isNil = isNil;
        frame.line = scanner.getLocation().getLineNumber();
        open.push(frame);
        attributes(structure, frame);
    }

    private boolean isTrue(String nil) throws XMLStreamException {
        try {
            return Lexical.parseBoolean(nil);
        } catch (IllegalArgumentException e) {
            throw new XMLStreamException("xsi:nil=\"" + nil + "\" is neither true nor false", scanner.getLocation());
        }
    }

    /** The value of an attribute of the namespace for instances, or null. */
    private String ofInstance(String name) {
        for (int i = 0; i < scanner.getAttributeCount(); i++) {
            if (scanner.getAttributeLocalName(i).equals(name) && Xml.XSI.equals(scanner.getAttributeNamespace(i))) {
                return scanner.getAttributeValue(i);
            }
        }
        return null;
    }

    private QName resolved(String type) throws XMLStreamException {
        if (QNAME.complaint(type, prefix -> "") != null) {
            throw new XMLStreamException("xsi:type=\"" + type + "\" is no qualified name", scanner.getLocation());
        }
        int colon = type.indexOf(':');
        String prefix = colon < 0 ? "" : type.substring(0, colon);
        String namespace = scanner.getNamespaceURI(prefix);
        if (namespace == null && colon >= 0) {
            throw new XMLStreamException(
                    "the prefix of xsi:type=\"" + type + "\" is not declared", scanner.getLocation());
        }
        return new QName(orEmpty(namespace), type.substring(colon + 1));
    }

    private void attributes(Structure structure, Frame frame) {
        for (int i = 0; i < scanner.getAttributeCount(); i++) {
            String namespace = orEmpty(scanner.getAttributeNamespace(i));
            boolean serves = namespace.equals(Xml.XSI) || namespace.equals(Xml.SOAP_ENCODING);
            if (serves || EnvelopeParts.isOfSoap(namespace) || structure.hasOpenAttributes) {
                continue;
            }
            QName name = new QName(namespace, scanner.getAttributeLocalName(i));
            Structure.ObservedAttribute attribute = structure.attributes.computeIfAbsent(
                    name,
                    one -> new Structure.ObservedAttribute(structure.name.getLocalPart() + "/@" + name.getLocalPart()));
            attribute.present++;
            String value = scanner.getAttributeValue(i);
            decisions.judge(attribute.at, value, document, frame.line);
            attribute.values.add(value);
            if (Observations.isForeign(structure, namespace)) {
                seen.attributes
                        .computeIfAbsent(name, one -> new ObservedValue())
                        .add(value);
            }
            if (structure.attributes.size() > Structure.MOST_NAMES) {
                structure.openAttributes();
            }
        }
    }

    private void end() throws XMLStreamException {
        Frame frame = open.pop();
        if (frame.isNil && (!frame.counts.isEmpty() || frame.text.length() > 0)) {
            throw new XMLStreamException(
                    "the element " + scanner.getLocalName() + " is nil and has content", scanner.getLocation());
        }
        if (frame.inside != Inside.STRUCTURE || frame.isNil) {
            return;
        }
        Structure structure = frame.structure;
        structure.filled++;
        structure.rounds.add(frame.round);
        if (frame.counts.isEmpty()) {
            String text = frame.text.toString();
            structure.text.add(text);
            if (!text.isEmpty()) {
                structure.at.forEach(at -> decisions.judge(at, text, document, frame.line));
            }
        } else if (frame.hasText) {
            structure.isMixed = true;
        }
        frame.counts.forEach((name, count) -> {
            Declaration child = structure.children.get(name);
            if (child != null) {
                child.present++;
                child.most = Math.max(child.most, count[0]);
            }
        });
    }

    private static String orEmpty(String value) {
        return value == null ? "" : value;
    }
}
