package org.protypos.project;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.naming.GivenNames;
import org.protypos.output.FileHash;

/**
 * Names with short marks for the namespaces in their designators, which would fill a lock file otherwise.
 *
 * @param namespaces the namespace of each mark
 * @param names the names, by scope and designator
 */
record Shortened(Map<String, String> namespaces, Map<String, Map<String, String>> names) {
    private static final Pattern BRACES = Pattern.compile("\\{([^}]*)\\}");

    static Shortened of(GivenNames names) {
        TreeSet<String> all = new TreeSet<>();
        names.byScope().values().forEach(some -> some.keySet()
                .forEach(designator -> BRACES.matcher(designator).results().forEach(found -> all.add(found.group(1)))));
        Map<String, String> marks = new HashMap<>();
        Map<String, String> namespaces = new TreeMap<>();
        for (String namespace : all) {
            String mark = mark(namespace);
            marks.put(namespace, mark);
            namespaces.put(mark, namespace);
        }
        Map<String, Map<String, String>> shortened = new TreeMap<>();
        names.byScope().forEach((scope, some) -> {
            Map<String, String> here = shortened.computeIfAbsent(scope, any -> new TreeMap<>());
            some.forEach((designator, name) -> here.put(replaced(designator, marks), name));
        });
        return new Shortened(namespaces, shortened);
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

    static String expand(String designator, Map<String, String> namespaces) {
        return replaced(designator, namespaces);
    }

    private static String replaced(String designator, Map<String, String> by) {
        return BRACES.matcher(designator)
                .replaceAll(
                        found -> Matcher.quoteReplacement("{" + by.getOrDefault(found.group(1), found.group(1)) + "}"));
    }
}
