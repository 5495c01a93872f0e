package org.protypos.project;

import java.util.ArrayList;
import java.util.List;
import org.protypos.diagnostic.Place;

/**
 * A contract as the project file has it.
 *
 * @param name what it is called
 * @param language the language of the code
 * @param folder where its documents are, relative to the project
 * @param packageName the package for everything, or null for one package for each namespace
 * @param rules files of rules and corrections, relative to the project
 * @param into the folder for the sources, relative to the project; null when the project file names none
 * @param produce what to write: types, client, server
 * @param scaffold the folder for a beginning of each implementation, relative to the project, or null
 * @param server where endpoints run: jdk or servlet
 * @param runtime whether the runtime is embedded or a library
 * @param form the form of the source where it has columns: fixed or free
 * @param services the services to generate, all when there are none; likewise ports and operations
 * @param also the same contract in further languages, each with settings of its own
 * @param place where the project file says so
 */
public record ProjectContract(
        String name,
        String language,
        String folder,
        String packageName,
        List<String> rules,
        String into,
        List<String> produce,
        String scaffold,
        String server,
        String runtime,
        String form,
        List<String> services,
        List<String> ports,
        List<String> operations,
        List<ProjectContract> also,
        Place place) {
    private static final String OTHERWISE = "generated";

    @Override
    public String into() {
        return into == null ? OTHERWISE : into;
    }

    /** The same with a folder for the sources, where the project file names none. */
    public ProjectContract orInto(String folder) {
        return into != null ? this : with(folder, also);
    }

    /** The same in its language alone. */
    public ProjectContract alone() {
        return with(into, List.of());
    }

    private ProjectContract with(String otherInto, List<ProjectContract> others) {
        return new ProjectContract(
                name,
                language,
                folder,
                packageName,
                rules,
                otherInto,
                produce,
                scaffold,
                server,
                runtime,
                form,
                services,
                ports,
                operations,
                others,
                place);
    }

    /** It in every language, the one that commands speak of first. */
    public List<ProjectContract> editions() {
        List<ProjectContract> all = new ArrayList<>(List.of(this));
        all.addAll(also);
        return all;
    }

    /** The languages that it is generated in. */
    List<String> languages() {
        return editions().stream().map(ProjectContract::language).toList();
    }
}
