package org.protypos.cli.argument;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Finds the documents that somebody names: files as they are, of folders all in them whose names end so. */
public final class DocumentFiles {
    private DocumentFiles() {}

    /**
     * Finds documents.
     *
     * @param option what they were given by, for complaints
     * @param endings what the names of documents in folders end with
     */
    public static List<Path> of(List<Path> named, String option, CommandSpec spec, String... endings)
            throws IOException {
        List<Path> files = new ArrayList<>();
        for (Path one : named) {
            if (Files.isDirectory(one)) {
                try (Stream<Path> found = Files.walk(one)) {
                    found.filter(file -> Stream.of(endings).anyMatch(ending -> file.toString()
                                    .toLowerCase(Locale.ROOT)
                                    .endsWith(ending)))
                            .filter(Files::isRegularFile)
                            .sorted()
                            .forEach(files::add);
                }
            } else if (Files.isRegularFile(one)) {
                files.add(one);
            } else {
                throw new ParameterException(spec.commandLine(), option + ": there is no file " + one);
            }
        }
        if (files.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(),
                    option + ": there is no " + String.join(" or ", endings) + " file in " + named.get(0));
        }
        return files;
    }
}
