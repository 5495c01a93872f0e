package org.protypos.target.classes;

import javax.xml.namespace.QName;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.ValueFacets;
import org.protypos.naming.Subject;

/**
 * A member of a class, or a part of a message.
 *
 * @param name its name, in the spelling that accessors are built from
 * @param nilName the name of the member that tells nil from absent, or null when there is no need for one
 * @param type what it holds
 * @param access how code gets at it
 * @param member what it is in the API
 */
public record Property(String name, String nilName, ValueType type, Access access, Member member)
        implements Content.Holder<Property> {
    /** How code gets at a property. */
    public enum Access {
        /** As it is. */
        PLAIN,
        /** As an optional value, for it may be absent. */
        OPTIONAL,
        /** As the list that is all that its element holds. */
        UNWRAPPED
    }

    /** Whether it is what a member of the contract became. */
    boolean isOf(Member other) {
        return member == other;
    }

    /** Where its value stands in XML. */
    public Member.Kind kind() {
        return member.kind();
    }

    @Override
    public QName xmlName() {
        return member.xmlName();
    }

    /** How many of them there are. */
    public Member.Cardinality cardinality() {
        return member.cardinality();
    }

    /** Whether its element may be nil; one of a member of a substitution group says so itself. */
    public boolean nillable() {
        return member.nillable() && member.kind() != Member.Kind.SUBSTITUTABLE;
    }

    /** The value that an absent attribute or an empty element stands for, or null. */
    public String defaultValue() {
        return member.defaultValue();
    }

    /** What is said about it. */
    public String documentation() {
        return member.documentation();
    }

    /** What the contract demands of its values beyond their type, or null. */
    public ValueFacets facets() {
        return member.facets();
    }

    @Override
    public Content<Property> repeated() {
        return kind() == Member.Kind.GROUP ? group().content() : null;
    }

    /** The list that is all that its element holds; only an unwrapped property has it. */
    public Property inside() {
        return group().elements().get(0);
    }

    /** The class that its values are of; only one with structure has it. */
    public PlannedClass group() {
        return ((ValueType.Structured) type).type();
    }

    /** How rules speak of it; of what has no name in XML they speak as of the type around it. */
    public String designator(PlannedClass declaring) {
        String around = declaring.designator();
        return xmlName() == null
                ? around
                : kind() == Member.Kind.ATTRIBUTE
                        ? Subject.attribute(around, xmlName(), null).designator()
                        : Subject.element(around, xmlName(), null).designator();
    }

    /** Whether it is the list in its element rather than the element. */
    public boolean isUnwrapped() {
        return access == Access.UNWRAPPED;
    }

    /** Whether it has any number of values. */
    public boolean isMany() {
        return cardinality() == Member.Cardinality.MANY;
    }

    /** Whether its values can be written in several ways, of which only one is ours. */
    public boolean hasOddText() {
        boolean text = kind() == Member.Kind.TEXT
                && isSimple()
                && !(type instanceof ValueType.Scalar scalar && scalar.kind().isText());
        return text || kind() == Member.Kind.ELEMENT && defaultValue() != null && isSimple() || type.hasOddText();
    }

    /** Whether a pattern says in which of several ways its values are written. */
    public boolean isWrittenByPattern() {
        return type.hasOddText() && facets() != null && facets().isAboutText();
    }

    private boolean isSimple() {
        ValueType written = type.written();
        return written instanceof ValueType.Enumerated
                || written instanceof ValueType.Scalar scalar && scalar.kind() != ScalarKind.QNAME;
    }

    /** Whether it is there whatever its value is: nothing stands for an element that is nil. */
    public boolean isThereWhenNull() {
        return cardinality() == Member.Cardinality.REQUIRED && nillable();
    }

    /** Whether its value may be missing or nil, so that it needs a place for "nothing". */
    public boolean isAbsentable() {
        return cardinality() == Member.Cardinality.OPTIONAL || nillable();
    }
}
