package org.protypos.generator;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.api.Api;
import org.protypos.api.ApiBuilder;
import org.protypos.binding.DeclaredRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.binding.declared.DeclarationReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Publication;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.GivenNames;
import org.protypos.project.AdoptedContract;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.LoweredApi;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import org.protypos.target.Wishes;

/**
 * From a contract to code: the door for all who use the core as a library, the command line and the build plugins among
 * them.
 *
 * <p>A contract that lies in files, as somebody wants it, with the code written into a folder:
 *
 * <pre>{@code
 * Contract contract = ContractReader.read(DocumentGatherer.gather(List.of("desk.wsdl"), null));
 * GeneratedCode code = Generator.of(contract)
 *         .rules(List.of(Path.of("rules.yaml")))
 *         .packageName("bay.desk")
 *         .generate(Order.into(Path.of("generated")))
 *         .written(false, false);
 * code.findings().forEach(finding -> ...);   // errors among them: nothing was written
 * code.report().added();                     // the files that are new, by their paths in the folder
 * }</pre>
 *
 * <p>A contract of a project, with the rules, names and settings that the project has for it, is
 * {@code Generator.of(adopted)}; all of a project, or none, and what is to be remembered of them, is
 * {@link ProjectGenerator}. Nothing here prints, and nothing fails for what is wrong with a contract or a rule: that is
 * told as {@linkplain org.protypos.diagnostic.Finding findings}, all at once.
 *
 * <p>A generator is set up by one thread and asked as often as one likes.
 */
public final class Generator {
    private final Contract whole;
    private final AdoptedContract adopted;
    private final List<Path> rules = new ArrayList<>();
    private final Place place;
    private List<Path> rulesOfProject = List.of();
    private Selection selection = new Selection(List.of(), List.of(), List.of());
    private GivenNames past = GivenNames.NONE;
    private Rules given;
    private String packageName;
    private Target target = Targets.standard();
    private boolean strict = true;

    private Generator(Contract whole, AdoptedContract adopted) {
        this.whole = whole;
        this.adopted = adopted;
        this.place = adopted == null ? null : adopted.settings().place();
        if (adopted != null) {
            settle(adopted);
        }
    }

    /** Takes what the project file says of the contract in a language. */
    private void settle(AdoptedContract edition) {
        rulesOfProject = edition.rules();
        past = edition.names();
        packageName = edition.settings().packageName();
        target = Targets.named(edition.settings().language());
    }

    /** Of a contract that has been read, sound or not. */
    public static Generator of(Contract contract) {
        return new Generator(contract, null);
    }

    /** Of documents, or addresses of documents, that make one contract. */
    public static Generator of(List<String> documents) {
        return of(ContractReader.read(DocumentGatherer.gather(documents, null)));
    }

    /** Of a contract of a project, read from its pinned documents. */
    public static Generator of(AdoptedContract adopted) {
        return of(adopted, adopted.read());
    }

    /**
     * Of a contract that has been read, as a project has it.
     *
     * @param adopted the contract in the project, or null when it is in none
     */
    public static Generator of(AdoptedContract adopted, Contract contract) {
        return new Generator(contract, adopted);
    }

    /** Lays rules and corrections, and binding declarations, over it, after those that it has. */
    public Generator rules(List<Path> files) {
        rules.addAll(files);
        return this;
    }

    /** Lays rules over it that have been read already, instead of files of rules. */
    public Generator rules(Rules read) {
        given = read;
        return this;
    }

    /** Puts everything into one package; null leaves it as it was. */
    public Generator packageName(String name) {
        if (name != null) {
            packageName = name;
        }
        return this;
    }

    /** Makes code of a language, as its project wants it in that when it does; null leaves it as it was. */
    public Generator target(Target language) {
        if (language != null && adopted != null) {
            settle(adopted.in(language.name()));
        }
        if (language != null) {
            target = language;
        }
        return this;
    }

    /** Takes a part of it. */
    public Generator selection(Selection part) {
        selection = part;
        return this;
    }

    /** Lets rules be that are about nothing in the contract. */
    public Generator lenient() {
        strict = false;
        return this;
    }

    /** The contract as the rules correct it, for who has no use for what else they say. */
    public Contract corrected(Findings wrong) {
        if (rules.isEmpty() && rulesOfProject.isEmpty() && given == null) {
            return whole;
        }
        Laid laid = laid(whole);
        Contract corrected = laid.rules().correct(whole);
        wrong.addAll(laid.declarations().findings());
        wrong.addAll(laid.rules().findings(false));
        return corrected;
    }

    /** Plans the API of the contract, which is sound. */
    public PlannedContract plan() {
        Findings findings = new Findings();
        unmatched(findings);
        Contract contract = selection.of(whole);
        Laid laid = laid(contract);
        Contract corrected = laid.rules().correct(contract);
        Api api = ApiBuilder.build(corrected, laid.rules());
        LoweredApi code = target.lower(api, new Wishes(laid.rules(), past, packageName));
        findings.addAll(contract.findings());
        findings.addAll(api.findings());
        findings.addAll(code.findings());
        findings.addAll(laid.declarations().findings());
        findings.addAll(laid.rules().findings(strict && contract == whole));
        return new PlannedContract(
                contract,
                corrected,
                api,
                target,
                code,
                laid.rules(),
                DeclaredRule.joined(laid.declarations().rules()),
                findings.sorted());
    }

    /** What is selected and is not there. */
    private void unmatched(Findings findings) {
        for (Selection.Unmatched unmatched : selection.unmatched(whole)) {
            findings.error("nothing-selected", place, unmatched.message(), unmatched.cure());
        }
    }

    /** Makes the code, and writes nothing; of a contract at fault there is none. */
    public GeneratedCode generate(Order order) {
        return whole.isSound() ? generate(order, plan()) : GeneratedCode.refused(order, whole.findings());
    }

    /** Makes the code of a contract that has been planned. */
    public static GeneratedCode generate(Order order, PlannedContract planned) {
        Target target = planned.target();
        Findings lacking = new Findings();
        Set<Product> had = EnumSet.copyOf(order.products());
        for (Product product : order.products()) {
            if (target.products().contains(product)) {
                continue;
            }
            String lack =
                    "in " + target.title() + " there is no " + product.words().replaceFirst("^an? ", "");
            if (product.isAskedByCustom()) {
                had.remove(product);
                lacking.note("language-lacks", null, lack + "; it is left out", "");
            } else {
                lacking.error("language-lacks", null, lack, "leave it out, or generate in another language");
            }
        }
        List<Finding> findings = new ArrayList<>(planned.findings());
        findings.addAll(lacking.sorted());
        if (!planned.isSound() || lacking.hasErrors()) {
            return GeneratedCode.refused(order, findings);
        }
        List<SourceFile> files = planned.code().emit(had, order.embedded(), () -> Publication.of(planned.published()));
        return new GeneratedCode(order, planned, files, null, findings);
    }

    /** Rules that have been read, and the declarations that some of them stand for. */
    private record Laid(Rules rules, DeclarationReader.Declarations declarations) {}

    private Laid laid(Contract contract) {
        Map<Boolean, List<Path>> byKind = Stream.concat(rulesOfProject.stream(), rules.stream())
                .collect(Collectors.partitioningBy(DeclarationReader::isXml));
        DeclarationReader.Declarations declarations = DeclarationReader.read(byKind.get(true), contract);
        return new Laid(
                given != null ? given : RuleReader.read(byKind.get(false), declarations.rules(), target.rules()),
                declarations);
    }
}
