package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.api.ValueFacets;
import org.protypos.schema.Particle;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes the code by which a type checks itself: what must be there, how often, one of what, and the facets. */
final class CheckingCode {
    /** Beyond so many values they are written as few long texts, for the platform bounds the code of a class. */
    private static final int MOST_SINGLE_VALUES = 60;

    private static final int LONGEST_JOINED = 10_000;
    private static final char SEPARATOR = '\u001f';
    private static final int SHOWN_NAMES = 12;

    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final Map<ValueFacets, String> rules = new IdentityHashMap<>();
    private final List<ValueFacets> ruleOrder = new ArrayList<>();
    private final JavaNames names = new JavaNames();
    private final Set<String> taken = new HashSet<>();

    CheckingCode(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
        this.types = new JavaTypes(context, file);
    }

    /** Whether a type has anything to check by itself. */
    static boolean hasChecks(PlannedClass type) {
        return type.narrowedText() != null
                || type.attributes().stream().anyMatch(CheckingCode::isChecked)
                || type.text() != null && (type.isMixed() || isChecked(type.text()))
                || type.content() != null && !type.elements().isEmpty();
    }

    private static boolean isChecked(Property property) {
        return property.facets() != null
                || property.cardinality() == Member.Cardinality.REQUIRED && !JavaTypes.isPrimitive(property);
    }

    /** Says in which class the checks that follow are: its constants share their names with its fields. */
    void begin(PlannedClass type) {
        type.properties().forEach(property -> taken.add(ReadingCode.field(property)));
    }

    /** Writes the checks of attributes. */
    void attributes(List<Property> attributes) {
        for (Property attribute : attributes) {
            if (attribute.cardinality() == Member.Cardinality.REQUIRED && !JavaTypes.isPrimitive(attribute)) {
                file.line("to.required(", label(attribute), ", this.", ReadingCode.field(attribute), ");");
            }
            facets(attribute);
        }
    }

    /** Writes the checks of the text of simple or mixed content. */
    void text(PlannedClass type) {
        if (type.narrowedText() != null && type.simpleText() != null) {
            Property text = type.simpleText();
            if (isPrintable(text.type())) {
                String getter = types.get(text);
                guarded(text, getter, () -> value(text, types.print(text.type(), getter), type.narrowedText()));
            }
        }
        if (type.text() == null) {
            return;
        }
        if (type.isMixed()) {
            file.line("to.member(", label(type.text()), ", this.", ReadingCode.field(type.text()), ");");
        } else {
            attributes(List.of(type.text()));
        }
    }

    private static String label(Property property) {
        return JavaText.literal(word(property));
    }

    /** What people call a member: its field's name, without what keeps that apart from keywords. */
    private static String word(Property property) {
        String field = ReadingCode.field(property);
        return field.endsWith("_") && !property.name().endsWith("_") ? field.substring(0, field.length() - 1) : field;
    }

    private void facets(Property property) {
        if (property.facets() == null || !isPrintable(property.type()) || isSettled(property)) {
            return;
        }
        String field = "this." + ReadingCode.field(property);
        if (property.isMany()) {
            file.line(
                    "to.values(",
                    label(property),
                    ", ",
                    field,
                    ", given -> ",
                    types.print(property.type(), "given"),
                    ", ",
                    rule(property, property.facets()),
                    ");");
        } else {
            guarded(property, field, () -> value(property, types.print(property.type(), field), property.facets()));
        }
    }

    /** Whether the type of the values is made of just the values that the contract names. */
    private static boolean isSettled(Property property) {
        return property.type() instanceof ValueType.Enumerated
                && property.facets() instanceof ValueFacets.Narrowed narrowed
                && narrowed.step() instanceof FacetStep.OneOf;
    }

    private void value(Property property, String printed, ValueFacets facets) {
        file.line("to.value(", label(property), ", ", printed, ", ", rule(property, facets), ");");
    }

    private void guarded(Property property, String value, Runnable body) {
        boolean text = property.type() instanceof ValueType.Scalar scalar
                && scalar.kind().isText();
        boolean mayBeNull = !JavaTypes.isPrimitive(property) && !text;
        if (mayBeNull) {
            file.open("if (", value, " != null) {");
        }
        body.run();
        if (mayBeNull) {
            file.close();
        }
    }

    /** Names get their prefixes when they are written, so there is no text of them to check. */
    private static boolean isPrintable(ValueType type) {
        if (type instanceof ValueType.Items items) {
            return isPrintable(items.item());
        }
        ValueType written = type.written();
        return written instanceof ValueType.Enumerated
                || written instanceof ValueType.Scalar scalar && scalar.kind() != ScalarKind.QNAME;
    }

    /**
     * Writes the checks of content.
     *
     * @param required whether it must be there
     */
    void content(Content<Property> content, boolean required) {
        if (content instanceof Content.Leaf<Property> leaf) {
            leaf(leaf, required);
        } else if (content instanceof Content.OneOf<Property> choice) {
            choice(choice, required);
        } else if (content instanceof Content.InSequence<Property> sequence) {
            together(content, sequence.parts(), required && !sequence.optional());
        } else if (content instanceof Content.InAnyOrder<Property> all) {
            together(content, all.parts(), required && !all.optional());
        }
    }

    private void together(Content<Property> content, List<Content<Property>> parts, boolean required) {
        if (!required && !parts.isEmpty()) {
            file.open("if (", present(content), ") {");
        }
        parts.forEach(part -> content(part, true));
        if (!required && !parts.isEmpty()) {
            file.close();
        }
    }

    private void choice(Content.OneOf<Property> choice, boolean required) {
        file.line("to.choose();");
        choice.parts().forEach(this::branch);
        chosen(choice, required);
    }

    /** Writes the checks of one branch of a choice. */
    void branch(Content<Property> part) {
        file.open("if (to.branch(", present(part), ")) {");
        content(part, true);
        file.close();
    }

    /** Writes the end of the checks of a choice. */
    void chosen(Content.OneOf<Property> choice, boolean required) {
        boolean must = required && !choice.optional() && choice.parts().stream().noneMatch(Content::isEmptiable);
        String names = choice.parts().stream()
                .map(CheckingCode::firstName)
                .distinct()
                .limit(SHOWN_NAMES)
                .collect(Collectors.joining(", "));
        file.line("to.chosen(", JavaText.literal(names), ", ", String.valueOf(must), ");");
    }

    private static String firstName(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return word(leaf.member());
        }
        List<Content<Property>> parts = content.parts();
        return parts.isEmpty() ? "nothing" : firstName(parts.get(0));
    }

    private static String present(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return present(leaf.member());
        }
        String any =
                content.parts().stream().map(CheckingCode::present).distinct().collect(Collectors.joining(" || "));
        return any.isEmpty() ? "false" : any;
    }

    private static String present(Property property) {
        String field = "this." + ReadingCode.field(property);
        if (property.isMany()) {
            return "isThere(" + field + ")";
        }
        if (JavaTypes.isPrimitive(property) || property.isThereWhenNull()) {
            return "true";
        }
        return property.nilName() != null
                ? "(" + field + " != null || this." + JavaNames.variable(property.nilName()) + ")"
                : field + " != null";
    }

    private void leaf(Content.Leaf<Property> leaf, boolean required) {
        Property property = leaf.member();
        String field = "this." + ReadingCode.field(property);
        boolean structured = !(property.type() instanceof ValueType.Scalar
                || property.type() instanceof ValueType.Enumerated
                || property.type() instanceof ValueType.Items);
        if (property.isMany()) {
            int least = required && !leaf.isGroupEmptiable() ? leaf.least() : 0;
            if (least > 0 || leaf.most() < Particle.UNBOUNDED) {
                String most = leaf.most() == Particle.UNBOUNDED ? "Integer.MAX_VALUE" : String.valueOf(leaf.most());
                file.line("to.count(", label(property), ", ", field, ", ", String.valueOf(least), ", ", most, ");");
            }
            if (structured) {
                file.line("to.member(", label(property), ", ", field, ");");
            }
        } else if (!JavaTypes.isPrimitive(property)) {
            boolean must = required && leaf.least() > 0 && !property.nillable();
            if (must || structured) {
                file.line("to.", must ? "required" : "member", "(", label(property), ", ", field, ");");
            }
        }
        facets(property);
    }

    private String rule(Property property, ValueFacets facets) {
        String known = rules.get(facets);
        if (known == null) {
            known = FreeName.beside(taken, names.constantName(property.name()) + "_RULE");
            taken.add(known);
            rules.put(facets, known);
            ruleOrder.add(facets);
        }
        return known;
    }

    /** Writes the constants that the checks written so far refer to. */
    void writeConstants() {
        String type = context.check(file, "ValueRule");
        for (ValueFacets facets : ruleOrder) {
            file.gap();
            file.line("private static final ", type, " ", rules.get(facets), " = ", expression(facets), ";");
        }
        ruleOrder.clear();
        rules.clear();
        taken.clear();
    }

    private String expression(ValueFacets facets) {
        String type = context.check(file, "ValueRule");
        if (facets instanceof ValueFacets.OfBuiltIn builtin) {
            return type + ".of(" + JavaText.literal(builtin.type().local()) + ")";
        }
        if (facets instanceof ValueFacets.ListOf list) {
            return type + ".listOf(" + expression(list.item()) + ")";
        }
        if (facets instanceof ValueFacets.UnionOf union) {
            return type + ".unionOf("
                    + union.members().stream().map(this::expression).collect(Collectors.joining(", ")) + ")";
        }
        ValueFacets.Narrowed narrowed = (ValueFacets.Narrowed) facets;
        return expression(narrowed.base()) + step(narrowed.step());
    }

    private static String step(FacetStep step) {
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
