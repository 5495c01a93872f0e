package org.protypos.target.java.emit;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.content.Dialect;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaTypes;

/** How Java says what the code for content says. */
record JavaDialect(JavaContext context) implements Dialect {
    @Override
    public Code call(Callee callee, String method, Code arguments) {
        String object =
                switch (callee) {
                    case INPUT -> "input";
                    case OUTPUT -> "out";
                    case VIOLATIONS -> "to";
                };
        return Code.of("$N.$N($L)", object, method, arguments);
    }

    /** The types of everything that the plan speaks of. */
    JavaTypes types() {
        return context.types();
    }

    /** The field of a property. */
    String field(Property property) {
        return context.field(property.name());
    }

    @Override
    public Code member(Property property) {
        return Code.of("this.$N", field(property));
    }

    @Override
    public Code kept(Property property) {
        return member(property);
    }

    @Override
    public Code keptText(Property property, Code index, Code ordinary) {
        return Code.of("kept($S, $L, $L)", field(property), index, ordinary);
    }

    @Override
    public Code keptText(Property property, Code index, Code ordinary, String rule) {
        return Code.of("kept($S, $L, $L, $N)", field(property), index, ordinary, rule);
    }

    @Override
    public Code fitting(Code ordinary, String rule) {
        return Code.of("$N.fitting($L)", rule, ordinary);
    }

    @Override
    public Code nilFlag(Property property) {
        return Code.of("this.$N", context.field(property.nilName()));
    }

    @Override
    public Code label(Property property) {
        return Code.of("$S", word(property));
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
    public Code there(ValueType type, boolean absentable, Code value) {
        return value;
    }

    @Override
    public Code print(ValueType type, Code value) {
        return types().print(type, value);
    }
}
