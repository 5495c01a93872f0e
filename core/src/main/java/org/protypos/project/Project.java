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
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.Printable;
import org.protypos.naming.GivenNames;
import org.protypos.output.FileHash;
import org.protypos.output.InsideFolder;
import org.protypos.output.Staging;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.Documents;
import org.protypos.source.Pins;

/**
 * A project: its contracts with what is to be made of them, in {@code protypos.yaml}, and what is pinned of them, in
 * {@code protypos.lock.json}. The door of this package.
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
        return new Project(root, label, contracts, ProjectLock.read(root, findings), findings.sorted());
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
                        "type: protypos adopt ADDRESS --name " + contract.name());
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

    /** Remembers the names that components have been given; writes only when they are others than before. */
    public void remember(Map<String, GivenNames> names) throws IOException {
        Path file = root.resolve(ProjectLock.FILE);
        if (Files.exists(file) && Arrays.equals(Files.readAllBytes(file), named(pinned, names))) {
            return;
        }
        try (Staging staging = Staging.into(root)) {
            // Another run may have written there since this project was read.
            Map<String, PinnedContract> now = ProjectLock.read(root, new Findings());
            staging.write(ProjectLock.FILE, named(now.isEmpty() ? pinned : now, names));
            staging.commit(List.of());
        }
    }

    private static byte[] named(Map<String, PinnedContract> contracts, Map<String, GivenNames> names) {
        Map<String, PinnedContract> all = new TreeMap<>(contracts);
        names.forEach((name, given) -> all.computeIfPresent(name, (any, known) -> known.named(given)));
        return ProjectLock.bytes(all);
    }

    /** Whether the names of a contract are others than the lock file has. */
    public boolean isRenamed(String name, GivenNames given) {
        Map<String, PinnedContract> before = Map.of(name, pinned.get(name));
        Map<String, PinnedContract> after = Map.of(name, pinned.get(name).named(given));
        return !Arrays.equals(ProjectLock.bytes(before), ProjectLock.bytes(after));
    }
}
