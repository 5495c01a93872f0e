package org.protypos.cli.argument;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.contract.Contract;
import org.protypos.generator.Generator;
import org.protypos.project.AdoptedContract;

/** Says on the command line what a contract's components are to be called. */
public final class RuleArguments implements Described {
    private List<Path> rules = new ArrayList<>();

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.options(
                        Path.class,
                        "--rules",
                        "FILE",
                        "Rules and corrections in YAML or JSON, or binding declarations of Jakarta XML Binding"
                                + " and XML Web Services; may be given several times.")
                .into(value -> rules = value);
    }

    /** Whether no rules are given. */
    public boolean isEmpty() {
        return rules.isEmpty();
    }

    /** The files that are given. */
    public List<String> files() {
        return rules.stream().map(Path::toString).toList();
    }

    /** The files that are given, as paths. */
    public List<Path> paths() {
        return rules;
    }

    /** Gives more files, before those that are given. */
    public void add(List<String> files) {
        List<Path> all = new ArrayList<>(files.stream().map(Path::of).toList());
        all.addAll(rules);
        rules = all;
    }

    /** How to say the same on another command line. */
    public String again() {
        return rules.stream().map(file -> " --rules " + file).collect(Collectors.joining());
    }

    /**
     * A generator of a contract that has been read, with the rules of the project and then those that are given.
     *
     * @param adopted the contract as the project has it, or null when it is none of a project
     */
    public Generator generator(Contract contract, AdoptedContract adopted) {
        return Generator.of(adopted, contract).rules(rules);
    }
}
