package org.protypos.cli.exchange;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RecordArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SecurityArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.argument.TransportArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.exchange.bridge.FolderBridge;
import org.protypos.exchange.bridge.RecordBridge;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.generator.PlannedContract;
import org.protypos.layout.StatusLayout;
import org.protypos.message.check.ContractCheck;
import org.protypos.target.Targets;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Carries many records: to a service and back, or from its callers to a program and back. */
public final class BridgeCommand implements Command {
    private static final long PAUSE = 200;

    private CommandSpec spec;
    private String contract;
    private String port;
    private Integer listen;
    private Path folder;
    private ServiceArguments service = new ServiceArguments();
    private RecordArguments records = new RecordArguments();
    private TransportArguments transport = new TransportArguments();
    private RuleArguments rules = new RuleArguments();
    private SecurityArguments security = new SecurityArguments();
    private Sources sources = new Sources();
    private Terminal terminal;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "bridge",
                "Carries records of fixed length to a service and back: those of a file or a folder, or those that"
                        + " programs send to a port of this machine. With --serve it is the service, and a program answers.");
        spec = syntax.spec();
        syntax.parameter(String.class, "CONTRACT", "A document, an address, or an adopted name.")
                .into(value -> contract = value);
        syntax.option(String.class, "--port", "NAME", "The port; the first that speaks SOAP if not given.")
                .into(value -> port = value);
        syntax.option(
                        Integer.class,
                        "--listen",
                        "N",
                        "Listens at this port of this machine, 0 for any, and answers on each connection.")
                .into(value -> listen = value);
        syntax.option(
                        Path.class,
                        "--files",
                        "DIR",
                        "Answers each NAME.req that is put there with NAME.ans; with --serve the other way round.")
                .into(value -> folder = value);
        service.describe(syntax);
        records.describe(syntax);
        transport.describe(syntax);
        rules.describe(syntax);
        security.describe(syntax);
        sources.describe(syntax);
    }

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        check();
        ContractArguments arguments = ContractArguments.of(contract, sources, spec);
        Contract read = arguments.read();
        if (!read.isSound()) {
            terminal.refuse(read.findings(), "nothing was carried", false);
            return ContractArguments.status(read);
        }
        PlannedContract planned = rules.generator(read, arguments.adopted())
                .target(Targets.withRecords())
                .plan();
        if (!planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing was carried", false);
            return ExitStatus.CONTRACT;
        }
        if (service.isGiven()) {
            return new ServedRecords(terminal, planned, records.form(), transport.timeout())
                    .serve(service, folder, contract);
        }
        security.prepare(spec, null);
        ContractCheck check = new ContractCheck(planned.contract());
        List<CalledOperation> operations = CalledOperation.of(check.wire()).stream()
                .filter(one ->
                        port == null || Selection.matches(port, one.port().name()))
                .toList();
        if (operations.isEmpty()) {
            terminal.problem(
                    (port == null ? "no port of the contract" : "no port like " + Terminal.plain(port))
                            + " speaks SOAP or HTTP: nothing was carried",
                    "");
            return ExitStatus.CONTRACT;
        }
        RecordBridge bridge = new RecordBridge(
                planned.code().records(),
                operations,
                check,
                records.form(),
                plain -> transport.applied(plain, security));
        if (listen != null) {
            return new ListeningBridge(terminal, bridge).listen(listen);
        }
        return folder != null ? folder(bridge) : files(bridge);
    }

    /** Refuses what is not one way for records to come. */
    private void check() {
        service.check(folder);
        boolean ofFiles = records.isGiven(listen != null || folder != null || service.isGiven());
        int ways = (ofFiles ? 1 : 0) + (listen != null ? 1 : 0) + (folder != null || service.isGiven() ? 1 : 0);
        if (ways != 1) {
            throw new ParameterException(
                    spec.commandLine(),
                    "say one way for records to come: --record-in and --record-out, --files, --listen, or --serve");
        }
        if (listen != null) {
            new Limits(spec).port("--listen", listen);
        }
        if (folder != null && !Files.isDirectory(folder)) {
            throw new ParameterException(spec.commandLine(), "--files: there is no folder " + folder);
        }
        transport.check();
        boolean calls = transport.address() != null || !transport.headers().isEmpty() || security.isGiven();
        if (service.isGiven() && (calls || port != null)) {
            throw new ParameterException(
                    spec.commandLine(),
                    "with --serve nothing is called: leave out --address, --header, --port, --security and --sign");
        }
    }

    private int files(RecordBridge bridge) throws IOException {
        AtomicInteger all = new AtomicInteger();
        AtomicInteger done = new AtomicInteger();
        bridge.carry(records.in(), records.out(), (operation, result) -> {
            boolean isDone = result.equals(StatusLayout.DONE);
            int number = all.incrementAndGet();
            done.addAndGet(isDone ? 1 : 0);
            if (!isDone) {
                terminal.err().println(Terminal.plain(number + " " + operation + ": " + result));
            }
        });
        terminal.out()
                .println(Terminal.counted(all.get(), "request") + ", " + done.get() + " answered; written to "
                        + Terminal.plain(records.out().toString()));
        return done.get() == all.get() ? ExitStatus.DONE : ExitStatus.CONTRACT;
    }

    /** Answers what is put into a folder, for as long as nobody ends it. */
    private int folder(RecordBridge bridge) throws IOException {
        FolderBridge carried = new FolderBridge(bridge, folder);
        terminal.out()
                .println("requests are taken from " + Terminal.plain(folder.toString()) + ", as NAME"
                        + FolderBridge.REQUEST + "; Ctrl-C ends");
        terminal.out().flush();
        try {
            while (true) {
                int files = carried.carry(
                        terminal::line, (file, why) -> terminal.line(file, "not carried to its end: " + why));
                if (files == 0) {
                    Thread.sleep(PAUSE);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return ExitStatus.DONE;
        }
    }
}
