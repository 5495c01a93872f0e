package org.protypos.wire;

import java.util.List;
import java.util.function.Predicate;
import org.protypos.wsdl.PolicyAssertion;

/** How much a contract asks for something, mostly in its policies (Web Services Policy 1.5 Framework, section 3.2). */
public enum Need {
    /** They do not speak of it. */
    NONE,
    /** Who receives takes it; who sends may do without. */
    OPTIONAL,
    /** They do not have to: who sends has it, for nothing else tells what a message is for; who receives takes what comes. */
    SENT,
    /** Nothing goes without it. */
    REQUIRED;

    /** Whether who sends has it. */
    public boolean isSent() {
        return this == SENT || this == REQUIRED;
    }

    static Need of(List<PolicyAssertion> policy, Predicate<PolicyAssertion> what) {
        List<PolicyAssertion> meant = policy.stream().filter(what).toList();
        return meant.isEmpty() ? NONE : meant.stream().allMatch(PolicyAssertion::optional) ? OPTIONAL : REQUIRED;
    }
}
