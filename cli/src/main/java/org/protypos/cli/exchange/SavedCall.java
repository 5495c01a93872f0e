package org.protypos.cli.exchange;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.NearestName;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.output.WholeFile;
import org.protypos.project.Project;
import org.protypos.runtime.soap.WireLog;

/**
 * A call that is kept to be made again: a file in the folder {@code calls} of the project, or of the current folder when
 * there is no project. Who calls is not kept.
 *
 * @param contract the contract, as seen from the folder that holds {@code calls}
 * @param operation the operation
 * @param port the port, or null
 * @param address where to call, or null for the port's address
 * @param security how the message shows who calls, or null
 * @param headers HTTP headers
 * @param attach the files that travel beside the message, each behind its part and an equals sign
 * @param rules the files of rules, likewise as seen from there
 * @param values the values of the request
 * @param input the request as JSON or XML, or null
 */
public record SavedCall(
        String contract,
        String operation,
        String port,
        String address,
        String security,
        List<String> headers,
        List<String> attach,
        List<String> rules,
        List<String> values,
        String input) {
    private static final Set<String> KEYS = new TreeSet<>(Set.of(
            "contract", "operation", "port", "address", "security", "headers", "attach", "rules", "values", "input"));
    private static final String NAME = "[A-Za-z0-9_-][A-Za-z0-9._-]*";

    private static Path root() throws IOException {
        Project project = Project.around(Path.of(""));
        return project == null ? Path.of("") : project.root();
    }

    private static Path file(String name) throws IOException {
        return root().resolve("calls").resolve(name + ".yaml");
    }

    static boolean isName(String name) {
        return name.matches(NAME);
    }

    /** The names of the calls that are kept here. */
    public static List<String> names() throws IOException {
        Path folder = root().resolve("calls");
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (var files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(".yaml"))
                    .map(name -> name.substring(0, name.length() - ".yaml".length()))
                    .sorted()
                    .toList();
        }
    }

    /** The headers that say who somebody is, which are not kept. */
    static List<String> leftOut(List<String> headers) {
        return headers.stream()
                .map(header -> header.split(":", 2)[0].strip())
                .filter(name -> WireLog.blankedHeader(name, "").equals("***"))
                .toList();
    }

    /**
     * Keeps this call.
     *
     * @return the file
     * @throws java.nio.file.FileAlreadyExistsException when another call is kept under that name
     */
    Path save(String name) throws IOException {
        Path file = file(name);
        Files.createDirectories(file.getParent());
        Path given = Path.of(contract);
        StringWriter text = new StringWriter();
        try (JsonGenerator yaml = JsonText.yamlWriter(text)) {
            yaml.writeStartObject();
            yaml.writeStringField("contract", Files.exists(given) ? fromRoot(given) : contract);
            yaml.writeStringField("operation", operation);
            if (port != null) {
                yaml.writeStringField("port", port);
            }
            if (address != null) {
                yaml.writeStringField("address", address);
            }
            if (security != null) {
                yaml.writeStringField("security", security);
            }
            List<String> secret = leftOut(headers);
            list(
                    yaml,
                    "headers",
                    headers.stream()
                            .filter(header -> !secret.contains(header.split(":", 2)[0].strip()))
                            .toList());
            list(
                    yaml,
                    "attach",
                    attach.stream().map(one -> moved(one, SavedCall::fromRoot)).toList());
            list(
                    yaml,
                    "rules",
                    rules.stream().map(Path::of).map(SavedCall::fromRoot).toList());
            list(yaml, "values", values);
            if (input != null) {
                yaml.writeFieldName("input");
                JsonText.write(input, yaml);
            }
            yaml.writeEndObject();
        }
        WholeFile.writeNew(file, text.toString());
        return file;
    }

    private static String fromRoot(Path file) {
        try {
            return root().toAbsolutePath()
                    .relativize(file.toAbsolutePath())
                    .toString()
                    .replace('\\', '/');
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** An attachment whose file is seen from somewhere else. */
    private static String moved(String one, Function<Path, String> to) {
        int equals = one.indexOf('=');
        return one.substring(0, equals + 1) + to.apply(Path.of(one.substring(equals + 1)));
    }

    private static void list(JsonGenerator yaml, String field, List<String> values) throws IOException {
        if (!values.isEmpty()) {
            yaml.writeArrayFieldStart(field);
            for (String value : values) {
                JsonText.write(value, yaml);
            }
            yaml.writeEndArray();
        }
    }

    /**
     * Reads a call that was kept.
     *
     * @param findings is told everything that is wrong with its file
     * @throws java.nio.file.NoSuchFileException when none is kept under that name
     */
    static SavedCall read(String name, Findings findings) throws IOException {
        Path file = file(name);
        JsonValue value = JsonText.parseYaml(GivenFile.text(file, file.toString()), findings);
        Map<String, JsonValue> keys = value instanceof JsonValue.Members members ? members.members() : Map.of();
        Map<String, List<String>> texts = new LinkedHashMap<>();
        keys.forEach((key, given) -> {
            if (!KEYS.contains(key)) {
                findings.error(
                        "call",
                        given.place(),
                        "\"" + key + "\" is no key of a saved call",
                        NearestName.of(key, KEYS)
                                .map(near -> "the nearest is " + near)
                                .orElse("the keys are " + String.join(", ", KEYS)));
            }
            List<JsonValue> items = given instanceof JsonValue.Items all ? all.items() : List.of(given);
            List<String> read = new ArrayList<>();
            for (JsonValue item : items) {
                if (item instanceof JsonValue.Text text) {
                    read.add(text.text());
                } else if (item instanceof JsonValue.Literal literal) {
                    read.add(literal.text());
                } else {
                    findings.error("call", item.place(), key + " is to be text", "write it as text");
                }
            }
            texts.put(key, read);
        });
        String contract = one(texts, "contract");
        if (value != null && (contract == null || one(texts, "operation") == null)) {
            findings.error(
                    "call", value.place(), "a saved call names its contract and its operation", "add what misses");
            return null;
        }
        if (value == null) {
            return null;
        }
        Path root = root();
        Path here = root.resolve(contract);
        return new SavedCall(
                Files.exists(here) ? here.toString() : contract,
                one(texts, "operation"),
                one(texts, "port"),
                one(texts, "address"),
                one(texts, "security"),
                texts.getOrDefault("headers", List.of()),
                texts.getOrDefault("attach", List.of()).stream()
                        .map(one -> moved(one, given -> root.resolve(given).toString()))
                        .toList(),
                texts.getOrDefault("rules", List.of()).stream()
                        .map(given -> root.resolve(given).toString())
                        .toList(),
                texts.getOrDefault("values", List.of()),
                one(texts, "input"));
    }

    private static String one(Map<String, List<String>> texts, String key) {
        List<String> found = texts.getOrDefault(key, List.of());
        return found.isEmpty() ? null : found.get(0);
    }

    /** The values with some of them replaced or added. */
    List<String> with(List<String> more) {
        List<String> all = new ArrayList<>(values);
        for (String value : more) {
            String key = value.split("=", 2)[0];
            int at = -1;
            for (int i = 0; i < all.size(); i++) {
                at = all.get(i).split("=", 2)[0].equals(key) ? i : at;
            }
            if (at < 0) {
                all.add(value);
            } else {
                all.set(at, value);
            }
        }
        return all;
    }
}
