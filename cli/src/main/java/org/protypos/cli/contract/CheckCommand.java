package org.protypos.cli.contract;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.binding.Suggestions;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ClashPrinter;
import org.protypos.constraint.ContractConstraints;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.generator.PlannedContract;
import org.protypos.naming.Clash;
import org.protypos.naming.NameRules;
import org.protypos.output.WholeFile;
import org.protypos.profile.Awkward;
import org.protypos.profile.Profile;
import org.protypos.profile.ProfileCheck;
import org.protypos.project.AdoptedContract;
import org.protypos.project.EditorSchema;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Tells everything that is wrong with a contract at once. */
public final class CheckCommand implements Command {
    private CommandSpec spec;
    private ContractArguments arguments = new ContractArguments();
    private LanguageArguments language = new LanguageArguments();
    private RuleArguments rules = new RuleArguments();
    private boolean json;
    private String packageName;
    private Path suggest;
    private List<String> profiles = new ArrayList<>();

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("check", "Tells everything that is wrong with a contract, with place and cure.");
        spec = syntax.spec();
        arguments.describe(syntax);
        language.describe(syntax);
        rules.describe(syntax);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
        syntax.option(String.class, "--package", "P", "The package or namespace of the code for everything.")
                .into(value -> packageName = value);
        syntax.option(
                        Path.class,
                        "--suggest",
                        "FILE",
                        "Writes rules that settle the clashes of names as they are settled now, and set the bounds that records"
                                + " have by custom, for you to change.")
                .into(value -> suggest = value);
        syntax.options(
                        String.class,
                        "--profile",
                        "NAME",
                        "Also tells where the contract does not keep a profile of the WS-I:"
                                + " ${COMPLETION-CANDIDATES}. May be repeated.")
                .words(profileNames())
                .into(value -> profiles = value);
    }

    @Override
    public Integer call() throws IOException {
        List<Profile> wanted = profiles.stream().map(this::profile).toList();
        Contract contract = arguments.read();
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        List<PlannedContract> plans = contract.isSound() ? plans(contract) : List.of();
        PlannedContract planned = plans.isEmpty() ? null : plans.get(0);
        Findings all = new Findings();
        all.addAll(
                planned == null
                        ? contract.findings()
                        : plans.stream()
                                .flatMap(plan -> plan.findings().stream())
                                .distinct()
                                .toList());
        all.addAll(ContractConstraints.of(contract));
        if (planned != null) {
            wanted.forEach(profile -> all.addAll(ProfileCheck.of(contract, profile)));
        }
        if (planned != null && !language.arguments().isEmpty()) {
            all.addAll(Awkward.of(contract, planned.target().title()));
        }
        List<Finding> findings = all.sorted();
        int status = planned == null
                ? ContractArguments.status(contract)
                : areSound(plans) && !all.hasErrors() ? ExitStatus.DONE : ExitStatus.CONTRACT;
        // Before the file is written, for a new one gets more.
        List<ProposedRule> others = suggest == null || planned == null ? List.of() : others(planned);
        if (suggest != null && planned != null && !write(terminal, planned, others)) {
            return ExitStatus.CONTRACT;
        }
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeBooleanField("sound", status == ExitStatus.DONE);
                document.writeNumberField(
                        "documents", contract.documents().all().size());
                Json.findings(document, findings);
                if (planned != null) {
                    new ClashPrinter(plans).json(document);
                }
            });
        } else {
            text(terminal.out(), contract, plans, findings, others.size());
        }
        return status;
    }

    /**
     * The plans for the language that is given, or else for all that the project file wants the contract in. Rules are
     * suggested for one: a name that has to be chosen in one language need not be in another.
     */
    private List<PlannedContract> plans(Contract contract) {
        AdoptedContract adopted = arguments.adopted();
        List<AdoptedContract> editions = adopted == null || language.target() != null || suggest != null
                ? Collections.singletonList(adopted)
                : adopted.editions();
        return editions.stream()
                .map(edition -> rules.generator(contract, edition)
                        .target(language.target())
                        .packageName(edition == null || edition.isFirst() ? packageName : null)
                        .plan())
                .toList();
    }

    private static boolean areSound(List<PlannedContract> plans) {
        return !plans.isEmpty() && plans.stream().allMatch(PlannedContract::isSound);
    }

    private Profile profile(String name) {
        return Stream.of(Profile.values())
                .filter(profile -> profile.key().equals(name))
                .findFirst()
                .orElseThrow(() -> new ParameterException(
                        spec.commandLine(),
                        "--profile: there is no profile " + name + "; the profiles are "
                                + String.join(", ", profileNames())));
    }

    private static List<String> profileNames() {
        return Stream.of(Profile.values()).map(Profile::key).toList();
    }

    private void text(
            PrintWriter out, Contract contract, List<PlannedContract> plans, List<Finding> findings, int others) {
        new FindingPrinter(out).print(findings);
        new ClashPrinter(plans).text(out);
        int documents = contract.documents().all().size();
        int clashes =
                plans.stream().mapToInt(plan -> plan.code().clashes().size()).sum();
        boolean sound = areSound(plans);
        out.println(FindingPrinter.summary(findings)
                + (clashes == 0 ? "" : ", " + clashes + (clashes == 1 ? " clash" : " clashes") + " of names")
                + (documents == 0 ? "" : " in " + Terminal.counted(documents, "document")));
        String names = String.join(" ", arguments.names()) + language.again() + rules.again();
        if (suggest != null && sound && clashes + others == 0) {
            out.println(
                    "nothing is to be settled" + (Files.exists(suggest) ? "" : "; " + suggest + " was not written"));
        }
        if (suggest != null && !plans.isEmpty() && clashes + others > 0) {
            out.println("next: look at " + suggest + " and give it to other commands with --rules " + suggest);
        } else if (clashes > 0 && sound) {
            out.println("next: protypos generate " + names + arguments.into() + ", or first protypos check " + names
                    + " --suggest names.yaml to choose the names yourself");
        } else if (sound) {
            out.println("next: protypos generate " + names + arguments.into());
        }
    }

    /** The rules beside those about names. What nobody has set is proposed to a new file, or to one that is in use. */
    private List<ProposedRule> others(PlannedContract planned) {
        List<ProposedRule> others = new ArrayList<>(planned.declared());
        if (!Files.exists(suggest) || rules.files().contains(suggest.toString())) {
            others.addAll(planned.code().proposed());
        }
        return others;
    }

    /** Writes or extends the file of rules; whole or not at all. */
    private boolean write(Terminal terminal, PlannedContract planned, List<ProposedRule> declared) throws IOException {
        List<Clash> clashes = planned.code().choices();
        if (clashes.isEmpty() && declared.isEmpty()) {
            return true;
        }
        String text;
        if (Files.exists(suggest)) {
            NameRules names = planned.target().rules();
            Rules known = RuleReader.read(List.of(suggest), names);
            List<ProposedRule> added =
                    declared.stream().filter(rule -> !known.say(rule, names)).toList();
            if (clashes.isEmpty() && added.isEmpty()) {
                return true;
            }
            Optional<String> merged = Suggestions.merged(
                    GivenFile.text(suggest, suggest.toString()).text(), known.prefixes(), clashes, added);
            if (merged.isEmpty()) {
                terminal.problem(
                        "the rules in " + suggest + " are not written as a list with a line for each",
                        "write \"rules:\" on a line of its own, or name another file");
                return false;
            }
            text = merged.get();
        } else {
            text = EditorSchema.RULES.lineOf(suggest) + Suggestions.file(clashes, declared);
        }
        Files.createDirectories(suggest.toAbsolutePath().getParent());
        WholeFile.write(suggest, text);
        return true;
    }
}
