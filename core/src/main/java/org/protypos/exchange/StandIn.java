package org.protypos.exchange;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.contract.Publication;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.SoapEndpoint;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.soap.SoapServer;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Service;

/**
 * A local service that plays a contract: it takes what the contract allows, says of everything else what is wrong, and
 * answers with samples in which what came in the request comes back where the answer has the like.
 */
public final class StandIn implements AutoCloseable {
    private final Contract contract;
    private final Consumer<Seen> seen;
    private final SoapServer server;
    private final Map<Service.Port, String> addresses = new LinkedHashMap<>();

    /**
     * A request that was answered.
     *
     * @param operation the operation
     * @param deviations where the request is not what the contract says
     */
    public record Seen(String operation, List<Deviation> deviations) {}

    private StandIn(Contract contract, SoapServer server, Consumer<Seen> seen) {
        this.contract = contract;
        this.server = server;
        this.seen = seen;
    }

    /**
     * Begins to serve.
     *
     * @param contract a sound contract
     * @param port the port to listen at on this machine, 0 for any
     * @param seen told of each request
     * @throws IOException when the port cannot be had
     */
    public static StandIn serve(Contract contract, InetSocketAddress port, Consumer<Seen> seen) throws IOException {
        StandIn standIn = new StandIn(contract, SoapServer.listen(port), seen);
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
            server.publish(path, new PlayedPort(operations));
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

    /** One port. */
    private final class PlayedPort extends SoapEndpoint {
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
        protected SoapMessage perform(SoapMessage came) {
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
            return called.operation().output() == null ? null : answer(called, given);
        }

        private Tree answer(CalledOperation called, List<MessageElement> given) {
            Tree answer = new Tree(called, isEncoded(called.bound().output()));
            String sample = samples.message(called.binding(), called.operation(), true);
            MessageElement envelope =
                    MessageReader.read("answer", sample.getBytes(StandardCharsets.UTF_8), new Findings());
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
