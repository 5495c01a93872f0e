package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.BiPredicate;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Setting;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Meaning;
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
    private final List<Clash> clashes = new ArrayList<>();
    private final Findings findings;

    ComponentTable(Findings findings) {
        this.findings = findings;
    }

    /**
     * A component of which there was one already.
     *
     * @param kind what it is, in words
     */
    private record Clash(String kind, QName name, Place first, Place place, boolean sameMeaning) {}

    /**
     * Adds a component, unless there is one of its kind and name. Built-in types that a document declares again, as the
     * schema for schemas does, are the built-in ones (XML Schema Part 1, section 3.4.7; Part 2, section 3.1).
     */
    void add(Object component) {
        if (component instanceof SchemaType type) {
            if (!Builtins.isBuiltin(type.name())) {
                add(types, type.name(), type, SchemaType::place, Meaning::of, "type");
            }
        } else if (component instanceof ElementDeclaration element) {
            add(elements, element.name(), element, ElementDeclaration::place, Meaning::of, "element");
        } else if (component instanceof AttributeDeclaration attribute) {
            add(attributes, attribute.name(), attribute, AttributeDeclaration::place, Meaning::of, "attribute");
        } else if (component instanceof ModelGroupDefinition group) {
            add(groups, group.name(), group, ModelGroupDefinition::place, Meaning::of, "group");
        } else if (component instanceof AttributeGroup group) {
            add(attributeGroups, group.name(), group, AttributeGroup::place, Meaning::of, "attribute group");
        } else if (component instanceof Notation notation) {
            add(notations, notation.name(), notation, Notation::place, Meaning::of, "notation");
        }
    }

    /** Two copies of one document declare the same things twice, which is no mistake; the first one counts. */
    private <T> void add(
            Map<QName, T> table,
            QName name,
            T component,
            Function<T, Place> placeOf,
            Function<T, String> meaning,
            String kind) {
        T known = table.putIfAbsent(name, component);
        if (known == null || placeOf.apply(known) == null) {
            return;
        }
        Place first = placeOf.apply(known);
        Place place = placeOf.apply(component);
        if (first.source() == place.source()
                || !first.source().text().equals(place.source().text())) {
            boolean same = meaning.apply(known).equals(meaning.apply(component));
            clashes.add(new Clash(kind, name, first, place, same));
        }
    }

    /**
     * Tells of the components of which there were two. Where somebody made one set of documents, that is a mistake; where
     * two sets have the same namespace, each alone is right, and what they say decides (XML Schema Part 1, section 4.2.3).
     *
     * @param oneSet whether two places are in one set
     */
    void tellClashes(BiPredicate<Place, Place> oneSet) {
        for (Clash clash : clashes) {
            boolean mistake = oneSet.test(clash.first, clash.place);
            String local = clash.name.getLocalPart();
            Place place = clash.place.attribute("name");
            if (mistake && clash.first.source() == clash.place.source()) {
                findings.error(
                        "declared-twice",
                        clash.place,
                        "the " + clash.kind + " " + local + " is declared twice in this document",
                        "keep one of the two declarations");
            } else if (mistake) {
                findings.error(
                        "declared-twice",
                        place,
                        "the " + clash.kind + " " + local + " is declared here and at " + clash.first,
                        "keep one of the two declarations");
            } else if (!clash.sameMeaning) {
                findings.warning(
                        "declared-otherwise",
                        place,
                        "the " + clash.kind + " " + local + " is declared here otherwise than at " + clash.first
                                + ", which holds",
                        "map both addresses to the right document in a catalog (" + Setting.CATALOG
                                + "), or import only that one");
            }
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

    /**
     * Moves a component that is about to be redefined to a name for its old form.
     *
     * @return that name, or null when there is no such component
     */
    QName setAside(String kind, QName name) {
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
            default -> name;
        };
    }

    private static <T> QName setAside(Map<QName, T> table, QName name, BiFunction<T, QName, T> rename) {
        T component = table.remove(name);
        if (component == null) {
            return null;
        }
        int step = 1;
        while (table.containsKey(SchemaComponents.original(name, step))) {
            step++;
        }
        QName original = SchemaComponents.original(name, step);
        table.put(original, rename.apply(component, original));
        return original;
    }

    private static SchemaType renamed(SchemaType type, QName to) {
        return type.map(complex -> renamed(complex, to), simple -> renamed(simple, to));
    }

    private static SimpleType renamed(SimpleType type, QName to) {
        return new SimpleType(
                to, type.variety(), type.base(), type.members(), type.facets(), type.documentation(), type.place());
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
