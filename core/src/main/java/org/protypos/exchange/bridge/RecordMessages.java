package org.protypos.exchange.bridge;

import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.record.RecordForm;
import org.protypos.record.RecordReader;
import org.protypos.record.RecordWriter;
import org.protypos.record.StatusRecord;
import org.protypos.wire.WireMessage;

/** Carries the messages of one operation as records of fixed length. */
public final class RecordMessages {
    private final List<RecordLayout> records;
    private final CalledOperation called;
    private final RecordForm form;

    /**
     * Begins.
     *
     * @param all the records of the contract
     */
    public RecordMessages(List<RecordLayout> all, CalledOperation called, RecordForm form) {
        this.called = called;
        this.form = form;
        this.records = all.stream()
                .filter(record -> record.operation() != null
                        && record.operation().name().equals(called.operation().name())
                        && record.operation()
                                .bindings()
                                .contains(called.binding().name())
                        && called.operation()
                                .place()
                                .equals(record.operation().subject().place()))
                .toList();
    }

    /**
     * What an answer becomes.
     *
     * @param result how the call went, as the status says it
     * @param reason what went wrong
     * @param status the record that says how the call went
     * @param record the record of the answer or the fault; empty when there is none
     * @param layout the layout of that record, or null
     */
    public record Answered(String result, String reason, byte[] status, byte[] record, RecordLayout layout) {}

    /** The record of a request; null for an operation that the records know nothing of. */
    public RecordLayout request() {
        return of(RecordLayout.Part.REQUEST);
    }

    /** Whether the record of a request has a name. */
    public boolean isCalled(String name) {
        return request() != null && request().name().equals(name);
    }

    private RecordLayout of(RecordLayout.Part part) {
        return records.stream()
                .filter(record -> record.part() == part)
                .findFirst()
                .orElse(null);
    }

    /**
     * The request that a record holds.
     *
     * @param about what the record is called when one talks about it
     * @param findings is told what is wrong with the record, and where it is not what the contract says
     * @return the request, or null when something is wrong
     */
    public MessageElement request(byte[] bytes, ContractCheck check, String about, Findings findings) {
        RecordReader.Content content = RecordReader.read(request(), bytes, form, about, findings);
        if (findings.hasErrors()) {
            return null;
        }
        return checked(
                content, called.request(), check, new OperationCheck(called.carried(), check)::request, findings);
    }

    /** A whole message of what was in a record, or null when it is not what the contract says, which is told. */
    private MessageElement checked(
            RecordReader.Content content,
            WireMessage carried,
            ContractCheck check,
            Function<MessageElement, CheckedMessage> judge,
            Findings findings) {
        MessageElement message = new RequestBuilder(called.carried(), check.vocabulary(), findings)
                .envelope(content.body(), content.headers());
        EncodedForm.mark(message, carried, check.vocabulary());
        tell(judge.apply(message), findings);
        return findings.hasErrors() ? null : message;
    }

    private static void tell(CheckedMessage checked, Findings findings) {
        for (Deviation deviation : checked.deviations()) {
            findings.error(
                    "record-invalid",
                    null,
                    deviation.path() + ": " + deviation.came()
                            + (deviation.expected().isEmpty() ? "" : "; expected " + deviation.expected()),
                    "put another value into the record");
        }
    }

    /**
     * The record of a request that has come as a message.
     *
     * @param message the message, or null when there is none
     * @param findings is told what has no place in it
     */
    byte[] record(MessageElement message, String about, Findings findings) {
        return RecordWriter.write(
                request(),
                message == null ? List.of() : EnvelopeParts.header(message, called.request()),
                message == null ? List.of() : EnvelopeParts.body(message, called.request()),
                form,
                about,
                findings);
    }

    /**
     * The answer that a record holds, as a whole message.
     *
     * @param findings is told what is wrong with the record, and where it is not what the contract says
     * @return the answer, or null when something is wrong or there is none
     */
    MessageElement response(byte[] bytes, ContractCheck check, String about, Findings findings) {
        RecordLayout layout = of(RecordLayout.Part.RESPONSE);
        if (layout == null) {
            return null;
        }
        RecordReader.Content content = RecordReader.read(layout, bytes, form, about, findings);
        if (findings.hasErrors()) {
            return null;
        }
        return checked(content, called.answer(), check, new OperationCheck(called.carried(), check)::answer, findings);
    }

    /**
     * The detail of a fault that a record holds.
     *
     * @param name the name of the record
     * @param findings is told what is wrong with the record, and where it is not what the contract says
     * @return the detail, or null when something is wrong
     */
    MessageElement detail(String name, byte[] bytes, ContractCheck check, String about, Findings findings) {
        RecordLayout layout = records.stream()
                .filter(record -> record.part() == RecordLayout.Part.FAULT
                        && record.name().equals(name))
                .findFirst()
                .orElse(null);
        if (layout == null) {
            findings.error(
                    "record-unknown",
                    null,
                    about + ": " + (name.isEmpty() ? "CALL-ANSWER is blank" : name + " is no record of a fault"),
                    "name the record of the fault in CALL-ANSWER");
            return null;
        }
        RecordReader.Content content = RecordReader.read(layout, bytes, form, about, findings);
        if (findings.hasErrors() || content.body().isEmpty()) {
            return null;
        }
        MessageElement envelope =
                new RequestBuilder(called.carried(), check.vocabulary(), findings).envelope(content.body(), List.of());
        MessageElement detail = EnvelopeParts.body(envelope, called.request()).get(0);
        tell(check.check(detail), findings);
        return findings.hasErrors() ? null : detail;
    }

    /** A request that was not sent. */
    public Answered refused(List<Finding> findings) {
        return status(StatusLayout.REQUEST, null, new byte[0], reasons(findings));
    }

    private Answered status(String result, RecordLayout layout, byte[] record, String reason) {
        StatusRecord status =
                new StatusRecord(result, request().name(), layout == null ? "" : layout.name(), record.length, reason);
        return new Answered(result, reason, status.bytes(form), record, layout);
    }

    static String reasons(List<Finding> findings) {
        return findings.stream().map(Finding::message).distinct().collect(Collectors.joining("; "));
    }

    /** The records for an answer; what has no place in them is told. */
    public Answered answer(Caller.Answer answer, String about, Findings findings) {
        if (answer.failure() != null) {
            return status(
                    StatusLayout.FAILED,
                    null,
                    new byte[0],
                    String.valueOf(answer.failure().getMessage()));
        }
        if (answer.fault() != null) {
            return fault(answer, about, findings);
        }
        RecordLayout layout = of(RecordLayout.Part.RESPONSE);
        if (layout == null || answer.root() == null) {
            return status(StatusLayout.DONE, null, new byte[0], "");
        }
        answer.attached()
                .keySet()
                .forEach(part -> findings.error(
                        "record-left-out", null, "the attached part " + part + " has no place in a record", ""));
        byte[] record = RecordWriter.write(
                layout,
                EnvelopeParts.header(answer.root(), called.answer()),
                EnvelopeParts.body(answer.root(), called.answer()),
                form,
                about,
                findings);
        return findings.hasErrors()
                ? status(StatusLayout.ANSWER, null, new byte[0], reasons(findings.sorted()))
                : status(StatusLayout.DONE, layout, record, "");
    }

    private Answered fault(Caller.Answer answer, String about, Findings findings) {
        String reason = String.valueOf(answer.fault().fault().reason());
        for (MessageElement detail :
                answer.root() == null ? List.<MessageElement>of() : EnvelopeParts.detail(answer.root())) {
            QName name = detail.name();
            for (RecordLayout record : records) {
                if (record.part() == RecordLayout.Part.FAULT && name.equals(record.element())) {
                    byte[] bytes = RecordWriter.write(record, List.of(), List.of(detail), form, about, findings);
                    return findings.hasErrors()
                            ? status(StatusLayout.ANSWER, null, new byte[0], reasons(findings.sorted()))
                            : status(StatusLayout.FAULT, record, bytes, reason);
                }
            }
        }
        return status(StatusLayout.REFUSED, null, new byte[0], reason);
    }
}
