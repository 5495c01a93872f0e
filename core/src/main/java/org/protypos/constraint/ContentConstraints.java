package org.protypos.constraint;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.Vocabulary;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;

/**
 * Whether it can be told of each element in a type, when it comes, which particle it belongs to (XML Schema Part 1, section
 * 3.8.6, unique particle attribution), and whether elements of one name are of one type there (element declarations
 * consistent).
 */
final class ContentConstraints {
    /** Models with more leaves are not judged: it would take long. */
    private static final int MOST_LEAVES = 3_000;

    /** Nor are models in which groups stand in one another as deep as this. */
    private static final int MOST_LEVELS = 200;

    private final Vocabulary vocabulary;
    private final SchemaComponents schema;
    private final Findings findings;
    private final Map<Particle, Next> firsts = new IdentityHashMap<>();
    private final Map<Particle, Boolean> emptiable = new IdentityHashMap<>();
    private final Set<Particle> inspected = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Map<Particle, Place> uses = new IdentityHashMap<>();
    private final Set<Place> told = new HashSet<>();
    private int leavesLeft;
    private boolean tooMuch;

    ContentConstraints(Vocabulary vocabulary, Findings findings) {
        this.vocabulary = vocabulary;
        this.schema = vocabulary.schema();
        this.findings = findings;
    }

    /** What may come next: elements by their names, each with the particle that it belongs to, and wildcards. */
    private static final class Next {
        private final Map<QName, Particle> names = new LinkedHashMap<>();
        private final List<Particle> wildcards = new ArrayList<>();
    }

    void check(ComplexType type) {
        if (type.particle() == null || type.isEncodedArray()) {
            return;
        }
        List<Particle> particles = new ArrayList<>();
        firsts.clear();
        emptiable.clear();
        uses.clear();
        leavesLeft = MOST_LEAVES;
        tooMuch = false;
        for (Particle particle : vocabulary.type(TypeReference.to(type)).particles()) {
            alone(particle, particle == type.particle(), MOST_LEVELS);
            particles.add(laidOut(particle, null, MOST_LEVELS));
        }
        if (!tooMuch) {
            List<Particle> leaves = new ArrayList<>();
            particles.forEach(particle -> leaves(particle, leaves));
            if (!areDistinct(leaves)) {
                sequence(particles, new Next());
                consistent(leaves);
            }
        }
    }

    /**
     * A particle with the groups that are referred to in their places: what a group holds is another particle wherever the
     * group is used.
     *
     * @param used where the outermost reference stands that led there, or null
     */
    private Particle laidOut(Particle particle, Place used, int levels) {
        ModelGroup group = schema.group(particle.term());
        if (group == null) {
            Particle leaf = new Particle(particle.term(), particle.least(), particle.most());
            if (used != null) {
                uses.put(leaf, used);
            }
            leavesLeft--;
            return leaf;
        }
        tooMuch |= levels == 0 || leavesLeft < 0;
        Place here = used == null && particle.term() instanceof GroupReference
                ? particle.term().place()
                : used;
        List<Particle> parts = new ArrayList<>();
        for (Particle part : tooMuch ? List.<Particle>of() : group.particles()) {
            parts.add(laidOut(part, here, levels - 1));
        }
        return new Particle(
                new ModelGroup(group.compositor(), parts, group.place()), particle.least(), particle.most());
    }

    /** Whether each element can belong to one particle only, wherever it comes: then there is nothing to judge. */
    private boolean areDistinct(List<Particle> leaves) {
        Set<QName> seen = new HashSet<>();
        for (Particle leaf : leaves) {
            if (leaf.term() instanceof ElementDeclaration element) {
                if (!seen.add(element.name())) {
                    return false;
                }
            } else if (leaf.term() instanceof Wildcard
                    || !names(leaf.term()).stream().allMatch(seen::add)) {
                return leaves.size() == 1;
            }
        }
        return true;
    }

    private static void leaves(Particle particle, List<Particle> to) {
        if (particle.term() instanceof ModelGroup group) {
            group.particles().forEach(inner -> leaves(inner, to));
        } else {
            to.add(particle);
        }
    }

    /** An xs:all is the whole of a content model (section 3.8.6, all group limited). */
    private void alone(Particle particle, boolean whole, int levels) {
        ModelGroup group = schema.group(particle.term());
        if (group == null || levels == 0 || !inspected.add(particle)) {
            return;
        }
        if (group.compositor() == ModelGroup.Compositor.ALL && !whole) {
            findings.warning(
                    "all-inside",
                    particle.term().place(),
                    "an xs:all stands among other elements; it is the whole content of a type",
                    "use xs:sequence in its place");
        }
        group.particles().forEach(inner -> alone(inner, false, levels - 1));
    }

    private void sequence(List<Particle> particles, Next follow) {
        Next next = follow;
        for (int i = particles.size() - 1; i >= 0; i--) {
            Particle particle = particles.get(i);
            visit(particle, next);
            next = isEmptiable(particle) ? merged(first(particle), next) : first(particle);
        }
    }

    /** Judges what is in a particle, where something may follow it. */
    private void visit(Particle particle, Next follow) {
        ModelGroup group = group(particle);
        if (!particle.repeats()) {
            if (group != null) {
                visit(group, follow);
            }
        } else if (particle.most() > particle.least() || group != null && isEmptiable(group)) {
            Next again = merged(first(particle), follow);
            if (group != null) {
                visit(group, again);
            }
        } else if (group != null) {
            // Each round but the last is followed by another one, and the last by what follows.
            visit(group, first(particle));
            visit(group, follow);
        }
    }

    private static ModelGroup group(Particle particle) {
        return particle.term() instanceof ModelGroup group ? group : null;
    }

    private void visit(ModelGroup group, Next follow) {
        if (group.compositor() == ModelGroup.Compositor.SEQUENCE) {
            sequence(group.particles(), follow);
            return;
        }
        Next all = new Next();
        for (Particle particle : group.particles()) {
            visit(particle, follow);
            add(first(particle), all);
        }
    }

    private boolean isEmptiable(Particle particle) {
        if (particle.least() == 0) {
            return true;
        }
        ModelGroup group = group(particle);
        return group != null && emptiable.computeIfAbsent(particle, any -> isEmptiable(group));
    }

    private boolean isEmptiable(ModelGroup group) {
        return group.compositor() == ModelGroup.Compositor.CHOICE
                ? group.particles().isEmpty() || group.particles().stream().anyMatch(this::isEmptiable)
                : group.particles().stream().allMatch(this::isEmptiable);
    }

    private Next first(Particle particle) {
        Next known = firsts.get(particle);
        if (known == null) {
            known = new Next();
            ModelGroup group = group(particle);
            if (group == null) {
                leaf(particle, known);
            } else {
                for (Particle inner : group.particles()) {
                    Next more = first(inner);
                    more.names.forEach(known.names::putIfAbsent);
                    known.wildcards.addAll(more.wildcards);
                    if (group.compositor() == ModelGroup.Compositor.SEQUENCE && !isEmptiable(inner)) {
                        break;
                    }
                }
            }
            firsts.put(particle, known);
        }
        return known;
    }

    private void leaf(Particle particle, Next to) {
        if (particle.term() instanceof Wildcard) {
            to.wildcards.add(particle);
        } else {
            names(particle.term()).forEach(name -> to.names.put(name, particle));
        }
    }

    private Set<QName> names(Term term) {
        if (term instanceof ElementReference reference) {
            ElementDeclaration declared = vocabulary.element(reference.name());
            Set<QName> names = declared == null ? new HashSet<>() : new HashSet<>(vocabulary.substitutes(declared));
            names.add(reference.name());
            return names;
        }
        return term instanceof ElementDeclaration element ? Set.of(element.name()) : Set.of();
    }

    private Next merged(Next one, Next other) {
        Next all = new Next();
        add(one, all);
        add(other, all);
        return all;
    }

    /** Adds what may come to what else may come at the same time, and tells where two of them may take one element. */
    private void add(Next more, Next to) {
        more.names.forEach((name, particle) -> {
            Particle other = to.names.putIfAbsent(name, particle);
            if (other != null && other != particle) {
                tell(particle, other, "<" + name.getLocalPart() + ">");
            }
            for (Particle wildcard : to.wildcards) {
                if (((Wildcard) wildcard.term()).allows(name.getNamespaceURI())) {
                    tell(particle, wildcard, "<" + name.getLocalPart() + ">");
                }
            }
        });
        for (Particle particle : more.wildcards) {
            Wildcard wildcard = (Wildcard) particle.term();
            to.names.forEach((name, other) -> {
                if (wildcard.allows(name.getNamespaceURI())) {
                    tell(particle, other, "<" + name.getLocalPart() + ">");
                }
            });
            for (Particle other : to.wildcards) {
                overlap(particle, other);
            }
        }
        more.wildcards.stream()
                .filter(wildcard -> !to.wildcards.contains(wildcard))
                .forEach(to.wildcards::add);
    }

    private void overlap(Particle one, Particle other) {
        if (one == other) {
            return;
        }
        Wildcard wildcard = (Wildcard) one.term();
        Wildcard also = (Wildcard) other.term();
        for (String namespace : Told.probes(wildcard)) {
            if (wildcard.allows(namespace) && also.allows(namespace)) {
                tell(one, other, "an element of " + Told.namespace(namespace));
                return;
            }
        }
    }

    private void tell(Particle one, Particle other, String what) {
        Place place = placeOf(one, other);
        Place also = placeOf(other, one);
        if (place == null || also == null) {
            return;
        }
        boolean later = place.compareTo(also) > 0;
        if (!told.add(later ? place : also)) {
            return;
        }
        Particle first = later ? other : one;
        Particle second = later ? one : other;
        findings.warning(
                "content-ambiguous",
                later ? place : also,
                what + " may be " + (second.term() instanceof Wildcard ? "any element here" : "the element here")
                        + " or " + (first.term() instanceof Wildcard ? "any element" : "the element") + " before"
                        + Told.at(later ? also : place, later ? place : also) + ": nothing tells which",
                "let each element have one place at a time, as by making the other required or by leaving one out");
    }

    /** Where a particle stands; of two that stand in one group the places where that is used. */
    private Place placeOf(Particle particle, Particle other) {
        Place place = particle.term().place();
        Place used = uses.get(particle);
        return used != null && place != null && place.equals(other.term().place()) ? used : place;
    }

    /** Two elements of one name in one model have the same type, a global one or that of a single declaration. */
    private void consistent(List<Particle> leaves) {
        Map<QName, ElementDeclaration> known = new HashMap<>();
        for (Particle leaf : leaves) {
            ElementDeclaration own = leaf.term() instanceof ElementReference reference
                    ? vocabulary.element(reference.name())
                    : leaf.term() instanceof ElementDeclaration element ? element : null;
            if (own == null) {
                continue;
            }
            consistent(leaf, own.name(), own, known);
            for (QName name : names(leaf.term())) {
                if (!name.equals(own.name())) {
                    consistent(leaf, name, vocabulary.element(name), known);
                }
            }
        }
    }

    private void consistent(
            Particle leaf, QName name, ElementDeclaration element, Map<QName, ElementDeclaration> known) {
        ElementDeclaration other = known.putIfAbsent(name, element);
        if (other == null || other == element) {
            return;
        }
        SchemaType type = schema.resolve(schema.typeOf(element));
        if (type != schema.resolve(schema.typeOf(other)) && leaf.term().place() != null) {
            findings.warning(
                    "element-types",
                    leaf.term().place(),
                    "the element " + name.getLocalPart() + " is of another type in the same content"
                            + Told.at(other.place(), leaf.term().place()),
                    "give both the same type by name, or one of them another name");
        }
    }
}
