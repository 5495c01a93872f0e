package org.protypos.source;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Limit;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.fetch.Archive;
import org.protypos.source.fetch.Fetcher;
import org.protypos.source.fetch.Remote;

/**
 * Gathers every document of a contract: the ones named, and all that they import, include or redefine. The door of this
 * package. It looks at references only and leaves all meaning to the readers that follow.
 */
public final class DocumentGatherer {
    private static final Limit DOCUMENTS = Limit.of("limit.documents", 5_000);
    private static final Limit MEGABYTES = Limit.of("limit.megabytes", 128);

    private final Findings findings = new Findings();
    private final Catalog catalog = new Catalog();
    private final Fetcher fetcher = new Fetcher();
    private final DocumentParser parser = new DocumentParser(this::external, findings);
    private final Map<URI, Document> byLocation = new LinkedHashMap<>();
    private final Map<Element, Document> links = new LinkedHashMap<>();
    private final List<Document> pending = new ArrayList<>();
    private final List<Element> missing = new ArrayList<>();
    private final Set<URI> mapped = new HashSet<>();
    private final Pins pins;
    private final Remote remote;
    private URI home;
    private long bytes;

    private DocumentGatherer(Pins pins, Remote remote) {
        this.pins = pins;
        this.remote = remote;
    }

    /**
     * Gathers a contract from pinned copies of its documents, and from nowhere else.
     *
     * @return the documents with everything that went wrong; never fails
     */
    public static Documents gather(Pins pins) {
        DocumentGatherer gatherer = new DocumentGatherer(pins, (address, named) -> null);
        return gatherer.gathered(pins.entries());
    }

    /**
     * Gathers a contract.
     *
     * @param arguments paths and http(s) addresses of its entry documents, at least one; a document within an archive is
     *     {@code archive.zip!/path}
     * @param catalog an OASIS XML catalog, or null; a {@code catalog.xml} beside the first entry is used unasked
     * @return the documents with everything that went wrong; never fails
     */
    public static Documents gather(List<String> arguments, Path catalog) {
        return gather(arguments, catalog, (address, named) -> null);
    }

    /** Does the same and asks before each fetch from a web server. */
    public static Documents gather(List<String> arguments, Path catalog, Remote remote) {
        return new DocumentGatherer(null, remote).run(arguments, catalog);
    }

    private Documents run(List<String> arguments, Path catalogFile) {
        List<URI> locations = locations(arguments);
        if (catalogFile != null) {
            catalog.add(catalogFile, findings);
        }
        return gathered(locations);
    }

    private Documents gathered(List<URI> locations) {
        List<Document> entries = new ArrayList<>();
        for (URI location : locations) {
            if (home == null) {
                home = Archive.home(location);
                if (pins == null) {
                    addNeighbouringCatalog();
                }
            }
            Document entry = load(location, null, "");
            if (entry != null && !entries.contains(entry)) {
                entries.add(entry);
            }
        }
        while (!pending.isEmpty()) {
            follow(pending.remove(0));
        }
        return new Documents(
                List.copyOf(entries),
                List.copyOf(byLocation.values().stream()
                        .filter(d -> d.root() != null)
                        .toList()),
                links,
                List.copyOf(missing),
                findings.sorted());
    }

    private void addNeighbouringCatalog() {
        if ("file".equals(home.getScheme())) {
            Path beside = Path.of(home).resolve("catalog.xml");
            if (Files.isRegularFile(beside)) {
                catalog.add(beside, findings);
            }
        }
    }

    private List<URI> locations(List<String> arguments) {
        List<URI> locations = new ArrayList<>();
        for (String argument : arguments) {
            try {
                if (argument.matches("(?i)https?://.*")) {
                    locations.add(fetcher.name(URI.create(argument).normalize()));
                } else if (argument.contains("!/") && !Files.exists(Path.of(argument))) {
                    int inside = argument.indexOf("!/");
                    locations.add(fetcher.within(
                            Path.of(argument.substring(0, inside)), argument.substring(inside + "!/".length())));
                } else {
                    locations.addAll(files(Path.of(argument)));
                }
            } catch (InvalidPathException e) {
                boolean lost = argument.indexOf('\uFFFD') >= 0;
                unreachable(argument, lost ? "Java knows no such letters here: set LC_ALL=C.UTF-8" : "it is no path");
            } catch (IllegalArgumentException e) {
                unreachable(argument, "it is no address");
            } catch (IOException e) {
                unreachable(argument, e.getMessage() == null ? "it cannot be read" : e.getMessage());
            }
        }
        return locations;
    }

    /** A directory or an archive stands for the WSDL documents in it, or for the schemas when there are none. */
    private List<URI> files(Path path) throws IOException {
        if (path.toString().toLowerCase(Locale.ROOT).matches(".*\\.(zip|jar)") && Files.isRegularFile(path)) {
            return fetcher.open(path);
        }
        if (!Files.isDirectory(path)) {
            return List.of(path.toAbsolutePath().normalize().toUri());
        }
        for (String suffix : List.of(".wsdl", ".xsd")) {
            try (var list = Files.list(path)) {
                List<URI> found = list.filter(file -> file.toString().endsWith(suffix))
                        .sorted()
                        .map(file -> file.toAbsolutePath().normalize().toUri())
                        .toList();
                if (!found.isEmpty()) {
                    return found;
                }
            }
        }
        throw new IOException("no contract in the directory");
    }

    private Document load(URI location, Element reference, String attribute) {
        Document known = byLocation.get(location);
        if (known != null) {
            return known;
        }
        Place place = reference == null ? null : reference.place(attribute);
        if (byLocation.size() >= DOCUMENTS.most()) {
            findings.error(
                    "too-many-documents",
                    place,
                    "the contract has more than " + DOCUMENTS.most() + " documents",
                    "name a smaller part of it" + DOCUMENTS.cure());
            return null;
        }
        boolean strayed = reference != null && isRemote(reference.document().location()) && !isRemote(location);
        if (strayed && !mapped.contains(location)) {
            unreachable(reference, location, "a document from the network must not lead to a local file");
            return null;
        }
        try {
            byte[] content = fetch(location);
            bytes += content.length;
            if (bytes >> 20 >= MEGABYTES.most()) {
                findings.error(
                        "too-many-documents",
                        place,
                        "the documents of the contract are longer than " + MEGABYTES.most() + " MB together",
                        "name a smaller part of it" + MEGABYTES.cure());
                return null;
            }
            SourceText text = new SourceText(display(location), Decoder.decode(content));
            if (reference != null && !text.text().stripLeading().startsWith("<")) {
                // What a contract points at may be any file of this machine: nothing of it is shown.
                findings.error(
                        "malformed-xml",
                        reference.place(),
                        "the document " + display(location) + " is no XML: it does not begin with <",
                        "point to an XML document");
                return null;
            }
            Document document = new Document(location, name(location), content, text);
            byLocation.put(location, document);
            Decoder.Broken broken = Decoder.broken(content, text.text());
            if (broken != null) {
                findings.error(
                        "encoding",
                        text.at(broken.offset()),
                        "byte " + (broken.at() + 1) + " of the document is no character in its encoding",
                        "save the document in the encoding that it declares, UTF-8 if it declares none");
            }
            parser.parse(document);
            pending.add(document);
            return document;
        } catch (UnsupportedCharsetException e) {
            unreachable(reference, location, "its encoding " + e.getCharsetName() + " is unknown");
        } catch (IOException e) {
            unreachable(reference, location, e.getMessage());
        }
        return null;
    }

    private byte[] fetch(URI location) throws IOException {
        String refusal = isWeb(location) ? remote.refusal(location, fetcher.isNamed(location)) : null;
        if (refusal != null) {
            throw new IOException(refusal);
        }
        return fetcher.fetch(location);
    }

    static boolean isWeb(URI location) {
        return "http".equals(location.getScheme()) || "https".equals(location.getScheme());
    }

    static boolean isRemote(URI location) {
        return !"file".equals(location.getScheme());
    }

    private void unreachable(String argument, String why) {
        findings.error(
                "document-unreachable",
                null,
                argument + ": " + why,
                "give the path or the http(s) address of a WSDL or schema document");
    }

    /** An import may do without its document (XML Schema Part 1, section 4.2.3); the other references may not. */
    private void unreachable(Element reference, URI location, String why) {
        if (reference == null) {
            unreachable(display(location), why);
            return;
        }
        missing.add(reference);
        String message = "the document " + display(location) + " cannot be read: " + why;
        String cure = pins == null
                ? MissingDocument.cure(location, reference.document().location(), home)
                : MissingDocument.USUAL;
        if (reference.is(Xml.XSD, "import")) {
            findings.warning("document-unreachable", reference.place("schemaLocation"), message, cure);
        } else {
            findings.error(
                    "document-unreachable",
                    reference.place(reference.attribute("location") == null ? "schemaLocation" : "location"),
                    message,
                    cure);
        }
    }

    private String name(URI location) {
        if ("file".equals(location.getScheme()) && "file".equals(home.getScheme())) {
            return Path.of(home).relativize(Path.of(location)).toString().replace('\\', '/');
        }
        return home.relativize(location).toString();
    }

    /** Findings name a file as somebody in the current folder would. */
    private String display(URI location) {
        String labelled = pins == null ? null : pins.display(location);
        if (labelled != null) {
            return labelled;
        }
        if (isRemote(location)) {
            return location.toString();
        }
        Path path;
        try {
            path = Fetcher.path(location);
        } catch (IOException e) {
            return location.toString();
        }
        Path here = Path.of("").toAbsolutePath();
        Path relative = path.getRoot().equals(here.getRoot()) ? here.relativize(path) : path;
        return relative.toString().length() > path.toString().length() ? path.toString() : relative.toString();
    }

    private void follow(Document document) {
        Element root = document.root();
        if (root == null) {
            return;
        }
        if (root.is(Xml.XSD, "schema")) {
            followSchema(root);
        } else if (root.is(Xml.WSDL, "definitions")) {
            for (Element child : root.children()) {
                if (child.is(Xml.WSDL, "import")) {
                    link(child, "location");
                } else if (child.is(Xml.WSDL, "types")) {
                    child.children(Xml.XSD, "schema").forEach(this::followSchema);
                }
            }
        }
    }

    private void followSchema(Element schema) {
        for (Element child : schema.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "include", "redefine", "override", "import" -> link(child, "schemaLocation");
                default -> {
                    // only references matter here
                }
            }
        }
    }

    private void link(Element reference, String attribute) {
        String location = reference.attribute(attribute);
        Document base = reference.document();
        if (pins != null) {
            pinned(reference, attribute, location);
            return;
        }
        URI target = location == null ? null : target(reference, attribute, location.strip());
        if (target == null) {
            String namespace = reference.attribute("namespace");
            target = location == null && namespace != null ? catalog.match(namespace) : null;
            if (target != null) {
                mapped.add(target);
            }
        }
        if (target == null) {
            return;
        }
        Document found = load(target, reference, attribute);
        if (found != null && found != base) {
            links.put(reference, found);
        }
    }

    /** A reference in a pinned copy leads to a copy: where it led in the original, or where it leads as it stands. */
    private void pinned(Element reference, String attribute, String location) {
        String key = location == null ? reference.attribute("namespace") : location.strip();
        URI target = key == null ? null : pins.target(reference.document().location(), key);
        if (target == null && location != null) {
            target = target(reference, attribute, location.strip());
            if (target != null && isRemote(target)) {
                unreachable(reference, target, "it was not there when the contract was adopted");
                return;
            }
        }
        Document found = target == null ? null : load(target, reference, attribute);
        if (found != null && found != reference.document()) {
            links.put(reference, found);
        }
    }

    private URI target(Element reference, String attribute, String location) {
        try {
            URI local = catalog.match(location);
            URI absolute = local != null ? local : resolve(reference.document().location(), address(location));
            if (local == null) {
                if (location.indexOf('\\') >= 0) {
                    findings.warning(
                            "bad-location",
                            reference.place(attribute),
                            "\"" + location + "\" has \\ where an address has /, for which it is taken",
                            "write / there: other programs may not find the document");
                }
                local = catalog.match(absolute.toString());
                absolute = local != null ? local : absolute;
            }
            if (BuiltinDocuments.has(absolute)) {
                return null;
            }
            String fragmentless = absolute.toString().split("#", 2)[0];
            URI target = URI.create(fragmentless).normalize();
            if (local != null) {
                mapped.add(target);
            }
            return target;
        } catch (IllegalArgumentException e) {
            findings.error(
                    "bad-location",
                    reference.place(attribute),
                    "\"" + location + "\" is no address of a document",
                    "write a relative path or an absolute address"
                            + (location.indexOf('%') < 0 ? "" : ", and %25 for %"));
            return null;
        }
    }

    /** What is written for a location as an address: paths of Windows are no addresses, but are written all the same. */
    private static String address(String location) {
        String path = location.replace('\\', '/');
        return CatalogFile.normalized(path.matches("[A-Za-z]:/.*") ? "file:///" + path : path);
    }

    /** Resolves a reference as RFC 3986 does, which keeps the path when only a query is given. */
    private static URI resolve(URI base, String reference) {
        return reference.startsWith("?")
                ? URI.create(base.toString().replaceFirst("[?#].*$", "") + reference)
                : base.resolve(reference);
    }

    private byte[] external(String publicId, String systemId) {
        URI local = catalog.matchExternal(publicId, systemId);
        try {
            return local == null ? null : fetch(local);
        } catch (IOException e) {
            return null;
        }
    }
}
