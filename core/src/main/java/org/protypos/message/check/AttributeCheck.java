package org.protypos.message.check;

import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Wildcard;
import org.protypos.source.Xml;

/** Checks the attributes of an element (XML Schema Part 1, section 3.4.4). */
final class AttributeCheck {
    private static final Set<String> INSTANCE = Set.of("type", "nil", "schemaLocation", "noNamespaceSchemaLocation");

    private final Vocabulary vocabulary;
    private final Consumer<Deviation> report;
    private final IdentityCheck identities;

    AttributeCheck(Vocabulary vocabulary, IdentityCheck identities, Consumer<Deviation> report) {
        this.vocabulary = vocabulary;
        this.identities = identities;
        this.report = report;
    }

    void check(MessageElement element, TypeModel type) {
        for (Map.Entry<QName, String> attribute : element.attributes().entrySet()) {
            QName name = attribute.getKey();
            if (name.getNamespaceURI().equals(Xml.XSI) && INSTANCE.contains(name.getLocalPart())) {
                continue;
            }
            TypeModel.Attribute declared = type.attributes().get(name);
            if (declared != null) {
                value(element, declared, attribute.getValue());
            } else {
                other(element, type, name, attribute.getValue());
            }
        }
        for (TypeModel.Attribute declared : type.attributes().values()) {
            if (declared.required() && !element.attributes().containsKey(declared.name())) {
                report.accept(new Deviation(
                        "missing-attribute",
                        element.place(),
                        element.path(),
                        "<" + element.name().getLocalPart() + "> has no attribute "
                                + declared.name().getLocalPart(),
                        "the attribute " + declared.name().getLocalPart() + ", which is required",
                        declared.place(),
                        new Deviation.Cause(Deviation.Lack.MISSING_ATTRIBUTE, element, declared.name(), null, null)));
            }
        }
    }

    private void other(MessageElement element, TypeModel type, QName name, String value) {
        Wildcard.Processing processing = null;
        for (TypeModel.AnyAttribute any : type.wildcards()) {
            processing = any.allows(name.getNamespaceURI()) ? any.processing() : processing;
        }
        if (processing == null) {
            String known = NearestName.of(
                            name.getLocalPart(),
                            type.attributes().keySet().stream()
                                    .map(QName::getLocalPart)
                                    .toList())
                    .map(nearest -> "perhaps " + nearest)
                    .orElse("no attribute of this name");
            deviation(
                    "unexpected-attribute",
                    element,
                    name,
                    "<" + element.name().getLocalPart() + "> may not have the attribute " + name.getLocalPart(),
                    known,
                    type.place(),
                    new Deviation.Cause(Deviation.Lack.UNKNOWN_ATTRIBUTE, element, name, null, value));
            return;
        }
        TypeModel.Attribute declared = processing == Wildcard.Processing.SKIP ? null : vocabulary.attribute(name);
        if (declared != null) {
            value(element, declared, value);
        } else if (processing == Wildcard.Processing.STRICT) {
            deviation(
                    "unknown-attribute",
                    element,
                    name,
                    "the contract declares no attribute " + name.getLocalPart() + " of namespace "
                            + name.getNamespaceURI(),
                    "an attribute that the contract declares globally",
                    type.place());
        }
    }

    private void value(MessageElement element, TypeModel.Attribute declared, String value) {
        ValueRule.Complaint complaint = declared.rule().complaint(value, element::namespaceOf);
        if (complaint != null) {
            Place facet = vocabulary.place(complaint.rule());
            deviation(
                    "value",
                    element,
                    declared.name(),
                    complaint.message(),
                    "a value of " + MessageCheck.described(declared.type()),
                    facet != null ? facet : declared.place(),
                    new Deviation.Cause(Deviation.Lack.ATTRIBUTE_VALUE, element, declared.name(), null, value));
        } else if (declared.fixed() != null
                && !declared.rule()
                        .key(declared.fixed(), element::namespaceOf)
                        .equals(declared.rule().key(value, element::namespaceOf))) {
            deviation(
                    "fixed-value",
                    element,
                    declared.name(),
                    "\"" + value + "\" is another value than the one fixed",
                    "\"" + declared.fixed() + "\"",
                    declared.place());
        }
        identities.value(element, declared.name(), declared.rule(), value);
    }

    private void deviation(
            String code, MessageElement element, QName name, String came, String expected, Place contract) {
        deviation(code, element, name, came, expected, contract, null);
    }

    private void deviation(
            String code,
            MessageElement element,
            QName name,
            String came,
            String expected,
            Place contract,
            Deviation.Cause cause) {
        report.accept(new Deviation(
                code,
                element.place(name),
                element.path() + "/@" + name.getLocalPart(),
                came,
                expected,
                contract,
                cause));
    }
}
