package org.protypos.generator;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.change.Comparison;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Adoption;
import org.protypos.project.PinnedContract;
import org.protypos.project.PinnedDocument;
import org.protypos.project.Project;
import org.protypos.source.Document;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.fetch.Remote;

/**
 * An adopted contract beside what its documents are now where they came from. Looking changes nothing; what is there can be
 * taken afterwards.
 */
public final class Refresh {
    /** What there is. */
    public enum State {
        /** The contract has no lock file that could be read. */
        LOST,
        /** Nothing says where the documents came from. */
        NOWHERE,
        /** Not even the documents that were named could be had. */
        UNREACHABLE,
        /** What is there now is at fault, by itself or by the rules of the project. */
        REFUSED,
        /** The pinned documents were altered, and what is there now is what was pinned. */
        ALTERED,
        /** The pinned documents are not whole, so that nobody can say what has changed. */
        UNKNOWN,
        /** Nothing has changed. */
        UNCHANGED,
        /** It has changed. */
        CHANGED
    }

    private final AdoptedContract old;
    private final List<String> origins;
    private final Path catalog;
    private State state;
    private Contract fetched;
    private PlannedContract planned;
    private Comparison.Result comparison;
    private List<Finding> findings = List.of();

    private Refresh(AdoptedContract old, List<String> origins, Path catalog) {
        this.old = old;
        this.origins = origins;
        this.catalog = catalog;
    }

    /**
     * Looks what is there.
     *
     * @param from where it is now, or nothing when it is where it was
     * @param remote asked before something is fetched
     * @throws IOException when the files of the project cannot be read
     */
    public static Refresh look(AdoptedContract old, List<String> from, Remote remote) throws IOException {
        PinnedContract pinned = old.project().pinned(old.settings().name());
        if (pinned == null) {
            Refresh lost = new Refresh(old, from, null);
            return lost.as(State.LOST, old.read().findings());
        }
        Path root = old.project().root();
        List<String> origins = !from.isEmpty()
                ? from
                : pinned.origins().stream()
                        .map(origin -> origin.matches("(?i)https?://.*")
                                ? origin
                                : AdoptedContract.near(root.resolve(origin).normalize())
                                        .toString())
                        .toList();
        Path catalog =
                pinned.catalog() == null ? null : root.resolve(pinned.catalog()).normalize();
        Refresh refresh = new Refresh(old, origins, catalog);
        return origins.isEmpty() ? refresh.as(State.NOWHERE, List.of()) : refresh.look(pinned, remote);
    }

    private Refresh as(State what, List<Finding> told) {
        state = what;
        findings = told;
        return this;
    }

    private Refresh look(PinnedContract pinned, Remote remote) throws IOException {
        fetched = ContractReader.read(DocumentGatherer.gather(origins, catalog, remote));
        if (!fetched.isSound()) {
            boolean reached = !fetched.documents().entries().isEmpty();
            return as(reached ? State.REFUSED : State.UNREACHABLE, fetched.findings());
        }
        boolean altered = !old.project().drifted(old.settings()).isEmpty();
        if (altered && hashes(pinned).equals(hashes(fetched))) {
            return as(State.ALTERED, List.of());
        }
        if (hashes(old.read()).equals(hashes(fetched))) {
            return as(State.UNCHANGED, List.of());
        }
        planned = plan(old, fetched, true);
        PlannedContract loose = planned.isSound() ? planned : plan(old, fetched, false);
        if (!loose.isSound()) {
            return as(State.REFUSED, planned.findings());
        }
        Contract before = old.read();
        if (!before.isSound()) {
            return as(State.UNKNOWN, List.of());
        }
        PlannedContract was = plan(old, before, false);
        comparison = Comparison.of(was.contract(), loose.contract(), was.surface(), loose.surface());
        // Rules that have lost what they were about are told beside the differences.
        return as(State.CHANGED, planned.isSound() ? List.of() : planned.findings());
    }

    /** Plans it as the project wants it; where it says so, every rule is to be about something. */
    private static PlannedContract plan(AdoptedContract adopted, Contract contract, boolean strict) {
        Generator generator = Generator.of(adopted, contract).selection(adopted.selection());
        return (strict ? generator : generator.lenient()).plan();
    }

    private static List<String> hashes(Contract contract) {
        return contract.documents().all().stream().map(Document::hash).sorted().toList();
    }

    private static List<String> hashes(PinnedContract pinned) {
        return pinned.documents().stream().map(PinnedDocument::hash).sorted().toList();
    }

    /** What there is. */
    public State state() {
        return state;
    }

    /** The contract as the project has it. */
    public AdoptedContract old() {
        return old;
    }

    /** The contract as it is now; null when nothing could be asked. */
    public Contract fetched() {
        return fetched;
    }

    /** How it has changed; null unless it has. */
    public Comparison.Result comparison() {
        return comparison;
    }

    /** Why it cannot be taken; empty when it can. */
    public List<Finding> findings() {
        return findings;
    }

    /**
     * What stands in the way of the code that would be made.
     *
     * @return the code as it would be written, in each language, with what is to be said of it
     * @throws IOException when its folder cannot be read
     */
    public List<GeneratedCode> preview(boolean overwrite) throws IOException {
        List<GeneratedCode> codes = new ArrayList<>();
        for (AdoptedContract edition : old.editions()) {
            PlannedContract code = edition.equals(old) ? planned : plan(edition, fetched, true);
            codes.add(Generator.generate(Order.of(edition), code).written(true, overwrite));
        }
        return codes;
    }

    /**
     * Pins the documents as they are now.
     *
     * @throws IOException when the project cannot be written; then nothing of it has changed
     */
    public void pin() throws IOException {
        Adoption.adopt(
                old.project(),
                old.settings().name(),
                origins,
                catalog == null ? null : catalog.toString(),
                fetched.documents(),
                null,
                List.of());
    }

    /**
     * Makes the code of what is pinned now: places in it and its remarks are those of the copies.
     *
     * @throws IOException when a folder cannot be read or written
     */
    public List<GeneratedCode> generate(boolean overwrite) throws IOException {
        Project project = Project.around(old.project().root());
        AdoptedContract adopted = new AdoptedContract(
                project, project.contracts().get(old.settings().name()));
        return ProjectGenerator.of(List.of(adopted))
                .run(ProjectGenerator.Mode.WRITE, overwrite)
                .codes();
    }
}
