package org.protypos.api.type;

import javax.xml.namespace.QName;
import org.protypos.naming.Subject;

/**
 * What a structured type is made of, or a part of a message.
 *
 * @param subject how rules speak of it; null for what no rule speaks of
 * @param name what it is called in the contract, or what one would call it there
 * @param kind where its value stands in XML
 * @param xmlName the name of the element or attribute; null where there is none
 * @param value what it holds
 * @param shapedAs by which name rules may give its values another type; null when they cannot
 * @param cardinality how many of them there are
 * @param nillable whether its element is declared nillable
 * @param defaultValue the value that an absent attribute or an empty element stands for, or null
 * @param documentation what is said about it
 * @param facets what the contract demands of its values beyond their kind, or null
 * @param typeName the name of its simple type, where messages say it (SOAP 1.1, section 5.1); null elsewhere
 */
public record Member(
        Subject subject,
        String name,
        Kind kind,
        QName xmlName,
        ApiValue value,
        Subject shapedAs,
        Cardinality cardinality,
        boolean nillable,
        String defaultValue,
        String documentation,
        ValueFacets facets,
        QName typeName)
        implements Content.Holder<Member> {
    /** A member of which the contract says no more than what it holds. */
    public static Member plain(
            Subject subject, String name, Kind kind, QName xmlName, ApiValue value, Cardinality cardinality) {
        return new Member(subject, name, kind, xmlName, value, null, cardinality, false, null, "", null, null);
    }

    /** The same by another name. */
    public Member called(String other) {
        return new Member(
                subject,
                other,
                kind,
                xmlName,
                value,
                shapedAs,
                cardinality,
                nillable,
                defaultValue,
                documentation,
                facets,
                typeName);
    }

    /** A group that stands for it where one of several elements may: it comes as often, and has no element of its own. */
    public Member asGroup() {
        return plain(subject, name, Kind.GROUP, null, value, cardinality);
    }

    /** Where the value of a member stands in XML. */
    public enum Kind {
        /** In an attribute. */
        ATTRIBUTE,
        /** In an element. */
        ELEMENT,
        /** In an element that a member of a substitution group may replace. */
        SUBSTITUTABLE,
        /** In the text of the element itself. */
        TEXT,
        /** In an element that a wildcard allows. */
        WILDCARD,
        /** In the attributes that a wildcard allows. */
        ATTRIBUTE_WILDCARD,
        /** In a model group that repeats. */
        GROUP,
        /** In text and elements mixed. */
        MIXED
    }

    /** How many values a member has. */
    public enum Cardinality {
        /** Exactly one. */
        REQUIRED,
        /** One or none. */
        OPTIONAL,
        /** Any number. */
        MANY
    }

    @Override
    public Content<Member> repeated() {
        return kind == Kind.GROUP ? value.structure().content() : null;
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }
}
