package org.protypos.target.java.emit;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.Dialect;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** How Java says what the code for content says. */
record JavaDialect(JavaTypes types) implements Dialect {
    @Override
    public String call(Callee callee, String method, String... arguments) {
        String object =
                switch (callee) {
                    case INPUT -> "in.";
                    case OUTPUT -> "out.";
                    case VIOLATIONS -> "to.";
                };
        return object + method + "(" + String.join(", ", arguments) + ")";
    }

    @Override
    public String literal(String text) {
        return JavaText.literal(text);
    }

    /** The field of a property. */
    static String field(Property property) {
        return JavaNames.variable(property.name());
    }

    @Override
    public String member(Property property) {
        return "this." + field(property);
    }

    @Override
    public String kept(Property property) {
        return member(property);
    }

    @Override
    public String nilFlag(Property property) {
        return "this." + JavaNames.variable(property.nilName());
    }

    @Override
    public String label(Property property) {
        return JavaText.literal(word(property));
    }

    /** Its field's name, without what keeps that apart from keywords. */
    @Override
    public String word(Property property) {
        String field = field(property);
        return field.endsWith("_") && !property.name().endsWith("_") ? field.substring(0, field.length() - 1) : field;
    }

    @Override
    public boolean isValue(ValueType type) {
        return JavaTypes.isPrimitive(type);
    }

    @Override
    public String there(ValueType type, boolean absentable, String value) {
        return value;
    }

    @Override
    public String print(ValueType type, String value) {
        return types.print(type, value);
    }
}
