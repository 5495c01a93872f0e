package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftAttribute;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftType;
import org.protypos.authoring.DraftValue;
import org.protypos.authoring.SchemaFiles;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.BuiltIn;
import org.protypos.source.Xml;

/** Makes the schemas of a sketch: its types, its elements, and the elements that its operations need. */
final class SchemaSketch {
    /** How others speak of the section of the contract itself. */
    private static final String MAIN = "main";

    private static final int DEEPEST = 100;

    private final Sketch sketch;
    private final Findings findings;
    private final Map<String, Sketch.Section> sections = new LinkedHashMap<>();
    private final Set<String> wrappers = new LinkedHashSet<>();
    private Sketch.Section section;

    SchemaSketch(Sketch sketch, Findings findings) {
        this.sketch = sketch;
        this.findings = findings;
        sketch.sections().forEach(one -> sections.put(one.prefix(), one));
        this.section = sketch.sections().get(0);
        if (sketch.style() == Sketch.Style.DOCUMENT) {
            sketch.operations().forEach(operation -> {
                if (operation.in().element() == null) {
                    wrappers.add(operation.name());
                }
                if (operation.out() != null && operation.out().element() == null) {
                    wrappers.add(operation.name() + "Response");
                }
            });
        }
    }

    /** The names of the global elements in a section, those of its operations too. */
    private Set<String> elements(Sketch.Section of) {
        Set<String> names = new LinkedHashSet<>(of.elements().keySet());
        if (of.prefix().isEmpty()) {
            names.addAll(wrappers);
        }
        return names;
    }

    /** The schemas, that of the contract itself first. */
    List<DraftSchema> schemas() {
        SchemaFiles files = new SchemaFiles(Map.of());
        List<DraftSchema> schemas = new ArrayList<>();
        Set<String> namespaces = new LinkedHashSet<>();
        for (Sketch.Section one : sketch.sections()) {
            section = one;
            if (!namespaces.add(one.namespace())) {
                findings.error(
                        "sketch", null, "two sections have the namespace " + one.namespace(), "make one of the two");
                continue;
            }
            boolean main = one.prefix().isEmpty();
            Map<String, DraftParticle.Element> elements = new LinkedHashMap<>();
            List<DraftType> types = new ArrayList<>();
            if (main && sketch.style() == Sketch.Style.DOCUMENT) {
                sketch.operations().forEach(operation -> wrappers(operation, elements, types));
            }
            one.elements().forEach((name, element) -> global((SketchMember.Named) element, elements));
            one.types().forEach((name, type) -> types.add(type(name, type)));
            schemas.add(new DraftSchema(
                    one.namespace(),
                    main
                            ? files.called(one.namespace(), hyphened(sketch.name()))
                            : files.of(one.namespace(), one.prefix()),
                    !one.namespace().isEmpty() && one.isQualified(),
                    List.copyOf(elements.values()),
                    List.of(),
                    types));
        }
        section = sketch.sections().get(0);
        return schemas;
    }

    /** A name as files are called: {@code FogSignal} is in {@code fog-signal}. */
    private static String hyphened(String name) {
        return name.replaceAll("(?<=[\\p{Ll}\\p{N}])(?=\\p{Lu})", "-");
    }

    private void wrong(Place place, String message, String cure) {
        findings.error("sketch", place, message, cure);
    }

    private QName own(String local) {
        return new QName(section.namespace(), local);
    }

    private void global(SketchMember.Named element, Map<String, DraftParticle.Element> elements) {
        if (elements.containsKey(element.name())) {
            wrong(
                    element.place(),
                    "there is an element " + element.name() + " already, that of an operation",
                    "call one of the two otherwise");
        }
        elements.put(
                element.name(),
                DraftParticle.Element.global(
                        own(element.name()),
                        value(element.term(), element.place()),
                        element.term().isNillable(),
                        element.documentation()));
    }

    /** The elements of the messages of an operation, each of a type of its own that has no name. */
    private void wrappers(
            Sketch.SketchOperation operation, Map<String, DraftParticle.Element> elements, List<DraftType> types) {
        wrapper(operation.name(), operation.in(), operation, elements, types);
        if (operation.out() != null) {
            wrapper(operation.name() + "Response", operation.out(), operation, elements, types);
        }
    }

    private void wrapper(
            String name,
            Sketch.Content content,
            Sketch.SketchOperation operation,
            Map<String, DraftParticle.Element> elements,
            List<DraftType> types) {
        if (content.element() != null) {
            element(content.element(), operation.place());
            return;
        }
        if (elements.containsKey(name)) {
            wrong(operation.place(), "two operations need an element " + name, "call one of them otherwise");
            return;
        }
        elements.put(name, DraftParticle.Element.inline(own(name), structure(null, content.members())));
    }

    /** The name of a global element that the sketch speaks of. */
    QName element(String name, Place place) {
        int colon = name.indexOf(':');
        String prefix = colon < 0 ? "" : name.substring(0, colon);
        Sketch.Section of = sections.get(prefix.equals(MAIN) ? "" : prefix);
        String local = name.substring(colon + 1);
        if (colon < 0 && section != null && elements(section).contains(local)) {
            of = section;
        }
        if (of == null || !elements(of).contains(local)) {
            Set<String> known = new LinkedHashSet<>();
            sections.forEach((key, one) ->
                    elements(one).forEach(element -> known.add(key.isEmpty() ? element : key + ":" + element)));
            wrong(
                    place,
                    "there is no element " + name + " in the sketch",
                    NearestName.of(name, known)
                            .map(near -> "perhaps " + near)
                            .orElse("say below \"elements:\" what it is"));
            return new QName(section == null ? sketch.namespace() : section.namespace(), local);
        }
        return new QName(of.namespace(), local);
    }

    private DraftType type(String name, SketchType type) {
        return type.map(
                values -> new DraftType.Simple(own(name), value(values.term(), values.place()), values.documentation()),
                structure -> complex(name, structure));
    }

    private DraftType complex(String name, SketchType.Structure structure) {
        DraftType.Complex made = structure(own(name), structure.members());
        QName base = structure.base() == null ? null : named(structure.base(), structure.place());
        boolean simple = base != null && isOfValues(structure.base());
        if (simple && made.content() != null) {
            wrong(
                    structure.place(),
                    name + " extends values, so that it can have attributes alone",
                    "write its members with @, or let it extend a type with members");
        }
        if (base != null
                && !simple
                && made.content() != null
                && sketched(structure.base()) instanceof SketchType.Structure extended
                && extended.isMixed() != structure.isMixed()) {
            wrong(
                    structure.place(),
                    "either both or none of " + name + " and " + structure.base() + ", which it extends, can be mixed",
                    "add \"mixed: true\" to the other too, or take it away");
        }
        return new DraftType.Complex(
                own(name),
                simple ? null : base,
                structure.isAbstract(),
                structure.isMixed(),
                simple ? DraftValue.of(base) : null,
                simple ? null : made.content(),
                false,
                made.attributes(),
                structure.documentation());
    }

    private DraftType.Complex structure(QName name, List<SketchMember> members) {
        List<DraftParticle> particles = new ArrayList<>();
        List<DraftAttribute> attributes = new ArrayList<>();
        for (SketchMember member : members) {
            if (member instanceof SketchMember.Named named && named.isAttribute()) {
                attributes.add(new DraftAttribute(
                        new QName(named.name()),
                        value(named.term(), named.place()),
                        named.term().least() > 0
                                && (named.term().preset() == null
                                        || named.term().preset().isFixed()),
                        named.documentation(),
                        named.term().preset()));
            } else {
                particles.add(particle(member));
            }
        }
        return new DraftType.Complex(
                name, null, false, false, null, particles.isEmpty() ? null : group(particles), false, attributes, null);
    }

    /** Members in any order are a model of their own (XML Schema Part 1, section 3.8.2). */
    private static DraftParticle.Group group(List<DraftParticle> particles) {
        return particles.size() == 1
                        && particles.get(0) instanceof DraftParticle.Group only
                        && (only.kind() == DraftParticle.Kind.ALL || only.kind() == DraftParticle.Kind.CHOICE)
                ? only
                : DraftParticle.Group.sequence(particles);
    }

    private DraftParticle particle(SketchMember member) {
        if (member instanceof SketchMember.Named named) {
            TypeTerm term = named.term();
            if (named.isAttribute()) {
                wrong(named.place(), "an attribute stands in a choice", "write it beside the choice");
            }
            return new DraftParticle.Element(
                    section.isQualified() ? own(named.name()) : new QName(named.name()),
                    value(term, named.place()),
                    term.least(),
                    term.most(),
                    term.isNillable(),
                    false,
                    term.preset(),
                    named.documentation());
        }
        if (member instanceof SketchMember.Reference reference) {
            return new DraftParticle.Element(
                    element(reference.name(), reference.place()),
                    null,
                    reference.least(),
                    reference.most(),
                    false,
                    true,
                    null,
                    null);
        }
        if (member instanceof SketchMember.Group group) {
            return new DraftParticle.Group(
                    group.kind(),
                    group.least(),
                    group.most(),
                    group.members().stream().map(this::particle).toList());
        }
        SketchMember.Anything anything = (SketchMember.Anything) member;
        return new DraftParticle.Anything(anything.least(), anything.most(), true);
    }

    private DraftValue value(TypeTerm term, Place place) {
        QName type = named(term.type(), place);
        BuiltIn builtIn = builtIn(term.type(), 0);
        if (term.isNarrowed() && builtIn == null) {
            wrong(
                    place,
                    "\"" + term + "\" narrows " + term.type() + ", which is no type of values",
                    "narrow a built-in type, or a type of values of the sketch");
        }
        boolean bounded = builtIn != null && (builtIn.isNumber() || isMoment(builtIn));
        List<QName> others =
                term.others().stream().map(other -> named(other, place)).toList();
        if (!others.isEmpty()) {
            Stream.concat(Stream.of(term.type()), term.others().stream())
                    .filter(one -> sketched(one) instanceof SketchType.Structure || one.endsWith("anyType"))
                    .forEach(one -> wrong(
                            place,
                            one + " is no type of values: a value is not of it or of another",
                            "write \"either:\" with a member for each type below it"));
        }
        return new DraftValue(type, others, term.isList(), term.values(), term.facets(bounded));
    }

    private static boolean isMoment(BuiltIn type) {
        return switch (type) {
            case DATE, DATE_TIME, TIME, DURATION, G_YEAR, G_YEAR_MONTH, G_MONTH, G_MONTH_DAY, G_DAY -> true;
            default -> false;
        };
    }

    /** Resolves the name of a type: one of the section, or of the contract itself, or one that is built in. */
    QName named(String name, Place place) {
        int colon = name.indexOf(':');
        String prefix = colon < 0 ? "" : name.substring(0, colon);
        String local = name.substring(colon + 1);
        if (prefix.equals("xs")) {
            if (BuiltIn.of(local) == null && !local.equals("anyType")) {
                unknown(name, place);
            }
            return new QName(Xml.XSD, local);
        }
        if (colon < 0) {
            if (section != null && section.types().containsKey(local)) {
                return own(local);
            }
            if (BuiltIn.of(local) != null || local.equals("anyType")) {
                return new QName(Xml.XSD, local);
            }
        }
        Sketch.Section of = sections.get(prefix.equals(MAIN) ? "" : prefix);
        if (of == null || !of.types().containsKey(local)) {
            unknown(name, place);
            return new QName(Xml.XSD, "string");
        }
        return new QName(of.namespace(), local);
    }

    private void unknown(String name, Place place) {
        Set<String> known = new LinkedHashSet<>();
        sections.forEach(
                (key, one) -> one.types().keySet().forEach(type -> known.add(key.isEmpty() ? type : key + ":" + type)));
        for (BuiltIn type : BuiltIn.values()) {
            known.add(type.local());
        }
        wrong(
                place,
                "there is no type " + name,
                NearestName.of(name, known).map(near -> "perhaps " + near).orElse("say below \"types:\" what it is"));
    }

    private SketchType sketched(String name) {
        int colon = name.indexOf(':');
        String prefix = colon < 0 ? "" : name.substring(0, colon);
        String local = name.substring(colon + 1);
        if (colon < 0 && section != null && section.types().containsKey(local)) {
            return section.types().get(local);
        }
        Sketch.Section of = sections.get(prefix.equals(MAIN) ? "" : prefix);
        return of == null || colon < 0 && BuiltIn.of(local) != null
                ? null
                : of.types().get(local);
    }

    /** Whether a type is one of values. */
    boolean isOfValues(String name) {
        return isOfValues(name, 0);
    }

    private boolean isOfValues(String name, int depth) {
        SketchType type = sketched(name);
        if (type == null) {
            return BuiltIn.of(name.replaceFirst("^xs:", "")) != null;
        }
        // Types that extend each other in a circle are told when the contract is read.
        return type instanceof SketchType.Values
                || depth < DEEPEST
                        && type instanceof SketchType.Structure structure
                        && structure.base() != null
                        && structure.members().stream()
                                .allMatch(member -> member instanceof SketchMember.Named named && named.isAttribute())
                        && isOfValues(structure.base(), depth + 1);
    }

    /** The built-in type that a type of values is made of, or null. */
    private BuiltIn builtIn(String name, int depth) {
        SketchType type = depth > DEEPEST ? null : sketched(name);
        if (type == null) {
            return BuiltIn.of(name.replaceFirst("^xs:", ""));
        }
        return type instanceof SketchType.Values values
                        && !values.term().isList()
                        && values.term().others().isEmpty()
                ? builtIn(values.term().type(), depth + 1)
                : type instanceof SketchType.Values ? BuiltIn.STRING : null;
    }
}
