package org.protypos.exchange;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.protypos.contract.Contract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.runtime.soap.SoapServer;
import org.protypos.wsdl.Service;

/**
 * A local service that plays a contract: it takes what the contract allows, says of everything else what is wrong, and
 * answers with samples in which what came in the request comes back where the answer has the like.
 */
public final class StandIn implements AutoCloseable {
    private final Contract contract;
    private final Answers answers;
    private final Relay relay;
    private final Consumer<Seen> seen;
    private final SoapServer server;
    private final Map<Service.Port, String> addresses = new LinkedHashMap<>();

    /**
     * A request that was answered.
     *
     * @param operation the operation
     * @param deviations where the request is not what the contract says
     * @param answer where the answer of the real service is not what the contract says
     * @param failure why the real service gave no answer, or null
     */
    public record Seen(String operation, List<Deviation> deviations, List<Deviation> answer, String failure) {}

    private StandIn(Contract contract, Answers answers, Relay relay, SoapServer server, Consumer<Seen> seen) {
        this.answers = answers;
        this.relay = relay;
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
        return begin(contract, port, answers, null, seen);
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
        return begin(contract, port, Answers.NONE, relay, seen);
    }

    private static StandIn begin(
            Contract contract, InetSocketAddress port, Answers answers, Relay relay, Consumer<Seen> seen)
            throws IOException {
        StandIn standIn = new StandIn(contract, answers, relay, SoapServer.listen(port), seen);
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
        ContractCheck check = new ContractCheck(contract);
        Set<String> paths = new LinkedHashSet<>();
        byPort.forEach((port, operations) -> {
            String wanted = path(port.address());
            String path = wanted;
            for (int number = 2; !paths.add(path); number++) {
                path = wanted + "-" + number;
            }
            server.publish(path, new PlayedPort(operations, check, answers, relay, seen).breaking());
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
}
