package org.protypos.authoring;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.DeviceNames;
import org.protypos.source.Xml;

/** Names the files of schemas after their namespaces. */
public final class SchemaFiles {
    private static final int LONGEST = 60;

    private final Map<String, String> files = new HashMap<>();
    private final Set<String> taken = new HashSet<>();

    /** Begins, with files that are decided already, by namespace. */
    public SchemaFiles(Map<String, String> decided) {
        decided.forEach((namespace, file) -> {
            files.put(namespace, file);
            taken.add(file.toLowerCase(Locale.ROOT));
        });
    }

    /**
     * The file of a namespace.
     *
     * @param otherwise what to call it when the namespace says nothing
     */
    public String of(String namespace, String otherwise) {
        String word = namespace.equals(Xml.XML) ? "xml" : lastWord(namespace);
        return called(namespace, word.isEmpty() ? otherwise : word);
    }

    /** The file of a namespace, called after a name unless it has one already. */
    public String called(String namespace, String name) {
        String known = files.get(namespace);
        if (known == null) {
            String wanted = plain(name);
            wanted = wanted.isEmpty() ? "schema" : DeviceNames.avoided(wanted);
            known = wanted + ".xsd";
            for (int i = 2; !taken.add(known); i++) {
                known = wanted + i + ".xsd";
            }
            files.put(namespace, known);
        }
        return known;
    }

    /** The last part of a namespace that is a word, not a number or a date. */
    private static String lastWord(String namespace) {
        String[] parts = namespace.split("[/:#?]+");
        for (int i = parts.length - 1; i >= 0; i--) {
            String word = plain(parts[i]);
            if (word.length() > 1 && !word.matches("v?[0-9.-]+")) {
                return word;
            }
        }
        return "";
    }

    /** What every file system takes. */
    private static String plain(String text) {
        String plain = text.replaceAll("[^A-Za-z0-9_-]+", "-")
                .replaceAll("^[^A-Za-z]+|-+$", "")
                .toLowerCase(Locale.ROOT);
        return plain.length() > LONGEST ? plain.substring(0, LONGEST) : plain;
    }
}
