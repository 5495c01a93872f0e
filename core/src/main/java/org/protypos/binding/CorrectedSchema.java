package org.protypos.binding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Predicate;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.Vocabulary;
import org.protypos.naming.Subject;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;

/** The components of a schema with corrections laid over them; all places stay those of the documents. */
final class CorrectedSchema {
    private final SchemaComponents schema;
    private final Corrections corrections;
    private final CorrectedContent content;
    private final CorrectedFacets facets;
    private final Map<QName, Rule> rebased = new LinkedHashMap<>();

    CorrectedSchema(SchemaComponents schema, Corrections corrections) {
        this.schema = schema;
        this.corrections = corrections;
        this.facets = new CorrectedFacets(new Vocabulary(schema), corrections);
        this.content = new CorrectedContent(schema, corrections, this);
    }

    SchemaComponents components() {
        Map<QName, SchemaType> types = new LinkedHashMap<>();
        schema.types().forEach((name, type) -> {
            Path path = new Path(Subject.type(name, null).designator(), name.getNamespaceURI());
            types.put(name, type(type, path));
        });
        breakLoops(types);
        Map<QName, ElementDeclaration> elements = new LinkedHashMap<>();
        schema.elements()
                .forEach((name, element) -> elements.put(
                        name,
                        element(
                                element,
                                new Path(Subject.element(name, null).designator(), name.getNamespaceURI()),
                                false)));
        return new SchemaComponents(
                types,
                elements,
                schema.attributes(),
                schema.groups(),
                schema.attributeGroups(),
                schema.notations(),
                schema.substitutions(),
                schema.findings());
    }

    /**
     * Where something stands.
     *
     * @param designator of the component around
     * @param namespace the target namespace of its schema
     */
    record Path(String designator, String namespace) {
        Path to(Subject inner) {
            return new Path(inner.designator(), namespace);
        }
    }

    private SchemaType type(SchemaType type, Path path) {
        return type.map(complex -> complex(complex, path), simple -> simple(simple, path));
    }

    private ComplexType complex(ComplexType type, Path path) {
        ComplexType.Content inside = type.content();
        if (inside instanceof ComplexType.ElementContent elements) {
            inside = new ComplexType.ElementContent(content.content(elements.particle(), path, type.place()));
        }
        if (inside instanceof ComplexType.SimpleContent text) {
            inside = new ComplexType.SimpleContent(text.type(), facets.of(type, text.facets(), path));
        }
        boolean holdsText = inside instanceof ComplexType.SimpleContent;
        Predicate<SchemaType> alike = schema.resolve(type.base()) instanceof SimpleType
                ? SimpleType.class::isInstance
                : candidate -> candidate instanceof ComplexType complex
                        && complex.content() instanceof ComplexType.SimpleContent == holdsText;
        TypeReference base = base(type.base(), type.name(), path, type.place(), alike, !holdsText);
        boolean derived = !SchemaComponents.ANY_TYPE.equals(base.name());
        boolean rooted = SchemaComponents.ANY_TYPE.equals(type.base().name());
        return new ComplexType(
                type.name(),
                type.isAbstract(),
                type.mixed(),
                derived && rooted ? ComplexType.Derivation.EXTENSION : type.derivation(),
                base,
                inside,
                attributes(type.attributes(), path, type.place()),
                type.block(),
                type.documentation(),
                type.place());
    }

    /**
     * The base of a type with what is said of it.
     *
     * @param alike what may be the base
     * @param mayBeRoot whether any content may be the base, too
     */
    private TypeReference base(
            TypeReference base, QName type, Path path, Place place, Predicate<SchemaType> alike, boolean mayBeRoot) {
        Rule rule = type == null ? null : corrections.about(path.designator(), Correction::base);
        if (rule == null) {
            return base;
        }
        QName name = rule.effect().correction().base();
        boolean root = name.equals(SchemaComponents.ANY_TYPE) && mayBeRoot;
        if (!root && !alike.test(schema.type(name))) {
            corrections.refused(
                    rule,
                    corrections.shown(name) + " cannot be the base of this type",
                    "name a type that the contract has, of the same kind");
            return base;
        }
        String before = base == null || base.name() == null ? "a type of its own" : corrections.shown(base.name());
        corrections.changed(rule, path.designator(), place, "base " + before, "base " + corrections.shown(name));
        rebased.put(type, rule);
        return TypeReference.to(name, rule.place());
    }

    /** Types that would be derived from themselves keep their bases. */
    private void breakLoops(Map<QName, SchemaType> types) {
        rebased.forEach((name, rule) -> {
            QName at = name;
            for (int step = 0; at != null && step <= types.size(); step++) {
                at = baseOf(types.get(at));
            }
            if (at != null) {
                types.put(name, schema.types().get(name));
                corrections.refused(
                        rule,
                        "this type would be derived from itself",
                        "name a base that is not derived from this type");
            }
        });
    }

    private static QName baseOf(SchemaType type) {
        TypeReference base = type instanceof ComplexType complex
                ? complex.base()
                : type instanceof SimpleType simple ? simple.base() : null;
        return base == null ? null : base.name();
    }

    private SimpleType simple(SimpleType type, Path path) {
        List<Facet> facets = this.facets.of(type, path);
        boolean restricts = type.variety() == SimpleType.Variety.RESTRICTION;
        if (!restricts && !facets.isEmpty()) {
            // Facets are a restriction's: the list or union becomes what is restricted.
            TypeReference whole = TypeReference.to(new SimpleType(
                    null, type.variety(), type.base(), type.members(), List.of(), type.documentation(), type.place()));
            return new SimpleType(
                    type.name(),
                    SimpleType.Variety.RESTRICTION,
                    whole,
                    List.of(),
                    facets,
                    type.documentation(),
                    type.place());
        }
        TypeReference base = restricts
                ? base(type.base(), type.name(), path, type.place(), SimpleType.class::isInstance, false)
                : type.base();
        return new SimpleType(
                type.name(), type.variety(), base, type.members(), facets, type.documentation(), type.place());
    }

    /**
     * An element with what is said of it.
     *
     * @param local whether it may be qualified or not
     */
    ElementDeclaration element(ElementDeclaration element, Path path, boolean local) {
        String designator = path.designator();
        TypeReference type = type(element.type(), path, element.place(), false);
        boolean nillable = element.nillable();
        Rule rule = corrections.about(designator, Correction::nillable);
        if (rule != null) {
            nillable = rule.effect().correction().nillable();
            corrections.changed(
                    rule, designator, element.place(), "nillable " + element.nillable(), "nillable " + nillable);
        }
        Standard standard =
                standard(new Standard(element.defaultValue(), element.fixedValue()), designator, element.place());
        return new ElementDeclaration(
                local ? form(element.name(), path, element.place()) : element.name(),
                type,
                nillable,
                element.isAbstract(),
                standard.value(),
                standard.fixed(),
                element.substitutionHead(),
                element.expectedContentTypes(),
                element.constraints(),
                element.block(),
                element.documentation(),
                element.place());
    }

    private TypeReference type(TypeReference type, Path path, Place place, boolean ofAttribute) {
        Rule rule = corrections.about(path.designator(), Correction::type);
        if (rule != null) {
            return retyped(rule, path.designator(), type, place, ofAttribute);
        }
        if (type == null || type.anonymous() == null) {
            return type;
        }
        Path inside = type.anonymous() instanceof SimpleType ? path.to(Subject.typeOf(path.designator(), null)) : path;
        return TypeReference.to(type(type.anonymous(), inside));
    }

    private TypeReference retyped(Rule rule, String designator, TypeReference type, Place place, boolean ofAttribute) {
        QName name = rule.effect().correction().type();
        if (isMissing(rule, name) || ofAttribute && isStructured(rule, name)) {
            return type;
        }
        String before = type == null
                ? "that of its head"
                : type.name() == null ? "a type of its own" : corrections.shown(type.name());
        corrections.changed(rule, designator, place, "type " + before, "type " + corrections.shown(name));
        return TypeReference.to(name, place);
    }

    /** Whether a type that a correction names is not there; that is told. */
    boolean isMissing(Rule rule, QName name) {
        boolean missing = schema.type(name) == null && !name.equals(SchemaComponents.ANY_TYPE);
        if (missing) {
            corrections.refused(
                    rule, "there is no type " + corrections.shown(name), "name a type that the contract has");
        }
        return missing;
    }

    /** Whether a type that a correction gives to an attribute is none that an attribute can have; that is told. */
    private boolean isStructured(Rule rule, QName name) {
        boolean structured = !(schema.type(name) instanceof SimpleType);
        if (structured) {
            corrections.refused(
                    rule,
                    "an attribute cannot be of " + corrections.shown(name) + ", which is no simple type",
                    "name a simple type");
        }
        return structured;
    }

    private QName form(QName name, Path path, Place place) {
        Rule rule = corrections.about(path.designator(), Correction::qualified);
        if (rule == null) {
            return name;
        }
        boolean qualified = rule.effect().correction().qualified();
        Function<String, String> form = namespace -> namespace.isEmpty() ? "unqualified" : "qualified";
        QName other = new QName(qualified ? path.namespace() : "", name.getLocalPart());
        corrections.changed(
                rule,
                path.designator(),
                place,
                "form " + form.apply(name.getNamespaceURI()),
                "form " + form.apply(other.getNamespaceURI()));
        return other;
    }

    /** A default or the only value. */
    private record Standard(String value, String fixed) {
        @Override
        public String toString() {
            return fixed != null ? "fixed '" + fixed + "'" : value != null ? "default '" + value + "'" : "no default";
        }
    }

    private Standard standard(Standard now, String designator, Place place) {
        Rule rule = corrections.about(designator, Correction::standard);
        if (rule == null) {
            return now;
        }
        Standard other = new Standard(rule.effect().correction().standard().value(), null);
        corrections.changed(rule, designator, place, now.toString(), other.toString());
        return other;
    }

    private Attributes attributes(Attributes attributes, Path path, Place place) {
        List<Rule> additions = corrections.allAbout(path.designator(), Correction::added).stream()
                .filter(rule -> rule.effect().correction().added().kind() == Correction.Kind.ATTRIBUTE)
                .toList();
        boolean spread = corrections.reach(path.designator());
        List<AttributeUse> uses = new ArrayList<>();
        gather(attributes, spread, uses);
        List<AttributeUse> corrected = new ArrayList<>(uses.stream()
                .map(use -> attribute(use, path))
                .filter(Objects::nonNull)
                .toList());
        additions.forEach(rule -> add(rule, corrected, path, place));
        return new Attributes(corrected, spread ? List.of() : attributes.groups(), attributes.wildcard());
    }

    /** A type with a correction inside has the attributes of its groups as its own; groups with wildcards stay. */
    private void gather(Attributes attributes, boolean spread, List<AttributeUse> to) {
        to.addAll(attributes.uses());
        if (spread) {
            for (Attributes.GroupUse use : attributes.groups()) {
                AttributeGroup group = schema.attributeGroups().get(use.name());
                if (group != null) {
                    gather(group.attributes(), true, to);
                }
            }
        }
    }

    private void add(Rule rule, List<AttributeUse> uses, Path path, Place place) {
        Correction.Addition added = rule.effect().correction().added();
        boolean required = added.occurs().least() > 0;
        boolean there = uses.stream().anyMatch(use -> added.name().equals(nameOf(use)));
        String text = "attribute " + added.name() + " of type " + corrections.shown(added.type());
        corrections.changed(rule, path.designator(), place, there ? text : "no such attribute", text);
        if (!there && !isMissing(rule, added.type()) && !isStructured(rule, added.type())) {
            TypeReference type = TypeReference.to(added.type(), rule.place());
            uses.add(new AttributeUse(
                    null,
                    new AttributeDeclaration(added.name(), type, null, null, "", rule.place()),
                    required ? AttributeUse.Use.REQUIRED : AttributeUse.Use.OPTIONAL,
                    null,
                    null,
                    null,
                    rule.place()));
        }
    }

    private QName nameOf(AttributeUse use) {
        AttributeDeclaration declared = schema.declaration(use);
        return declared == null ? null : declared.name();
    }

    /** An attribute with what is said of it, or null when it is dropped. */
    private AttributeUse attribute(AttributeUse use, Path around) {
        AttributeDeclaration declared = schema.declaration(use);
        if (declared == null) {
            return use;
        }
        Path path = around.to(Subject.attribute(around.designator(), declared.name(), null));
        Rule dropping = corrections.dropping(path.designator());
        if (dropping != null) {
            corrections.changed(
                    dropping, path.designator(), use.place(), "attribute " + declared.name(), "no such attribute");
            return null;
        }
        TypeReference type = type(declared.type(), path, use.place(), true);
        Standard standard =
                standard(new Standard(use.defaultValue(), use.fixedValue()), path.designator(), use.place());
        boolean local = use.reference() == null;
        QName name = local ? form(declared.name(), path, use.place()) : declared.name();
        boolean same = type == declared.type() && name.equals(declared.name());
        return new AttributeUse(
                same ? use.reference() : null,
                same
                        ? use.declaration()
                        : new AttributeDeclaration(
                                name,
                                type,
                                declared.defaultValue(),
                                declared.fixedValue(),
                                declared.documentation(),
                                declared.place()),
                use(use, path.designator()),
                standard.value(),
                standard.fixed(),
                use.arrayItem(),
                use.place());
    }

    private AttributeUse.Use use(AttributeUse use, String designator) {
        Rule rule = corrections.about(designator, Correction::occurs);
        if (rule == null) {
            return use.use();
        }
        boolean required = rule.effect().correction().occurs().least() > 0;
        corrections.changed(
                rule,
                designator,
                use.place(),
                "occurs " + (use.use() == AttributeUse.Use.REQUIRED ? "1" : "0..1"),
                "occurs " + (required ? "1" : "0..1"));
        return required ? AttributeUse.Use.REQUIRED : AttributeUse.Use.OPTIONAL;
    }
}
