package org.protypos.exchange.standin;

import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.Spool;
import org.protypos.runtime.soap.ContractEndpoint;
import org.protypos.runtime.soap.Endpoint;
import org.protypos.runtime.soap.HttpEndpoint;
import org.protypos.runtime.soap.Incoming;
import org.protypos.runtime.soap.Origin;
import org.protypos.runtime.soap.Reply;
import org.protypos.runtime.soap.Request;
import org.protypos.runtime.soap.SoapEndpoint;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wire.Recognition;

/** A port behind which a real service stands: both messages of each exchange are passed on as they are, looked at and told of. */
final class RelayedPort extends Endpoint {
    private static final QName ACTION = new QName("http://www.w3.org/2005/08/addressing", "Action");

    private final List<CalledOperation> operations;
    private final List<Recognition> recognitions;
    private final ContractEndpoint played;
    private final ContractCheck check;
    private final Relay relay;
    private final Consumer<StandIn.Seen> seen;

    /**
     * Stands before a port.
     *
     * @param played the port as a stand-in would play it: it shows the contract, and knows requests without SOAP
     */
    RelayedPort(
            List<CalledOperation> operations,
            ContractEndpoint played,
            ContractCheck check,
            Relay relay,
            Consumer<StandIn.Seen> seen) {
        this.operations = operations;
        this.recognitions = check.wire().recognitions(operations.get(0).at().carried());
        this.played = played;
        this.check = check;
        this.relay = relay;
        this.seen = seen;
    }

    /** One message, as far as it could be looked at. */
    private static final class Looked {
        private String text = "";
        private MessageElement root;
        private Map<String, Attachment> attached = Map.of();
        private List<Deviation> deviations = List.of();
    }

    @Override
    public boolean serves(String name) {
        return played.serves(name);
    }

    @Override
    public Reply answer(Request request) throws IOException {
        if (request.method().equals("GET") && request.path().isEmpty()) {
            return played.answer(request);
        }
        Instant at = Instant.now();
        Spool came = Spool.large(request.attachments(), "the message");
        try (InputStream in = request.body()) {
            in.transferTo(came);
        } catch (IOException e) {
            if (came.isFull()) {
                return Reply.plain(413, e.getMessage());
            }
            throw e;
        }
        Looked asked = new Looked();
        CalledOperation called = null;
        String failure = null;
        try {
            called = asked(request, came, asked);
        } catch (IOException | RuntimeException e) {
            failure = "the request cannot be looked at: " + e.getMessage();
        }
        Looked given = new Looked();
        Reply reply;
        try {
            Relay.Answer answer = relay.send(request, came);
            reply = new Reply(answer.status(), answer.fields(), answer.body().length(), out -> {
                try (InputStream in = answer.body().open()) {
                    in.transferTo(out);
                } finally {
                    answer.body().close();
                }
            });
            String wrong = called == null ? null : given(request, called, answer, asked, given);
            failure = failure == null ? wrong : failure;
        } catch (IOException e) {
            failure = Origin.withoutUser(relay.address()) + ": "
                    + Objects.requireNonNullElse(e.getMessage(), "no connection");
            reply = played.unanswered(request, failure);
        }
        seen.accept(new StandIn.Seen(
                at,
                operations.get(0).port().name(),
                called == null ? null : called.operation().name(),
                asked.text,
                given.text,
                asked.deviations,
                given.deviations,
                called == null && failure == null ? "no operation of the contract takes this message" : failure));
        came.close();
        return reply;
    }

    /** Looks at a request, and finds the operation that it is for; null when there is none. */
    private CalledOperation asked(Request request, Spool came, Looked into) throws IOException {
        if (played instanceof HttpEndpoint plain) {
            int number = plain.operationAt(request);
            if (number < 0) {
                return null;
            }
            CalledOperation called = operations.get(number);
            PlayedMessage message = new PlayedMessage(called, called.request());
            plain.read(request.of(came.open()), message, number);
            List<MessageElement> body = message.body();
            into.text = body.isEmpty() ? "" : MessageText.of(body.get(0));
            into.root = body.isEmpty() ? null : body.get(0);
            if (into.root != null) {
                synchronized (check) {
                    into.deviations = new OperationCheck(called.carried(), check)
                            .request(into.root)
                            .deviations();
                }
            }
            return called;
        }
        Incoming message = Incoming.of(came, request.type(), request.field("Content-Encoding"), request);
        CalledOperation called = operation(look(message, "request", into), request, message.type());
        if (called != null) {
            synchronized (check) {
                into.root = EncodedForm.literal(into.root, called.request(), check.vocabulary());
                into.deviations = new OperationCheck(called.carried(), check)
                        .request(into.root)
                        .deviations();
            }
        }
        return called;
    }

    private static MessageElement look(Incoming message, String name, Looked into) {
        into.text = message.text();
        into.root = MessageReader.read(name, into.text);
        if (into.root != null && message.parts() != null) {
            PlayedMessage.inline(into.root, message.parts()::find);
        }
        return into.root;
    }

    private CalledOperation operation(MessageElement root, Request request, MediaType inner) {
        if (root == null) {
            return null;
        }
        List<MessageElement> body = EnvelopeParts.inside(root, "Body");
        String named = SoapEndpoint.action(request, inner);
        String action = named.isEmpty() ? addressed(root) : named;
        QName first = body.isEmpty() ? new QName("") : body.get(0).name();
        return CalledOperation.meant(operations, recognitions, first, action, () -> parts(body));
    }

    private static String addressed(MessageElement root) {
        return EnvelopeParts.inside(root, "Header").stream()
                .filter(block -> block.name().equals(ACTION))
                .map(block -> block.text().strip())
                .findFirst()
                .orElse("");
    }

    private static List<String> parts(List<MessageElement> body) {
        return body.get(0).children().stream()
                .map(part -> part.name().getLocalPart())
                .toList();
    }

    /** Looks at an answer, and keeps it; gives why there is none, or null. */
    private String given(Request request, CalledOperation called, Relay.Answer answer, Looked asked, Looked into) {
        if (answer.status() / 100 == 3) {
            return "the service redirects to " + answer.field("Location") + " (HTTP " + answer.status() + ")";
        }
        if (called.answer() == null && answer.body().length() == 0) {
            return null;
        }
        try {
            Incoming message = Incoming.of(
                    answer.body(),
                    MediaType.of(answer.field("Content-Type")),
                    answer.field("Content-Encoding"),
                    request);
            PlayedMessage played =
                    new PlayedMessage(called, called.answer() == null ? called.request() : called.answer());
            if (called.isSoap()) {
                look(message, "answer", into);
                message.readAttachments(played);
                into.attached = played.attached();
            } else if (answer.status() / 100 == 2 && called.answer() != null) {
                message.readInto(played, answer.field("Content-Type"), XmlTypes.NONE, request.reading());
                List<MessageElement> body = played.body();
                into.root = body.isEmpty() ? null : body.get(0);
                into.text = into.root == null ? "" : MessageText.of(into.root);
            }
            boolean nothing = !called.isSoap()
                    && called.answer() != null
                    && called.answer().parts().isEmpty();
            if (into.root == null && nothing) {
                return null;
            }
            if (into.root == null) {
                return "the answer is no message (HTTP " + answer.status() + ", "
                        + (answer.field("Content-Type").isEmpty() ? "no content type" : answer.field("Content-Type"))
                        + ")";
            }
            synchronized (check) {
                into.root = called.answer() == null
                        ? into.root
                        : EncodedForm.literal(into.root, called.answer(), check.vocabulary());
                into.deviations = new OperationCheck(called.carried(), check)
                        .answer(into.root)
                        .deviations();
                return keep(called, asked, into);
            }
        } catch (IOException | RuntimeException e) {
            return "the answer cannot be looked at: " + e.getMessage();
        } catch (OutOfMemoryError e) {
            return "the answer cannot be looked at: it takes more memory than there is";
        }
    }

    private String keep(CalledOperation called, Looked asked, Looked given) {
        if (relay.recording() != null && called.answer() != null) {
            try {
                relay.recording().keep(called, check, asked.root, given.root, given.attached);
            } catch (IOException e) {
                return "the answer is not recorded: " + e.getMessage();
            }
        }
        return null;
    }
}
