package org.protypos.message.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Substitutions;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.schema.facet.FacetStep;
import org.protypos.wire.WirePart;

/** The schema of a contract as messages see it: each type with all that it inherits. The door of this package. */
public final class Vocabulary {
    private final SchemaComponents schema;
    private final SimpleTypes simple;
    private final Substitutions substitutions;
    private final ContentCompiler compiler;
    private final TypeModel anything;
    private final Map<SchemaType, TypeModel> types = new IdentityHashMap<>();
    private final Map<TypeModel, Map<QName, ElementDeclaration>> elements = new IdentityHashMap<>();
    private final Map<TypeModel, Map<String, QName>> locals = new IdentityHashMap<>();

    /** Takes the schema of a sound contract. */
    public Vocabulary(SchemaComponents schema) {
        this.schema = schema;
        this.simple = new SimpleTypes(schema);
        this.substitutions = new Substitutions(schema);
        this.compiler = new ContentCompiler(schema, substitutions);
        Wildcard any = Wildcard.anything(null);
        this.anything = new TypeModel(
                null,
                false,
                true,
                null,
                List.of(new Particle(any, 0, Particle.UNBOUNDED)),
                Map.of(),
                List.of(new TypeModel.AnyAttribute(List.of(any))),
                compiler::content);
    }

    /** The components. */
    public SchemaComponents schema() {
        return schema;
    }

    /** A global element, or null. */
    public ElementDeclaration element(QName name) {
        return schema.elements().get(name);
    }

    /** A global attribute as a type would have it, or null. */
    public TypeModel.Attribute attribute(QName name) {
        AttributeDeclaration declaration = schema.attributes().get(name);
        return declaration == null
                ? null
                : attribute(
                        declaration, false, declaration.fixedValue(), declaration.defaultValue(), declaration.place());
    }

    /** The type of an element. */
    public TypeModel typeOf(ElementDeclaration element) {
        return type(schema.typeOf(element));
    }

    /** The type of a name, or null when there is none. */
    public TypeModel type(QName name) {
        return name.equals(SchemaComponents.ANY_TYPE) || schema.type(name) != null
                ? type(TypeReference.to(name, null))
                : null;
    }

    /** The type behind a reference. */
    public TypeModel type(TypeReference reference) {
        // From the type down to a base that is known, and back up: chains of derivation may be long.
        Deque<SchemaType> open = new ArrayDeque<>();
        TypeModel known = model(reference);
        for (TypeReference next = reference; known == null; known = model(next)) {
            SchemaType type = schema.resolve(next);
            open.push(type);
            if (type instanceof SimpleType) {
                break;
            }
            next = type.base();
        }
        while (!open.isEmpty()) {
            SchemaType type = open.pop();
            TypeModel base = known;
            known = type.map(complex -> ofComplex(complex, base), this::ofSimple);
            types.put(type, known);
        }
        return known;
    }

    /** The types of parts by their names. */
    public Map<String, TypeModel> types(List<WirePart> parts) {
        Map<String, TypeModel> types = new LinkedHashMap<>();
        parts.forEach(part -> types.put(part.name(), type(part.type())));
        return types;
    }

    private TypeModel model(TypeReference reference) {
        return SchemaComponents.ANY_TYPE.equals(reference.name()) ? anything : types.get(schema.resolve(reference));
    }

    /**
     * The elements that a type may hold by their names, in the order of the contract: what it declares, and what may stand
     * for that. What a wildcard lets in is not among them.
     */
    public Map<QName, ElementDeclaration> elements(TypeModel type) {
        return elements.computeIfAbsent(type, this::collectElements);
    }

    private Map<QName, ElementDeclaration> collectElements(TypeModel type) {
        Map<QName, ElementDeclaration> found = new LinkedHashMap<>();
        for (Leaf leaf : ContentModel.all(type.content())) {
            if (leaf instanceof Leaf.Element element) {
                for (QName name : element.substitutes()) {
                    boolean own = name.equals(element.declaration().name());
                    found.putIfAbsent(name, own ? element.declaration() : element(name));
                }
            }
        }
        return found;
    }

    /** Whether a message may have other elements in a type than {@link #elements}: by a wildcard, or by a type derived from it. */
    public boolean isOpen(TypeModel type) {
        boolean wild = ContentModel.all(type.content()).stream().anyMatch(leaf -> !(leaf instanceof Leaf.Element));
        return wild
                || type.name() != null
                        && schema.types().values().stream()
                                .anyMatch(other -> other instanceof ComplexType derived
                                        && derived.base() != null
                                        && type.name().equals(derived.base().name()));
    }

    /** The element that a local name alone means in a type: the first of that name, or null. */
    public QName named(TypeModel type, String local) {
        return locals.computeIfAbsent(type, any -> {
                    Map<String, QName> names = new HashMap<>();
                    elements(type).keySet().forEach(name -> names.putIfAbsent(name.getLocalPart(), name));
                    return names;
                })
                .get(local);
    }

    /**
     * The key by which an element goes in a type: its local name where that alone means it, or the whole name.
     *
     * @param type the type, or null when it is not known
     */
    public String key(TypeModel type, QName name) {
        String local = name.getLocalPart();
        QName meant = type == null || type.isAnything() ? null : named(type, local);
        if (name.equals(meant)) {
            return local;
        }
        return meant != null && name.getNamespaceURI().isEmpty() ? "{}" + local : name.toString();
    }

    /**
     * The types that may stand in the place of a type, by the names that tell them apart; for a simple one those that add
     * something to it. A built-in one could be anything of the contract that has text: none is named for it.
     */
    public Map<String, QName> standIns(TypeModel type) {
        Map<String, QName> names = new LinkedHashMap<>();
        if (type.isAnything() || type.name() != null && Builtins.isBuiltin(type.name())) {
            return names;
        }
        for (QName name : schema.types().keySet()) {
            TypeModel other = type(name);
            boolean fits = other != type
                    && other.definition() instanceof ComplexType
                    && !SchemaComponents.isOriginal(name)
                    && !other.isAbstract()
                    && derives(other, type, Set.of());
            if (fits) {
                // Two of the same name are told apart by their namespaces.
                names.put(names.containsKey(name.getLocalPart()) ? name.toString() : name.getLocalPart(), name);
            }
        }
        return names;
    }

    /** The rule of a simple type. */
    public ValueRule rule(SchemaType type) {
        return simple.rule(type);
    }

    /** Where the contract says what a value breaks, or null when that is built in. */
    public Place place(ValueRule rule) {
        return simple.place(rule);
    }

    /** The facets that made a rule of its base, or null. */
    public FacetStep step(ValueRule rule) {
        return simple.step(rule);
    }

    private TypeModel ofSimple(SimpleType type) {
        return new TypeModel(type, false, false, simple.rule(type), List.of(), Map.of(), List.of(), compiler::content);
    }

    private TypeModel ofComplex(ComplexType type, TypeModel base) {
        boolean extension = type.derivation() == ComplexType.Derivation.EXTENSION;
        Map<QName, TypeModel.Attribute> attributes = new LinkedHashMap<>();
        List<TypeModel.AnyAttribute> wildcards = new ArrayList<>();
        boolean derived = !base.isAnything();
        if (derived) {
            attributes.putAll(base.attributes());
        }
        if (derived && extension) {
            wildcards.addAll(base.wildcards());
        }
        List<Wildcard> own = new ArrayList<>();
        collect(type.attributes(), attributes, own, new HashSet<>());
        if (!own.isEmpty()) {
            wildcards.add(new TypeModel.AnyAttribute(List.copyOf(own)));
        }
        List<Particle> particles = new ArrayList<>();
        if (derived && (extension || type.isEncodedArray())) {
            particles.addAll(base.particles());
        }
        if (!type.isEncodedArray()
                && type.content() instanceof ComplexType.ElementContent content
                && content.particle() != null) {
            particles.add(content.particle());
        }
        boolean inheritsMixed = derived && extension && base.mixed();
        return new TypeModel(
                type,
                type.isAbstract(),
                type.mixed() || inheritsMixed,
                simple.rule(type),
                List.copyOf(particles),
                attributes,
                List.copyOf(wildcards),
                compiler::content);
    }

    private void collect(
            Attributes from, Map<QName, TypeModel.Attribute> attributes, List<Wildcard> wildcards, Set<QName> seen) {
        if (from.wildcard() != null) {
            wildcards.add(from.wildcard());
        }
        for (AttributeUse use : from.uses()) {
            AttributeDeclaration declared = schema.declaration(use);
            if (use.use() == AttributeUse.Use.PROHIBITED) {
                attributes.remove(declared.name());
                continue;
            }
            String fixed = use.fixedBy(declared);
            String standard = use.defaultValue() != null ? use.defaultValue() : declared.defaultValue();
            attributes.put(
                    declared.name(),
                    attribute(declared, use.use() == AttributeUse.Use.REQUIRED, fixed, standard, use.place()));
        }
        for (Attributes.GroupUse group : from.groups()) {
            AttributeGroup definition = schema.attributeGroups().get(group.name());
            if (definition != null && seen.add(group.name())) {
                collect(definition.attributes(), attributes, wildcards, seen);
            }
        }
    }

    private TypeModel.Attribute attribute(
            AttributeDeclaration declared, boolean required, String fixed, String standard, Place place) {
        SchemaType type = schema.resolve(declared.type());
        return new TypeModel.Attribute(
                declared.name(), simple.rule(type), required, fixed, fixed != null ? fixed : standard, type, place);
    }

    /**
     * The names of the elements that may stand where a global element is referred to, itself first unless it is abstract
     * (XML Schema Part 1, section 3.3.6).
     */
    public Set<QName> substitutes(ElementDeclaration head) {
        return substitutions.of(head);
    }

    /**
     * Whether a type may stand for another (XML Schema Part 1, sections 3.4.6 and 3.14.6).
     *
     * @param blocked the kinds of derivation that may not be on the way, beside those that the other type blocks
     */
    public boolean derives(TypeModel type, TypeModel from, Set<String> blocked) {
        return type == from || substitutions.derives(type.definition(), from.definition(), blocked);
    }

    /**
     * Whether a type is another or is derived from it, whether or not it may stand in its place.
     *
     * @param barred the kinds of derivation that may not be on the way
     */
    public boolean isDerived(TypeModel type, TypeModel from, Set<String> barred) {
        return substitutions.isDerived(type.definition(), from.definition(), barred);
    }
}
