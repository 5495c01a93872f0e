package org.protypos.schema.parse;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Notation;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;

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
            add(types, type.name(), type, SchemaType::place, "type");
        } else if (component instanceof ElementDeclaration element) {
            add(elements, element.name(), element, ElementDeclaration::place, "element");
        } else if (component instanceof AttributeDeclaration attribute) {
            add(attributes, attribute.name(), attribute, AttributeDeclaration::place, "attribute");
        } else if (component instanceof ModelGroupDefinition group) {
            add(groups, group.name(), group, ModelGroupDefinition::place, "group");
        } else if (component instanceof AttributeGroup group) {
            add(attributeGroups, group.name(), group, AttributeGroup::place, "attribute group");
        } else if (component instanceof Notation notation) {
            add(notations, notation.name(), notation, Notation::place, "notation");
        }
    }

    /** Two copies of one document declare the same things twice, which is no mistake; the first one counts. */
    private <T> void add(Map<QName, T> table, QName name, T component, Function<T, Place> placeOf, String kind) {
        T known = table.putIfAbsent(name, component);
        if (known == null) {
            return;
        }
        Place first = placeOf.apply(known);
        Place place = placeOf.apply(component);
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

    /** Forgets a component that another is about to take the place of; tells whether there was one. */
    boolean remove(String kind, QName name) {
        Map<QName, ?> from =
                switch (kind) {
                    case "simpleType", "complexType" -> types;
                    case "element" -> elements;
                    case "attribute" -> attributes;
                    case "group" -> groups;
                    case "attributeGroup" -> attributeGroups;
                    default -> notations;
                };
        return from.remove(name) != null;
    }

    /** Moves a component that is about to be redefined to the name of its old form; tells whether there was one. */
    boolean setAside(String kind, QName name) {
        return switch (kind) {
            case "simpleType", "complexType" -> setAside(types, name, ComponentTable::renamed);
            case "group" ->
                setAside(
                        groups,
                        name,
                        (group, to) ->
                                new ModelGroupDefinition(to, group.group(), group.documentation(), group.place()));
            case "attributeGroup" ->
                setAside(
                        attributeGroups,
                        name,
                        (group, to) ->
                                new AttributeGroup(to, group.attributes(), group.documentation(), group.place()));
            default -> true;
        };
    }

    private static <T> boolean setAside(Map<QName, T> table, QName name, BiFunction<T, QName, T> rename) {
        T component = table.remove(name);
        if (component == null) {
            return false;
        }
        QName original = SchemaComponents.original(name);
        if (table.containsKey(original)) {
            setAside(table, original, rename);
        }
        table.put(original, rename.apply(component, original));
        return true;
    }

    private static SchemaType renamed(SchemaType type, QName to) {
        return type instanceof SimpleType simple
                ? new SimpleType(
                        to,
                        simple.variety(),
                        simple.base(),
                        simple.members(),
                        simple.facets(),
                        simple.documentation(),
                        simple.place())
                : renamed((ComplexType) type, to);
    }

    private static ComplexType renamed(ComplexType type, QName to) {
        return new ComplexType(
                to,
                type.isAbstract(),
                type.mixed(),
                type.derivation(),
                type.base(),
                type.content(),
                type.attributes(),
                type.block(),
                type.documentation(),
                type.place());
    }
}
