package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.content.ContentChecking;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
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

    /** Says in which class the checks that follow are: its constants share their names with its fields. */
    void begin(PlannedClass type) {
        type.properties().forEach(property -> taken.add(JavaDialect.field(property)));
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
    protected String inheritedText(Property text) {
        return types.get(text);
    }

    @Override
    protected String functionOf(String expression) {
        return "given -> " + expression;
    }

    @Override
    protected String hasAny(String kept) {
        return "isThere(" + kept + ")";
    }

    @Override
    protected String largest() {
        return "Integer.MAX_VALUE";
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
    protected void writeConstant(String name, String expression) {
        file.gap();
        file.line("private static final ", context.check(file, "ValueRule"), " ", name, " = ", expression, ";");
    }

    @Override
    protected String ruleOf(String method, String arguments) {
        return context.check(file, "ValueRule") + "." + method + "(" + arguments + ")";
    }

    @Override
    protected String step(FacetStep step) {
        return step.map(new FacetStep.Cases<>(
                space -> ".whiteSpace(" + JavaText.literal(space.treatment()) + ")",
                matching -> ".pattern(" + JavaText.literal(matching.pattern()) + ", "
                        + JavaText.literal(matching.java()) + ")",
                values -> values.values().size() > MOST_SINGLE_VALUES
                        ? ".joinedValues(" + joined(values.values()) + ")"
                        : ".values(" + literals(values.values()) + ")",
                least -> ".least(" + JavaText.literal(least.bound()) + ", " + least.exclusive() + ")",
                most -> ".most(" + JavaText.literal(most.bound()) + ", " + most.exclusive() + ")",
                length -> ".length(" + length.least() + ", " + length.most() + ")",
                digits -> ".digits(" + digits.total() + ", " + digits.fraction() + ")"));
    }

    private static String literals(List<String> values) {
        return values.stream().map(JavaText::literal).collect(Collectors.joining(", "));
    }

    private static String joined(List<String> values) {
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
        return literals(texts);
    }
}
