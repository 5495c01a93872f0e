package org.protypos.testing;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;

/** One change somewhere in how a WSDL document carries its messages, of the kinds that people make. */
public final class RandomWsdlEdit {
    private static final String WSDL = "http://schemas.xmlsoap.org/wsdl/";
    private static final String SOAP = "http://schemas.xmlsoap.org/wsdl/soap/";
    private static final String SOAP12 = "http://schemas.xmlsoap.org/wsdl/soap12/";
    private static final String XSD = "http://www.w3.org/2001/XMLSchema";
    private static final List<String> TYPES =
            List.of("string", "int", "dateTime", "base64Binary", "boolean", "anyType");
    private static final List<String> NAMES = List.of("Buoy", "class", "lay-out", "Result", "of");

    private final Document document;
    private final Random chance;

    private RandomWsdlEdit(Document document, Random chance) {
        this.document = document;
        this.chance = chance;
    }

    /**
     * Makes one edit; the same random numbers make the same.
     *
     * @return the document after it, and what was done
     */
    public static RandomEdit.Edited of(String text, Random chance) throws Exception {
        RandomWsdlEdit edit = new RandomWsdlEdit(RandomEdit.parsed(text), chance);
        String told = null;
        while (told == null) {
            told = edit.edit();
        }
        return new RandomEdit.Edited(RandomEdit.text(edit.document), told);
    }

    /** What was done, or null when there is nothing of the kind in the document. */
    private String edit() {
        Element body = any(soap("body"));
        return switch (chance.nextInt(13)) {
            case 0 -> set(any(soap("binding")), "style", "rpc", "document");
            case 1 -> encoded(body);
            case 2 -> set(body, "parts", "");
            case 3 -> set(body, "namespace", "urn:elsewhere");
            case 4 -> header(body);
            case 5 -> set(any(soap("operation")), "soapAction", "urn:elsewhere");
            case 6 -> otherProtocol(any(soap("binding")));
            case 7 -> typed(any(all(WSDL, "part")));
            case 8 -> removed(any(all(WSDL, "part")));
            case 9 -> added(any(all(WSDL, "message")));
            case 10 -> renamed(any(operations()), "operation", List.of("operation/name"));
            case 11 -> renamed(any(all(WSDL, "portType")), "portType", List.of("binding/type"));
            default -> renamed(any(globals()), "element", List.of("part/element", "element/ref"));
        };
    }

    private List<Element> all(String namespace, String name) {
        NodeList found = document.getElementsByTagNameNS(namespace, name);
        List<Element> all = new ArrayList<>();
        for (int i = 0; i < found.getLength(); i++) {
            all.add((Element) found.item(i));
        }
        return all;
    }

    private List<Element> soap(String name) {
        return Stream.of(SOAP, SOAP12)
                .flatMap(space -> all(space, name).stream())
                .toList();
    }

    private List<Element> operations() {
        return in(all(WSDL, "operation"), "portType");
    }

    private List<Element> globals() {
        return in(all(XSD, "element"), "schema");
    }

    private static List<Element> in(List<Element> some, String around) {
        return some.stream().filter(one -> isIn(one, around)).toList();
    }

    private static boolean isIn(Element element, String around) {
        return element.getParentNode().getLocalName().equals(around);
    }

    private Element any(List<Element> some) {
        return some.isEmpty() ? null : some.get(chance.nextInt(some.size()));
    }

    private static String set(Element element, String attribute, String value) {
        return set(element, attribute, value, value);
    }

    private static String set(Element element, String attribute, String value, String orElse) {
        if (element == null) {
            return null;
        }
        element.setAttribute(attribute, element.getAttribute(attribute).equals(value) ? orElse : value);
        return element.getParentNode().getNodeName() + "/" + element.getNodeName() + " " + attribute + " "
                + element.getAttribute(attribute);
    }

    private static String encoded(Element body) {
        if (body != null) {
            body.setAttribute("encodingStyle", "http://schemas.xmlsoap.org/soap/encoding/");
        }
        return set(body, "use", "encoded", "literal");
    }

    private String header(Element body) {
        Element part = any(all(WSDL, "part"));
        if (body == null || part == null || !body.getParentNode().getLocalName().matches("input|output")) {
            return null;
        }
        Element header = document.createElementNS(body.getNamespaceURI(), "added:header");
        header.setAttribute("message", own(((Element) part.getParentNode()).getAttribute("name")));
        header.setAttribute("part", part.getAttribute("name"));
        header.setAttribute("use", "literal");
        body.getParentNode().insertBefore(header, body);
        return "a header of " + header.getAttribute("message");
    }

    /** A name with the prefix of the document's own namespace. */
    private String own(String name) {
        Element root = document.getDocumentElement();
        return root.lookupPrefix(root.getAttribute("targetNamespace")) + ":" + name;
    }

    private String otherProtocol(Element binding) {
        if (binding == null) {
            return null;
        }
        String is = binding.getNamespaceURI();
        String other = is.equals(SOAP) ? SOAP12 : SOAP;
        Element around = (Element) binding.getParentNode();
        String name = around.getAttribute("name");
        List<Element> changed = new ArrayList<>(List.of(around));
        all(WSDL, "port").stream()
                .filter(port -> local(port.getAttribute("binding")).equals(name))
                .forEach(changed::add);
        for (Element one : changed) {
            soapIn(one, is::equals).forEach(found -> document.renameNode(found, other, "o:" + found.getLocalName()));
        }
        return name + " speaks " + other;
    }

    private static List<Element> soapIn(Element element, Predicate<String> namespace) {
        List<Element> found = new ArrayList<>();
        for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            if (child instanceof Element inner) {
                if (namespace.test(inner.getNamespaceURI())) {
                    found.add(inner);
                }
                found.addAll(soapIn(inner, namespace));
            }
        }
        return found;
    }

    private String typed(Element part) {
        if (part == null) {
            return null;
        }
        part.removeAttribute("element");
        String type = TYPES.get(chance.nextInt(TYPES.size()));
        part.setAttributeNS("http://www.w3.org/2000/xmlns/", "xmlns:t", XSD);
        return set(part, "type", "t:" + type);
    }

    private static String removed(Element part) {
        if (part != null) {
            part.getParentNode().removeChild(part);
        }
        return part == null ? null : "no part " + part.getAttribute("name");
    }

    private String added(Element message) {
        if (message == null) {
            return null;
        }
        Element part = document.createElementNS(WSDL, "part");
        part.setAttribute("name", "extra");
        message.appendChild(part);
        return message.getAttribute("name") + " " + typed(part);
    }

    /** Renames what is declared, and what refers to it: an attribute of elements of a name. */
    private String renamed(Element declared, String kind, List<String> references) {
        if (declared == null) {
            return null;
        }
        String old = declared.getAttribute("name");
        String name = NAMES.get(chance.nextInt(NAMES.size()));
        declared.setAttribute("name", name);
        for (String reference : references) {
            String element = reference.substring(0, reference.indexOf('/'));
            String attribute = reference.substring(reference.indexOf('/') + 1);
            for (Element one : Stream.of(WSDL, XSD)
                    .flatMap(space -> all(space, element).stream())
                    .toList()) {
                String said = one.getAttribute(attribute);
                if (local(said).equals(old)) {
                    one.setAttribute(attribute, said.substring(0, said.length() - old.length()) + name);
                }
            }
        }
        return kind + " " + old + " is " + name;
    }

    private static String local(String name) {
        return name.substring(name.indexOf(':') + 1);
    }
}
