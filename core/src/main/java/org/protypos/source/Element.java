package org.protypos.source;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * An element of a contract document with its place. Text is kept inside documentation and binding declarations, where it
 * means something, and where it means nothing to anybody, to be told; inside of what is for applications only binding
 * declarations are kept at all.
 */
public final class Element {
    private final Document document;
    private final int offset;
    private final String namespace;
    private final String name;
    private final String[] attributes;
    private final Scope scope;
    private List<Element> children = List.of();
    private String text = "";

    /** Attributes come in threes: namespace, local name, value. */
    Element(Document document, int offset, String namespace, String name, String[] attributes, Scope scope) {
        this.document = document;
        this.offset = offset;
        this.namespace = namespace;
        this.name = name;
        this.attributes = attributes;
        this.scope = scope;
    }

    void add(Element child) {
        if (children.isEmpty()) {
            children = new ArrayList<>(4);
        }
        children.add(child);
    }

    Scope scope() {
        return scope;
    }

    void setText(String value) {
        text = value;
    }

    /** The document it stands in. */
    public Document document() {
        return document;
    }

    /** Where its start tag begins. */
    public Place place() {
        return document.text().at(offset);
    }

    /** Where one of its attributes stands; the start tag if it has no such attribute. */
    public Place place(String attribute) {
        return place().attribute(attribute);
    }

    /** The namespace of its name, empty for none. */
    public String namespace() {
        return namespace;
    }

    /** Its local name. */
    public String name() {
        return name;
    }

    /** Whether it has this name. */
    public boolean is(String wantedNamespace, String wantedName) {
        return name.equals(wantedName) && namespace.equals(wantedNamespace);
    }

    /** The child elements in their order. */
    public List<Element> children() {
        return Collections.unmodifiableList(children);
    }

    /** The child elements of one name. */
    public List<Element> children(String wantedNamespace, String wantedName) {
        List<Element> found = new ArrayList<>();
        for (Element child : children) {
            if (child.is(wantedNamespace, wantedName)) {
                found.add(child);
            }
        }
        return found;
    }

    /** The first child element of one name, or null. */
    public Element child(String wantedNamespace, String wantedName) {
        for (Element child : children) {
            if (child.is(wantedNamespace, wantedName)) {
                return child;
            }
        }
        return null;
    }

    /** The value of an attribute in no namespace, or null. */
    public String attribute(String wanted) {
        return attribute("", wanted);
    }

    /** The value of an attribute, or null. */
    public String attribute(String wantedNamespace, String wanted) {
        for (int i = 0; i < attributes.length; i += 3) {
            if (attributes[i + 1].equals(wanted) && attributes[i].equals(wantedNamespace)) {
                return attributes[i + 2];
            }
        }
        return null;
    }

    /** The local names of the attributes in no namespace. */
    public List<String> attributeNames() {
        List<String> names = new ArrayList<>();
        for (int i = 0; i < attributes.length; i += 3) {
            if (attributes[i].isEmpty()) {
                names.add(attributes[i + 1]);
            }
        }
        return names;
    }

    /**
     * The name that a prefixed text stands for here.
     *
     * @return the name, or null when its prefix is not declared; a text without prefix gets the default namespace
     */
    public QName resolve(String prefixed) {
        int colon = prefixed.indexOf(':');
        String prefix = colon < 0 ? "" : prefixed.substring(0, colon);
        String uri = scope.namespace(prefix);
        if (uri == null && colon >= 0) {
            return null;
        }
        return new QName(uri == null ? "" : uri, prefixed.substring(colon + 1));
    }

    /** The namespace that a prefix stands for here, or null; the empty prefix stands for the default namespace. */
    public String namespaceOf(String prefix) {
        return scope.namespace(prefix);
    }

    /** A prefix, not the empty one, that stands for a namespace here, or null. */
    public String prefixOf(String namespace) {
        return scope.prefix(namespace);
    }

    /** Takes more text. */
    void addText(String more) {
        text += more;
    }

    /** The text of a documentation element or a binding declaration, markup left out; of others what text they should not have. */
    public String text() {
        return text;
    }
}
