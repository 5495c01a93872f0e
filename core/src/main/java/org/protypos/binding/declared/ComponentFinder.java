package org.protypos.binding.declared;

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
