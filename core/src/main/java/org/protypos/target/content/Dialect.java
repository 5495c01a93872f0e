package org.protypos.target.content;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;

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
     */
    String call(Callee callee, String method, String... arguments);

    /** A text as a literal. */
    String literal(String text);

    /** Where the value of a property is read and assigned from inside its class. */
    String member(Property property);

    /** Where the values of a property are kept, which is nothing as long as there are none. */
    String kept(Property property);

    /** The flag that says that the element of a property is there and nil. */
    String nilFlag(Property property);

    /** What the runtime is told as the name of a property. */
    String label(Property property);

    /** What a property is called in texts for people. */
    String word(Property property);

    /** Whether the values of a type are never null when the language is left to itself. */
    boolean isValue(ValueType type);

    /** A value that is known to be there, where the language makes a difference. */
    String there(ValueType type, boolean absentable, String value);

    /** The expression for the text of a value. */
    String print(ValueType type, String value);

    /** The namespace and the local name of a property's element or attribute, as two arguments. */
    default String name(Property property) {
        return literal(property.xmlName().getNamespaceURI()) + ", "
                + literal(property.xmlName().getLocalPart());
    }

    /** Whether a property has a value at any time. */
    default boolean isAlwaysThere(Property property) {
        return isValue(property.type()) && !property.isAbsentable();
    }
}
