package org.protypos.testing;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;

/** One small change somewhere in a schema document, of the kinds that people make. */
public final class RandomEdit {
    private static final String XSD = "http://www.w3.org/2001/XMLSchema";
    private static final List<String> TYPES = List.of(
            "string",
            "token",
            "int",
            "long",
            "decimal",
            "boolean",
            "date",
            "dateTime",
            "double",
            "byte",
            "NCName",
            "anyURI",
            "hexBinary",
            "integer",
            "unsignedShort",
            "duration");
    private static final List<String> OCCURS = List.of("0", "1", "2", "3", "unbounded");

    private final Document document;
    private final Random chance;
    private final List<Element> all = new ArrayList<>();
    private String told;

    private RandomEdit(Document document, Random chance) {
        this.document = document;
        this.chance = chance;
        collect(document.getDocumentElement());
    }

    /**
     * An edit.
     *
     * @param document the document after it
     * @param told what was done
     */
    public record Edited(String document, String told) {}

    /** Makes one edit; the same random numbers make the same. */
    public static Edited of(String document, Random chance) {
        try {
            RandomEdit edit = new RandomEdit(parsed(document), chance);
            while (edit.told == null) {
                edit.edit(edit.all.get(chance.nextInt(edit.all.size())));
            }
            return new Edited(text(edit.document), edit.told);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    static Document parsed(String document) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        return factory.newDocumentBuilder().parse(new InputSource(new StringReader(document)));
    }

    static String text(Document document) throws Exception {
        StringWriter text = new StringWriter();
        TransformerFactory.newInstance().newTransformer().transform(new DOMSource(document), new StreamResult(text));
        return text.toString();
    }

    private void collect(Element element) {
        for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            if (child instanceof Element inner) {
                all.add(inner);
                collect(inner);
            }
        }
    }

    private <T> T any(List<T> some) {
        return some.get(chance.nextInt(some.size()));
    }

    private void edit(Element element) {
        String kind = element.getLocalName();
        boolean global = element.getParentNode() == document.getDocumentElement();
        switch (kind) {
            case "element" -> {
                if (global) {
                    globalElement(element);
                } else {
                    particle(element);
                }
            }
            case "any", "choice", "sequence", "all", "group" -> group(element, kind, global);
            case "anyAttribute" -> wildcard(element);
            case "attribute" -> attribute(element);
            case "complexType" -> complexType(element);
            case "extension" -> {
                if (element.getParentNode().getLocalName().equals("simpleContent")) {
                    set(element, "base", any(List.of("xs:string", "xs:decimal", "Text", "Amount", "Fuel")));
                }
            }
            case "restriction" -> restriction(element);
            case "list" -> set(element, "itemType", any(List.of("xs:int", "xs:token", "Fuel", "Code")));
            case "union" ->
                set(element, "memberTypes", any(List.of("Code xs:int", "xs:int", "Code", "xs:int Fuel Code")));
            case "simpleType", "simpleContent", "complexContent", "unique", "selector", "field" -> {
                if (kind.equals("unique")) {
                    remove(element);
                }
            }
            default -> facet(element, kind);
        }
    }

    private void say(Element element, String what) {
        StringBuilder path = new StringBuilder();
        for (Node at = element; at instanceof Element one; at = at.getParentNode()) {
            String name = one.getAttribute("name");
            path.insert(0, "/" + one.getLocalName() + (name.isEmpty() ? "" : "(" + name + ")"));
        }
        told = path + ": " + what;
    }

    private void set(Element element, String attribute, String value) {
        String old = element.getAttribute(attribute);
        if (!old.equals(value)) {
            say(element, attribute + " '" + old + "' -> '" + value + "'");
            element.setAttribute(attribute, value);
        }
    }

    private void drop(Element element, String attribute) {
        if (element.hasAttribute(attribute)) {
            say(element, "no " + attribute);
            element.removeAttribute(attribute);
        }
    }

    private void remove(Element element) {
        say(element, "removed");
        element.getParentNode().removeChild(element);
    }

    private Element made(String kind) {
        return document.createElementNS(XSD, "xs:" + kind);
    }

    private void globalElement(Element element) {
        switch (chance.nextInt(3)) {
            case 0 -> {
                if (element.hasAttribute("substitutionGroup")) {
                    drop(element, "substitutionGroup");
                }
            }
            case 1 -> {
                if (element.hasAttribute("type")) {
                    set(element, "block", any(List.of("substitution", "extension")));
                }
            }
            default -> {
                if (element.hasAttribute("abstract")) {
                    drop(element, "abstract");
                }
            }
        }
    }

    private void particle(Element element) {
        switch (chance.nextInt(12)) {
            case 0, 1 -> set(element, "minOccurs", any(List.of("0", "1", "2")));
            case 2, 3 -> set(element, "maxOccurs", any(OCCURS));
            case 4 -> remove(element);
            case 5 -> {
                Element added = made("element");
                added.setAttribute("name", "extra");
                added.setAttribute("type", "xs:" + any(TYPES));
                added.setAttribute("minOccurs", any(List.of("0", "1")));
                element.getParentNode().insertBefore(added, chance.nextBoolean() ? element : null);
                say(element, "extra beside it");
            }
            case 6 -> {
                if (element.hasAttribute("type")) {
                    set(element, "type", "xs:" + any(TYPES));
                }
            }
            case 7 -> {
                if (element.hasAttribute("type")) {
                    set(
                            element,
                            "type",
                            any(List.of("Fuel", "Code", "Text", "Amount", "Metres", "Price", "Marks", "Place")));
                }
            }
            case 8 -> {
                if (element.hasAttribute("name")) {
                    set(element, "nillable", any(List.of("true", "false")));
                }
            }
            case 9 -> {
                if (element.hasAttribute("type")) {
                    set(element, any(List.of("default", "fixed")), any(List.of("1", "good", "diesel", "AB12")));
                }
            }
            case 10 -> {
                if (element.hasAttribute("name")) {
                    set(element, "name", element.getAttribute("name") + "New");
                }
            }
            default -> swap(element);
        }
    }

    private void swap(Element element) {
        for (Node next = element.getNextSibling(); next != null; next = next.getNextSibling()) {
            if (next instanceof Element other
                    && !other.getLocalName().startsWith("any")
                    && !other.getLocalName().contains("ttribute")) {
                say(element, "behind " + other.getAttribute("name"));
                element.getParentNode().insertBefore(other, element);
                return;
            }
        }
    }

    private void group(Element element, String kind, boolean global) {
        if (global) {
            return;
        }
        switch (chance.nextInt(4)) {
            case 0 -> set(element, "minOccurs", any(List.of("0", "1")));
            case 1 -> {
                if (!kind.equals("all")) {
                    set(element, "maxOccurs", any(OCCURS));
                }
            }
            case 2 -> {
                if (kind.equals("any")) {
                    wildcard(element);
                }
            }
            default -> {
                if (kind.equals("choice") || kind.equals("sequence")) {
                    document.renameNode(element, XSD, "xs:" + (kind.equals("choice") ? "sequence" : "choice"));
                    say(element, "was a " + kind);
                } else if (kind.equals("any")) {
                    remove(element);
                }
            }
        }
    }

    private void wildcard(Element element) {
        if (chance.nextBoolean()) {
            set(element, "processContents", any(List.of("lax", "strict", "skip")));
        } else {
            set(
                    element,
                    "namespace",
                    any(List.of("##any", "##other", "urn:elsewhere", "##local", "##targetNamespace")));
        }
    }

    private void attribute(Element element) {
        switch (chance.nextInt(7)) {
            case 0 -> {
                drop(element, "default");
                set(element, "use", any(List.of("required", "optional")));
            }
            case 1 -> remove(element);
            case 2 -> set(element, "type", "xs:" + any(TYPES));
            case 3 -> {
                if (!element.hasAttribute("fixed")
                        && !element.getAttribute("use").equals("required")) {
                    set(element, "default", any(List.of("true", "1", "XYZ")));
                }
            }
            case 4 -> {
                element.removeAttribute("default");
                set(element, "fixed", any(List.of("true", "1", "XYZ", "AB1")));
            }
            case 5 -> {
                Element added = made("attribute");
                added.setAttribute("name", "extra");
                added.setAttribute("type", "xs:" + any(TYPES));
                added.setAttribute("use", any(List.of("required", "optional")));
                element.getParentNode().insertBefore(added, element);
                say(element, "extra beside it");
            }
            default -> set(element, "name", element.getAttribute("name") + "New");
        }
    }

    private void complexType(Element element) {
        switch (chance.nextInt(4)) {
            case 0 -> set(element, "mixed", any(List.of("true", "false")));
            case 1 -> {
                if (element.hasAttribute("name")) {
                    set(element, "abstract", any(List.of("true", "false")));
                }
            }
            case 2 -> {
                if (element.hasAttribute("name")) {
                    set(element, "block", any(List.of("extension", "restriction")));
                }
            }
            default -> {
                boolean content =
                        element.getElementsByTagNameNS(XSD, "extension").getLength() > 0;
                if (!content) {
                    Element added = made("anyAttribute");
                    added.setAttribute("processContents", any(List.of("lax", "skip")));
                    if (element.getElementsByTagNameNS(XSD, "anyAttribute").getLength() == 0) {
                        element.appendChild(added);
                        say(element, "other attributes");
                    }
                }
            }
        }
    }

    private void restriction(Element element) {
        switch (chance.nextInt(4)) {
            case 0 ->
                set(
                        element,
                        "base",
                        any(List.of("xs:string", "xs:token", "xs:decimal", "xs:int", "xs:normalizedString")));
            case 1 -> facet(element, "enumeration", any(List.of("diesel", "steam", "AB1", "5", "good")));
            case 2 ->
                facet(
                        element,
                        "pattern",
                        any(List.of("[A-Z]{2}[0-9]{2}", "[a-z]+", "[A-Z0-9]*", "\\d+(\\.\\d+)?", ".{3,}")));
            default ->
                facet(
                        element,
                        any(List.of(
                                "maxLength", "minLength", "maxInclusive", "minInclusive", "totalDigits", "whiteSpace")),
                        any(List.of("3", "8", "10", "collapse")));
        }
    }

    private void facet(Element restriction, String kind, String value) {
        Element added = made(kind);
        added.setAttribute("value", value);
        restriction.appendChild(added);
        say(restriction, kind + " " + value);
    }

    private void facet(Element element, String kind) {
        boolean known = Set.of(
                        "enumeration",
                        "pattern",
                        "length",
                        "minLength",
                        "maxLength",
                        "totalDigits",
                        "fractionDigits",
                        "minInclusive",
                        "maxInclusive",
                        "minExclusive",
                        "maxExclusive")
                .contains(kind);
        if (!known) {
            return;
        }
        switch (chance.nextInt(3)) {
            case 0 -> remove(element);
            case 1 -> {
                String value = element.getAttribute("value");
                set(
                        element,
                        "value",
                        kind.equals("enumeration")
                                ? any(List.of("coal", "diesel", value + "s"))
                                : kind.equals("pattern")
                                        ? any(List.of(
                                                "[A-Z]{2}[0-9]*", "[A-Z]{2,3}[0-9]{1,2}", "[A-Z]+", "[A-Za-z]{3}"))
                                        : any(List.of("1", "5", "7", "25", "100")));
            }
            default -> {
                if (kind.startsWith("m") && kind.endsWith("clusive")) {
                    String other = kind.contains("In") ? kind.replace("In", "Ex") : kind.replace("Ex", "In");
                    document.renameNode(element, XSD, "xs:" + other);
                    say(element, "was " + kind);
                }
            }
        }
    }
}
