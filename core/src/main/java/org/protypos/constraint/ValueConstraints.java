package org.protypos.constraint;

import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaType;

/** Whether what stands for something absent is a value of it (XML Schema Part 1, sections 3.2.6, 3.3.6 and 3.5.6). */
final class ValueConstraints {
    private final Vocabulary vocabulary;
    private final Findings findings;

    ValueConstraints(Vocabulary vocabulary, Findings findings) {
        this.vocabulary = vocabulary;
        this.findings = findings;
    }

    void check(ElementDeclaration element) {
        ValueRule text = vocabulary.typeOf(element).text();
        if (text != null) {
            notation(text, element.place());
        }
        String value = element.standing();
        if (value == null) {
            return;
        }
        String attribute = element.defaultValue() != null ? "default" : "fixed";
        TypeModel type = vocabulary.typeOf(element);
        if (type.text() != null) {
            check(type.text(), value, element.place(), attribute);
        } else if (!type.isAnything()) {
            boolean may = type.mixed() && type.content().isComplete();
            if (!may) {
                findings.warning(
                        "value-of-elements",
                        element.place().towards(attribute + "="),
                        "the element " + element.name().getLocalPart() + " has " + word(attribute) + ", and its type "
                                + (type.mixed() ? "demands elements" : "is no text"),
                        "leave the value out");
            }
        }
    }

    void check(AttributeDeclaration attribute) {
        SchemaType type = vocabulary.schema().resolve(attribute.type());
        if (type == null || attribute.place() == null) {
            return;
        }
        ValueRule rule = vocabulary.rule(type);
        notation(rule, attribute.place());
        if (attribute.defaultValue() != null) {
            check(rule, attribute.defaultValue(), attribute.place(), "default");
        } else if (attribute.fixedValue() != null) {
            check(rule, attribute.fixedValue(), attribute.place(), "fixed");
        }
    }

    /** Part 2, section 3.2.19: enumeration required NOTATION. */
    private void notation(ValueRule rule, Place place) {
        boolean all =
                "NOTATION".equals(rule.builtin()) && rule.complaint("any:other", prefix -> Told.ELSEWHERE) == null;
        if (all && place != null) {
            findings.warning(
                    "value-of-type",
                    place,
                    "no value is of xs:NOTATION itself",
                    "derive a type from it that lists the notations meant");
        }
    }

    /** The value of a use on the spot is that of its declaration. */
    void check(AttributeUse use) {
        AttributeDeclaration declared = vocabulary.schema().declaration(use);
        SchemaType type = declared == null || use.declaration() != null
                ? null
                : vocabulary.schema().resolve(declared.type());
        if (type == null) {
            return;
        }
        ValueRule rule = vocabulary.rule(type);
        if (use.defaultValue() != null) {
            check(rule, use.defaultValue(), use.place(), "default");
        } else if (use.fixedValue() != null) {
            check(rule, use.fixedValue(), use.place(), "fixed");
        }
        boolean other = use.fixedValue() == null
                ? use.defaultValue() != null
                : declared.fixedValue() != null
                        && !rule.key(use.fixedValue(), null).equals(rule.key(declared.fixedValue(), null));
        if (declared.fixedValue() != null && other) {
            findings.warning(
                    "value-fixed",
                    use.place(),
                    "the attribute " + declared.name().getLocalPart() + " is always \"" + declared.fixedValue()
                            + "\" where it is declared",
                    "leave the other value out");
        }
    }

    private void check(ValueRule rule, String value, Place place, String attribute) {
        ValueRule.Complaint complaint = rule.complaint(value, null);
        if (complaint != null) {
            findings.warning(
                    "value-of-type",
                    place.towards(attribute + "="),
                    word(attribute) + " is no value of its type: " + complaint.message(),
                    "write one, or leave it out");
        } else if (isId(rule)) {
            findings.warning(
                    "value-of-id",
                    place.towards(attribute + "="),
                    "an ID has " + word(attribute) + ", so that two of them are the same",
                    "leave it out");
        }
    }

    static boolean isId(ValueRule rule) {
        return "ID".equals(rule.builtin());
    }

    private static String word(String attribute) {
        return attribute.equals("default") ? "a default" : "a fixed value";
    }
}
