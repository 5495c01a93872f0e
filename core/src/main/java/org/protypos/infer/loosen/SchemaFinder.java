package org.protypos.infer.loosen;

import java.net.URI;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Finds where in the documents of a contract something is declared. */
final class SchemaFinder {
    private static final int DEEPEST = 20;

    private final Contract contract;
    private final Map<Document, String> targets = new HashMap<>();

    SchemaFinder(Contract contract) {
        this.contract = contract;
    }

    /**
     * What declares a member of a type, or null.
     *
     * @param kind {@code element} or {@code attribute}
     */
    Element member(Element type, QName name, String kind) {
        return member(type, name, kind, true, 0);
    }

    /** What declares an element of a type in the text of the type itself, or null. */
    Element own(Element type, QName name) {
        return member(type, name, "element", false, 0);
    }

    /** The type or the group that a declaration stands in, or null when it is global. */
    static Element home(Element declaration) {
        return home(declaration.document().root(), null, declaration);
    }

    private static Element home(Element at, Element home, Element declaration) {
        boolean holds = at.is(Xml.XSD, "complexType") || at.is(Xml.XSD, "group");
        for (Element child : at.children()) {
            Element found = child == declaration ? (holds ? at : home) : home(child, holds ? at : home, declaration);
            if (found != null) {
                return found;
            }
        }
        return null;
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

    /** What declares an element of a document: in the type of what is around it, or globally; null when nothing does. */
    Element declaration(MessageElement element, CheckedMessage checked) {
        Element around = element.parent() == null ? null : type(element.parent(), checked);
        Element found = around == null ? null : member(around, element.name(), "element");
        if (found != null && found.attribute("ref") == null) {
            return found;
        }
        return global("element", element.name());
    }

    /** The type of an element of a document, as a schema writes it; null for a built-in one. */
    Element type(MessageElement element, CheckedMessage checked) {
        TypeModel type = element == null ? null : checked.types().get(element);
        return type == null || type.place() == null ? null : at(type.place());
    }

    /** Whether an element of a document says that it is of a type that no schema has. */
    boolean isOfUnknownType(MessageElement element) {
        String said = element == null ? null : element.attribute(Xml.XSI, "type");
        QName name = said == null ? null : element.resolve(said.strip());
        return name != null
                && !name.getNamespaceURI().equals(Xml.XSD)
                && global("complexType", name) == null
                && global("simpleType", name) == null;
    }

    /** What a type derives from another by, or null. */
    static Element derivation(Element type) {
        for (String inside : List.of("complexContent", "simpleContent", "extension", "restriction")) {
            Element child = type.child(Xml.XSD, inside);
            if (child != null) {
                return child;
            }
        }
        return null;
    }

    /** What stands first in an element but for what is said of it, or null. */
    static Element first(Element element) {
        return element.children().stream()
                .filter(child -> !child.is(Xml.XSD, "annotation"))
                .findFirst()
                .orElse(null);
    }

    /** A name that no type of a namespace has yet. */
    QName freeType(String namespace, String element) {
        String wanted = element.substring(0, 1).toUpperCase(Locale.ROOT) + element.substring(1);
        QName name = new QName(namespace, wanted);
        for (int i = 2; global("simpleType", name) != null || global("complexType", name) != null; i++) {
            name = new QName(namespace, wanted + i);
        }
        return name;
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

    /** The namespace of a schema: its own, or, where it has none, that of one which includes it (XML Schema Part 1, section 4.2.1). */
    String target(Element schema) {
        String target = schema.attribute("targetNamespace");
        return target != null ? target : targets.computeIfAbsent(schema.document(), this::includer);
    }

    private String includer(Document included) {
        for (Document document : contract.documents().all()) {
            Element root = document.root();
            String target = root == null || document == included ? null : root.attribute("targetNamespace");
            for (Element child : target == null ? List.<Element>of() : root.children()) {
                String location = child.attribute("schemaLocation");
                boolean takes = child.is(Xml.XSD, "include") || child.is(Xml.XSD, "redefine");
                if (takes && location != null && isAt(document.location(), location.strip(), included)) {
                    return target;
                }
            }
        }
        return "";
    }

    private static boolean isAt(URI from, String location, Document document) {
        try {
            return from.resolve(location).equals(document.location());
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    /** What declares a member of a type: inside, or also in a group or in what the type extends. */
    private Element member(Element type, QName name, String kind, boolean elsewhere, int depth) {
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
                found = member(child, name, kind, elsewhere, depth + 1);
                found = found == null && elsewhere ? elsewhere(child, name, kind, depth) : found;
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
        return there == null ? null : member(there, name, kind, true, depth + 1);
    }
}
