package org.protypos.message.tree;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.runtime.value.Lexical;
import org.protypos.source.Xml;

/**
 * An element of a message: attributes, text and elements as they came, each with its place, and the types that a check
 * found for them.
 */
public final class MessageElement {
    private final QName name;
    private final Place place;
    private MessageElement parent;
    // Elements are many, and most of them have none of either.
    private Map<String, String> prefixes;
    private Map<QName, String> attributes;
    private final List<Object> content = new ArrayList<>();
    private Map<MessageElement, String> numbers;
    private int numbered;

    /**
     * Makes an element.
     *
     * @param place where it stands, or null for one that was made up
     */
    public MessageElement(QName name, Place place) {
        this.name = name;
        this.place = place;
    }

    /** Its expanded name. */
    public QName name() {
        return name;
    }

    /** Where its start tag stands, or null. */
    public Place place() {
        return place;
    }

    /** Where one of its attributes stands; the start tag when that cannot be told, null for what was made up. */
    public Place place(QName attribute) {
        return place == null ? null : place.attribute(attribute.getLocalPart());
    }

    /** The element around it, or null. */
    public MessageElement parent() {
        return parent;
    }

    /** The prefixes that it declares; may be added to. */
    public Map<String, String> prefixes() {
        prefixes = prefixes == null ? new LinkedHashMap<>() : prefixes;
        return prefixes;
    }

    /** Its attributes, namespace declarations not among them; may be added to. */
    public Map<QName, String> attributes() {
        attributes = attributes == null ? new LinkedHashMap<>() : attributes;
        return attributes;
    }

    /** An attribute's value, or null. */
    public String attribute(String namespace, String local) {
        return attributes == null ? null : attributes.get(new QName(namespace, local));
    }

    /** Its content in order: {@link String} for text, {@link MessageElement} for elements. */
    public List<Object> content() {
        return content;
    }

    /** Adds an element at the end. */
    public void add(MessageElement child) {
        child.parent = this;
        content.add(child);
    }

    /** Puts an element in the place of another one that is in it. */
    public void replace(MessageElement child, MessageElement other) {
        other.parent = this;
        content.set(content.indexOf(child), other);
        numbers = null;
    }

    /** Adds text at the end. */
    public void add(String text) {
        int last = content.size() - 1;
        if (last >= 0 && content.get(last) instanceof String before) {
            content.set(last, before + text);
        } else if (!text.isEmpty()) {
            content.add(text);
        }
    }

    /** Puts text in place of all content. */
    public void setText(String text) {
        content.clear();
        add(text);
    }

    /** The elements in it. */
    public List<MessageElement> children() {
        List<MessageElement> children = new ArrayList<>();
        for (Object item : content) {
            if (item instanceof MessageElement child) {
                children.add(child);
            }
        }
        return children;
    }

    /** The text in it, without that of the elements in it. */
    public String text() {
        StringBuilder text = new StringBuilder();
        for (Object item : content) {
            if (item instanceof String part) {
                text.append(part);
            }
        }
        return text.toString();
    }

    /** Whether it says that it is nil (XML Schema Part 1, section 2.6.2). */
    public boolean isNil() {
        String nil = attribute(Xml.XSI, "nil");
        return nil != null && List.of("true", "1").contains(Lexical.collapse(nil));
    }

    /** The namespace that a prefix stands for here, or null; the empty prefix stands for the default namespace. */
    public String namespaceOf(String prefix) {
        for (MessageElement element = this; element != null; element = element.parent) {
            String namespace = element.prefixes == null ? null : element.prefixes.get(prefix);
            if (namespace != null) {
                return namespace;
            }
        }
        return prefix.equals("xml") ? Xml.XML : null;
    }

    /** The name that a prefixed text stands for here, or null when its prefix is not declared. */
    public QName resolve(String prefixed) {
        int colon = prefixed.indexOf(':');
        String namespace = namespaceOf(colon < 0 ? "" : prefixed.substring(0, colon));
        if (namespace == null && colon >= 0) {
            return null;
        }
        return new QName(namespace == null ? "" : namespace, prefixed.substring(colon + 1));
    }

    /** The way from the root, such as {@code /requestBerth/needs[2]}: local names, numbered where several are alike. */
    public String path() {
        StringBuilder path = new StringBuilder();
        for (MessageElement element = this; element != null; element = element.parent) {
            path.insert(0, "/" + element.name.getLocalPart() + element.number());
        }
        return path.toString();
    }

    private String number() {
        if (parent == null) {
            return "";
        }
        if (parent.numbers == null || parent.numbered != parent.content.size()) {
            parent.numberChildren();
        }
        return parent.numbers.getOrDefault(this, "");
    }

    /** Numbers the elements of which several are alike, all at once: whoever asks for one asks for many, as a rule. */
    private void numberChildren() {
        numbers = new IdentityHashMap<>();
        numbered = content.size();
        Map<QName, List<MessageElement>> alike = new HashMap<>();
        children().forEach(child -> alike.computeIfAbsent(child.name, any -> new ArrayList<>())
                .add(child));
        for (List<MessageElement> all : alike.values()) {
            for (int i = 0; i < all.size() && all.size() > 1; i++) {
                numbers.put(all.get(i), "[" + (i + 1) + "]");
            }
        }
    }
}
