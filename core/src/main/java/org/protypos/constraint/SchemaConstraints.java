package org.protypos.constraint;

import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.message.model.Vocabulary;

/**
 * Whether the schemas of a contract keep what XML Schema asks of components beside that their names lead somewhere: the
 * constraints on schema components of Part 1 and those on facets of Part 2. Code can be made of a schema that breaks them,
 * but whoever validates with it refuses the schema. The door of this package.
 */
public final class SchemaConstraints {
    private SchemaConstraints() {}

    /**
     * Every place where the schemas break a constraint: warnings, never more.
     *
     * @param contract a sound one
     */
    public static List<Finding> of(Contract contract) {
        Findings findings = new Findings();
        Vocabulary vocabulary = new Vocabulary(contract.schema());
        DeclaredComponents declared = DeclaredComponents.of(contract.schema());
        MarkupConstraints markup = new MarkupConstraints(findings);
        markup.check(contract.documents().schemas());
        FacetConstraints facets = new FacetConstraints(vocabulary, markup, findings);
        ValueConstraints values = new ValueConstraints(vocabulary, findings);
        AttributeConstraints attributes = new AttributeConstraints(vocabulary, findings);
        ContentConstraints content = new ContentConstraints(vocabulary, findings);
        DerivationConstraints derivation = new DerivationConstraints(vocabulary, markup, findings);
        declared.simpleTypes().forEach(type -> {
            facets.check(type);
            derivation.check(type);
        });
        declared.complexTypes().forEach(type -> {
            facets.check(type);
            attributes.check(type);
            derivation.check(type);
            content.check(type);
        });
        declared.elements().forEach(values::check);
        declared.attributes().forEach(values::check);
        declared.uses().forEach(values::check);
        contract.schema().attributeGroups().values().forEach(attributes::check);
        contract.schema().elements().values().forEach(derivation::check);
        new KeyConstraints(declared.elements(), findings).check();
        return findings.sorted();
    }
}
