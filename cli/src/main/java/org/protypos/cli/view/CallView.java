package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.MessageValues;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.WireLog;
import org.protypos.wire.WireMessage;

/** Checks and shows what came back from a call. */
public final class CallView {
    private final Terminal terminal;
    private final CalledOperation called;
    private final ContractCheck check;

    /**
     * An answer that was looked at.
     *
     * @param root its envelope, or null when there is none
     * @param checked what the contract says of it, or null
     */
    record Read(Caller.Answer answer, MessageElement root, CheckedMessage checked) {
        List<Deviation> deviations() {
            return checked == null ? List.of() : checked.deviations();
        }

        int status() {
            if (answer.failure() != null) {
                return ExitStatus.OUTSIDE;
            }
            return answer.fault() != null || !deviations().isEmpty() ? ExitStatus.CONTRACT : ExitStatus.DONE;
        }
    }

    /** Shows the answers to one operation of a contract. */
    public CallView(Terminal terminal, CalledOperation called, ContractCheck check) {
        this.terminal = terminal;
        this.called = called;
        this.check = check;
    }

    /** Reads an answer and tells what it is. */
    public Read read(Caller.Answer answer) {
        MessageElement root = answer.root();
        return new Read(answer, root, root == null ? null : new OperationCheck(called.carried(), check).answer(root));
    }

    /** Shows both messages as they travelled, with their headers. */
    public void wire(Caller.Answer answer) {
        if (answer.call() == null) {
            return;
        }
        String verb = called.isSoap() ? "POST" : called.binding().verb();
        side("> ", verb + " " + answer.call().address(), answer.call().headers(), answer.sent());
        Map<String, String> headers = new LinkedHashMap<>(answer.call().answerHeaders());
        String status = headers.remove(":status");
        if (status != null) {
            side("< ", "HTTP " + status, headers, answer.text() == null ? "" : answer.text());
        }
    }

    private void side(String mark, String first, Map<String, String> headers, String text) {
        PrintWriter err = terminal.err();
        err.println(Terminal.dim(mark + Terminal.plain(first)));
        headers.forEach((name, value) ->
                err.println(Terminal.dim(mark + Terminal.plain(name + ": " + WireLog.blankedHeader(name, value)))));
        err.println(mark.strip());
        WireLog.blanked(text).lines().forEach(line -> err.println(mark + Terminal.plain(line)));
    }

    /** Shows the first answer, and what the others came to. */
    public int show(Repetition repetition, boolean xml, boolean json) throws IOException {
        Read first = repetition.first();
        if (first.answer().failure() != null) {
            int status = first.answer().failure().status();
            terminal.problem(
                    String.valueOf(first.answer().failure().getMessage()),
                    status == 0
                            ? "is the address right? --address says another"
                            : status / 100 == 3 ? "--address takes the other address" : "--wire shows what came");
        } else if (json) {
            Json.print(terminal.out(), document -> json(document, first, repetition));
        } else if (first.root() == null) {
            terminal.out().println("sent; there is no answer");
        } else if (xml) {
            terminal.out().println(first.answer().text());
        } else {
            text(first);
        }
        FindingPrinter printer = new FindingPrinter(terminal.err());
        first.deviations().forEach(deviation -> printer.print(false, deviation));
        if (!first.deviations().isEmpty()) {
            terminal.problem("the answer is not as the contract says", "");
        }
        if (repetition.calls() > 1 && !json) {
            repetition.print(xml ? terminal.err() : terminal.out());
        }
        return repetition.status();
    }

    private void text(Read read) {
        PrintWriter out = terminal.out();
        if (read.answer().fault() != null) {
            out.println(Terminal.red("fault: ")
                    + Terminal.plain(read.answer().fault().fault().reason()));
        }
        EnvelopeParts.header(read.root(), answered()).forEach(block -> MessageView.print(block, out));
        EnvelopeParts.body(read.root(), answered()).forEach(element -> MessageView.print(element, out));
        read.answer()
                .attached()
                .forEach((part, content) ->
                        out.println("attached " + Terminal.plain(part + ": " + content) + "; --json has its bytes"));
    }

    /** The answer, or what a fault comes in where none is declared. */
    private WireMessage answered() {
        return called.answer() == null ? called.request() : called.answer();
    }

    private void json(JsonGenerator document, Read read, Repetition repetition) throws IOException {
        document.writeStringField("operation", called.operation().name());
        document.writeBooleanField("fault", read.answer().fault() != null);
        if (read.root() != null) {
            JsonMessageWriter writer =
                    new JsonMessageWriter(check.vocabulary(), read.checked().types());
            document.writeFieldName("header");
            writer.section(EnvelopeParts.header(read.root(), answered()), document);
            document.writeFieldName("body");
            writer.section(EnvelopeParts.body(read.root(), answered()), document);
        }
        if (!read.answer().attached().isEmpty()) {
            document.writeObjectFieldStart("attached");
            for (Map.Entry<String, Attachment> part : read.answer().attached().entrySet()) {
                document.writeFieldName(part.getKey());
                JsonText.write(MessageValues.value(part.getValue()), document);
            }
            document.writeEndObject();
        }
        document.writeNumberField("deviations", read.deviations().size());
        if (repetition.calls() > 1) {
            repetition.json(document);
        }
    }
}
