package org.protypos.binding.declared;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.binding.DeclaredRule;
import org.protypos.binding.ProposedRule;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Subject;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Turns one binding declaration about one element of a contract into rules. */
final class Declaration {
    private static final Pattern PART =
            Pattern.compile(".*message\\[@name=['\"]([^'\"]+)['\"]\\]/(?:[^/]*:)?part\\[@name=['\"]([^'\"]+)['\"]\\]");

    /** Attributes that are no declarations of their own. */
    private static final Set<String> SETTLED =
            Set.of("name", "version", "value", "xmlType", "parseMethod", "printMethod", "part", "childElementName");

    private final Contract contract;
    private final ComponentFinder components;
    private final Findings findings;
    private final boolean inContract;
    private final List<DeclaredRule> rules;

    Declaration(Contract contract, NodeFinder nodes, Findings findings, boolean inContract, List<DeclaredRule> rules) {
        this.contract = contract;
        this.components = new ComponentFinder(nodes);
        this.findings = findings;
        this.inContract = inContract;
        this.rules = rules;
    }

    void declare(Element declaration, Element about) {
        switch (declaration.name()) {
            case "globalBindings" -> global(declaration);
            case "schemaBindings" -> schema(declaration, about);
            case "package" -> packageOf(declaration, about);
            case "class", "typesafeEnumClass" -> named(declaration, about);
            case "typesafeEnumMember" -> member(declaration, about);
            case "property" -> property(declaration, about);
            case "javaType" -> javaType(declaration, about);
            case "method" -> method(declaration, about);
            case "parameter" -> parameter(declaration, about);
            case "enableWrapperStyle" ->
                operations(declaration, about, "parameters", isTrue(declaration) ? "plain" : "object");
            case "enableAsyncMapping" -> operations(declaration, about, "async", String.valueOf(isTrue(declaration)));
            case "javadoc" -> add(declaration, components.designator(about), "documentation", text(declaration));
            default -> meaningless(declaration, "<" + declaration.name() + ">");
        }
    }

    private static boolean isTrue(Element declaration) {
        return Set.of("true", "1").contains(declaration.text().strip());
    }

    private static String text(Element declaration) {
        return declaration.text().strip();
    }

    private void meaningless(Element at, String what) {
        findings.note(
                "binding-meaningless",
                at.place(),
                what + " has no meaning for the code that is generated",
                "leave it out, or let it be");
    }

    /** Tells which attributes of a declaration say what no rule can say. */
    private void others(Element declaration) {
        for (String name : declaration.attributeNames()) {
            if (!SETTLED.contains(name)) {
                meaningless(declaration, name + " of <" + declaration.name() + ">");
            }
        }
    }

    private void add(Element declaration, String on, String... values) {
        if (on == null) {
            meaningless(declaration, "<" + declaration.name() + "> about what it stands at");
            return;
        }
        Map<String, String> pairs = new LinkedHashMap<>();
        for (int i = 0; i < values.length; i += 2) {
            if (values[i + 1] != null && !values[i + 1].isEmpty()) {
                pairs.put(values[i], values[i + 1]);
            }
        }
        if (!pairs.isEmpty()) {
            rules.add(new DeclaredRule(new ProposedRule(on, pairs, ""), declaration.place(), inContract));
        }
    }

    private void global(Element declaration) {
        others(declaration);
        for (Element child : declaration.children()) {
            String xmlType = child.attribute("xmlType");
            QName type = xmlType == null ? null : child.resolve(xmlType);
            if (child.name().equals("javaType") && type != null) {
                converted(child, Subject.type(type, null).designator());
            } else {
                meaningless(child, "<" + child.name() + ">");
            }
        }
    }

    private void schema(Element declaration, Element about) {
        others(declaration);
        for (Element child : declaration.children()) {
            if (child.name().equals("package")) {
                packageOf(child, about);
            } else if (child.name().equals("nameXmlTransform")) {
                child.children().forEach(transform -> transformed(transform, components.namespace(about)));
            } else {
                meaningless(child, "<" + child.name() + ">");
            }
        }
    }

    private void transformed(Element transform, String namespace) {
        String on =
                switch (transform.name()) {
                    case "typeName" -> "~{" + namespace + "}*";
                    case "elementName" -> "{" + namespace + "}*";
                    default -> null;
                };
        if (on == null) {
            meaningless(transform, "<" + transform.name() + ">");
        } else {
            add(transform, on, "prefix", transform.attribute("prefix"), "suffix", transform.attribute("suffix"));
        }
    }

    private void packageOf(Element declaration, Element about) {
        add(declaration, "namespace " + components.namespace(about), "package", declaration.attribute("name"));
        declaration.children().forEach(child -> meaningless(child, "<" + child.name() + "> of a package"));
    }

    private static String documentation(Element declaration) {
        for (Element child : declaration.children()) {
            if (child.name().equals("javadoc")) {
                return text(child);
            }
        }
        return null;
    }

    private void named(Element declaration, Element about) {
        others(declaration);
        boolean none =
                about.is(Xml.XSD, "element") && (about.attribute("ref") != null || !components.hasOwnType(about));
        if (none) {
            meaningless(declaration, "<" + declaration.name() + "> of an element that has no type of its own");
            return;
        }
        add(
                declaration,
                typeOf(about),
                "name",
                declaration.attribute("name"),
                "documentation",
                documentation(declaration));
        for (Element child : declaration.children()) {
            if (child.name().equals("typesafeEnumMember") && child.attribute("value") != null) {
                String type = components.designator(about);
                String on = type == null
                        ? null
                        : Subject.value(type, child.attribute("value"), null).designator();
                add(child, on, "name", child.attribute("name"), "documentation", documentation(child));
            } else if (!child.name().equals("javadoc")) {
                meaningless(child, "<" + child.name() + ">");
            }
        }
    }

    /** The class of a local element is that of its anonymous type. */
    private String typeOf(Element about) {
        String on = components.designator(about);
        return on != null && about.is(Xml.XSD, "element") && !components.isGlobal(about)
                ? Subject.typeOf(on, null).designator()
                : on;
    }

    private void member(Element declaration, Element about) {
        others(declaration);
        add(
                declaration,
                components.designator(about),
                "name",
                declaration.attribute("name"),
                "documentation",
                documentation(declaration));
    }

    private void property(Element declaration, Element about) {
        others(declaration);
        boolean isType = about.name().endsWith("Type");
        boolean isGlobal = about.is(Xml.XSD, "element") && components.isGlobal(about);
        if (isType || isGlobal) {
            if (declaration.attribute("name") != null || !declaration.children().isEmpty()) {
                meaningless(
                        declaration,
                        "<property> of " + (isType ? "a type" : "a global element") + ", which is no property,");
            }
            return;
        }
        String on = components.designator(about);
        add(declaration, on, "name", declaration.attribute("name"), "documentation", documentation(declaration));
        for (Element child : declaration.children()) {
            if (child.name().equals("baseType")) {
                base(child, on);
            } else if (!child.name().equals("javadoc")) {
                meaningless(child, "<" + child.name() + ">");
            }
        }
    }

    private void base(Element declaration, String on) {
        for (Element child : declaration.children()) {
            if (child.name().equals("javaType") && on != null) {
                converted(child, on);
            } else {
                meaningless(child, "<" + child.name() + ">");
            }
        }
        if (declaration.attribute("name") != null) {
            add(declaration, on, "as", declaration.attribute("name"));
        }
    }

    private void javaType(Element declaration, Element about) {
        String on = components.designator(about);
        if (on == null) {
            meaningless(declaration, "<javaType> about what it stands at");
        } else {
            converted(declaration, on);
        }
    }

    /** A type of the target; without methods it is taken for one that the target knows how to make. */
    private void converted(Element declaration, String on) {
        others(declaration);
        String parse = declaration.attribute("parseMethod");
        String print = declaration.attribute("printMethod");
        if (isConverterOfTheStandard(parse) || isConverterOfTheStandard(print)) {
            parse = null;
            print = null;
        }
        boolean own = parse != null || print != null;
        if (own && parse != null && parse.indexOf('.') < 0 && !parse.equals("new")) {
            parse = declaration.attribute("name") + "." + parse;
        }
        add(
                declaration,
                on,
                "as",
                declaration.attribute("name"),
                "parse",
                own ? parse == null ? "new" : parse : null,
                "print",
                own ? print == null ? "toString" : print : null);
    }

    /** The standard's own converter does what the code does anyway, and is not there when it runs. */
    private static boolean isConverterOfTheStandard(String method) {
        return method != null && method.matches("(javax|jakarta)\\.xml\\.bind\\.DatatypeConverter\\..*");
    }

    private void method(Element declaration, Element about) {
        if (about.is(Xml.WSDL, "operation")) {
            add(
                    declaration,
                    components.designator(about),
                    "name",
                    declaration.attribute("name"),
                    "documentation",
                    documentation(declaration));
        } else {
            meaningless(declaration, "<method> of <" + about.name() + ">");
        }
    }

    /** A parameter is designated by the element that it is, or by its part. */
    private void parameter(Element declaration, Element about) {
        String operation = about.is(Xml.WSDL, "operation") ? components.designator(about) : null;
        String child = declaration.attribute("childElementName");
        String name = child == null ? null : child.substring(child.indexOf(':') + 1);
        Matcher part = PART.matcher(declaration.attribute("part") == null ? "" : declaration.attribute("part"));
        if (name == null && part.matches()) {
            name = contract.wsdl().messages().values().stream()
                    .filter(message -> message.name().getLocalPart().equals(part.group(1)))
                    .flatMap(message -> message.parts().stream())
                    .filter(one -> one.name().equals(part.group(2)))
                    .map(one ->
                            one.element() == null ? one.name() : one.element().getLocalPart())
                    .findFirst()
                    .orElse(null);
        }
        add(
                declaration,
                operation == null || name == null ? null : operation + "/" + name,
                "name",
                declaration.attribute("name"));
    }

    /** What is said of a port type or of all definitions is said of each of their operations. */
    private void operations(Element declaration, Element about, String key, String value) {
        String on =
                switch (about.name()) {
                    case "operation" -> components.designator(about);
                    case "portType" -> components.designator(about) + "/*";
                    case "definitions" -> "portType {" + components.namespace(about) + "}*/*";
                    default -> null;
                };
        add(declaration, on, key, value);
    }
}
