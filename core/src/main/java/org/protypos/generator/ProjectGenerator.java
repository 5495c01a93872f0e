package org.protypos.generator;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.protypos.naming.GivenNames;
import org.protypos.output.WriteReport;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Project;
import org.protypos.project.ProjectContract;

/**
 * Makes the code of contracts of one project: of all of them, or of none when one is at fault; and remembers the names
 * that their components have been given.
 */
public final class ProjectGenerator {
    /** How far it goes. */
    public enum Mode {
        /** Writes what is new. */
        WRITE,
        /** Tells what would be written. */
        PREVIEW,
        /** Tells what has drifted apart. */
        CHECK
    }

    /**
     * What came of the contracts.
     *
     * @param drift what is not as it would be generated, sorted; only when that was asked for, and all could be planned
     */
    public record Result(List<GeneratedCode> codes, List<Drift> drift) {
        /** Whether nothing was written because something is at fault. */
        public boolean isRefused() {
            return codes.stream().anyMatch(GeneratedCode::isRefused);
        }

        /** Whether it is known of all contracts what would be generated: a file that somebody has edited is drift then. */
        public boolean isPlanned() {
            return codes.stream().allMatch(code -> code.report() != null);
        }
    }

    private final List<AdoptedContract> adopted;
    private final List<Path> rules = new ArrayList<>();
    private String packageName;

    private ProjectGenerator(List<AdoptedContract> adopted) {
        this.adopted = List.copyOf(adopted);
    }

    /**
     * Of contracts of a project, in all languages that the project file wants each in.
     *
     * @param adopted at least one
     */
    public static ProjectGenerator of(List<AdoptedContract> adopted) {
        return new ProjectGenerator(adopted.stream()
                .flatMap(contract -> contract.editions().stream())
                .toList());
    }

    /** Lays rules over each of them, after those that the project gives it. */
    public ProjectGenerator rules(List<Path> files) {
        rules.addAll(files);
        return this;
    }

    /** Puts each of them, in its first language, into one package, whatever the project says; null leaves it as it is. */
    public ProjectGenerator packageName(String name) {
        packageName = name;
        return this;
    }

    /**
     * Makes the code.
     *
     * @param overwrite whether files of an earlier run are replaced even if somebody has edited them since
     * @throws IOException when a folder cannot be read or written
     */
    public Result run(Mode mode, boolean overwrite) throws IOException {
        boolean plain = rules.isEmpty() && packageName == null && mode != Mode.PREVIEW && isAllRemembered();
        List<GeneratedCode> same = plain ? same() : List.of();
        if (same.size() == adopted.size()) {
            return new Result(same, List.of());
        }
        List<GeneratedCode> codes = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            codes.add(Generator.of(contract)
                    .rules(rules)
                    .packageName(contract.isFirst() ? packageName : null)
                    .selection(contract.selection())
                    .generate(Order.of(contract)));
        }
        boolean previews = mode != Mode.WRITE;
        // Whether all of them can be written is known before the first is.
        if (previews || adopted.size() > 1) {
            for (int i = 0; i < codes.size(); i++) {
                codes.set(i, codes.get(i).written(true, overwrite));
            }
        }
        if (!previews && codes.stream().noneMatch(GeneratedCode::isRefused)) {
            for (int i = 0; i < codes.size(); i++) {
                codes.set(i, codes.get(i).written(false, overwrite));
            }
        }
        Result result = new Result(codes, mode == Mode.CHECK ? drift(codes) : List.of());
        if (!previews && !result.isRefused()) {
            remember(codes, plain);
        }
        return result;
    }

    /** Whether a run may have left a memory of each: what a scaffold needs is seen by planning alone. */
    private boolean isAllRemembered() {
        return adopted.stream()
                .allMatch(contract -> contract.settings().scaffold() == null
                        && contract.project().pinned(contract.settings().name()) != null);
    }

    /** The contracts of which nothing has changed since their code was made. */
    private List<GeneratedCode> same() throws IOException {
        List<GeneratedCode> same = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            WriteReport report = new LastRun(contract).same();
            if (report == null) {
                break;
            }
            same.add(GeneratedCode.unchanged(Order.of(contract), report));
        }
        return same;
    }

    private void remember(List<GeneratedCode> codes, boolean plain) throws IOException {
        adopted.get(0).project().remember(names(codes));
        if (plain) {
            for (AdoptedContract contract : adopted) {
                if (contract.project().drifted(contract.settings()).isEmpty()) {
                    new LastRun(contract).remember();
                }
            }
        }
    }

    private List<Drift> drift(List<GeneratedCode> codes) throws IOException {
        List<Drift> drift = new ArrayList<>();
        if (codes.stream().anyMatch(code -> code.report() == null)) {
            return drift;
        }
        for (GeneratedCode code : codes) {
            drift.addAll(Drift.of(code));
        }
        Project project = adopted.get(0).project();
        for (Map.Entry<String, List<GivenNames>> one : names(codes).entrySet()) {
            ProjectContract settings = project.contracts().get(one.getKey());
            project.drifted(settings).forEach(path -> drift.add(Drift.changed(path)));
            if (project.isRenamed(one.getKey(), one.getValue())) {
                drift.add(Drift.changed(settings.folder() + "/protypos.lock.json: names of " + one.getKey()));
            }
        }
        for (String stray : project.strays()) {
            drift.add(Drift.changed(Project.folderOf(stray) + ": pinned, and not in " + Project.FILE
                    + "; put it there again, or type protypos abandon " + stray));
        }
        return drift.stream().sorted().toList();
    }

    /** The names of each contract, in each language. */
    private Map<String, List<GivenNames>> names(List<GeneratedCode> codes) {
        Map<String, List<GivenNames>> names = new TreeMap<>();
        for (int i = 0; i < codes.size(); i++) {
            names.computeIfAbsent(adopted.get(i).settings().name(), any -> new ArrayList<>())
                    .add(codes.get(i).planned().code().names());
        }
        return names;
    }
}
