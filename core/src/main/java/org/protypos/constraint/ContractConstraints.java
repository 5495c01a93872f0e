package org.protypos.constraint;

import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.message.model.Vocabulary;

/**
 * Whether a contract keeps what the standards ask of it beside that its names lead somewhere: the constraints on schema
 * components of XML Schema Part 1 and those on facets of Part 2, and what WSDL 1.1 asks of documents and bindings. Code can
 * be made of a contract that breaks them, but whoever validates with it refuses it, or reads it otherwise. The door of this
 * package.
 */
public final class ContractConstraints {
    private ContractConstraints() {}

    /**
     * Every place where a contract breaks a constraint: warnings, never more.
     *
     * @param contract a sound one
     */
    public static List<Finding> of(Contract contract) {
        Findings findings = new Findings();
        schemas(contract, findings);
        WsdlConstraints.check(contract.documents(), findings);
        BindingConstraints.check(contract, findings);
        return findings.sorted();
    }

    private static void schemas(Contract contract, Findings findings) {
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
    }
}
