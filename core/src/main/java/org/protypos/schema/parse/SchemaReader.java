package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.Builtins;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.BuiltinDocuments;
import org.protypos.source.Document;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Reads the schema components of a contract over all its documents. The door of this package. */
public final class SchemaReader {
    private static final Pattern ENCODING_PREFIX =
            Pattern.compile("xmlns:([^\\s=]+)\\s*=\\s*[\"']" + Pattern.quote(Xml.SOAP_ENCODING) + "[\"']");

    private final Documents documents;
    private final Findings findings = new Findings();
    private final ComponentTable table = new ComponentTable(findings);
    private final SchemaGrammar grammar = new SchemaGrammar(findings);
    private final DocumentSets sets = new DocumentSets();
    private final Map<Element, Set<String>> read = new HashMap<>();
    private final Set<Element> checked = new HashSet<>();

    private final ReadingNotes notes;

    private SchemaReader(Documents documents, ReadingNotes notes) {
        this.documents = documents;
        this.notes = notes;
    }

    /**
     * Reads all schemas that the documents hold.
     *
     * @return the components, with a finding for each place that breaks the rules of XML Schema
     */
    public static SchemaComponents read(Documents documents) {
        ReadingNotes notes = new ReadingNotes(Set.of());
        SchemaComponents components = new SchemaReader(documents, notes).components();
        Set<Element> found = notes.found(components);
        return found.isEmpty() ? components : new SchemaReader(documents, new ReadingNotes(found)).components();
    }

    private SchemaComponents components() {
        for (Document document : documents.entries()) {
            entry(document.root());
        }
        for (Document document : documents.all()) {
            if (document.root().is(Xml.WSDL, "definitions")) {
                inWsdl(document.root());
            } else if (Xml.isDraftOfSchema(document.root())) {
                draft(document.root());
            }
        }
        soapEncoding();
        schemaForSchemas();
        return collected();
    }

    /** The schema of the SOAP encoding is brought in for contracts that use it, whether or not they import it. */
    private void soapEncoding() {
        boolean known = table.types.keySet().stream()
                .anyMatch(name -> name.getNamespaceURI().equals(Xml.SOAP_ENCODING));
        boolean used = documents.all().stream()
                .map(document -> document.text().text())
                .anyMatch(text -> text.contains(Xml.SOAP_ENCODING) && namesOfEncoding(text));
        if (used && !known) {
            bringIn(BuiltinDocuments.soapEncoding());
        }
    }

    private static boolean namesOfEncoding(String text) {
        return ENCODING_PREFIX
                .matcher(text)
                .results()
                .map(declared -> declared.group(1) + ":")
                .distinct()
                .anyMatch(prefix -> text.contains("\"" + prefix) || text.contains("'" + prefix));
    }

    /** The element that holds a schema is brought in for contracts that refer to it and import no document that has it. */
    private void schemaForSchemas() {
        if (notes.refersToSchemas() && !table.elements.containsKey(ReadingNotes.SCHEMA)) {
            bringIn(BuiltinDocuments.schemas());
        }
    }

    private void bringIn(Document standard) {
        schema(standard.root(), target(standard.root()));
    }

    private void entry(Element root) {
        if (root != null && root.is(Xml.XSD, "schema")) {
            schema(root, target(root));
        }
    }

    private void inWsdl(Element definitions) {
        for (Element child : definitions.children()) {
            if (child.is(Xml.WSDL, "types")) {
                for (Element schema : child.children(Xml.XSD, "schema")) {
                    schema(schema, target(schema));
                }
                child.children().stream().filter(Xml::isDraftOfSchema).forEach(this::draft);
            } else if (child.is(Xml.WSDL, "import") && documents.links().containsKey(child)) {
                entry(documents.links().get(child).root());
            }
        }
    }

    /** Services of the first years have their schemas in the namespace of a draft; what drafts say differs in more than that. */
    private void draft(Element schema) {
        findings.error(
                "draft-schema",
                schema.place(),
                "the schema is in the namespace of a draft of XML Schema, " + schema.namespace() + ", and is not read",
                "write " + Xml.XSD + " for that namespace everywhere, and see what check says then");
    }

    private static String target(Element schema) {
        String target = schema.attribute("targetNamespace");
        return target == null ? "" : target.strip();
    }

    /** Reads a schema into a target namespace, which for a chameleon is that of the document that includes it. */
    private void schema(Element root, String target) {
        if (!read.computeIfAbsent(root, any -> new HashSet<>()).add(target)) {
            return;
        }
        if (checked.add(root)) {
            grammar.check(root);
        }
        List<Element> redefinitions = new ArrayList<>();
        for (Element child : root.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "import" -> importSchema(child, target);
                case "include" -> includeSchema(child, target);
                case "redefine", "override" -> {
                    includeSchema(child, target);
                    redefinitions.add(child);
                }
                default -> {
                    // components come after what they may build on
                }
            }
        }
        SchemaScope scope = new SchemaScope(root, target, findings, notes);
        for (Element redefinition : redefinitions) {
            if (redefinition.name().equals("override")) {
                override(scope, redefinition);
            } else {
                redefine(scope, redefinition);
            }
        }
        new ComponentParser(scope).globals(root, table::add);
    }

    private void redefine(SchemaScope scope, Element redefinition) {
        for (Element child : redefinition.children()) {
            String name = child.attribute("name");
            if (name == null) {
                continue;
            }
            QName qualified = scope.global(name);
            QName oldForm = table.setAside(child.name(), qualified);
            if (oldForm == null) {
                findings.error(
                        "redefined-nothing",
                        child.place("name"),
                        "xs:redefine redefines " + name + ", which the redefined document does not have",
                        "name a component of that document, or move this one out of xs:redefine");
            }
            Element other = sets.redefine(child, qualified);
            if (other != null) {
                findings.warning(
                        "redefined-twice",
                        child.place("name"),
                        name + " is redefined here and at " + other.place()
                                + ", of which neither knows the other; this one is laid over that one",
                        "let one of the two documents redefine the other");
            }
            new ComponentParser(scope.redefining(qualified, oldForm)).global(child, table::add);
        }
    }

    /** XML Schema 1.1 Part 1, section 4.2.5: what the document does not have is passed over, the rest takes its place. */
    private void override(SchemaScope scope, Element override) {
        for (Element child : override.children()) {
            String name = child.attribute("name");
            if (name != null && table.remove(child.name(), scope.global(name))) {
                new ComponentParser(scope).global(child, table::add);
            } else if (name != null) {
                findings.warning(
                        "overridden-nothing",
                        child.place("name"),
                        "xs:override overrides " + name + ", which the overridden document does not have",
                        "name a component of that document, or leave this one out");
            }
        }
    }

    private void importSchema(Element reference, String target) {
        String namespace = reference.attribute("namespace");
        String wanted = namespace == null ? "" : namespace.strip();
        notes.use(wanted);
        if (wanted.equals(target)) {
            findings.warning(
                    "self-import",
                    reference.place("namespace"),
                    "the document imports its own namespace",
                    "use xs:include for a document of the same namespace");
        }
        Element root = linked(reference);
        if (root == null) {
            return;
        }
        String actual = target(root);
        if (!actual.equals(wanted)) {
            findings.error(
                    "import-namespace",
                    reference.place("namespace"),
                    "the document " + root.document().name() + " has the namespace \"" + actual + "\", not \"" + wanted
                            + "\"",
                    "write namespace=\"" + actual + "\", or point schemaLocation to the right document");
        }
        schema(root, actual);
    }

    private void includeSchema(Element reference, String target) {
        Element root = linked(reference);
        if (root == null) {
            return;
        }
        String actual = target(root);
        if (!actual.isEmpty() && !actual.equals(target)) {
            findings.error(
                    "include-namespace",
                    reference.place("schemaLocation"),
                    "the document " + root.document().name() + " has the namespace \"" + actual
                            + "\" and cannot be included into \"" + target + "\"",
                    "use xs:import for a document of another namespace");
            schema(root, actual);
            return;
        }
        sets.include(reference.document().text(), root.document().text());
        schema(root, target);
    }

    private Element linked(Element reference) {
        Document document = documents.links().get(reference);
        if (document == null || document.root() == null) {
            return null;
        }
        if (!document.root().is(Xml.XSD, "schema")) {
            findings.error(
                    "not-a-schema",
                    reference.place("schemaLocation"),
                    "the document " + document.name() + " is no schema: its root element is <"
                            + document.root().name() + ">",
                    "point schemaLocation to an xs:schema document");
            return null;
        }
        return document.root();
    }

    private SchemaComponents collected() {
        table.tellClashes(sets::areOne);
        if (notes.refersToXml()) {
            for (AttributeDeclaration attribute : Builtins.xmlAttributes()) {
                table.attributes.putIfAbsent(attribute.name(), attribute);
            }
        }
        Map<QName, List<QName>> substitutions = new LinkedHashMap<>();
        for (ElementDeclaration element : table.elements.values()) {
            if (element.substitutionHead() != null) {
                substitutions
                        .computeIfAbsent(element.substitutionHead(), head -> new ArrayList<>())
                        .add(element.name());
            }
        }
        return new SchemaComponents(
                table.types,
                table.elements,
                table.attributes,
                table.groups,
                table.attributeGroups,
                table.notations,
                substitutions,
                findings.sorted());
    }
}
