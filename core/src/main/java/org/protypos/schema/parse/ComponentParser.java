package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.Builtins;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.IdentityConstraint;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Notation;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.source.Element;
import org.protypos.source.Names;
import org.protypos.source.Xml;

/** Turns the elements of one schema document into components. */
final class ComponentParser {
    private static final Pattern COUNT = Pattern.compile("\\+?[0-9]+");

    private final SchemaScope scope;
    private final TypeParser types;

    ComponentParser(SchemaScope scope) {
        this.scope = scope;
        this.types = new TypeParser(scope, this);
    }

    /** Parses all global components below an element. */
    void globals(Element parent, Consumer<Object> add) {
        for (Element child : parent.children()) {
            global(child, add);
        }
    }

    /** Parses an element if it is a global component. */
    void global(Element child, Consumer<Object> add) {
        if (child.namespace().equals(Xml.XSD)) {
            switch (child.name()) {
                case "element" -> named(child, add, name -> elementDeclaration(child, name));
                case "attribute" -> named(child, add, name -> attributeDeclaration(child, name));
                case "complexType" -> named(child, add, name -> types.complexType(child, name));
                case "simpleType" -> named(child, add, name -> types.simpleType(child, name));
                case "group" -> named(child, add, name -> groupDefinition(child, name));
                case "attributeGroup" ->
                    named(
                            child,
                            add,
                            name -> new AttributeGroup(
                                    name, attributes(child), SchemaScope.documentation(child), child.place()));
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
            scope.findings()
                    .error(
                            "name-missing",
                            element.place(),
                            "a global xs:" + element.name() + " needs a name",
                            "give it a name attribute");
            return;
        }
        Names.check(element, element.name().equals("element") || element.name().equals("attribute"), scope.findings());
        Object component = parse.of(scope.global(name));
        if (component != null) {
            add.accept(component);
        }
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
                types.type(element, "type", element.attribute("substitutionGroup") != null),
                SchemaScope.flag(element, "nillable"),
                SchemaScope.flag(element, "abstract"),
                element.attribute("default"),
                element.attribute("fixed"),
                head(element),
                element.attribute(Xml.MEDIA, "expectedContentTypes"),
                List.copyOf(constraints),
                scope.block(element),
                SchemaScope.documentation(element),
                element.place());
    }

    /** XML Schema 1.1 lets an element name several heads; the first counts. */
    private QName head(Element element) {
        String heads = element.attribute("substitutionGroup");
        if (heads == null || heads.isBlank()) {
            return null;
        }
        String[] names = heads.strip().split("\\s+");
        if (names.length > 1) {
            scope.findings()
                    .warning(
                            "xsd-1.1",
                            element.place("substitutionGroup"),
                            "several substitution groups belong to XML Schema 1.1; only that of " + names[0]
                                    + " is applied",
                            "nothing to do when messages use the element only there");
        }
        return scope.reference(element, "substitutionGroup", names[0]);
    }

    private IdentityConstraint constraint(Element element) {
        Element selector = element.child(Xml.XSD, "selector");
        List<String> fields = element.children(Xml.XSD, "field").stream()
                .map(field -> String.valueOf(field.attribute("xpath")))
                .toList();
        String name = element.attribute("name");
        if (element.name().equals("keyref") && element.attribute("refer") == null) {
            scope.findings()
                    .error(
                            "attribute-missing",
                            element.place(),
                            "xs:keyref needs the attribute refer",
                            "name the xs:key or xs:unique that it refers to");
        }
        return new IdentityConstraint(
                scope.global(name == null ? "" : name),
                element.name(),
                selector == null ? "" : selector.attribute("xpath"),
                fields,
                element.attribute("refer") == null ? null : scope.reference(element, "refer"),
                element::namespaceOf,
                element.place());
    }

    private AttributeDeclaration attributeDeclaration(Element element, QName name) {
        Element simple = element.child(Xml.XSD, "simpleType");
        TypeReference type = element.attribute("type") != null
                ? TypeReference.to(scope.reference(element, "type"), element.place("type"))
                : simple != null
                        ? TypeReference.to(types.simpleType(simple, null))
                        : TypeReference.to(Builtins.name("anySimpleType"), element.place());
        return new AttributeDeclaration(
                name,
                type,
                element.attribute("default"),
                element.attribute("fixed"),
                SchemaScope.documentation(element),
                element.place());
    }

    Attributes attributes(Element parent) {
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
                        groups.add(new Attributes.GroupUse(scope.reference(child, "ref"), child.place("ref")));
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
            QName reference = scope.reference(element, "ref");
            scope.notes().use(reference.getNamespaceURI());
            return new AttributeUse(
                    reference,
                    null,
                    use,
                    element.attribute("default"),
                    element.attribute("fixed"),
                    arrayItem(element),
                    element.place("ref"));
        }
        QName name = scope.localName(element, "attributeFormDefault");
        return name == null
                ? null
                : new AttributeUse(
                        null,
                        attributeDeclaration(element, name),
                        use,
                        element.attribute("default"),
                        element.attribute("fixed"),
                        null,
                        element.place());
    }

    /** The type before the brackets; an array of arrays has items of any type. */
    private QName arrayItem(Element element) {
        String type = element.attribute(Xml.WSDL, "arrayType");
        if (type == null || type.indexOf('[') < 0) {
            return null;
        }
        String item = type.strip().substring(0, type.strip().indexOf('['));
        return type.indexOf('[') != type.lastIndexOf('[')
                ? SchemaComponents.ANY_TYPE
                : scope.reference(element, "arrayType", item);
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
                scope.target(),
                processing,
                element.place());
    }

    private ModelGroupDefinition groupDefinition(Element element, QName name) {
        for (Element child : element.children()) {
            if (child.namespace().equals(Xml.XSD) && !child.name().equals("annotation")) {
                return new ModelGroupDefinition(
                        name, modelGroup(child), SchemaScope.documentation(element), element.place());
            }
        }
        return new ModelGroupDefinition(
                name,
                new ModelGroup(ModelGroup.Compositor.SEQUENCE, List.of(), element.place()),
                SchemaScope.documentation(element),
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

    Particle particle(Element element) {
        Term term =
                switch (element.name()) {
                    case "element" -> elementTerm(element);
                    case "group" ->
                        element.attribute("ref") == null
                                ? null
                                : new GroupReference(scope.reference(element, "ref"), element.place("ref"));
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
            scope.findings()
                    .error(
                            "occurrence",
                            element.place("minOccurs"),
                            "minOccurs is greater than maxOccurs",
                            "make minOccurs at most " + most);
        }
        return most == 0 ? null : new Particle(term, least, most);
    }

    private Term elementTerm(Element element) {
        if (element.attribute("ref") != null) {
            QName reference = scope.reference(element, "ref");
            scope.notes().reference(reference);
            return new ElementReference(reference, SchemaScope.documentation(element), element.place("ref"));
        }
        QName name = scope.localName(element, "elementFormDefault");
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
        if (!COUNT.matcher(text).matches()) {
            scope.findings()
                    .error(
                            "occurrence",
                            element.place(attribute),
                            attribute + "=\"" + value + "\" is no count",
                            "write a number" + (attribute.equals("maxOccurs") ? " or unbounded" : ""));
            return 1;
        }
        return text.length() > 9 ? Particle.UNBOUNDED - 1 : Integer.parseInt(text);
    }
}
