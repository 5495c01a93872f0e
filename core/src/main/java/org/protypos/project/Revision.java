package org.protypos.project;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Takes an adopted contract as it was at a revision under version control, into a folder that goes with the process. */
public final class Revision {
    private static final int PATIENCE_SECONDS = 30;

    private final Path root;
    private final String revision;
    private final Path copy;

    private Revision(Path root, String revision, Path copy) {
        this.root = root;
        this.revision = revision;
        this.copy = copy;
    }

    /**
     * Takes a contract.
     *
     * @param name what it was called
     * @throws IOException when the project is not under version control, or the contract was not there
     */
    public static AdoptedContract of(Project project, String name, String revision) throws IOException {
        Path copy = Files.createTempDirectory("protypos-revision");
        Revision taken = new Revision(project.root(), revision, copy);
        try {
            taken.take(Project.FILE);
            ProjectContract settings = Project.read(copy, revision).contracts().get(name);
            if (settings != null) {
                taken.takeIfThere(settings.folder() + "/protypos.lock.json");
            }
            Project then = Project.read(copy, revision);
            PinnedContract pinned = then.pinned(name);
            if (settings == null || pinned == null) {
                throw new IOException("there was no contract " + name + " at " + revision);
            }
            for (PinnedDocument document : pinned.documents()) {
                taken.take(settings.folder() + "/" + document.path());
            }
            settings.rules().forEach(taken::takeIfThere);
            return new AdoptedContract(then, settings);
        } finally {
            taken.deleteAtExit();
        }
    }

    /** The text of a file as it was at a revision, or null when there is none, or no version control. */
    public static String text(Path root, String revision, String path) throws IOException {
        Process git;
        try {
            git = new ProcessBuilder("git", "-C", root.toString(), "show", revision + ":./" + path)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
        } catch (IOException e) {
            // Without version control there is nothing that it knows.
            return null;
        }
        try {
            String text = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return git.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS) && git.exitValue() == 0 ? text : null;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } finally {
            git.destroy();
        }
    }

    private void takeIfThere(String path) {
        try {
            take(path);
        } catch (IOException e) {
            // A file of rules that was not there is told when the rules are read.
        }
    }

    private void take(String path) throws IOException {
        Path target = copy.resolve(path).normalize();
        if (!target.startsWith(copy) || revision.startsWith("-")) {
            throw new IOException(path + " lies outside of the project");
        }
        Files.createDirectories(target.getParent());
        List<String> command = new ArrayList<>(List.of("git", "-C", root.toString(), "show", revision + ":./" + path));
        Process git = new ProcessBuilder(command)
                .redirectOutput(target.toFile())
                .redirectError(ProcessBuilder.Redirect.PIPE)
                .start();
        try {
            String complaint = new String(git.getErrorStream().readNBytes(2_000), StandardCharsets.UTF_8);
            if (!git.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS) || git.exitValue() != 0) {
                throw new IOException(complaint.lines().findFirst().orElse("git gives no " + path + " of " + revision));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } finally {
            git.destroy();
        }
    }

    /** Folders go after what is in them, so they are named first. */
    private void deleteAtExit() throws IOException {
        try (var paths = Files.walk(copy)) {
            paths.forEach(path -> path.toFile().deleteOnExit());
        }
    }
}
