package org.protypos.generator;

import java.util.List;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.plan.Plan;
import org.protypos.plan.Planner;
import org.protypos.target.Surface;
import org.protypos.target.Target;

/**
 * A contract with what becomes of it.
 *
 * @param published the contract as its documents have it, or the selected part of it
 * @param contract the same as rules correct it
 * @param target the language that it is planned for
 * @param plan the typed API
 * @param rules what was laid over the contract
 * @param declared the rules among them that binding declarations stand for
 * @param findings what is to be said about contract, rules and plan
 */
public record PlannedContract(
        Contract published,
        Contract contract,
        Target target,
        Plan plan,
        Rules rules,
        List<ProposedRule> declared,
        List<Finding> findings) {
    /** Whether code can be written. */
    public boolean isSound() {
        return findings.stream().noneMatch(finding -> finding.severity() == Severity.ERROR);
    }

    /** What source sees of the code. */
    public Surface surface() {
        return target.surface(plan, contract.wsdl().portTypes().values());
    }

    /** The plan with nothing in it of classes that only its user has. */
    public Plan withoutForeignClasses() {
        return rules.namesForeignClasses()
                ? Planner.plan(contract, target.rules(), rules.withoutForeignClasses(), null)
                : plan;
    }
}
