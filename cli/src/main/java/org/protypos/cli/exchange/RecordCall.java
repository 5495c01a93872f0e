package org.protypos.cli.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.protypos.cli.argument.RecordArguments;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.exchange.bridge.RecordMessages;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.output.WholeFile;

/** A call of which request and answer are records in files. */
final class RecordCall {
    private final RecordArguments arguments;
    private final Terminal terminal;
    private final RecordMessages messages;

    RecordCall(RecordArguments arguments, Terminal terminal, PlannedContract planned, CalledOperation called) {
        this.arguments = arguments;
        this.terminal = terminal;
        this.messages = new RecordMessages(planned.code().records(), called, arguments.form());
    }

    /** The request that the record holds, or null when something is wrong with it, which is told. */
    MessageElement request(ContractCheck check, Findings findings) throws IOException {
        return messages.request(
                GivenFile.bytes(arguments.in()), check, arguments.in().toString(), findings);
    }

    /** Writes the status of a request that was not sent. */
    void refused(Findings findings) throws IOException {
        write(messages.refused(findings.sorted()));
    }

    /** Writes the records for an answer, and says what they are. */
    int answered(Caller.Answer answer) throws IOException {
        Findings findings = new Findings();
        RecordMessages.Answered answered =
                messages.answer(answer, arguments.out().toString(), findings);
        write(answered);
        if (findings.hasErrors()) {
            new FindingPrinter(terminal.err()).print(findings.sorted());
            terminal.problem("the answer has no room in its record", "only the status was written");
            return ExitStatus.CONTRACT;
        }
        if (answer.failure() != null) {
            terminal.problem(String.valueOf(answer.failure().getMessage()), "the status was written");
            return ExitStatus.OUTSIDE;
        }
        String fault = answer.fault() == null
                ? ""
                : String.valueOf(answer.fault().fault().reason());
        terminal.out()
                .println((fault.isEmpty() ? "" : Terminal.red("fault: ") + Terminal.plain(fault) + "; ")
                        + "status"
                        + (answered.layout() == null
                                ? ""
                                : " and " + answered.layout().name() + " ("
                                        + answered.layout().length() + " bytes)")
                        + " written to " + Terminal.plain(arguments.out().toString()));
        return answer.fault() == null ? ExitStatus.DONE : ExitStatus.CONTRACT;
    }

    private void write(RecordMessages.Answered answered) throws IOException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.write(answered.status());
        all.write(answered.record());
        WholeFile.write(arguments.out(), all.toByteArray());
    }
}
