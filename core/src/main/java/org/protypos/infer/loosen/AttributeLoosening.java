package org.protypos.infer.loosen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.authoring.Markup;
import org.protypos.infer.ValueKind;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Gives types the attributes that they have not; an element of a simple type gets a type with simple content around it. */
final class AttributeLoosening {
    private final SchemaFinder finder;
    private final SchemaEdits edits;
    private final SchemaReferences references;

    /** The attributes that elements of simple types come to have, as they are written. */
    private final Map<Element, List<String[]>> onValues = new LinkedHashMap<>();

    AttributeLoosening(SchemaFinder finder, SchemaEdits edits, SchemaReferences references) {
        this.finder = finder;
        this.edits = edits;
        this.references = references;
    }

    /**
     * Gives an attribute a place.
     *
     * @param type the complex type that is to have it as a schema writes it, or null for one that is not complex
     * @return whether that can be
     */
    boolean add(Deviation.Cause cause, Element type, CheckedMessage checked) {
        if (type != null) {
            return add(cause, type);
        }
        MessageElement element = cause.around();
        Element declared = element.attribute(Xml.XSI, "type") == null ? finder.declaration(element, checked) : null;
        if (declared == null || !isOfSimpleType(declared)) {
            return false;
        }
        if (edits.once(declared, "@" + cause.name())) {
            String[] attribute = attribute(declared, cause);
            if (attribute != null) {
                onValues.computeIfAbsent(declared, none -> new ArrayList<>()).add(attribute);
            }
        }
        return true;
    }

    private static boolean isOfSimpleType(Element declared) {
        return declared.attribute("type") != null || declared.child(Xml.XSD, "simpleType") != null;
    }

    private boolean add(Deviation.Cause cause, Element type) {
        if (!edits.once(type, "@" + cause.name())) {
            return true;
        }
        String[] attribute = attribute(type, cause);
        if (attribute == null) {
            return true;
        }
        String line = line(type, attribute);
        Element into = type;
        for (Element child = type; child != null; child = SchemaFinder.derivation(into)) {
            into = child;
        }
        Element any = into.child(Xml.XSD, "anyAttribute");
        if (any == null) {
            edits.of(into).append(into, line);
        } else {
            edits.of(into).before(any, line);
        }
        return true;
    }

    private static String line(Element at, String[] attribute) {
        return Markup.fragment()
                .empty(SchemaEdits.tag(at, "attribute"), attribute)
                .toString();
    }

    /** Declares it, or refers to its declaration; null when it comes to be declared only now. */
    private String[] attribute(Element at, Deviation.Cause cause) {
        QName name = cause.name();
        Element schema = at.document().root();
        String namespace = name.getNamespaceURI();
        if (namespace.isEmpty() || namespace.equals(finder.target(schema))) {
            return declaration(at, cause, namespace.isEmpty() ? null : "qualified");
        }
        Element known = finder.global("attribute", name);
        if (known != null) {
            references.imports(schema, known.document().root());
            return SchemaReferences.reference(at, "ref", name);
        }
        Element home = references.schema(namespace, schema);
        if (home != null && edits.once(home, "@" + name)) {
            edits.of(home).append(home, line(home, declaration(home, cause, null)));
        }
        return null;
    }

    private static String[] declaration(Element at, Deviation.Cause cause, String form) {
        String type = SchemaEdits.tag(at, ValueKind.of(cause.text()).type().local());
        return new String[] {"name", cause.name().getLocalPart(), "type", type, "form", form};
    }

    /** Puts a type with simple content around the simple ones whose elements have attributes. */
    void finish() {
        onValues.forEach((declared, attributes) -> {
            Element inline = declared.child(Xml.XSD, "simpleType");
            // What else is said otherwise of it comes first, and this in the next round.
            if (inline == null ? edits.once(declared, "type") : edits.leave(declared)) {
                around(declared, inline, attributes);
            }
        });
    }

    private void around(Element declared, Element inline, List<String[]> attributes) {
        String[] base;
        if (inline == null) {
            base = new String[] {"base", declared.attribute("type").strip()};
            edits.of(declared).remove(declared, "type");
        } else {
            Element schema = declared.document().root();
            QName name = finder.freeType(finder.target(schema), declared.attribute("name"));
            base = SchemaReferences.reference(declared, "base", name);
            if (base == null) {
                return;
            }
            String text = edits.of(declared).cut(inline);
            String tag = "<" + SchemaEdits.tag(declared, "simpleType");
            edits.of(declared)
                    .append(schema, tag + " name=\"" + name.getLocalPart() + "\"" + text.substring(tag.length()));
        }
        Markup lines = Markup.fragment()
                .open(SchemaEdits.tag(declared, "complexType"))
                .open(SchemaEdits.tag(declared, "simpleContent"))
                .open(SchemaEdits.tag(declared, "extension"), base);
        attributes.forEach(attribute -> lines.empty(SchemaEdits.tag(declared, "attribute"), attribute));
        lines.close(SchemaEdits.tag(declared, "extension"))
                .close(SchemaEdits.tag(declared, "simpleContent"))
                .close(SchemaEdits.tag(declared, "complexType"));
        List<Element> keys = declared.children().stream()
                .filter(child -> !child.is(Xml.XSD, "annotation") && child != inline)
                .toList();
        if (keys.isEmpty()) {
            edits.of(declared).append(declared, lines.toString());
        } else {
            edits.of(declared).before(keys.get(0), lines.toString());
        }
    }
}
