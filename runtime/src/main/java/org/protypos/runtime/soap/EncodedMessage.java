package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BiFunction;
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
public final class EncodedMessage {
    private static final String ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";
    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";
    private static final QName ROOT = new QName(ENCODING, "root");
    private static final QName ID = new QName("id");

    /** References may multiply what they refer to: a message may grow tenfold, and by so many elements. */
    private static final int MOST_MORE = 100_000;

    /** The largest array whose members say their places. */
    private static final int MOST_MEMBERS = 1_000_000;

    private static final int MOST_DIMENSIONS = 32;

    private final XmlLimits limits;
    private final Map<String, XmlTree> targets = new HashMap<>();
    private final Set<XmlElement<?>> independent = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Set<String> open = new HashSet<>();
    private int elements;
    private long mostElements = MOST_MORE;
    private long characters;

    private EncodedMessage(XmlLimits limits) {
        this.limits = limits;
    }

    /**
     * Gives the same message with references resolved.
     *
     * @throws XmlFormatException when it is not well-formed, a reference leads nowhere or back to itself, or references make it
     *     larger or deeper than the limits allow
     */
    static byte[] literal(byte[] message, String encoding, XmlLimits limits) {
        XmlInput in = XmlInput.open(new ByteArrayInputStream(message), encoding, XmlTypes.NONE, limits);
        XmlElement<?> root = in.wholeTree();
        in.finish();
        if (!(root.value() instanceof XmlTree envelope)) {
            return message;
        }
        EncodedMessage encoded = new EncodedMessage(limits);
        encoded.collect(envelope);
        encoded.leaveOut(envelope);
        return XmlTypes.NONE.write(
                new XmlElement<>(root.name(), encoded.copy(root, envelope, 1).value()));
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
            mostElements += 10;
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
        if (++elements > mostElements) {
            throw XmlFormatException.of("references make the message grow beyond " + mostElements + " elements");
        }
    }

    /** Takes text of the copy, which must not be longer than a message may be that says everything where it stands. */
    private void count(String text) {
        characters += text.length();
        if (characters > limits.bytes()) {
            throw XmlFormatException.of("references make the message grow beyond " + limits.bytes() + " bytes");
        }
    }

    private static String reference(XmlTree tree) {
        String href = tree.attributes().get(new QName("href"));
        return href != null && href.startsWith("#") ? href : null;
    }

    private XmlElement<XmlTree> copy(XmlElement<?> element, XmlTree tree, int depth) {
        count();
        count(element.name().getLocalPart());
        List<String> way = new ArrayList<>();
        XmlTree target = tree;
        for (String href = reference(tree); href != null; href = reference(target)) {
            target = targets.get(href.substring(1));
            if (target == null) {
                throw XmlFormatException.of("the reference \"" + href + "\" leads nowhere");
            }
            if (!open.add(href)) {
                throw XmlFormatException.of("the reference \"" + href + "\" leads back to itself");
            }
            count();
            way.add(href);
        }
        XmlTree copy = content(target, depth);
        if (!way.isEmpty()) {
            way.forEach(open::remove);
            XmlInput.markShared(copy, way.get(way.size() - 1));
        }
        return new XmlElement<>(element.name(), copy);
    }

    private XmlTree content(XmlTree tree, int depth) {
        if (depth > limits.depth()) {
            throw XmlFormatException.of("elements are nested deeper than " + limits.depth() + " levels");
        }
        XmlTree copy = new XmlTree();
        tree.prefixes().forEach((prefix, namespace) -> {
            count(prefix + namespace);
            copy.prefixes().put(prefix, namespace);
        });
        copy.markNil(tree.nil());
        tree.attributes().forEach((name, value) -> {
            if (!servesEncoding(name, value, tree)) {
                count(name.getLocalPart() + value);
                copy.attributes().put(name, value);
            }
        });
        for (Object item : tree.content()) {
            if (item instanceof XmlElement<?> element && element.value() instanceof XmlTree inner) {
                if (!independent.contains(element)) {
                    copy.content().add(copy(element, inner, depth + 1));
                }
            } else {
                count(item instanceof String text ? text : "");
                copy.content().add(item);
            }
        }
        spread(tree, copy);
        return copy;
    }

    /**
     * Puts the members of an array where they say that they are, with what is nil before and between them (SOAP 1.1, sections
     * 5.4.2.1 and 5.4.2.2).
     */
    private void spread(XmlTree array, XmlTree copy) {
        String type = array.attributes().get(new QName(ENCODING, "arrayType"));
        String offset = array.attributes().get(new QName(ENCODING, "offset"));
        List<XmlElement<?>> before = children(array);
        if (offset == null && before.stream().allMatch(member -> attribute(member, ENCODING, "position") == null)) {
            return;
        }
        List<XmlElement<?>> members = children(copy);
        SortedMap<Integer, XmlElement<?>> placed = new TreeMap<>();
        int next = offset == null ? 0 : place(offset, type);
        for (int i = 0; i < members.size(); i++) {
            String position = attribute(before.get(i), ENCODING, "position");
            int at = position == null ? next : place(position, type);
            if (placed.put(at, members.get(i)) != null) {
                throw XmlFormatException.of(
                        "two members of an array are at place " + (position == null ? "[" + at + "]" : position));
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

    /**
     * How many members of an array stand before a place in it: those of a row follow each other (SOAP 1.1, section 5.4.2).
     *
     * @param said the place, such as {@code [2,1]}
     * @param arrayType what the array says of its members and sizes, such as {@code xs:int[4,3]}; null when it says nothing
     * @throws XmlFormatException when the array has no such place
     */
    public static int place(String said, String arrayType) {
        String type = arrayType == null ? "" : arrayType.strip();
        String[] sizes = coordinates(type.isEmpty() ? "[]" : type.substring(Math.max(0, type.lastIndexOf('['))));
        String[] place = coordinates(said.strip());
        boolean known = place.length == sizes.length;
        long before = 0;
        for (int i = 0; i < place.length && known; i++) {
            // How many rows there are need not be known, how long they are must.
            int size = i == 0 ? MOST_MEMBERS : number(sizes[i]);
            int at = number(place[i]);
            before = before * size + at;
            known = at >= 0 && at < size && before < MOST_MEMBERS;
        }
        if (!known) {
            throw XmlFormatException.of("\"" + said + "\" is no place in an array of "
                    + (sizes.length == 1 ? "one dimension" : sizes.length + " dimensions"));
        }
        return (int) before;
    }

    private static String[] coordinates(String place) {
        boolean sound = place.length() > 1 && place.startsWith("[") && place.endsWith("]");
        String[] all = sound ? place.substring(1, place.length() - 1).split(",", MOST_DIMENSIONS) : new String[] {"?"};
        for (int i = 0; i < all.length; i++) {
            all[i] = all[i].strip();
        }
        return all;
    }

    /** A size or a coordinate; -1 for what is none. */
    private static int number(String text) {
        return text.matches("[0-9]{1,6}") ? Integer.parseInt(text) : -1;
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
        // That it is an array is all that tells of what no type says.
        return name.getNamespaceURI().equals(ENCODING) && !name.getLocalPart().equals("arrayType");
    }

    private static String attribute(XmlElement<?> element, String namespace, String name) {
        return element.value() instanceof XmlTree tree ? tree.attributes().get(new QName(namespace, name)) : null;
    }

    /**
     * The elements of a body that are there to be referred to. One is the call or the answer: the one that says so, or the first that
     * has no identifier and does not say that it is none. Others without identifier are parts of it; those with one are not, wherever
     * they stand (SOAP 1.1, sections 5.4.1 and 5.6).
     *
     * @param attribute gives an attribute of an element, or null
     */
    public static <E> Set<E> independent(List<E> body, BiFunction<E, QName, String> attribute) {
        E call = null;
        boolean said = false;
        for (E element : body) {
            String root = attribute.apply(element, ROOT);
            boolean says = "1".equals(root) || "true".equals(root);
            boolean mayBe = root == null && attribute.apply(element, ID) == null;
            call = !said && (says || call == null && mayBe) ? element : call;
            said |= says;
        }
        Set<E> independent = Collections.newSetFromMap(new IdentityHashMap<>());
        for (E element : body) {
            boolean isCall = element == (call == null ? body.get(0) : call);
            if (!isCall && attribute.apply(element, ID) != null) {
                independent.add(element);
            }
        }
        return independent;
    }

    private void leaveOut(XmlTree envelope) {
        for (XmlElement<?> part : children(envelope)) {
            if (part.name().getLocalPart().equals("Body") && part.value() instanceof XmlTree body) {
                independent.addAll(independent(
                        children(body), (one, name) -> attribute(one, name.getNamespaceURI(), name.getLocalPart())));
            }
        }
    }
}
