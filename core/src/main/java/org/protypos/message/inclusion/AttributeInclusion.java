package org.protypos.message.inclusion;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.sample.Outline;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Wildcard;

/** Whether all attributes that one type allows are allowed by another (XML Schema Part 1, section 3.4.4). */
final class AttributeInclusion {
    private static final String TEXT = "text";

    private final Pairs pairs;
    private final TypeModel one;
    private final TypeModel other;
    private final Local found;

    AttributeInclusion(Pairs pairs, TypeModel one, TypeModel other, Local found) {
        this.pairs = pairs;
        this.one = one;
        this.other = other;
        this.found = found;
    }

    void compare() {
        for (TypeModel.Attribute attribute : one.attributes().values()) {
            TypeModel.Attribute also = other.attributes().get(pairs.toOther(attribute.name()));
            if (also == null) {
                undeclared(attribute);
            } else {
                both(attribute, also);
            }
        }
        for (TypeModel.Attribute also : other.attributes().values()) {
            boolean known = one.attributes().values().stream()
                    .anyMatch(attribute -> pairs.toOther(attribute.name()).equals(also.name()));
            if (!known) {
                added(also);
            }
        }
        for (TypeModel.AnyAttribute any : one.wildcards()) {
            wildcard(any);
        }
    }

    private Clue clue(QName name, String... facts) {
        return Clue.member(one, other, name, true, facts);
    }

    /** An attribute that the other type does not declare is allowed by a wildcard, or not at all. */
    private void undeclared(TypeModel.Attribute attribute) {
        QName name = attribute.name();
        QName there = pairs.toOther(name);
        Outline outline = Outline.attribute(name, value(attribute));
        Wildcard.Processing processing = processing(there.getNamespaceURI());
        TypeModel.Attribute global = pairs.other.attribute(there);
        if (processing == null) {
            found.refused("the attribute " + name.getLocalPart(), outline, clue(name), any());
        } else if (processing != Wildcard.Processing.SKIP && global != null) {
            values(attribute, global);
        } else if (processing == Wildcard.Processing.STRICT) {
            found.refused("the attribute " + name.getLocalPart(), outline, clue(name), any());
        }
    }

    private Clue any() {
        return Clue.of(one.definition(), other.definition(), "any attribute");
    }

    private String value(TypeModel.Attribute attribute) {
        return attribute.fixed() != null
                ? attribute.fixed()
                : pairs.samples.values(attribute.rule(), 1).get(0);
    }

    private Wildcard.Processing processing(String namespace) {
        Wildcard.Processing processing = null;
        for (TypeModel.AnyAttribute any : other.wildcards()) {
            processing = any.allows(namespace) ? any.processing() : processing;
        }
        return processing;
    }

    private void both(TypeModel.Attribute attribute, TypeModel.Attribute also) {
        QName name = attribute.name();
        if (!attribute.required() && also.required()) {
            found.refused(
                    "an element without the attribute " + name.getLocalPart(), Outline.FREE, clue(name, "occurs"));
        }
        values(attribute, also);
        boolean may = !attribute.required() && !also.required();
        if (may && isOtherStandard(attribute, also)) {
            found.add(
                    Gap.Kind.MEANS_ELSE,
                    "an element without the attribute " + name.getLocalPart() + ", which then means "
                            + quoted(also.standard()) + " rather than " + quoted(attribute.standard()),
                    () -> Outline.FREE,
                    clue(name, "default", "fixed"));
        }
    }

    static String quoted(String text) {
        return text == null ? "nothing" : "'" + text + "'";
    }

    private static boolean isOtherStandard(TypeModel.Attribute attribute, TypeModel.Attribute also) {
        if (attribute.standard() == null || also.standard() == null) {
            return attribute.standard() != also.standard();
        }
        return !attribute
                        .rule()
                        .key(attribute.standard(), null)
                        .equals(also.rule().key(also.standard(), null))
                && !attribute.standard().equals(also.standard());
    }

    private void values(TypeModel.Attribute attribute, TypeModel.Attribute also) {
        QName name = attribute.name();
        Clue[] around = {clue(name, "type", "fixed")};
        if (attribute.fixed() != null) {
            ValueRule.Complaint complaint = also.rule().complaint(attribute.fixed(), null);
            if (complaint != null || isOther(also, attribute.fixed())) {
                found.refused(
                        "the attribute " + name.getLocalPart() + " with '" + attribute.fixed() + "'",
                        Outline.attribute(name, attribute.fixed()),
                        around);
            }
            return;
        }
        new Values(pairs, found)
                .compare(
                        new Values.Side(attribute.rule(), attribute.type()),
                        new Values.Side(also.rule(), also.type()),
                        text -> Outline.attribute(name, text),
                        "the attribute " + name.getLocalPart() + " with ",
                        around);
        if (also.fixed() != null) {
            pairs.samples.values(attribute.rule(), 3).stream()
                    .filter(text -> attribute.rule().complaint(text, null) == null && isOther(also, text))
                    .findFirst()
                    .ifPresent(text -> found.refused(
                            "the attribute " + name.getLocalPart() + " with '" + text + "'",
                            Outline.attribute(name, text),
                            clue(name, "fixed")));
        }
    }

    private static boolean isOther(TypeModel.Attribute also, String text) {
        return also.fixed() != null
                && !also.rule().key(also.fixed(), null).equals(also.rule().key(text, null));
    }

    /** An attribute that the one type does not declare: it is absent, or there by a wildcard. */
    private void added(TypeModel.Attribute also) {
        QName name = also.name();
        if (also.required()) {
            found.refused("an element without the attribute " + name.getLocalPart(), Outline.FREE, clue(name));
            return;
        }
        boolean wild = one.wildcards().stream().anyMatch(any -> any.allows(name.getNamespaceURI()));
        TypeModel.Attribute global = pairs.one.attribute(name);
        if (wild && global == null && also.rule().complaint(TEXT, null) != null) {
            found.refused(
                    "the attribute " + name.getLocalPart() + " with '" + TEXT + "'",
                    Outline.attribute(name, TEXT),
                    clue(name));
        } else if (wild && global != null) {
            values(global, also);
        }
    }

    private void wildcard(TypeModel.AnyAttribute any) {
        for (String namespace : Namespaces.of(pairs, any.wildcards(), wildcards())) {
            QName name = new QName(namespace, "other");
            boolean allowed = any.allows(namespace)
                    && pairs.one.attribute(name) == null
                    && any.processing() != Wildcard.Processing.STRICT;
            if (!allowed) {
                continue;
            }
            Wildcard.Processing processing = processing(pairs.toOther(namespace));
            if (processing == null || processing == Wildcard.Processing.STRICT) {
                found.refused(
                        "an attribute of " + (namespace.isEmpty() ? "no namespace" : "the namespace " + namespace),
                        Outline.attribute(name, TEXT),
                        any());
                return;
            }
        }
        pairs.one.schema().attributes().forEach((name, declared) -> {
            TypeModel.Attribute global = pairs.one.attribute(name);
            boolean meant =
                    any.allows(name.getNamespaceURI()) && !one.attributes().containsKey(name);
            if (meant && !other.attributes().containsKey(pairs.toOther(name))) {
                boolean known = pairs.other.attribute(pairs.toOther(name)) != null;
                Wildcard.Processing processing = processing(pairs.toOther(name).getNamespaceURI());
                if (processing == null || processing == Wildcard.Processing.STRICT && !known) {
                    found.refused(
                            "the attribute " + name.getLocalPart(), Outline.attribute(name, value(global)), any());
                } else if (known && processing != Wildcard.Processing.SKIP) {
                    values(global, pairs.other.attribute(pairs.toOther(name)));
                }
            }
        });
    }

    private List<Wildcard> wildcards() {
        return other.wildcards().stream()
                .flatMap(any -> any.wildcards().stream())
                .toList();
    }
}
