package org.protypos.binding;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.schema.Particle;
import org.protypos.schema.facet.FacetKind;

/**
 * What a contract says wrongly of a component, put right; each part may be null.
 *
 * @param occurs how often an element or attribute occurs
 * @param nillable whether an element may be nil
 * @param type the type that an element or attribute is of
 * @param qualified whether a local element or attribute is in the target namespace of its schema
 * @param standard the default that an element or attribute has
 * @param base the type that a type is derived from
 * @param address the address of a port
 * @param soapAction the SOAP action of an operation
 * @param rpc whether the style of an operation is {@code rpc}
 * @param added what a type or an operation has besides
 * @param dropped whether a member or a value is not there
 * @param droppedHeader the header block that an operation does not have
 * @param facets the facets that a simple type has, by their kinds; a value of null for none of the kind
 * @param values the values that an enumeration has besides, and those that it does not have
 */
record Correction(
        Occurs occurs,
        Boolean nillable,
        QName type,
        Boolean qualified,
        Standard standard,
        QName base,
        String address,
        String soapAction,
        Boolean rpc,
        Addition added,
        boolean dropped,
        QName droppedHeader,
        Map<FacetKind, String> facets,
        List<Listed> values) {
    /** The facets that can be corrected (XML Schema Part 2, section 4.3). */
    static final List<FacetKind> FACETS = Stream.of(FacetKind.values())
            .filter(kind -> kind != FacetKind.ENUMERATION && kind != FacetKind.WHITE_SPACE)
            .toList();

    /** Whether a key of a rule is one of them. */
    static boolean isFacet(String key) {
        return FACETS.contains(FacetKind.of(key));
    }

    /** A value of an enumeration. */
    record Listed(String value, boolean isThere) {}

    /** How often something occurs. */
    record Occurs(int least, int most) {
        /** As rules write it. */
        @Override
        public String toString() {
            return most == Particle.UNBOUNDED
                    ? least + "..*"
                    : least == most ? String.valueOf(least) : least + ".." + most;
        }
    }

    /** A default, or none when the value is null. */
    record Standard(String value) {}

    /** What can be added. */
    enum Kind {
        ELEMENT,
        ATTRIBUTE,
        VALUE,
        HEADER,
        ANSWER_HEADER
    }

    /**
     * Something that is there though the contract does not say so.
     *
     * @param name the name of the element, attribute or header block; null for a value
     * @param value the value of an enumeration, else null
     * @param type the type of the element or attribute, else null
     * @param occurs how often it occurs
     * @param after the element that it follows, or null for the last place
     */
    record Addition(Kind kind, QName name, String value, QName type, Occurs occurs, QName after) {}

    boolean isNothing() {
        return !isOfMember() && !isOfWsdl() && !isOfValues() && base == null && added == null;
    }

    /** Whether it is about an element, an attribute or a value. */
    boolean isOfMember() {
        return occurs != null || nillable != null || type != null || qualified != null || standard != null || dropped;
    }

    /** Whether it is about the values of a simple type. */
    boolean isOfValues() {
        return facets != null || values != null;
    }

    /** Whether it is about an operation or a port. */
    boolean isOfWsdl() {
        return address != null || isOfOperation();
    }

    /** Whether it is about an operation. */
    boolean isOfOperation() {
        return soapAction != null
                || rpc != null
                || droppedHeader != null
                || added != null && (added.kind() == Kind.HEADER || added.kind() == Kind.ANSWER_HEADER);
    }
}
