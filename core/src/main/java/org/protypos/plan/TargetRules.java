package org.protypos.plan;

import org.protypos.naming.NameRules;

/** What a plan must know of the target that it is for: how names are spelled, and which types stand for which values. */
public interface TargetRules extends NameRules {
    /**
     * What stands for values of a simple type when a type of the target is asked for.
     *
     * @param written what the contract has: a scalar
     * @param type the type asked for
     * @return a scalar that the type stands for, a converted one, or null when the target knows no way
     */
    ValueType converted(ValueType.Scalar written, String type);

    /** Whether code can get at members like this. */
    boolean supports(Property.Access access);
}
