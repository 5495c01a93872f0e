package org.protypos.schema.parse;

import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.schema.Builtins;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Element;
import org.protypos.source.Names;
import org.protypos.source.Xml;

/** What names mean inside one schema document: target namespace, forms, and the name that is being redefined. */
final class SchemaScope {
    private final Element schema;
    private final String target;
    private final boolean chameleon;
    private final Findings findings;
    private final ReadingNotes notes;
    private final QName redefined;
    private final QName original;

    SchemaScope(Element schema, String target, Findings findings, ReadingNotes notes) {
        this(schema, target, findings, notes, null, null);
    }

    private SchemaScope(
            Element schema, String target, Findings findings, ReadingNotes notes, QName redefined, QName original) {
        this.schema = schema;
        this.target = target;
        this.chameleon = schema.attribute("targetNamespace") == null && !target.isEmpty();
        this.findings = findings;
        this.notes = notes;
        this.redefined = redefined;
        this.original = original;
    }

    /**
     * The same scope for the inside of a redefinition, where the component's own name means its old form.
     *
     * @param oldForm the name of the old form
     */
    SchemaScope redefining(QName name, QName oldForm) {
        return new SchemaScope(schema, target, findings, notes, name, oldForm);
    }

    String target() {
        return target;
    }

    Findings findings() {
        return findings;
    }

    /** What is noted for when all is read. */
    ReadingNotes notes() {
        return notes;
    }

    /** The name of a global component. */
    QName global(String local) {
        return new QName(target, local.strip());
    }

    /** The name that an attribute holds. */
    QName reference(Element element, String attribute) {
        return reference(element, attribute, element.attribute(attribute).strip());
    }

    /** The name that part of an attribute holds. */
    QName reference(Element element, String attribute, String value) {
        QName name = element.resolve(value);
        if (name == null) {
            findings.error(
                    "undeclared-prefix",
                    element.place(attribute),
                    "the prefix of \"" + value + "\" is not declared",
                    "declare it with xmlns:" + value.substring(0, value.indexOf(':')) + "=\"...\"");
            return SchemaComponents.ANY_TYPE;
        }
        QName older = Builtins.olderType(name);
        if (older != null) {
            findings.warning(
                    "xsd-1.1",
                    element.place(attribute),
                    "xs:" + name.getLocalPart() + " belongs to XML Schema 1.1 and is read as xs:"
                            + older.getLocalPart(),
                    "nothing to do when the rest of the contract holds without it");
            return older;
        }
        if (chameleon && name.getNamespaceURI().isEmpty()) {
            name = new QName(target, name.getLocalPart());
        }
        // Where there is no old form, that is told at the redefinition.
        return original != null && name.equals(redefined) && mayMeanOldForm(element) ? original : name;
    }

    /** XML Schema Part 1, section 4.2.2. */
    private static boolean mayMeanOldForm(Element element) {
        return switch (element.name()) {
            case "restriction", "extension", "group", "attributeGroup" -> true;
            default -> false;
        };
    }

    static String documentation(Element element) {
        Element annotation = element.child(Xml.XSD, "annotation");
        if (annotation == null) {
            return "";
        }
        StringBuilder text = new StringBuilder();
        for (Element part : annotation.children(Xml.XSD, "documentation")) {
            text.append(text.isEmpty() ? "" : "\n\n").append(part.text().strip());
        }
        return text.toString();
    }

    static boolean flag(Element element, String attribute) {
        String value = element.attribute(attribute);
        return value != null && (value.strip().equals("true") || value.strip().equals("1"));
    }

    /** What an element or a type blocks, by itself or by default (XML Schema Part 1, sections 3.3.2 and 3.4.2). */
    Set<String> block(Element element) {
        String value = element.attribute("block");
        value = value != null ? value : schema.attribute("blockDefault");
        if (value == null || value.isBlank()) {
            return Set.of();
        }
        return value.strip().equals("#all")
                ? Set.of("extension", "restriction", "substitution")
                : Set.copyOf(List.of(value.strip().split("\\s+")));
    }

    /** The name of a local declaration, by its form or the default one (XML Schema Part 1, sections 3.2.2, 3.3.2). */
    QName localName(Element element, String formDefault) {
        String name = element.attribute("name");
        if (name == null) {
            findings.error(
                    "name-missing",
                    element.place(),
                    "xs:" + element.name() + " needs a name or a ref",
                    "give it a name attribute");
            return null;
        }
        Names.check(element, true, findings);
        String form = element.attribute("form") == null ? schema.attribute(formDefault) : element.attribute("form");
        return new QName("qualified".equals(form) ? target : "", name.strip());
    }
}
