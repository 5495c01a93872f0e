package org.protypos.target.csharp.emit;

import java.util.List;
import org.protypos.api.type.Member;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.content.ContentChecking;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;

/** Says in C# how a type checks itself. */
final class CheckingCode extends ContentChecking {
    private final CSharpContext context;
    private final CSharpFile file;
    private final FieldNames fields;

    CheckingCode(CSharpContext context, CSharpFile file, CSharpDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.fields = dialect.fields();
    }

    @Override
    protected boolean checksMixedText() {
        return false;
    }

    @Override
    protected boolean checksItself(Property property) {
        return !(isPlain(property.type())
                || property.type() instanceof ValueType.Anything
                || property.kind() == Member.Kind.WILDCARD);
    }

    @Override
    protected Code inherited(Property property) {
        return Code.of("this.$N", property.name());
    }

    @Override
    protected Code functionOf(Code expression) {
        return Code.of("given => $L", expression);
    }

    @Override
    protected Code functionOfPlaced(Code expression) {
        return Code.of("(given, place) => $L", expression);
    }

    @Override
    protected Code hasAny(Code kept) {
        return Code.of("$T.IsThere($L)", context.runtime("Members").members(), kept);
    }

    @Override
    protected Code largest() {
        return Code.of("int.MaxValue");
    }

    @Override
    protected String ruleName(Property property) {
        return fields.made(CSharpNames.field(property.name()) + "Rule");
    }

    @Override
    protected void writeConstant(String name, Code expression) {
        file.gap();
        file.line("private static readonly $T $N = $L;", context.runtime("ValueRule"), name, expression);
    }

    @Override
    protected Code ruleOf(String method, Code arguments) {
        return Code.of("$T.$N($L)", context.runtime("ValueRule").members(), CSharpText.capital(method), arguments);
    }

    @Override
    protected Code demand(String method, Code arguments) {
        return Code.of(".$N($L)", CSharpText.capital(method), arguments);
    }

    @Override
    protected Code matching(FacetStep.Matching patterns) {
        return Code.of(
                ".Pattern($S, $L)",
                patterns.pattern(),
                Code.literals(patterns.patterns().stream()
                        .map(pattern -> CharacterBlocks.writtenOut(pattern.text()))
                        .toList()));
    }

    @Override
    protected Code oneOf(List<String> values) {
        return Code.of(".Values($L)", Code.literals(values));
    }
}
