package org.protypos.exchange.standin;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.MessageValues;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonValue;
import org.protypos.message.model.TypeModel;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.schema.ElementDeclaration;
import org.protypos.wire.WirePart;

/** Says of the answers in a file what is wrong with them before anybody asks: against the contract, each at its place. */
final class AnswerJudge {
    private final ContractCheck check;
    private final Samples samples;
    private final List<CalledOperation> operations;
    private final Findings findings;

    AnswerJudge(Contract contract, Findings findings) {
        this.check = new ContractCheck(contract);
        this.samples = new Samples(contract, check.vocabulary(), true);
        this.operations = CalledOperation.of(check.wire());
        this.findings = findings;
    }

    /** Judges what is planned for an operation; of several of its name it must be right for one. */
    void judge(String operation, PlannedAnswer planned) {
        Findings wrong = null;
        for (CalledOperation called : operations) {
            if (called.operation().name().equals(operation) || called.key().equals(operation)) {
                Findings of = new Findings();
                judge(called, planned, of);
                wrong = wrong == null || wrong.sorted().size() > of.sorted().size() ? of : wrong;
            }
        }
        if (wrong != null) {
            findings.addAll(wrong.sorted());
        }
    }

    private void judge(CalledOperation called, PlannedAnswer planned, Findings of) {
        List<String> paths = new ArrayList<>(planned.when().keySet());
        paths.addAll(planned.secret());
        paths.forEach(path -> path(called, path, planned, of));
        planned.each().forEach(one -> judge(called, one, of));
        if (planned.fault() != null) {
            fault(called, planned, of);
        } else if (planned.answer() != null) {
            answer(called, planned, of);
        }
    }

    private void answer(CalledOperation called, PlannedAnswer planned, Findings of) {
        if (called.answer() == null) {
            of.error(
                    "answers",
                    planned.place(),
                    called.operation().name() + " is not answered",
                    "leave the answer out, or say a fault");
            return;
        }
        MessageElement sample = MessageReader.read("answer", samples.message(called.answer()));
        JsonValue values = planned.whole()
                ? planned.answer()
                : Template.over(new MessageValues(called.carried(), check).answer(sample, Map.of()), planned.answer());
        Findings built = new Findings();
        RequestBuilder builder = new RequestBuilder(called.carried(), check.vocabulary(), built);
        MessageElement made = builder.answer(values);
        builder.attached(values, called.answer());
        of.addAll(built.sorted());
        if (!built.hasErrors() && !isFilledLater(planned.answer())) {
            MessageElement again = MessageReader.read("answer", MessageText.of(made));
            deviations(new OperationCheck(called.carried(), check).answer(again).deviations(), planned, of);
        }
    }

    /** What stands in the request is put in when it comes. */
    private static boolean isFilledLater(JsonValue value) {
        if (value instanceof JsonValue.Members members) {
            return members.members().values().stream().anyMatch(AnswerJudge::isFilledLater);
        }
        if (value instanceof JsonValue.Items items) {
            return items.items().stream().anyMatch(AnswerJudge::isFilledLater);
        }
        return value instanceof JsonValue.Text text && text.text().contains("${");
    }

    private void deviations(List<Deviation> deviations, PlannedAnswer planned, Findings of) {
        for (Deviation deviation : deviations) {
            // Who wants to see what a client makes of such an answer gets it all the same.
            of.warning(
                    "answers",
                    planned.place(),
                    deviation.path() + ": " + deviation.came(),
                    deviation.expected().isEmpty() ? "mend it" : "expected is " + deviation.expected());
        }
    }

    private void fault(CalledOperation called, PlannedAnswer planned, Findings of) {
        if (planned.fault().isEmpty()) {
            return;
        }
        WirePart detail = called.carried().detail(planned.fault());
        if (detail != null) {
            detail(detail, planned, of);
            return;
        }
        TreeSet<String> known = new TreeSet<>();
        called.carried().faults().forEach(fault -> fault.details()
                .forEach(part -> known.add(part.element().getLocalPart())));
        of.error(
                "answers",
                planned.place(),
                "the contract declares no fault " + planned.fault() + " for "
                        + called.operation().name(),
                known.isEmpty()
                        ? "leave fault out: a reason alone is a fault"
                        : NearestName.of(planned.fault(), known)
                                .map(near -> "perhaps " + near)
                                .orElse("there is " + String.join(", ", known)));
    }

    private void detail(WirePart part, PlannedAnswer planned, Findings of) {
        if (planned.answer() instanceof JsonValue.Members) {
            new JsonMessageReader(check.vocabulary(), of)
                    .element(
                            planned.answer(), part.element(), check.vocabulary().type(part.type()), "");
        }
    }

    /** Whether a request can have anything at a path. */
    private void path(CalledOperation called, String path, PlannedAnswer planned, Findings of) {
        List<WirePart> parts = called.request().parts();
        Map<String, TypeModel> types = check.vocabulary().types(parts);
        TypeModel at = called.request().isWrapped() || parts.isEmpty()
                ? null
                : types.get(parts.get(0).name());
        boolean first = at == null;
        for (String step : path.split("\\.")) {
            String name = step.replaceFirst("\\[[0-9]+\\]$", "");
            TreeSet<String> known = new TreeSet<>();
            TypeModel next = first ? types.get(name) : next(at, name, known);
            if (first) {
                known.addAll(types.keySet());
            }
            if (next == null && !(at != null && isOpen(at, name))) {
                of.error(
                        "answers",
                        planned.place(),
                        "no request has anything at " + path + ": there is no " + name,
                        NearestName.of(name, known)
                                .map(near -> "perhaps " + near)
                                .orElse(known.isEmpty() ? "leave it out" : "there is " + String.join(", ", known)));
            }
            if (next == null) {
                return;
            }
            at = next;
            first = false;
        }
    }

    private TypeModel next(TypeModel at, String name, TreeSet<String> known) {
        if (at.isAnything()) {
            return null;
        }
        if (name.startsWith("@")) {
            at.attributes().keySet().forEach(attribute -> known.add("@" + attribute.getLocalPart()));
            return known.contains(name) ? at : null;
        }
        TypeModel found = null;
        for (Map.Entry<QName, ElementDeclaration> entry :
                check.vocabulary().elements(at).entrySet()) {
            known.add(entry.getKey().getLocalPart());
            if (entry.getKey().getLocalPart().equals(name)) {
                found = check.vocabulary().typeOf(entry.getValue());
            }
        }
        return found;
    }

    /** Whether other types may stand for a type, or other elements in it, of which nothing is known here. */
    private boolean isOpen(TypeModel at, String name) {
        return at.isAnything()
                || at.isAbstract()
                || name.startsWith("@") && !at.wildcards().isEmpty()
                || check.vocabulary().isOpen(at);
    }
}
