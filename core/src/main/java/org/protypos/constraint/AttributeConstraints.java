package org.protypos.constraint;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;

/** Whether the attributes of a type go together, and with those of its base (XML Schema Part 1, section 3.4.6). */
final class AttributeConstraints {
    private final Vocabulary vocabulary;
    private final Findings findings;

    AttributeConstraints(Vocabulary vocabulary, Findings findings) {
        this.vocabulary = vocabulary;
        this.findings = findings;
    }

    void check(ComplexType type) {
        TypeModel base = vocabulary.type(type.base());
        boolean extension = type.derivation() == ComplexType.Derivation.EXTENSION;
        Map<QName, AttributeUse> own = new HashMap<>();
        collect(type.attributes(), own, new HashSet<>(), type.place());
        for (Map.Entry<QName, AttributeUse> entry : own.entrySet()) {
            AttributeUse use = entry.getValue();
            TypeModel.Attribute inherited =
                    base == null || base.isAnything() ? null : base.attributes().get(entry.getKey());
            boolean kept = use.use() != AttributeUse.Use.PROHIBITED;
            if (extension && inherited != null && kept && !use.place().equals(inherited.place())) {
                twice(entry.getKey(), use.place(), inherited.place());
            } else if (!extension && base != null && !base.isAnything() && !type.isEncodedArray()) {
                restricted(type, base, inherited, use, entry.getKey());
            }
        }
        if (!extension && base != null && !base.isAnything()) {
            wildcard(type, base);
        }
        ids(
                vocabulary.type(TypeReference.to(type)).attributes().values().stream()
                        .filter(attribute -> ValueConstraints.isId(attribute.rule()))
                        .map(TypeModel.Attribute::name)
                        .toList(),
                type.place());
    }

    void check(AttributeGroup group) {
        Map<QName, AttributeUse> own = new LinkedHashMap<>();
        collect(group.attributes(), own, new HashSet<>(), group.place());
        List<QName> ids = own.values().stream()
                .filter(use -> use.use() != AttributeUse.Use.PROHIBITED)
                .map(vocabulary.schema()::declaration)
                .filter(declared -> ValueConstraints.isId(
                        vocabulary.rule(vocabulary.schema().resolve(declared.type()))))
                .map(AttributeDeclaration::name)
                .toList();
        ids(ids, group.place());
        if (isAmong(group.name(), group.attributes(), new HashSet<>())) {
            findings.warning(
                    "circular-group",
                    group.place(),
                    "the attribute group " + group.name().getLocalPart() + " contains itself",
                    "leave the reference out: it adds nothing");
        }
    }

    private boolean isAmong(QName name, Attributes from, Set<QName> seen) {
        for (Attributes.GroupUse group : from.groups()) {
            AttributeGroup definition = vocabulary.schema().attributeGroups().get(group.name());
            if (group.name().equals(name)
                    || definition != null && seen.add(group.name()) && isAmong(name, definition.attributes(), seen)) {
                return true;
            }
        }
        return false;
    }

    private void collect(Attributes from, Map<QName, AttributeUse> own, Set<QName> groups, Place place) {
        for (AttributeUse use : from.uses()) {
            AttributeDeclaration declared = vocabulary.schema().declaration(use);
            AttributeUse other = own.putIfAbsent(declared.name(), use);
            boolean kept = use.use() != AttributeUse.Use.PROHIBITED;
            if (other != null && other != use && kept && other.use() != AttributeUse.Use.PROHIBITED) {
                // One of them may stand in a group that many types use: it is told at the type then.
                twice(declared.name(), groups.isEmpty() ? use.place() : place, other.place());
            }
        }
        for (Attributes.GroupUse group : from.groups()) {
            AttributeGroup definition = vocabulary.schema().attributeGroups().get(group.name());
            if (definition != null && groups.add(group.name())) {
                collect(definition.attributes(), own, groups, group.place());
            }
        }
    }

    private void twice(QName name, Place place, Place other) {
        findings.warning(
                "attribute-twice",
                place,
                "the attribute " + name.getLocalPart() + " is there already" + Told.at(other, place),
                "leave one of them out");
    }

    /** Section 3.4.6, derivation valid (restriction, complex), clauses 2 and 3. */
    private void restricted(
            ComplexType type, TypeModel base, TypeModel.Attribute inherited, AttributeUse use, QName name) {
        boolean kept = use.use() != AttributeUse.Use.PROHIBITED;
        String attribute = "the attribute " + name.getLocalPart();
        if (inherited == null) {
            boolean wild = base.wildcards().stream().anyMatch(any -> any.allows(name.getNamespaceURI()));
            if (kept && !wild) {
                wider(type, use.place(), attribute + " is not there");
            }
            return;
        }
        if (inherited.required() && use.use() != AttributeUse.Use.REQUIRED) {
            wider(type, use.place(), attribute + " is required");
        }
        if (!kept) {
            return;
        }
        AttributeDeclaration declared = vocabulary.schema().declaration(use);
        String fixed = use.fixedBy(declared);
        if (inherited.fixed() != null
                && (fixed == null
                        || !inherited
                                .rule()
                                .key(inherited.fixed(), null)
                                .equals(inherited.rule().key(fixed, null)))) {
            wider(type, use.place(), attribute + " is always \"" + inherited.fixed() + "\"");
        }
        TypeModel own = vocabulary.type(declared.type());
        if (inherited.type() != null
                && !vocabulary.derives(own, vocabulary.type(TypeReference.to(inherited.type())), Set.of())) {
            wider(type, use.place(), attribute + " is of another type, from which its own is not derived");
        }
    }

    private void wider(ComplexType type, Place place, String there) {
        Told.wider(findings, type, place, there);
    }

    private void wildcard(ComplexType type, TypeModel base) {
        Wildcard own = type.attributes().wildcard();
        if (own == null) {
            return;
        }
        for (String namespace : Told.probes(own)) {
            if (own.allows(namespace) && base.wildcards().stream().noneMatch(any -> any.allows(namespace))) {
                wider(type, own.place(), "there are no attributes of " + Told.namespace(namespace));
                return;
            }
        }
    }

    /** A type has one attribute at most that is an ID (section 3.4.6, complex type definition properties, clause 5). */
    private void ids(List<QName> ids, Place place) {
        if (ids.size() > 1) {
            findings.warning(
                    "two-ids",
                    place,
                    "the attributes " + ids.get(0).getLocalPart() + " and "
                            + ids.get(1).getLocalPart() + " are both an ID",
                    "leave one as xs:NCName: an element has one ID");
        }
    }
}
