package org.protypos.target.csharp.emit;

import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
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
    public Code call(Callee callee, String method, Code arguments) {
        String object =
                switch (callee) {
                    case INPUT -> "input";
                    case OUTPUT -> "output";
                    case VIOLATIONS -> "to";
                };
        return Code.of("$N.$N($L)", object, CSharpText.capital(method), arguments);
    }

    @Override
    public Code member(Property property) {
        return property.isUnwrapped() ? kept(property) : Code.of("this.$N", property.name());
    }

    @Override
    public Code kept(Property property) {
        return Code.of("this.$N", fields.of(property));
    }

    @Override
    public Code keptText(Property property, Code index, Code ordinary) {
        return Code.of("this.KeptXmlText(nameof($N), $L, $L)", property.name(), index, ordinary);
    }

    @Override
    public Code keptText(Property property, Code index, Code ordinary, String rule) {
        return Code.of("this.KeptXmlText(nameof($N), $L, $L, $N)", property.name(), index, ordinary, rule);
    }

    @Override
    public Code fitting(Code ordinary, String rule) {
        return Code.of("$N.Fitting($L)", rule, ordinary);
    }

    @Override
    public Code nilFlag(Property property) {
        return Code.of("this.$N", property.nilName());
    }

    @Override
    public Code label(Property property) {
        return Code.of("nameof($N)", property.name());
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
    static Code writable(Property property, Code value) {
        return known(property.type(), property.isAbsentable(), value);
    }

    private static Code known(ValueType type, boolean absentable, Code value) {
        return absentable && CSharpTypes.isValue(type) ? Code.of("$L.Value", value) : value;
    }

    @Override
    public Code there(ValueType type, boolean absentable, Code value) {
        return known(type, absentable, value);
    }

    @Override
    public Code print(ValueType type, Code value) {
        return types.print(type, value);
    }
}
