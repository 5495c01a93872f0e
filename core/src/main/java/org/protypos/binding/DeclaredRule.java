package org.protypos.binding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Place;

/**
 * A rule that a binding declaration stands for.
 *
 * @param rule the rule
 * @param place where the declaration stands
 * @param inContract whether it stands in the contract itself, whose users have not asked for it
 */
public record DeclaredRule(ProposedRule rule, Place place, boolean inContract) {
    /** The rules with all that is said of one component said in one. */
    public static List<ProposedRule> joined(List<DeclaredRule> rules) {
        Map<String, Map<String, String>> byComponent = new LinkedHashMap<>();
        for (DeclaredRule declared : rules) {
            declared.rule().values().forEach((key, value) -> byComponent
                    .computeIfAbsent(declared.rule().on(), on -> new LinkedHashMap<>())
                    .putIfAbsent(key, value));
        }
        List<ProposedRule> joined = new ArrayList<>();
        byComponent.forEach((on, values) -> joined.add(new ProposedRule(on, values, "")));
        return joined;
    }
}
