package org.protypos.message.model;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Wildcard;

/**
 * A type with all that it inherits laid together.
 *
 * @param definition the definition, or null for {@code xs:anyType}
 * @param isAbstract whether only types derived from it may be used
 * @param mixed whether text may stand between its elements
 * @param text the rule for its text when it has simple content, otherwise null
 * @param particles the content models of its bases and its own, one after the other
 * @param content the same, to step through
 * @param attributes its attributes by name
 * @param wildcards what other attributes it takes: one of these must allow each
 */
public record TypeModel(
        SchemaType definition,
        boolean isAbstract,
        boolean mixed,
        ValueRule text,
        List<Particle> particles,
        ContentModel content,
        Map<QName, Attribute> attributes,
        List<AnyAttribute> wildcards) {
    /**
     * An attribute that a type has.
     *
     * @param rule what its value may be
     * @param fixed the only value it may have, or null
     * @param type its simple type
     */
    public record Attribute(QName name, ValueRule rule, boolean required, String fixed, SchemaType type, Place place) {}

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
