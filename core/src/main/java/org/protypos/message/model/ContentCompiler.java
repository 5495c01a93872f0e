package org.protypos.message.model;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Substitutions;
import org.protypos.schema.Term;

/** Turns particles into automata (XML Schema Part 1, section 3.8). A group that several types use is turned once. */
final class ContentCompiler {
    private final SchemaComponents schema;
    private final Substitutions substitutions;
    private final ContentParts parts = new ContentParts();
    private final Map<QName, ContentPart> groups = new HashMap<>();
    private final Map<Term, ContentPart> leaves = new IdentityHashMap<>();

    ContentCompiler(SchemaComponents schema, Substitutions substitutions) {
        this.schema = schema;
        this.substitutions = substitutions;
    }

    /** The automaton of particles that come one after the other. */
    ContentModel content(List<Particle> particles) {
        return parts.start(parts.sequence(particles.stream().map(this::content).toList()));
    }

    private ContentPart content(Particle particle) {
        return parts.repeated(term(particle.term()), particle.least(), particle.most());
    }

    private ContentPart term(Term term) {
        return term.map(new Term.Cases<>(
                element -> leaf(element, new Leaf.Element(element, Set.of(element.name()), element.place())),
                reference -> {
                    ElementDeclaration element = schema.elements().get(reference.name());
                    return leaf(reference, new Leaf.Element(element, substitutions.of(element), reference.place()));
                },
                this::named,
                this::group,
                wildcard -> leaf(wildcard, new Leaf.Any(wildcard))));
    }

    private ContentPart leaf(Term term, Leaf leaf) {
        return leaves.computeIfAbsent(term, any -> parts.leaf(leaf));
    }

    private ContentPart named(GroupReference reference) {
        ContentPart known = groups.get(reference.name());
        if (known == null) {
            known = group(schema.groups().get(reference.name()).group());
            groups.put(reference.name(), known);
        }
        return known;
    }

    private ContentPart group(ModelGroup group) {
        List<ContentPart> inner = group.particles().stream().map(this::content).toList();
        return switch (group.compositor()) {
            case CHOICE -> parts.choice(inner);
            case ALL -> parts.all(inner);
            case SEQUENCE -> parts.sequence(inner);
        };
    }
}
