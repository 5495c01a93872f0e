package org.protypos.exchange.standin;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import org.protypos.contract.Contract;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.runtime.soap.ContractEndpoint;
import org.protypos.runtime.soap.Endpoint;
import org.protypos.runtime.soap.SoapServer;
import org.protypos.wsdl.Service;

/**
 * A local service that plays a contract: it takes what the contract allows, says of everything else what is wrong, and
 * answers with samples in which what came in the request comes back where the answer has the like.
 */
public final class StandIn implements AutoCloseable {
    /** Beneath this path nothing of a contract is served. */
    public static final String RESERVED = "/stand-in";

    private final Contract contract;
    private final ContractCheck check;
    private final Player player;
    private final Responder responder;
    private final Relay relay;
    private final List<Consumer<Seen>> seen = new CopyOnWriteArrayList<>();
    private final SoapServer server;
    private final String root;
    private final Map<Service.Port, String> addresses = new LinkedHashMap<>();

    /**
     * An exchange that is over.
     *
     * @param at when the request came
     * @param port the port it came to
     * @param operation the operation, or null when the request fits none
     * @param request the request as it came; without SOAP as one element
     * @param answer the answer as it went, likewise; empty when there is none
     * @param deviations where the request is not what the contract says
     * @param answered where the answer of the real service is not what the contract says
     * @param failure why the request was refused or the real service gave no answer, or null
     */
    public record Seen(
            Instant at,
            String port,
            String operation,
            String request,
            String answer,
            List<Deviation> deviations,
            List<Deviation> answered,
            String failure) {
        /** Whether both messages are what the contract says. */
        public boolean isSound() {
            return deviations.isEmpty() && answered.isEmpty() && failure == null;
        }
    }

    private StandIn(
            Contract contract, ContractCheck check, Responder responder, Relay relay, SoapServer server, String host) {
        this.relay = relay;
        this.contract = contract;
        this.check = check;
        this.responder = responder;
        this.player = new Player(contract, check, responder);
        this.server = server;
        this.root = "http://" + host + ":" + server.port();
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
        ContractCheck check = new ContractCheck(contract);
        return begin(contract, check, port, new SampledAnswers(contract, check, answers), null, seen);
    }

    /**
     * Begins to serve what somebody else decides.
     *
     * @param check checks messages against the contract
     * @param responder gives the answers
     * @param seen told of each request
     * @throws IOException when the port cannot be had
     */
    public static StandIn serve(
            Contract contract, ContractCheck check, InetSocketAddress port, Responder responder, Consumer<Seen> seen)
            throws IOException {
        return begin(contract, check, port, responder, null, seen);
    }

    /**
     * Begins to stand between clients and a real service: requests and answers are checked and passed on as they are.
     *
     * @param relay the real service
     * @param seen told of each exchange
     * @throws IOException when the port cannot be had
     */
    public static StandIn between(Contract contract, InetSocketAddress port, Relay relay, Consumer<Seen> seen)
            throws IOException {
        ContractCheck check = new ContractCheck(contract);
        return begin(contract, check, port, new SampledAnswers(contract, check, Answers.NONE), relay, seen);
    }

    private static StandIn begin(
            Contract contract,
            ContractCheck check,
            InetSocketAddress port,
            Responder responder,
            Relay relay,
            Consumer<Seen> seen)
            throws IOException {
        StandIn standIn = new StandIn(contract, check, responder, relay, SoapServer.listen(port), port.getHostString());
        standIn.admit(Set.of(port.getHostString()), Set.of());
        standIn.watch(seen);
        standIn.publish();
        return standIn;
    }

    /**
     * Says who may ask, beside programs on this machine and the page at the root.
     *
     * @param hosts names under which the stand-in may be asked, beside localhost, 127.0.0.1 and [::1]
     * @param origins origins of pages that may call it, such as {@code http://localhost:3000}
     */
    public void admit(Set<String> hosts, Set<String> origins) {
        server.gate(new Visitors(hosts, origins)::complaint).headers(Visitors::headers);
    }

    /** Lets everybody ask who reaches the address, by whatever name they know this machine. */
    public void admitAll() {
        server.gate(fields -> null);
    }

    /** Tells somebody else as well of each exchange. */
    public void watch(Consumer<Seen> more) {
        seen.add(more);
    }

    /** Answers otherwise from now on. */
    public void tell(Answers other) {
        if (!(responder instanceof SampledAnswers sampled)) {
            throw new IllegalStateException("somebody else decides what is answered");
        }
        sampled.tell(other);
    }

    /** Serves something beside the ports, at the root or beneath {@link #RESERVED}. */
    public void publish(String path, Endpoint endpoint) {
        server.publish(path, endpoint);
    }

    /** The address of the root, without a slash at its end. */
    public String root() {
        return root;
    }

    /** The contract that is played. */
    public Contract contract() {
        return contract;
    }

    /** Checks messages against it; one at a time, so it is to be locked. */
    public ContractCheck check() {
        return check;
    }

    /** Where each port is served, in the order of the contract, those that speak SOAP first. */
    public Map<Service.Port, String> addresses() {
        return addresses;
    }

    @Override
    public void close() {
        server.close();
        if (relay != null && relay.recording() != null) {
            relay.recording().finish();
        }
    }

    private void publish() {
        Map<Service.Port, List<CalledOperation>> byPort = new LinkedHashMap<>();
        for (CalledOperation called : CalledOperation.of(check.wire())) {
            byPort.computeIfAbsent(called.port(), any -> new ArrayList<>()).add(called);
        }
        Set<String> paths = new LinkedHashSet<>(Set.of(RESERVED));
        byPort.forEach((port, operations) -> {
            String wanted = path(port.address());
            String path = wanted;
            for (int number = 2; !paths.add(path); number++) {
                path = wanted + "-" + number;
            }
            Consumer<Seen> all = one -> seen.forEach(consumer -> consumer.accept(one));
            Witness witness = new Witness(port.name(), all);
            ContractEndpoint played = operations.get(0).isSoap()
                    ? new PlayedPort(operations, player, witness)
                    : new PlayedHttpPort(operations, player, witness);
            server.publish(path, relay == null ? played : new RelayedPort(operations, played, check, relay, all));
            addresses.put(port, root + path);
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
}
