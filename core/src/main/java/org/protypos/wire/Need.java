package org.protypos.wire;

import java.util.List;
import java.util.function.Predicate;
import org.protypos.wsdl.PolicyAssertion;

/** How much the policies of a contract ask for something (Web Services Policy 1.5 Framework, section 3.2). */
public enum Need {
    /** They do not speak of it. */
    NONE,
    /** Who receives takes it; who sends may do without. */
    OPTIONAL,
    /** Nothing goes without it. */
    REQUIRED;

    static Need of(List<PolicyAssertion> policy, Predicate<PolicyAssertion> what) {
        List<PolicyAssertion> meant = policy.stream().filter(what).toList();
        return meant.isEmpty() ? NONE : meant.stream().allMatch(PolicyAssertion::optional) ? OPTIONAL : REQUIRED;
    }
}
