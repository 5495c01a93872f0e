package org.protypos.cli.contract;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.protypos.binding.ProposedRule;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.DocumentFiles;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.JsonMessages;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.generator.PlannedContract;
import org.protypos.message.capture.HttpCapture;
import org.protypos.message.check.Deviation;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.profile.MessageProfile;
import org.protypos.proof.Proof;
import org.protypos.proof.ProofResult;
import org.protypos.proof.Reconciliation;
import picocli.CommandLine.Model.CommandSpec;

/** Shows whether real messages survive the generated types. */
public final class ProofCommand implements Command {
    private static final long LARGEST_MESSAGE = 256L << 20;

    private CommandSpec spec;
    private ContractArguments arguments = new ContractArguments();
    private LanguageArguments language = new LanguageArguments();
    private RuleArguments rules = new RuleArguments();
    private List<Path> messages = new ArrayList<>();
    private String as;
    private boolean profile;
    private boolean json;

    /**
     * A message in a file.
     *
     * @param made the message in XML when the file holds it as JSON, otherwise null
     */
    private record MessageFile(Path path, byte[] made) implements Proof.Message {
        @Override
        public String name() {
            return path.toString();
        }

        @Override
        public byte[] bytes() throws IOException {
            if (made != null) {
                return made;
            }
            byte[] bytes = raw();
            HttpCapture capture = HttpCapture.of(name(), bytes);
            return capture == null ? bytes : capture.document();
        }

        private byte[] raw() throws IOException {
            if (Files.size(path) > LARGEST_MESSAGE) {
                throw new IOException(path + " is larger than " + (LARGEST_MESSAGE >> 20) + " MB");
            }
            return Files.readAllBytes(path);
        }

        /** What HTTP brought, or null when the file is a bare document. */
        HttpCapture capture() throws IOException {
            if (made != null) {
                return null;
            }
            try (InputStream in = Files.newInputStream(path)) {
                if (HttpCapture.of(name(), in.readNBytes(HttpCapture.LONGEST_START)) == null) {
                    return null;
                }
            }
            return HttpCapture.of(name(), raw());
        }
    }

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("proof", "Shows whether real messages go through the generated types and come out the same.");
        spec = syntax.spec();
        arguments.describe(syntax);
        language.describe(syntax);
        rules.describe(syntax);
        syntax.options(
                        Path.class,
                        "--message",
                        "FILE",
                        "A message, bare, in a SOAP envelope, as HTTP brought it, or as JSON with --as; of a folder all .xml and .http files in it."
                                + " May be repeated.")
                .required()
                .into(value -> messages = value);
        syntax.option(
                        String.class,
                        "--as",
                        "NAME",
                        "What messages in JSON are: requests of this operation, or global elements of this name.")
                .into(value -> as = value);
        syntax.flag(
                        "--profile",
                        "Also tells where an envelope of SOAP 1.1, or how HTTP brought it, does not keep the Basic Profile 1.1 of the WS-I.")
                .into(value -> profile = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        List<MessageFile> files = DocumentFiles.of(messages, "--message", spec, ".xml", ".http").stream()
                .map(file -> new MessageFile(file, null))
                .toList();
        Contract contract = arguments.read();
        if (!contract.isSound()) {
            terminal.refuse(contract.findings(), "nothing was proved", json);
            return ContractArguments.status(contract);
        }
        PlannedContract planned = rules.generator(contract, arguments.adopted())
                .target(language.target())
                .plan();
        if (!planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing was proved", json);
            return ExitStatus.CONTRACT;
        }
        if (terminal.isLacking(planned.target().toolchain())) {
            return ExitStatus.OUTSIDE;
        }
        Findings findings = new Findings();
        files = new JsonMessages(planned.contract(), as, spec, findings)
                .inXml(files, MessageFile::path, MessageFile::new);
        List<MessageFile> all = carrying(files, findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was proved", json);
            return ExitStatus.CONTRACT;
        }
        Proof proof = new Proof(planned.contract(), planned.withoutForeignClasses());
        List<ProofResult> results =
                Progress.during("proving " + all.size() + " messages", json, () -> proof.of(watched(all)));
        Reconciliation.Outcome corrections =
                new Reconciliation(planned.contract(), planned.target().rules()).of(proof.deviating());
        Findings kept = profile ? profiled(files, contract) : new Findings();
        if (json) {
            Json.print(terminal.out(), document -> {
                json(document, results);
                corrections(document, corrections);
                if (profile) {
                    Json.findings(document, kept.sorted());
                }
            });
        } else {
            new FindingPrinter(terminal.out()).print(kept.sorted());
            text(terminal.out(), results);
            corrections(terminal.out(), corrections, proof.deviating().size());
        }
        return count(results, ProofResult.Status.SURVIVED) == results.size() && !kept.hasErrors()
                ? ExitStatus.DONE
                : ExitStatus.CONTRACT;
    }

    /** Those that carry something; what HTTP brought and cannot be unpacked is told. */
    private static List<MessageFile> carrying(List<MessageFile> files, Findings findings) throws IOException {
        List<MessageFile> all = new ArrayList<>();
        for (MessageFile file : files) {
            HttpCapture capture = file.capture();
            try {
                if (capture == null || !capture.isEmpty() && capture.document() != null) {
                    all.add(file);
                }
            } catch (IOException e) {
                findings.error(
                        "http-body", capture.place(""), e.getMessage(), "capture the message anew, as it was sent");
            }
        }
        return all;
    }

    /** Where messages do not keep the profile; what is not well-formed has been told before. */
    private static Findings profiled(List<MessageFile> files, Contract contract) throws IOException {
        Findings kept = new Findings();
        MessageProfile judge = new MessageProfile(contract);
        for (MessageFile file : files) {
            HttpCapture capture = file.capture();
            MessageElement root = null;
            if (capture == null || !capture.isEmpty()) {
                byte[] carried = capture == null ? file.bytes() : capture.document();
                root = MessageReader.read(file.name(), carried, new Findings());
            }
            if (capture != null) {
                kept.addAll(judge.of(capture, root));
            } else if (root != null) {
                kept.addAll(judge.of(root));
            }
        }
        return kept;
    }

    /** The same messages; how far one has come with them is told. */
    private static List<Proof.Message> watched(List<MessageFile> files) {
        AtomicInteger read = new AtomicInteger();
        return files.stream()
                .map(file -> (Proof.Message) new WatchedMessage(file, read, files.size()))
                .toList();
    }

    /** A message that is read once to know what code it needs, and once to be proved. */
    private record WatchedMessage(MessageFile file, AtomicInteger read, int all) implements Proof.Message {
        @Override
        public String name() {
            return file.name();
        }

        @Override
        public byte[] bytes() throws IOException {
            int number = read.incrementAndGet() - all;
            Progress.at("proving " + all + " messages" + (number > 0 ? ": " + number : ""));
            return file.bytes();
        }
    }

    private void corrections(PrintWriter out, Reconciliation.Outcome corrections, int deviating) {
        if (corrections.rules().isEmpty()) {
            return;
        }
        out.println();
        out.println("If the messages are right and the contract is not, these corrections make " + corrections.fitting()
                + " of " + deviating + (deviating == 1 ? " message fit:" : " messages fit:"));
        out.println();
        ProposedRule.file(corrections.rules()).lines().forEach(line -> out.println("  " + Terminal.plain(line)));
        out.println();
        out.println(Terminal.cyan("next: ") + "put them into a file, and give it to every command with --rules FILE");
    }

    private static void corrections(JsonGenerator document, Reconciliation.Outcome corrections) throws IOException {
        document.writeNumberField("fitWhenCorrected", corrections.fitting());
        document.writeArrayFieldStart("corrections");
        for (ProposedRule rule : corrections.rules()) {
            document.writeStartObject();
            document.writeStringField("on", rule.on());
            for (Map.Entry<String, String> value : rule.values().entrySet()) {
                document.writeStringField(value.getKey(), value.getValue());
            }
            document.writeStringField("remark", rule.remark());
            document.writeEndObject();
        }
        document.writeEndArray();
    }

    private static long count(List<ProofResult> results, ProofResult.Status status) {
        return results.stream().filter(result -> result.status() == status).count();
    }

    private static void json(JsonGenerator document, List<ProofResult> results) throws IOException {
        document.writeNumberField("messages", results.size());
        for (ProofResult.Status status : ProofResult.Status.values()) {
            document.writeNumberField(status.name().toLowerCase(Locale.ROOT), count(results, status));
        }
        document.writeArrayFieldStart("results");
        for (ProofResult result : results) {
            document.writeStartObject();
            document.writeStringField("file", result.message());
            document.writeStringField("status", result.status().name().toLowerCase(Locale.ROOT));
            document.writeArrayFieldStart("details");
            for (Deviation detail : result.details()) {
                detail(document, detail);
            }
            document.writeEndArray();
            document.writeEndObject();
        }
        document.writeEndArray();
    }

    private static void detail(JsonGenerator document, Deviation detail) throws IOException {
        document.writeStartObject();
        document.writeStringField("code", detail.code());
        if (detail.place() != null) {
            document.writeNumberField("line", detail.place().line());
            document.writeNumberField("column", detail.place().column());
        }
        document.writeStringField("path", detail.path());
        document.writeStringField("came", detail.came());
        document.writeStringField("expected", detail.expected());
        if (detail.contract() != null) {
            document.writeObjectFieldStart("contract");
            Json.place(document, detail.contract());
            document.writeEndObject();
        }
        document.writeEndObject();
    }

    private static void text(PrintWriter out, List<ProofResult> results) {
        FindingPrinter printer = new FindingPrinter(out);
        for (ProofResult result : results) {
            result.details().forEach(detail -> printer.print(result.status() == ProofResult.Status.FAILED, detail));
        }
        if (results.size() <= 20 && results.size() > 1) {
            Columns columns = new Columns(2);
            results.forEach(result -> columns.row(result.message(), words(result.status())));
            columns.print(out);
        }
        if (results.isEmpty()) {
            out.println("nothing to prove: the messages carry nothing");
            return;
        }
        long survived = count(results, ProofResult.Status.SURVIVED);
        StringBuilder summary = new StringBuilder();
        summary.append(survived).append(" of ").append(results.size());
        summary.append(results.size() == 1 ? " message survived" : " messages survived");
        for (ProofResult.Status status : List.of(ProofResult.Status.INVALID, ProofResult.Status.FAILED)) {
            if (count(results, status) > 0) {
                summary.append(", ").append(count(results, status)).append(' ').append(words(status));
            }
        }
        out.println(summary);
    }

    private static String words(ProofResult.Status status) {
        return switch (status) {
            case SURVIVED -> "survived";
            case INVALID -> "not as the contract says";
            case FAILED -> "changed on the way";
        };
    }
}
