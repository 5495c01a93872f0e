package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.code.Code;
import org.protypos.target.content.ContentChecking;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaTypes;

/** Says in Java how a type checks itself. */
final class CheckingCode extends ContentChecking {
    /** Beyond so many values they are written as few long texts, for the platform bounds the code of a class. */
    private static final int MOST_SINGLE_VALUES = 60;

    private static final int LONGEST_JOINED = 10_000;
    private static final char SEPARATOR = '\u001f';

    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final JavaNames names = new JavaNames();
    private final Set<String> taken = new HashSet<>();

    CheckingCode(JavaContext context, JavaFile file, JavaDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.types = dialect.types();
    }

    /** Says in which class the code that follows is: its constants share their names with its fields. */
    void begin(PlannedClass type) {
        type.properties().forEach(property -> taken.add(context.field(property.name())));
    }

    @Override
    protected boolean checksMixedText() {
        return true;
    }

    @Override
    protected boolean checksItself(Property property) {
        return !isPlain(property.type());
    }

    @Override
    protected Code inherited(Property property) {
        return types.get(property);
    }

    @Override
    protected Code functionOf(Code expression) {
        return Code.of("given -> $L", expression);
    }

    @Override
    protected Code functionOfPlaced(Code expression) {
        return Code.of("(given, place) -> $L", expression);
    }

    @Override
    protected Code hasAny(Code kept) {
        return Code.of("isThere($L)", kept);
    }

    @Override
    protected Code largest() {
        return Code.of("Integer.MAX_VALUE");
    }

    @Override
    protected String ruleName(Property property) {
        String name = FreeName.beside(taken, names.constantName(property.name()) + "_RULE");
        taken.add(name);
        return name;
    }

    @Override
    public void writeConstants() {
        super.writeConstants();
        taken.clear();
    }

    @Override
    protected void writeConstant(String name, Code expression) {
        file.gap();
        file.line("private static final $T $N = $L;", context.check("ValueRule"), name, expression);
    }

    @Override
    protected Code ruleOf(String method, Code arguments) {
        return Code.of("$T.$N($L)", context.check("ValueRule"), method, arguments);
    }

    @Override
    protected Code demand(String method, Code arguments) {
        return Code.of(".$N($L)", method, arguments);
    }

    @Override
    protected Code matching(FacetStep.Matching patterns) {
        return Code.of(".pattern($S, $S)", patterns.pattern(), patterns.java());
    }

    @Override
    protected Code oneOf(List<String> values) {
        return values.size() > MOST_SINGLE_VALUES
                ? Code.of(".joinedValues($L)", joined(values))
                : Code.of(".values($L)", Code.literals(values));
    }

    private static Code joined(List<String> values) {
        List<String> texts = new ArrayList<>();
        StringBuilder text = new StringBuilder();
        for (String value : values) {
            if (!text.isEmpty() && text.length() + value.length() > LONGEST_JOINED) {
                texts.add(text.toString());
                text.setLength(0);
            }
            text.append(text.isEmpty() ? "" : String.valueOf(SEPARATOR)).append(value);
        }
        texts.add(text.toString());
        return Code.literals(texts);
    }
}
