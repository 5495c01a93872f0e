package org.protypos.message.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
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
import org.protypos.schema.ElementReference;
import org.protypos.schema.FacetStep;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;

/** The schema of a contract as messages see it: each type with all that it inherits. The door of this package. */
public final class Vocabulary {
    private static final TypeModel ANYTHING = anything();

    private final SchemaComponents schema;
    private final SimpleTypes simple;
    private final Map<SchemaType, TypeModel> types = new IdentityHashMap<>();
    private final Map<QName, Set<QName>> substitutes = new HashMap<>();

    /** Takes the schema of a sound contract. */
    public Vocabulary(SchemaComponents schema) {
        this.schema = schema;
        this.simple = new SimpleTypes(schema);
    }

    private static TypeModel anything() {
        Wildcard any = new Wildcard(List.of("##any"), "", Wildcard.Processing.LAX, null);
        Particle particle = new Particle(any, 0, Particle.UNBOUNDED);
        return new TypeModel(
                null,
                false,
                true,
                null,
                List.of(particle),
                ContentModel.repeated(ContentModel.leaf(new Leaf.Any(any)), 0, Particle.UNBOUNDED),
                Map.of(),
                List.of(new TypeModel.AnyAttribute(List.of(any))));
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
                : attribute(declaration, false, declaration.fixedValue(), declaration.place());
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
        if (SchemaComponents.ANY_TYPE.equals(reference.name())) {
            return ANYTHING;
        }
        SchemaType type = schema.resolve(reference);
        TypeModel known = types.get(type);
        if (known == null) {
            known = type instanceof SimpleType simpleType ? ofSimple(simpleType) : ofComplex((ComplexType) type);
            types.put(type, known);
        }
        return known;
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
        return new TypeModel(type, false, false, simple.rule(type), List.of(), ContentModel.EMPTY, Map.of(), List.of());
    }

    private TypeModel ofComplex(ComplexType type) {
        TypeModel base = type(type.base());
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
        ContentModel model = ContentModel.EMPTY;
        for (int i = particles.size() - 1; i >= 0; i--) {
            model = ContentModel.sequence(content(particles.get(i)), model);
        }
        return new TypeModel(
                type,
                type.isAbstract(),
                type.mixed() || inheritsMixed,
                simple.rule(type),
                List.copyOf(particles),
                model,
                attributes,
                List.copyOf(wildcards));
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
            String fixed = use.fixedValue() != null ? use.fixedValue() : declared.fixedValue();
            attributes.put(
                    declared.name(), attribute(declared, use.use() == AttributeUse.Use.REQUIRED, fixed, use.place()));
        }
        for (Attributes.GroupUse group : from.groups()) {
            AttributeGroup definition = schema.attributeGroups().get(group.name());
            if (definition != null && seen.add(group.name())) {
                collect(definition.attributes(), attributes, wildcards, seen);
            }
        }
    }

    private TypeModel.Attribute attribute(AttributeDeclaration declared, boolean required, String fixed, Place place) {
        SchemaType type = schema.resolve(declared.type());
        return new TypeModel.Attribute(declared.name(), simple.rule(type), required, fixed, type, place);
    }

    private ContentModel content(Particle particle) {
        return ContentModel.repeated(term(particle.term()), particle.least(), particle.most());
    }

    private ContentModel term(Term term) {
        if (term instanceof Wildcard wildcard) {
            return ContentModel.leaf(new Leaf.Any(wildcard));
        }
        if (term instanceof GroupReference reference) {
            return group(schema.groups().get(reference.name()).group());
        }
        if (term instanceof ModelGroup group) {
            return group(group);
        }
        if (term instanceof ElementReference reference) {
            ElementDeclaration element = element(reference.name());
            return ContentModel.leaf(new Leaf.Element(element, substitutes(element), reference.place()));
        }
        ElementDeclaration element = (ElementDeclaration) term;
        return ContentModel.leaf(new Leaf.Element(element, Set.of(element.name()), element.place()));
    }

    private ContentModel group(ModelGroup group) {
        List<ContentModel> parts = new ArrayList<>();
        group.particles().forEach(particle -> parts.add(content(particle)));
        return switch (group.compositor()) {
            case CHOICE -> parts.isEmpty() ? ContentModel.EMPTY : ContentModel.choice(parts);
            case ALL -> ContentModel.all(parts);
            case SEQUENCE -> {
                ContentModel model = ContentModel.EMPTY;
                for (int i = parts.size() - 1; i >= 0; i--) {
                    model = ContentModel.sequence(parts.get(i), model);
                }
                yield model;
            }
        };
    }

    /**
     * The names of the elements that may stand where a global element is referred to, itself first unless it is abstract
     * (XML Schema Part 1, section 3.3.6).
     */
    public Set<QName> substitutes(ElementDeclaration head) {
        Set<QName> known = substitutes.get(head.name());
        if (known == null) {
            Set<QName> names = new LinkedHashSet<>();
            if (!head.isAbstract()) {
                names.add(head.name());
            }
            if (!head.block().contains("substitution")) {
                addMembers(head, head, names, new HashSet<>());
            }
            known = names;
            substitutes.put(head.name(), known);
        }
        return known;
    }

    private void addMembers(ElementDeclaration head, ElementDeclaration of, Set<QName> names, Set<QName> seen) {
        for (QName member : schema.substitutions().getOrDefault(of.name(), List.of())) {
            if (seen.add(member)) {
                ElementDeclaration element = element(member);
                TypeModel type = typeOf(element);
                if (!element.isAbstract() && derives(type, typeOf(head), head.block())) {
                    names.add(member);
                }
                addMembers(head, element, names, seen);
            }
        }
    }

    /**
     * Whether a type may stand for another (XML Schema Part 1, sections 3.4.6 and 3.14.6).
     *
     * @param blocked the kinds of derivation that may not be on the way, beside those that the other type blocks
     */
    public boolean derives(TypeModel type, TypeModel from, Set<String> blocked) {
        if (from.isAnything() && blocked.isEmpty() || type == from) {
            return true;
        }
        if (type.isAnything()) {
            return false;
        }
        Set<String> all = new HashSet<>(blocked);
        if (from.definition() instanceof ComplexType complex) {
            all.addAll(complex.block());
        }
        return derives(type.definition(), from.definition(), all);
    }

    private boolean derives(SchemaType type, SchemaType from, Set<String> blocked) {
        SchemaType current = type;
        for (int steps = 0; current != null && steps < 1_000; steps++) {
            if (current == from) {
                return true;
            }
            if (current instanceof ComplexType complex) {
                boolean extension = complex.derivation() == ComplexType.Derivation.EXTENSION;
                if (blocked.contains(extension ? "extension" : "restriction")) {
                    return false;
                }
                current =
                        SchemaComponents.ANY_TYPE.equals(complex.base().name()) ? null : schema.resolve(complex.base());
            } else {
                return !blocked.contains("restriction") && derivesSimply((SimpleType) current, from, steps);
            }
        }
        return from == null;
    }

    private boolean derivesSimply(SimpleType type, SchemaType from, int steps) {
        if (from == null || type == from || isSimpleRoot(from)) {
            return true;
        }
        if (from instanceof SimpleType union && union.variety() == SimpleType.Variety.UNION) {
            for (TypeReference member : union.members()) {
                if (steps < 1_000 && derivesSimply(type, schema.resolve(member), steps + 1)) {
                    return true;
                }
            }
        }
        if (type.variety() == SimpleType.Variety.RESTRICTION && type.base() != null && steps < 1_000) {
            return schema.resolve(type.base()) instanceof SimpleType base && derivesSimply(base, from, steps + 1);
        }
        return type.variety() == SimpleType.Variety.BUILT_IN && builtinDerives(type, from);
    }

    private static boolean isSimpleRoot(SchemaType type) {
        return type.name() != null && type.name().equals(Builtins.name("anySimpleType"));
    }

    private static boolean builtinDerives(SimpleType type, SchemaType from) {
        return from instanceof SimpleType other
                && other.variety() == SimpleType.Variety.BUILT_IN
                && Builtins.derives(type.name().getLocalPart(), other.name().getLocalPart());
    }
}
