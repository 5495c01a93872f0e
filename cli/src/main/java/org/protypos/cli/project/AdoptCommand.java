package org.protypos.cli.project;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.PlannedContract;
import org.protypos.output.OutputFolder;
import org.protypos.project.Abandonment;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Adoption;
import org.protypos.project.Project;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Takes a contract into the project as pinned copies of its documents. */
public final class AdoptCommand implements Command {
    private CommandSpec spec;
    private ContractArguments arguments = new ContractArguments();
    private String name;
    private RuleArguments rules = new RuleArguments();
    private String rename;
    private boolean json;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "adopt", "Takes a contract into the project: copies its documents, and works by name from then on.");
        spec = syntax.spec();
        arguments.describe(syntax);
        syntax.option(String.class, "--name", "N", "What to call it; made of the first document's name if not given.")
                .into(value -> name = value);
        rules.describe(syntax);
        syntax.option(
                        String.class,
                        "--rename",
                        "OLD",
                        "Gives an adopted contract another name, that of --name; no CONTRACT is named then.")
                .into(value -> rename = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (rename != null) {
            return rename(terminal);
        }
        if (arguments.names().isEmpty()) {
            throw new ParameterException(spec.commandLine(), "name a contract: a file, a directory or an address");
        }
        String called = name != null ? name : nameOf(arguments.names().get(0));
        checkName(called);
        new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        Project around = Project.around(Path.of(""));
        Project project = around != null
                ? around
                : Project.read(Path.of("").toAbsolutePath().normalize());
        // One that its folder alone knows has lost its entry in the project file, and gets it again.
        if (project.contracts().containsKey(called) && project.pinned(called) != null) {
            terminal.problem(
                    "the project has a contract " + called + " already",
                    "type: protypos refresh " + called + ", or choose another --name");
            return ExitStatus.CONTRACT;
        }
        Contract contract = arguments.gather();
        if (!contract.isSound() || !project.findings().isEmpty()) {
            List<Finding> findings = new ArrayList<>(project.findings());
            findings.addAll(contract.findings());
            terminal.refuse(findings, "nothing was adopted", json);
            return ContractArguments.isUnreachable(contract) ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT;
        }
        PlannedContract planned = rules.generator(contract, null).plan();
        if (!rules.isEmpty() && !planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing was adopted", json);
            return ExitStatus.CONTRACT;
        }
        String catalog =
                arguments.catalog() == null ? null : arguments.catalog().toString();
        List<String> copies = Adoption.adopt(
                project, called, arguments.names(), catalog, contract.documents(), "generated", rules.files());
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeStringField("name", called);
                Json.strings(document, "documents", copies);
                Json.findings(document, contract.findings());
            });
            return ExitStatus.DONE;
        }
        new FindingPrinter(terminal.err()).print(contract.findings());
        terminal.out()
                .println(called + ": " + copies.size() + (copies.size() == 1 ? " document" : " documents") + " pinned");
        copies.forEach(copy -> terminal.out().println("  " + Terminal.plain(copy)));
        int operations = contract.wsdl().portTypes().values().stream()
                .mapToInt(type -> type.operations().size())
                .sum();
        terminal.out()
                .println("it offers " + operations + (operations == 1 ? " operation" : " operations") + " and "
                        + contract.schema().types().size() + " types");
        terminal.out()
                .println("next: protypos show " + called + ", or look at " + Project.FILE
                        + " and type protypos generate");
        return ExitStatus.DONE;
    }

    /** Gives a contract another name: its folder, its entries, and the record of what was generated from it. */
    private int rename(Terminal terminal) throws IOException {
        if (name == null || !arguments.names().isEmpty()) {
            throw new ParameterException(spec.commandLine(), "--rename OLD is for --name NEW, and names no CONTRACT");
        }
        checkName(name);
        new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        AdoptedContract adopted = AdoptedContract.named(Path.of(""), List.of(rename));
        if (adopted == null) {
            throw new ParameterException(spec.commandLine(), rename + " is no contract of a project here");
        }
        Project project = adopted.project();
        if (!project.findings().isEmpty() || project.contracts().containsKey(name)) {
            terminal.refuse(project.findings(), "nothing was renamed", json);
            if (project.contracts().containsKey(name)) {
                terminal.problem("the project has a contract " + name + " already", "choose another --name");
            }
            return ExitStatus.CONTRACT;
        }
        Abandonment.rename(project, adopted.settings(), name);
        for (AdoptedContract edition : adopted.editions()) {
            OutputFolder.hand(
                    edition.into(), edition.owner(), name + edition.owner().substring(rename.length()));
        }
        if (json) {
            Json.print(terminal.out(), document -> document.writeStringField("name", name));
        } else {
            terminal.out().println(rename + " is called " + name + " now; next: protypos generate --check");
        }
        return ExitStatus.DONE;
    }

    private void checkName(String called) {
        if (!called.matches("[A-Za-z0-9][A-Za-z0-9._-]{0,63}")) {
            throw new ParameterException(
                    spec.commandLine(), "--name: \"" + called + "\" is no name: use letters, digits, dots and hyphens");
        }
    }

    /** The last word of a path or an address that says something. */
    private static String nameOf(String argument) {
        String path = argument.replaceFirst("[?#].*$", "").replaceFirst("/+$", "");
        String last = path.substring(path.lastIndexOf('/') + 1).replaceFirst("\\.[A-Za-z]{2,4}$", "");
        return last.replaceAll("[^A-Za-z0-9._-]+", "-").replaceFirst("^[._-]+", "");
    }
}
