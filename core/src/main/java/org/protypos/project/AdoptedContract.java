package org.protypos.project;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.GivenNames;
import org.protypos.source.Documents;

/**
 * A contract of a project.
 *
 * @param settings what the project file says of it
 */
public record AdoptedContract(Project project, ProjectContract settings) {
    /**
     * The adopted contract that an argument names, or null; a file of that name comes first.
     *
     * @param folder the folder that the project lies around
     * @throws IOException when the files of the project cannot be read
     */
    public static AdoptedContract named(Path folder, List<String> arguments) throws IOException {
        if (arguments.size() != 1
                || !arguments.get(0).matches("[A-Za-z0-9._-]+")
                || Files.exists(folder.resolve(arguments.get(0)))) {
            return null;
        }
        Project project = Project.around(folder);
        ProjectContract settings = project == null ? null : project.contracts().get(arguments.get(0));
        return settings == null ? null : new AdoptedContract(project, settings);
    }

    /**
     * The adopted contracts that arguments name, all of the project when there are no arguments; null when an argument names
     * none, so that it is a document.
     *
     * @param folder the folder that the project lies around
     * @throws IOException when the files of the project cannot be read
     */
    public static List<AdoptedContract> all(Path folder, List<String> arguments) throws IOException {
        List<AdoptedContract> all = new ArrayList<>();
        if (arguments.isEmpty()) {
            Project project = Project.around(folder);
            if (project != null) {
                project.contracts().values().forEach(settings -> all.add(new AdoptedContract(project, settings)));
            }
            return all;
        }
        for (String argument : arguments) {
            AdoptedContract adopted = named(folder, List.of(argument));
            if (adopted == null) {
                return null;
            }
            all.add(adopted);
        }
        return all;
    }

    /** Reads it from its pinned documents; what is wrong with the project file is told with it. */
    public Contract read() {
        Documents documents = project.documents(settings);
        List<Finding> findings = new ArrayList<>(project.findings());
        findings.addAll(documents.findings());
        return ContractReader.read(
                new Documents(documents.entries(), documents.all(), documents.links(), documents.missing(), findings));
    }

    /** The files of rules that the project file gives it. */
    public List<Path> rules() {
        return settings.rules().stream()
                .map(project.root()::resolve)
                .map(AdoptedContract::near)
                .toList();
    }

    /** The part of it that the project file wants code for. */
    public Selection selection() {
        return new Selection(settings.services(), settings.ports(), settings.operations());
    }

    /** The folder that its code goes into. */
    public Path into() {
        return near(project.root().resolve(settings.into()));
    }

    /** A path as somebody in the current folder would write it. */
    public static Path near(Path path) {
        Path here = Path.of("").toAbsolutePath();
        return path.isAbsolute() && path.startsWith(here) ? here.relativize(path) : path;
    }

    /** The names that its components have in its language. */
    public GivenNames names() {
        return project.pinned(settings.name()) == null
                ? GivenNames.NONE
                : project.pinned(settings.name()).names().in(settings.language());
    }

    /** It in every language that the project file wants it in. */
    public List<AdoptedContract> editions() {
        return settings.editions().stream()
                .map(edition -> new AdoptedContract(project, edition))
                .toList();
    }

    /** It in a language; when the project file does not want it in that, as it stands there first. */
    public AdoptedContract in(String language) {
        return editions().stream()
                .filter(edition -> edition.settings().language().equals(language))
                .findFirst()
                .orElse(this);
    }

    /** Whether it is in the language that stands first. */
    public boolean isFirst() {
        return settings.language()
                .equals(project.contracts().get(settings.name()).language());
    }

    /** Whose files in an output folder are those of this language. */
    public String owner() {
        return isFirst() ? settings.name() : settings.name() + " " + settings.language();
    }
}
