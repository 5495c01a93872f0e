package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.Facet;
import org.protypos.schema.GroupReference;
import org.protypos.schema.IdentityConstraint;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Notation;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Turns the elements of one schema document into components. */
final class ComponentParser {
    private final Element schema;
    private final String target;
    private final boolean chameleon;
    private final Findings findings;
    private final Set<QName> redefined;

    ComponentParser(Element schema, String target, Findings findings) {
        this(schema, target, findings, Set.of());
    }

    private ComponentParser(Element schema, String target, Findings findings, Set<QName> redefined) {
        this.schema = schema;
        this.target = target;
        this.chameleon = schema.attribute("targetNamespace") == null && !target.isEmpty();
        this.findings = findings;
        this.redefined = redefined;
    }

    /** The same parser for the inside of a redefinition, where these names mean the old form of their components. */
    ComponentParser redefining(Set<QName> names) {
        return new ComponentParser(schema, target, findings, names);
    }

    /** The name of a global component. */
    QName global(String local) {
        return new QName(target, local.strip());
    }

    /** Parses all global components below an element. */
    void globals(Element parent, Consumer<Object> add) {
        for (Element child : parent.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "element" -> named(child, add, name -> elementDeclaration(child, name));
                case "attribute" -> named(child, add, name -> attributeDeclaration(child, name));
                case "complexType" -> named(child, add, name -> complexType(child, name));
                case "simpleType" -> named(child, add, name -> simpleType(child, name));
                case "group" -> named(child, add, name -> groupDefinition(child, name));
                case "attributeGroup" ->
                    named(
                            child,
                            add,
                            name -> new AttributeGroup(name, attributes(child), documentation(child), child.place()));
                case "notation" ->
                    named(
                            child,
                            add,
                            name -> new Notation(
                                    name, child.attribute("public"), child.attribute("system"), child.place()));
                default -> {
                    // references and annotations are no components
                }
            }
        }
    }

    private interface Parse {
        Object of(QName name);
    }

    private void named(Element element, Consumer<Object> add, Parse parse) {
        String name = element.attribute("name");
        if (name == null) {
            findings.error(
                    "name-missing",
                    element.place(),
                    "a global xs:" + element.name() + " needs a name",
                    "give it a name attribute");
            return;
        }
        Object component = parse.of(global(name));
        if (component != null) {
            add.accept(component);
        }
    }

    private QName reference(Element element, String attribute) {
        String value = element.attribute(attribute).strip();
        QName name = element.resolve(value);
        if (name == null) {
            findings.error(
                    "undeclared-prefix",
                    element.place(attribute),
                    "the prefix of \"" + value + "\" is not declared",
                    "declare it with xmlns:" + value.substring(0, value.indexOf(':')) + "=\"...\"");
            return SchemaComponents.ANY_TYPE;
        }
        if (chameleon && name.getNamespaceURI().isEmpty()) {
            name = new QName(target, name.getLocalPart());
        }
        return redefined.contains(name) && isSelfReference(element, name) ? SchemaComponents.original(name) : name;
    }

    /** Inside its redefinition a component's own name means its old form (XML Schema Part 1, section 4.2.2). */
    private static boolean isSelfReference(Element element, QName name) {
        return switch (element.name()) {
            case "restriction", "extension", "group", "attributeGroup" -> true;
            default -> false;
        };
    }

    private static String documentation(Element element) {
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

    private static boolean flag(Element element, String attribute) {
        String value = element.attribute(attribute);
        return value != null && (value.strip().equals("true") || value.strip().equals("1"));
    }

    private ElementDeclaration elementDeclaration(Element element, QName name) {
        List<IdentityConstraint> constraints = new ArrayList<>();
        for (Element child : element.children()) {
            if (child.namespace().equals(Xml.XSD)
                    && Set.of("key", "keyref", "unique").contains(child.name())) {
                constraints.add(constraint(child));
            }
        }
        return new ElementDeclaration(
                name,
                type(element, "type", element.attribute("substitutionGroup") != null),
                flag(element, "nillable"),
                flag(element, "abstract"),
                element.attribute("default"),
                element.attribute("fixed"),
                element.attribute("substitutionGroup") == null ? null : reference(element, "substitutionGroup"),
                List.copyOf(constraints),
                documentation(element),
                element.place());
    }

    /** The type that an attribute names or a child defines; {@code xs:anyType}, or null where the head decides. */
    private TypeReference type(Element element, String attribute, boolean headDecides) {
        if (element.attribute(attribute) != null) {
            return TypeReference.to(reference(element, attribute), element.place(attribute));
        }
        SchemaType anonymous = anonymousType(element);
        if (anonymous != null) {
            return TypeReference.to(anonymous);
        }
        return headDecides ? null : TypeReference.to(SchemaComponents.ANY_TYPE, element.place());
    }

    private SchemaType anonymousType(Element element) {
        Element complex = element.child(Xml.XSD, "complexType");
        if (complex != null) {
            return complexType(complex, null);
        }
        Element simple = element.child(Xml.XSD, "simpleType");
        return simple == null ? null : simpleType(simple, null);
    }

    private IdentityConstraint constraint(Element element) {
        Element selector = element.child(Xml.XSD, "selector");
        List<String> fields = element.children(Xml.XSD, "field").stream()
                .map(field -> String.valueOf(field.attribute("xpath")))
                .toList();
        String name = element.attribute("name");
        return new IdentityConstraint(
                global(name == null ? "" : name),
                element.name(),
                selector == null ? "" : selector.attribute("xpath"),
                fields,
                element.attribute("refer") == null ? null : reference(element, "refer"),
                element.place());
    }

    private AttributeDeclaration attributeDeclaration(Element element, QName name) {
        Element simple = element.child(Xml.XSD, "simpleType");
        TypeReference type = element.attribute("type") != null
                ? TypeReference.to(reference(element, "type"), element.place("type"))
                : simple != null
                        ? TypeReference.to(simpleType(simple, null))
                        : TypeReference.to(Builtins.name("anySimpleType"), element.place());
        return new AttributeDeclaration(
                name,
                type,
                element.attribute("default"),
                element.attribute("fixed"),
                documentation(element),
                element.place());
    }

    private Attributes attributes(Element parent) {
        List<AttributeUse> uses = new ArrayList<>();
        List<Attributes.GroupUse> groups = new ArrayList<>();
        Wildcard wildcard = null;
        for (Element child : parent.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "attribute" -> addIfPresent(uses, attributeUse(child));
                case "attributeGroup" -> {
                    if (child.attribute("ref") != null) {
                        groups.add(new Attributes.GroupUse(reference(child, "ref"), child.place("ref")));
                    }
                }
                case "anyAttribute" -> wildcard = wildcard(child);
                default -> {
                    // the content model is read elsewhere
                }
            }
        }
        return uses.isEmpty() && groups.isEmpty() && wildcard == null
                ? Attributes.NONE
                : new Attributes(List.copyOf(uses), List.copyOf(groups), wildcard);
    }

    private static <T> void addIfPresent(List<T> list, T item) {
        if (item != null) {
            list.add(item);
        }
    }

    private AttributeUse attributeUse(Element element) {
        AttributeUse.Use use =
                switch (String.valueOf(element.attribute("use"))) {
                    case "required" -> AttributeUse.Use.REQUIRED;
                    case "prohibited" -> AttributeUse.Use.PROHIBITED;
                    default -> AttributeUse.Use.OPTIONAL;
                };
        if (element.attribute("ref") != null) {
            return new AttributeUse(
                    reference(element, "ref"),
                    null,
                    use,
                    element.attribute("default"),
                    element.attribute("fixed"),
                    element.place("ref"));
        }
        QName name = localName(element, "attributeFormDefault");
        return name == null
                ? null
                : new AttributeUse(
                        null,
                        attributeDeclaration(element, name),
                        use,
                        element.attribute("default"),
                        element.attribute("fixed"),
                        element.place());
    }

    /** The name of a local declaration, by its form or the default one (XML Schema Part 1, sections 3.2.2, 3.3.2). */
    private QName localName(Element element, String formDefault) {
        String name = element.attribute("name");
        if (name == null) {
            findings.error(
                    "name-missing",
                    element.place(),
                    "xs:" + element.name() + " needs a name or a ref",
                    "give it a name attribute");
            return null;
        }
        String form = element.attribute("form") == null ? schema.attribute(formDefault) : element.attribute("form");
        return new QName("qualified".equals(form) ? target : "", name.strip());
    }

    private Wildcard wildcard(Element element) {
        String namespaces = element.attribute("namespace");
        Wildcard.Processing processing =
                switch (String.valueOf(element.attribute("processContents"))) {
                    case "lax" -> Wildcard.Processing.LAX;
                    case "skip" -> Wildcard.Processing.SKIP;
                    default -> Wildcard.Processing.STRICT;
                };
        return new Wildcard(
                List.of((namespaces == null ? "##any" : namespaces.strip()).split("\\s+")),
                target,
                processing,
                element.place());
    }

    private ModelGroupDefinition groupDefinition(Element element, QName name) {
        for (Element child : element.children()) {
            if (child.namespace().equals(Xml.XSD) && !child.name().equals("annotation")) {
                return new ModelGroupDefinition(name, modelGroup(child), documentation(element), element.place());
            }
        }
        return new ModelGroupDefinition(
                name,
                new ModelGroup(ModelGroup.Compositor.SEQUENCE, List.of(), element.place()),
                documentation(element),
                element.place());
    }

    private ModelGroup modelGroup(Element element) {
        List<Particle> particles = new ArrayList<>();
        for (Element child : element.children()) {
            if (child.namespace().equals(Xml.XSD)) {
                addIfPresent(particles, particle(child));
            }
        }
        ModelGroup.Compositor compositor =
                switch (element.name()) {
                    case "choice" -> ModelGroup.Compositor.CHOICE;
                    case "all" -> ModelGroup.Compositor.ALL;
                    default -> ModelGroup.Compositor.SEQUENCE;
                };
        return new ModelGroup(compositor, List.copyOf(particles), element.place());
    }

    private Particle particle(Element element) {
        Term term =
                switch (element.name()) {
                    case "element" -> elementTerm(element);
                    case "group" ->
                        element.attribute("ref") == null
                                ? null
                                : new GroupReference(reference(element, "ref"), element.place("ref"));
                    case "sequence", "choice", "all" -> modelGroup(element);
                    case "any" -> wildcard(element);
                    default -> null;
                };
        if (term == null) {
            return null;
        }
        int least = occurs(element, "minOccurs");
        int most = occurs(element, "maxOccurs");
        if (least > most) {
            findings.error(
                    "occurrence",
                    element.place("minOccurs"),
                    "minOccurs is greater than maxOccurs",
                    "make minOccurs at most " + most);
        }
        return most == 0 ? null : new Particle(term, least, most);
    }

    private Term elementTerm(Element element) {
        if (element.attribute("ref") != null) {
            return new ElementReference(reference(element, "ref"), documentation(element), element.place("ref"));
        }
        QName name = localName(element, "elementFormDefault");
        return name == null ? null : elementDeclaration(element, name);
    }

    private int occurs(Element element, String attribute) {
        String value = element.attribute(attribute);
        if (value == null) {
            return 1;
        }
        String text = value.strip();
        if (text.equals("unbounded") && attribute.equals("maxOccurs")) {
            return Particle.UNBOUNDED;
        }
        if (!text.matches("\\+?[0-9]+")) {
            findings.error(
                    "occurrence",
                    element.place(attribute),
                    attribute + "=\"" + value + "\" is no count",
                    "write a number" + (attribute.equals("maxOccurs") ? " or unbounded" : ""));
            return 1;
        }
        return text.length() > 9 ? Particle.UNBOUNDED - 1 : Integer.parseInt(text);
    }

    private ComplexType complexType(Element element, QName name) {
        Element simple = element.child(Xml.XSD, "simpleContent");
        Element complex = element.child(Xml.XSD, "complexContent");
        Element content = simple != null ? simple : complex;
        Element derivation = content == null ? null : derivation(content);
        boolean mixed = flag(element, "mixed") || complex != null && flag(complex, "mixed");
        Place place = element.place();
        if (derivation == null) {
            return new ComplexType(
                    name,
                    flag(element, "abstract"),
                    mixed,
                    ComplexType.Derivation.RESTRICTION,
                    TypeReference.to(SchemaComponents.ANY_TYPE, place),
                    new ComplexType.ElementContent(model(element)),
                    attributes(element),
                    documentation(element),
                    place);
        }
        return new ComplexType(
                name,
                flag(element, "abstract"),
                mixed,
                derivation.name().equals("extension")
                        ? ComplexType.Derivation.EXTENSION
                        : ComplexType.Derivation.RESTRICTION,
                type(derivation, "base", false),
                simple != null ? simpleContent(derivation) : new ComplexType.ElementContent(model(derivation)),
                attributes(derivation),
                documentation(element),
                place);
    }

    private Element derivation(Element content) {
        Element extension = content.child(Xml.XSD, "extension");
        Element found = extension != null ? extension : content.child(Xml.XSD, "restriction");
        if (found == null || found.attribute("base") == null) {
            findings.error(
                    "base-missing",
                    content.place(),
                    "xs:" + content.name() + " needs an xs:extension or xs:restriction with a base",
                    "add one, or leave xs:" + content.name() + " out");
            return null;
        }
        return found;
    }

    private ComplexType.SimpleContent simpleContent(Element derivation) {
        Element narrowed = derivation.child(Xml.XSD, "simpleType");
        return new ComplexType.SimpleContent(
                narrowed == null ? null : TypeReference.to(simpleType(narrowed, null)), facets(derivation));
    }

    private Particle model(Element parent) {
        for (Element child : parent.children()) {
            if (child.namespace().equals(Xml.XSD)
                    && Set.of("sequence", "choice", "all", "group").contains(child.name())) {
                return particle(child);
            }
        }
        return null;
    }

    private SimpleType simpleType(Element element, QName name) {
        for (Element child : element.children()) {
            if (!child.namespace().equals(Xml.XSD)) {
                continue;
            }
            switch (child.name()) {
                case "restriction" -> {
                    return simple(
                            element,
                            name,
                            SimpleType.Variety.RESTRICTION,
                            part(child, "base"),
                            List.of(),
                            facets(child));
                }
                case "list" -> {
                    return simple(
                            element, name, SimpleType.Variety.LIST, part(child, "itemType"), List.of(), List.of());
                }
                case "union" -> {
                    return simple(element, name, SimpleType.Variety.UNION, null, members(child), List.of());
                }
                default -> {
                    // annotations come first
                }
            }
        }
        findings.error(
                "simple-type-empty",
                element.place(),
                "xs:simpleType needs xs:restriction, xs:list or xs:union",
                "say what the type restricts");
        return simple(
                element,
                name,
                SimpleType.Variety.RESTRICTION,
                TypeReference.to(Builtins.name("anySimpleType"), element.place()),
                List.of(),
                List.of());
    }

    private static SimpleType simple(
            Element element,
            QName name,
            SimpleType.Variety variety,
            TypeReference base,
            List<TypeReference> members,
            List<Facet> facets) {
        return new SimpleType(name, variety, base, members, facets, documentation(element), element.place());
    }

    private TypeReference part(Element element, String attribute) {
        Element child = element.child(Xml.XSD, "simpleType");
        return element.attribute(attribute) == null && child != null
                ? TypeReference.to(simpleType(child, null))
                : type(element, attribute, false);
    }

    private List<TypeReference> members(Element union) {
        List<TypeReference> members = new ArrayList<>();
        String named = union.attribute("memberTypes");
        if (named != null && !named.isBlank()) {
            for (String member : named.strip().split("\\s+")) {
                QName name = union.resolve(member);
                if (name == null) {
                    findings.error(
                            "undeclared-prefix",
                            union.place("memberTypes"),
                            "the prefix of \"" + member + "\" is not declared",
                            "declare it with an xmlns attribute");
                    continue;
                }
                members.add(TypeReference.to(
                        chameleon && name.getNamespaceURI().isEmpty() ? new QName(target, name.getLocalPart()) : name,
                        union.place("memberTypes")));
            }
        }
        for (Element child : union.children(Xml.XSD, "simpleType")) {
            members.add(TypeReference.to(simpleType(child, null)));
        }
        return List.copyOf(members);
    }

    private static List<Facet> facets(Element restriction) {
        List<Facet> facets = new ArrayList<>();
        for (Element child : restriction.children()) {
            String value = child.attribute("value");
            if (child.namespace().equals(Xml.XSD) && value != null) {
                facets.add(new Facet(child.name(), value, documentation(child), child.place()));
            }
        }
        return List.copyOf(facets);
    }
}
