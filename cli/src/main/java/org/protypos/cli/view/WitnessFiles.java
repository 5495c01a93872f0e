package org.protypos.cli.view;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.protypos.change.Difference;
import org.protypos.change.Evidence;
import org.protypos.change.Reader;
import org.protypos.diagnostic.Printable;
import org.protypos.output.WholeFile;

/** Writes the messages that show why differences break something into files. */
public final class WitnessFiles {
    private WitnessFiles() {}

    /**
     * Writes them.
     *
     * @return the names of the files, by difference and reader
     */
    public static Map<Difference, Map<Reader, String>> write(Path folder, ComparisonView view) throws IOException {
        Map<Difference, Map<Reader, String>> files = new LinkedHashMap<>();
        int number = 0;
        for (Difference difference : view.some(true)) {
            for (Evidence evidence : difference.evidence()) {
                if (evidence.isShown()) {
                    String name = String.format(Locale.ROOT, "%03d-%s.xml", ++number, word(difference));
                    Files.createDirectories(folder);
                    WholeFile.write(folder.resolve(name), text(view, difference, evidence));
                    files.computeIfAbsent(difference, any -> new EnumMap<>(Reader.class))
                            .put(evidence.reader(), name);
                }
            }
        }
        return files;
    }

    /** A word for the component, of letters that any disk takes. */
    private static String word(Difference difference) {
        String local = difference.designator().replaceFirst("^.*[}/@]", "").replaceAll("[^A-Za-z0-9]+", "-");
        String plain = local.replaceAll("^-+|-+$", "");
        return plain.isEmpty() ? "difference" : plain.substring(0, Math.min(40, plain.length()));
    }

    private static String text(ComparisonView view, Difference difference, Evidence evidence) {
        StringBuilder says =
                new StringBuilder(view.what(difference)).append("; ").append(view.why(evidence));
        if (evidence.at() != null) {
            says.append("; at ").append(evidence.at()).append(": ").append(evidence.why());
        }
        String comment = Printable.without(says.toString(), ' ').replaceAll("-(?=-)", "- ");
        // Nothing may stand before the declaration of an XML document (XML 1.0, section 2.8).
        String message = evidence.message();
        int root = message.startsWith("<?xml ") ? message.indexOf("?>") + 3 : 0;
        return message.substring(0, root) + "<!-- " + comment + " -->\n" + message.substring(root);
    }
}
