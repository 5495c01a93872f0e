package org.protypos.schema.parse;

import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Notation;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;

/** The components read so far, one table for each symbol space (XML Schema Part 1, section 2.5). */
final class ComponentTable {
    final Map<QName, SchemaType> types = new LinkedHashMap<>();
    final Map<QName, ElementDeclaration> elements = new LinkedHashMap<>();
    final Map<QName, AttributeDeclaration> attributes = new LinkedHashMap<>();
    final Map<QName, ModelGroupDefinition> groups = new LinkedHashMap<>();
    final Map<QName, AttributeGroup> attributeGroups = new LinkedHashMap<>();
    final Map<QName, Notation> notations = new LinkedHashMap<>();
    private final Findings findings;

    ComponentTable(Findings findings) {
        this.findings = findings;
    }

    void add(Object component) {
        if (component instanceof SchemaType type) {
            add(types, type.name(), type, type.place(), "type");
        } else if (component instanceof ElementDeclaration element) {
            add(elements, element.name(), element, element.place(), "element");
        } else if (component instanceof AttributeDeclaration attribute) {
            add(attributes, attribute.name(), attribute, attribute.place(), "attribute");
        } else if (component instanceof ModelGroupDefinition group) {
            add(groups, group.name(), group, group.place(), "group");
        } else if (component instanceof AttributeGroup group) {
            add(attributeGroups, group.name(), group, group.place(), "attribute group");
        } else if (component instanceof Notation notation) {
            add(notations, notation.name(), notation, notation.place(), "notation");
        }
    }

    /** Two copies of one document declare the same things twice, which is no mistake; the first one counts. */
    private <T> void add(Map<QName, T> table, QName name, T component, Place place, String kind) {
        T known = table.putIfAbsent(name, component);
        if (known == null) {
            return;
        }
        Place first = placeOf(known);
        if (first != null && !first.source().text().equals(place.source().text())) {
            findings.error(
                    "declared-twice",
                    place.towards("name=").towards("name"),
                    "the " + kind + " " + name.getLocalPart() + " is declared here and at " + first,
                    "keep one of the two declarations");
        } else if (first != null && first.source() == place.source()) {
            findings.error(
                    "declared-twice",
                    place,
                    "the " + kind + " " + name.getLocalPart() + " is declared twice in this document",
                    "keep one of the two declarations");
        }
    }

    private static Place placeOf(Object component) {
        return component instanceof SchemaType type
                ? type.place()
                : component instanceof ElementDeclaration element
                        ? element.place()
                        : component instanceof AttributeDeclaration attribute
                                ? attribute.place()
                                : component instanceof ModelGroupDefinition group
                                        ? group.place()
                                        : component instanceof AttributeGroup group
                                                ? group.place()
                                                : ((Notation) component).place();
    }

    /** Moves a component that is about to be redefined to the name of its old form; tells whether there was one. */
    boolean setAside(String kind, QName name) {
        return switch (kind) {
            case "simpleType", "complexType" -> setAside(types, name);
            case "group" -> setAside(groups, name);
            case "attributeGroup" -> setAside(attributeGroups, name);
            default -> true;
        };
    }

    private <T> boolean setAside(Map<QName, T> table, QName name) {
        T component = table.remove(name);
        if (component == null) {
            return false;
        }
        QName original = SchemaComponents.original(name);
        if (table.containsKey(original)) {
            setAside(table, original);
        }
        table.put(original, component);
        return true;
    }
}
