package org.protypos.profile;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.profile.ProfileCheck.Told;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** What the profiles ask of documents: how they are written, and how they import each other (Basic Profile 1.1, section 4.2). */
final class DocumentRules {
    private static final Pattern DECLARATION = Pattern.compile("^\\s*<\\?xml[^>]*\\?>");
    private static final Pattern VERSION = Pattern.compile("version\\s*=\\s*[\"']([^\"']*)");
    private static final Pattern ENCODING = Pattern.compile("encoding\\s*=\\s*[\"']([^\"']*)");
    private static final List<String> COMPONENTS = List.of("message", "portType", "binding", "service");
    private static final Set<String> REFERENCES =
            Set.of("type", "base", "ref", "itemType", "substitutionGroup", "refer", "element");

    private final Contract contract;
    private final Told told;

    DocumentRules(Contract contract, Told told) {
        this.contract = contract;
        this.told = told;
    }

    void judge(Document document) {
        Element root = document.root();
        boolean wsdl = root.is(Xml.WSDL, "definitions");
        boolean schema = root.is(Xml.XSD, "schema");
        if (!wsdl && !schema) {
            return;
        }
        declaration(document, wsdl);
        MarkupScan.declaringXml(document.text())
                .forEach(place -> told.tell(Requirement.R1034, root, null, "in line " + place.line()));
        if (wsdl) {
            order(root);
            imports(root);
            references(root);
            for (Element types : root.children(Xml.WSDL, "types")) {
                types(types);
            }
            extensions(root);
        } else {
            schema(root);
        }
    }

    private void declaration(Document document, boolean wsdl) {
        Matcher declaration = DECLARATION.matcher(document.text().text());
        if (!declaration.find()) {
            return;
        }
        Matcher version = VERSION.matcher(declaration.group());
        if (version.find() && !version.group(1).equals("1.0")) {
            told.tell(wsdl ? Requirement.R4004 : Requirement.R2011, document.root(), null, version.group(1));
        }
        Matcher encoding = ENCODING.matcher(declaration.group());
        if (encoding.find() && !encoding.group(1).matches("(?i)utf-8|utf-16(le|be)?")) {
            told.tell(wsdl ? Requirement.R4003 : Requirement.R2010, document.root(), null, encoding.group(1));
        }
    }

    private void order(Element root) {
        boolean types = false;
        boolean components = false;
        for (Element child : root.children()) {
            if (child.is(Xml.WSDL, "import") && (types || components)) {
                told.tell(Requirement.R2022, child, null, null);
            } else if (child.is(Xml.WSDL, "types")) {
                if (components) {
                    told.tell(Requirement.R2023, child, null, null);
                }
                types = true;
            } else if (child.namespace().equals(Xml.WSDL) && COMPONENTS.contains(child.name())) {
                components = true;
            }
        }
    }

    private void imports(Element root) {
        for (Element one : root.children(Xml.WSDL, "import")) {
            String location = one.attribute("location");
            if (location == null || location.isBlank()) {
                told.tell(Requirement.R2007, one, null, null);
            }
            String namespace = one.attribute("namespace");
            if (namespace != null && !isAbsolute(namespace)) {
                told.tell(Requirement.R2803, one, "namespace", namespace);
            }
            Document there = contract.documents().links().get(one);
            if (there == null || there.root() == null) {
                continue;
            }
            if (!there.root().is(Xml.WSDL, "definitions")) {
                told.tell(Requirement.R2001, one, "location", location);
            } else if (!String.valueOf(namespace).equals(there.root().attribute("targetNamespace"))) {
                told.tell(Requirement.R2005, one, "namespace", namespace);
            }
        }
    }

    private static boolean isAbsolute(String namespace) {
        try {
            return new URI(namespace).isAbsolute();
        } catch (URISyntaxException e) {
            return namespace.contains(":");
        }
    }

    /** Names of components of WSDL that are spoken of from others. */
    private void references(Element root) {
        Set<String> known = new HashSet<>();
        known.add(String.valueOf(root.attribute("targetNamespace")));
        root.children(Xml.WSDL, "import").forEach(one -> known.add(String.valueOf(one.attribute("namespace"))));
        for (Element child : root.children()) {
            if (child.is(Xml.WSDL, "binding")) {
                reference(child, "type", known);
            }
            for (Element port : child.children(Xml.WSDL, "port")) {
                reference(port, "binding", known);
            }
            if (child.is(Xml.WSDL, "portType")) {
                child.children(Xml.WSDL, "operation")
                        .forEach(operation -> operation.children().forEach(use -> reference(use, "message", known)));
            }
        }
    }

    private void reference(Element element, String attribute, Set<String> known) {
        String value = element.attribute(attribute);
        QName name = value == null ? null : element.resolve(value.strip());
        if (name != null && !known.contains(name.getNamespaceURI())) {
            told.tell(Requirement.R2101, element, attribute, value);
        }
    }

    private void types(Element types) {
        types.children(Xml.XSD, "import").forEach(one -> told.tell(Requirement.R2003, one, null, null));
        for (Element schema : types.children(Xml.XSD, "schema")) {
            boolean importsAlone = schema.children().stream()
                    .allMatch(child -> child.is(Xml.XSD, "import") || child.is(Xml.XSD, "annotation"));
            String target = schema.attribute("targetNamespace");
            if (!importsAlone && (target == null || target.isEmpty())) {
                told.tell(Requirement.R2105, schema, null, null);
            }
            schema(schema);
        }
    }

    private void schema(Element schema) {
        Set<String> known = new HashSet<>(Set.of(Xml.XSD, Xml.XML));
        String target = schema.attribute("targetNamespace");
        known.add(target == null ? "" : target);
        for (Element one : schema.children(Xml.XSD, "import")) {
            String namespace = one.attribute("namespace");
            known.add(namespace == null ? "" : namespace);
            Document there = contract.documents().links().get(one);
            if (there != null && there.root() != null && !there.root().is(Xml.XSD, "schema")) {
                told.tell(Requirement.R2004, one, "schemaLocation", one.attribute("schemaLocation"));
            }
        }
        // Into a document that is included by others come names of their namespace.
        boolean chameleon = target == null || target.isEmpty();
        schema.children().forEach(child -> inside(child, known, chameleon));
    }

    private void inside(Element element, Set<String> known, boolean chameleon) {
        if (!element.namespace().equals(Xml.XSD) || element.name().equals("annotation")) {
            return;
        }
        for (String attribute : element.attributeNames()) {
            String value = element.attribute(attribute);
            if (REFERENCES.contains(attribute) && value != null && !value.isBlank()) {
                QName name = element.resolve(value.strip());
                if (name != null
                        && name.getNamespaceURI().equals(Xml.SOAP_ENCODING)
                        && name.getLocalPart().equals("Array")) {
                    told.tell(Requirement.R2110, element, attribute, value);
                } else if (name != null
                        && !known.contains(name.getNamespaceURI())
                        && !(chameleon && name.getNamespaceURI().isEmpty())) {
                    told.tell(Requirement.R2102, element, attribute, value);
                }
            }
        }
        if (element.attribute(Xml.WSDL, "arrayType") != null) {
            told.tell(Requirement.R2111, element, null, element.attribute(Xml.WSDL, "arrayType"));
        }
        String name = element.attribute("name");
        if (element.name().endsWith("Type") && name != null && name.matches("ArrayOf.+")) {
            told.tell(Requirement.R2112, element, "name", name);
        }
        element.children().forEach(child -> inside(child, known, chameleon));
    }

    private void extensions(Element element) {
        if (!element.namespace().equals(Xml.WSDL)) {
            String required = element.attribute(Xml.WSDL, "required");
            if (required != null && required.matches("true|1")) {
                told.tell(Requirement.R2026, element, null, element.name());
            }
        }
        if (element.namespace().equals(Xml.WSDL) && !element.name().equals("types")) {
            element.children().forEach(this::extensions);
        }
    }
}
