package org.protypos.infer.loosen;

import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.Markup;
import org.protypos.authoring.SchemaFiles;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Lets schemas refer to what others declare: with imports and prefixes, and with a new schema where a namespace has none. */
final class SchemaReferences {
    private static final Set<String> FIRST = Set.of("include", "import", "redefine");

    private final SchemaFinder finder;
    private final SchemaEdits edits;

    /** The schemas that are made in this round, by their namespaces. */
    private final Map<String, Path> made = new HashMap<>();

    SchemaReferences(SchemaFinder finder, SchemaEdits edits) {
        this.finder = finder;
        this.edits = edits;
    }

    /**
     * The schema of a namespace. Where there is none one is made, and a schema imports it: it can be worked on in the next round.
     *
     * @param from the schema that is to refer to it
     * @return the schema, or null when it is only made now
     */
    Element schema(String namespace, Element from) {
        List<Element> there = finder.schemas(namespace);
        if (!there.isEmpty()) {
            return there.get(0);
        }
        imports(from, namespace, made.computeIfAbsent(namespace, none -> make(namespace, from)));
        return null;
    }

    /** Makes an empty schema beside another. */
    private Path make(String namespace, Element from) {
        Path folder = Path.of(from.document().location()).getParent();
        String name = new SchemaFiles(Map.of()).of(namespace, "other");
        Path file = folder.resolve(name);
        for (int i = 2; edits.isCreated(file); i++) {
            file = folder.resolve(name.replace(".xsd", i + ".xsd"));
        }
        Markup text = Markup.document()
                .open(
                        "xs:schema",
                        "xmlns:xs",
                        Xml.XSD,
                        "targetNamespace",
                        namespace,
                        "elementFormDefault",
                        "qualified");
        edits.create(file, text.close("xs:schema").toString());
        return file;
    }

    /** Has a schema import what another declares. */
    void imports(Element from, Element other) {
        String namespace = finder.target(other);
        if (!namespace.equals(finder.target(from))) {
            imports(from, namespace, Path.of(other.document().location()));
        }
    }

    private void imports(Element from, String namespace, Path file) {
        boolean there = from.children(Xml.XSD, "import").stream()
                .anyMatch(one -> namespace.equals(
                        one.attribute("namespace") == null
                                ? ""
                                : one.attribute("namespace").strip()));
        if (there || !edits.once(from, "import " + namespace)) {
            return;
        }
        Path folder = Path.of(from.document().location()).getParent();
        String location = folder.relativize(file).toString().replace('\\', '/');
        try {
            location = new URI(null, null, location, null).getRawPath();
        } catch (URISyntaxException e) {
            throw new IllegalStateException("a relative path is a path of a URI", e);
        }
        String lines = Markup.fragment()
                .empty(
                        SchemaEdits.tag(from, "import"),
                        "namespace",
                        namespace.isEmpty() ? null : namespace,
                        "schemaLocation",
                        location)
                .toString();
        Element first = SchemaFinder.first(from);
        Element last = null;
        for (Element child : from.children()) {
            last = child.namespace().equals(Xml.XSD) && FIRST.contains(child.name()) ? child : last;
        }
        if (last != null) {
            edits.of(from).after(last, lines);
        } else if (first != null) {
            edits.of(from).before(first, lines);
        } else {
            edits.of(from).append(from, lines);
        }
    }

    /**
     * An attribute that refers to a component, with the declaration of its prefix where the document has none.
     *
     * @return names and values by turns; null where the document cannot say it
     */
    static String[] reference(Element at, String attribute, QName name) {
        String namespace = name.getNamespaceURI();
        String local = name.getLocalPart();
        String unprefixed = at.namespaceOf("") == null ? "" : at.namespaceOf("");
        if (namespace.equals(unprefixed)) {
            return new String[] {attribute, local};
        }
        if (namespace.isEmpty()) {
            return null;
        }
        String prefix = namespace.equals(Xml.XML) ? "xml" : at.prefixOf(namespace);
        if (prefix != null) {
            return new String[] {attribute, prefix + ":" + local};
        }
        String free = "n";
        for (int i = 2; at.namespaceOf(free) != null; i++) {
            free = "n" + i;
        }
        return new String[] {"xmlns:" + free, namespace, attribute, free + ":" + local};
    }
}
