package org.protypos.exchange.standin;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.parse.DecodedText;
import org.protypos.runtime.soap.SoapGuard;

/** Sees both messages of each exchange, breaks answers that are to be broken, and tells of the whole. */
final class Witness implements SoapGuard {
    private final String port;
    private final Consumer<StandIn.Seen> seen;
    private final ThreadLocal<Exchange> running = new ThreadLocal<>();

    /** What is known of an exchange so far. */
    private static final class Exchange {
        private final Instant at = Instant.now();
        private byte[] bytes;
        private String charset;
        private String request = "";
        private CalledOperation called;
        private Outcome outcome;
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
    }

    /** The running request as a tree. */
    MessageElement tree(Player player, PlayedMessage request) {
        Exchange exchange = exchange();
        return player.tree(request, exchange.bytes, exchange.charset, exchange.request);
    }

    @Override
    public void request(byte[] envelope, String charset) {
        Exchange exchange = exchange();
        exchange.bytes = envelope;
        exchange.charset = charset;
        exchange.request = DecodedText.of(envelope, charset);
    }

    /** What an operation came to; one without an answer is over with that. */
    void outcome(CalledOperation called, Outcome outcome) {
        exchange().called = called;
        exchange().outcome = outcome;
        if (outcome.message() == null && outcome.fault() == null && outcome.refusal() == null) {
            over("", null);
        }
    }

    @Override
    public byte[] answer(byte[] envelope) {
        Outcome outcome = exchange().outcome;
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
        String reason = root == null ? null : EnvelopeParts.reason(root);
        return reason == null ? "" : reason;
    }

    /** Tells of an exchange without SOAP. */
    void plain(CalledOperation called, Outcome outcome, String request, String answer) {
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
                List.of(),
                failure));
    }
}
