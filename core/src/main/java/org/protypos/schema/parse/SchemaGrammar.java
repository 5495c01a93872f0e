package org.protypos.schema.parse;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Which schema elements may stand where, and with which attributes (XML Schema Part 1, appendix A). */
final class SchemaGrammar {
    private static final String FACETS =
            Stream.of(FacetKind.values()).map(kind -> " " + kind.local()).collect(Collectors.joining());
    private static final String ATTRIBUTES = " attribute attributeGroup anyAttribute";
    private static final String MODEL = " sequence choice all group";
    private static final String TYPES = " simpleType complexType";
    private static final String KEYS = " key keyref unique";

    /** What only XML Schema 1.1 has; each is named as such rather than as a mistake. */
    private static final Set<String> LATER =
            Set.of("alternative", "assert", "assertion", "openContent", "defaultOpenContent", "explicitTimezone");

    private static final Set<String> LATER_ATTRIBUTES = Set.of(
            "notNamespace",
            "notQName",
            "inheritable",
            "targetNamespace",
            "defaultAttributes",
            "defaultAttributesApply",
            "xpathDefaultNamespace");

    private static final Map<String, Set<String>> CHILDREN = new HashMap<>();
    private static final Map<String, Set<String>> ATTRIBUTE_NAMES = new HashMap<>();

    static {
        element(
                "schema",
                "include import redefine override notation element" + TYPES + " group attribute attributeGroup",
                "targetNamespace version finalDefault blockDefault attributeFormDefault elementFormDefault");
        element("include", "", "schemaLocation");
        element("import", "", "namespace schemaLocation");
        element("redefine", "group attributeGroup" + TYPES, "schemaLocation");
        element("override", "element attribute notation group attributeGroup" + TYPES, "schemaLocation");
        element("notation", "", "name public system");
        element(
                "element",
                TYPES + KEYS,
                "name ref type substitutionGroup default fixed nillable abstract final block form minOccurs maxOccurs");
        element("attribute", "simpleType", "name ref type use default fixed form");
        element("attributeGroup", ATTRIBUTES, "name ref");
        element("anyAttribute", "", "namespace processContents");
        element("any", "", "namespace processContents minOccurs maxOccurs");
        element("group", "sequence choice all", "name ref minOccurs maxOccurs");
        element("sequence", "element group choice sequence any", "minOccurs maxOccurs");
        element("choice", "element group choice sequence any", "minOccurs maxOccurs");
        element("all", "element", "minOccurs maxOccurs");
        element("complexType", "simpleContent complexContent" + MODEL + ATTRIBUTES, "name abstract mixed block final");
        element("simpleContent", "restriction extension", "");
        element("complexContent", "restriction extension", "mixed");
        element("extension", MODEL + ATTRIBUTES, "base");
        element("restriction", "simpleType" + FACETS + MODEL + ATTRIBUTES, "base");
        element("simpleType", "restriction list union", "name final");
        element("list", "simpleType", "itemType");
        element("union", "simpleType", "memberTypes");
        element("key", "selector field", "name");
        element("keyref", "selector field", "name refer");
        element("unique", "selector field", "name");
        element("selector", "", "xpath");
        element("field", "", "xpath");
        for (String facet : FACETS.trim().split(" ")) {
            element(facet, "", "value fixed");
        }
    }

    private final Findings findings;

    SchemaGrammar(Findings findings) {
        this.findings = findings;
    }

    private static void element(String name, String children, String attributes) {
        CHILDREN.put(name, Set.of((children.trim() + " annotation").trim().split(" +")));
        ATTRIBUTE_NAMES.put(name, Set.of((attributes + " id").trim().split(" +")));
    }

    /** Checks an element and all below it. */
    void check(Element element) {
        if (element.name().equals("override")) {
            honoured(element, "xs:override");
        }
        Set<String> known = ATTRIBUTE_NAMES.get(element.name());
        if (known == null) {
            return;
        }
        for (String attribute : element.attributeNames()) {
            if (!known.contains(attribute) && LATER_ATTRIBUTES.contains(attribute)) {
                later(element.place(attribute), "the attribute " + attribute + " of xs:" + element.name());
            } else if (!known.contains(attribute)) {
                findings.warning(
                        "unknown-attribute",
                        element.place(attribute),
                        "xs:" + element.name() + " has no attribute " + attribute,
                        NearestName.of(attribute, known)
                                .map(name -> "did you mean " + name + "?")
                                .orElse("leave it out"));
            }
        }
        for (Element child : element.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                foreign(element, child);
            } else if (CHILDREN.get(element.name()).contains(child.name())) {
                check(child);
            } else {
                misplaced(element, child);
            }
        }
    }

    private void foreign(Element parent, Element child) {
        findings.error(
                "misplaced-element",
                child.place(),
                "<" + child.name() + "> of namespace \"" + child.namespace() + "\" cannot stand inside xs:"
                        + parent.name(),
                "move it into an xs:appinfo, or leave it out");
    }

    private void honoured(Element element, String what) {
        findings.note(
                "xsd-1.1",
                element.place(),
                what + " belongs to XML Schema 1.1 and is read as it means",
                "nothing to do unless other tools must read the contract too");
    }

    private void later(Place place, String what) {
        findings.warning(
                "xsd-1.1",
                place,
                what + " belongs to XML Schema 1.1 and is not applied",
                "nothing to do when the rest of the contract holds without it");
    }

    private void misplaced(Element parent, Element child) {
        if (LATER.contains(child.name())) {
            later(child.place(), "xs:" + child.name());
            return;
        }
        if (parent.name().equals("all") && Set.of("any", "group").contains(child.name())) {
            honoured(child, "xs:" + child.name() + " inside xs:all");
            check(child);
            return;
        }
        List<String> models = List.of("sequence", "choice", "all", "attribute", "attributeGroup", "simpleContent");
        String cure = parent.name().equals("element") && models.contains(child.name())
                ? "put an xs:complexType around it"
                : "xs:" + parent.name() + " may hold "
                        + String.join(
                                ", ",
                                CHILDREN.get(parent.name()).stream().sorted().toList());
        findings.error(
                "misplaced-element",
                child.place(),
                "xs:" + child.name() + " cannot stand inside xs:" + parent.name(),
                cure);
    }
}
