package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
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
import org.protypos.target.java.ScaffoldEmitter;

/** A beginning of each implementation in the developer's own sources: written once, looked at ever after. */
final class Scaffold {
    private final List<String> written = new ArrayList<>();
    private final Map<Path, Map<String, String>> lacking = new LinkedHashMap<>();

    private Scaffold() {}

    /** Writes what is not there yet, and sees what is there. */
    static Scaffold into(Path folder, Plan plan, boolean embedded) throws IOException {
        Scaffold scaffold = new Scaffold();
        List<SourceFile> fresh = new ArrayList<>();
        for (Map.Entry<ApiInterface, SourceFile> one :
                ScaffoldEmitter.emit(plan, embedded).entrySet()) {
            Path file = folder.resolve(one.getValue().path());
            if (!Files.exists(file)) {
                fresh.add(one.getValue());
                scaffold.written.add(file.toString());
                continue;
            }
            Map<String, String> methods = ScaffoldEmitter.lacking(
                    plan, embedded, one.getKey(), Files.readString(file, StandardCharsets.UTF_8));
            if (!methods.isEmpty()) {
                scaffold.lacking.put(file, methods);
            }
        }
        if (!fresh.isEmpty()) {
            LooseFiles.write(folder, fresh, false);
        }
        return scaffold;
    }

    void print(PrintWriter out) {
        written.forEach(file -> out.println("begun for you, and yours from now on: " + Terminal.plain(file)));
        lacking.forEach((file, methods) -> {
            out.println(Terminal.bold(Terminal.plain(file.toString())) + " lacks " + String.join(", ", methods.keySet())
                    + "; to be pasted:");
            methods.values().forEach(method -> {
                out.println();
                method.lines().forEach(line -> out.println("    " + Terminal.plain(line)));
            });
            out.println();
        });
    }
}
