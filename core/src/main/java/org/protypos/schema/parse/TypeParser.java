package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.Attributes;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Turns type definitions into components. */
final class TypeParser {
    private final SchemaScope scope;
    private final ComponentParser components;

    TypeParser(SchemaScope scope, ComponentParser components) {
        this.scope = scope;
        this.components = components;
    }

    ComplexType complexType(Element element, QName name) {
        Element simple = element.child(Xml.XSD, "simpleContent");
        Element complex = element.child(Xml.XSD, "complexContent");
        Element content = simple != null ? simple : complex;
        Element derivation = content == null ? null : derivation(content);
        // What the content says of itself counts more, and text alone has nothing to mix (XML Schema Part 1, section
        // 3.4.2).
        boolean own = complex != null && complex.attribute("mixed") != null;
        boolean text = derivation != null && (simple != null || scope.notes().isText(element));
        boolean mixed = !text && SchemaScope.flag(own ? complex : element, "mixed");
        Place place = element.place();
        if (derivation == null) {
            return new ComplexType(
                    name,
                    SchemaScope.flag(element, "abstract"),
                    mixed,
                    ComplexType.Derivation.RESTRICTION,
                    TypeReference.to(SchemaComponents.ANY_TYPE, place),
                    new ComplexType.ElementContent(model(element)),
                    components.attributes(element),
                    scope.block(element),
                    SchemaScope.documentation(element),
                    place);
        }
        ComplexType type = new ComplexType(
                name,
                SchemaScope.flag(element, "abstract"),
                mixed,
                derivation.name().equals("extension")
                        ? ComplexType.Derivation.EXTENSION
                        : ComplexType.Derivation.RESTRICTION,
                type(derivation, "base", false),
                text ? simpleContent(derivation) : new ComplexType.ElementContent(model(derivation)),
                components.attributes(derivation),
                scope.block(element),
                SchemaScope.documentation(element),
                place);
        if (SchemaComponents.ANY_TYPE.equals(type.base().name()) && ReadingNotes.addsNoElements(type)) {
            return anything(type);
        }
        if (ReadingNotes.isEmptyExtension(type)) {
            scope.notes().add(element, type);
        }
        return type;
    }

    /** What extends {@code xs:anyType} by attributes alone has its content, as if it had said so (section 3.4.7). */
    private static ComplexType anything(ComplexType type) {
        Wildcard any = Wildcard.anything(type.place());
        Particle content = new Particle(any, 0, Particle.UNBOUNDED);
        return new ComplexType(
                type.name(),
                type.isAbstract(),
                true,
                ComplexType.Derivation.RESTRICTION,
                type.base(),
                new ComplexType.ElementContent(new Particle(
                        new ModelGroup(ModelGroup.Compositor.SEQUENCE, List.of(content), type.place()), 1, 1)),
                new Attributes(type.attributes().uses(), type.attributes().groups(), any),
                type.block(),
                type.documentation(),
                type.place());
    }

    private Element derivation(Element content) {
        Element extension = content.child(Xml.XSD, "extension");
        Element found = extension != null ? extension : content.child(Xml.XSD, "restriction");
        if (found == null || found.attribute("base") == null) {
            scope.findings()
                    .error(
                            "base-missing",
                            content.place(),
                            "xs:" + content.name() + " needs an xs:extension or xs:restriction with a base",
                            "add one, or leave xs:" + content.name() + " out");
            return null;
        }
        return found;
    }

    private ComplexType.SimpleContent simpleContent(Element derivation) {
        Element narrowed = derivation.child(Xml.XSD, "simpleType");
        return new ComplexType.SimpleContent(
                narrowed == null ? null : TypeReference.to(simpleType(narrowed, null)), facets(derivation));
    }

    private Particle model(Element parent) {
        for (Element child : parent.children()) {
            if (child.namespace().equals(Xml.XSD)
                    && Set.of("sequence", "choice", "all", "group").contains(child.name())) {
                Particle particle = components.particle(child);
                return isEmpty(child) ? null : particle;
            }
        }
        return null;
    }

    /** Whether a content model is the same as none (XML Schema Part 1, section 3.4.2: when the explicit content is empty). */
    private static boolean isEmpty(Element group) {
        boolean any = group.children().stream()
                .anyMatch(child ->
                        child.namespace().equals(Xml.XSD) && !child.name().equals("annotation"));
        return switch (group.name()) {
            case "sequence", "all" -> !any;
            case "choice" -> !any && "0".equals(group.attribute("minOccurs"));
            default -> false;
        };
    }

    SimpleType simpleType(Element element, QName name) {
        for (Element child : element.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "restriction" -> {
                    return simple(
                            element,
                            name,
                            SimpleType.Variety.RESTRICTION,
                            part(child, "base"),
                            List.of(),
                            facets(child));
                }
                case "list" -> {
                    return simple(
                            element, name, SimpleType.Variety.LIST, part(child, "itemType"), List.of(), List.of());
                }
                case "union" -> {
                    return simple(element, name, SimpleType.Variety.UNION, null, members(child), List.of());
                }
                default -> {
                    // annotations come first
                }
            }
        }
        scope.findings()
                .error(
                        "simple-type-empty",
                        element.place(),
                        "xs:simpleType needs xs:restriction, xs:list or xs:union",
                        "say what the type restricts");
        return simple(
                element,
                name,
                SimpleType.Variety.RESTRICTION,
                TypeReference.to(Builtins.name("anySimpleType"), element.place()),
                List.of(),
                List.of());
    }

    private static SimpleType simple(
            Element element,
            QName name,
            SimpleType.Variety variety,
            TypeReference base,
            List<TypeReference> members,
            List<Facet> facets) {
        return new SimpleType(
                name, variety, base, members, facets, SchemaScope.documentation(element), element.place());
    }

    private TypeReference part(Element element, String attribute) {
        Element child = element.child(Xml.XSD, "simpleType");
        return element.attribute(attribute) == null && child != null
                ? TypeReference.to(simpleType(child, null))
                : type(element, attribute, false);
    }

    private List<TypeReference> members(Element union) {
        List<TypeReference> members = new ArrayList<>();
        String named = union.attribute("memberTypes");
        if (named != null && !named.isBlank()) {
            for (String member : named.strip().split("\\s+")) {
                members.add(
                        TypeReference.to(scope.reference(union, "memberTypes", member), union.place("memberTypes")));
            }
        }
        for (Element child : union.children(Xml.XSD, "simpleType")) {
            members.add(TypeReference.to(simpleType(child, null)));
        }
        if (members.isEmpty()) {
            scope.findings()
                    .error(
                            "simple-type-empty",
                            union.place(),
                            "xs:union needs types that its values are of",
                            "name some in memberTypes, or define them inside");
        }
        return List.copyOf(members);
    }

    private static List<Facet> facets(Element restriction) {
        List<Facet> facets = new ArrayList<>();
        for (Element child : restriction.children()) {
            String value = child.attribute("value");
            FacetKind kind = child.namespace().equals(Xml.XSD) ? FacetKind.of(child.name()) : null;
            if (kind != null && value != null) {
                facets.add(new Facet(kind, value, child::namespaceOf, SchemaScope.documentation(child), child.place()));
            }
        }
        return List.copyOf(facets);
    }

    /** The type that an attribute names or a child defines; {@code xs:anyType}, or null where the head decides. */
    TypeReference type(Element element, String attribute, boolean headDecides) {
        if (element.attribute(attribute) != null) {
            return TypeReference.to(scope.reference(element, attribute), element.place(attribute));
        }
        SchemaType anonymous = anonymousType(element);
        if (anonymous != null) {
            return TypeReference.to(anonymous);
        }
        return headDecides ? null : TypeReference.to(SchemaComponents.ANY_TYPE, element.place());
    }

    private SchemaType anonymousType(Element element) {
        Element complex = element.child(Xml.XSD, "complexType");
        if (complex != null) {
            return complexType(complex, null);
        }
        Element simple = element.child(Xml.XSD, "simpleType");
        return simple == null ? null : simpleType(simple, null);
    }
}
