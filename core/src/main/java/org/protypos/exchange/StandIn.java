package org.protypos.exchange;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
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
import org.protypos.runtime.soap.SoapGuard;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.soap.SoapServer;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.Service;

/**
 * A local service that plays a contract: it takes what the contract allows, says of everything else what is wrong, and
 * answers with samples in which what came in the request comes back where the answer has the like.
 */
public final class StandIn implements AutoCloseable {
    private final Contract contract;
    private final Answers answers;
    private final Consumer<Seen> seen;
    private final SoapServer server;
    private final Map<PlannedAnswer, AtomicInteger> turns = new ConcurrentHashMap<>();
    private final Map<Service.Port, String> addresses = new LinkedHashMap<>();

    /**
     * A request that was answered.
     *
     * @param operation the operation
     * @param deviations where the request is not what the contract says
     */
    public record Seen(String operation, List<Deviation> deviations) {}

    private StandIn(Contract contract, Answers answers, SoapServer server, Consumer<Seen> seen) {
        this.answers = answers;
        this.contract = contract;
        this.server = server;
        this.seen = seen;
    }

    /**
     * Begins to serve.
     *
     * @param contract a sound contract
     * @param port the port to listen at on this machine, 0 for any
     * @param answers what to answer otherwise than with samples
     * @param seen told of each request
     * @throws IOException when the port cannot be had
     */
    public static StandIn serve(Contract contract, InetSocketAddress port, Answers answers, Consumer<Seen> seen)
            throws IOException {
        StandIn standIn = new StandIn(contract, answers, SoapServer.listen(port), seen);
        standIn.publish(port.getHostString());
        return standIn;
    }

    /** Where each port that speaks SOAP is served, in the order of the contract. */
    public Map<Service.Port, String> addresses() {
        return addresses;
    }

    @Override
    public void close() {
        server.close();
    }

    private void publish(String host) {
        Map<Service.Port, List<CalledOperation>> byPort = new LinkedHashMap<>();
        for (CalledOperation called : CalledOperation.of(contract)) {
            byPort.computeIfAbsent(called.port(), any -> new ArrayList<>()).add(called);
        }
        Set<String> paths = new LinkedHashSet<>();
        byPort.forEach((port, operations) -> {
            String wanted = path(port.address());
            String path = wanted;
            for (int number = 2; !paths.add(path); number++) {
                path = wanted + "-" + number;
            }
            PlayedPort played = new PlayedPort(operations);
            server.publish(path, played.guarded(played.breaker));
            addresses.put(port, "http://" + host + ":" + server.port() + path);
        });
    }

    private static String path(String address) {
        try {
            String path = URI.create(address).getPath();
            return path == null || path.isEmpty() || path.equals("/") ? "/service" : path.replaceFirst("/+$", "");
        } catch (IllegalArgumentException e) {
            return "/service";
        }
    }

    /** A message as the elements of its body and its header. */
    private static final class Tree extends SoapMessage {
        private final CalledOperation called;
        private final boolean encoded;
        private final List<XmlElement<?>> body = new ArrayList<>();
        private final List<XmlElement<?>> headers = new ArrayList<>();

        Tree(CalledOperation called, boolean encoded) {
            this.called = called;
            this.encoded = encoded;
        }

        @Override
        protected boolean isEncoded() {
            return encoded;
        }

        @Override
        protected boolean hasHeaders() {
            return !headers.isEmpty();
        }

        @Override
        protected void writeHeaders(XmlOutput out) {
            headers.forEach(out::element);
        }

        @Override
        protected boolean takeHeader(XmlElement<?> block) {
            BoundOperation.Carrier carrier = called.bound().input();
            boolean known = carrier != null
                    && carrier.headers().stream().anyMatch(header -> {
                        Message.Part part = called.contract()
                                .wsdl()
                                .messages()
                                .get(header.message())
                                .part(header.part());
                        QName name =
                                part.element() != null ? part.element() : new QName(header.namespace(), part.name());
                        return name.equals(block.name());
                    });
            if (known) {
                headers.add(block);
            }
            return known;
        }

        @Override
        protected void readBody(XmlInput in) {
            while (in.atElement()) {
                body.add(in.element());
            }
        }

        @Override
        protected void writeBody(XmlOutput out) {
            body.forEach(out::element);
        }
    }

    private static MessageElement tree(XmlElement<?> element) {
        return MessageReader.read("request", XmlTypes.NONE.write(element), new Findings());
    }

    /** An element that stands for itself needs the prefixes that are declared around it. */
    private static XmlElement<?> element(MessageElement tree) {
        for (MessageElement around = tree.parent(); around != null; around = around.parent()) {
            around.prefixes().forEach(tree.prefixes()::putIfAbsent);
        }
        return XmlTypes.NONE.read(new ByteArrayInputStream(MessageText.of(tree).getBytes(StandardCharsets.UTF_8)));
    }

    /** Breaks answers that are to be broken, on their way out. */
    private static final class Breaker implements SoapGuard {
        private final ThreadLocal<PlannedAnswer.Broken> next = new ThreadLocal<>();

        void next(PlannedAnswer.Broken broken) {
            next.set(broken);
        }

        @Override
        public void request(byte[] envelope, String charset) {
            next.remove();
        }

        @Override
        public byte[] answer(byte[] envelope) {
            PlannedAnswer.Broken broken = next.get();
            next.remove();
            if (broken == null) {
                return envelope;
            }
            return switch (broken) {
                case TRUNCATED -> Arrays.copyOf(envelope, envelope.length / 2);
                case HTML -> "<html><body>Please log in.</body></html>".getBytes(StandardCharsets.UTF_8);
                case EMPTY -> new byte[0];
            };
        }
    }

    /** One port. */
    private final class PlayedPort extends SoapEndpoint {
        private final Breaker breaker = new Breaker();
        private final List<CalledOperation> operations;
        private final ContractCheck check = new ContractCheck(contract);
        private final Samples samples = new Samples(contract, check.vocabulary(), true);

        PlayedPort(List<CalledOperation> operations) {
            this.operations = operations;
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
            return operations.stream()
                    .anyMatch(called -> isEncoded(called.bound().input()));
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
                            .filter(called -> !action.isEmpty()
                                    && called.bound().soapAction().equals(action))
                            .findFirst())
                    .map(called -> new Tree(called, isEncoded(called.bound().input())))
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

        @Override
        protected SoapMessage perform(SoapMessage came) throws DeclaredFault {
            Tree request = (Tree) came;
            CalledOperation called = request.called;
            List<MessageElement> given =
                    request.body.stream().map(StandIn::tree).toList();
            List<Deviation> deviations = new ArrayList<>(
                    new OperationCheck(called, check).request(given).deviations());
            request.headers.forEach(
                    block -> deviations.addAll(check.check(tree(block)).deviations()));
            seen.accept(new Seen(called.operation().name(), List.copyOf(deviations)));
            if (!deviations.isEmpty()) {
                Deviation first = deviations.get(0);
                throw new SecurityException(first.path() + ": " + first.came()
                        + (first.expected().isEmpty() ? "" : "; expected is " + first.expected()));
            }
            PlannedAnswer planned = planned(called, given);
            if (planned == null) {
                return called.operation().output() == null ? null : answer(called, given);
            }
            wait(planned.delay());
            breaker.next(planned.broken());
            if (planned.fault() != null) {
                throw fault(called, planned, given);
            }
            return called.operation().output() == null
                    ? null
                    : planned.answer() == null ? answer(called, given) : told(called, planned, given);
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
                    int turn = turns.computeIfAbsent(one, any -> new AtomicInteger())
                            .getAndIncrement();
                    return one.each().get(Math.min(turn, one.each().size() - 1));
                }
            }
            return null;
        }

        /** The answer of a file: its values over those of a sample. */
        private Tree told(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
            MessageElement sample = sample(called);
            Findings findings = new Findings();
            RequestBuilder builder = new RequestBuilder(called, check.vocabulary(), findings);
            JsonValue base = json(called, sample);
            JsonValue values = new Template(given).filled(planned.answer());
            MessageElement envelope = builder.answer(base == null ? values : Template.over(base, values));
            Tree answer = new Tree(called, isEncoded(called.bound().output()));
            for (MessageElement section : envelope.children()) {
                boolean header = section.name().getLocalPart().equals("Header");
                section.children().forEach(part -> (header ? answer.headers : answer.body).add(element(part)));
            }
            return answer;
        }

        /** What stands in the body of an answer, as values of its one element; null when there are several. */
        private JsonValue json(CalledOperation called, MessageElement envelope) {
            CheckedMessage checked = new OperationCheck(called, check).answer(envelope);
            List<MessageElement> body = envelope.children().stream()
                    .filter(section -> section.name().getLocalPart().equals("Body"))
                    .flatMap(section -> section.children().stream())
                    .toList();
            if (body.size() != 1) {
                return null;
            }
            return JsonMessageWriter.value(check.vocabulary(), checked.types(), body.get(0));
        }

        private DeclaredFault fault(CalledOperation called, PlannedAnswer planned, List<MessageElement> given) {
            QName name = faultElement(called, planned.fault());
            MessageElement detail =
                    MessageReader.read("fault", samples.element(name).getBytes(StandardCharsets.UTF_8), new Findings());
            JsonValue base = JsonMessageWriter.value(
                    check.vocabulary(), check.check(detail).types(), detail);
            JsonValue values =
                    planned.answer() == null ? base : Template.over(base, new Template(given).filled(planned.answer()));
            MessageElement built = new JsonMessageReader(check.vocabulary(), new Findings())
                    .element(
                            values,
                            name,
                            check.vocabulary().typeOf(check.vocabulary().element(name)),
                            "");
            RequestBuilder builder = new RequestBuilder(called, check.vocabulary(), new Findings());
            XmlElement<?> element = element(builder.envelope(List.of(built), List.of())
                    .children()
                    .get(0)
                    .children()
                    .get(0));
            return new DeclaredFault(planned.reason()) {
                private static final long serialVersionUID = 1L;

                @Override
                protected void writeDetail(XmlOutput out) {
                    out.element(element);
                }
            };
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

        private MessageElement sample(CalledOperation called) {
            String sample = samples.message(called.binding(), called.operation(), true);
            return MessageReader.read("answer", sample.getBytes(StandardCharsets.UTF_8), new Findings());
        }

        private Tree answer(CalledOperation called, List<MessageElement> given) {
            Tree answer = new Tree(called, isEncoded(called.bound().output()));
            MessageElement envelope = sample(called);
            OperationCheck operation = new OperationCheck(called, check);
            for (MessageElement section : envelope.children()) {
                boolean header = section.name().getLocalPart().equals("Header");
                if (!header) {
                    new Echo(given).into(section.children(), () -> operation
                            .answer(envelope)
                            .deviations()
                            .isEmpty());
                }
                section.children().forEach(part -> (header ? answer.headers : answer.body).add(element(part)));
            }
            return answer;
        }
    }
}
