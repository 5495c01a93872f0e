package org.protypos.cli.argument;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.Terminal;
import org.protypos.project.AdoptedContract;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Names adopted contracts on the command line. */
public final class AdoptedArguments implements Described {
    private List<String> names = new ArrayList<>();
    private CommandSpec spec;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.parameters(String.class, "NAME", "Adopted contracts; all if not given.")
                .into(value -> names = value);
    }

    /** The contracts that are named, all of the project when none is; at least one. */
    public List<AdoptedContract> all() throws IOException {
        List<AdoptedContract> adopted = names.isEmpty() ? AdoptedContract.all(Path.of(""), names) : new ArrayList<>();
        for (String name : names) {
            AdoptedContract one = AdoptedContract.named(Path.of(""), List.of(name));
            if (one == null) {
                throw new ParameterException(
                        spec.commandLine(), Terminal.plain(name) + " is no contract of a project here");
            }
            adopted.add(one);
        }
        if (adopted.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(), "there is no project with contracts here; next: protypos adopt CONTRACT");
        }
        return adopted;
    }
}
