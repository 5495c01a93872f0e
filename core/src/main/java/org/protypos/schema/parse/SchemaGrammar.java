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
    private static final String ATTRIBUTES = " | *attribute attributeGroup | anyAttribute";
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

    private static final Map<String, Map<String, Stage>> CHILDREN = new HashMap<>();
    private static final Map<String, Set<String>> ATTRIBUTE_NAMES = new HashMap<>();

    /**
     * Where in an element a child may stand.
     *
     * @param number behind how many others, from 0
     * @param repeats whether there may be several of its stage
     */
    private record Stage(int number, boolean repeats) {}

    static {
        element(
                "schema",
                "*annotation include import redefine override notation element" + TYPES
                        + " group attribute attributeGroup",
                "targetNamespace version finalDefault blockDefault attributeFormDefault elementFormDefault");
        element("include", "", "schemaLocation");
        element("import", "", "namespace schemaLocation");
        element("redefine", "*annotation group attributeGroup" + TYPES, "schemaLocation");
        element("override", "*annotation element attribute notation group attributeGroup" + TYPES, "schemaLocation");
        element("notation", "", "name public system");
        element(
                "element",
                TYPES + " | *" + KEYS,
                "name ref type substitutionGroup default fixed nillable abstract final block form minOccurs maxOccurs");
        element("attribute", "simpleType", "name ref type use default fixed form");
        element("attributeGroup", ATTRIBUTES, "name ref");
        element("anyAttribute", "", "namespace processContents");
        element("any", "", "namespace processContents minOccurs maxOccurs");
        element("group", "sequence choice all", "name ref minOccurs maxOccurs");
        element("sequence", "*element group choice sequence any", "minOccurs maxOccurs");
        element("choice", "*element group choice sequence any", "minOccurs maxOccurs");
        element("all", "*element", "minOccurs maxOccurs");
        element("complexType", "simpleContent complexContent" + MODEL + ATTRIBUTES, "name abstract mixed block final");
        element("simpleContent", "restriction extension", "");
        element("complexContent", "restriction extension", "mixed");
        element("extension", MODEL + ATTRIBUTES, "base");
        element("restriction", "simpleType" + MODEL + " | *" + FACETS + ATTRIBUTES, "base");
        element("simpleType", "restriction list union", "name final");
        element("list", "simpleType", "itemType");
        element("union", "*simpleType", "memberTypes");
        element("key", "selector | *field", "name");
        element("keyref", "selector | *field", "name refer");
        element("unique", "selector | *field", "name");
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

    /**
     * Takes down what may stand in an element.
     *
     * @param children the names of its children, stages divided by bars; of a stage with a star there may be several. An
     *     annotation comes first unless it is named
     */
    private static void element(String name, String children, String attributes) {
        Map<String, Stage> stages = new HashMap<>();
        stages.put("annotation", new Stage(0, false));
        int number = 0;
        for (String stage : children.split("\\|")) {
            number++;
            boolean repeats = stage.strip().startsWith("*");
            for (String child : stage.replace("*", " ").strip().split(" +")) {
                if (!child.isEmpty()) {
                    stages.put(child, new Stage(number, repeats));
                }
            }
        }
        CHILDREN.put(name, stages);
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
                        NearestName.cure(attribute, known, "leave it out"));
            }
        }
        Map<String, Stage> stages = CHILDREN.get(element.name());
        Element before = null;
        Stage reached = null;
        for (Element child : element.children()) {
            Stage stage = stages.get(child.name());
            if (!child.namespace().equals(Xml.XSD)) {
                foreign(element, child);
            } else if (stage == null) {
                misplaced(element, child);
            } else {
                if (reached != null) {
                    order(element, before, reached, child, stage);
                }
                if (reached == null || stage.number() >= reached.number()) {
                    before = child;
                    reached = stage;
                }
                check(child);
            }
        }
    }

    /** What comes too late is read all the same; of what may be there once, the second is not. */
    private void order(Element parent, Element before, Stage reached, Element child, Stage stage) {
        boolean whole = stage.number() > 0
                && (before.name().equals("simpleContent") || before.name().equals("complexContent"));
        if (whole || stage.number() == reached.number() && !stage.repeats() && stage.number() > 0) {
            findings.error(
                    "misplaced-element",
                    child.place(),
                    "xs:" + child.name() + " cannot stand beside xs:" + before.name() + " inside xs:" + parent.name(),
                    whole
                            ? "move it into the xs:extension or xs:restriction"
                            : "leave one of them out" + (isModel(child) ? ", or put an xs:sequence around both" : ""));
        } else if (stage.number() < reached.number() || stage.number() == reached.number() && !stage.repeats()) {
            findings.warning(
                    "misplaced-element",
                    child.place(),
                    "xs:" + child.name() + " cannot stand behind xs:" + before.name() + " inside xs:" + parent.name(),
                    stage.number() == reached.number() ? "make one of both" : "move it to the front");
        }
    }

    private static boolean isModel(Element child) {
        return (MODEL + " ").contains(" " + child.name() + " ");
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
                                CHILDREN.get(parent.name()).keySet().stream()
                                        .sorted()
                                        .toList());
        findings.error(
                "misplaced-element",
                child.place(),
                "xs:" + child.name() + " cannot stand inside xs:" + parent.name(),
                cure);
    }
}
