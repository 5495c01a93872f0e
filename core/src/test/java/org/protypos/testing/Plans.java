package org.protypos.testing;

import java.util.List;
import org.protypos.api.Api;
import org.protypos.api.ApiBuilder;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.GivenNames;
import org.protypos.target.Targets;
import org.protypos.target.Wishes;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;
import org.protypos.target.java.text.JavaNames;

/** Plans of Java classes, for tests that look at names and shapes. */
public final class Plans {
    private Plans() {}

    /** As nobody wants anything otherwise. */
    public static Plan of(Contract contract) {
        return of(contract, RuleReader.read(List.of(), new JavaNames()));
    }

    /** As rules want it. */
    public static Plan of(Contract contract, Rules rules) {
        return of(contract, rules, GivenNames.NONE, null);
    }

    /** As rules want it, with names that were given before, and in one package if there is one. */
    public static Plan of(Contract contract, Rules rules, GivenNames past, String packageName) {
        return code(contract, rules, past, packageName).plan();
    }

    /** The code that becomes of it. */
    public static ClassApi code(Contract contract, Rules rules, GivenNames past, String packageName) {
        return (ClassApi)
                Targets.standard().lower(ApiBuilder.build(contract, rules), new Wishes(rules, past, packageName));
    }

    /** The code that becomes of it as nobody wants anything otherwise. */
    public static ClassApi code(Contract contract) {
        return code(contract, RuleReader.read(List.of(), new JavaNames()), GivenNames.NONE, null);
    }

    /** What is to be said about it. */
    public static List<Finding> findings(Contract contract, Rules rules) {
        Findings findings = new Findings();
        Api api = ApiBuilder.build(contract, rules);
        findings.addAll(api.findings());
        findings.addAll(Targets.standard()
                .lower(api, new Wishes(rules, GivenNames.NONE, null))
                .findings());
        return findings.sorted();
    }
}
