package org.protypos.project;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.diagnostic.GivenFile;
import org.protypos.output.Staging;

/** Takes a contract out of a project: its pinned copies, its entry in the project file, and what the lock file says of it. */
public final class Abandonment {
    private Abandonment() {}

    /**
     * Abandons a contract. Its generated code is not looked at.
     *
     * @return the paths of the copies that are gone, relative to the project
     * @throws IOException when the project cannot be written; then nothing of it has changed
     */
    public static List<String> abandon(Project project, ProjectContract contract) throws IOException {
        List<String> gone = new ArrayList<>();
        PinnedContract pinned = project.pinned(contract.name());
        for (PinnedDocument document : pinned == null ? List.<PinnedDocument>of() : pinned.documents()) {
            gone.add(contract.folder() + "/" + document.path());
        }
        try (Staging staging = Staging.into(project.root())) {
            Path file = project.root().resolve(Project.FILE);
            String text = GivenFile.text(file, Project.FILE).text();
            staging.write(Project.FILE, without(contract.name(), text).getBytes(StandardCharsets.UTF_8));
            List<String> removed = new ArrayList<>(gone);
            removed.add(ProjectLock.path(contract.folder()));
            removed.add(contract.folder() + "/" + Adoption.ATTRIBUTES);
            staging.commit(removed.stream()
                    .filter(path -> Files.isRegularFile(project.root().resolve(path)))
                    .toList());
        }
        return gone;
    }

    /**
     * Gives a contract another name. Its folder goes with it when it is called after it.
     *
     * @throws IOException when the project cannot be written; then nothing of it has changed
     */
    public static void rename(Project project, ProjectContract contract, String name) throws IOException {
        List<String> gone = new ArrayList<>();
        boolean moves = contract.folder().equals(Project.folderOf(contract.name()));
        try (Staging staging = Staging.into(project.root())) {
            if (moves) {
                List<String> paths = new ArrayList<>(List.of(ProjectLock.FILE, Adoption.ATTRIBUTES));
                project.pinned(contract.name()).documents().forEach(document -> paths.add(document.path()));
                for (String path : paths) {
                    Path file = project.root().resolve(contract.folder()).resolve(path);
                    if (Files.isRegularFile(file)) {
                        staging.write(Project.folderOf(name) + "/" + path, Files.readAllBytes(file));
                        gone.add(contract.folder() + "/" + path);
                    }
                }
            }
            Path file = project.root().resolve(Project.FILE);
            String text = GivenFile.text(file, Project.FILE).text();
            String key = "(?m)^([ \\t]+)[\"']?" + Pattern.quote(contract.name()) + "[\"']?:(?=[ \\t]*(#.*)?$)";
            String renamed = text.replaceFirst(key, "$1" + Matcher.quoteReplacement(name) + ":");
            if (renamed.equals(text)) {
                throw new IOException(Project.FILE + " does not name " + contract.name() + " on a line of its own");
            }
            staging.write(Project.FILE, renamed.getBytes(StandardCharsets.UTF_8));
            staging.commit(gone);
        }
    }

    /** The text of a project file without the lines of a contract: its key, and all that is indented more. */
    private static String without(String name, String text) {
        StringBuilder kept = new StringBuilder();
        int inside = -1;
        for (String line : text.split("(?<=\n)")) {
            String plain = line.stripTrailing();
            int indent = plain.length() - plain.stripLeading().length();
            boolean ends = inside >= 0 && !plain.isEmpty() && indent <= inside;
            inside = ends ? -1 : inside;
            String key = plain.strip();
            boolean own = key.equals(name + ":")
                    || key.startsWith(name + ": ")
                    || key.startsWith("\"" + name + "\":")
                    || key.startsWith("'" + name + "':");
            if (inside < 0 && indent > 0 && own) {
                inside = indent;
            }
            if (inside < 0) {
                kept.append(line);
            }
        }
        return kept.toString();
    }
}
