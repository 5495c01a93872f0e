package org.protypos.maven;

import java.io.IOException;
import java.util.List;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.project.Adoption;
import org.protypos.project.Project;
import org.protypos.source.DocumentGatherer;

/** Takes a contract into the project as pinned copies of its documents. */
@Mojo(name = "adopt", threadSafe = true)
public final class AdoptMojo extends ContractMojo {
    /** The documents of the contract: files, folders, archives, http(s) addresses. */
    @Parameter(property = "protypos.contract", required = true)
    private List<String> contract;

    /** What to call it. */
    @Parameter(property = "protypos.name", required = true)
    private String name;

    /** An OASIS XML catalog that maps addresses and namespaces to local documents. */
    @Parameter(property = "protypos.catalog")
    private java.io.File catalog;

    @Override
    void work() throws IOException, MojoFailureException {
        if (!name.matches("[A-Za-z0-9][A-Za-z0-9._-]{0,63}")) {
            throw new MojoFailureException("name: \"" + name + "\" is no name: use letters, digits, dots and hyphens");
        }
        mend();
        Project project = Project.read(basedir());
        if (project.contracts().containsKey(name) && project.pinned(name) != null) {
            throw new MojoFailureException("the project has a contract " + name
                    + " already; next: mvn protypos:refresh -Dprotypos.name=" + name);
        }
        List<String> documents = contract.stream().map(this::document).toList();
        Contract read = ContractReader.read(
                DocumentGatherer.gather(documents, catalog == null ? null : catalog.toPath(), remote()));
        tell(project.findings());
        tell(read.findings());
        if (!read.isSound() || !project.findings().isEmpty()) {
            throw refused(read.findings(), "nothing was adopted");
        }
        List<String> copies = Adoption.adopt(
                project,
                name,
                documents,
                catalog == null ? null : catalog.toString(),
                read.documents(),
                null,
                List.of());
        getLog().info(name + ": " + copies.size() + (copies.size() == 1 ? " document" : " documents") + " pinned");
        copies.forEach(copy -> getLog().info("  " + copy));
        getLog().info("next: look at " + Project.FILE + ", and let the build run the goal generate");
    }
}
