package org.protypos.infer;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Finds where in the documents of a contract something is declared. */
final class SchemaFinder {
    private static final int DEEPEST = 20;

    private final Contract contract;

    SchemaFinder(Contract contract) {
        this.contract = contract;
    }

    /**
     * What declares a member of a type, or null.
     *
     * @param kind {@code element} or {@code attribute}
     */
    Element member(Element type, QName name, String kind) {
        return member(type, name, kind, 0);
    }

    /** The element of a schema that a place is in. */
    Element at(Place place) {
        if (place == null) {
            return null;
        }
        for (Document document : contract.documents().all()) {
            if (document.text() == place.source()) {
                return at(document.root(), place.offset());
            }
        }
        return null;
    }

    private static Element at(Element element, int offset) {
        Element found = element.place().offset() == offset ? element : null;
        for (Element child : element.children()) {
            if (child.place().offset() <= offset) {
                Element inside = at(child, offset);
                found = inside == null ? found : inside;
            }
        }
        return found;
    }

    Element global(String kind, QName name) {
        for (Element schema : schemas(name.getNamespaceURI())) {
            for (Element child : schema.children(Xml.XSD, kind)) {
                if (name.getLocalPart().equals(child.attribute("name"))) {
                    return child;
                }
            }
        }
        return null;
    }

    /** The schemas of a namespace, each the root of its document. */
    List<Element> schemas(String namespace) {
        return contract.documents().all().stream()
                .map(Document::root)
                .filter(root -> root != null
                        && root.is(Xml.XSD, "schema")
                        && target(root).equals(namespace))
                .toList();
    }

    static String target(Element schema) {
        String target = schema.attribute("targetNamespace");
        return target == null ? "" : target;
    }

    /** What declares a member of a type: inside, in a group, or in what the type extends. */
    private Element member(Element type, QName name, String kind, int depth) {
        if (depth > DEEPEST) {
            return null;
        }
        for (Element child : type.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            Element found;
            if (child.name().equals(kind)) {
                String ref = child.attribute("ref");
                boolean meant = ref == null
                        ? name.getLocalPart().equals(child.attribute("name"))
                        : name.equals(child.resolve(ref.strip()));
                found = meant ? child : null;
            } else if (child.name().equals("element") || child.name().equals("annotation")) {
                found = null;
            } else {
                found = member(child, name, kind, depth + 1);
                found = found == null ? elsewhere(child, name, kind, depth) : found;
            }
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    private Element elsewhere(Element child, QName name, String kind, int depth) {
        String told = child.attribute(child.name().equals("extension") ? "base" : "ref");
        QName to = told == null ? null : child.resolve(told.strip());
        Element there = to == null
                ? null
                : switch (child.name()) {
                    case "extension" -> global("complexType", to);
                    case "group" -> global("group", to);
                    case "attributeGroup" -> global("attributeGroup", to);
                    default -> null;
                };
        return there == null ? null : member(there, name, kind, depth + 1);
    }
}
