package org.protypos.target.content;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.Narrowing;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.ValueFacets;
import org.protypos.schema.Particle;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.CodeLines;
import org.protypos.target.content.Dialect.Callee;

/**
 * Writes the code by which a type checks itself: what must be there, how often, one of what, and the facets. What is
 * decided about a value is decided here; a language says it in its own words.
 */
// The cases hold methods of the class below, and none is called before that is there.
@SuppressWarnings("this-escape")
public abstract class ContentChecking {
    private static final int SHOWN_NAMES = 12;

    private final CodeLines lines;
    private final Dialect dialect;
    private final Map<ValueFacets, String> rules = new IdentityHashMap<>();
    private final List<ValueFacets> ruleOrder = new ArrayList<>();
    private final Content.Cases<Property, Void> needed = cases(true);
    private final Content.Cases<Property, Void> unneeded = cases(false);

    private final FacetStep.Cases<Code> steps = new FacetStep.Cases<>(
            space -> demand("whiteSpace", "$S", space.treatment()),
            this::matching,
            values -> oneOf(values.values()),
            least -> demand("least", "$S, $L", least.bound(), least.exclusive()),
            most -> demand("most", "$S, $L", most.bound(), most.exclusive()),
            length -> demand("length", "$L, $L", length.least(), length.most()),
            digits -> demand("digits", "$L, $L", digits.total(), digits.fraction()));
    private final ValueFacets.Cases<Code> expressions = new ValueFacets.Cases<>(
            builtIn -> ruleOf("of", Code.of("$S", builtIn.type().local())),
            list -> ruleOf("listOf", expression(list.item())),
            union -> ruleOf(
                    "unionOf",
                    Code.join(
                            ", ", union.members().stream().map(this::expression).toList())),
            narrowed ->
                    Code.of("$L$L", expression(narrowed.base()), narrowed.step().map(steps)),
            fixed -> Code.of("$L$L", expression(fixed.base()), oneOf(List.of(fixed.value()))));

    /** Checks members that a dialect names, by statements that are written to lines. */
    protected ContentChecking(CodeLines lines, Dialect dialect) {
        this.lines = lines;
        this.dialect = dialect;
    }

    /** Whether mixed text is checked by what it is made of. */
    protected abstract boolean checksMixedText();

    /** Whether the values of a property check themselves. */
    protected abstract boolean checksItself(Property property);

    /** Where the value of a property is, for a class that may have inherited it. */
    protected abstract Code inherited(Property property);

    /** A function of one argument, which is called {@code given}. */
    protected abstract Code functionOf(Code expression);

    /** A function of two arguments, which are called {@code given} and {@code place}. */
    protected abstract Code functionOfPlaced(Code expression);

    /** The test whether a property that has several values has any. */
    protected abstract Code hasAny(Code kept);

    /** The largest number of the language's usual integers. */
    protected abstract Code largest();

    /** A name for the constant that is the rule of a property. */
    protected abstract String ruleName(Property property);

    /** Writes the constant for a rule. */
    protected abstract void writeConstant(String name, Code expression);

    /** What rules begin with: a call of a static method of their type. */
    protected abstract Code ruleOf(String method, Code arguments);

    /** A call that adds a demand to a rule. */
    protected abstract Code demand(String method, Code arguments);

    /** What patterns add to a rule. */
    protected abstract Code matching(FacetStep.Matching patterns);

    /** What the only values that are allowed add to a rule. */
    protected abstract Code oneOf(List<String> values);

    private Code demand(String method, String template, Object... arguments) {
        return demand(method, Code.of(template, arguments));
    }

    private Content.Cases<Property, Void> cases(boolean required) {
        return new Content.Cases<>(
                sequence -> together(sequence, required && !sequence.optional()),
                choice -> choice(choice, required),
                all -> together(all, required && !all.optional()),
                leaf -> leaf(leaf, required));
    }

    private Code to(String method) {
        return dialect.call(Callee.VIOLATIONS, method, Code.NONE);
    }

    private Code to(String method, String template, Object... arguments) {
        return dialect.call(Callee.VIOLATIONS, method, Code.of(template, arguments));
    }

    /** Whether a type has anything to check by itself. */
    public final boolean hasChecks(PlannedClass type) {
        return type.narrowedText() != null
                || !type.narrowings().isEmpty()
                || type.attributes().stream().anyMatch(this::isChecked)
                || type.text() != null && (type.isMixed() ? checksMixedText() : isChecked(type.text()))
                || type.content() != null && !type.elements().isEmpty();
    }

    private boolean isChecked(Property property) {
        return property.facets() != null || isNeeded(property);
    }

    /** Whether the values of a type are single ones, or several in one text. */
    protected static boolean isPlain(ValueType type) {
        return type instanceof ValueType.Scalar
                || type instanceof ValueType.Enumerated
                || type instanceof ValueType.Items;
    }

    private boolean isNeeded(Property property) {
        return property.cardinality() == Member.Cardinality.REQUIRED && !dialect.isAlwaysThere(property);
    }

    /** Writes the checks of attributes. */
    public final void attributes(List<Property> attributes) {
        for (Property attribute : attributes) {
            if (isNeeded(attribute)) {
                lines.line("$L;", to("required", "$L, $L", dialect.label(attribute), dialect.member(attribute)));
            }
            facets(attribute);
        }
    }

    /** Writes the checks of the text of simple or mixed content. */
    public final void text(PlannedClass type) {
        if (type.narrowedText() != null
                && type.simpleText() != null
                && isPrintable(type.simpleText().type())) {
            value(type.simpleText(), inherited(type.simpleText()), type.narrowedText());
        }
        if (type.text() == null) {
            return;
        }
        if (!type.isMixed()) {
            attributes(List.of(type.text()));
        } else if (checksMixedText()) {
            lines.line("$L;", to("member", "$L, $L", dialect.label(type.text()), dialect.member(type.text())));
        }
    }

    /** Writes the checks of what a restriction demands of members that it inherits. */
    public final void narrowings(PlannedClass type) {
        for (Narrowing narrowing : type.narrowings()) {
            Property property = type.property(narrowing.member());
            // What an absent attribute stands for is in its base; nobody can tell from here that it is absent.
            boolean stands =
                    property != null && property.kind() == Member.Kind.ATTRIBUTE && property.defaultValue() != null;
            if (property != null && !stands && !property.isUnwrapped()) {
                narrowing(narrowing, property);
            }
        }
    }

    private void narrowing(Narrowing narrowing, Property property) {
        Code label = dialect.label(property);
        Code value = inherited(property);
        if (property.isMany()) {
            Code most = narrowing.most() == Particle.UNBOUNDED ? largest() : Code.of("$L", narrowing.most());
            lines.line("$L;", to("count", "$L, $L, $L, $L", label, value, narrowing.least(), most));
        } else if (narrowing.isAbsent() && !dialect.isAlwaysThere(property)) {
            lines.line("$L;", to("absent", "$L, $L", label, value));
        } else if (narrowing.least() > 0 && !dialect.isAlwaysThere(property) && !property.nillable()) {
            lines.line("$L;", to("required", "$L, $L", label, value));
        }
        if (narrowing.facets() != null && !narrowing.isAbsent()) {
            facets(property, value, narrowing.facets());
        }
    }

    private void facets(Property property) {
        if (!isSettled(property)) {
            facets(property, property.isMany() ? dialect.kept(property) : dialect.member(property), property.facets());
        }
    }

    private void facets(Property property, Code value, ValueFacets facets) {
        if (facets == null || !isPrintable(property.type())) {
            return;
        }
        if (property.isMany()) {
            Code given = dialect.there(property.type(), property.nillable(), Code.of("given"));
            Code ordinary = dialect.print(property.type(), given);
            Code printer = property.isWrittenByPattern()
                    ? functionOfPlaced(dialect.keptText(property, Code.of("place"), ordinary, rule(property)))
                    : functionOf(ordinary);
            lines.line(
                    "$L;",
                    to("values", "$L, $L, $L, $N", dialect.label(property), value, printer, rule(property, facets)));
        } else {
            value(property, value, facets);
        }
    }

    /** Whether the type of the values is made of just the values that the contract names. */
    private static boolean isSettled(Property property) {
        return property.type() instanceof ValueType.Enumerated
                && property.facets() instanceof ValueFacets.Narrowed narrowed
                && narrowed.step() instanceof FacetStep.OneOf;
    }

    private void value(Property property, Code value, ValueFacets facets) {
        boolean text = property.type() instanceof ValueType.Scalar scalar
                && scalar.kind().isText();
        boolean guarded = !dialect.isAlwaysThere(property) && !text;
        if (guarded) {
            lines.block("if ($L != null)", value);
        }
        Code there = dialect.there(property.type(), property.isAbsentable(), value);
        Code ordinary = dialect.print(property.type(), there);
        // What came in another way than ours is written in that again, so it is what a pattern is about; nothing may
        // stand for a default.
        Code printed = ordinary;
        if (property.hasOddText() && facets.isAboutText()) {
            boolean fitted = property.isWrittenByPattern();
            if (property.defaultValue() != null) {
                printed = fitted ? dialect.fitting(ordinary, rule(property)) : ordinary;
            } else if (fitted) {
                printed = dialect.keptText(property, ContentWriting.FIRST, ordinary, rule(property));
            } else {
                printed = dialect.keptText(property, ContentWriting.FIRST, ordinary);
            }
        }
        lines.line("$L;", to("value", "$L, $L, $N", dialect.label(property), printed, rule(property, facets)));
        if (guarded) {
            lines.close();
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
    public final void content(Content<Property> content, boolean required) {
        content.choose(required ? needed : unneeded);
    }

    private Void together(Content<Property> content, boolean required) {
        boolean guarded = !required && !content.parts().isEmpty();
        if (guarded) {
            lines.block("if ($L)", present(content));
        }
        content.parts().forEach(part -> content(part, true));
        if (guarded) {
            lines.close();
        }
        return null;
    }

    private Void choice(Content.OneOf<Property> choice, boolean required) {
        lines.line("$L;", to("choose"));
        choice.parts().forEach(this::branch);
        chosen(choice, required);
        return null;
    }

    /** Writes the checks of one branch of a choice. */
    public final void branch(Content<Property> part) {
        lines.block("if ($L)", to("branch", "$L", present(part)));
        content(part, true);
        lines.close();
    }

    /** Writes the end of the checks of a choice. */
    public final void chosen(Content.OneOf<Property> choice, boolean required) {
        boolean must = required && !choice.optional() && choice.parts().stream().noneMatch(Content::isEmptiable);
        String names = choice.parts().stream()
                .map(this::firstName)
                .distinct()
                .limit(SHOWN_NAMES)
                .collect(Collectors.joining(", "));
        lines.line("$L;", to("chosen", "$S, $L", names, must));
    }

    private String firstName(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return dialect.word(leaf.member());
        }
        return content.parts().isEmpty() ? "nothing" : firstName(content.parts().get(0));
    }

    private Code present(Content<Property> content) {
        return isSurelyThere(content) ? Code.of("true") : asked(content);
    }

    private Code asked(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            return asked(leaf.member());
        }
        Set<Code> any = new LinkedHashSet<>();
        content.parts().forEach(part -> any.add(asked(part)));
        return any.isEmpty() ? Code.of("false") : Code.join(" || ", any);
    }

    /** Whether no value says that something is not there: compilers complain of what is asked beside that. */
    private boolean isSurelyThere(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            Property property = leaf.member();
            return !property.isMany() && (dialect.isAlwaysThere(property) || property.isThereWhenNull());
        }
        return content.parts().stream().anyMatch(this::isSurelyThere);
    }

    private Code asked(Property property) {
        if (property.isMany()) {
            return hasAny(dialect.kept(property));
        }
        Code there = Code.of("$L != null", dialect.member(property));
        return property.nilName() != null ? Code.of("($L || $L)", there, dialect.nilFlag(property)) : there;
    }

    private Void leaf(Content.Leaf<Property> leaf, boolean required) {
        Property property = leaf.member();
        Code label = dialect.label(property);
        if (property.isMany()) {
            Code kept = dialect.kept(property);
            int least = required && !leaf.isGroupEmptiable() ? leaf.least() : 0;
            if (least > 0 || leaf.most() < Particle.UNBOUNDED) {
                Code most = leaf.most() == Particle.UNBOUNDED ? largest() : Code.of("$L", leaf.most());
                lines.line("$L;", to("count", "$L, $L, $L, $L", label, kept, least, most));
            }
            if (checksItself(property)) {
                lines.line("$L;", to("member", "$L, $L", label, kept));
            }
        } else if (!dialect.isAlwaysThere(property)) {
            boolean must = required && leaf.least() > 0 && !property.nillable();
            if (must || checksItself(property)) {
                lines.line("$L;", to(must ? "required" : "member", "$L, $L", label, dialect.member(property)));
            }
        }
        facets(property);
        return null;
    }

    /** The constant that is the rule of a property. */
    public final String rule(Property property) {
        return rule(property, property.facets());
    }

    private String rule(Property property, ValueFacets facets) {
        String known = rules.get(facets);
        if (known == null) {
            known = ruleName(property);
            rules.put(facets, known);
            ruleOrder.add(facets);
        }
        return known;
    }

    /** Writes the constants that the checks written so far refer to. */
    public void writeConstants() {
        ruleOrder.forEach(facets -> writeConstant(rules.get(facets), expression(facets)));
        ruleOrder.clear();
        rules.clear();
    }

    private Code expression(ValueFacets facets) {
        return facets.map(expressions);
    }
}
