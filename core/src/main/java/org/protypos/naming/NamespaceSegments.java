package org.protypos.naming;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;

/** The segments of the package for a namespace, as Jakarta XML Binding describes: host reversed, then the path. */
public final class NamespaceSegments {
    private final String namespace;

    public NamespaceSegments(String namespace) {
        this.namespace = namespace.strip();
    }

    public List<String> list() {
        String rest = namespace;
        int colon = rest.indexOf(':');
        String scheme = colon < 0 ? "" : rest.substring(0, colon).toLowerCase(Locale.ROOT);
        if (scheme.equals("urn")) {
            return segments(rest.substring(colon + 1), "[:/#?]");
        }
        if (colon > 0 && scheme.matches("[a-z][a-z0-9+.-]*")) {
            rest = rest.substring(colon + 1);
        }
        boolean hasHost = rest.startsWith("//");
        List<String> path = segments(withoutExtension(rest.replaceFirst("^/+", "")), "[/:#?]");
        if (!hasHost || path.isEmpty()) {
            return path;
        }
        List<String> segments = host(path.get(0));
        segments.addAll(path.subList(1, path.size()));
        return segments;
    }

    private static String withoutExtension(String path) {
        int slash = path.lastIndexOf('/');
        int dot = path.lastIndexOf('.');
        boolean extension = dot > slash && slash > 0 && path.substring(dot + 1).matches("[A-Za-z]{2,4}");
        return extension ? path.substring(0, dot) : path;
    }

    private static List<String> host(String authority) {
        List<String> labels = segments(authority, "\\.");
        Collections.reverse(labels);
        if (labels.size() > 1 && labels.get(labels.size() - 1).equalsIgnoreCase("www")) {
            labels.remove(labels.size() - 1);
        }
        return labels;
    }

    private static List<String> segments(String text, String separator) {
        List<String> segments = new ArrayList<>(Arrays.asList(text.split(separator)));
        segments.removeIf(String::isBlank);
        return segments.isEmpty() ? new ArrayList<>(List.of("generated")) : segments;
    }
}
