package org.protypos.generator;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.protypos.output.LooseFiles;
import org.protypos.target.Beginning;
import org.protypos.target.LoweredApi;
import org.protypos.target.SourceFile;

/** A beginning of each implementation in the developer's own sources: written once, looked at ever after. */
public final class Scaffold {
    private final List<String> written = new ArrayList<>();
    private final Map<Path, Map<String, String>> lacking = new LinkedHashMap<>();

    private Scaffold() {}

    /**
     * Writes what is not there yet, and sees what is there.
     *
     * @param order says where and for what
     * @throws IOException when the folder cannot be read or written
     */
    public static Scaffold into(Order order, LoweredApi code) throws IOException {
        Path folder = order.scaffold();
        Scaffold scaffold = new Scaffold();
        List<SourceFile> fresh = new ArrayList<>();
        for (Beginning one : code.scaffold(order.products(), order.embedded())) {
            Path file = folder.resolve(one.file().path());
            if (!Files.exists(file)) {
                fresh.add(one.file());
                scaffold.written.add(file.toString());
                continue;
            }
            String text = Files.readString(file, StandardCharsets.UTF_8);
            Map<String, String> methods = new LinkedHashMap<>(one.methods());
            methods.keySet().removeIf(name -> one.isDeclared(name, text));
            if (!methods.isEmpty()) {
                scaffold.lacking.put(file, methods);
            }
        }
        for (SourceFile one : code.project(between(folder, order.into()))) {
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

    /** The folder of the sources as seen from another, with slashes; empty when it is that one or below. */
    private static String between(Path folder, Path sources) {
        Path from = folder.toAbsolutePath().normalize();
        Path to = sources.toAbsolutePath().normalize();
        if (to.startsWith(from)) {
            return "";
        }
        Path way = Objects.equals(from.getRoot(), to.getRoot()) ? from.relativize(to) : to;
        return way.toString().replace(File.separatorChar, '/');
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
