package org.protypos.binding.declared;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Says how rules speak of the component that an element of a contract document declares. */
final class ComponentFinder {
    private final NodeFinder nodes;

    ComponentFinder(NodeFinder nodes) {
        this.nodes = nodes;
    }

    private Element schema(Element element) {
        Element at = element;
        while (at != null && !at.is(Xml.XSD, "schema")) {
            at = nodes.parent(at);
        }
        return at;
    }

    /** The target namespace of the schema or the definitions that an element stands in. */
    String namespace(Element element) {
        Element at = element;
        while (at != null && at.attribute("targetNamespace") == null) {
            at = nodes.parent(at);
        }
        return at == null ? "" : at.attribute("targetNamespace");
    }

    /** Whether an element of a schema declares a global component. */
    boolean isGlobal(Element element) {
        Element parent = nodes.parent(element);
        return parent != null && (parent.is(Xml.XSD, "schema") || parent.is(Xml.XSD, "redefine"));
    }

    /** The component, or null when rules have no way to speak of it. */
    String designator(Element element) {
        if (element.namespace().equals(Xml.WSDL)) {
            return wsdl(element);
        }
        return switch (element.name()) {
            case "element", "attribute" -> isGlobal(element) ? global(element) : member(element);
            case "complexType", "simpleType" -> type(element);
            case "enumeration" -> value(element);
            case "choice", "sequence", "all", "any", "anyAttribute" -> unnamed(element);
            default -> null;
        };
    }

    private String global(Element element) {
        return element.name().equals("element")
                ? Subject.element(new QName(namespace(element), element.attribute("name")), null)
                        .designator()
                : null;
    }

    private String type(Element element) {
        if (element.attribute("name") != null && isGlobal(element)) {
            return Subject.type(new QName(namespace(element), element.attribute("name")), null)
                    .designator();
        }
        Element owner = nodes.parent(element);
        String around = owner == null ? null : designator(owner);
        boolean complex = element.name().equals("complexType") && isGlobal(owner);
        return around == null || complex ? around : Subject.typeOf(around, null).designator();
    }

    private String value(Element element) {
        Element type = nodes.parent(nodes.parent(element));
        String around = type == null ? null : designator(type);
        return around == null || element.attribute("value") == null
                ? null
                : Subject.value(around, element.attribute("value"), null).designator();
    }

    /** A local element or attribute: its path begins at the type around it, or at the global element of that. */
    private String member(Element element) {
        Element around = nodes.parent(element);
        while (around != null && !around.name().equals("complexType")) {
            if (around.name().equals("group") || around.name().equals("attributeGroup")) {
                return null;
            }
            around = nodes.parent(around);
        }
        String path = around == null ? null : designator(around);
        QName name = name(element);
        if (path == null || name == null) {
            return null;
        }
        String inside = path.replaceFirst("/~0$", "");
        return element.name().equals("element")
                ? Subject.element(inside, name, null).designator()
                : Subject.attribute(inside, name, null).designator();
    }

    /** A group that repeats, or a wildcard: rules count those of one kind in a type. */
    private String unnamed(Element element) {
        Element type = nodes.parent(element);
        while (type != null && !type.name().equals("complexType")) {
            type = type.name().equals("group") || type.name().equals("attributeGroup") ? null : nodes.parent(type);
        }
        String around = type == null ? null : designator(type);
        boolean group = !element.name().startsWith("any");
        if (around == null || group && !repeats(element)) {
            return null;
        }
        List<Element> alike = new ArrayList<>();
        collect(type, element.name(), group, alike);
        int number = alike.indexOf(element) + 1;
        String what = element.name().equals("anyAttribute") ? "@any" : element.name();
        return Subject.unnamed(Subject.Kind.MEMBER, around.replaceFirst("/~0$", ""), what, null)
                        .designator()
                + (number > 1 ? "[" + number + "]" : "");
    }

    private static boolean repeats(Element group) {
        String most = group.attribute("maxOccurs");
        return most != null && !most.strip().equals("1") && !most.strip().equals("0");
    }

    private static void collect(Element around, String name, boolean group, List<Element> to) {
        for (Element child : around.children()) {
            if (child.is(Xml.XSD, name) && (!group || repeats(child))) {
                to.add(child);
            }
            if (!child.is(Xml.XSD, "element")) {
                collect(child, name, group, to);
            }
        }
    }

    /** Whether a global element has a type of its own, so that there is a class for it. */
    boolean hasOwnType(Element element) {
        return element.children().stream().anyMatch(child -> child.is(Xml.XSD, "complexType"));
    }

    private QName name(Element element) {
        if (element.attribute("ref") != null) {
            return element.resolve(element.attribute("ref"));
        }
        Element schema = schema(element);
        String standard = schema == null ? null : schema.attribute(element.name() + "FormDefault");
        String form = element.attribute("form") != null ? element.attribute("form") : standard;
        return element.attribute("name") == null
                ? null
                : new QName("qualified".equals(form) ? namespace(element) : "", element.attribute("name"));
    }

    private String wsdl(Element element) {
        Element parent = nodes.parent(element);
        String name = element.attribute("name");
        return switch (element.name()) {
            case "portType", "service" -> element.name() + " " + new QName(namespace(element), name);
            case "operation", "port" -> {
                String around = parent == null ? null : designator(parent);
                yield around == null ? null : around + "/" + name;
            }
            case "fault" -> {
                QName message =
                        element.attribute("message") == null ? null : element.resolve(element.attribute("message"));
                yield message == null ? null : "message " + message;
            }
            case "message" -> "message " + new QName(namespace(element), name);
            default -> null;
        };
    }
}
