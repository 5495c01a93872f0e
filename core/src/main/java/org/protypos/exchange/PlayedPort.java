package org.protypos.exchange;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.contract.Publication;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.soap.SoapEndpoint;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.soap.UndeclaredFaultException;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;

/** A port that a stand-in plays. */
final class PlayedPort extends SoapEndpoint {
    private final Breaker breaker = new Breaker();
    private final List<CalledOperation> operations;
    private final Contract contract;
    private final ContractCheck check;
    private final Samples samples;
    private final Answers answers;
    private final Relay relay;
    private final Consumer<StandIn.Seen> seen;
    private final Map<CalledOperation, Sampled> sampled = new IdentityHashMap<>();
    private final Map<PlannedAnswer, AtomicInteger> turns = new ConcurrentHashMap<>();

    PlayedPort(
            List<CalledOperation> operations,
            ContractCheck check,
            Answers answers,
            Relay relay,
            Consumer<StandIn.Seen> seen) {
        this.operations = operations;
        this.contract = operations.get(0).contract();
        this.check = check;
        this.samples = new Samples(contract, check.vocabulary(), true);
        this.answers = answers;
        this.relay = relay;
        this.seen = seen;
    }

    /** This port, whose answers are broken where they are to be. */
    SoapEndpoint breaking() {
        return guarded(breaker);
    }

    @Override
    protected XmlTypes types() {
        return XmlTypes.NONE;
    }

    @Override
    protected ContractDocuments documents() {
        return ContractDocuments.of(Publication.of(contract).stream()
                .map(text -> new String[] {text})
                .toArray(String[][]::new));
    }

    @Override
    protected String portType() {
        return operations.get(0).portType().name().toString();
    }

    @Override
    protected boolean isEncoded() {
        return operations.stream().anyMatch(called -> isEncoded(called.bound().input()));
    }

    private static boolean isEncoded(BoundOperation.Carrier carrier) {
        return carrier != null && carrier.encoded();
    }

    /** By what stands first in the body, then by the action. */
    @Override
    protected SoapMessage input(String namespace, String name, String action) {
        List<CalledOperation> fitting = operations.stream()
                .filter(called -> first(called).equals(new QName(namespace, name)))
                .toList();
        return fitting.stream()
                .filter(called -> called.bound().soapAction().equals(action))
                .findFirst()
                .or(() -> fitting.stream().findFirst())
                .or(() -> operations.stream()
                        .filter(called ->
                                !action.isEmpty() && called.bound().soapAction().equals(action))
                        .findFirst())
                .map(called ->
                        new PlayedMessage(called, isEncoded(called.bound().input())))
                .orElse(null);
    }

    private QName first(CalledOperation called) {
        BoundOperation bound = called.bound();
        if (bound.rpc()) {
            return new QName(
                    bound.input() == null ? "" : bound.input().namespace(),
                    called.operation().name());
        }
        List<Message.Part> parts = BoundOperation.bodyParts(
                contract.wsdl().messages().get(called.operation().input().message()), bound.input());
        return parts.isEmpty()
                ? new QName("")
                : parts.get(0).element() != null
                        ? parts.get(0).element()
                        : new QName(parts.get(0).name());
    }

    /**
     * What is answered, when and how.
     *
     * @param message the answer; null when there is none
     * @param fault the fault to answer with; null when it is none
     * @param planned what the file of answers says; null when it says nothing
     */
    private record Outcome(SoapMessage message, DeclaredFault fault, PlannedAnswer planned) {}

    @Override
    protected SoapMessage perform(SoapMessage came) throws DeclaredFault {
        if (relay != null) {
            return passed((PlayedMessage) came);
        }
        Outcome outcome;
        // What is known of types is gathered as it is needed, by one at a time.
        synchronized (check) {
            outcome = outcome((PlayedMessage) came);
        }
        if (outcome.planned() != null) {
            wait(outcome.planned().delay());
            breaker.next(outcome.planned().broken());
        }
        if (outcome.fault() != null) {
            throw outcome.fault();
        }
        return outcome.message();
    }

    private Outcome outcome(PlayedMessage request) {
        CalledOperation called = request.called();
        List<MessageElement> given = PlayedMessage.trees(request.body());
        List<Deviation> deviations = deviations(request, given);
        seen.accept(new StandIn.Seen(called.operation().name(), deviations, List.of(), null));
        if (!deviations.isEmpty()) {
            Deviation first = deviations.get(0);
            throw new SecurityException(first.path() + ": " + first.came()
                    + (first.expected().isEmpty() ? "" : "; expected is " + first.expected()));
        }
        PlannedAnswer planned = planned(called, given);
        if (planned != null && planned.fault() != null) {
            return new Outcome(null, fault(called, planned, given), planned);
        }
        SoapMessage answer = called.operation().output() == null
                ? null
                : planned == null || planned.answer() == null ? answer(called, given) : told(called, planned, given);
        return new Outcome(answer, null, planned);
    }

    private List<Deviation> deviations(PlayedMessage request, List<MessageElement> given) {
        List<Deviation> deviations = new ArrayList<>(
                new OperationCheck(request.called(), check).request(given).deviations());
        request.headers()
                .forEach(block ->
                        deviations.addAll(check.check(PlayedMessage.tree(block)).deviations()));
        return List.copyOf(deviations);
    }

    /** What the real service answers, whatever the request; both are checked. */
    private SoapMessage passed(PlayedMessage request) throws DeclaredFault {
        CalledOperation called = request.called();
        List<MessageElement> given = PlayedMessage.trees(request.body());
        List<MessageElement> blocks = PlayedMessage.trees(request.headers());
        List<Deviation> deviations;
        synchronized (check) {
            deviations = deviations(request, given);
        }
        // The envelope takes the elements in, and the recording still needs those of the request.
        String envelope =
                MessageText.of(new RequestBuilder(called, check.vocabulary(), new Findings()).envelope(given, blocks));
        Caller.Answer answer = new Caller(called, relay.with()).call(envelope);
        if (answer.failure() != null) {
            String why = String.valueOf(answer.failure().getMessage());
            seen.accept(new StandIn.Seen(called.operation().name(), deviations, List.of(), why));
            throw fault(why, List.of());
        }
        MessageElement root = answer.text() == null || answer.text().isBlank()
                ? null
                : MessageReader.read("answer", answer.text().getBytes(StandardCharsets.UTF_8), new Findings());
        CheckedMessage checked = null;
        if (root != null) {
            synchronized (check) {
                checked = new OperationCheck(called, check).answer(root);
                record(called, given, root, checked, answer.fault());
            }
        }
        seen.accept(new StandIn.Seen(
                called.operation().name(), deviations, checked == null ? List.of() : checked.deviations(), null));
        if (answer.fault() != null) {
            throw fault(
                    answer.fault().fault().reason(),
                    EnvelopeParts.detail(root).stream()
                            .map(PlayedMessage::element)
                            .toList());
        }
        return root == null ? null : sent(called, root);
    }

    private void record(
            CalledOperation called,
            List<MessageElement> given,
            MessageElement root,
            CheckedMessage checked,
            UndeclaredFaultException fault) {
        List<MessageElement> told = fault == null ? EnvelopeParts.inside(root, "Body") : EnvelopeParts.detail(root);
        if (relay.recording() == null || told.size() != 1) {
            return;
        }
        JsonValue values = JsonMessageWriter.value(check.vocabulary(), checked.types(), told.get(0));
        try {
            relay.recording()
                    .keep(
                            called,
                            given,
                            values,
                            fault == null ? null : told.get(0).name().getLocalPart(),
                            fault == null ? null : fault.fault().reason());
        } catch (IOException e) {
            throw new UnsupportedOperationException("the answer cannot be recorded: " + e.getMessage(), e);
        }
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
        for (PlannedAnswer one : answers.of(called.operation().name())) {
            if (request.fits(one.when())) {
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
        MessageElement sample = sample(called);
        Findings findings = new Findings();
        RequestBuilder builder = new RequestBuilder(called, check.vocabulary(), findings);
        JsonValue base = planned.whole() ? null : json(called, sample);
        JsonValue values = planned.whole() ? planned.answer() : new Template(given).filled(planned.answer());
        MessageElement envelope = builder.answer(base == null ? values : Template.over(base, values));
        return sent(called, envelope);
    }

    /** What stands in the body of an answer, as values of its one element; null when there are several. */
    private JsonValue json(CalledOperation called, MessageElement envelope) {
        CheckedMessage checked = new OperationCheck(called, check).answer(envelope);
        List<MessageElement> body = EnvelopeParts.inside(envelope, "Body");
        if (body.size() != 1) {
            return null;
        }
        return JsonMessageWriter.value(check.vocabulary(), checked.types(), body.get(0));
    }

    private DeclaredFault fault(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
        QName name = faultElement(called, planned.fault());
        MessageElement detail =
                MessageReader.read("fault", samples.element(name).getBytes(StandardCharsets.UTF_8), new Findings());
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
        RequestBuilder builder = new RequestBuilder(called, check.vocabulary(), new Findings());
        XmlElement<?> element = PlayedMessage.element(builder.envelope(List.of(built), List.of())
                .children()
                .get(0)
                .children()
                .get(0));
        return fault(planned.reason(), List.of(element));
    }

    /** The element of a fault, by its name or by that of the fault. */
    private QName faultElement(CalledOperation called, String wanted) {
        for (Operation.Use fault : called.operation().faults()) {
            for (Message.Part part :
                    contract.wsdl().messages().get(fault.message()).parts()) {
                boolean meant = part.element() != null
                        && (part.element().getLocalPart().equals(wanted) || wanted.equals(fault.name()));
                if (meant) {
                    return part.element();
                }
            }
        }
        throw new UnsupportedOperationException("the contract declares no fault " + wanted + " for "
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
            return MessageReader.read("answer", text.getBytes(StandardCharsets.UTF_8), new Findings());
        }
    }

    private Sampled sampled(CalledOperation called) {
        return sampled.computeIfAbsent(called, any -> {
            String text = samples.message(called.binding(), called.operation(), true);
            Sampled bare = new Sampled(text, null, Set.of());
            MessageElement tree = bare.tree();
            return new Sampled(text, sent(called, tree), Echo.names(tree));
        });
    }

    private MessageElement sample(CalledOperation called) {
        return sampled(called).tree();
    }

    private PlayedMessage answer(CalledOperation called, List<MessageElement> given) {
        Echo echo = new Echo(given);
        Sampled sample = sampled(called);
        if (!echo.fits(sample.leaves())) {
            return sample.answer();
        }
        MessageElement envelope = sample.tree();
        OperationCheck operation = new OperationCheck(called, check);
        echo.into(
                EnvelopeParts.inside(envelope, "Body"),
                () -> operation.answer(envelope).deviations().isEmpty());
        return sent(called, envelope);
    }

    /** An envelope as it is sent. */
    private static PlayedMessage sent(CalledOperation called, MessageElement envelope) {
        PlayedMessage answer =
                new PlayedMessage(called, isEncoded(called.bound().output()));
        EnvelopeParts.inside(envelope, "Header")
                .forEach(block -> answer.headers().add(PlayedMessage.element(block)));
        EnvelopeParts.inside(envelope, "Body").forEach(part -> answer.body().add(PlayedMessage.element(part)));
        return answer;
    }
}
