package org.protypos.binding.declared;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.NamespaceContext;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.xpath.XPath;
import javax.xml.xpath.XPathConstants;
import javax.xml.xpath.XPathExpressionException;
import javax.xml.xpath.XPathFactory;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;

/** Finds the elements of a contract that an XPath expression names. */
final class NodeFinder {
    private final Map<Document, org.w3c.dom.Document> mirrors = new IdentityHashMap<>();
    private final Map<Node, Element> elements = new HashMap<>();
    private final Map<Element, Node> nodes = new IdentityHashMap<>();

    /** The element around another, or null for a root. */
    Element parent(Element element) {
        mirror(element.document());
        return elements.get(nodes.get(element).getParentNode());
    }

    /**
     * The elements that a declaration's node expression names.
     *
     * @param around the elements to look from
     * @param findings is told when there are none
     */
    List<Element> find(Element bindings, Document document, List<Element> around, Findings findings) {
        String expression = bindings.attribute("node");
        List<Element> found = new ArrayList<>();
        try {
            for (Element start : around) {
                found.addAll(evaluate(bindings, expression, node(start)));
            }
            if (found.isEmpty()) {
                found.addAll(evaluate(bindings, expression, mirror(document)));
            }
        } catch (XPathExpressionException e) {
            findings.error(
                    "binding-node",
                    bindings.place("node"),
                    "\"" + expression + "\" is no XPath expression",
                    "write it like //xs:complexType[@name='Vessel'], with declared prefixes");
            return List.of();
        }
        if (found.isEmpty()) {
            findings.error(
                    "binding-node",
                    bindings.place("node"),
                    "\"" + expression + "\" finds nothing in " + document.name(),
                    "name an element of the document");
        }
        return found;
    }

    private List<Element> evaluate(Element scope, String expression, Node start) throws XPathExpressionException {
        XPath xpath = XPathFactory.newDefaultInstance().newXPath();
        xpath.setNamespaceContext(new NamespaceContext() {
            @Override
            public String getNamespaceURI(String prefix) {
                String namespace = scope.namespaceOf(prefix);
                return namespace == null ? "" : namespace;
            }

            @Override
            public String getPrefix(String namespace) {
                return scope.prefixOf(namespace);
            }

            @Override
            public Iterator<String> getPrefixes(String namespace) {
                return List.of(scope.prefixOf(namespace)).iterator();
            }
        });
        NodeList list = (NodeList) xpath.evaluate(expression, start, XPathConstants.NODESET);
        List<Element> found = new ArrayList<>();
        for (int i = 0; i < list.getLength(); i++) {
            Element element = elements.get(list.item(i));
            if (element != null) {
                found.add(element);
            }
        }
        return found;
    }

    private Node node(Element element) {
        mirror(element.document());
        return nodes.get(element);
    }

    private org.w3c.dom.Document mirror(Document document) {
        return mirrors.computeIfAbsent(document, source -> {
            try {
                org.w3c.dom.Document mirror = DocumentBuilderFactory.newDefaultInstance()
                        .newDocumentBuilder()
                        .newDocument();
                copy(source.root(), mirror, mirror);
                return mirror;
            } catch (ParserConfigurationException e) {
                throw new IllegalStateException("every Java platform builds documents", e);
            }
        });
    }

    private void copy(Element element, Node into, org.w3c.dom.Document mirror) {
        org.w3c.dom.Element copy = mirror.createElementNS(element.namespace(), element.name());
        for (String name : element.attributeNames()) {
            copy.setAttribute(name, element.attribute(name));
        }
        into.appendChild(copy);
        elements.put(copy, element);
        nodes.put(element, copy);
        element.children().forEach(child -> copy(child, copy, mirror));
    }
}
