package org.protypos.exchange.standin;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.soap.SoapGuard;

/** Sees both messages of each exchange, breaks answers that are to be broken, and tells of the whole. */
final class Witness implements SoapGuard {
    /** By these a client shows who it is. */
    private static final List<String> WHO = List.of("Authorization", "Cookie", "X-Api-Key");

    private final String port;
    private final Consumer<StandIn.Seen> seen;
    private final ThreadLocal<Exchange> running = new ThreadLocal<>();

    /** What is known of an exchange so far. */
    private static final class Exchange {
        private final Instant at = Instant.now();
        private final Map<String, String> headers = new LinkedHashMap<>();
        private String request = "";
        private CalledOperation called;
        private Player.Outcome outcome;
    }

    Witness(String port, Consumer<StandIn.Seen> seen) {
        this.port = port;
        this.seen = seen;
    }

    private Exchange exchange() {
        Exchange exchange = running.get();
        if (exchange == null) {
            exchange = new Exchange();
            running.set(exchange);
        }
        return exchange;
    }

    @Override
    public void arrived(UnaryOperator<String> headers) {
        running.remove();
        for (String name : WHO) {
            String value = headers.apply(name);
            if (!value.isEmpty()) {
                exchange().headers.put(name, value);
            }
        }
    }

    /** The HTTP headers of the running request that show who calls. */
    Map<String, String> headers() {
        return exchange().headers;
    }

    /** The running request as it came. */
    String text() {
        return exchange().request;
    }

    @Override
    public void request(byte[] envelope, String charset) {
        exchange().request = new String(envelope, charset(charset));
    }

    private static Charset charset(String name) {
        try {
            return name == null ? StandardCharsets.UTF_8 : Charset.forName(name);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            return StandardCharsets.UTF_8;
        }
    }

    /** What an operation came to; one without an answer is over with that. */
    void outcome(CalledOperation called, Player.Outcome outcome) {
        exchange().called = called;
        exchange().outcome = outcome;
        if (outcome.message() == null && outcome.fault() == null && outcome.refusal() == null) {
            over("", null);
        }
    }

    @Override
    public byte[] answer(byte[] envelope) {
        Player.Outcome outcome = exchange().outcome;
        byte[] sent = outcome == null || outcome.broken() == null
                ? envelope
                : outcome.broken().applied(envelope);
        String text = new String(sent, StandardCharsets.UTF_8);
        over(text, outcome == null ? reason(envelope) : outcome.refusal());
        return sent;
    }

    /** What a fault says. */
    private static String reason(byte[] envelope) {
        MessageElement root = MessageReader.read("answer", envelope, new Findings());
        return root == null
                ? ""
                : EnvelopeParts.inside(root, "Body").stream()
                        .flatMap(fault -> fault.children().stream())
                        .filter(part -> List.of("faultstring", "Reason")
                                .contains(part.name().getLocalPart()))
                        .map(part -> part.children().isEmpty()
                                ? part.text()
                                : part.children().get(0).text())
                        .findFirst()
                        .orElse("");
    }

    /** Tells of an exchange without SOAP. */
    void plain(CalledOperation called, Player.Outcome outcome, String request, String answer) {
        running.remove();
        Exchange exchange = exchange();
        exchange.request = request;
        exchange.called = called;
        exchange.outcome = outcome;
        over(answer, outcome.refusal());
    }

    private void over(String answer, String failure) {
        Exchange exchange = exchange();
        running.remove();
        boolean known = exchange.outcome != null;
        seen.accept(new StandIn.Seen(
                exchange.at,
                port,
                known ? exchange.called.operation().name() : null,
                exchange.request,
                answer,
                known ? exchange.outcome.deviations() : List.of(),
                known ? exchange.outcome.answered() : List.of(),
                failure));
    }
}
