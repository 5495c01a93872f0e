package org.protypos.reference;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Substitutions;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.source.Documents;
import org.protypos.source.Xml;

/** The structure of schema components as a tree, as deep as somebody wants it. */
final class Structure {
    /** More than this nobody reads, and what is in circles has no end. */
    private static final int MOST_NODES = 20_000;

    private static final int MOST_NAMES = 8;

    private final SchemaComponents schema;
    private final Documents documents;
    private final Map<String, String> inCode;
    private final Demands demands;
    private final Substitutions substitutions;
    private Map<SchemaType, List<String>> families;
    private final boolean whole;
    private final Deque<SchemaType> open = new ArrayDeque<>();
    private int nodes;

    /**
     * Prepares.
     *
     * @param inCode the names in code, by designators
     * @param whole whether what has a name of its own is told too, where it is used; otherwise only that it is
     */
    Structure(Contract contract, Map<String, String> inCode, boolean whole) {
        this.whole = whole;
        this.schema = contract.schema();
        this.documents = contract.documents();
        this.inCode = inCode;
        this.demands = new Demands(schema);
        this.substitutions = new Substitutions(schema);
    }

    /** Begins with another component: how much one may hold is for each alone. */
    Structure anew() {
        nodes = 0;
        return this;
    }

    /** A global element, with what is in it. */
    Node element(QName name, int depth) {
        ElementDeclaration element = schema.elements().get(name);
        return element(element, element.documentation(), element.name().toString(), "", depth, true);
    }

    /** The use of a global element. */
    Node used(QName name, int depth) {
        return whole ? element(name, depth) : element(name, 0).referring(name.toString());
    }

    /** What is in a type. */
    List<Node> type(QName name, int depth) {
        SchemaType type = schema.type(name);
        return type == null ? List.of() : content(type, "~" + name, depth);
    }

    /** What is in a named group. */
    List<Node> group(QName name, int depth) {
        List<Node> all = new ArrayList<>();
        particle(new Particle(schema.groups().get(name).group(), 1, 1), "group " + name, depth, all);
        return all;
    }

    /** The attributes of a group of them. */
    List<Node> attributeGroup(QName name) {
        List<Node> all = new ArrayList<>();
        attributes(schema.attributeGroups().get(name).attributes(), "attribute group " + name, new HashSet<>(), all);
        return all;
    }

    /** A value of a type, such as a part of a message. */
    Node value(Node.Kind kind, String label, TypeReference type, Place place, int depth) {
        SchemaType meant = schema.resolve(type);
        return node(
                kind,
                label,
                demands.inWords(type),
                "",
                demands.of(type),
                "",
                "",
                refers(type),
                place,
                whole && meant instanceof ComplexType ? content(meant, "~" + type.name(), depth - 1) : List.of(),
                meant instanceof ComplexType && depth <= 0);
    }

    private Node node(
            Node.Kind kind,
            String label,
            String type,
            String occurs,
            List<String> told,
            String documentation,
            String designator,
            String refers,
            Place place,
            List<Node> children,
            boolean isCut) {
        nodes++;
        return new Node(
                kind,
                label,
                type,
                occurs,
                List.copyOf(told),
                documentation == null ? "" : documentation.strip().replaceAll("\\s+", " "),
                inCode.getOrDefault(designator, ""),
                designator,
                refers,
                place,
                List.copyOf(children),
                isCut);
    }

    private Node element(
            ElementDeclaration element,
            String documentation,
            String designator,
            String occurs,
            int depth,
            boolean isGlobal) {
        TypeReference reference = schema.typeOf(element);
        SchemaType type = schema.resolve(reference);
        List<String> told = new ArrayList<>(demands.of(reference));
        if (element.nillable()) {
            told.add("may be nil");
        }
        if (element.fixedValue() != null) {
            told.add("always " + element.fixedValue());
        } else if (element.defaultValue() != null) {
            told.add(element.defaultValue() + " when empty");
        }
        if (isGlobal) {
            others(element, told);
        }
        told.addAll(family(type));
        boolean deep = type instanceof ComplexType && hasContent(type);
        boolean isNamed = reference.name() != null;
        boolean shown = deep && depth > 0 && !open.contains(type) && nodes < MOST_NODES && (whole || !isNamed);
        String around = reference.name() == null ? designator : "~" + reference.name();
        return node(
                Node.Kind.ELEMENT,
                element.name().getLocalPart(),
                demands.inWords(reference),
                occurs,
                told,
                documentation,
                designator,
                refers(reference),
                element.place(),
                shown ? content(type, around, depth - 1) : List.of(),
                deep && !shown);
    }

    /** How rules speak of a type of the contract. */
    private String refers(TypeReference type) {
        return type != null && type.name() != null && schema.types().containsKey(type.name()) ? "~" + type.name() : "";
    }

    private boolean hasContent(SchemaType type) {
        return !(type instanceof ComplexType complex)
                || !(complex.content() instanceof ComplexType.ElementContent elements)
                || elements.particle() != null
                || !complex.attributes().equals(Attributes.NONE)
                || schema.resolve(complex.base()) != null;
    }

    /** Which elements may stand for a global one. */
    private void others(ElementDeclaration element, List<String> told) {
        List<String> names = substitutions.of(element).stream()
                .filter(name -> !name.equals(element.name()))
                .map(QName::getLocalPart)
                .toList();
        if (!names.isEmpty()) {
            told.add((element.isAbstract() ? "one of " : "or ") + some(names) + " in its place");
        } else if (element.isAbstract()) {
            told.add("abstract");
        }
    }

    /** Which types may stand for one; that many extend what is built in needs no word. */
    private List<String> family(SchemaType type) {
        families = families == null ? families() : families;
        List<String> names = type == null || type.name() == null ? List.of() : families.getOrDefault(type, List.of());
        return names.isEmpty()
                ? List.of()
                : List.of((type instanceof ComplexType complex && complex.isAbstract()
                                ? "xsi:type is "
                                : "xsi:type may be ")
                        + some(names));
    }

    /** For each type of the contract the names of those that may stand for it. */
    private Map<SchemaType, List<String>> families() {
        Map<SchemaType, List<String>> all = new IdentityHashMap<>();
        for (SchemaType type : schema.types().values()) {
            if (type instanceof ComplexType one && !one.isAbstract() && !SchemaComponents.isOriginal(one.name())) {
                Set<SchemaType> seen = Collections.newSetFromMap(new IdentityHashMap<>());
                for (SchemaType base = schema.resolve(one.base());
                        base != null
                                && base.name() != null
                                && schema.types().containsKey(base.name())
                                && seen.add(base);
                        base = base(base)) {
                    if (substitutions.derives(one, base, Set.of())) {
                        all.computeIfAbsent(base, any -> new ArrayList<>())
                                .add(one.name().getLocalPart());
                    }
                }
            }
        }
        return all;
    }

    private SchemaType base(SchemaType type) {
        TypeReference base = type instanceof ComplexType complex
                ? complex.base()
                : type instanceof SimpleType simple ? simple.base() : null;
        return base == null ? null : schema.resolve(base);
    }

    /** Names, as many as one reads. */
    private static String some(List<String> names) {
        return names.size() <= MOST_NAMES + 1
                ? String.join(", ", names)
                : String.join(", ", names.subList(0, MOST_NAMES)) + " and " + (names.size() - MOST_NAMES) + " more";
    }

    /** The attributes and the content of a type, those of its bases first. */
    private List<Node> content(SchemaType type, String designator, int depth) {
        List<Node> all = new ArrayList<>();
        open.push(type);
        if (type instanceof ComplexType complex) {
            List<ComplexType> chain = whole ? chain(complex) : List.of(complex);
            Set<QName> named = new HashSet<>();
            for (int i = chain.size() - 1; i >= 0; i--) {
                ComplexType one = chain.get(i);
                attributes(one.attributes(), i == chain.size() - 1 ? designator : "~" + one.name(), named, all);
            }
            text(complex, designator, all);
            // What a restriction says stands for all that it restricts.
            for (int i = restrictedFrom(chain); i < chain.size(); i++) {
                ComplexType one = chain.get(i);
                if (one.content() instanceof ComplexType.ElementContent elements && elements.particle() != null) {
                    particle(elements.particle(), i == chain.size() - 1 ? designator : "~" + one.name(), depth, all);
                }
            }
            if (complex.mixed()) {
                all.add(node(Node.Kind.TEXT, "text between", "", "", List.of(), "", "", "", null, List.of(), false));
            }
        }
        open.pop();
        return all;
    }

    /** Where the content of a chain begins: with the last that restricts what was before. */
    private static int restrictedFrom(List<ComplexType> chain) {
        int from = 0;
        for (int i = 0; i < chain.size(); i++) {
            from = chain.get(i).derivation() == ComplexType.Derivation.RESTRICTION ? i : from;
        }
        return from;
    }

    /** A type with those that it is derived from, the first of them first. */
    private List<ComplexType> chain(ComplexType type) {
        List<ComplexType> chain = new ArrayList<>();
        SchemaType current = type;
        while (current instanceof ComplexType complex && !chain.contains(complex)) {
            chain.add(0, complex);
            current = schema.resolve(complex.base());
        }
        return chain;
    }

    private void text(ComplexType type, String designator, List<Node> all) {
        List<String> told = new ArrayList<>();
        ComplexType current = type;
        while (current != null && current.content() instanceof ComplexType.SimpleContent simple) {
            told.addAll(demands.of(simple.facets()));
            TypeReference reference = simple.type() == null ? current.base() : simple.type();
            SchemaType base = schema.resolve(reference);
            if (base instanceof SimpleType) {
                told.addAll(demands.of(reference));
                all.add(node(
                        Node.Kind.TEXT,
                        "text",
                        demands.inWords(reference),
                        "",
                        told,
                        "",
                        designator + "/text()",
                        refers(reference),
                        type.place(),
                        List.of(),
                        false));
                return;
            }
            current = base instanceof ComplexType complex ? complex : null;
        }
    }

    private void attributes(Attributes attributes, String designator, Set<QName> named, List<Node> all) {
        for (AttributeUse use : attributes.uses()) {
            AttributeDeclaration declared = schema.declaration(use);
            QName name = declared == null ? use.reference() : declared.name();
            if (name == null || !named.add(name) || use.use() == AttributeUse.Use.PROHIBITED) {
                continue;
            }
            TypeReference type = declared == null ? null : declared.type();
            List<String> told = new ArrayList<>(demands.of(type));
            String fixed = use.fixedValue() != null || declared == null ? use.fixedValue() : declared.fixedValue();
            String otherwise =
                    use.defaultValue() != null || declared == null ? use.defaultValue() : declared.defaultValue();
            if (fixed != null) {
                told.add("always " + fixed);
            } else if (otherwise != null) {
                told.add(otherwise + " when absent");
            }
            all.add(node(
                    Node.Kind.ATTRIBUTE,
                    attribute(name),
                    demands.inWords(type),
                    use.use() == AttributeUse.Use.REQUIRED ? "1" : "0..1",
                    told,
                    declared == null ? "" : declared.documentation(),
                    designator + "/@" + name,
                    refers(type),
                    use.place(),
                    List.of(),
                    false));
        }
        for (Attributes.GroupUse use : attributes.groups()) {
            AttributeGroup group = schema.attributeGroups().get(use.name());
            if (group != null) {
                attributes(group.attributes(), designator, named, all);
            }
        }
        if (attributes.wildcard() != null) {
            all.add(wildcard(Node.Kind.ANY_ATTRIBUTE, attributes.wildcard(), ""));
        }
    }

    /** What an attribute is called: one of a namespace with a prefix, for it is never written without. */
    private String attribute(QName name) {
        String namespace = name.getNamespaceURI();
        Stream<String> prefixes = namespace.equals(Xml.XML) ? Stream.of("xml") : documents.prefixes(namespace);
        return prefixes.findFirst().map(prefix -> "@" + prefix + ":").orElse("@") + name.getLocalPart();
    }

    private Node wildcard(Node.Kind kind, Wildcard wildcard, String occurs) {
        List<String> told = new ArrayList<>();
        String namespaces = String.join(" ", wildcard.namespaces());
        if (!namespaces.equals("##any")) {
            told.add("of " + namespaces);
        }
        if (wildcard.processing() != Wildcard.Processing.STRICT) {
            told.add(wildcard.processing().inWords());
        }
        return node(
                kind,
                kind == Node.Kind.ANY ? "any element" : "@ any",
                "",
                occurs,
                told,
                "",
                "",
                "",
                wildcard.place(),
                List.of(),
                false);
    }

    private static String occurs(int least, int most) {
        return least == most
                ? String.valueOf(least)
                : least + ".." + (most == Particle.UNBOUNDED ? "n" : String.valueOf(most));
    }

    /** What a particle allows; a group that comes once, and is no choice, needs no word of its own. */
    private void particle(Particle particle, String designator, int depth, List<Node> all) {
        if (particle.most() == 0) {
            return;
        }
        String occurs = occurs(particle.least(), particle.most());
        particle.term()
                .act(new Term.Acts(
                        element -> all.add(element(
                                element,
                                element.documentation(),
                                designator + "/" + element.name(),
                                occurs,
                                depth,
                                false)),
                        reference -> reference(reference, occurs, depth, all),
                        group -> {
                            ModelGroupDefinition defined = schema.groups().get(group.name());
                            if (defined != null) {
                                particle(
                                        new Particle(defined.group(), particle.least(), particle.most()),
                                        designator,
                                        depth,
                                        all);
                            }
                        },
                        model -> group(model, particle, occurs, designator, depth, all),
                        wildcard -> all.add(wildcard(Node.Kind.ANY, wildcard, occurs))));
    }

    private void reference(ElementReference reference, String occurs, int depth, List<Node> all) {
        ElementDeclaration element = schema.elements().get(reference.name());
        if (element == null) {
            return;
        }
        String said = reference.documentation().isEmpty() ? element.documentation() : reference.documentation();
        Node node = element(element, said, element.name().toString(), occurs, whole ? depth : 0, true);
        all.add(whole ? node : node.referring(element.name().toString()));
    }

    private void group(
            ModelGroup group, Particle particle, String occurs, String designator, int depth, List<Node> all) {
        List<Node> inside = new ArrayList<>();
        group.particles().forEach(one -> particle(one, designator, depth, inside));
        boolean once = particle.least() == 1 && particle.most() == 1;
        boolean plain = once && (group.compositor() == ModelGroup.Compositor.SEQUENCE || inside.size() < 2);
        if (plain) {
            all.addAll(inside);
        } else if (!inside.isEmpty()) {
            Node.Kind kind =
                    switch (group.compositor()) {
                        case SEQUENCE -> Node.Kind.SEQUENCE;
                        case CHOICE -> Node.Kind.CHOICE;
                        case ALL -> Node.Kind.ALL;
                    };
            String label =
                    switch (group.compositor()) {
                        case SEQUENCE -> "together";
                        case CHOICE -> "one of";
                        case ALL -> "in any order";
                    };
            all.add(node(kind, label, "", occurs, List.of(), "", "", "", group.place(), inside, false));
        }
    }
}
