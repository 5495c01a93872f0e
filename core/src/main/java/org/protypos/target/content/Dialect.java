package org.protypos.target.content;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;

/** How a language says what the code for content says in all of them. */
public interface Dialect {
    /** Whom generated code calls. */
    enum Callee {
        /** What a message is read from. */
        INPUT,
        /** What a message is written to. */
        OUTPUT,
        /** What takes the violations of a contract. */
        VIOLATIONS
    }

    /**
     * A call of a method of the runtime.
     *
     * @param method its name, in lower camel case
     * @param arguments what stands in the brackets
     */
    Code call(Callee callee, String method, Code arguments);

    /** Where the value of a property is read and assigned from inside its class. */
    Code member(Property property);

    /** Where the values of a property are kept, which is nothing as long as there are none. */
    Code kept(Property property);

    /** The text of a value as the message had it, if that is known, and its ordinary text if not. */
    Code keptText(Property property, Code index, Code ordinary);

    /** The text of a value as the message had it, if that is known, and as a rule wants it if not. */
    Code keptText(Property property, Code index, Code ordinary, String rule);

    /** The text of a value as a rule wants it. */
    Code fitting(Code ordinary, String rule);

    /** The flag that says that the element of a property is there and nil. */
    Code nilFlag(Property property);

    /** What the runtime is told as the name of a property. */
    Code label(Property property);

    /** What a property is called in texts for people. */
    String word(Property property);

    /** Whether the values of a type are never null when the language is left to itself. */
    boolean isValue(ValueType type);

    /** A value that is known to be there, where the language makes a difference. */
    Code there(ValueType type, boolean absentable, Code value);

    /** The expression for the text of a value. */
    Code print(ValueType type, Code value);

    /** The namespace and the local name of a property's element or attribute, as two arguments. */
    default Code name(Property property) {
        return Code.of(
                "$S, $S",
                property.xmlName().getNamespaceURI(),
                property.xmlName().getLocalPart());
    }

    /** Whether a property has a value at any time. */
    default boolean isAlwaysThere(Property property) {
        return isValue(property.type()) && !property.isAbsentable();
    }
}
