package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.http.HttpClient;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SecurityArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.exchange.page.StandInPage;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.Recording;
import org.protypos.exchange.standin.Relay;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.Deviation;
import org.protypos.project.EditorSchema;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Serves a contract with sample answers. */
@Command(
        name = "stand-in",
        description = "Plays the service of a contract on this machine: checks requests and answers with samples.")
final class StandInCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "CONTRACT", description = "A document, an address, or an adopted name.")
    private String contract;

    @Option(
            names = "--port",
            paramLabel = "N",
            defaultValue = "8480",
            description = "The port to listen at, 0 for any; ${DEFAULT-VALUE} if not given.")
    private int port;

    @Option(
            names = "--host",
            paramLabel = "NAME",
            description = "A name under which it may be asked, beside localhost, 127.0.0.1 and ::1. May be repeated.")
    private List<String> hosts = new ArrayList<>();

    @Option(
            names = "--allow-origin",
            paramLabel = "ORIGIN",
            description = "The origin of web pages that may call it, such as http://localhost:3000. May be repeated.")
    private List<String> origins = new ArrayList<>();

    @Option(
            names = "--answers",
            paramLabel = "FILE",
            description = "What to answer otherwise than with samples, by operation and request, in YAML or JSON.")
    private Path answers;

    @Option(
            names = "--forward",
            paramLabel = "URL",
            description = "Passes every request on to the real service there, and checks both messages.")
    private String forward;

    @Option(
            names = "--record",
            paramLabel = "FILE",
            description = "With --forward: writes what the service answers, a file for --answers.")
    private Path record;

    @Mixin
    private RuleArguments rules;

    @Mixin
    private Sources sources;

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (record != null && forward == null || forward != null && answers != null) {
            throw new ParameterException(
                    spec.commandLine(), "--record needs --forward, and --forward takes no --answers");
        }
        Limits limits = new Limits(spec);
        limits.port("--port", port);
        if (forward != null) {
            limits.address("--forward", forward);
        }
        if (record != null && Files.exists(record)) {
            throw new ParameterException(
                    spec.commandLine(), "--record: " + record + " is there already; take another name or delete it");
        }
        ContractArguments arguments = ContractArguments.of(contract, sources, spec);
        Contract read = arguments.read();
        if (!read.isSound()) {
            terminal.refuse(read.findings(), "nothing is served", false);
            return ContractArguments.status(read);
        }
        Findings findings = new Findings();
        read = rules.generator(read, arguments.adopted()).corrected(findings);
        Answers told = answers == null
                ? Answers.NONE
                : Answers.read(GivenFile.text(answers, answers.toString()), read, findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing is served", false);
            return ExitStatus.CONTRACT;
        }
        new FindingPrinter(terminal.err()).print(findings.sorted());
        InetSocketAddress address = new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
        HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(Duration.ofSeconds(30))
                .build();
        Relay relay = new Relay(
                forward,
                client,
                SecurityArguments.authorization(),
                record == null ? null : new Recording(record, EditorSchema.ANSWERS.lineOf(record)));
        try (StandIn standIn = forward == null
                ? StandIn.serve(read, address, told, request -> seen(terminal, request))
                : StandIn.between(read, address, relay, request -> seen(terminal, request))) {
            if (standIn.addresses().isEmpty()) {
                terminal.problem("no port of the contract speaks SOAP or HTTP: nothing is served", "");
                return ExitStatus.CONTRACT;
            }
            standIn.admit(new LinkedHashSet<>(hosts), new LinkedHashSet<>(origins));
            String page = StandInPage.publish(standIn);
            Columns columns = new Columns(2);
            standIn.addresses().forEach((played, at) -> columns.row(played.name(), at));
            columns.row("page", page);
            columns.print(terminal.out());
            terminal.out()
                    .println("next: open the page, or protypos call " + contract
                            + " OPERATION --address "
                            + standIn.addresses().values().iterator().next() + "; Ctrl-C ends");
            terminal.out().flush();
            new CountDownLatch(1).await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return ExitStatus.DONE;
    }

    private static void seen(Terminal terminal, StandIn.Seen exchange) {
        synchronized (terminal) {
            PrintWriter out = terminal.out();
            String operation = exchange.operation() == null ? exchange.port() : exchange.operation();
            boolean asSaid =
                    exchange.operation() != null && exchange.deviations().isEmpty();
            out.println(operation + ": " + (asSaid ? "" : "not ") + "as the contract says");
            print(out, exchange.deviations());
            if (exchange.failure() != null && exchange.deviations().isEmpty()) {
                out.println("  " + (asSaid ? "no answer: " : "") + Terminal.plain(exchange.failure()));
            }
            if (!exchange.answered().isEmpty()) {
                out.println("  the answer is not as the contract says");
                print(out, exchange.answered());
            }
            terminal.out().flush();
        }
    }

    private static void print(PrintWriter out, List<Deviation> deviations) {
        deviations.forEach(deviation -> out.println("  " + Terminal.plain(deviation.path() + ": " + deviation.came())));
    }
}
