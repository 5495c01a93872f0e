package org.protypos.project;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.Printable;
import org.protypos.naming.GivenNames;
import org.protypos.output.InsideFolder;
import org.protypos.output.Staging;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.Documents;
import org.protypos.source.FileHash;
import org.protypos.source.Pins;

/**
 * A project: its contracts with what is to be made of them, in {@code protypos.yaml}, and what is pinned of each, in the lock
 * file in its folder. The door of this package.
 */
public final class Project {
    /** The name of the project file. */
    public static final String FILE = "protypos.yaml";

    private final Path root;
    private final String label;
    private final Map<String, ProjectContract> contracts;
    private final Map<String, PinnedContract> pinned;
    private final List<Finding> findings;

    private Project(
            Path root,
            String label,
            Map<String, ProjectContract> contracts,
            Map<String, PinnedContract> pinned,
            List<Finding> findings) {
        this.root = root;
        this.label = label;
        this.contracts = contracts;
        this.pinned = pinned;
        this.findings = findings;
    }

    /**
     * Finds the project that a folder lies in: that folder or the nearest around it with a project file.
     *
     * @return the project, or null when there is none
     * @throws IOException when its files cannot be read
     */
    public static Project around(Path folder) throws IOException {
        Path root = rootAround(folder);
        return root == null ? null : read(root);
    }

    private static Path rootAround(Path folder) {
        Path at = folder.toAbsolutePath().normalize();
        while (at != null && !Files.isRegularFile(at.resolve(FILE))) {
            at = at.getParent();
        }
        return at;
    }

    /**
     * Finishes what a run that was broken off has left in the project that a folder lies in, or was to begin there. Called before a project is read
     * that is going to be written; who only reads, changes nothing.
     *
     * @return what is to be told of it
     * @throws IOException when what was left is none of ours, or cannot be finished
     */
    public static List<Finding> mend(Path folder) throws IOException {
        Findings told = new Findings();
        Path root = rootAround(folder);
        // A run that began a project may have been killed before the file that makes the folder one was there.
        Path mended = root != null ? root : folder.toAbsolutePath().normalize();
        Staging.tell(Staging.finish(mended), told);
        return told.sorted();
    }

    /** Reads the project in a folder; one without a project file has no contracts yet. */
    public static Project read(Path root) throws IOException {
        return read(root, null);
    }

    /**
     * Reads the project in a folder.
     *
     * @param label what to call the folder when one talks about places in it, or null for its path
     */
    public static Project read(Path root, String label) throws IOException {
        Findings findings = new Findings();
        Map<String, ProjectContract> contracts = new TreeMap<>();
        Path file = root.resolve(FILE);
        if (Files.isRegularFile(file)) {
            String name = Path.of("").toAbsolutePath().normalize().equals(root) ? FILE : file.toString();
            contracts = ProjectReader.read(GivenFile.text(file, name), findings);
        }
        for (ProjectContract contract : contracts.values()) {
            inside(root, contract, "folder", contract.folder(), findings);
            inside(root, contract, "into", contract.into(), findings);
            inside(root, contract, "scaffold", contract.scaffold(), findings);
        }
        Map<String, PinnedContract> pinned = new TreeMap<>();
        Map<String, String> folders = new TreeMap<>();
        for (ProjectContract contract : contracts.values()) {
            String other = folders.putIfAbsent(contract.folder(), contract.name());
            if (other != null) {
                findings.error(
                        "shared-folder",
                        contract.place(),
                        "the folder " + contract.folder() + " is that of " + other + " too",
                        "give each contract a folder of its own");
            }
            PinnedContract lock = ProjectLock.read(root, contract.folder(), findings);
            if (lock != null) {
                pinned.put(contract.name(), lock);
            }
        }
        return new Project(root, label, contracts, pinned, findings.sorted());
    }

    /** The folder of a contract for which the project file names none. */
    public static String folderOf(String name) {
        return "contracts/" + name;
    }

    /**
     * The contracts that are pinned in the folder where adoption puts them, and of which the project file knows nothing.
     *
     * @throws IOException when the folders cannot be read
     */
    public List<String> strays() throws IOException {
        Path around = root.resolve("contracts");
        if (!Files.isDirectory(around)) {
            return List.of();
        }
        try (Stream<Path> folders = Files.list(around)) {
            return folders.filter(folder -> Files.isRegularFile(folder.resolve(ProjectLock.FILE)))
                    .map(folder -> folder.getFileName().toString())
                    .filter(name -> contracts.values().stream()
                            .noneMatch(contract -> contract.folder().equals(folderOf(name))))
                    .sorted()
                    .toList();
        }
    }

    /** A project that somebody else made writes into itself alone, also where it has links. */
    private static void inside(Path root, ProjectContract contract, String key, String path, Findings findings) {
        String complaint = path == null || path.isEmpty() ? null : InsideFolder.complaint(root, path);
        if (complaint != null) {
            findings.error(
                    "outside-project",
                    contract.place(),
                    key + ": \"" + Printable.of(path) + "\" " + complaint,
                    "write a path inside the project, or say another folder on the command line");
        }
    }

    /** The same project with a contract of which the project file knows nothing, as it would be if nothing were said of it. */
    public Project with(String stray) throws IOException {
        ProjectContract unsaid = ProjectReader.unsaid(stray);
        Map<String, ProjectContract> all = new TreeMap<>(contracts);
        all.put(stray, unsaid);
        Map<String, PinnedContract> locks = new TreeMap<>(pinned);
        PinnedContract lock = ProjectLock.read(root, unsaid.folder(), new Findings());
        if (lock != null) {
            locks.put(stray, lock);
        }
        return new Project(root, label, all, locks, findings);
    }

    /** The folder of the project. */
    public Path root() {
        return root;
    }

    /** The contracts by name, as the project file has them. */
    public Map<String, ProjectContract> contracts() {
        return contracts;
    }

    /** What is pinned of a contract, or null when it has not been adopted. */
    public PinnedContract pinned(String name) {
        return pinned.get(name);
    }

    /** What is wrong with the project file. */
    public List<Finding> findings() {
        return findings;
    }

    /** Gathers the pinned documents of a contract; one that is not pinned has none, and that is told. */
    public Documents documents(ProjectContract contract) {
        PinnedContract pins = pinned.get(contract.name());
        Path folder = root.resolve(contract.folder());
        if (pins == null || pins.documents().stream().noneMatch(PinnedDocument::entry)) {
            Findings own = new Findings();
            // What is wrong with the lock file has been told; what follows from it needs no telling.
            if (findings.stream().noneMatch(finding -> finding.code().equals(ProjectLock.BROKEN))) {
                own.error(
                        "not-adopted",
                        contract.place(),
                        "the contract " + contract.name() + " has no pinned documents",
                        Files.isDirectory(folder)
                                ? "type: protypos repair " + contract.name()
                                : "type: protypos adopt ADDRESS --name " + contract.name());
            }
            return new Documents(List.of(), List.of(), Map.of(), List.of(), own.sorted());
        }
        List<URI> entries = new ArrayList<>();
        Map<URI, Map<String, URI>> references = new HashMap<>();
        for (PinnedDocument document : pins.documents()) {
            URI location = folder.resolve(document.path()).normalize().toUri();
            if (document.entry()) {
                entries.add(location);
            }
            Map<String, URI> targets = new HashMap<>();
            document.references()
                    .forEach((reference, target) -> targets.put(
                            reference, folder.resolve(target).normalize().toUri()));
            references.put(location, targets);
        }
        return DocumentGatherer.gather(new Pins(entries, root.toUri(), label, references));
    }

    /** The pinned documents of a contract that are not what they were when they were pinned. */
    public List<String> drifted(ProjectContract contract) throws IOException {
        List<String> drifted = new ArrayList<>();
        PinnedContract pins = pinned.get(contract.name());
        for (PinnedDocument document : pins == null ? List.<PinnedDocument>of() : pins.documents()) {
            Path file = root.resolve(contract.folder()).resolve(document.path());
            if (!Files.isRegularFile(file)
                    || !FileHash.of(Files.readAllBytes(file)).equals(document.hash())) {
                drifted.add(contract.folder() + "/" + document.path());
            }
        }
        return drifted;
    }

    /**
     * Remembers the names that components have been given; writes only when they are others than before.
     *
     * @param names by contract, those of each language
     */
    public void remember(Map<String, List<GivenNames>> names) throws IOException {
        Map<String, List<GivenNames>> changed = new TreeMap<>(names);
        changed.keySet().removeIf(name -> pinned.get(name) == null || !isRenamed(name, names.get(name)));
        if (changed.isEmpty()) {
            return;
        }
        try (Staging staging = Staging.into(root)) {
            for (Map.Entry<String, List<GivenNames>> one : changed.entrySet()) {
                // Another run may have written there since this project was read.
                String folder = contracts.get(one.getKey()).folder();
                PinnedContract now = ProjectLock.read(root, folder, new Findings());
                PinnedContract known = now == null ? pinned.get(one.getKey()) : now;
                staging.write(ProjectLock.path(folder), ProjectLock.bytes(named(one.getKey(), known, one.getValue())));
            }
            staging.commit(List.of());
        }
    }

    /** The same with other names; a language that the project file no longer wants has none. */
    private PinnedContract named(String name, PinnedContract known, List<GivenNames> given) {
        ProjectContract settings = contracts.get(name);
        PinnedNames all = settings == null ? known.names() : known.names().only(settings.languages());
        for (GivenNames names : given) {
            all = all.with(names);
        }
        return known.named(all);
    }

    /** Whether the names of a contract are others than the lock file has. */
    public boolean isRenamed(String name, List<GivenNames> given) {
        PinnedContract before = pinned.get(name);
        return !Arrays.equals(ProjectLock.bytes(before), ProjectLock.bytes(named(name, before, given)));
    }
}
