package org.protypos.project;

import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.protypos.naming.Designator;
import org.protypos.naming.GivenNames;
import org.protypos.source.FileHash;

/**
 * Short marks for the namespaces in the designators of names, which would fill a lock file otherwise.
 *
 * @param namespaces the namespace of each mark
 */
record Shortened(Map<String, String> namespaces) {
    private static final Pattern BRACES = Pattern.compile("\\{([^}]*)\\}");

    /** The marks for some names. */
    static Shortened of(Collection<GivenNames> some) {
        TreeSet<String> all = new TreeSet<>();
        some.forEach(names -> names.byScope().values().forEach(each -> each.keySet()
                .forEach(
                        designator -> BRACES.matcher(designator).results().forEach(found -> all.add(found.group(1))))));
        Map<String, String> namespaces = new TreeMap<>();
        all.forEach(namespace -> namespaces.put(mark(namespace), namespace));
        return new Shortened(namespaces);
    }

    /** Names with the marks, by scope and designator. */
    Map<String, Map<String, String>> names(GivenNames names) {
        Map<String, String> marks = new HashMap<>();
        namespaces.forEach((mark, namespace) -> marks.put(namespace, mark));
        Map<String, Map<String, String>> shortened = new TreeMap<>();
        names.byScope().forEach((scope, some) -> {
            Map<String, String> here = shortened.computeIfAbsent(scope, any -> new TreeMap<>());
            some.forEach((designator, name) -> here.put(Designator.withNamespaces(designator, marks), name));
        });
        return shortened;
    }

    /** A mark that is the same whatever other namespaces there are: the last word, and a few digits of a hash. */
    private static String mark(String namespace) {
        String word = namespace
                .replaceFirst("[/#]+$", "")
                .replaceFirst("^.*[/:#]", "")
                .replaceAll("[^A-Za-z0-9.-]", "");
        String hash = FileHash.of(namespace.getBytes(StandardCharsets.UTF_8)).substring(0, 6);
        return (word.length() > 24 ? word.substring(0, 24) : word) + "-" + hash;
    }
}
