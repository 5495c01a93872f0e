package org.protypos.generator;

import java.util.List;
import org.protypos.api.Api;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.GivenNames;
import org.protypos.target.LoweredApi;
import org.protypos.target.Surface;
import org.protypos.target.Target;
import org.protypos.target.Wishes;

/**
 * A contract with what becomes of it.
 *
 * @param published the contract as its documents have it, or the selected part of it
 * @param contract the same as rules correct it
 * @param api the typed API, in no language's terms
 * @param target the language that it is wanted in
 * @param code the API in the terms of that language
 * @param rules what was laid over the contract
 * @param declared the rules among them that binding declarations stand for
 * @param findings what is to be said about contract, rules and plan
 */
public record PlannedContract(
        Contract published,
        Contract contract,
        Api api,
        Target target,
        LoweredApi code,
        Rules rules,
        List<ProposedRule> declared,
        List<Finding> findings) {
    /** Whether code can be written. */
    public boolean isSound() {
        return findings.stream().noneMatch(Finding::isError);
    }

    /** What source sees of the code. */
    public Surface surface() {
        return code.surface();
    }

    /** The code with nothing in it of classes that only its user has. */
    public LoweredApi withoutForeignClasses() {
        return rules.namesForeignClasses()
                ? target.lower(api, new Wishes(rules.withoutForeignClasses(), GivenNames.NONE, null))
                : code;
    }
}
