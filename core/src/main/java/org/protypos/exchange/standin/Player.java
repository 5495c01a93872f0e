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
import org.protypos.contract.Publication;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.MessageValues;
import org.protypos.exchange.call.OperationCheck;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.CallRefusedException;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.wire.Wire;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/** Plays the operations of a port, however their messages come: checks what came, and decides what is answered. */
final class Player {
    private static final Attachment SAMPLE = Attachment.of("a sample".getBytes(StandardCharsets.UTF_8));

    private final Contract contract;
    private final ContractCheck check;
    private final Samples samples;
    private volatile Answers answers;
    private final Map<CalledOperation, Sampled> sampled = new IdentityHashMap<>();
    private final Map<PlannedAnswer, AtomicInteger> turns = new ConcurrentHashMap<>();

    /**
     * Prepares to play.
     */
    Player(Contract contract, ContractCheck check, Answers answers) {
        this.contract = contract;
        this.check = check;
        this.samples = new Samples(contract, check.vocabulary(), true);
        this.answers = answers;
    }

    /** Answers otherwise from now on. */
    void tell(Answers other) {
        answers = other;
    }

    /** An empty request of an operation. */
    PlayedMessage request(CalledOperation called) {
        return new PlayedMessage(called, called.request());
    }

    /** How the messages of the contract look. */
    Wire wire() {
        return check.wire();
    }

    /** The documents of the contract. */
    ContractDocuments documents() {
        return ContractDocuments.of(Publication.byPort(contract).stream()
                .map(text -> new String[] {text})
                .toArray(String[][]::new));
    }

    /**
     * What is answered.
     *
     * @param message the answer; null when there is none
     * @param fault the fault to answer with; null when it is none
     * @param refusal why the request is refused; null when it is not
     * @param broken how the answer is to be broken, or null
     * @param deviations where the request is not what the contract says
     */
    record Outcome(
            PlayedMessage message,
            DeclaredFault fault,
            String refusal,
            PlannedAnswer.Broken broken,
            List<Deviation> deviations) {
        static Outcome refused(String why, List<Deviation> deviations) {
            return new Outcome(null, null, why, null, deviations);
        }

        /**
         * The message to answer with, or null.
         *
         * @throws CallRefusedException when the request is refused
         * @throws DeclaredFault when a fault is answered
         */
        PlayedMessage answer() throws DeclaredFault {
            if (refusal != null) {
                throw new CallRefusedException(refusal);
            }
            if (fault != null) {
                throw fault;
            }
            return message;
        }
    }

    /** A request as a tree that knows its places. */
    MessageElement tree(PlayedMessage request, byte[] message, String charset, String text) {
        synchronized (check) {
            return request.tree(message, charset, text, check.vocabulary());
        }
    }

    /**
     * Decides what to answer to a request, and waits as long as that is to take.
     *
     * @param request the whole message; without SOAP the only element of it, or null when there is none
     */
    Outcome outcome(CalledOperation called, MessageElement request) {
        try {
            return played(called, request);
        } catch (RuntimeException e) {
            // Whatever it is, whoever calls is to hear of it, and the others go on.
            DeclaredFault fault = fault("the stand-in has no answer: " + e.getMessage(), List.of());
            return new Outcome(null, fault, null, null, List.of());
        }
    }

    private Outcome played(CalledOperation called, MessageElement request) {
        Outcome outcome;
        Duration delay;
        // What is known of types is gathered as it is needed, by one at a time.
        synchronized (check) {
            List<MessageElement> given = request == null ? List.of() : EnvelopeParts.body(request, called.request());
            List<Deviation> deviations = request == null
                    ? List.of()
                    : new OperationCheck(called.carried(), check)
                            .request(request)
                            .deviations();
            PlannedAnswer planned = deviations.isEmpty() ? planned(called, given) : null;
            delay = planned == null ? Duration.ZERO : planned.delay();
            outcome = deviations.isEmpty()
                    ? outcome(called, given, planned)
                    : Outcome.refused(inWords(called, deviations.get(0)), deviations);
        }
        wait(delay);
        return outcome;
    }

    private static String inWords(CalledOperation called, Deviation deviation) {
        String expected = deviation.expected().isEmpty() ? "" : "; expected is " + deviation.expected();
        WireMessage.Form form = called.request().form();
        if (form != WireMessage.Form.FIELDS && form != WireMessage.Form.REPLACED) {
            return deviation.path() + ": " + deviation.came() + expected;
        }
        // Who has sent fields has seen no elements.
        String field = deviation.path().substring(deviation.path().lastIndexOf('/') + 1);
        return switch (deviation.code()) {
            case "missing-element" -> "the field " + deviation.expected().replaceAll("[<>]", "") + " is missing";
            case "unexpected-element" -> "the field " + field + " is not expected, or is there more than once";
            default -> "the field " + field + ": " + deviation.came() + expected;
        };
    }

    private Outcome outcome(CalledOperation called, List<MessageElement> given, PlannedAnswer planned) {
        PlannedAnswer.Broken broken = planned == null ? null : planned.broken();
        if (planned != null && planned.fault() != null) {
            return new Outcome(null, fault(called, planned, given), null, broken, List.of());
        }
        PlayedMessage answer = called.answer() == null
                ? null
                : planned == null || planned.answer() == null ? answer(called, given) : told(called, planned, given);
        return new Outcome(answer, null, null, broken, List.of());
    }

    private static DeclaredFault fault(String reason, List<XmlElement<?>> details) {
        return new DeclaredFault(reason) {
            private static final long serialVersionUID = 1L;

            @Override
            protected void writeDetail(XmlOutput out) {
                details.forEach(out::element);
            }
        };
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

    private DeclaredFault fault(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
        if (planned.fault().isEmpty()) {
            return fault(planned.reason(), List.of());
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
        return fault(planned.reason(), List.of(element));
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
