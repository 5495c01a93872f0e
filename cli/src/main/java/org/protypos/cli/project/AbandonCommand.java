package org.protypos.cli.project;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Terminal;
import org.protypos.output.OutputFolder;
import org.protypos.output.WriteReport;
import org.protypos.project.Abandonment;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Project;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Takes a contract out of the project, with the code that was generated from it. */
public final class AbandonCommand implements Command {
    private CommandSpec spec;
    private String name;
    private boolean overwrite;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "abandon",
                "Takes a contract out of the project: its pinned documents, its entries, and the code that was"
                        + " generated from it alone. What somebody has written stays.");
        spec = syntax.spec();
        syntax.parameter(String.class, "NAME", "The name of the contract in the project.")
                .into(value -> name = value);
        syntax.flag("--overwrite", "Removes generated files that somebody has edited, too.")
                .into(value -> overwrite = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        List<AdoptedContract> found = AdoptedContract.all(Path.of(""), List.of(name));
        Project around = Project.around(Path.of(""));
        if (found == null && around != null && around.strays().contains(name)) {
            Project with = around.with(name);
            found = List.of(new AdoptedContract(with, with.contracts().get(name)));
        }
        if (found == null || found.size() != 1) {
            throw new ParameterException(spec.commandLine(), name + " is no contract of a project here");
        }
        AdoptedContract adopted = found.get(0);
        if (!adopted.project().findings().isEmpty()) {
            terminal.refuse(adopted.project().findings(), "nothing was abandoned", false);
            return ExitStatus.CONTRACT;
        }
        List<String> removed = new ArrayList<>();
        for (AdoptedContract edition : adopted.editions()) {
            WriteReport report = OutputFolder.remove(edition.into(), edition.owner(), overwrite);
            new FindingPrinter(terminal.err()).print(report.findings());
            removed.add(Terminal.counted(report.removed().size(), "file") + " removed in " + edition.into());
        }
        List<String> copies = Abandonment.abandon(adopted.project(), adopted.settings());
        terminal.out()
                .println(name + ": " + String.join(", ", removed) + ", " + copies.size()
                        + (copies.size() == 1 ? " document" : " documents") + " no longer pinned");
        return ExitStatus.DONE;
    }
}
