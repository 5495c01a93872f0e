package org.protypos.binding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;

/** The components of a schema with corrections laid over them; all places stay those of the documents. */
final class CorrectedSchema {
    private final SchemaComponents schema;
    private final List<Rule> corrections;
    private final Set<String> known;
    private final Findings findings;

    CorrectedSchema(SchemaComponents schema, List<Rule> corrections, Set<String> known, Findings findings) {
        this.schema = schema;
        this.corrections = corrections;
        this.known = known;
        this.findings = findings;
    }

    SchemaComponents components() {
        Map<QName, SchemaType> types = new LinkedHashMap<>();
        schema.types()
                .forEach((name, type) ->
                        types.put(name, type(type, Subject.type(name, null).designator())));
        Map<QName, ElementDeclaration> elements = new LinkedHashMap<>();
        schema.elements()
                .forEach((name, element) -> elements.put(
                        name, element(element, Subject.element(name, null).designator())));
        return new SchemaComponents(
                types,
                elements,
                schema.attributes(),
                schema.groups(),
                schema.attributeGroups(),
                schema.notations(),
                schema.substitutions(),
                schema.findings());
    }

    private Rule about(String designator) {
        known.add(designator);
        return corrections.stream()
                .filter(rule -> rule.selector().fits(designator))
                .findFirst()
                .orElse(null);
    }

    /** Notes what a correction changes, or that it changes nothing. */
    private void changed(Rule rule, String designator, Place place, String before, String after) {
        rule.matched().add(designator);
        if (before.equals(after)) {
            findings.warning(
                    "correction-unneeded",
                    rule.place(),
                    "the contract says " + after + " of " + rule.on() + " by now",
                    "take the correction out");
        } else {
            rule.changes().add(new Rule.Change(place, designator, before, after));
        }
    }

    private SchemaType type(SchemaType type, String path) {
        if (!(type instanceof ComplexType complex)) {
            return type;
        }
        ComplexType.Content content = complex.content();
        if (content instanceof ComplexType.ElementContent elements && elements.particle() != null) {
            content = new ComplexType.ElementContent(particle(elements.particle(), path));
        }
        List<AttributeUse> uses = new ArrayList<>();
        complex.attributes().uses().forEach(use -> uses.add(attribute(use, path)));
        return new ComplexType(
                complex.name(),
                complex.isAbstract(),
                complex.mixed(),
                complex.derivation(),
                complex.base(),
                content,
                new Attributes(
                        uses,
                        complex.attributes().groups(),
                        complex.attributes().wildcard()),
                complex.block(),
                complex.documentation(),
                complex.place());
    }

    private Particle particle(Particle particle, String path) {
        Term term = particle.term();
        if (term instanceof ModelGroup group) {
            return new Particle(group(group, path), particle.least(), particle.most());
        }
        if (term instanceof GroupReference reference && isCorrected(reference, path)) {
            ModelGroup group = schema.groups().get(reference.name()).group();
            return new Particle(group(group, path), particle.least(), particle.most());
        }
        if (term instanceof ElementDeclaration element) {
            String inner = Subject.element(path, element.name(), null).designator();
            return occurring(
                    new Particle(element(element, inner), particle.least(), particle.most()), inner, element.place());
        }
        if (term instanceof ElementReference reference) {
            String inner = Subject.element(path, reference.name(), null).designator();
            return occurring(particle, inner, reference.place());
        }
        return particle;
    }

    private ModelGroup group(ModelGroup group, String path) {
        return new ModelGroup(
                group.compositor(),
                group.particles().stream().map(inner -> particle(inner, path)).toList(),
                group.place());
    }

    /** Whether a correction is about something that a type has from a group: then it gets a group of its own. */
    private boolean isCorrected(GroupReference reference, String path) {
        return schema.groups().containsKey(reference.name())
                && corrections.stream()
                        .anyMatch(rule -> rule.selector().pattern() != null
                                || rule.selector().expanded().startsWith(path + "/"));
    }

    private Particle occurring(Particle particle, String designator, Place place) {
        Rule rule = about(designator);
        Correction correction = rule == null ? null : rule.effect().correction();
        if (correction == null || correction.occurs() == null) {
            return particle;
        }
        changed(
                rule,
                designator,
                place,
                "occurs " + new Correction.Occurs(particle.least(), particle.most()),
                "occurs " + correction.occurs());
        return new Particle(
                particle.term(),
                correction.occurs().least(),
                correction.occurs().most());
    }

    private ElementDeclaration element(ElementDeclaration element, String designator) {
        TypeReference type = element.type();
        if (type != null && type.anonymous() != null) {
            type = TypeReference.to(type(type.anonymous(), designator));
        }
        boolean nillable = element.nillable();
        Rule rule = about(designator);
        Correction correction = rule == null ? null : rule.effect().correction();
        if (correction != null && correction.nillable() != null) {
            changed(rule, designator, element.place(), "nillable " + nillable, "nillable " + correction.nillable());
            nillable = correction.nillable();
        }
        if (correction != null && correction.type() != null) {
            type = retyped(rule, designator, type, element.place());
        }
        return new ElementDeclaration(
                element.name(),
                type,
                nillable,
                element.isAbstract(),
                element.defaultValue(),
                element.fixedValue(),
                element.substitutionHead(),
                element.expectedContentTypes(),
                element.constraints(),
                element.block(),
                element.documentation(),
                element.place());
    }

    private TypeReference retyped(Rule rule, String designator, TypeReference type, Place place) {
        QName name = rule.effect().correction().type();
        if (schema.type(name) == null && !name.equals(SchemaComponents.ANY_TYPE)) {
            rule.matched().add(designator);
            findings.error(
                    "correction-type", rule.place(), "there is no type " + name, "name a type that the contract has");
            return type;
        }
        String before = type == null ? "that of its head" : Objects.toString(type.name(), "a type of its own");
        changed(rule, designator, place, "type " + before, "type " + name);
        return TypeReference.to(name, place);
    }

    private AttributeUse attribute(AttributeUse use, String path) {
        QName name =
                schema.declaration(use) == null ? null : schema.declaration(use).name();
        String designator =
                name == null ? path : Subject.attribute(path, name, null).designator();
        Rule rule = name == null ? null : about(designator);
        Correction correction = rule == null ? null : rule.effect().correction();
        if (correction == null || correction.occurs() == null) {
            return use;
        }
        boolean required = correction.occurs().least() > 0;
        changed(
                rule,
                designator,
                use.place(),
                "occurs " + (use.use() == AttributeUse.Use.REQUIRED ? "1" : "0..1"),
                "occurs " + (required ? "1" : "0..1"));
        return new AttributeUse(
                use.reference(),
                use.declaration(),
                required ? AttributeUse.Use.REQUIRED : AttributeUse.Use.OPTIONAL,
                use.defaultValue(),
                use.fixedValue(),
                use.arrayItem(),
                use.place());
    }
}
