package org.protypos.binding.declared;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.protypos.binding.DeclaredRule;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.SingleDocument;
import org.protypos.source.Xml;

/**
 * Reads the binding declarations of Jakarta XML Binding (chapter 7) and Jakarta XML Web Services (chapter 8), in files
 * of their own and inside a contract, as rules. What has no meaning for generated code is told. The door of this package.
 */
public final class DeclarationReader {
    private static final Set<String> IN_WSDL =
            Set.of("definitions", "portType", "operation", "fault", "service", "port", "binding");

    private final Contract contract;
    private final Findings findings = new Findings();
    private final List<DeclaredRule> rules = new ArrayList<>();
    private final NodeFinder nodes = new NodeFinder();

    /**
     * What was read.
     *
     * @param rules the rules that the declarations stand for
     * @param findings what is wrong with them, and what has no meaning
     */
    public record Declarations(List<DeclaredRule> rules, List<Finding> findings) {}

    private DeclarationReader(Contract contract) {
        this.contract = contract;
    }

    /**
     * Reads declarations.
     *
     * @param files files with declarations
     * @param contract the contract that they are about, and that may hold some itself
     */
    public static Declarations read(List<Path> files, Contract contract) {
        DeclarationReader reader = new DeclarationReader(contract);
        for (Document document : contract.documents().all()) {
            if (document.root() != null && document.isBound()) {
                reader.inside(document.root());
            }
        }
        for (Path file : files) {
            Document document = SingleDocument.read(file, reader.findings);
            if (document != null && document.root() != null) {
                reader.file(document);
            }
        }
        return new Declarations(List.copyOf(reader.rules), reader.findings.sorted());
    }

    /** Whether a file is XML, and so holds declarations rather than rules. */
    public static boolean isXml(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            String start = new String(in.readNBytes(64), StandardCharsets.ISO_8859_1).replaceAll("[^!-~]", "");
            return start.startsWith("<");
        } catch (IOException e) {
            // That it cannot be read is told by who reads it.
            return false;
        }
    }

    /** Declarations inside a contract are about the component around them. */
    private void inside(Element element) {
        for (Element child : element.children()) {
            if (child.is(Xml.XSD, "annotation")) {
                for (Element appinfo : child.children(Xml.XSD, "appinfo")) {
                    appinfo.children().forEach(declaration -> declare(declaration, element, true));
                }
            } else if (Xml.WEB_SERVICE_BINDING.contains(child.namespace()) && IN_WSDL.contains(element.name())) {
                child.children().forEach(declaration -> declare(declaration, element, true));
            } else {
                inside(child);
            }
        }
    }

    private void declare(Element declaration, Element about, boolean inContract) {
        if (Xml.isBinding(declaration.namespace())) {
            new Declaration(contract, nodes, findings, inContract, rules).declare(declaration, about);
        } else {
            findings.warning(
                    "binding-foreign",
                    declaration.place(),
                    "<" + declaration.name() + "> is no declaration of Jakarta XML Binding or Jakarta XML Web Services",
                    "say it with a rule of a file of rules instead");
        }
    }

    private void file(Document document) {
        Element root = document.root();
        if (!Xml.isBinding(root.namespace()) || !root.name().equals("bindings")) {
            findings.error(
                    "binding-root",
                    root.place(),
                    "<" + root.name() + "> is no file of binding declarations",
                    "begin it with <bindings> of " + Xml.XML_BINDING.get(0) + " or " + Xml.WEB_SERVICE_BINDING.get(0));
            return;
        }
        bindings(root, null, null);
    }

    /**
     * Declarations about some nodes, and others inside them about nodes inside those.
     *
     * @param around the document that the nodes are in, or null while none is named
     * @param nodesAround the nodes that those inside are sought from, or null for a whole document
     */
    private void bindings(Element bindings, Document around, List<Element> nodesAround) {
        String location = bindings.attribute("schemaLocation") != null
                ? bindings.attribute("schemaLocation")
                : bindings.attribute("wsdlLocation");
        Document document = around;
        List<Element> found = nodesAround;
        if (location != null) {
            document = document(bindings, location);
            found = document == null || document.root() == null ? null : List.of(document.root());
            if (found == null) {
                return;
            }
        } else if (document == null) {
            document = contract.documents().entries().get(0);
            found = document.root() == null ? List.of() : List.of(document.root());
        }
        if (bindings.attribute("node") != null) {
            found = nodes.find(bindings, document, found, findings);
        }
        for (Element child : bindings.children()) {
            if (Xml.isBinding(child.namespace()) && child.name().equals("bindings")) {
                bindings(child, document, found);
            } else {
                found.forEach(node -> declare(child, node, false));
            }
        }
    }

    /** The document of the contract that a location leads to: the very one, or the only one that is called like it. */
    private Document document(Element bindings, String location) {
        URI resolved;
        try {
            resolved = bindings.document().location().resolve(location.strip());
        } catch (IllegalArgumentException e) {
            resolved = null;
        }
        List<Document> alike = new ArrayList<>();
        for (Document document : contract.documents().all()) {
            if (document.location().equals(resolved)) {
                return document;
            }
            if (last(document.location().toString()).equals(last(location.strip()))) {
                alike.add(document);
            }
        }
        if (alike.size() == 1) {
            return alike.get(0);
        }
        findings.error(
                "binding-location",
                bindings.place(bindings.attribute("schemaLocation") != null ? "schemaLocation" : "wsdlLocation"),
                "the contract has no document at " + location,
                "name a document of the contract, such as "
                        + contract.documents().all().get(0).name());
        return null;
    }

    private static String last(String location) {
        return location.substring(location.lastIndexOf('/') + 1);
    }
}
