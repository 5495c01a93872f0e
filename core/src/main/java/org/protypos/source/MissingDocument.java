package org.protypos.source;

import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.protypos.diagnostic.Setting;
import org.protypos.source.fetch.Fetcher;

/** What to do about a document that a contract leads to and that is not there. */
final class MissingDocument {
    /** Where nothing is known of what lies around. */
    static final String USUAL =
            "save it there, or map the address to a local copy in a catalog (" + Setting.CATALOG + ")";

    private MissingDocument() {}

    /**
     * The cure. Contracts are mailed around in folders while their documents go on naming each other by web addresses,
     * so a file of the name that was looked for, beside the document that refers to it, is likely to be meant; and on
     * many disks capitals do not count, on others they do.
     *
     * @param sought where the reference leads
     * @param from the document that refers
     * @param home the folder of the contract, where a catalog is used unasked
     */
    static String cure(URI sought, URI from, URI home) {
        boolean web = DocumentGatherer.isWeb(sought);
        String name = sought.getPath() == null ? "" : sought.getPath().replaceFirst(".*/", "");
        if (name.isEmpty()
                || DocumentGatherer.isRemote(from)
                || DocumentGatherer.isRemote(home)
                || !web && DocumentGatherer.isRemote(sought)) {
            return USUAL;
        }
        Path found = like(name, (web ? from : sought).resolve("."));
        if (!web && found != null) {
            return write(found, "as the file is called that lies there");
        }
        if (!web) {
            Path beside = like(name, from.resolve("."));
            return beside == null ? USUAL : write(beside, "if the file beside this document is meant");
        }
        String copy = found == null
                ? name
                : Path.of(home).relativize(found).toString().replace('\\', '/');
        String entry = "<catalog xmlns=\"" + CatalogFile.NAMESPACE + "\"><uri name=\""
                + XmlText.escaped(sought.toString(), true) + "\" uri=\"" + XmlText.escaped(relative(copy), true)
                + "\"/></catalog>";
        return found == null
                ? "save it as " + copy + " beside the contract, and say so in a catalog.xml there: " + entry
                : "if " + copy + " is that document, say so in a catalog.xml beside the contract: " + entry;
    }

    private static String write(Path file, String why) {
        return "write " + file.getFileName() + ", " + why + ", or map the address to it in a catalog ("
                + Setting.CATALOG + ")";
    }

    /** The file of this name in the folder, capitals or not; null if there is none. */
    private static Path like(String name, URI folder) {
        try (DirectoryStream<Path> files = Files.newDirectoryStream(
                Fetcher.path(folder), file -> file.getFileName().toString().equalsIgnoreCase(name))) {
            for (Path file : files) {
                if (Files.isRegularFile(file)) {
                    return file;
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            // a folder that cannot be read has nothing to offer
        }
        return null;
    }

    private static String relative(String path) {
        try {
            return new URI(null, null, path, null).getRawPath();
        } catch (URISyntaxException e) {
            return path;
        }
    }
}
