package org.protypos.target.csharp.emit;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.Dialect;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/**
 * How C# says what the code for content says.
 *
 * @param fields the fields behind the properties of a class; null for the parts of a message, which have none
 */
record CSharpDialect(CSharpTypes types, FieldNames fields) implements Dialect {
    @Override
    public String call(Callee callee, String method, String... arguments) {
        String object =
                switch (callee) {
                    case INPUT -> "input.";
                    case OUTPUT -> "output.";
                    case VIOLATIONS -> "to.";
                };
        return object + CSharpText.capital(method) + "(" + String.join(", ", arguments) + ")";
    }

    @Override
    public String literal(String text) {
        return CSharpText.literal(text);
    }

    @Override
    public String member(Property property) {
        return CSharpTypes.isUnwrapped(property) ? kept(property) : "this." + property.name();
    }

    @Override
    public String kept(Property property) {
        return "this." + fields.of(property);
    }

    @Override
    public String nilFlag(Property property) {
        return "this." + property.nilName();
    }

    @Override
    public String label(Property property) {
        return "nameof(" + property.name() + ")";
    }

    @Override
    public String word(Property property) {
        return property.name();
    }

    @Override
    public boolean isValue(ValueType type) {
        return CSharpTypes.isValue(type);
    }

    /** The expression for the value of a property that is known to be there. */
    static String writable(Property property, String value) {
        return known(property.type(), property.isAbsentable(), value);
    }

    private static String known(ValueType type, boolean absentable, String value) {
        return absentable && CSharpTypes.isValue(type) ? value + ".Value" : value;
    }

    @Override
    public String there(ValueType type, boolean absentable, String value) {
        return known(type, absentable, value);
    }

    @Override
    public String print(ValueType type, String value) {
        return types.print(type, value);
    }
}
