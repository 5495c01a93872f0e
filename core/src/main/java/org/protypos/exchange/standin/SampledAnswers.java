package org.protypos.exchange.standin;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.MessageValues;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.CallRefusedException;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.wire.WirePart;

/** Answers with samples, in which what came in the request comes back, or with what somebody has said is to be answered. */
final class SampledAnswers implements Responder {
    private static final Attachment SAMPLE = Attachment.of("a sample".getBytes(StandardCharsets.UTF_8));

    private final ContractCheck check;
    private final Samples samples;
    private volatile Answers answers;
    private final Map<CalledOperation, Sampled> sampled = new IdentityHashMap<>();
    private final Map<PlannedAnswer, AtomicInteger> turns = new ConcurrentHashMap<>();

    SampledAnswers(Contract contract, ContractCheck check, Answers answers) {
        this.check = check;
        this.samples = new Samples(contract, check.vocabulary(), true);
        this.answers = answers;
    }

    /** Answers otherwise from now on. */
    void tell(Answers other) {
        answers = other;
    }

    @Override
    public Outcome respond(CalledOperation called, MessageElement request) {
        Outcome outcome;
        Duration delay;
        synchronized (check) {
            List<MessageElement> given = request == null ? List.of() : EnvelopeParts.body(request, called.request());
            PlannedAnswer planned = planned(called, given);
            delay = planned == null ? Duration.ZERO : planned.delay();
            outcome = outcome(called, given, planned);
        }
        wait(delay);
        return outcome;
    }

    private Outcome outcome(CalledOperation called, List<MessageElement> given, PlannedAnswer planned) {
        Breakage broken = planned == null ? null : planned.broken();
        if (planned != null && planned.fault() != null) {
            return fault(called, planned, given).broken(broken);
        }
        PlayedMessage answer = called.answer() == null
                ? null
                : planned == null || planned.answer() == null ? answer(called, given) : told(called, planned, given);
        return Outcome.of(answer).broken(broken);
    }

    private static void wait(Duration delay) {
        try {
            Thread.sleep(delay.toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** The first answer that fits the request; of several to be given in turn the next one. */
    private PlannedAnswer planned(CalledOperation called, List<MessageElement> given) {
        Template request = new Template(given);
        for (PlannedAnswer one : answers.of(called)) {
            if (request.fits(one.when(), one.secret())) {
                if (one.each().isEmpty()) {
                    return one;
                }
                int turn =
                        turns.computeIfAbsent(one, any -> new AtomicInteger()).getAndIncrement();
                return one.each().get(Math.min(turn, one.each().size() - 1));
            }
        }
        return null;
    }

    /** The answer of a file: its values over those of a sample. */
    private PlayedMessage told(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
        RequestBuilder builder = new RequestBuilder(called.carried(), check.vocabulary(), new Findings());
        JsonValue values = planned.whole()
                ? planned.answer()
                : Template.over(
                        new MessageValues(called.carried(), check)
                                .answer(sampled(called).tree(), Map.of()),
                        new Template(given).filled(planned.answer()));
        PlayedMessage answer = sent(called, builder.answer(values));
        answer.attached().putAll(builder.attached(values, called.answer()));
        return answer;
    }

    private Outcome fault(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
        if (planned.fault().isEmpty()) {
            return Outcome.fault(planned.reason(), List.of(), planned.blame());
        }
        QName name = faultElement(called, planned.fault());
        MessageElement detail = MessageReader.read("fault", samples.element(name));
        JsonValue base =
                JsonMessageWriter.value(check.vocabulary(), check.check(detail).types(), detail);
        JsonValue values = planned.whole()
                ? planned.answer()
                : planned.answer() == null ? base : Template.over(base, new Template(given).filled(planned.answer()));
        MessageElement built = new JsonMessageReader(check.vocabulary(), new Findings())
                .element(
                        values,
                        name,
                        check.vocabulary().typeOf(check.vocabulary().element(name)),
                        "");
        RequestBuilder builder = new RequestBuilder(called.carried(), check.vocabulary(), new Findings());
        XmlElement<?> element = PlayedMessage.element(builder.envelope(List.of(built), List.of())
                .children()
                .get(0)
                .children()
                .get(0));
        return Outcome.fault(planned.reason(), List.of(element), planned.blame());
    }

    /** The element of a fault, by its name or by that of the fault. */
    private QName faultElement(CalledOperation called, String wanted) {
        WirePart detail = called.carried().detail(wanted);
        if (detail != null) {
            return detail.element();
        }
        throw CallRefusedException.notImplemented("the contract declares no fault " + wanted + " for "
                + called.operation().name());
    }

    /**
     * The sample of an answer.
     *
     * @param text the whole envelope
     * @param answer the same, ready to be sent
     * @param leaves the local names of its elements
     */
    private record Sampled(String text, PlayedMessage answer, Set<String> leaves) {
        MessageElement tree() {
            return MessageReader.read("answer", text);
        }
    }

    private Sampled sampled(CalledOperation called) {
        return sampled.computeIfAbsent(called, any -> {
            String text = samples.message(called.answer());
            Sampled bare = new Sampled(text, null, Set.of());
            MessageElement tree = bare.tree();
            PlayedMessage answer = sent(called, tree);
            called.answer().attachments().forEach(part -> answer.attached()
                    .put(part.name(), part.mediaType().isEmpty() ? SAMPLE.of("text/plain") : SAMPLE));
            return new Sampled(text, answer, Echo.names(tree));
        });
    }

    private PlayedMessage answer(CalledOperation called, List<MessageElement> given) {
        Echo echo = new Echo(given);
        Sampled sample = sampled(called);
        if (!echo.fits(sample.leaves())) {
            return sample.answer();
        }
        MessageElement message = sample.tree();
        OperationCheck operation = new OperationCheck(called.carried(), check);
        echo.into(
                EnvelopeParts.body(message, called.answer()),
                () -> operation.answer(message).deviations().isEmpty());
        PlayedMessage answer = sent(called, message);
        answer.attached().putAll(sample.answer().attached());
        return answer;
    }

    private PlayedMessage sent(CalledOperation called, MessageElement message) {
        return PlayedMessage.of(called, called.answer(), check, message);
    }
}
