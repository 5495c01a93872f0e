package org.protypos.source;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.protypos.diagnostic.Setting;
import org.protypos.source.fetch.Fetcher;

/** What to do about a document that a contract leads to and that is not there. */
public final class MissingDocument {
    /** So many files are looked into, each as far as its root is likely to end. */
    private static final int MOST_FILES = 500;

    private static final int LONGEST_HEAD = 16 << 10;

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
        return found == null ? saved(copy, sought.toString()) : meant(copy, sought.toString());
    }

    /**
     * The cure where an import names a namespace alone. A file with this namespace beside the document is likely to be meant.
     *
     * @param from the document that imports
     */
    public static String cure(String namespace, URI from) {
        if (namespace.isEmpty() || DocumentGatherer.isRemote(from)) {
            return "name that document as well, behind this one";
        }
        Path found = of(namespace, from.resolve("."));
        return found == null
                ? saved("FILE.xsd", namespace)
                : meant(found.getFileName().toString(), namespace) + ", or name it as well, behind this one";
    }

    private static String saved(String copy, String name) {
        return "save it as " + copy + " beside the contract, and say so in a catalog.xml there: " + entry(name, copy);
    }

    private static String meant(String copy, String name) {
        return "if " + copy + " is that document, say so in a catalog.xml beside the contract: " + entry(name, copy);
    }

    private static String entry(String name, String copy) {
        return "<catalog xmlns=\"" + CatalogFile.NAMESPACE + "\"><uri name=\"" + XmlText.escaped(name, true)
                + "\" uri=\"" + XmlText.escaped(relative(copy), true) + "\"/></catalog>";
    }

    /** A schema of this namespace in the folder; null if there is none. */
    private static Path of(String namespace, URI folder) {
        Pattern target = Pattern.compile(
                "targetNamespace\\s*=\\s*([\"'])" + Pattern.quote(XmlText.escaped(namespace, true)) + "\\1");
        try (Stream<Path> files = Files.list(Fetcher.path(folder))) {
            return files.filter(file -> file.toString().endsWith(".xsd") && Files.isRegularFile(file))
                    .sorted()
                    .limit(MOST_FILES)
                    .filter(file -> target.matcher(head(file)).find())
                    .findFirst()
                    .orElse(null);
        } catch (IOException | UncheckedIOException e) {
            // a folder that cannot be read has nothing to offer
            return null;
        }
    }

    private static String head(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(LONGEST_HEAD), StandardCharsets.ISO_8859_1);
        } catch (IOException e) {
            return "";
        }
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
