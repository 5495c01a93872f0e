package org.protypos.contract;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.runtime.check.PatternAutomaton;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.pattern.SchemaPattern;

/** Checks that every name in the schemas leads somewhere. */
final class SchemaReferences {
    private final SchemaComponents schema;
    private final Findings findings;
    private final NameFinder names;
    private final Breadth breadth;
    private List<QName> typeNames;
    private final Term.Acts acts;

    SchemaReferences(SchemaComponents schema, NameFinder names, Findings findings) {
        this.schema = schema;
        this.findings = findings;
        this.names = names;
        this.breadth = new Breadth(schema, findings);
        this.acts = new Term.Acts(
                this::element,
                reference -> names.require(
                        "element",
                        reference.name(),
                        reference.place(),
                        schema.elements().keySet()),
                group -> names.require(
                        "group", group.name(), group.place(), schema.groups().keySet()),
                this::group,
                this::wildcard);
    }

    void check() {
        schema.types().values().forEach(this::type);
        schema.elements().values().forEach(this::element);
        schema.attributes().values().forEach(this::attribute);
        schema.groups().values().forEach(definition -> group(definition.group()));
        schema.attributeGroups().values().forEach(group -> attributes(group.attributes()));
        new Circles(schema, findings).check();
    }

    private void reference(TypeReference reference) {
        if (reference == null) {
            return;
        }
        if (reference.name() == null) {
            type(reference.anonymous());
        } else if (!reference.name().equals(SchemaComponents.ANY_TYPE) && schema.type(reference.name()) == null) {
            names.unresolved("type", reference.name(), reference.place(), typeNames());
        }
    }

    private List<QName> typeNames() {
        if (typeNames == null) {
            typeNames = new ArrayList<>(schema.types().keySet());
            Builtins.names().forEach(name -> typeNames.add(Builtins.name(name)));
        }
        return typeNames;
    }

    private void type(SchemaType type) {
        if (type instanceof SimpleType simple) {
            simple(simple);
        } else if (type instanceof ComplexType complex) {
            complex(complex);
        }
    }

    private void simple(SimpleType simple) {
        breadth.check(simple);
        simple.facets().forEach(this::facet);
        simple.facets().forEach(facet -> bound(facet, simple));
        simple(simple.base(), "a simple type cannot be made from ");
        simple.members().forEach(member -> simple(member, "a simple type cannot be made from "));
    }

    /** Holds a reference to a simple type, where nothing else can stand for text. */
    private void simple(TypeReference reference, String wrong) {
        reference(reference);
        if (reference == null || reference.name() == null) {
            return;
        }
        if (schema.resolve(reference) instanceof ComplexType || reference.name().equals(SchemaComponents.ANY_TYPE)) {
            findings.error(
                    "base-kind",
                    reference.place(),
                    wrong + reference.name().getLocalPart() + ", which is not simple",
                    "name a simple type");
        }
    }

    /** A bound is a value of the type that it bounds (XML Schema Part 2, sections 4.3.7 to 4.3.10). */
    private void bound(Facet facet, SimpleType narrowed) {
        if (facet.kind().form() != FacetKind.Form.BOUND) {
            return;
        }
        SchemaType type = narrowed;
        Set<SchemaType> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        while (type instanceof SimpleType simple && simple.base() != null && seen.add(type)) {
            type = schema.resolve(simple.base());
            boolean known = type != null && type.name() != null && Builtins.type(type.name()) == type;
            if (known && ValueRule.of(type.name().getLocalPart()).complaint(facet.value(), null) != null) {
                findings.warning(
                        "facet-value",
                        facet.place(),
                        "xs:" + facet.kind() + " needs a value of "
                                + type.name().getLocalPart() + ", not \"" + Printable.of(facet.value()) + "\"",
                        "write one; until then it is not checked");
            }
            if (known) {
                return;
            }
        }
    }

    private void facet(Facet facet) {
        switch (facet.kind().form()) {
            case PATTERN -> {
                try {
                    long states = SchemaPattern.of(facet.value()).states();
                    if (states > PatternAutomaton.MOST_STATES) {
                        findings.warning(
                                "pattern-size",
                                facet.place(),
                                "the counts of the pattern \"" + Printable.of(facet.value())
                                        + "\" multiply to more than " + PatternAutomaton.MOST_STATES,
                                "write it with smaller counts; until then values that take long to match are not held to it");
                    }
                } catch (IllegalArgumentException e) {
                    findings.warning(
                            "pattern-syntax",
                            facet.place(),
                            "the pattern \"" + Printable.of(facet.value()) + "\" cannot be read: " + e.getMessage(),
                            "write it as XML Schema Part 2, appendix F says; until then it is not checked");
                }
            }
            case COUNT -> {
                if (!facet.value().strip().matches("\\+?[0-9]+")) {
                    findings.warning(
                            "facet-value",
                            facet.place(),
                            "xs:" + facet.kind() + " needs a number, not \"" + facet.value() + "\"",
                            "write a whole number; until then it is not checked");
                }
            }
            case BOUND, VALUE, WORD -> {
                // bounds and values are texts of the type itself
            }
        }
    }

    private void complex(ComplexType complex) {
        reference(complex.base());
        SchemaType base = complex.base() == null ? null : schema.resolve(complex.base());
        if (complex.content() instanceof ComplexType.SimpleContent content) {
            simple(content.type(), "text cannot be of ");
            content.facets().forEach(this::facet);
            text(complex, content, base);
        } else {
            if (complex.particle() != null) {
                term(complex.particle().term());
            }
            boolean empty = complex.particle() == null && !complex.mixed();
            if (!empty || complex.derivation() == ComplexType.Derivation.EXTENSION) {
                elements(complex, base);
            }
        }
        attributes(complex.attributes());
        breadth.check(complex);
    }

    /** Simple content comes from a simple type, or from content that may be text (XML Schema Part 1, section 3.4.2). */
    private void text(ComplexType complex, ComplexType.SimpleContent content, SchemaType base) {
        if (base instanceof ComplexType from && from.content() instanceof ComplexType.ElementContent) {
            boolean narrowed = from.mixed()
                    && content.type() != null
                    && complex.derivation() == ComplexType.Derivation.RESTRICTION;
            if (!narrowed) {
                findings.error(
                        "base-kind",
                        complex.base().place(),
                        "simple content cannot be made from "
                                + complex.base().name().getLocalPart() + ", which holds elements",
                        "use xs:complexContent, or name a type that holds text alone");
            }
        }
    }

    private void elements(ComplexType complex, SchemaType base) {
        boolean simple = base instanceof SimpleType;
        if (simple || base instanceof ComplexType from && from.content() instanceof ComplexType.SimpleContent) {
            findings.error(
                    "base-kind",
                    complex.base().place(),
                    (complex.particle() == null
                                    ? "complex content cannot be made from "
                                    : "elements cannot be added to ")
                            + (simple ? "the simple type " : "")
                            + complex.base().name().getLocalPart()
                            + (simple ? "" : ", which holds text alone"),
                    "use xs:simpleContent, or name a complex type "
                            + (simple ? "as the base" : "that holds elements as the base"));
        }
    }

    private void attributes(Attributes attributes) {
        for (AttributeUse use : attributes.uses()) {
            if (use.declaration() != null) {
                attribute(use.declaration());
            } else {
                names.require(
                        "attribute",
                        use.reference(),
                        use.place(),
                        schema.attributes().keySet());
            }
        }
        for (Attributes.GroupUse group : attributes.groups()) {
            names.require(
                    "attribute group",
                    group.name(),
                    group.place(),
                    schema.attributeGroups().keySet());
        }
    }

    private void attribute(AttributeDeclaration attribute) {
        simple(attribute.type(), "an attribute cannot be of ");
    }

    private void element(ElementDeclaration element) {
        reference(element.type());
        if (element.substitutionHead() != null) {
            names.require(
                    "element",
                    element.substitutionHead(),
                    element.place(),
                    schema.elements().keySet());
        }
    }

    private void group(ModelGroup group) {
        for (Particle particle : group.particles()) {
            term(particle.term());
        }
    }

    private void term(Term term) {
        term.act(acts);
    }

    private void wildcard(Wildcard wildcard) {
        for (String namespace : wildcard.namespaces()) {
            if (namespace.startsWith("##")
                    && !Set.of("##any", "##other", "##local", "##targetNamespace")
                            .contains(namespace)) {
                findings.error(
                        "wildcard-namespace",
                        wildcard.place(),
                        "\"" + namespace + "\" is no namespace",
                        "write ##any, ##other, ##local, ##targetNamespace or a namespace");
            }
        }
    }
}
