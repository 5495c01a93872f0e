package org.protypos.project;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.output.Staging;
import org.protypos.runtime.soap.Origin;
import org.protypos.source.Document;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.FileHash;

/** Takes the documents of a contract into a project as pinned copies. */
public final class Adoption {
    private static final Pattern CONTRACTS = Pattern.compile("(?m)^contracts:[ \\t]*(#.*)?$");

    private static final String NEW_PROJECT = """
            # What protypos generates in this project. The documents of the contracts are pinned in the folder of each, and in
            # protypos.lock.json, which belongs under version control as this file does.
            #
            #   protypos generate            writes the code of all contracts
            #   protypos refresh             asks where they came from whether they have changed
            contracts:
            """;

    /** Tells version control how to treat the files in a folder. */
    static final String ATTRIBUTES = ".gitattributes";

    private static final String KEPT_AS_THEY_ARE = """
            # Written by protypos: pinned documents are kept byte for byte, whatever line ends they have.
            * -text
            .gitattributes text
            protypos.lock.json text eol=lf
            """;

    private final Project project;
    private final Map<Document, String> paths;
    private final Documents documents;

    private Adoption(Project project, Documents documents) {
        this.project = project;
        this.documents = documents;
        this.paths = Layout.of(documents.all());
    }

    /**
     * Adopts a contract, or takes its documents anew.
     *
     * @param name what it is called in the project
     * @param origins what it was named by: addresses, and paths from the current folder
     * @param catalog the catalog that was used, or null
     * @param documents its documents, all of which could be read
     * @param into what the project file is to say of the folder for the sources, or null when it is to say nothing
     * @param rules files of rules for it, as paths from the current folder; of no account when it is in the project already
     * @return the paths of the copies, relative to the project
     * @throws IOException when the project cannot be written; then nothing of it has changed
     */
    public static List<String> adopt(
            Project project,
            String name,
            List<String> origins,
            String catalog,
            Documents documents,
            String into,
            List<String> rules)
            throws IOException {
        return new Adoption(project, documents).write(name, origins, catalog, into, rules);
    }

    private List<String> write(String name, List<String> origins, String catalog, String into, List<String> rules)
            throws IOException {
        ProjectContract known = project.contracts().get(name);
        String folder = known == null ? Project.folderOf(name) : known.folder();
        // Of a contract that has lost its entry in the project file the folder still knows.
        PinnedContract before =
                known == null ? ProjectLock.read(project.root(), folder, new Findings()) : project.pinned(name);
        Map<String, String> datesByHash = new TreeMap<>();
        List<String> stale = new ArrayList<>();
        for (PinnedDocument document : before == null ? List.<PinnedDocument>of() : before.documents()) {
            datesByHash.put(document.path() + " " + document.hash(), document.date());
            stale.add(folder + "/" + document.path());
        }
        String today = LocalDate.now().toString();
        List<PinnedDocument> pinned = new ArrayList<>();
        List<String> copies = new ArrayList<>();
        try (Staging staging = Staging.into(project.root())) {
            for (Map.Entry<Document, String> copy : paths.entrySet()) {
                Document document = copy.getKey();
                String path = folder + "/" + copy.getValue();
                String key = copy.getValue() + " " + document.hash();
                copies.add(path);
                stale.remove(path);
                pinned.add(new PinnedDocument(
                        copy.getValue(),
                        origin(document.location()),
                        document.hash(),
                        datesByHash.getOrDefault(key, today),
                        documents.entries().contains(document),
                        references(document)));
                if (!isThere(path, document)) {
                    staging.write(path, document.bytes());
                }
            }
            List<String> named = origins.stream().map(this::portable).toList();
            PinnedContract lock = new PinnedContract(
                    named,
                    catalog == null ? null : portable(catalog),
                    pinned,
                    before == null ? PinnedNames.NONE : before.names());
            staging.write(ProjectLock.path(folder), ProjectLock.bytes(lock));
            if (!Files.exists(project.root().resolve(folder).resolve(ATTRIBUTES))) {
                staging.write(folder + "/" + ATTRIBUTES, KEPT_AS_THEY_ARE.getBytes(StandardCharsets.UTF_8));
            }
            EditorSchema.stage(staging, project.root());
            if (known == null) {
                staging.write(Project.FILE, projectFile(name, into, rules).getBytes(StandardCharsets.UTF_8));
            }
            staging.commit(stale);
        }
        return copies;
    }

    private boolean isThere(String path, Document document) throws IOException {
        Path file = project.root().resolve(path);
        return Files.isRegularFile(file)
                && FileHash.of(Files.readAllBytes(file)).equals(document.hash());
    }

    /** A path as somebody in the project would write it, wherever the project lies; an address as it is. */
    private String portable(String origin) {
        return origin.matches("(?i)https?://.*")
                ? Origin.withoutUser(origin)
                : project.root()
                        .relativize(Path.of(origin).toAbsolutePath().normalize())
                        .toString()
                        .replace('\\', '/');
    }

    private String origin(URI location) {
        if ("file".equals(location.getScheme())) {
            return portable(Path.of(location).toString());
        }
        int inside = location.toString().indexOf("/!/");
        return "zip".equals(location.getScheme()) && inside > 0
                ? location.toString().substring(inside + "/!/".length()) + " in an archive"
                : Origin.withoutUser(location.toString());
    }

    /** Where the references of a document lead that would not lead there from its copy. */
    private Map<String, String> references(Document document) {
        Map<String, String> references = new LinkedHashMap<>();
        documents.links().forEach((element, target) -> {
            if (element.document() == document && paths.containsKey(target)) {
                String reference = reference(element);
                if (reference != null && !leads(paths.get(document), reference, paths.get(target))) {
                    references.put(reference, paths.get(target));
                }
            }
        });
        return new TreeMap<>(references);
    }

    private static String reference(Element element) {
        String location = element.attribute("location") != null
                ? element.attribute("location")
                : element.attribute("schemaLocation");
        return location == null ? element.attribute("namespace") : location.strip();
    }

    private static boolean leads(String from, String reference, String to) {
        try {
            URI base = URI.create("project:/" + from);
            return base.resolve(reference.replace(" ", "%20")).normalize().equals(URI.create("project:/" + to));
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private String projectFile(String name, String into, List<String> rules) throws IOException {
        Path file = project.root().resolve(Project.FILE);
        String text = Files.exists(file)
                ? GivenFile.text(file, Project.FILE).text()
                : EditorSchema.PROJECT.line(Project.FILE) + NEW_PROJECT;
        String entry = "  " + name + ":\n    " + (into == null ? "# into: generated" : "into: " + into) + "\n"
                + "    # package: com.example." + name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "")
                + "\n    " + rules(rules) + "\n    # produce: [types, client, server]\n    # scaffold: src/main/java\n";
        Matcher contracts = CONTRACTS.matcher(text);
        if (!contracts.find()) {
            return text + (text.isEmpty() || text.endsWith("\n") ? "" : "\n") + "contracts:\n" + entry;
        }
        int at = Math.min(text.length(), contracts.end() + 1);
        String before = text.substring(0, at);
        return before + (before.endsWith("\n") ? "" : "\n") + entry + text.substring(at);
    }

    private String rules(List<String> rules) {
        return rules.isEmpty()
                ? "# rules: [rules.yaml]"
                : "rules: ["
                        + rules.stream()
                                .map(rule -> "\"" + portable(rule).replace("\"", "\\\"") + "\"")
                                .collect(Collectors.joining(", "))
                        + "]";
    }
}
