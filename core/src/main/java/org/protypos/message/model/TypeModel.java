package org.protypos.message.model;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Wildcard;

/** A type with all that it inherits laid together. There is one for each type of a contract. */
public final class TypeModel {
    private final SchemaType definition;
    private final boolean isAbstract;
    private final boolean mixed;
    private final ValueRule text;
    private final List<Particle> particles;
    private final Map<QName, Attribute> attributes;
    private final List<AnyAttribute> wildcards;
    private final Function<List<Particle>, ContentModel> compiler;
    private ContentModel content;

    /**
     * A type.
     *
     * @param compiler makes the automaton of its content when it is first asked for: what may stand in a type may be of
     *     types that are derived from it
     */
    TypeModel(
            SchemaType definition,
            boolean isAbstract,
            boolean mixed,
            ValueRule text,
            List<Particle> particles,
            Map<QName, Attribute> attributes,
            List<AnyAttribute> wildcards,
            Function<List<Particle>, ContentModel> compiler) {
        this.definition = definition;
        this.isAbstract = isAbstract;
        this.mixed = mixed;
        this.text = text;
        this.particles = particles;
        this.attributes = attributes;
        this.wildcards = wildcards;
        this.compiler = compiler;
    }

    /** The type of what no schema describes, which holds nothing by itself. */
    public static TypeModel undefined() {
        ContentParts parts = new ContentParts();
        return new TypeModel(
                null,
                false,
                false,
                null,
                List.of(),
                Map.of(),
                List.of(),
                particles -> parts.start(parts.sequence(List.of())));
    }

    /** The definition, or null for {@code xs:anyType}. */
    public SchemaType definition() {
        return definition;
    }

    /** Whether only types derived from it may be used. */
    public boolean isAbstract() {
        return isAbstract;
    }

    /** Whether text may stand between its elements. */
    public boolean mixed() {
        return mixed;
    }

    /** The rule for its text when it has simple content, otherwise null. */
    public ValueRule text() {
        return text;
    }

    /** The content models of its bases and its own, one after the other. */
    public List<Particle> particles() {
        return particles;
    }

    /** Whether there may be nothing in it, not even white space (XML Schema Part 1, section 3.4.4, clause 2.1 of what is valid). */
    public boolean isEmpty() {
        return definition != null && particles.isEmpty() && !mixed && text == null;
    }

    /** The same, to step through. */
    public ContentModel content() {
        if (content == null) {
            content = compiler.apply(particles);
        }
        return content;
    }

    /** Its attributes by name. */
    public Map<QName, Attribute> attributes() {
        return attributes;
    }

    /** What other attributes it takes: one of these must allow each. */
    public List<AnyAttribute> wildcards() {
        return wildcards;
    }

    /**
     * An attribute that a type has.
     *
     * @param rule what its value may be
     * @param fixed the only value it may have, or null
     * @param standard the value that it has when it is absent, or null
     * @param type its simple type
     */
    public record Attribute(
            QName name,
            ValueRule rule,
            boolean required,
            String fixed,
            String standard,
            SchemaType type,
            Place place) {}

    /**
     * Room for other attributes.
     *
     * @param wildcards all of these must allow an attribute
     */
    public record AnyAttribute(List<Wildcard> wildcards) {
        /** Whether an attribute of a namespace may stand here. */
        public boolean allows(String namespace) {
            return wildcards.stream().allMatch(wildcard -> wildcard.allows(namespace));
        }

        /** How what stands there is checked. */
        public Wildcard.Processing processing() {
            return wildcards.get(0).processing();
        }
    }

    /** Whether it is {@code xs:anyType}. */
    public boolean isAnything() {
        return definition == null;
    }

    /** Its name, or null. */
    public QName name() {
        return definition == null ? null : definition.name();
    }

    /** Where it is defined, or null when it is built in. */
    public Place place() {
        return definition == null ? null : definition.place();
    }
}
