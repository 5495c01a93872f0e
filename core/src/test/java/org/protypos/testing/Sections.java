package org.protypos.testing;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;

/** A test case in one text file: sections headed by {@code ==== name}, most of them files to be laid out in a folder. */
public final class Sections {
    private final String name;
    private final Map<String, String> sections = new LinkedHashMap<>();

    private Sections(String name, String text) {
        this.name = name;
        String current = null;
        StringBuilder body = new StringBuilder();
        for (String line : text.split("\n", -1)) {
            if (line.startsWith("==== ")) {
                put(current, body);
                current = line.substring("==== ".length()).strip();
                body.setLength(0);
            } else {
                body.append(line).append('\n');
            }
        }
        put(current, body);
    }

    private void put(String section, StringBuilder body) {
        if (section != null) {
            sections.put(section, body.toString().strip() + "\n");
        }
    }

    /** All cases in a folder of the test resources, by name. */
    public static Stream<Sections> in(String folder) {
        Path path = Path.of("src/test/resources", folder);
        try (Stream<Path> files = Files.list(path)) {
            return files.sorted().map(Sections::of).toList().stream();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The case in one file. */
    public static Sections of(Path file) {
        try {
            return new Sections(file.getFileName().toString(), Files.readString(file, StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The text of a section. */
    public String get(String section) {
        return sections.getOrDefault(section, "");
    }

    /** All sections, by name. */
    public Map<String, String> all() {
        return sections;
    }

    /** Lays out every section that is called like a contract document, and gives the first. */
    public Path layOut(Path folder) throws IOException {
        Path first = null;
        for (Map.Entry<String, String> section : sections.entrySet()) {
            if (section.getKey().matches(".*\\.(wsdl|xsd|xml|dtd|yaml|java)")) {
                Path file = folder.resolve(section.getKey());
                Files.createDirectories(file.getParent());
                Files.writeString(file, section.getValue());
                first = first == null ? file : first;
            }
        }
        return first;
    }

    /** The texts of the sections whose names start in a way. */
    public Stream<String> startingWith(String prefix) {
        return sections.entrySet().stream()
                .filter(section -> section.getKey().startsWith(prefix))
                .map(Map.Entry::getValue);
    }

    @Override
    public String toString() {
        return name;
    }
}
