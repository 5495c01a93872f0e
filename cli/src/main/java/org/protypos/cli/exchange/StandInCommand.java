package org.protypos.cli.exchange;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.http.HttpClient;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SecurityArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.Recording;
import org.protypos.exchange.standin.Relay;
import org.protypos.generator.Generator;
import org.protypos.project.EditorSchema;
import org.protypos.source.Document;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Serves a contract with sample answers. */
public final class StandInCommand implements Command {
    private static final int PORT = 8480;

    /** Characters: what is recorded stays in memory, at many times their number. */
    private static final long LEAST_RECORDED = 1 << 20;

    private static final int SHARE_RECORDED = 50;

    private CommandSpec spec;
    private String contract;
    private int port = PORT;
    private List<String> hosts = new ArrayList<>();
    private List<String> origins = new ArrayList<>();
    private Path answers;
    private String forward;
    private Path record;
    private RuleArguments rules = new RuleArguments();
    private Sources sources = new Sources();

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "stand-in",
                "Plays the service of a contract on this machine: checks requests and answers with samples.");
        spec = syntax.spec();
        syntax.parameter(String.class, "CONTRACT", "A document, an address, or an adopted name.")
                .into(value -> contract = value);
        syntax.option(Integer.class, "--port", "N", "The port to listen at, 0 for any; " + PORT + " if not given.")
                .into(value -> port = value);
        syntax.options(
                        String.class,
                        "--host",
                        "NAME",
                        "A name under which it may be asked, beside localhost, 127.0.0.1 and ::1. May be repeated.")
                .into(value -> hosts = value);
        syntax.options(
                        String.class,
                        "--allow-origin",
                        "ORIGIN",
                        "The origin of web pages that may call it, such as http://localhost:3000. May be repeated.")
                .into(value -> origins = value);
        syntax.option(
                        Path.class,
                        "--answers",
                        "FILE",
                        "What to answer otherwise than with samples, by operation and request, in YAML or JSON.")
                .into(value -> answers = value);
        syntax.option(
                        String.class,
                        "--forward",
                        "URL",
                        "Passes every request on to the real service there, and checks both messages.")
                .into(value -> forward = value);
        syntax.option(
                        Path.class,
                        "--record",
                        "FILE",
                        "With --forward: writes what the service answers, a file for --answers.")
                .into(value -> record = value);
        rules.describe(syntax);
        sources.describe(syntax);
    }

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
        InetSocketAddress address = new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
        HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(Duration.ofSeconds(30))
                .build();
        Relay relay = forward == null
                ? null
                : new Relay(forward, client, SecurityArguments.authorization(), record == null ? null : recording());
        return new WatchedStandIn(terminal, this::read, relay, new LinkedHashSet<>(hosts), new LinkedHashSet<>(origins))
                .serve(address, contract);
    }

    /** A file that is whole when somebody ends the stand-in. */
    private Recording recording() throws IOException {
        long most = Math.max(LEAST_RECORDED, Runtime.getRuntime().maxMemory() / SHARE_RECORDED);
        Recording recording = new Recording(record, EditorSchema.ANSWERS.lineOf(record), most);
        Runtime.getRuntime().addShutdownHook(new Thread(recording::finish));
        return recording;
    }

    /** Reads what is to be played; what is wrong with it is told, and it is not sound then. */
    private WatchedStandIn.Played read(Terminal terminal, String consequence) throws IOException {
        ContractArguments arguments = ContractArguments.of(contract, sources, spec);
        Contract read = arguments.read();
        if (!read.isSound()) {
            terminal.refuse(read.findings(), consequence, false);
            return WatchedStandIn.Played.not(ContractArguments.status(read));
        }
        Findings findings = new Findings();
        Generator generator = rules.generator(read, arguments.adopted());
        read = generator.corrected(findings);
        Answers told = answers == null
                ? Answers.NONE
                : Answers.read(GivenFile.text(answers, answers.toString()), read, findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), consequence, false);
            return WatchedStandIn.Played.not(ExitStatus.CONTRACT);
        }
        new FindingPrinter(terminal.err()).print(findings.sorted());
        List<Path> files = new ArrayList<>(rules.paths());
        read.documents().all().stream()
                .map(Document::location)
                .filter(location -> "file".equals(location.getScheme()))
                .map(Path::of)
                .forEach(files::add);
        if (answers != null) {
            files.add(answers);
        }
        return new WatchedStandIn.Played(generator, read, told, files, ExitStatus.DONE);
    }
}
