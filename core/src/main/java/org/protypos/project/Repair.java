package org.protypos.project;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.naming.GivenNames;
import org.protypos.output.Staging;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.Documents;
import org.protypos.source.FileHash;

/**
 * Makes the lock file of a contract, its names and its pinned documents agree again. Nothing is made up: what is known comes from the
 * lock file, from both sides of a merge in it, from earlier versions of it, from the documents that are there, and from generated code.
 */
public final class Repair {
    /** What a type was made of, in the comment before it, whatever else is said there and about it. */
    private static final Pattern TYPE =
            Pattern.compile("Type (\\S+?)(?: of namespace (\\S+?))?\\.(?:</summary>| \\*/)?\\s*\\n"
                    + "(?:[ \\t]*(?:\\*|///|@|\\[)[^\\n]*\\n){0,60}?"
                    + "[ \\t]*public (?:abstract |final |sealed |partial )*(?:class|enum) (\\w+)");

    private static final Pattern PACKAGE = Pattern.compile("(?m)^(?:package|namespace) ([\\w.]+)");
    private static final Pattern SOURCE = Pattern.compile(".*\\.(?:java|cs)");

    private final Project project;
    private final ProjectContract contract;
    private final boolean acceptsDocuments;
    private final List<String> taken = new ArrayList<>();
    private final List<String> left = new ArrayList<>();
    private final Map<String, PinnedContract> sources = new LinkedHashMap<>();

    /**
     * What was done.
     *
     * @param changed whether the lock file is another than before
     * @param taken what was taken from where
     * @param left what is still wrong, and what to do
     */
    public record Result(boolean changed, List<String> taken, List<String> left) {}

    private Repair(Project project, ProjectContract contract, boolean acceptsDocuments) {
        this.project = project;
        this.contract = contract;
        this.acceptsDocuments = acceptsDocuments;
    }

    /**
     * Repairs what is known of a contract.
     *
     * @param earlier the texts of its lock file that version control has, by what they are called, the likeliest first
     * @param acceptsDocuments whether pinned documents that were altered are taken as they are
     * @throws IOException when the project cannot be read or written; then nothing of it has changed
     */
    public static Result of(
            Project project, ProjectContract contract, Map<String, String> earlier, boolean acceptsDocuments)
            throws IOException {
        return new Repair(project, contract, acceptsDocuments).run(earlier);
    }

    private Result run(Map<String, String> earlier) throws IOException {
        Path file = project.root().resolve(ProjectLock.path(contract.folder()));
        String now = Files.isRegularFile(file) ? Files.readString(file) : null;
        if (now != null && !source("the lock file", now)) {
            List<String> sides = ProjectLock.sides(now);
            source("our side of the merge", sides.get(0));
            source("their side of the merge", sides.get(1));
        }
        earlier.forEach(this::source);
        PinnedContract lock = new PinnedContract(
                sources.values().stream()
                        .map(PinnedContract::origins)
                        .filter(origins -> !origins.isEmpty())
                        .findFirst()
                        .orElse(List.of()),
                sources.values().stream()
                        .map(PinnedContract::catalog)
                        .filter(catalog -> catalog != null)
                        .findFirst()
                        .orElse(null),
                documents(),
                names());
        if (lock.documents().isEmpty()) {
            left.add(contract.folder() + " has no documents; type: protypos adopt ADDRESS --name " + contract.name());
            return new Result(false, taken, left);
        }
        if (lock.origins().isEmpty()) {
            left.add("nothing says where the documents came from; when you know it, type: protypos refresh "
                    + contract.name() + " --from ADDRESS");
        }
        byte[] bytes = ProjectLock.bytes(lock);
        boolean changed = now == null || !Arrays.equals(Files.readAllBytes(file), bytes);
        if (changed) {
            try (Staging staging = Staging.into(project.root())) {
                staging.write(ProjectLock.path(contract.folder()), bytes);
                staging.commit(List.of());
            }
        }
        return new Result(changed, taken, left);
    }

    /** Takes a text as a lock file if it is one. */
    private boolean source(String label, String text) {
        try {
            PinnedContract lock = ProjectLock.read(new SourceText(label, text), new Findings());
            if (lock != null) {
                sources.put(label, lock);
            }
            return lock != null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private PinnedNames names() throws IOException {
        PinnedNames all = PinnedNames.NONE;
        for (ProjectContract edition : contract.editions()) {
            all = all.with(names(edition));
        }
        return all;
    }

    private GivenNames names(ProjectContract edition) throws IOException {
        Map<String, Map<String, String>> all = new TreeMap<>();
        for (Map.Entry<String, PinnedContract> source : sources.entrySet()) {
            int more = add(source.getValue().names().in(edition.language()).byScope(), all);
            if (more > 0) {
                taken.add(more + (more == 1 ? " name from " : " names from ") + source.getKey());
            }
        }
        if (all.isEmpty()) {
            int more = add(inCode(edition), all);
            if (more > 0) {
                taken.add(more + " names of types from the generated code in " + edition.into());
            }
        }
        return all.isEmpty() ? GivenNames.NONE : new GivenNames(edition.language(), all);
    }

    /**
     * Adds the names of components that have none yet. What both sides of a merge gave one name to goes by the first. One side
     * may have a name twice: lock files of before have one scope for all classes within others that are called alike.
     */
    private static int add(Map<String, Map<String, String>> some, Map<String, Map<String, String>> to) {
        int more = 0;
        for (Map.Entry<String, Map<String, String>> scope : some.entrySet()) {
            Map<String, String> here = to.computeIfAbsent(scope.getKey(), any -> new HashMap<>());
            Set<String> given = new HashSet<>(here.values());
            for (Map.Entry<String, String> name : scope.getValue().entrySet()) {
                boolean free = !here.containsKey(name.getKey()) && !given.contains(name.getValue());
                if (free) {
                    here.put(name.getKey(), name.getValue());
                    more++;
                }
            }
        }
        return more;
    }

    /** The names of classes, as generated code tells what they were made of. */
    private Map<String, Map<String, String>> inCode(ProjectContract edition) throws IOException {
        Map<String, Map<String, String>> names = new TreeMap<>();
        Path into = project.root().resolve(edition.into());
        if (!Files.isDirectory(into)) {
            return names;
        }
        try (Stream<Path> files = Files.walk(into)) {
            for (Path file : files.filter(
                            path -> SOURCE.matcher(path.toString()).matches())
                    .sorted()
                    .toList()) {
                String text = Files.readString(file);
                Matcher in = PACKAGE.matcher(text);
                Matcher type = TYPE.matcher(text);
                if (in.find() && type.find()) {
                    String namespace = type.group(2) == null ? "" : type.group(2);
                    names.computeIfAbsent(in.group(1), any -> new TreeMap<>())
                            .putIfAbsent("~{" + namespace + "}" + type.group(1), type.group(3));
                }
            }
        }
        return names;
    }

    private List<PinnedDocument> documents() throws IOException {
        Map<String, String> there = there();
        Map<String, PinnedDocument> documents = new TreeMap<>();
        for (Map.Entry<String, PinnedContract> source : sources.entrySet()) {
            int more = 0;
            for (PinnedDocument document : source.getValue().documents()) {
                PinnedDocument known = documents.get(document.path());
                boolean fits = document.hash().equals(there.get(document.path()));
                if (known == null || fits && !known.hash().equals(there.get(document.path()))) {
                    documents.put(document.path(), document);
                    more++;
                }
            }
            if (more > 0) {
                taken.add(more + (more == 1 ? " document from " : " documents from ") + source.getKey());
            }
        }
        if (documents.isEmpty() && !there.isEmpty()) {
            return unknown(there);
        }
        for (Map.Entry<String, PinnedDocument> one : documents.entrySet()) {
            String path = contract.folder() + "/" + one.getKey();
            String hash = there.get(one.getKey());
            PinnedDocument document = one.getValue();
            if (hash == null) {
                left.add(path + " is missing; take it from version control, or type: protypos refresh "
                        + contract.name());
            } else if (!hash.equals(document.hash()) && acceptsDocuments) {
                taken.add(path + " as it is now");
                one.setValue(new PinnedDocument(
                        document.path(),
                        document.origin(),
                        hash,
                        LocalDate.now().toString(),
                        document.entry(),
                        document.references()));
            } else if (!hash.equals(document.hash())) {
                left.add(path + " is not what was pinned; to have that again type: protypos refresh " + contract.name()
                        + ", to take it as it is: protypos repair " + contract.name() + " --accept documents");
            }
        }
        return List.copyOf(documents.values());
    }

    /** The hashes of the files in the folder of the contract, by their paths in it. */
    private Map<String, String> there() throws IOException {
        Map<String, String> there = new TreeMap<>();
        Path folder = project.root().resolve(contract.folder());
        if (!Files.isDirectory(folder)) {
            return there;
        }
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                String path = folder.relativize(file).toString().replace('\\', '/');
                if (!path.equals(ProjectLock.FILE) && !path.equals(Adoption.ATTRIBUTES)) {
                    there.put(path, FileHash.of(Files.readAllBytes(file)));
                }
            }
        }
        return there;
    }

    /** Documents of which nothing is known but that they are there: what no other refers to comes first. */
    private List<PinnedDocument> unknown(Map<String, String> there) {
        Path folder = project.root().resolve(contract.folder());
        List<String> names = there.keySet().stream()
                .map(path -> folder.resolve(path).toString())
                .toList();
        Documents gathered = DocumentGatherer.gather(names, null);
        List<URI> targets = gathered.links().values().stream()
                .map(document -> document.location())
                .toList();
        List<PinnedDocument> documents = new ArrayList<>();
        there.forEach((path, hash) -> {
            boolean entry = !targets.contains(folder.resolve(path).toUri());
            documents.add(new PinnedDocument(path, "", hash, LocalDate.now().toString(), entry, Map.of()));
        });
        taken.add(documents.size() + (documents.size() == 1 ? " document" : " documents") + " as they are in "
                + contract.folder());
        return documents;
    }
}
