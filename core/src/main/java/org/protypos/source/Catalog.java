package org.protypos.source;

import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.xml.catalog.CatalogException;
import javax.xml.catalog.CatalogFeatures;
import javax.xml.catalog.CatalogFeatures.Feature;
import javax.xml.catalog.CatalogManager;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;

/** The OASIS XML catalogs in force: they map addresses, namespaces and public identifiers to local documents. */
final class Catalog {
    private final List<javax.xml.catalog.Catalog> catalogs = new ArrayList<>();

    /** Adds a catalog file; one that cannot be read is a finding. */
    void add(Path file, Findings findings) {
        if (!Files.isReadable(file)) {
            findings.error(
                    "catalog-unreadable",
                    null,
                    "the catalog " + file + " cannot be read",
                    "give the path of an OASIS XML catalog");
            return;
        }
        CatalogFeatures features = CatalogFeatures.builder()
                .with(Feature.PREFER, "public")
                .with(Feature.DEFER, "true")
                .with(Feature.RESOLVE, "continue")
                .build();
        try {
            catalogs.add(CatalogManager.catalog(features, file.toAbsolutePath().toUri()));
        } catch (CatalogException | IllegalArgumentException e) {
            findings.error(
                    "catalog-unreadable",
                    new SourceText(file.toString(), "").at(0),
                    "the catalog cannot be used: " + e.getMessage(),
                    "mend it, or leave it out");
        }
    }

    /** The local document for an address or a namespace, or null. */
    URI match(String address) {
        for (javax.xml.catalog.Catalog catalog : catalogs) {
            String found = catalog.matchURI(address);
            if (found == null) {
                found = catalog.matchSystem(address);
            }
            if (found != null) {
                return URI.create(found);
            }
        }
        return null;
    }

    /** The local document for the external part of a document type declaration, or null. */
    URI matchExternal(String publicId, String systemId) {
        for (javax.xml.catalog.Catalog catalog : catalogs) {
            String found = systemId == null ? null : catalog.matchSystem(systemId);
            if (found == null && publicId != null) {
                found = catalog.matchPublic(publicId);
            }
            if (found != null) {
                return URI.create(found);
            }
        }
        return null;
    }
}
