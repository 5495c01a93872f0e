package org.protypos.cli.project;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.cli.argument.AdoptedArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Terminal;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Project;
import org.protypos.project.Repair;
import org.protypos.project.Revision;
import picocli.CommandLine.Model.CommandSpec;

/** Makes lock files, names and pinned documents agree again. */
public final class RepairCommand implements Command {
    /** What may be taken though it is not what was pinned. */
    enum Accept {
        DOCUMENTS
    }

    private CommandSpec spec;
    private AdoptedArguments named = new AdoptedArguments();
    private Accept accept;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "repair",
                "Makes the lock file of a contract, its names and its pinned documents agree again after a merge, a loss or a"
                        + " change by hand: from both sides of the merge, version control, the documents and the generated code.");
        spec = syntax.spec();
        named.describe(syntax);
        syntax.option(
                        Accept.class,
                        "--accept",
                        "WHAT",
                        "Takes pinned documents that were altered as they are (documents).")
                .into(value -> accept = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        List<AdoptedContract> adopted = named.all();
        List<String> whole = new ArrayList<>();
        boolean left = false;
        for (AdoptedContract contract : adopted) {
            String name = contract.settings().name();
            Path root = contract.project().root();
            String lock = contract.settings().folder() + "/protypos.lock.json";
            Map<String, String> earlier = new LinkedHashMap<>();
            for (String revision : List.of("HEAD", "MERGE_HEAD", "HEAD~1")) {
                String text = Revision.text(root, revision, lock);
                if (text != null) {
                    earlier.put("version control (" + revision + ")", text);
                }
            }
            Repair.Result result =
                    Repair.of(contract.project(), contract.settings(), earlier, accept == Accept.DOCUMENTS);
            if (!result.changed() && result.left().isEmpty()) {
                whole.add(name);
                continue;
            }
            terminal.out()
                    .println(name + ": " + (result.changed() ? lock + " was written anew" : "nothing was written"));
            if (result.changed()) {
                result.taken().forEach(one -> terminal.out().println("  " + Terminal.plain(one)));
            }
            result.left().forEach(one -> terminal.problem(one, ""));
            left |= !result.left().isEmpty();
        }
        if (!whole.isEmpty()) {
            terminal.out().println(String.join(", ", whole) + ": nothing to repair");
        }
        if (whole.size() < adopted.size() && !left) {
            terminal.out().println("next: protypos generate");
        }
        return left ? ExitStatus.CONTRACT : ExitStatus.DONE;
    }
}
