package org.protypos.generator;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.output.LooseFiles;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.Plan;
import org.protypos.target.SourceFile;
import org.protypos.target.Target;

/** A beginning of each implementation in the developer's own sources: written once, looked at ever after. */
public final class Scaffold {
    private final List<String> written = new ArrayList<>();
    private final Map<Path, Map<String, String>> lacking = new LinkedHashMap<>();

    private Scaffold() {}

    /**
     * Writes what is not there yet, and sees what is there.
     *
     * @throws IOException when the folder cannot be read or written
     */
    public static Scaffold into(Path folder, Target target, Plan plan, boolean embedded) throws IOException {
        Scaffold scaffold = new Scaffold();
        List<SourceFile> fresh = new ArrayList<>();
        for (Map.Entry<ApiInterface, SourceFile> one :
                target.scaffold(plan, embedded).entrySet()) {
            Path file = folder.resolve(one.getValue().path());
            if (!Files.exists(file)) {
                fresh.add(one.getValue());
                scaffold.written.add(file.toString());
                continue;
            }
            String text = Files.readString(file, StandardCharsets.UTF_8);
            Map<String, String> methods = new LinkedHashMap<>(target.methods(plan, embedded, one.getKey()));
            methods.keySet().removeIf(name -> text.matches("(?s).*\\b" + name + "\\s*\\(.*"));
            if (!methods.isEmpty()) {
                scaffold.lacking.put(file, methods);
            }
        }
        for (SourceFile one : target.project(plan, embedded)) {
            Path file = folder.resolve(one.path());
            if (!Files.exists(file)) {
                fresh.add(one);
                scaffold.written.add(file.toString());
            }
        }
        if (!fresh.isEmpty()) {
            LooseFiles.write(folder, fresh, false);
        }
        return scaffold;
    }

    /** The files that were begun. */
    public List<String> written() {
        return List.copyOf(written);
    }

    /** For files that are there already, the methods that they lack, by name and as text. */
    public Map<Path, Map<String, String>> lacking() {
        return lacking;
    }
}
