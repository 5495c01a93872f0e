package org.protypos.cli.exchange;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Terminal;
import org.protypos.exchange.bridge.FolderProgram;
import org.protypos.exchange.bridge.ProcessProgram;
import org.protypos.exchange.bridge.RecordProgram;
import org.protypos.exchange.bridge.RecordService;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.record.RecordForm;

/** Serves a contract with the answers of a program that thinks in records. */
final class ServedRecords {
    private final Terminal terminal;
    private final PlannedContract planned;
    private final RecordForm form;
    private final Duration patience;

    /**
     * Begins.
     *
     * @param patience how long an answer may take
     */
    ServedRecords(Terminal terminal, PlannedContract planned, RecordForm form, Duration patience) {
        this.terminal = terminal;
        this.planned = planned;
        this.form = form;
        this.patience = patience;
    }

    /**
     * Answers until it is ended from outside.
     *
     * @param folder where a program finds requests and leaves answers, or null
     * @param contract how the contract was named
     */
    int serve(ServiceArguments arguments, Path folder, String contract) throws IOException {
        ContractCheck check = new ContractCheck(planned.contract());
        try (RecordProgram program = folder != null
                        ? new FolderProgram(folder, form, patience)
                        : new ProcessProgram(arguments.program(), form, arguments.isKept(), patience);
                StandIn served = StandIn.serve(
                        planned.contract(),
                        check,
                        arguments.address(),
                        new RecordService(planned.code().records(), check, form, program, terminal::line),
                        this::seen)) {
            if (served.addresses().isEmpty()) {
                terminal.problem("no port of the contract speaks SOAP or HTTP: nothing is served", "");
                return ExitStatus.CONTRACT;
            }
            if (arguments.isOpen()) {
                served.admitAll();
            }
            Columns columns = new Columns(2);
            served.addresses().forEach((one, at) -> columns.row(one.name(), at));
            columns.print(terminal.out());
            terminal.out()
                    .println("next: protypos call " + contract + " OPERATION --address "
                            + served.addresses().values().iterator().next() + "; Ctrl-C ends");
            terminal.out().flush();
            new CountDownLatch(1).await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return ExitStatus.DONE;
    }

    /** What a program has answered is told when it has; what never came to it is told here. */
    private void seen(StandIn.Seen exchange) {
        String operation = exchange.operation() == null ? exchange.port() : exchange.operation();
        exchange.deviations()
                .forEach(deviation ->
                        terminal.line(operation, "refused, " + deviation.path() + ": " + deviation.came()));
        if (exchange.operation() == null && exchange.failure() != null) {
            terminal.line(operation, "refused, " + exchange.failure());
        }
        exchange.answered()
                .forEach(deviation ->
                        terminal.line(operation, "the answer, " + deviation.path() + ": " + deviation.came()));
    }
}
