package org.protypos.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.Preset;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Xml;

/** Says in a sketch what a contract's schemas say, and names what a sketch cannot say. */
final class SchemaSketcher {
    private static final Set<FacetKind> NUMBERS = Set.of(FacetKind.MIN_INCLUSIVE, FacetKind.MAX_INCLUSIVE);
    private static final Set<FacetKind> LENGTHS = Set.of(FacetKind.MIN_LENGTH, FacetKind.MAX_LENGTH, FacetKind.LENGTH);

    private final SchemaComponents schema;
    private final Map<String, String> prefixes;
    private final Findings findings;
    private final Map<String, Map<String, SketchType>> types = new LinkedHashMap<>();
    private final Map<String, Map<String, SketchMember>> elements = new LinkedHashMap<>();
    private final Map<String, Set<Boolean>> forms = new LinkedHashMap<>();
    private final Set<String> hoisting = new HashSet<>();
    private String namespace;

    /**
     * Begins.
     *
     * @param prefixes how the sketch speaks of each namespace; empty for that of the contract itself
     */
    SchemaSketcher(SchemaComponents schema, Map<String, String> prefixes, Findings findings) {
        this.schema = schema;
        this.prefixes = prefixes;
        this.findings = findings;
        this.namespace = prefixes.keySet().iterator().next();
    }

    private void unsaid(Place place, String what) {
        findings.note("sketch-unsaid", place, "a sketch cannot say " + what, "");
    }

    /** The sections of all namespaces, without the elements that operations make for themselves. */
    List<Sketch.Section> sections(Set<QName> wrappers) {
        schema.types().forEach((name, type) -> {
            if (prefixes.containsKey(name.getNamespaceURI()) && !SchemaComponents.isOriginal(name)) {
                namespace = name.getNamespaceURI();
                SketchType said = type(type, name.getLocalPart());
                types(namespace).put(name.getLocalPart(), said);
            }
        });
        schema.elements().forEach((name, element) -> {
            if (prefixes.containsKey(name.getNamespaceURI()) && !wrappers.contains(name)) {
                namespace = name.getNamespaceURI();
                elements(namespace).put(name.getLocalPart(), global(element));
            }
        });
        schema.attributes().values().stream()
                .filter(attribute -> prefixes.containsKey(attribute.name().getNamespaceURI()))
                .forEach(attribute -> unsaid(
                        attribute.place(),
                        "global attributes: " + attribute.name().getLocalPart()));
        List<Sketch.Section> sections = new ArrayList<>();
        prefixes.forEach((of, prefix) -> {
            Set<Boolean> form = forms.getOrDefault(of, Set.of());
            if (form.size() > 1) {
                unsaid(null, "that some elements inside of types are in the namespace " + of + " and some are not");
            }
            sections.add(new Sketch.Section(
                    prefix, of, !form.contains(false) || form.contains(true), types(of), elements(of)));
        });
        return sections;
    }

    private Map<String, SketchType> types(String of) {
        return types.computeIfAbsent(of, none -> new LinkedHashMap<>());
    }

    private Map<String, SketchMember> elements(String of) {
        return elements.computeIfAbsent(of, none -> new LinkedHashMap<>());
    }

    private static boolean isPlain(ComplexType type) {
        return (type.base() == null || isAnyType(type))
                && !type.mixed()
                && type.attributes().equals(Attributes.NONE);
    }

    /** What the element of a message holds, where it is made for its operation; null where it is one of its own. */
    List<SketchMember> wrapped(ElementDeclaration element) {
        SchemaType type = element.type() == null ? null : element.type().anonymous();
        if (!(type instanceof ComplexType complex) || !isPlain(complex) || element.nillable()) {
            return null;
        }
        namespace = element.name().getNamespaceURI();
        return content(complex, element.name().getLocalPart());
    }

    private static boolean isAnyType(ComplexType type) {
        return type.base() != null
                && SchemaComponents.ANY_TYPE.equals(type.base().name());
    }

    /** How the sketch speaks of a component. */
    String named(QName name) {
        String of = name.getNamespaceURI();
        String local = SchemaComponents.localName(name);
        if (of.equals(Xml.XSD)) {
            boolean hidden =
                    types(namespace).containsKey(local) || schema.types().containsKey(new QName(namespace, local));
            return hidden ? "xs:" + local : local;
        }
        String prefix = prefixes.get(of);
        // In a line the word alone speaks of a global element.
        boolean taken = local.equals("element") && prefix != null;
        if (prefix == null || of.equals(namespace) && !taken) {
            return local;
        }
        return (prefix.isEmpty() ? "main" : prefix) + ":" + local;
    }

    private SketchType type(SchemaType type, String of) {
        return type.map(
                complex -> structure(complex, of),
                simple -> new SketchType.Values(values(simple, of), said(simple.documentation()), null));
    }

    private SketchType.Structure structure(ComplexType type, String of) {
        String base = null;
        if (type.derivation() == ComplexType.Derivation.RESTRICTION && !isAnyType(type) && type.base() != null) {
            unsaid(type.place(), "that " + of + " restricts a type");
        } else if (type.base() != null && !isAnyType(type)) {
            base = reference(type.base(), of + "Base");
        }
        List<SketchMember> members = new ArrayList<>();
        if (type.content() instanceof ComplexType.SimpleContent content) {
            if (!content.facets().isEmpty() || content.type() != null) {
                unsaid(type.place(), "how the text of " + of + " is narrowed");
            }
        } else {
            members.addAll(content(type, of));
        }
        attributes(type.attributes(), members, of);
        return new SketchType.Structure(
                base, type.isAbstract(), type.mixed(), members, said(type.documentation()), null);
    }

    /** Documentation that says something, or null. */
    static String said(String documentation) {
        return documentation == null || documentation.isBlank() ? null : documentation;
    }

    private static String local(QName name) {
        return name == null ? "a type without a name" : name.getLocalPart();
    }

    private List<SketchMember> content(ComplexType type, String of) {
        Particle particle = type.content() instanceof ComplexType.ElementContent content ? content.particle() : null;
        if (particle == null) {
            return List.of();
        }
        ModelGroup group = schema.group(particle.term());
        boolean plain = group != null
                && group.compositor() == ModelGroup.Compositor.SEQUENCE
                && particle.least() == 1
                && particle.most() == 1;
        return plain ? members(group, of) : List.of(member(particle, of));
    }

    private List<SketchMember> members(ModelGroup group, String of) {
        List<SketchMember> members = new ArrayList<>();
        Set<String> names = new HashSet<>();
        for (Particle particle : group.particles()) {
            SketchMember member = member(particle, of);
            String name = member instanceof SketchMember.Named named
                    ? named.name()
                    : member instanceof SketchMember.Reference reference
                            ? reference.name()
                            : member instanceof SketchMember.Anything anything
                                    ? "anything " + anything.least() + anything.most()
                                    : null;
            if (name != null && !names.add(name)) {
                unsaid(particle.term().place(), "that " + name + " stands in " + of + " twice");
            } else {
                members.add(member);
            }
        }
        return members;
    }

    private SketchMember member(Particle particle, String of) {
        int most = particle.most() == Particle.UNBOUNDED ? DraftParticle.UNBOUNDED : particle.most();
        if (particle.term() instanceof ElementDeclaration element) {
            forms.computeIfAbsent(namespace, none -> new HashSet<>())
                    .add(!element.name().getNamespaceURI().isEmpty() || namespace.isEmpty());
            return new SketchMember.Named(
                    element.name().getLocalPart(),
                    false,
                    term(element, particle.least(), most, of),
                    said(element.documentation()),
                    null);
        }
        if (particle.term() instanceof ElementReference reference) {
            if (!prefixes.containsKey(reference.name().getNamespaceURI())) {
                unsaid(
                        reference.place(),
                        "the element " + reference.name().getLocalPart() + " of the namespace "
                                + reference.name().getNamespaceURI() + ", in " + of);
                return new SketchMember.Anything(particle.least(), most, null);
            }
            return new SketchMember.Reference(named(reference.name()), particle.least(), most, null);
        }
        if (particle.term() instanceof Wildcard wildcard) {
            if (!wildcard.namespaces().equals(List.of("##other")) || wildcard.processing() != Wildcard.Processing.LAX) {
                unsaid(
                        wildcard.place(),
                        "which elements stand in " + of + " in place of xs:any, other than those of other namespaces");
            }
            return new SketchMember.Anything(particle.least(), most, null);
        }
        ModelGroup group = schema.group(particle.term());
        DraftParticle.Kind kind = group == null
                ? DraftParticle.Kind.SEQUENCE
                : switch (group.compositor()) {
                    case SEQUENCE -> DraftParticle.Kind.SEQUENCE;
                    case CHOICE -> DraftParticle.Kind.CHOICE;
                    case ALL -> DraftParticle.Kind.ALL;
                };
        return new SketchMember.Group(
                kind, particle.least(), most, group == null ? List.of() : members(group, of), null);
    }

    private TypeTerm term(ElementDeclaration element, int least, int most, String of) {
        if (!element.constraints().isEmpty()) {
            unsaid(
                    element.place(),
                    "the identity constraints of " + element.name().getLocalPart());
        }
        if (element.expectedContentTypes() != null) {
            unsaid(element.place(), "the media type of " + element.name().getLocalPart());
        }
        String wanted = of + SketchReader.capital(element.name().getLocalPart());
        return occurring(
                values(schema.typeOf(element), wanted),
                least,
                most,
                element.nillable(),
                preset(element.fixedValue(), element.defaultValue()),
                wanted);
    }

    private static Preset preset(String fixed, String otherwise) {
        return fixed != null ? new Preset(fixed, true) : otherwise == null ? null : new Preset(otherwise, false);
    }

    /** The line with how often it stands; an enumeration of which a line cannot say that gets a name. */
    private TypeTerm occurring(TypeTerm value, int least, int most, boolean nillable, Preset preset, String wanted) {
        TypeTerm term = value;
        if (!value.values().isEmpty() && (least != 1 || most != 1 || nillable || preset != null)) {
            String name = free(wanted);
            types(namespace).put(name, new SketchType.Values(value, null, null));
            term = TypeTerm.of(name);
        }
        return term.occurring(least, most, nillable, preset);
    }

    private SketchMember global(ElementDeclaration element) {
        String name = element.name().getLocalPart();
        if (element.isAbstract() || element.substitutionHead() != null) {
            unsaid(element.place(), "for which others " + name + " stands, or that others stand for it");
        }
        return new SketchMember.Named(name, false, term(element, 1, 1, ""), said(element.documentation()), null);
    }

    /** A type in one line; one that has no name gets one where a line cannot say it. */
    private TypeTerm values(TypeReference reference, String wanted) {
        if (reference.name() != null) {
            return TypeTerm.of(named(reference.name()));
        }
        if (reference.anonymous() instanceof SimpleType simple) {
            return values(simple, wanted);
        }
        return TypeTerm.of(hoisted((ComplexType) reference.anonymous(), wanted));
    }

    private String hoisted(ComplexType type, String wanted) {
        String name = free(wanted);
        types(namespace).put(name, new SketchType.Structure(null, false, false, List.of(), null, null));
        SketchType.Structure made = structure(type, name);
        types(namespace).put(name, made);
        return name;
    }

    private String free(String wanted) {
        String capital = SketchReader.capital(wanted);
        String name = capital;
        for (int i = 2;
                schema.types().containsKey(new QName(namespace, name)) || !hoisting.add(namespace + " " + name);
                i++) {
            name = capital + i;
        }
        return name;
    }

    private String reference(TypeReference reference, String wanted) {
        return reference.name() != null
                ? named(reference.name())
                : reference.anonymous() instanceof ComplexType complex
                        ? hoisted(complex, wanted)
                        : value(reference, wanted);
    }

    /** The name of a type of values; one without a name gets one. */
    private String value(TypeReference reference, String wanted) {
        if (reference.name() != null) {
            return named(reference.name());
        }
        String name = free(wanted);
        types(namespace).put(name, new SketchType.Values(values((SimpleType) reference.anonymous(), name), null, null));
        return name;
    }

    private TypeTerm values(SimpleType type, String wanted) {
        switch (type.variety()) {
            case UNION -> {
                List<String> members = new ArrayList<>();
                type.members().forEach(member -> members.add(value(member, wanted + "Value")));
                return new TypeTerm(
                        members.get(0),
                        members.subList(1, members.size()),
                        false,
                        List.of(),
                        null,
                        null,
                        1,
                        1,
                        false,
                        null);
            }
            case LIST -> {
                return new TypeTerm(
                        reference(type.base(), wanted + "Item"),
                        List.of(),
                        true,
                        List.of(),
                        null,
                        null,
                        1,
                        1,
                        false,
                        null);
            }
            default -> {
                return restricted(type, wanted);
            }
        }
    }

    private TypeTerm restricted(SimpleType type, String wanted) {
        for (Facet facet : type.facets()) {
            if (said(facet.documentation()) != null) {
                unsaid(facet.place(), "what is written about xs:" + facet.kind() + " \"" + facet.value() + "\"");
            }
        }
        if (type.base() == null) {
            return TypeTerm.of("string");
        }
        TypeTerm base = type.base().name() != null
                ? TypeTerm.of(named(type.base().name()))
                : values((SimpleType) type.base().anonymous(), wanted);
        List<String> values = new ArrayList<>();
        Map<FacetKind, String> bounds = new LinkedHashMap<>();
        String pattern = null;
        for (Facet facet : type.facets()) {
            if (facet.kind() == FacetKind.ENUMERATION) {
                values.add(facet.value());
            } else if (facet.kind() == FacetKind.PATTERN
                    && pattern == null
                    && !facet.value().contains("\n")) {
                pattern = facet.value();
            } else if ((NUMBERS.contains(facet.kind()) || LENGTHS.contains(facet.kind()))
                    && facet.value().matches("[^\\s().]*(\\.[0-9]+)?")) {
                bounds.put(facet.kind(), facet.value());
            } else {
                unsaid(facet.place(), facet.kind() + " of " + facet.value());
            }
        }
        boolean same = base.values().isEmpty()
                && (base.others().isEmpty() || type.facets().isEmpty())
                && base.range() == null
                && base.pattern() == null;
        if (!values.isEmpty() || !same) {
            if (pattern != null || !bounds.isEmpty() || !same) {
                unsaid(type.place(), "all ways in which " + local(type.name()) + " is narrowed");
            }
            return values.isEmpty() ? base : TypeTerm.oneOf(base.type(), values);
        }
        return new TypeTerm(
                base.type(), base.others(), base.isList(), List.of(), range(bounds), pattern, 1, 1, false, null);
    }

    private static String range(Map<FacetKind, String> bounds) {
        if (bounds.isEmpty()) {
            return null;
        }
        String length = bounds.get(FacetKind.LENGTH);
        return length != null
                ? length
                : either(bounds, FacetKind.MIN_INCLUSIVE, FacetKind.MIN_LENGTH) + ".."
                        + either(bounds, FacetKind.MAX_INCLUSIVE, FacetKind.MAX_LENGTH);
    }

    private static String either(Map<FacetKind, String> bounds, FacetKind one, FacetKind other) {
        return Objects.requireNonNullElse(bounds.getOrDefault(one, bounds.get(other)), "");
    }

    private void attributes(Attributes attributes, List<SketchMember> members, String of) {
        if (attributes.wildcard() != null) {
            unsaid(attributes.wildcard().place(), "that " + of + " takes other attributes");
        }
        for (AttributeUse use : attributes.uses()) {
            AttributeDeclaration declared = use.declaration();
            if (use.use() == AttributeUse.Use.PROHIBITED) {
                unsaid(use.place(), "that " + of + " has an attribute no longer");
            } else if (declared == null || !declared.name().getNamespaceURI().isEmpty()) {
                unsaid(use.place(), "attributes in a namespace, in " + of);
            } else {
                String name = declared.name().getLocalPart();
                Preset preset = use.defaultValue() != null || use.fixedValue() != null
                        ? preset(use.fixedValue(), use.defaultValue())
                        : preset(declared.fixedValue(), declared.defaultValue());
                TypeTerm value = values(
                        declared.type() == null
                                ? TypeReference.to(new QName(Xml.XSD, BuiltIn.ANY_SIMPLE_TYPE.local()), null)
                                : declared.type(),
                        of + SketchReader.capital(name));
                int least = use.use() == AttributeUse.Use.REQUIRED ? 1 : 0;
                members.add(new SketchMember.Named(
                        name,
                        true,
                        occurring(value, least, 1, false, preset, of + SketchReader.capital(name)),
                        said(declared.documentation()),
                        null));
            }
        }
        for (Attributes.GroupUse group : attributes.groups()) {
            AttributeGroup defined = schema.attributeGroups().get(group.name());
            if (defined != null) {
                attributes(defined.attributes(), members, of);
            }
        }
    }
}
