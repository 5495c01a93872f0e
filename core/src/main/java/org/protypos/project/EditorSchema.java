package org.protypos.project;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import org.protypos.diagnostic.GivenFile;
import org.protypos.output.Staging;

/**
 * The JSON Schemas of the files that people write, and the first line of such a file that leads editors to its schema. The
 * schemas lie in the project, so that the line is the same on every machine and nothing is fetched.
 */
public enum EditorSchema {
    PROJECT("/org/protypos/project/project.schema.json", true),
    RULES("/org/protypos/binding/rules.schema.json", true),
    ANSWERS("/org/protypos/exchange/answers.schema.json", true),
    DECISIONS("/org/protypos/infer/decisions.schema.json", false),
    SKETCH("/org/protypos/draft/sketch.schema.json", false);

    /** The folder of the project in which the schemas lie. */
    static final String FOLDER = ".protypos";

    private static final int LOOKED_AT = 10;

    private final String resource;

    /** Whether such files are a project's, so that it has the schema; others are there before there is a project. */
    private final boolean liesInProjects;

    EditorSchema(String resource, boolean liesInProjects) {
        this.resource = resource;
        this.liesInProjects = liesInProjects;
    }

    /** What it is called on a command line. */
    public String title() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The schema. */
    public String text() {
        try (InputStream in = EditorSchema.class.getResourceAsStream(resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where it lies in a project. */
    String path() {
        return FOLDER + "/" + title() + ".schema.json";
    }

    /**
     * The first line of a file of this kind.
     *
     * @param file its path in the project
     */
    String line(String file) {
        String up = "../".repeat((int) file.chars().filter(c -> c == '/').count());
        return "# yaml-language-server: $schema=" + up + path() + "\n";
    }

    /**
     * The first line of a new file of this kind; nothing outside of a project that has the schemas.
     *
     * @throws IOException when the project around the file cannot be read
     */
    public String lineOf(Path file) throws IOException {
        Path absolute = file.toAbsolutePath().normalize();
        Project around = Project.around(absolute.getParent());
        return around == null || !Files.isRegularFile(around.root().resolve(path()))
                ? ""
                : line(around.root().relativize(absolute).toString().replace('\\', '/'));
    }

    /** Puts the schemas that are missing or old into a project that is being written. */
    static void stage(Staging staging, Path root) throws IOException {
        for (EditorSchema schema : values()) {
            if (!schema.liesInProjects) {
                continue;
            }
            byte[] bytes = schema.text().getBytes(StandardCharsets.UTF_8);
            Path there = root.resolve(schema.path());
            if (!Files.isRegularFile(there) || !Arrays.equals(Files.readAllBytes(there), bytes)) {
                staging.write(schema.path(), bytes);
            }
        }
    }

    /**
     * Gives the project file and the YAML files of rules that lie in the project their first line, where they have none,
     * and the schemas.
     *
     * @return the files that got one, relative to the project
     * @throws IOException when one of them cannot be read or written; then nothing has changed
     */
    public static List<String> lead(Project project) throws IOException {
        List<String> led = new ArrayList<>();
        Set<String> rules = new TreeSet<>();
        project.contracts().values().forEach(contract -> rules.addAll(contract.rules()));
        rules.removeIf(file -> !file.matches("(?i).*\\.ya?ml")
                || !project.root().resolve(file).normalize().startsWith(project.root())
                || file.contains(".."));
        try (Staging staging = Staging.into(project.root())) {
            lead(staging, project.root(), Project.FILE, PROJECT, led);
            for (String file : rules) {
                lead(staging, project.root(), file, RULES, led);
            }
            stage(staging, project.root());
            staging.commit(List.of());
        }
        return led;
    }

    private static void lead(Staging staging, Path root, String file, EditorSchema schema, List<String> led)
            throws IOException {
        if (!Files.isRegularFile(root.resolve(file))) {
            return;
        }
        String text = GivenFile.text(root.resolve(file), file).text();
        if (text.lines().limit(LOOKED_AT).noneMatch(line -> line.contains("$schema"))) {
            staging.write(file, (schema.line(file) + text).getBytes(StandardCharsets.UTF_8));
            led.add(file);
        }
    }
}
