package org.protypos.constraint;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/**
 * Whether schema documents say what they say as the standard has it (XML Schema Part 1, appendix A and the constraints on
 * representation): words that attributes may hold, attributes that do not go together or mean nothing where they stand. What
 * is written so and no component tells is kept for who judges those.
 */
final class MarkupConstraints {
    private static final ValueRule ID = ValueRule.of("ID");
    private static final Set<String> FLAG = Set.of("true", "false", "1", "0");
    private static final Set<String> FORM = Set.of("qualified", "unqualified");
    private static final Set<String> BLOCKED = Set.of("extension", "restriction", "substitution");
    private static final Set<String> FINAL = Set.of("extension", "restriction", "list", "union");
    private static final Set<String> FINAL_TEXT = Set.of("restriction", "list", "union");
    private static final Set<String> FINAL_ELEMENTS = Set.of("extension", "restriction");
    private static final Map<String, Set<String>> WORDS = Map.ofEntries(
            Map.entry("abstract", FLAG),
            Map.entry("mixed", FLAG),
            Map.entry("nillable", FLAG),
            Map.entry("form", FORM),
            Map.entry("elementFormDefault", FORM),
            Map.entry("attributeFormDefault", FORM),
            Map.entry("use", Set.of("optional", "prohibited", "required")),
            Map.entry("processContents", Set.of("strict", "lax", "skip")),
            Map.entry("block", BLOCKED),
            Map.entry("blockDefault", BLOCKED),
            Map.entry("finalDefault", FINAL));

    /** The attributes that hold names of components. */
    private static final Set<String> REFERENCES =
            Set.of("type", "ref", "base", "itemType", "memberTypes", "substitutionGroup", "refer");

    private final Findings findings;
    private final Map<Place, Set<String>> finals = new HashMap<>();
    private final Set<Place> fixed = new HashSet<>();
    private Element schema;
    private Set<String> ids;
    private Set<String> reachable;

    MarkupConstraints(Findings findings) {
        this.findings = findings;
    }

    void check(List<Element> schemas) {
        for (Element root : schemas) {
            schema = root;
            ids = new HashSet<>();
            reachable = reachable(root);
            words(root);
            Told.strayText(findings, root, "xs:");
            root.children().forEach(child -> check(child, root));
        }
    }

    /** The kinds of derivation of which a type or an element that stands at a place is final. */
    Set<String> finals(Place place) {
        return finals.getOrDefault(place, Set.of());
    }

    /** Whether a facet that stands at a place is fixed. */
    boolean isFixed(Place place) {
        return fixed.contains(place);
    }

    private void check(Element element, Element parent) {
        if (!element.namespace().equals(Xml.XSD)) {
            return;
        }
        if (!element.name().equals("documentation")) {
            Told.strayText(findings, element, "xs:");
        }
        if (Set.of("annotation", "include", "import").contains(element.name())) {
            return;
        }
        words(element);
        boolean global = parent == schema || Set.of("redefine", "override").contains(parent.name());
        boolean refers = element.attribute("ref") != null;
        switch (element.name()) {
            case "element" -> {
                if (refers) {
                    meaningless(
                            element,
                            "beside ref",
                            "name type substitutionGroup default fixed nillable abstract final block form");
                } else {
                    meaningless(
                            element,
                            global ? "of a global element" : "of a local element",
                            global ? "minOccurs maxOccurs form" : "substitutionGroup abstract final");
                }
                both(element, "type", "simpleType", "complexType");
                values(element);
                keepFinal(element);
                occursInAll(element, parent);
            }
            case "attribute" -> {
                meaningless(
                        element,
                        refers ? "beside ref" : "of a global attribute",
                        refers ? "name type form" : global ? "use form" : "");
                both(element, "type", "simpleType");
                values(element);
                if ("xmlns".equals(element.attribute("name"))) {
                    findings.warning(
                            "bad-name",
                            element.place("name"),
                            "no attribute is called xmlns",
                            "give it another name: xmlns declares namespaces");
                }
            }
            case "complexType", "simpleType" -> {
                boolean simple = element.name().equals("simpleType");
                meaningless(
                        element,
                        "of a type without a name",
                        global ? "" : simple ? "name" : "name abstract final block");
                keepFinal(element);
            }
            case "group", "attributeGroup" ->
                meaningless(
                        element,
                        refers ? "beside ref" : "of a named group",
                        refers ? "name" : global ? "minOccurs maxOccurs" : "");
            case "sequence", "choice", "all" -> {
                boolean named = parent.name().equals("group");
                meaningless(element, "of what a named group holds", named ? "minOccurs maxOccurs" : "");
                String most = element.attribute("maxOccurs");
                if (!named
                        && element.name().equals("all")
                        && most != null
                        && !most.strip().equals("1")) {
                    once(element, "an xs:all occurs once at most");
                }
            }
            case "restriction" -> {
                if (parent.name().equals("simpleType")) {
                    both(element, "base", "simpleType");
                }
                derived(element, parent);
            }
            case "extension" -> derived(element, parent);
            case "list" -> both(element, "itemType", "simpleType");
            default -> {
                if ("1".equals(element.attribute("fixed")) || "true".equals(element.attribute("fixed"))) {
                    fixed.add(element.place());
                }
            }
        }
        element.children().forEach(child -> check(child, element));
    }

    /** The namespaces that a schema may refer to (section 4.2.3), and that of the SOAP encoding, which nobody imports. */
    private static Set<String> reachable(Element schema) {
        Set<String> namespaces = new HashSet<>(Set.of(Xml.XSD, Xml.SOAP_ENCODING));
        String target = schema.attribute("targetNamespace");
        namespaces.add(target == null ? "" : target.strip());
        for (Element include : schema.children()) {
            if (include.is(Xml.XSD, "import")) {
                String namespace = include.attribute("namespace");
                namespaces.add(namespace == null ? "" : namespace.strip());
            }
        }
        return namespaces;
    }

    private void references(Element element, String attribute) {
        for (String name : Lexical.items(element.attribute(attribute))) {
            QName meant = element.resolve(name);
            if (meant != null && reachable.add(meant.getNamespaceURI())) {
                findings.warning(
                        "import-missing",
                        element.place(attribute),
                        "this schema refers to " + meant.getLocalPart() + " of "
                                + Told.namespace(meant.getNamespaceURI()) + " and does not import that",
                        "add an xs:import: many who read the contract look nowhere else");
            }
        }
    }

    private void words(Element element) {
        for (String attribute : element.attributeNames()) {
            if (REFERENCES.contains(attribute)) {
                references(element, attribute);
                continue;
            }
            Set<String> allowed = attribute.equals("final")
                    ? element.name().equals("simpleType") ? FINAL_TEXT : FINAL_ELEMENTS
                    : WORDS.get(attribute);
            if (allowed != null) {
                words(element, attribute, allowed);
            } else if (attribute.equals("id") && ID.complaint(element.attribute("id"), null) != null) {
                findings.warning(
                        "attribute-value",
                        element.place("id"),
                        ID.complaint(element.attribute("id"), null).message(),
                        "begin it with a letter or _, or leave it out");
            } else if (attribute.equals("id")
                    && !ids.add(element.attribute("id").strip())) {
                findings.warning(
                        "id-twice",
                        element.place("id"),
                        "the id \"" + Printable.of(element.attribute("id")) + "\" is there already",
                        "give each element an id of its own, or leave it out");
            }
        }
    }

    private void words(Element element, String attribute, Set<String> allowed) {
        String value = element.attribute(attribute);
        boolean list = attribute.startsWith("block") || attribute.startsWith("final");
        List<String> words = list && value.strip().equals("#all") || list && value.isBlank()
                ? List.of()
                : list ? List.of(value.strip().split("\\s+")) : List.of(value.strip());
        if (!allowed.containsAll(words)) {
            Told.noWord(findings, element, attribute, allowed);
        }
    }

    private void meaningless(Element element, String where, String attributes) {
        for (String attribute : element.attributeNames()) {
            if ((" " + attributes + " ").contains(" " + attribute + " ")) {
                findings.warning(
                        "attribute-value",
                        element.place(attribute),
                        attribute + " says nothing " + where,
                        "leave it out");
            }
        }
    }

    /** What says something where text is derived says nothing where elements are, and the reverse. */
    private void derived(Element element, Element parent) {
        for (Element child : element.children()) {
            String kind = Set.of("attribute", "attributeGroup", "anyAttribute").contains(child.name())
                    ? "attribute"
                    : FacetKind.of(child.name()) != null || child.name().equals("simpleType") ? "text" : "elements";
            boolean read =
                    switch (parent.name()) {
                        case "simpleType" -> kind.equals("text");
                        case "simpleContent" -> !kind.equals("elements");
                        default -> !kind.equals("text");
                    };
            if (!read && child.namespace().equals(Xml.XSD) && !child.name().equals("annotation")) {
                findings.warning(
                        "misplaced-element",
                        child.place(),
                        "xs:" + child.name() + " says nothing in the xs:" + element.name() + " of xs:" + parent.name(),
                        "leave it out, or derive the type otherwise");
            }
        }
    }

    private void both(Element element, String attribute, String... children) {
        for (String child : children) {
            Element inner = element.child(Xml.XSD, child);
            if (element.attribute(attribute) != null && inner != null) {
                findings.warning(
                        "type-twice",
                        inner.place(),
                        "there are " + attribute + "=\"" + Printable.of(element.attribute(attribute)) + "\" and an xs:"
                                + child,
                        "leave one of them out: it is not read");
            }
        }
    }

    private void values(Element element) {
        if (element.attribute("default") == null) {
            return;
        }
        if (element.attribute("fixed") != null) {
            findings.warning(
                    "value-fixed",
                    element.place("default"),
                    "there are a default and a fixed value",
                    "leave the default out: a fixed value is one");
        }
        String use = element.attribute("use");
        if (use != null && !use.strip().equals("optional")) {
            findings.warning(
                    "value-fixed",
                    element.place("default"),
                    "there is a default for an attribute that "
                            + (use.strip().equals("required") ? "is always" : "is never") + " there",
                    "leave one of them out");
        }
    }

    private void keepFinal(Element element) {
        String value =
                element.attribute("final") == null ? schema.attribute("finalDefault") : element.attribute("final");
        if (value != null && !value.isBlank()) {
            finals.put(
                    element.place(),
                    value.strip().equals("#all")
                            ? FINAL
                            : Set.copyOf(List.of(value.strip().split("\\s+"))));
        }
    }

    private void occursInAll(Element element, Element parent) {
        String most = element.attribute("maxOccurs");
        if (parent.name().equals("all") && most != null && !most.strip().matches("[01]")) {
            once(element, "an element inside xs:all occurs once at most");
        }
    }

    private void once(Element element, String message) {
        findings.warning(
                "occurrence",
                element.place("maxOccurs"),
                message + " in XML Schema 1.0",
                "use xs:sequence or a repeated xs:choice if others must read the contract");
    }
}
