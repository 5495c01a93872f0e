package org.protypos.plan;

import javax.xml.namespace.QName;
import org.protypos.naming.Subject;

/**
 * A member of a class, or a part of a message.
 *
 * @param name its name, in the spelling that accessors are built from
 * @param kind where its value stands in XML
 * @param xmlName the name of the element or attribute; null where there is none
 * @param type what it holds
 * @param cardinality how many of them there are
 * @param nillable whether an element may be nil
 * @param nilName the name of the member that tells nil from absent, or null when there is no need for one
 * @param defaultValue the value that an absent attribute or an empty element stands for, or null
 * @param documentation what the contract says about it
 * @param facets what the contract demands of its values beyond their type, or null
 * @param access how code gets at it
 */
public record Property(
        String name,
        Kind kind,
        QName xmlName,
        ValueType type,
        Cardinality cardinality,
        boolean nillable,
        String nilName,
        String defaultValue,
        String documentation,
        ValueFacets facets,
        Access access) {
    /** A member that code gets at as it is. */
    public Property(
            String name,
            Kind kind,
            QName xmlName,
            ValueType type,
            Cardinality cardinality,
            boolean nillable,
            String nilName,
            String defaultValue,
            String documentation,
            ValueFacets facets) {
        this(
                name,
                kind,
                xmlName,
                type,
                cardinality,
                nillable,
                nilName,
                defaultValue,
                documentation,
                facets,
                Access.PLAIN);
    }

    /** A member of which the values are not narrowed further. */
    public Property(
            String name,
            Kind kind,
            QName xmlName,
            ValueType type,
            Cardinality cardinality,
            boolean nillable,
            String nilName,
            String defaultValue,
            String documentation) {
        this(name, kind, xmlName, type, cardinality, nillable, nilName, defaultValue, documentation, null);
    }

    /** Where the value of a property stands in XML. */
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

    /** How many values a property has. */
    public enum Cardinality {
        /** Exactly one. */
        REQUIRED,
        /** One or none. */
        OPTIONAL,
        /** Any number. */
        MANY
    }

    /** How code gets at a property. */
    public enum Access {
        /** As it is. */
        PLAIN,
        /** As an optional value, for it may be absent. */
        OPTIONAL,
        /** As the list that is all that its element holds. */
        UNWRAPPED
    }

    /** The list that is all that its element holds; only an unwrapped property has it. */
    public Property inside() {
        return ((ValueType.Structured) type).type().elements().get(0);
    }

    /** What holds the members of a model group; only a group has it. */
    public ApiClass group() {
        return ((ValueType.Structured) type).type();
    }

    /** How rules speak of it; of what has no name in XML they speak as of the type around it. */
    public String designator(ApiClass declaring) {
        String around = declaring.designator();
        return xmlName == null
                ? around
                : kind == Kind.ATTRIBUTE
                        ? Subject.attribute(around, xmlName, null).designator()
                        : Subject.element(around, xmlName, null).designator();
    }

    /** Whether it has any number of values. */
    public boolean isMany() {
        return cardinality == Cardinality.MANY;
    }

    /** Whether its values can be written in several ways, of which only one is ours. */
    public boolean hasOddText() {
        boolean text = kind == Kind.TEXT
                && isSimple()
                && !(type instanceof ValueType.Scalar scalar && scalar.kind().isText());
        return text || kind == Kind.ELEMENT && defaultValue != null && isSimple() || type.hasOddText();
    }

    private boolean isSimple() {
        ValueType written = type.written();
        return written instanceof ValueType.Enumerated
                || written instanceof ValueType.Scalar scalar && scalar.kind() != ScalarKind.QNAME;
    }

    /** Whether it is there whatever its value is: nothing stands for an element that is nil. */
    public boolean isThereWhenNull() {
        return cardinality == Cardinality.REQUIRED && nillable;
    }

    /** Whether its value may be missing or nil, so that it needs a place for "nothing". */
    public boolean isAbsentable() {
        return cardinality == Cardinality.OPTIONAL || nillable;
    }
}
