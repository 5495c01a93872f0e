package org.protypos.wire;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
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

/** What the types of parts mean for the body they stand in. */
final class BodyTypes {
    private final SchemaComponents schema;

    BodyTypes(SchemaComponents schema) {
        this.schema = schema;
    }

    /** Whether a type is of elements alone, so that a body can be of it (WSDL 1.1, section 3.5). */
    boolean isOfElements(TypeReference reference) {
        if (!(schema.resolve(reference) instanceof ComplexType type) || type.isAbstract() || type.isEncodedArray()) {
            return false;
        }
        boolean inherits = true;
        for (ComplexType at = type; at != null && inherits; at = baseOf(at)) {
            if (at.mixed() || at.content() instanceof ComplexType.SimpleContent) {
                return false;
            }
            inherits = at.derivation() == ComplexType.Derivation.EXTENSION;
        }
        return true;
    }

    private ComplexType baseOf(ComplexType type) {
        boolean derived = type.base() != null
                && !SchemaComponents.ANY_TYPE.equals(type.base().name());
        return derived && schema.resolve(type.base()) instanceof ComplexType base ? base : null;
    }

    /** The built-in type that a simple type comes down to by restriction; null for lists and unions. */
    QName primitive(TypeReference reference) {
        SchemaType type = schema.resolve(reference);
        while (type instanceof SimpleType simple && simple.variety() == SimpleType.Variety.RESTRICTION) {
            type = schema.resolve(simple.base());
        }
        return type instanceof SimpleType simple && simple.variety() == SimpleType.Variety.BUILT_IN
                ? simple.name()
                : null;
    }

    /** The elements of which one begins the content of a type. */
    List<QName> beginnings(TypeReference reference) {
        List<Particle> particles = new ArrayList<>();
        boolean inherits = true;
        for (ComplexType at = (ComplexType) schema.resolve(reference); at != null && inherits; at = baseOf(at)) {
            if (at.content() instanceof ComplexType.ElementContent content && content.particle() != null) {
                particles.add(0, content.particle());
            }
            inherits = at.derivation() == ComplexType.Derivation.EXTENSION;
        }
        Set<QName> found = new LinkedHashSet<>();
        boolean passable = allPassable(particles, found, new LinkedHashSet<>());
        if (passable) {
            found.add(new QName(""));
        }
        return List.copyOf(found);
    }

    private boolean allPassable(List<Particle> particles, Set<QName> found, Set<QName> groups) {
        for (Particle particle : particles) {
            if (!isPassable(particle, found, groups)) {
                return false;
            }
        }
        return true;
    }

    /** Gathers what a particle may begin with, and says whether it may be left out. */
    private boolean isPassable(Particle particle, Set<QName> found, Set<QName> groups) {
        return particle.most() == 0 || gather(particle.term(), found, groups) || particle.least() == 0;
    }

    private boolean gather(Term term, Set<QName> found, Set<QName> groups) {
        if (term instanceof ElementDeclaration element) {
            found.add(element.name());
        } else if (term instanceof ElementReference element) {
            found.add(element.name());
            schema.substitutions().getOrDefault(element.name(), List.of()).forEach(name -> {
                if (!found.contains(name)) {
                    gather(new ElementReference(name, "", null), found, groups);
                }
            });
        } else if (term instanceof GroupReference reference) {
            ModelGroupDefinition group = schema.groups().get(reference.name());
            return group == null || !groups.add(reference.name()) || gather(group.group(), found, groups);
        } else if (term instanceof ModelGroup group) {
            return switch (group.compositor()) {
                case SEQUENCE -> allPassable(group.particles(), found, groups);
                case CHOICE -> anyPassable(group.particles(), found, groups);
                case ALL -> everyPassable(group.particles(), found, groups);
            };
        }
        return false;
    }

    private boolean anyPassable(List<Particle> particles, Set<QName> found, Set<QName> groups) {
        boolean passable = particles.isEmpty();
        for (Particle particle : particles) {
            passable |= isPassable(particle, found, groups);
        }
        return passable;
    }

    private boolean everyPassable(List<Particle> particles, Set<QName> found, Set<QName> groups) {
        boolean passable = true;
        for (Particle particle : particles) {
            passable &= isPassable(particle, found, groups);
        }
        return passable;
    }
}
