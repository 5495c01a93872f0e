package org.protypos.project;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.MalformedText;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.SourceText;
import org.protypos.output.InsideFolder;
import org.protypos.target.Target;
import org.protypos.target.Targets;

/** Reads a project file and tells everything that is wrong with it at once. */
final class ProjectReader {
    /** What a contract is called, which is also the name of a folder. */
    static final String NAME = "[A-Za-z0-9][A-Za-z0-9._-]{0,63}";

    private static final String ALSO = "also";
    private static final Set<String> LISTS = Set.of("rules", "produce", "services", "ports", "operations");
    private static final Map<String, String> CHOICES = Map.of(
            "produce", "types|client|server",
            "server", "jdk|servlet",
            "runtime", "embedded|library",
            "form", "fixed|free",
            "language", Targets.all().stream().map(Target::name).collect(Collectors.joining("|")));
    private static final Set<String> KEYS = new TreeSet<>(Set.of(
            "folder",
            "language",
            ALSO,
            "package",
            "rules",
            "into",
            "produce",
            "scaffold",
            "server",
            "runtime",
            "form",
            "services",
            "ports",
            "operations"));

    /** What a further language may say otherwise. */
    private static final Set<String> OF_LANGUAGE =
            new TreeSet<>(Set.of("package", "rules", "into", "produce", "scaffold", "server", "runtime", "form"));

    private final SourceText text;
    private final Findings findings;
    private final Map<String, ProjectContract> contracts = new LinkedHashMap<>();
    private JsonParser in;

    private ProjectReader(SourceText text, Findings findings) {
        this.text = text;
        this.findings = findings;
    }

    static Map<String, ProjectContract> read(SourceText text, Findings findings) {
        ProjectReader reader = new ProjectReader(text, findings);
        try (JsonParser parser = new YAMLFactory().createParser(text.text())) {
            reader.in = parser;
            reader.top();
        } catch (JsonProcessingException e) {
            findings.error(
                    "project-syntax",
                    MalformedText.place(text, e),
                    "the project file is not well-formed: " + MalformedText.reason(e),
                    "write it as YAML");
        } catch (IOException e) {
            throw new IllegalStateException("text in memory can be read", e);
        }
        return reader.contracts;
    }

    private Place here() {
        return MalformedText.place(text, in.currentTokenLocation());
    }

    private void wrong(Place place, String message, String cure) {
        findings.error("project-value", place, message, cure);
    }

    private void top() throws IOException {
        if (in.nextToken() == null) {
            return;
        }
        if (in.currentToken() != JsonToken.START_OBJECT) {
            wrong(here(), "the project file holds no map", "begin it with \"contracts:\"");
            return;
        }
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            Place at = here();
            String key = in.currentName();
            in.nextToken();
            if (key.equals("$schema")) {
                in.skipChildren();
            } else if (!key.equals("contracts")) {
                wrong(at, "\"" + key + "\" is no key of a project file", "use contracts");
                in.skipChildren();
            } else if (in.currentToken() == JsonToken.START_OBJECT) {
                while (in.nextToken() == JsonToken.FIELD_NAME) {
                    contract(in.currentName(), here());
                }
            } else if (in.currentToken() != JsonToken.VALUE_NULL) {
                wrong(
                        here(),
                        "contracts are a map from name to what is said of the contract",
                        "write \"desk:\" below it");
                in.skipChildren();
            }
        }
    }

    private void contract(String name, Place place) throws IOException {
        if (!name.matches(NAME)) {
            wrong(place, "\"" + name + "\" is no name for a contract", "use letters, digits, dots and hyphens");
        }
        Map<String, List<String>> values = new HashMap<>();
        Map<String, Further> also = new LinkedHashMap<>();
        in.nextToken();
        if (in.currentToken() == JsonToken.START_OBJECT) {
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                if (in.currentName().equals(ALSO)) {
                    also(also);
                } else {
                    value(KEYS, values);
                }
            }
        } else if (in.currentToken() != JsonToken.VALUE_NULL) {
            wrong(here(), "what is said of a contract is a map", "write keys such as \"package:\" below its name");
            in.skipChildren();
        }
        contracts.put(name, contract(name, values, also, place));
    }

    /** What is said of a further language. */
    private record Further(Map<String, List<String>> values, Place place) {}

    private void also(Map<String, Further> also) throws IOException {
        in.nextToken();
        if (in.currentToken() != JsonToken.START_OBJECT) {
            wrong(here(), "what is said below also is a map from language to settings", "write \"csharp:\" below it");
            in.skipChildren();
            return;
        }
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String language = in.currentName();
            Place at = here();
            Map<String, List<String>> values = new HashMap<>();
            if (!language.matches(CHOICES.get("language"))) {
                wrong(
                        at,
                        "there is no language " + Printable.of(language),
                        "use " + CHOICES.get("language").replace("|", ", "));
            }
            in.nextToken();
            if (in.currentToken() == JsonToken.START_OBJECT) {
                while (in.nextToken() == JsonToken.FIELD_NAME) {
                    value(OF_LANGUAGE, values);
                }
            } else if (in.currentToken() != JsonToken.VALUE_NULL) {
                wrong(here(), "what is said of a language is a map", "write keys such as \"into:\" below it");
                in.skipChildren();
            }
            also.put(language, new Further(values, at));
        }
    }

    /** A contract of which nothing is said. */
    static ProjectContract unsaid(String name) {
        return new ProjectReader(new SourceText(Project.FILE, ""), new Findings())
                .contract(name, Map.of(), Map.of(), null);
    }

    private ProjectContract contract(
            String name, Map<String, List<String>> values, Map<String, Further> also, Place place) {
        String language = one(values, "language", Targets.STANDARD);
        List<ProjectContract> others = new ArrayList<>();
        also.forEach((other, further) -> {
            if (other.equals(language)) {
                wrong(
                        further.place(),
                        other + " is the language of the contract already",
                        "say it above, and below also what further languages have otherwise");
                return;
            }
            Map<String, List<String>> all = new HashMap<>(values);
            all.keySet().removeAll(OF_LANGUAGE);
            all.put("into", List.of("generated-" + other));
            all.putAll(further.values());
            all.put("language", List.of(other));
            List<String> rules = new ArrayList<>(values.getOrDefault("rules", List.of()));
            rules.addAll(further.values().getOrDefault("rules", List.of()));
            all.put("rules", rules);
            others.add(edition(name, all, List.of(), further.place()));
        });
        return edition(name, values, others, place);
    }

    private ProjectContract edition(
            String name, Map<String, List<String>> values, List<ProjectContract> also, Place place) {
        return new ProjectContract(
                name,
                one(values, "language", Targets.STANDARD),
                path(one(values, "folder", Project.folderOf(name)), place),
                one(values, "package", null),
                values.getOrDefault("rules", List.of()),
                values.containsKey("into") ? path(one(values, "into", ""), place) : null,
                values.getOrDefault("produce", List.of("types", "client", "server")),
                values.containsKey("scaffold") ? path(one(values, "scaffold", ""), place) : null,
                one(values, "server", "jdk"),
                one(values, "runtime", "embedded"),
                one(values, "form", "fixed"),
                values.getOrDefault("services", List.of()),
                values.getOrDefault("ports", List.of()),
                values.getOrDefault("operations", List.of()),
                also,
                place);
    }

    private String path(String path, Place place) {
        String plain = path.replaceFirst("^(\\./)+", "").replaceFirst("/+$", "");
        String complaint = InsideFolder.complaint(plain);
        if (complaint != null) {
            wrong(
                    place,
                    "\"" + Printable.of(path) + "\" " + complaint.replace("the folder", "the project"),
                    "write a path inside the project, with slashes");
        }
        return complaint != null ? "generated" : plain;
    }

    private static String one(Map<String, List<String>> values, String key, String otherwise) {
        List<String> found = values.get(key);
        return found == null || found.isEmpty() ? otherwise : found.get(0);
    }

    private void value(Set<String> keys, Map<String, List<String>> values) throws IOException {
        String key = in.currentName();
        Place at = here();
        in.nextToken();
        if (!keys.contains(key)) {
            wrong(
                    at,
                    "\"" + key + "\" is no key of a " + (keys == KEYS ? "contract" : "further language"),
                    NearestName.of(key, keys)
                            .map(near -> "the nearest is " + near)
                            .orElse("the keys are " + String.join(", ", keys)));
            in.skipChildren();
            return;
        }
        List<String> texts = new ArrayList<>();
        if (in.currentToken() == JsonToken.START_ARRAY && LISTS.contains(key)) {
            while (in.nextToken() != JsonToken.END_ARRAY) {
                text(key, texts);
            }
        } else {
            text(key, texts);
        }
        values.put(key, texts);
    }

    private void text(String key, List<String> to) throws IOException {
        if (!in.currentToken().isScalarValue() || in.currentToken() == JsonToken.VALUE_NULL) {
            wrong(
                    here(),
                    "the value of " + key + " is no text",
                    "write it as text" + (LISTS.contains(key) ? " or a list" : ""));
            in.skipChildren();
        } else if (CHOICES.containsKey(key) && !in.getText().matches(CHOICES.get(key))) {
            wrong(
                    here(),
                    "\"" + in.getText() + "\" is no value for " + key,
                    "use " + CHOICES.get(key).replace("|", ", "));
        } else {
            to.add(in.getText());
        }
    }
}
