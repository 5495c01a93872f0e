package org.protypos.maven;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Order;
import org.protypos.generator.ProjectGenerator;
import org.protypos.generator.Scaffold;
import org.protypos.project.AdoptedContract;
import org.protypos.source.FileHash;

/** Writes sources and makes them known to the compiler. */
abstract class GeneratingMojo extends SettingsMojo {
    /** Under this name a build remembers what it had to write though it was to be there. */
    static final String WRITTEN = "protypos.written";

    /** Replaces generated files even if they were changed by hand. */
    @Parameter(property = "protypos.overwrite", defaultValue = "false")
    private boolean overwrite;

    abstract void addRoot(Path folder);

    @Override
    void work() throws IOException, MojoFailureException {
        mend();
        List<AdoptedContract> adopted = adopted();
        List<GeneratedCode> codes;
        if (adopted == null) {
            Order order = order();
            claim(order.into());
            codes = List.of(generator(read()).generate(order).written(false, overwrite));
        } else {
            Map<String, String> before = locks(adopted);
            codes = ProjectGenerator.of(adopted)
                    .run(ProjectGenerator.Mode.WRITE, overwrite)
                    .codes();
            remember(adopted, before, codes);
        }
        List<Finding> findings = codes.stream()
                .flatMap(code -> code.findings().stream())
                .distinct()
                .toList();
        tell(findings);
        if (codes.stream().anyMatch(GeneratedCode::isRefused)) {
            throw refused(findings, "nothing was generated");
        }
        for (GeneratedCode code : codes) {
            report(code);
            scaffold(code);
            // What else stands in a contract's project is for others to compile.
            if (code.files().isEmpty()
                    || code.files().stream().anyMatch(file -> file.path().endsWith(".java"))) {
                addRoot(code.order().into().toAbsolutePath().normalize());
            }
        }
    }

    /** What one execution has written is not for the next to remove. */
    private void claim(Path folder) throws MojoFailureException {
        String key = "protypos.into " + folder.toAbsolutePath().normalize();
        Object other = project().getContextValue(key);
        if (other != null && !other.equals(documents())) {
            throw new MojoFailureException(folder + " has what this build has generated from " + other + ": "
                    + documents() + " wants an <into> of its own");
        }
        project().setContextValue(key, documents());
    }

    private void report(GeneratedCode code) {
        int written = code.report().added().size() + code.report().changed().size();
        String name = code.order().owner().isEmpty() ? "" : code.order().owner() + ": ";
        getLog().info(name
                + (written + code.report().removed().size() == 0
                        ? "nothing has changed, " + code.report().kept().size() + " files"
                        : written + " files written, "
                                + code.report().removed().size() + " removed, "
                                + code.report().kept().size() + " unchanged"));
    }

    private void scaffold(GeneratedCode code) throws IOException {
        if (code.order().scaffold() == null || code.planned() == null) {
            return;
        }
        Scaffold scaffold = Scaffold.into(code.order(), code.planned().code());
        scaffold.written().forEach(file -> getLog().info("begun for you, and yours from now on: " + file));
        scaffold.lacking().forEach((file, methods) -> {
            getLog().warn(file.toAbsolutePath().normalize() + ":1: lacks " + String.join(", ", methods.keySet())
                    + "; to be pasted:");
            methods.values().forEach(method -> getLog().warn(method));
        });
    }

    private static Map<String, String> locks(List<AdoptedContract> adopted) throws IOException {
        Map<String, String> locks = new TreeMap<>();
        for (AdoptedContract contract : adopted) {
            Path lock = contract.project()
                    .root()
                    .resolve(contract.settings().folder())
                    .resolve("protypos.lock.json");
            if (Files.isRegularFile(lock)) {
                locks.put(contract.settings().folder() + "/protypos.lock.json", FileHash.of(Files.readAllBytes(lock)));
            }
        }
        return locks;
    }

    /** What a build writes of what belongs under version control has drifted, and a later check is to tell. */
    private void remember(List<AdoptedContract> adopted, Map<String, String> before, List<GeneratedCode> codes)
            throws IOException {
        List<String> drift = new ArrayList<>();
        locks(adopted).forEach((path, hash) -> {
            if (!hash.equals(before.get(path))) {
                drift.add("changed " + path + ": names that are new");
            }
        });
        Path target = Path.of(project().getBuild().getDirectory());
        for (GeneratedCode code : codes) {
            Path into = code.order().into().toAbsolutePath().normalize();
            if (code.report() != null && !into.startsWith(target)) {
                code.report().added().forEach(path -> drift.add("missing " + into.resolve(path)));
                code.report().changed().forEach(path -> drift.add("changed " + into.resolve(path)));
                code.report().removed().forEach(path -> drift.add("stale " + into.resolve(path)));
            }
        }
        project().setContextValue(WRITTEN, drift);
    }
}
