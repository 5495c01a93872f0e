package org.protypos.proof;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.tree.MessageElement;
import org.protypos.naming.NameRules;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/**
 * Finds the corrections by which a contract would say what real messages are. Each round corrects what a check finds and
 * checks again, for behind one deviation there may be another.
 */
public final class Reconciliation {
    private static final int MOST_ROUNDS = 12;

    private final Contract contract;
    private final NameRules names;

    /**
     * What came of it.
     *
     * @param rules the corrections
     * @param fitting how many of the messages would fit then
     */
    public record Outcome(List<ProposedRule> rules, int fitting) {}

    /**
     * Prepares.
     *
     * @param contract a sound contract
     * @param names which names the target can have
     */
    public Reconciliation(Contract contract, NameRules names) {
        this.contract = contract;
        this.names = names;
    }

    /** Finds corrections for some messages. */
    public Outcome of(List<MessageElement> messages) {
        Map<String, Correcting> all = new LinkedHashMap<>();
        Contract corrected = contract;
        int fitting = 0;
        for (int round = 0; round < MOST_ROUNDS; round++) {
            ContractCheck check = new ContractCheck(corrected);
            boolean more = false;
            fitting = 0;
            for (MessageElement message : messages) {
                CheckedMessage checked = check.recognize(message).checked();
                fitting += checked.deviations().isEmpty() ? 1 : 0;
                Remedies remedies = new Remedies(check.vocabulary(), checked);
                for (Deviation deviation : checked.deviations()) {
                    Remedies.Remedy remedy = deviation.cause() == null ? null : remedies.remedy(deviation.cause());
                    if (remedy != null) {
                        more |= all.computeIfAbsent(remedy.key(), key -> new Correcting(remedy.on()))
                                .add(remedy, deviation);
                    }
                }
            }
            if (!more) {
                break;
            }
            Rules rules = RuleReader.read("proposed", ProposedRule.file(rules(all)), names);
            corrected = rules.correct(contract);
        }
        return new Outcome(explained(all), fitting);
    }

    private static List<ProposedRule> rules(Map<String, Correcting> all) {
        return all.values().stream().map(one -> one.rule("")).toList();
    }

    private List<ProposedRule> explained(Map<String, Correcting> all) {
        Map<String, Contract> needs = new LinkedHashMap<>();
        for (PortType portType : contract.wsdl().portTypes().values()) {
            for (Operation operation : portType.operations()) {
                needs.computeIfAbsent(
                        operation.name(), name -> new Selection(List.of(), List.of(), List.of(name)).of(contract));
            }
        }
        List<ProposedRule> rules = new ArrayList<>();
        for (Correcting one : all.values()) {
            Set<String> operations = new TreeSet<>();
            needs.forEach((operation, needed) -> {
                if (needed.schema().types().keySet().stream().anyMatch(name -> one.isIn("~" + name))
                        || needed.schema().elements().keySet().stream().anyMatch(name -> one.isIn(name.toString()))) {
                    operations.add(operation);
                }
            });
            rules.add(one.rule(operations.isEmpty() ? "" : "changes messages of " + String.join(", ", operations)));
        }
        return rules;
    }

    /** What is corrected of one component: what all messages need together. */
    private static final class Correcting {
        private final String on;
        private final Map<String, String> values = new LinkedHashMap<>();
        private final Set<String> reasons = new LinkedHashSet<>();

        Correcting(String on) {
            this.on = on;
        }

        boolean add(Remedies.Remedy remedy, Deviation deviation) {
            boolean more = false;
            for (Map.Entry<String, String> value : remedy.values().entrySet()) {
                more |= !value.getValue().equals(values.put(value.getKey(), value.getValue()));
            }
            if (more) {
                reasons.add(deviation.place() + " has " + remedy.reason());
            }
            return more;
        }

        boolean isIn(String root) {
            return on.equals(root) || on.startsWith(root + "/");
        }

        ProposedRule rule(String remark) {
            Map<String, String> whole = new LinkedHashMap<>(values);
            whole.put("because", String.join("; ", reasons));
            return new ProposedRule(on, whole, remark);
        }
    }
}
