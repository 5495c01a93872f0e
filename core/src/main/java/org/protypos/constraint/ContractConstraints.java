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
     * Every place where a contract breaks a constraint, with a warning, and notes of what is out of use or easily missed.
     *
     * @param contract any one; of one that is not sound, whose names may lead nowhere, what is written in the documents is
     *     judged and not what it comes to
     */
    public static List<Finding> of(Contract contract) {
        Findings findings = new Findings();
        MarkupConstraints markup = new MarkupConstraints(findings);
        markup.check(contract.documents().schemas());
        DeclaredComponents declared = DeclaredComponents.of(contract.schema());
        new KeyConstraints(declared.elements(), findings).check();
        if (contract.isSound()) {
            components(contract, declared, markup, findings);
        }
        WsdlConstraints.check(contract.documents(), findings);
        BindingConstraints.check(contract, findings);
        return findings.sorted();
    }

    private static void components(
            Contract contract, DeclaredComponents declared, MarkupConstraints markup, Findings findings) {
        Vocabulary vocabulary = new Vocabulary(contract.schema());
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
    }
}
