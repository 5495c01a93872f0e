package org.protypos.runtime.xml;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.util.StreamReaderDelegate;
import org.protypos.runtime.value.Lexical;

/**
 * A whole message that is handed out again as by a parser, with elements put off: they are passed over where they stand,
 * and can be brought later among those beside them.
 */
final class MessageReplay extends StreamReaderDelegate {
    private static final int MOST_NODES = 1_000_000;

    private final Set<String> putOff;
    private final Deque<Frame> frames = new ArrayDeque<>();
    private int event = START_DOCUMENT;
    private String text = "";
    private Location place;

    /** An element with what is in it: texts and elements. */
    private record Node(
            String namespace,
            String local,
            List<String[]> attributes,
            Map<String, String> prefixes,
            List<Object> content,
            Location start,
            Location[] end) {}

    /** A run of text. */
    private record Text(StringBuilder characters, Location start) {}

    /** The document and what comes after its root. */
    record Message(Object root, Location end) {}

    /** An element being handed out. */
    private static final class Frame {
        private final Node node;
        private final String path;
        private final List<Node> later = new ArrayList<>();
        private int next;

        Frame(Node node, String path) {
            this.node = node;
            this.path = path;
        }
    }

    /**
     * Hands out a message from its start.
     *
     * @param putOff the {@linkplain #key keys} of the elements to put off
     */
    MessageReplay(Message message, Set<String> putOff) {
        this.putOff = putOff;
        place = message.end();
        Node document = new Node(
                "", "", List.of(), Map.of(), List.of(message.root()), message.end(), new Location[] {message.end()});
        frames.push(new Frame(document, ""));
    }

    /**
     * Takes a whole message from a parser.
     *
     * @throws XmlFormatException when it is not well-formed or passes a limit
     */
    static Message keep(XMLStreamReader reader, XmlLimits limits) {
        try {
            Deque<Node> open = new ArrayDeque<>();
            Node root = null;
            int nodes = 0;
            while (reader.hasNext()) {
                switch (reader.next()) {
                    case START_ELEMENT -> {
                        if (++nodes > MOST_NODES || open.size() >= limits.depth()) {
                            throw refused(reader, "the message is too large to be read leniently");
                        }
                        Node node = element(reader, open.peek());
                        if (open.isEmpty()) {
                            root = node;
                        } else {
                            open.peek().content().add(node);
                        }
                        open.push(node);
                    }
                    case END_ELEMENT -> open.pop().end()[0] = reader.getLocation();
                    case CHARACTERS -> addText(open.peek(), reader);
                    default -> {
                        // the end, after which nothing comes
                    }
                }
            }
            return new Message(root, reader.getLocation());
        } catch (XMLStreamException e) {
            throw refused(reader, e.getMessage());
        }
    }

    private static XmlFormatException refused(XMLStreamReader reader, String what) {
        Location at = reader.getLocation();
        return new XmlFormatException(what, at.getLineNumber(), at.getColumnNumber(), "", null);
    }

    private static Node element(XMLStreamReader reader, Node around) {
        List<String[]> attributes = new ArrayList<>(reader.getAttributeCount());
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            attributes.add(new String[] {
                reader.getAttributeNamespace(i), reader.getAttributeLocalName(i), reader.getAttributeValue(i)
            });
        }
        Map<String, String> prefixes = around == null ? Map.of() : around.prefixes();
        if (reader.getNamespaceCount() > 0) {
            prefixes = new TreeMap<>(prefixes);
            for (int i = 0; i < reader.getNamespaceCount(); i++) {
                String prefix = reader.getNamespacePrefix(i);
                String uri = reader.getNamespaceURI(i);
                prefixes.put(prefix == null ? "" : prefix, uri == null ? "" : uri);
            }
        }
        String uri = reader.getNamespaceURI();
        return new Node(
                uri == null ? "" : uri,
                reader.getLocalName(),
                attributes,
                prefixes,
                new ArrayList<>(),
                reader.getLocation(),
                new Location[1]);
    }

    private static void addText(Node to, XMLStreamReader reader) {
        List<Object> content = to.content();
        int last = content.size() - 1;
        if (last < 0 || !(content.get(last) instanceof Text)) {
            content.add(new Text(new StringBuilder(), reader.getLocation()));
            last++;
        }
        ((Text) content.get(last)).characters().append(reader.getText());
    }

    private static String key(Frame around, Node node) {
        return around.path + " {" + node.namespace() + "}" + node.local();
    }

    /** Names the element that is presented, by its own name and those of the elements around it. */
    String key() {
        Frame present = frames.pop();
        String key = key(frames.peek(), present.node);
        frames.push(present);
        return key;
    }

    /** The elements around, from the innermost on; what is presented but not entered is none of them. */
    private Frame around() {
        if (event != START_ELEMENT) {
            return frames.peek();
        }
        Iterator<Frame> inside = frames.iterator();
        inside.next();
        return inside.next();
    }

    /** Whether an element of this local name is presented or comes after it beside it. */
    boolean isToCome(String name) {
        Frame around = around();
        for (int i = Math.max(0, around.next - 1); i < around.node.content().size(); i++) {
            if (around.node.content().get(i) instanceof Node node
                    && node.local().equals(name)
                    && !putOff.contains(key(around, node))) {
                return true;
            }
        }
        return false;
    }

    /**
     * Presents an element that was put off instead of what is presented now, which comes after it then.
     *
     * @return the element's namespace, or null when none of this local name was put off
     */
    String bring(String namespace, String name) {
        Frame around = around();
        Node found = null;
        for (Node candidate : around.later) {
            boolean better = found == null || candidate.namespace().equals(namespace);
            if (candidate.local().equals(name)
                    && better
                    && (found == null || !found.namespace().equals(namespace))) {
                found = candidate;
            }
        }
        if (found == null) {
            return null;
        }
        around.later.remove(found);
        if (event == START_ELEMENT) {
            frames.pop();
            around.next--;
        }
        present(around, found);
        return found.namespace();
    }

    /** What was put off in the element at whose end the replay stands, and was never brought: name and place of each. */
    List<XmlFormatException> leftOver(String path) {
        List<XmlFormatException> left = new ArrayList<>();
        for (Node node : frames.peek().later) {
            left.add(new XmlFormatException(
                    "<" + node.local() + ">"
                            + (node.namespace().isEmpty() ? "" : " of namespace " + node.namespace())
                            + " is not expected here",
                    node.start().getLineNumber(),
                    node.start().getColumnNumber(),
                    path + "/" + node.local(),
                    null));
        }
        return left;
    }

    private void present(Frame around, Node node) {
        frames.push(new Frame(node, around.path + "/" + node.local()));
        place = node.start();
        event = START_ELEMENT;
    }

    @Override
    public int next() {
        if (event == END_ELEMENT) {
            frames.pop();
        }
        Frame top = frames.peek();
        while (top.next < top.node.content().size()) {
            Object item = top.node.content().get(top.next++);
            if (item instanceof Text run) {
                text = run.characters().toString();
                place = run.start();
                event = CHARACTERS;
                return event;
            }
            Node node = (Node) item;
            if (!putOff.contains(key(top, node))) {
                present(top, node);
                return event;
            }
            top.later.add(node);
        }
        place = top.node.end()[0];
        event = frames.size() == 1 ? END_DOCUMENT : END_ELEMENT;
        return event;
    }

    private Node node() {
        return frames.peek().node;
    }

    @Override
    public int getEventType() {
        return event;
    }

    @Override
    public String getLocalName() {
        return node().local();
    }

    @Override
    public String getNamespaceURI() {
        return node().namespace();
    }

    @Override
    public String getNamespaceURI(String prefix) {
        return node().prefixes().get(prefix);
    }

    @Override
    public boolean isWhiteSpace() {
        return Lexical.isBlank(text);
    }

    @Override
    public String getText() {
        return text;
    }

    @Override
    public int getAttributeCount() {
        return node().attributes().size();
    }

    @Override
    public String getAttributeNamespace(int index) {
        return node().attributes().get(index)[0];
    }

    @Override
    public String getAttributeLocalName(int index) {
        return node().attributes().get(index)[1];
    }

    @Override
    public String getAttributeValue(int index) {
        return node().attributes().get(index)[2];
    }

    @Override
    public String getAttributeValue(String namespace, String name) {
        for (String[] attribute : node().attributes()) {
            if (attribute[1].equals(name)) {
                return attribute[2];
            }
        }
        return null;
    }

    @Override
    public Location getLocation() {
        return place;
    }
}
