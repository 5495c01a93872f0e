package org.protypos.cli;

import java.util.List;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.plan.Plan;

/**
 * A contract with what becomes of it.
 *
 * @param contract the contract as rules correct it
 * @param plan the typed API
 * @param rules what was laid over the contract
 * @param declared the rules among them that binding declarations stand for
 * @param findings what is to be said about contract, rules and plan
 */
record PlannedContract(Contract contract, Plan plan, Rules rules, List<ProposedRule> declared, List<Finding> findings) {
    /** Whether code can be written. */
    boolean isSound() {
        return findings.stream().noneMatch(finding -> finding.severity() == Severity.ERROR);
    }
}
