package org.protypos.source;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;

/**
 * A file of OASIS XML Catalogs 1.1: its entries with what they lead to, resolved against where they stand (sections 6.1 to
 * 6.5). The platform has catalogs too; they ask web servers for what a delegating entry names, and pass over some files.
 */
final class CatalogFile {
    static final String NAMESPACE = "urn:oasis:names:tc:entity:xmlns:xml:catalog";

    private final List<Entry> entries = new ArrayList<>();

    /**
     * An entry.
     *
     * @param kind the name of its element
     * @param key what it is for: an identifier, or the start or the end of some
     * @param target what it leads to, or what takes the place of the start
     * @param preferred whether public identifiers count although there is a system identifier
     */
    record Entry(String kind, String key, String target, boolean preferred, Element element) {}

    CatalogFile(Element root, URI location) {
        if (root.is(NAMESPACE, "catalog")) {
            add(root, location, true);
        }
    }

    private void add(Element around, URI outer, boolean inherited) {
        URI base = base(around, outer);
        String prefer = around.attribute("prefer");
        boolean preferred = prefer == null ? inherited : prefer.equals("public");
        for (Element element : around.children()) {
            if (!element.namespace().equals(NAMESPACE)) {
                continue;
            }
            if (element.name().equals("group")) {
                add(element, base, preferred);
                continue;
            }
            String key = first(
                    element,
                    "systemId",
                    "publicId",
                    "name",
                    "systemIdStartString",
                    "publicIdStartString",
                    "uriStartString",
                    "systemIdSuffix",
                    "uriSuffix");
            String target = first(element, "uri", "rewritePrefix", "catalog");
            URI resolved = target == null ? null : resolved(base(element, base), target);
            if (resolved != null && (key != null || element.name().equals("nextCatalog"))) {
                boolean identifier = element.name().toLowerCase(Locale.ROOT).contains("public");
                entries.add(new Entry(
                        element.name(),
                        key == null ? "" : identifier ? normalizedPublic(key) : normalized(key),
                        resolved.toString(),
                        preferred,
                        element));
            }
        }
    }

    private static URI base(Element element, URI outer) {
        String own = element.attribute(Xml.XML, "base");
        URI base = own == null ? null : resolved(outer, own);
        return base == null ? outer : base;
    }

    private static String first(Element element, String... names) {
        for (String name : names) {
            if (element.attribute(name) != null) {
                return element.attribute(name);
            }
        }
        return null;
    }

    private static URI resolved(URI base, String reference) {
        try {
            return base.resolve(normalized(reference));
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    /** Identifiers that differ only in how characters are escaped are the same (section 6.3). */
    static String normalized(String identifier) {
        StringBuilder text = new StringBuilder();
        byte[] bytes = identifier.strip().getBytes(StandardCharsets.UTF_8);
        for (byte one : bytes) {
            int c = one & 0xFF;
            if (c <= ' ' || c >= 127 || "\"<>\\^`{|}".indexOf(c) >= 0) {
                text.append(String.format(Locale.ROOT, "%%%02X", c));
            } else {
                text.append((char) c);
            }
        }
        return text.toString();
    }

    /** White space in public identifiers counts as one space, and none at the ends (section 6.2). */
    static String normalizedPublic(String identifier) {
        return identifier.strip().replaceAll("\\s+", " ");
    }

    /** The entries that lead to other catalogs. */
    List<Entry> leading() {
        return entries.stream()
                .filter(entry ->
                        entry.kind().equals("nextCatalog") || entry.kind().startsWith("delegate"))
                .toList();
    }

    /**
     * What the entries for whole identifiers, then for their starts, then for their ends say; the longer the start or the end,
     * the better (section 7).
     *
     * @param exact the kind of the entries for whole identifiers
     * @param start the kind for starts, or null
     * @param end the kind for ends, or null
     */
    String match(String identifier, String exact, String start, String end) {
        for (Entry entry : of(exact)) {
            if (entry.key().equals(identifier)) {
                return entry.target();
            }
        }
        UnaryOperator<String> rest = key -> identifier.substring(key.length());
        for (Entry entry : start == null ? List.<Entry>of() : longestFirst(of(start))) {
            if (identifier.startsWith(entry.key())) {
                return entry.target() + rest.apply(entry.key());
            }
        }
        for (Entry entry : end == null ? List.<Entry>of() : longestFirst(of(end))) {
            if (identifier.endsWith(entry.key())) {
                return entry.target();
            }
        }
        return null;
    }

    /** The catalogs that alone are to be asked for an identifier, the one with the longest start first. */
    List<String> delegates(String identifier, String kind) {
        return longestFirst(of(kind)).stream()
                .filter(entry -> identifier.startsWith(entry.key()))
                .map(Entry::target)
                .distinct()
                .toList();
    }

    /** The catalogs to be asked when this one says nothing. */
    List<String> next() {
        return of("nextCatalog").stream().map(Entry::target).toList();
    }

    /** The same for a public identifier that stands beside a system identifier: only entries that are preferred count. */
    String matchPublic(String identifier, boolean beside) {
        for (Entry entry : of("public")) {
            if (entry.key().equals(identifier) && (!beside || entry.preferred())) {
                return entry.target();
            }
        }
        return null;
    }

    private List<Entry> of(String kind) {
        return entries.stream().filter(entry -> entry.kind().equals(kind)).toList();
    }

    private static List<Entry> longestFirst(List<Entry> entries) {
        return entries.stream()
                .sorted(Comparator.comparing((Entry entry) -> -entry.key().length()))
                .toList();
    }
}
