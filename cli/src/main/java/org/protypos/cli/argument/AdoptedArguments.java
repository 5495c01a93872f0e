package org.protypos.cli.argument;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.project.AdoptedContract;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Names adopted contracts on the command line. */
public final class AdoptedArguments {
    @Parameters(paramLabel = "NAME", arity = "0..*", description = "Adopted contracts; all if not given.")
    private List<String> names = new ArrayList<>();

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    /** The contracts that are named, all of the project when none is; at least one. */
    public List<AdoptedContract> all() throws IOException {
        List<AdoptedContract> adopted = AdoptedContract.all(Path.of(""), names);
        if (adopted == null || adopted.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(),
                    adopted == null
                            ? "not all of " + String.join(", ", names) + " are contracts of a project here"
                            : "there is no project with contracts here; next: protypos adopt CONTRACT");
        }
        return adopted;
    }
}
