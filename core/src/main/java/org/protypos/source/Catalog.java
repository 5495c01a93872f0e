package org.protypos.source;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.fetch.Fetcher;

/**
 * The OASIS XML catalogs in force: they map addresses, namespaces and public identifiers to documents (XML Catalogs 1.1,
 * section 7). Catalogs that they lead to are asked when they are files of this machine.
 */
final class Catalog {
    private static final int MOST_FILES = 100;

    private final List<URI> named = new ArrayList<>();

    /** All that can be asked, by where they lie; null for one that cannot be read. */
    private final Map<URI, CatalogFile> files = new HashMap<>();

    /** Adds a catalog file; one that cannot be read is a finding. */
    void add(Path file, Findings findings) {
        URI location = file.toAbsolutePath().normalize().toUri();
        if (!Files.isReadable(file) || Files.isDirectory(file)) {
            findings.error(
                    "catalog-unreadable",
                    null,
                    "the catalog " + file + " cannot be read",
                    "give the path of an OASIS XML catalog");
            return;
        }
        open(location, file.toString(), findings);
        if (files.get(location) != null) {
            named.add(location);
        }
    }

    private void open(URI location, String name, Findings findings) {
        if (files.containsKey(location) || files.size() == MOST_FILES) {
            return;
        }
        files.put(location, null);
        try (InputStream stream = Files.newInputStream(Fetcher.path(location))) {
            byte[] bytes = Fetcher.bounded(stream);
            SourceText text = new SourceText(name, Decoder.decode(bytes));
            Document document = new Document(location, name, bytes, text);
            new DocumentParser((publicId, systemId) -> null, findings).parse(document);
            if (document.root() == null) {
                return;
            }
            CatalogFile file = new CatalogFile(document.root(), location);
            files.put(location, file);
            for (CatalogFile.Entry entry : file.leading()) {
                URI target = URI.create(entry.target());
                if ("file".equals(target.getScheme())) {
                    open(target, Fetcher.path(target).toString(), findings);
                } else {
                    findings.warning(
                            "catalog-remote",
                            entry.element().place("catalog"),
                            "the catalog leads to " + Printable.of(entry.target())
                                    + ", which is no file of this machine and is not asked",
                            "save that catalog beside this one and name the copy");
                }
            }
        } catch (IOException | UnsupportedCharsetException e) {
            findings.error(
                    "catalog-unreadable",
                    new SourceText(name, "").at(0),
                    "the catalog cannot be read",
                    "mend it, or leave it out");
        }
    }

    /** The document for an address or a namespace, or null. */
    URI match(String address) {
        String wanted = CatalogFile.normalized(address);
        URI found = ask(
                file -> file.match(wanted, "uri", "rewriteURI", "uriSuffix"),
                file -> file.delegates(wanted, "delegateURI"));
        return found != null ? found : system(wanted);
    }

    /** The document for the external part of a document type declaration, or null. */
    URI matchExternal(String publicId, String systemId) {
        URI found = systemId == null ? null : system(CatalogFile.normalized(systemId));
        if (found != null || publicId == null) {
            return found;
        }
        String wanted = CatalogFile.normalizedPublic(publicId);
        return ask(
                file -> file.matchPublic(wanted, systemId != null), file -> file.delegates(wanted, "delegatePublic"));
    }

    private URI system(String wanted) {
        return ask(
                file -> file.match(wanted, "system", "rewriteSystem", "systemSuffix"),
                file -> file.delegates(wanted, "delegateSystem"));
    }

    private URI ask(Function<CatalogFile, String> question, Function<CatalogFile, List<String>> delegates) {
        Set<URI> asked = new HashSet<>();
        for (URI location : named) {
            String found = ask(location, question, delegates, asked);
            if (found != null) {
                return address(found);
            }
        }
        return null;
    }

    private String ask(
            URI location,
            Function<CatalogFile, String> question,
            Function<CatalogFile, List<String>> delegates,
            Set<URI> asked) {
        CatalogFile file = files.get(location);
        if (file == null || !asked.add(location)) {
            return null;
        }
        String found = question.apply(file);
        if (found != null) {
            return found;
        }
        List<String> others = delegates.apply(file);
        for (String other : others.isEmpty() ? file.next() : others) {
            found = ask(URI.create(other), question, delegates, asked);
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    /** What takes the place of a start may lead to something that is no address. */
    private static URI address(String found) {
        try {
            return URI.create(found);
        } catch (IllegalArgumentException e) {
            return null;
        }
    }
}
