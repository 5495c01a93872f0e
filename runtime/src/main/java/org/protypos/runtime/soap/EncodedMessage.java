package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;

/**
 * Brings a message in the SOAP encoding (SOAP 1.1, section 5) into the form of a literal one: what is said once and
 * referred to is put where it is referred to, and attributes that only serve the encoding are taken off.
 */
final class EncodedMessage {
    private static final String ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";
    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";

    /** References may multiply what they refer to: a message may grow to so many elements. */
    private static final int MOST_ELEMENTS = 1_000_000;

    private final Map<String, XmlTree> targets = new HashMap<>();
    private final Set<String> open = new HashSet<>();
    private int elements;

    private EncodedMessage() {}

    /**
     * Gives the same message with references resolved.
     *
     * @throws XmlFormatException when it is not well-formed, or a reference leads nowhere or back to itself
     */
    static byte[] literal(byte[] message, String encoding, XmlLimits limits) {
        XmlInput in = XmlInput.open(new ByteArrayInputStream(message), encoding, XmlTypes.NONE, limits);
        XmlElement<?> root = in.wholeTree();
        in.finish();
        if (!(root.value() instanceof XmlTree envelope)) {
            return message;
        }
        EncodedMessage encoded = new EncodedMessage();
        encoded.collect(envelope);
        XmlTree copy = encoded.copy(envelope);
        dropIndependent(envelope, copy);
        return XmlTypes.NONE.write(new XmlElement<>(root.name(), copy));
    }

    private static List<XmlElement<?>> children(XmlTree tree) {
        List<XmlElement<?>> children = new ArrayList<>();
        for (Object item : tree.content()) {
            if (item instanceof XmlElement<?> element) {
                children.add(element);
            }
        }
        return children;
    }

    private void collect(XmlTree root) {
        Deque<XmlTree> pending = new ArrayDeque<>(List.of(root));
        while (!pending.isEmpty()) {
            XmlTree tree = pending.pop();
            String id = tree.attributes().get(new QName("id"));
            if (id != null && targets.putIfAbsent(id, tree) != null) {
                throw XmlFormatException.of("the id \"" + id + "\" is there twice");
            }
            for (XmlElement<?> child : children(tree)) {
                if (child.value() instanceof XmlTree inner) {
                    pending.push(inner);
                }
            }
        }
    }

    private void count() {
        if (++elements > MOST_ELEMENTS) {
            throw XmlFormatException.of("references make the message grow beyond " + MOST_ELEMENTS + " elements");
        }
    }

    private XmlTree copy(XmlTree tree) {
        count();
        String href = tree.attributes().get(new QName("href"));
        if (href != null && href.startsWith("#")) {
            XmlTree target = targets.get(href.substring(1));
            if (target == null) {
                throw XmlFormatException.of("the reference \"" + href + "\" leads nowhere");
            }
            if (!open.add(href)) {
                throw XmlFormatException.of("the reference \"" + href + "\" leads back to itself");
            }
            XmlTree found = copy(target);
            open.remove(href);
            XmlInput.markShared(found, href);
            return found;
        }
        XmlTree copy = new XmlTree();
        copy.prefixes().putAll(tree.prefixes());
        copy.markNil(tree.nil());
        tree.attributes().forEach((name, value) -> {
            if (!servesEncoding(name, value, tree)) {
                copy.attributes().put(name, value);
            }
        });
        for (Object item : tree.content()) {
            copy.content()
                    .add(
                            item instanceof XmlElement<?> element && element.value() instanceof XmlTree inner
                                    ? new XmlElement<>(element.name(), copy(inner))
                                    : item);
        }
        spread(tree, copy);
        return copy;
    }

    /**
     * Puts the members of an array where they say that they are, with what is nil before and between them (SOAP 1.1, sections
     * 5.4.2.1 and 5.4.2.2).
     */
    private void spread(XmlTree array, XmlTree copy) {
        String offset = array.attributes().get(new QName(ENCODING, "offset"));
        List<XmlElement<?>> before = children(array);
        if (offset == null && before.stream().allMatch(member -> attribute(member, ENCODING, "position") == null)) {
            return;
        }
        List<XmlElement<?>> members = children(copy);
        SortedMap<Integer, XmlElement<?>> placed = new TreeMap<>();
        int next = offset == null ? 0 : place(offset);
        for (int i = 0; i < members.size(); i++) {
            String position = attribute(before.get(i), ENCODING, "position");
            int at = position == null ? next : place(position);
            if (placed.put(at, members.get(i)) != null) {
                throw XmlFormatException.of("two members of an array are at place [" + at + "]");
            }
            next = at + 1;
        }
        copy.content().clear();
        for (int i = 0; !placed.isEmpty() && i <= placed.lastKey(); i++) {
            XmlElement<?> member = placed.get(i);
            if (member == null) {
                count();
                XmlTree nil = new XmlTree();
                nil.markNil(true);
                member = new XmlElement<>(members.get(0).name(), nil);
            }
            copy.content().add(member);
        }
    }

    /** The place that an array of one dimension is said to have for a member. */
    private static int place(String said) {
        String place = said.strip();
        if (!place.matches("\\[[0-9]{1,6}\\]")) {
            throw XmlFormatException.of("\"" + said + "\" is no place in an array of one dimension");
        }
        return Integer.parseInt(place.substring(1, place.length() - 1));
    }

    private static boolean servesEncoding(QName name, String value, XmlTree tree) {
        if (name.getNamespaceURI().isEmpty() && name.getLocalPart().equals("id")) {
            return true;
        }
        if (name.getNamespaceURI().equals(XSI) && name.getLocalPart().equals("type")) {
            int colon = value.indexOf(':');
            return colon > 0
                    && ENCODING.equals(
                            tree.prefixes().get(value.substring(0, colon).trim()));
        }
        return name.getNamespaceURI().equals(ENCODING);
    }

    /** Which element is the call: the one that says so, or the first that neither is referred to nor says that it is none. */
    private static int root(List<XmlElement<?>> body) {
        int first = -1;
        for (int i = 0; i < body.size(); i++) {
            String root = attribute(body.get(i), ENCODING, "root");
            if ("1".equals(root) || "true".equals(root)) {
                return i;
            }
            boolean mayBe = root == null && attribute(body.get(i), "", "id") == null;
            first = first < 0 && mayBe ? i : first;
        }
        return Math.max(first, 0);
    }

    private static String attribute(XmlElement<?> element, String namespace, String name) {
        return element.value() instanceof XmlTree tree ? tree.attributes().get(new QName(namespace, name)) : null;
    }

    /**
     * One element in the body is the call or the answer, or with others that have no identifier a part of it; those with one are
     * there to be referred to, wherever they stand (SOAP 1.1, sections 5.4.1 and 5.6).
     */
    private static void dropIndependent(XmlTree original, XmlTree envelope) {
        List<XmlElement<?>> before = children(original);
        List<XmlElement<?>> copies = children(envelope);
        for (int i = 0; i < copies.size(); i++) {
            if (copies.get(i).name().getLocalPart().equals("Body")
                    && before.get(i).value() instanceof XmlTree were
                    && copies.get(i).value() instanceof XmlTree body) {
                List<XmlElement<?>> inBody = children(body);
                List<XmlElement<?>> independent = new ArrayList<>();
                List<XmlElement<?>> all = children(were);
                int root = root(all);
                for (int j = 0; j < all.size(); j++) {
                    if (j != root && attribute(all.get(j), "", "id") != null) {
                        independent.add(inBody.get(j));
                    }
                }
                body.content().removeIf(item -> independent.stream().anyMatch(one -> one == item));
            }
        }
    }
}
