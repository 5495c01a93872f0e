package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.api.ValueFacets;
import org.protypos.schema.Particle;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the code by which a type checks itself: what must be there, how often, one of what, and the facets. */
final class CheckingCode {
    private static final int SHOWN_NAMES = 12;

    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final FieldNames fields;
    private final Map<ValueFacets, String> rules = new IdentityHashMap<>();
    private final List<ValueFacets> ruleOrder = new ArrayList<>();

    CheckingCode(CSharpContext context, CSharpFile file, FieldNames fields) {
        this.context = context;
        this.file = file;
        this.types = new CSharpTypes(context, file);
        this.fields = fields;
    }

    /** Whether a type has anything to check by itself. */
    static boolean hasChecks(PlannedClass type) {
        return type.narrowedText() != null
                || type.attributes().stream().anyMatch(CheckingCode::isChecked)
                || type.text() != null && !type.isMixed() && isChecked(type.text())
                || type.content() != null && !type.elements().isEmpty();
    }

    private static boolean isChecked(Property property) {
        return property.facets() != null
                || property.cardinality() == Member.Cardinality.REQUIRED && !CSharpTypes.isAlwaysThere(property);
    }

    /** Writes the checks of attributes. */
    void attributes(List<Property> attributes) {
        for (Property attribute : attributes) {
            if (attribute.cardinality() == Member.Cardinality.REQUIRED && !CSharpTypes.isAlwaysThere(attribute)) {
                file.line("to.Required(", label(attribute), ", this.", attribute.name(), ");");
            }
            facets(attribute);
        }
    }

    /** Writes the checks of the text of simple content. */
    void text(PlannedClass type) {
        if (type.narrowedText() != null && type.simpleText() != null) {
            Property text = type.simpleText();
            if (isPrintable(text.type())) {
                value(text, type.narrowedText());
            }
        }
        if (type.text() != null && !type.isMixed()) {
            attributes(List.of(type.text()));
        }
    }

    private static String label(Property property) {
        return "nameof(" + property.name() + ")";
    }

    private void facets(Property property) {
        if (property.facets() == null || !isPrintable(property.type()) || isSettled(property)) {
            return;
        }
        if (property.isMany()) {
            String given = property.nillable() && CSharpTypes.isValue(property.type()) ? "given.Value" : "given";
            file.line(
                    "to.Values(",
                    label(property),
                    ", this.",
                    fields.of(property),
                    ", given => ",
                    types.print(property.type(), given),
                    ", ",
                    rule(property, property.facets()),
                    ");");
        } else {
            value(property, property.facets());
        }
    }

    /** Whether the type of the values is made of just the values that the contract names. */
    private static boolean isSettled(Property property) {
        return property.type() instanceof ValueType.Enumerated
                && property.facets() instanceof ValueFacets.Narrowed narrowed
                && narrowed.step() instanceof FacetStep.OneOf;
    }

    private void value(Property property, ValueFacets facets) {
        String value = "this." + property.name();
        boolean text = property.type() instanceof ValueType.Scalar scalar
                && scalar.kind().isText();
        boolean guarded = !CSharpTypes.isAlwaysThere(property) && !text;
        if (guarded) {
            file.open("if (", value, " != null)");
        }
        file.line(
                "to.Value(",
                label(property),
                ", ",
                types.print(property.type(), ReadingCode.writable(property, value)),
                ", ",
                rule(property, facets),
                ");");
        if (guarded) {
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
            file.open("if (", present(content), ")");
        }
        parts.forEach(part -> content(part, true));
        if (!required && !parts.isEmpty()) {
            file.close();
        }
    }

    private void choice(Content.OneOf<Property> choice, boolean required) {
        file.line("to.Choose();");
        for (Content<Property> part : choice.parts()) {
            file.open("if (to.Branch(", present(part), "))");
            content(part, true);
            file.close();
        }
        boolean must = required && !choice.optional() && choice.parts().stream().noneMatch(Content::isEmptiable);
        String names = choice.parts().stream()
                .map(CheckingCode::firstName)
                .distinct()
                .limit(SHOWN_NAMES)
                .collect(Collectors.joining(", "));
        file.line("to.Chosen(", CSharpText.literal(names), ", ", String.valueOf(must), ");");
    }

    private static String firstName(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return leaf.member().name();
        }
        List<Content<Property>> parts = content.parts();
        return parts.isEmpty() ? "nothing" : firstName(parts.get(0));
    }

    private String present(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return present(leaf.member());
        }
        String any = content.parts().stream().map(this::present).distinct().collect(Collectors.joining(" || "));
        return any.isEmpty() ? "false" : any;
    }

    private String present(Property property) {
        if (property.isMany()) {
            return context.statics(file, "Members") + ".IsThere(this." + fields.of(property) + ")";
        }
        if (CSharpTypes.isAlwaysThere(property) || property.isThereWhenNull()) {
            return "true";
        }
        String member = "this." + property.name();
        return property.nilName() != null
                ? "(" + member + " != null || this." + property.nilName() + ")"
                : member + " != null";
    }

    private void leaf(Content.Leaf<Property> leaf, boolean required) {
        Property property = leaf.member();
        boolean structured = !(property.type() instanceof ValueType.Scalar
                || property.type() instanceof ValueType.Enumerated
                || property.type() instanceof ValueType.Items
                || property.type() instanceof ValueType.Anything
                || property.kind() == Member.Kind.WILDCARD);
        if (property.isMany()) {
            String list = "this." + fields.of(property);
            int least = required && !leaf.isGroupEmptiable() ? leaf.least() : 0;
            if (least > 0 || leaf.most() < Particle.UNBOUNDED) {
                String most = leaf.most() == Particle.UNBOUNDED ? "int.MaxValue" : String.valueOf(leaf.most());
                file.line("to.Count(", label(property), ", ", list, ", ", String.valueOf(least), ", ", most, ");");
            }
            if (structured) {
                file.line("to.Member(", label(property), ", ", list, ");");
            }
        } else if (!CSharpTypes.isAlwaysThere(property)) {
            boolean must = required && leaf.least() > 0 && !property.nillable();
            if (must || structured) {
                file.line("to.", must ? "Required" : "Member", "(", label(property), ", this.", property.name(), ");");
            }
        }
        facets(property);
    }

    private String rule(Property property, ValueFacets facets) {
        String known = rules.get(facets);
        if (known == null) {
            known = fields.made(CSharpNames.field(property.name()) + "Rule");
            rules.put(facets, known);
            ruleOrder.add(facets);
        }
        return known;
    }

    /** Writes the constants that the checks written so far refer to. */
    void writeConstants() {
        for (ValueFacets facets : ruleOrder) {
            file.gap();
            file.line(
                    "private static readonly ",
                    context.runtime(file, "ValueRule"),
                    " ",
                    rules.get(facets),
                    " = ",
                    expression(facets),
                    ";");
        }
        ruleOrder.clear();
        rules.clear();
    }

    private String expression(ValueFacets facets) {
        String type = context.statics(file, "ValueRule");
        if (facets instanceof ValueFacets.OfBuiltIn builtin) {
            return type + ".Of(" + CSharpText.literal(builtin.type().local()) + ")";
        }
        if (facets instanceof ValueFacets.ListOf list) {
            return type + ".ListOf(" + expression(list.item()) + ")";
        }
        if (facets instanceof ValueFacets.UnionOf union) {
            return type + ".UnionOf("
                    + union.members().stream().map(this::expression).collect(Collectors.joining(", ")) + ")";
        }
        ValueFacets.Narrowed narrowed = (ValueFacets.Narrowed) facets;
        return expression(narrowed.base()) + step(narrowed.step());
    }

    private static String step(FacetStep step) {
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
