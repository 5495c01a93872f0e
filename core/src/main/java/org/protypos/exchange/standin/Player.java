package org.protypos.exchange.standin;

import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.contract.Publication;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.wire.Wire;
import org.protypos.wire.WireMessage;

/** Plays the operations of a port, however their messages come: checks what came, and has somebody decide what is answered. */
final class Player {
    private final Contract contract;
    private final ContractCheck check;
    private final Responder responder;

    /**
     * Prepares to play.
     *
     * @param responder decides what is answered
     */
    Player(Contract contract, ContractCheck check, Responder responder) {
        this.contract = contract;
        this.check = check;
        this.responder = responder;
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
            List<Deviation> deviations = deviations(called, request);
            return deviations.isEmpty()
                    ? responder.respond(called, request)
                    : Outcome.refused(inWords(called, deviations.get(0)), deviations);
        } catch (RuntimeException e) {
            // Whatever it is, whoever calls is to hear of it, and the others go on.
            return Outcome.fault("there is no answer: " + e.getMessage(), List.of());
        }
    }

    private List<Deviation> deviations(CalledOperation called, MessageElement request) {
        // What is known of types is gathered as it is needed, by one at a time.
        synchronized (check) {
            return request == null
                    ? List.of()
                    : new OperationCheck(called.carried(), check)
                            .request(request)
                            .deviations();
        }
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
}
