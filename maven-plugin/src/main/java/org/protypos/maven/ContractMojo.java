package org.protypos.maven;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.inject.Inject;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugin.MojoExecutionException;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Parameter;
import org.apache.maven.project.MavenProject;
import org.eclipse.aether.RepositorySystem;
import org.protypos.change.Beside;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Setting;
import org.protypos.diagnostic.Severity;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Project;
import org.protypos.source.fetch.Remote;

/** What all goals have in common: where they are, how they tell what is wrong, and how they end. */
abstract class ContractMojo extends AbstractMojo {
    @Parameter(defaultValue = "${project}", readonly = true)
    private MavenProject project;

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    @Parameter(defaultValue = "${basedir}", readonly = true)
    private java.io.File basedir;

    /** Does nothing. */
    @Parameter(property = "protypos.skip", defaultValue = "false")
    private boolean skip;

    @Inject
    private RepositorySystem repositories;

    /** Something that can be wrong with a file or a server, beside what is wrong with a contract. */
    interface Work {
        void run() throws IOException, MojoFailureException;
    }

    @Override
    public final void execute() throws MojoExecutionException, MojoFailureException {
        if (skip) {
            getLog().info("skipped (protypos.skip)");
            return;
        }
        List<MojoFailureException> failed = new ArrayList<>();
        try {
            // Contracts nest and derive deeper than the threads of the build can follow.
            Beside.begin(() -> {
                        try {
                            work();
                        } catch (MojoFailureException e) {
                            failed.add(e);
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        }
                        return null;
                    })
                    .result();
        } catch (UncheckedIOException e) {
            throw new MojoExecutionException(e.getCause().getMessage(), e.getCause());
        }
        if (!failed.isEmpty()) {
            throw failed.get(0);
        }
    }

    /** What the goal does. */
    abstract void work() throws IOException, MojoFailureException;

    MavenProject project() {
        return project;
    }

    Path basedir() {
        return (basedir == null ? Path.of("") : basedir.toPath())
                .toAbsolutePath()
                .normalize();
    }

    boolean isOffline() {
        return session.isOffline();
    }

    Artifacts artifacts() {
        return new Artifacts(repositories, session, project);
    }

    /** Whether this module has a project file. */
    boolean hasProject() {
        return Files.isRegularFile(basedir().resolve(Project.FILE));
    }

    /** The contracts of the project file of this module: those of a name, or all when there is none. */
    List<AdoptedContract> adopted(String name) throws IOException, MojoFailureException {
        Project read = Project.read(basedir());
        List<AdoptedContract> all = new ArrayList<>();
        read.contracts().values().forEach(settings -> all.add(new AdoptedContract(read, settings)));
        if (name != null) {
            all.removeIf(contract -> !contract.settings().name().equals(name));
        }
        if (all.isEmpty()) {
            tell(read.findings());
            throw new MojoFailureException(
                    name == null
                            ? "no contract is adopted in " + basedir().resolve(Project.FILE)
                            : "there is no contract " + name + " in "
                                    + basedir().resolve(Project.FILE));
        }
        return all;
    }

    /** Finishes what a run that was broken off has left. */
    void mend() throws IOException {
        tell(Project.mend(basedir()));
    }

    /** A document as the core names it: an address as it is, a path from the folder of the module. */
    String document(String given) {
        return given.matches("(?i)https?://.*")
                ? given
                : basedir().resolve(given).normalize().toString();
    }

    /** Fetches nothing when the build is offline, and tells what it fetches. */
    Remote remote() {
        return (address, named) -> {
            if (isOffline()) {
                return "the build is offline";
            }
            getLog().info("fetching " + address);
            return null;
        };
    }

    /** Tells findings, each with its place first, so that editors lead there. */
    void tell(List<Finding> findings) {
        for (Finding finding : findings) {
            String text = place(finding) + finding.message() + " [" + finding.code() + "]"
                    + (finding.cure().isEmpty()
                            ? ""
                            : System.lineSeparator() + "  cure: "
                                    + Setting.in(finding.cure(), word -> "<" + word + ">"));
            if (finding.isError()) {
                getLog().error(text);
            } else if (finding.severity() == Severity.WARNING) {
                getLog().warn(text);
            } else {
                getLog().info(text);
            }
        }
    }

    private static String place(Finding finding) {
        return finding.place() == null
                ? ""
                : absolute(finding.place().document()) + ":" + finding.place().line() + ":"
                        + finding.place().column() + ": ";
    }

    /** A document that is a file by its whole path: the build may be in another folder than its reader. */
    static String absolute(String document) {
        Path path = document.matches("(?i)[a-z]{2,}:.*") ? null : Path.of(document);
        return path != null && Files.exists(path)
                ? path.toAbsolutePath().normalize().toString()
                : document;
    }

    /** Ends the goal for what was told. */
    static MojoFailureException refused(List<Finding> findings, String consequence) {
        long errors = findings.stream().filter(Finding::isError).count();
        return new MojoFailureException(errors + (errors == 1 ? " error: " : " errors: ") + consequence);
    }
}
