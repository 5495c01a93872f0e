package org.protypos.exchange.bridge;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.exchange.standin.Outcome;
import org.protypos.exchange.standin.Responder;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.record.HeadRecord;
import org.protypos.record.RecordForm;
import org.protypos.wire.WireMessage;

/** Answers requests by a program that takes them as records and gives its answers as records. */
public final class RecordService implements Responder {
    private final List<RecordLayout> records;
    private final ContractCheck check;
    private final RecordForm form;
    private final RecordProgram program;
    private final BiConsumer<String, String> told;
    private final Map<CalledOperation, RecordMessages> known = new ConcurrentHashMap<>();

    /**
     * Begins.
     *
     * @param records the records of the contract
     * @param check is locked while it is used
     * @param told is told the operation and the result of each request
     */
    public RecordService(
            List<RecordLayout> records,
            ContractCheck check,
            RecordForm form,
            RecordProgram program,
            BiConsumer<String, String> told) {
        this.records = records;
        this.check = check;
        this.form = form;
        this.program = program;
        this.told = told;
    }

    @Override
    public Outcome respond(CalledOperation called, MessageElement request) {
        RecordMessages messages = known.computeIfAbsent(called, any -> new RecordMessages(records, called, form));
        String operation = called.operation().name();
        if (messages.request() == null) {
            return failed(operation, "there are no records for " + operation);
        }
        if (hasAttachments(called.request()) || called.answer() != null && hasAttachments(called.answer())) {
            return failed(operation, "parts that travel beside a message have no place in a record");
        }
        Findings wrong = new Findings();
        byte[] record;
        synchronized (check) {
            record = messages.record(request, operation, wrong);
        }
        if (wrong.hasErrors()) {
            return failed(
                    operation, "the request has no room in its record: " + RecordMessages.reasons(wrong.sorted()));
        }
        RecordProgram.Reply reply;
        try {
            reply = program.ask(new HeadRecord(messages.request().name(), record.length), record);
        } catch (IOException e) {
            return failed(operation, String.valueOf(e.getMessage()));
        }
        return outcome(called, messages, reply, wrong);
    }

    private static boolean hasAttachments(WireMessage message) {
        return !message.attachments().isEmpty();
    }

    /** Who is to blame is told here; who called learns that it was not they. */
    private Outcome failed(String operation, String why) {
        told.accept(operation, why);
        return Outcome.fault("the service cannot answer", List.of());
    }

    private Outcome outcome(
            CalledOperation called, RecordMessages messages, RecordProgram.Reply reply, Findings wrong) {
        String operation = called.operation().name();
        String result = reply.status().result();
        String reason = reply.status().reason();
        Outcome outcome;
        synchronized (check) {
            outcome = switch (result) {
                case StatusLayout.DONE -> Outcome.of(response(called, messages, reply, wrong));
                case StatusLayout.FAULT -> {
                    MessageElement detail =
                            messages.detail(reply.status().answer(), reply.record(), check, "the answer", wrong);
                    yield detail == null
                            ? null
                            : Outcome.fault(
                                    reason.isEmpty() ? detail.name().getLocalPart() : reason,
                                    List.of(PlayedMessage.element(detail)));
                }
                default -> Outcome.fault(reason.isEmpty() ? "the service refuses this" : reason, List.of());
            };
        }
        if (wrong.hasErrors()) {
            return failed(operation, RecordMessages.reasons(wrong.sorted()));
        }
        told.accept(operation, result + (reason.isEmpty() ? "" : " " + reason));
        return outcome;
    }

    private PlayedMessage response(
            CalledOperation called, RecordMessages messages, RecordProgram.Reply reply, Findings wrong) {
        if (called.answer() == null) {
            return null;
        }
        MessageElement answer = messages.response(reply.record(), check, "the answer", wrong);
        return answer == null ? null : PlayedMessage.of(called, called.answer(), check, answer);
    }
}
