package org.protypos.change;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;

/**
 * Takes the components of schemas into an inventory; groups count where they are used. A type without a name in a group is
 * taken once for each use, but not within itself, which it comes to when an element in a group holds that group again; and
 * groups in groups can multiply to more uses than anybody could read of, so that there is an end to them.
 */
final class SchemaInventory {
    private static final int MOST_AGAIN = 20_000;

    private final SchemaComponents schema;
    private final Inventory inventory;
    private final Set<SchemaType> open = Collections.newSetFromMap(new IdentityHashMap<>());
    private int again;

    SchemaInventory(SchemaComponents schema, Inventory inventory) {
        this.schema = schema;
        this.inventory = inventory;
    }

    void take() {
        schema.types().forEach((name, type) -> {
            if (!SchemaComponents.isOriginal(name)) {
                String designator = Subject.type(name, null).designator();
                type(type, designator, new Item(Item.Kind.TYPE, designator, type.place()));
            }
        });
        schema.elements().forEach((name, element) -> {
            String designator = Subject.element(name, null).designator();
            Item item = new Item(Item.Kind.ELEMENT, designator, element.place());
            if (element.substitutionHead() != null) {
                item.say("stands for", element.substitutionHead());
            }
            declared(element, designator, item);
        });
        schema.attributes().values().forEach(this::global);
    }

    /** How a global attribute is designated. */
    static String attribute(QName name) {
        return "@" + name;
    }

    private void global(AttributeDeclaration attribute) {
        if (attribute.place() != null) {
            Item item = new Item(Item.Kind.ATTRIBUTE, attribute(attribute.name()), attribute.place());
            described(attribute, item);
            item.say("default", quoted(attribute.defaultValue()));
            item.say("fixed", quoted(attribute.fixedValue()));
            inventory.add(item);
        }
    }

    private void described(AttributeDeclaration attribute, Item item) {
        if (attribute.type() != null) {
            item.say("type", shape(attribute.type()));
        }
        item.say("documentation", attribute.documentation());
    }

    private void declared(ElementDeclaration element, String designator, Item item) {
        TypeReference type = schema.typeOf(element);
        inventory.know(element, designator);
        reference(type, item);
        item.say("nillable", element.nillable() ? "true" : null);
        item.say("abstract", element.isAbstract() ? "true" : null);
        item.say("default", quoted(element.defaultValue()));
        item.say("fixed", quoted(element.fixedValue()));
        item.say("block", String.join(" ", new TreeSet<>(element.block())));
        item.say(
                "constraints",
                element.constraints().stream().map(one -> one.inWords()).collect(Collectors.joining("; ")));
        item.say("documentation", element.documentation());
        SchemaType own = type.anonymous();
        if (own == null || isTaken(own)) {
            inventory.add(item);
            return;
        }
        open.add(own);
        type(own, own instanceof SimpleType ? Subject.typeOf(designator, null).designator() : designator, item);
        open.remove(own);
    }

    /** Whether a type without a name has been taken where that is enough. */
    private boolean isTaken(SchemaType own) {
        return open.contains(own) || inventory.designator(own) != null && ++again > MOST_AGAIN;
    }

    private static String quoted(String text) {
        return text == null ? null : "'" + text + "'";
    }

    private static void reference(TypeReference type, Item item) {
        if (type.name() != null) {
            item.say("type", type.name());
        }
    }

    /** Takes a type: what is said of it goes to an item, its members are items of their own. */
    private void type(SchemaType type, String path, Item item) {
        inventory.add(item);
        inventory.know(type, path);
        if (item.kind() == Item.Kind.TYPE) {
            item.say("documentation", type.documentation());
        }
        if (type instanceof SimpleType simple) {
            simple(simple, path, item);
        } else {
            complex((ComplexType) type, path, item);
        }
    }

    private void simple(SimpleType type, String path, Item item) {
        if (type.base() != null) {
            item.say(
                    type.variety() == SimpleType.Variety.LIST ? "list of" : "base",
                    type.base().name() == null
                            ? shape(type.base())
                            : type.base().name());
        }
        if (!type.members().isEmpty()) {
            item.say("union of", type.members().stream().map(this::shape).collect(Collectors.joining(" ")));
        }
        facets(type.facets(), path, item);
    }

    /** A type in one text, for types without a name. */
    private String shape(TypeReference reference) {
        if (reference.name() != null) {
            return reference.name().toString();
        }
        SimpleType type = (SimpleType) reference.anonymous();
        return type.variety() + "(" + (type.base() == null ? "" : shape(type.base()))
                + type.members().stream().map(this::shape).collect(Collectors.joining(" "))
                + type.facets().stream()
                        .map(facet -> " " + facet.kind() + " '" + facet.value() + "'")
                        .collect(Collectors.joining())
                + ")";
    }

    private void facets(List<Facet> facets, String path, Item item) {
        TreeMap<String, String> others = new TreeMap<>();
        for (Facet facet : facets) {
            if (facet.kind() == FacetKind.ENUMERATION) {
                Item value = new Item(
                        Item.Kind.VALUE,
                        Subject.value(path, facet.value(), null).designator(),
                        facet.place());
                value.say("documentation", facet.documentation());
                inventory.add(value);
            } else {
                others.merge(facet.kind().local(), facet.value(), (a, b) -> a + " | " + b);
            }
        }
        others.forEach(item::say);
    }

    private void complex(ComplexType type, String path, Item item) {
        item.say("abstract", type.isAbstract() ? "true" : item.facts().get("abstract"));
        item.say("mixed", type.mixed() ? "true" : null);
        if (type.base() != null && !SchemaComponents.ANY_TYPE.equals(type.base().name())) {
            item.say(
                    "base",
                    type.base().name()
                            + (type.derivation() == ComplexType.Derivation.RESTRICTION ? " restricted" : ""));
        }
        if (type.content() instanceof ComplexType.SimpleContent content) {
            item.say("content", content.type() == null ? "text" : "text of " + shape(content.type()));
            facets(content.facets(), path, item);
        } else {
            Particle particle = type.particle();
            if (particle != null) {
                item.say("order", order(particle, new HashSet<>()));
                members(particle, path, true, 1, new HashSet<>(), item);
            }
        }
        attributes(type.attributes(), path, item, new HashSet<>());
    }

    /** The model in one text: of members the names alone, for they say themselves how often they occur. */
    private String order(Particle particle, Set<QName> groups) {
        return particle.term()
                .map(new Term.Cases<>(
                        element -> element.name().toString(),
                        reference -> reference.name().toString(),
                        reference -> {
                            ModelGroupDefinition group = schema.groups().get(reference.name());
                            return group == null || !groups.add(reference.name())
                                    ? ""
                                    : order(new Particle(group.group(), particle.least(), particle.most()), groups);
                        },
                        model -> {
                            List<String> parts = new ArrayList<>();
                            for (Particle part : model.particles()) {
                                parts.add(order(part, groups));
                            }
                            return ModelText.of(model.compositor(), parts, particle.least(), particle.most());
                        },
                        wildcard -> "*"));
    }

    private void members(Particle particle, String path, boolean required, int most, Set<QName> groups, Item around) {
        Term term = particle.term();
        if (term instanceof ModelGroup group) {
            boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE
                    && group.particles().size() > 1;
            int times = times(most, particle.most());
            for (Particle part : group.particles()) {
                members(part, path, required && particle.least() > 0 && !choice, times, groups, around);
            }
        } else if (term instanceof GroupReference reference) {
            ModelGroupDefinition group = schema.groups().get(reference.name());
            if (group != null && groups.add(reference.name())) {
                members(
                        new Particle(group.group(), particle.least(), particle.most()),
                        path,
                        required,
                        most,
                        groups,
                        around);
            }
        } else if (term instanceof Wildcard any) {
            around.say(
                    "any element",
                    String.join(" ", any.namespaces()) + " " + any.processing().inWords());
        } else {
            member(particle, path, required, most, around);
        }
    }

    private static int times(int a, int b) {
        return a == Particle.UNBOUNDED || b == Particle.UNBOUNDED
                ? Particle.UNBOUNDED
                : (int) Math.min(Particle.UNBOUNDED, (long) a * b);
    }

    private void member(Particle particle, String path, boolean required, int most, Item around) {
        boolean reference = particle.term() instanceof ElementReference;
        QName name =
                reference ? ((ElementReference) particle.term()).name() : ((ElementDeclaration) particle.term()).name();
        Place place = reference
                ? ((ElementReference) particle.term()).place()
                : ((ElementDeclaration) particle.term()).place();
        String designator = Subject.element(path, name, null).designator();
        Item item = new Item(Item.Kind.MEMBER, designator, place);
        int times = times(most, particle.most());
        item.say("occurs", (required ? particle.least() : 0) + ".." + (times == Particle.UNBOUNDED ? "*" : times));
        if (reference) {
            item.say("element", name);
            inventory.add(item);
        } else {
            declared((ElementDeclaration) particle.term(), designator, item);
        }
    }

    private void attributes(Attributes attributes, String path, Item around, Set<QName> groups) {
        for (AttributeUse use : attributes.uses()) {
            AttributeDeclaration declared = schema.declaration(use);
            if (declared != null && use.use() != AttributeUse.Use.PROHIBITED) {
                Item item = new Item(
                        Item.Kind.ATTRIBUTE,
                        Subject.attribute(path, declared.name(), null).designator(),
                        use.place());
                item.say("occurs", use.use() == AttributeUse.Use.REQUIRED ? "1..1" : "0..1");
                boolean refers = use.reference() != null;
                if (refers) {
                    item.say("attribute", use.reference());
                } else {
                    described(declared, item);
                }
                String standard = use.defaultValue() != null || refers ? use.defaultValue() : declared.defaultValue();
                String fixed = use.fixedValue() != null || refers ? use.fixedValue() : declared.fixedValue();
                item.say("default", quoted(standard));
                item.say("fixed", quoted(fixed));
                inventory.add(item);
            }
        }
        if (attributes.wildcard() != null) {
            around.say(
                    "any attribute",
                    String.join(" ", attributes.wildcard().namespaces()) + " "
                            + attributes.wildcard().processing().inWords());
        }
        for (Attributes.GroupUse use : attributes.groups()) {
            AttributeGroup group = schema.attributeGroups().get(use.name());
            if (group != null && groups.add(use.name())) {
                attributes(group.attributes(), path, around, groups);
            }
        }
    }
}
