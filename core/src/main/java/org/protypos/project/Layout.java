package org.protypos.project;

import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.DeviceNames;
import org.protypos.source.Document;
import org.protypos.source.Xml;

/** Finds a readable path for the copy of each document of a contract: as they lie to each other where they come from. */
final class Layout {
    private Layout() {}

    /** A path for each document, with slashes, relative to the folder of the contract; no two differ in case alone. */
    static Map<Document, String> of(List<Document> documents) {
        Map<String, List<Document>> bySite = new LinkedHashMap<>();
        documents.forEach(document -> bySite.computeIfAbsent(site(document.location()), any -> new ArrayList<>())
                .add(document));
        Map<Document, String> paths = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>();
        String home = site(documents.get(0).location());
        bySite.forEach((site, some) -> {
            int shared = shared(some);
            for (Document document : some) {
                List<String> steps = steps(document.location());
                List<String> kept = new ArrayList<>(steps.subList(shared, steps.size() - 1));
                if (!site.equals(home)) {
                    kept.add(0, safe(site.replaceFirst("^[a-z]+:/*", "")));
                }
                kept.add(fileName(document));
                paths.put(document, free(String.join("/", kept), taken));
            }
        });
        return paths;
    }

    private static String site(URI location) {
        return location.getScheme() + "://" + (location.getRawAuthority() == null ? "" : location.getRawAuthority());
    }

    private static List<String> steps(URI location) {
        String path = location.isOpaque() ? location.getRawSchemeSpecificPart() : location.getRawPath();
        List<String> steps = new ArrayList<>();
        for (String step : (path == null ? "" : path).split("/")) {
            if (!step.isEmpty()) {
                steps.add(safe(URLDecoder.decode(step.replace("+", "%2B"), StandardCharsets.UTF_8)));
            }
        }
        if (steps.isEmpty() || path.endsWith("/")) {
            steps.add("contract");
        }
        return steps;
    }

    /** How many folders all documents of a site have in common. */
    private static int shared(List<Document> documents) {
        List<String> first = steps(documents.get(0).location());
        int shared = first.size() - 1;
        for (Document document : documents) {
            List<String> steps = steps(document.location());
            int at = 0;
            while (at < Math.min(shared, steps.size() - 1) && steps.get(at).equals(first.get(at))) {
                at++;
            }
            shared = at;
        }
        return shared;
    }

    /** The name of a file for a document; what an address asks for in its query is part of it. */
    private static String fileName(Document document) {
        List<String> steps = steps(document.location());
        String name = steps.get(steps.size() - 1);
        String query = document.location().getRawQuery();
        String suffix = document.root() != null && document.root().is(Xml.WSDL, "definitions") ? ".wsdl" : ".xsd";
        if (query != null && !query.equalsIgnoreCase("wsdl")) {
            name += "-" + safe(query);
        }
        boolean named = name.toLowerCase(Locale.ROOT).matches(".*\\.(wsdl|xsd|xml)");
        return named && query == null ? name : name.replaceFirst("\\.[A-Za-z]{2,4}$", "") + suffix;
    }

    /** A step with nothing in it that a file system minds. */
    private static String safe(String step) {
        String safe = step.replaceAll("[^A-Za-z0-9._-]+", "_")
                .replaceFirst("^\\.+", "_")
                .replaceFirst("\\.+$", "");
        String cut = safe.length() > 80 ? safe.substring(safe.length() - 80) : safe;
        return cut.isEmpty() ? "_" : DeviceNames.avoided(cut);
    }

    private static String free(String path, Set<String> taken) {
        int dot = path.lastIndexOf('.');
        String free = path;
        for (int number = 2; !taken.add(free.toLowerCase(Locale.ROOT)); number++) {
            free = path.substring(0, dot) + "-" + number + path.substring(dot);
        }
        return free;
    }
}
