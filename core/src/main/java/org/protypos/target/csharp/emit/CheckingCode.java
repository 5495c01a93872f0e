package org.protypos.target.csharp.emit;

import org.protypos.api.Member;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.ContentChecking;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

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
    protected String inheritedText(Property text) {
        return "this." + text.name();
    }

    @Override
    protected String functionOf(String expression) {
        return "given => " + expression;
    }

    @Override
    protected String hasAny(String kept) {
        return context.statics(file, "Members") + ".IsThere(" + kept + ")";
    }

    @Override
    protected String largest() {
        return "int.MaxValue";
    }

    @Override
    protected String ruleName(Property property) {
        return fields.made(CSharpNames.field(property.name()) + "Rule");
    }

    @Override
    protected void writeConstant(String name, String expression) {
        file.gap();
        file.line("private static readonly ", context.runtime(file, "ValueRule"), " ", name, " = ", expression, ";");
    }

    @Override
    protected String ruleOf(String method, String arguments) {
        return context.statics(file, "ValueRule") + "." + CSharpText.capital(method) + "(" + arguments + ")";
    }

    @Override
    protected String step(FacetStep step) {
        return step.map(new FacetStep.Cases<>(
                space -> ".WhiteSpace(" + CSharpText.literal(space.treatment()) + ")",
                matching -> ".Pattern(" + CSharpText.literal(matching.pattern()) + ", "
                        + CSharpTypes.literals(matching.patterns().stream()
                                .map(pattern -> CharacterBlocks.writtenOut(pattern.text()))
                                .toList())
                        + ")",
                values -> ".Values(" + CSharpTypes.literals(values.values()) + ")",
                least -> ".Least(" + CSharpText.literal(least.bound()) + ", " + least.exclusive() + ")",
                most -> ".Most(" + CSharpText.literal(most.bound()) + ", " + most.exclusive() + ")",
                length -> ".Length(" + length.least() + ", " + length.most() + ")",
                digits -> ".Digits(" + digits.total() + ", " + digits.fraction() + ")"));
    }
}
