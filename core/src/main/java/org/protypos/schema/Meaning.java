package org.protypos.schema;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;

/**
 * What a component says, as text: two components that let the same messages through by the same names have the same one,
 * wherever they stand, whatever their prefixes, their documentation and the order of their attributes.
 */
public final class Meaning {
    private static final Pattern PREFIXED = Pattern.compile("([\\p{L}_][\\p{L}\\p{N}_.-]*):(?=[\\p{L}_*])");

    private Meaning() {}

    /** What a type says. */
    public static String of(SchemaType type) {
        return type.map(Meaning::complex, Meaning::simple);
    }

    private static String simple(SimpleType type) {
        return "simple " + type.name() + " " + type.variety() + " " + of(type.base()) + " "
                + type.members().stream().map(Meaning::of).toList() + facets(type.facets());
    }

    private static String complex(ComplexType type) {
        String content = type.content() instanceof ComplexType.SimpleContent simple
                ? "text " + of(simple.type()) + facets(simple.facets())
                : particle(type.particle());
        return "complex " + type.name() + (type.isAbstract() ? " abstract" : "")
                + (type.mixed() ? " mixed " : " ") + type.derivation() + " " + of(type.base()) + " " + content
                + " " + of(type.attributes()) + new TreeSet<>(type.block());
    }

    /** What an element declaration says. */
    public static String of(ElementDeclaration element) {
        List<String> constraints = new ArrayList<>();
        element.constraints().forEach(constraint -> constraints.add(of(constraint)));
        return "element " + element.name() + " " + of(element.type()) + (element.nillable() ? " nillable" : "")
                + (element.isAbstract() ? " abstract " : " ") + element.defaultValue() + " " + element.fixedValue()
                + " "
                + element.substitutionHead() + " " + element.expectedContentTypes() + constraints
                + new TreeSet<>(element.block());
    }

    /** What an attribute declaration says. */
    public static String of(AttributeDeclaration attribute) {
        return "attribute " + attribute.name() + " " + of(attribute.type()) + " " + attribute.defaultValue() + " "
                + attribute.fixedValue();
    }

    /** What a model group says. */
    public static String of(ModelGroupDefinition group) {
        return "group " + group.name() + " " + term(group.group());
    }

    /** What an attribute group says. */
    public static String of(AttributeGroup group) {
        return "attributes " + group.name() + " " + of(group.attributes());
    }

    /** What a notation says. */
    public static String of(Notation notation) {
        return "notation " + notation.name() + " " + notation.publicId() + " " + notation.systemId();
    }

    private static String of(TypeReference reference) {
        return reference == null
                ? "-"
                : reference.name() != null ? reference.name().toString() : "(" + of(reference.anonymous()) + ")";
    }

    /** What an identity constraint says. */
    public static String of(IdentityConstraint constraint) {
        List<String> fields = new ArrayList<>();
        constraint.fields().forEach(field -> fields.add(expanded(field, constraint.namespaces())));
        return constraint.kind() + " " + constraint.name() + " "
                + expanded(constraint.selector(), constraint.namespaces()) + fields + constraint.refer();
    }

    private static String facets(List<Facet> facets) {
        Collection<String> said = new TreeSet<>();
        facets.forEach(facet -> said.add(facet.kind() + " "
                + (facet.kind() == FacetKind.ENUMERATION
                        ? expanded(facet.value(), facet.namespaces())
                        : facet.value())));
        return said.toString();
    }

    /** Text in which each prefix that is declared where it stands is replaced by its namespace. */
    private static String expanded(String text, UnaryOperator<String> namespaces) {
        Matcher matcher = PREFIXED.matcher(text);
        return matcher.replaceAll(found -> {
            String namespace = namespaces.apply(found.group(1));
            return Matcher.quoteReplacement(namespace == null ? found.group() : "{" + namespace + "}");
        });
    }

    private static String of(Attributes attributes) {
        Collection<String> said = new TreeSet<>();
        for (AttributeUse use : attributes.uses()) {
            String what = use.declaration() != null
                    ? of(use.declaration())
                    : use.reference().toString();
            said.add(
                    what + " " + use.use() + " " + use.defaultValue() + " " + use.fixedValue() + " " + use.arrayItem());
        }
        attributes.groups().forEach(group -> said.add("group " + group.name()));
        return said + (attributes.wildcard() == null ? "" : term(attributes.wildcard()));
    }

    private static String particle(Particle particle) {
        if (particle == null) {
            return "nothing";
        }
        // A group of one is that one.
        if (particle.term() instanceof ModelGroup group
                && group.particles().size() == 1
                && particle.least() == 1
                && particle.most() == 1) {
            return particle(group.particles().get(0));
        }
        return term(particle.term()) + " " + particle.least() + ".." + particle.most();
    }

    private static String term(Term term) {
        return term.map(new Term.Cases<>(
                Meaning::of,
                reference -> "element " + reference.name(),
                group -> "group " + group.name(),
                Meaning::model,
                Meaning::wildcard));
    }

    private static String wildcard(Wildcard wildcard) {
        Collection<String> namespaces = new TreeSet<>();
        for (String namespace : wildcard.namespaces()) {
            namespaces.add(
                    switch (namespace) {
                        case "##targetNamespace" -> wildcard.targetNamespace();
                        case "##local" -> "";
                        case "##other" -> "not " + wildcard.targetNamespace();
                        default -> namespace;
                    });
        }
        return "any " + namespaces + wildcard.processing();
    }

    private static String model(ModelGroup group) {
        List<String> parts = new ArrayList<>();
        collect(group, parts);
        return (parts.size() == 1 ? "" : group.compositor()) + parts.toString();
    }

    /** A sequence in a sequence, or a choice in a choice, is no more than what is in it. */
    private static void collect(ModelGroup group, List<String> parts) {
        for (Particle particle : group.particles()) {
            boolean once = particle.least() == 1 && particle.most() == 1;
            if (once && particle.term() instanceof ModelGroup inner && inner.compositor() == group.compositor()) {
                collect(inner, parts);
            } else {
                parts.add(particle(particle));
            }
        }
    }
}
