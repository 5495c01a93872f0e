package org.protypos.profile;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** What in a contract will be awkward in code that is generated from it: good to know before it is published. */
public final class Awkward {
    private static final int MOST_OF_A_KIND = 20;

    private final String language;
    private final Findings findings = new Findings();
    private final Map<Kind, Integer> counts = new EnumMap<>(Kind.class);

    private enum Kind {
        ANONYMOUS("awkward-anonymous", "give the type a name of its own"),
        REPEATED("awkward-repetition", "let an element around the alternatives repeat, if their order does not matter"),
        VALUE("awkward-value", "let the value begin with a letter"),
        MIXED("awkward-mixed", "leave mixed out unless text stands between the elements"),
        ANYTHING("awkward-anything", "name a type, or xs:any for elements of others");

        private final String code;
        private final String cure;

        Kind(String code, String cure) {
            this.code = code;
            this.cure = cure;
        }
    }

    private Awkward(String language) {
        this.language = language;
    }

    /**
     * Tells what will be awkward: notes, never more.
     *
     * @param language the title of the language
     */
    public static List<Finding> of(Contract contract, String language) {
        Awkward awkward = new Awkward(language);
        contract.documents().schemas().forEach(awkward::schema);
        awkward.counts.forEach((kind, count) -> {
            if (count > MOST_OF_A_KIND) {
                awkward.findings.note(
                        kind.code, null, "there are " + (count - MOST_OF_A_KIND) + " more of that kind", kind.cure);
            }
        });
        return awkward.findings.sorted();
    }

    private void tell(Kind kind, Place place, String message) {
        if (counts.merge(kind, 1, Integer::sum) <= MOST_OF_A_KIND) {
            findings.note(kind.code, place, message, kind.cure);
        }
    }

    /** The type of a global element needs no name: the element has one. */
    private void schema(Element schema) {
        schema.children().forEach(child -> {
            boolean global = child.is(Xml.XSD, "element");
            (global ? child.children() : List.of(child)).forEach(inner -> {
                if (global && inner.is(Xml.XSD, "complexType")) {
                    mixed(inner);
                    inner.children().forEach(part -> inside(part, inner));
                } else {
                    inside(inner, child);
                }
            });
            if (global) {
                ofAnything(child);
            }
        });
    }

    private void inside(Element element, Element around) {
        if (!element.namespace().equals(Xml.XSD)) {
            return;
        }
        switch (element.name()) {
            case "annotation" -> {
                return;
            }
            case "complexType" -> type(element, around);
            case "choice", "sequence" -> group(element);
            case "enumeration" -> value(element);
            case "element" -> ofAnything(element);
            default -> {
                // Nothing else is awkward by itself.
            }
        }
        element.children().forEach(child -> inside(child, element));
    }

    private void type(Element type, Element around) {
        if (type.attribute("name") == null && around.is(Xml.XSD, "element")) {
            tell(
                    Kind.ANONYMOUS,
                    type.place(),
                    "the type of " + around.attribute("name") + " has no name: " + language + " has to make one up");
        }
        mixed(type);
    }

    private void mixed(Element type) {
        String mixed = type.attribute("mixed");
        if (mixed != null && mixed.strip().matches("true|1")) {
            tell(Kind.MIXED, type.place(), "text stands between elements: " + language + " has it as a list of pieces");
        }
    }

    private void group(Element group) {
        String most = group.attribute("maxOccurs");
        long particles = group.children().stream()
                .filter(child -> !child.is(Xml.XSD, "annotation"))
                .count();
        if (most != null && !most.strip().matches("0*1|0+") && particles > 1) {
            tell(
                    Kind.REPEATED,
                    group.place(),
                    "several elements repeat together: " + language
                            + " has them as one list, in which each is of any kind");
        }
    }

    private void value(Element enumeration) {
        String value = enumeration.attribute("value");
        if (value != null
                && (value.isBlank() || !Character.isLetter(value.strip().codePointAt(0)))) {
            tell(
                    Kind.VALUE,
                    enumeration.place(),
                    "\"" + value + "\" begins with no letter: " + language + " has to make up a name for it");
        }
    }

    private void ofAnything(Element element) {
        String type = element.attribute("type");
        if (type != null
                && element.resolve(type.strip()) != null
                && element.resolve(type.strip()).getNamespaceURI().equals(Xml.XSD)
                && element.resolve(type.strip()).getLocalPart().equals("anyType")) {
            tell(
                    Kind.ANYTHING,
                    element.place(),
                    element.attribute("name") + " is anything: " + language + " cannot say more");
        }
    }
}
