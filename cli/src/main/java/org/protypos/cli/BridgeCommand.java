package org.protypos.cli;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiConsumer;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RecordArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SecurityArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.argument.TransportArguments;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.RecordBridge;
import org.protypos.generator.PlannedContract;
import org.protypos.layout.StatusLayout;
import org.protypos.message.check.ContractCheck;
import org.protypos.target.Targets;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Carries many records to a service and back. */
@Command(
        name = "bridge",
        description = "Carries records of fixed length to a service and back: those of a file, or those that programs"
                + " send to a port of this machine.")
final class BridgeCommand implements Callable<Integer> {
    private static final int MOST_CONNECTIONS = 64;
    private static final int PATIENCE = 300_000;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "CONTRACT", description = "A document, an address, or an adopted name.")
    private String contract;

    @Option(names = "--port", paramLabel = "NAME", description = "The port; the first that speaks SOAP if not given.")
    private String port;

    @Option(
            names = "--listen",
            paramLabel = "N",
            description = "Listens at this port of this machine, 0 for any, and answers on each connection.")
    private Integer listen;

    @Mixin
    private RecordArguments records;

    @Mixin
    private TransportArguments transport;

    @Mixin
    private RuleArguments rules;

    @Mixin
    private SecurityArguments security;

    @Mixin
    private Sources sources;

    private Terminal terminal;

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        boolean ofFiles = records.isGiven(listen != null);
        if (ofFiles == (listen != null)) {
            throw new ParameterException(
                    spec.commandLine(), "say where records come from: --record-in and --record-out, or --listen");
        }
        if (listen != null) {
            new Limits(spec).port("--listen", listen);
        }
        transport.check();
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
        security.prepare(spec, null);
        ContractCheck check = new ContractCheck(planned.contract());
        List<CalledOperation> operations = CalledOperation.of(check.wire()).stream()
                .filter(one ->
                        port == null || Selection.matches(port, one.port().name()))
                .toList();
        RecordBridge bridge = new RecordBridge(
                planned.code().records(),
                operations,
                check,
                records.page(),
                plain -> transport.applied(plain, security));
        return ofFiles ? files(bridge) : listening(bridge);
    }

    private int files(RecordBridge bridge) throws IOException {
        AtomicInteger all = new AtomicInteger();
        AtomicInteger done = new AtomicInteger();
        Path whole = records.out().resolveSibling(records.out().getFileName() + ".part");
        try (InputStream in = new BufferedInputStream(Files.newInputStream(records.in()))) {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(whole))) {
                bridge.carry(in, out, (operation, result) -> {
                    boolean isDone = result.equals(StatusLayout.DONE);
                    int number = all.incrementAndGet();
                    done.addAndGet(isDone ? 1 : 0);
                    if (!isDone) {
                        terminal.err().println(Terminal.plain(number + " " + operation + ": " + result));
                    }
                });
            } finally {
                // What was answered has been done, also when what comes behind it cannot be read.
                Files.move(whole, records.out(), StandardCopyOption.REPLACE_EXISTING);
            }
        }
        terminal.out()
                .println(Terminal.counted(all.get(), "request") + ", " + done.get() + " answered; written to "
                        + Terminal.plain(records.out().toString()));
        return done.get() == all.get() ? ExitStatus.DONE : ExitStatus.CONTRACT;
    }

    private int listening(RecordBridge bridge) throws IOException {
        Semaphore free = new Semaphore(MOST_CONNECTIONS);
        try (ServerSocket server = new ServerSocket(listen, MOST_CONNECTIONS, InetAddress.getLoopbackAddress())) {
            terminal.out().println("records are carried at localhost:" + server.getLocalPort() + "; Ctrl-C ends");
            terminal.out().flush();
            while (true) {
                Socket connection = server.accept();
                free.acquireUninterruptibly();
                Thread thread = new Thread(
                        () -> {
                            try {
                                answer(bridge, connection);
                            } finally {
                                free.release();
                            }
                        },
                        "bridge");
                thread.setDaemon(true);
                thread.start();
            }
        }
    }

    private void answer(RecordBridge bridge, Socket connection) {
        try (connection;
                InputStream in = new BufferedInputStream(connection.getInputStream());
                OutputStream out = new BufferedOutputStream(connection.getOutputStream())) {
            connection.setSoTimeout(PATIENCE);
            BiConsumer<String, String> told = (operation, result) -> {
                synchronized (terminal) {
                    terminal.out().println(Terminal.plain(operation + ": " + result));
                    terminal.out().flush();
                }
            };
            bridge.carry(in, out, told);
        } catch (IOException e) {
            synchronized (terminal) {
                terminal.err().println(Terminal.plain("a connection ended: " + e.getMessage()));
                terminal.err().flush();
            }
        }
    }
}
