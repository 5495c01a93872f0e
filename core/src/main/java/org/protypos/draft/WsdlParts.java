package org.protypos.draft;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.authoring.Markup;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchProtocol;
import org.protypos.draft.Sketch.Style;
import org.protypos.wsdl.Binding;

/** Writes what WSDL says of one operation (WSDL 1.1, sections 2.3 to 2.5 and 3): its messages, its port type's part, its binding's. */
final class WsdlParts {
    private final Style style;
    private final String namespace;
    private final Prefixes prefixes;

    /** How a document speaks of things: the prefixes that it has declared. */
    record Prefixes(String wsdl, Map<String, String> others) {
        /** A tag of WSDL. */
        String of(String tag) {
            return wsdl.isEmpty() ? tag : wsdl + ":" + tag;
        }

        /** A name as it stands in an attribute. */
        String of(QName name) {
            String prefix = others.get(name.getNamespaceURI());
            return prefix == null || prefix.isEmpty() ? name.getLocalPart() : prefix + ":" + name.getLocalPart();
        }
    }

    /**
     * A part of a message.
     *
     * @param element the element that it is, or null
     * @param type the type that it is of, or null
     */
    record Part(String name, QName element, QName type) {}

    /** A message of an operation. */
    record DraftMessage(String name, List<Part> parts) {}

    /**
     * An operation with its messages.
     *
     * @param input the message that goes in
     * @param output the message that comes out, or null
     * @param faults the messages of faults by the names of the faults
     * @param headers messages of one part each, for requests
     * @param answerHeaders likewise for answers
     */
    record DraftOperation(
            SketchOperation said,
            DraftMessage input,
            DraftMessage output,
            Map<String, DraftMessage> faults,
            List<DraftMessage> headers,
            List<DraftMessage> answerHeaders) {}

    WsdlParts(Style style, String namespace, Prefixes prefixes) {
        this.style = style;
        this.namespace = namespace;
        this.prefixes = prefixes;
    }

    private QName own(String local) {
        return new QName(namespace, local);
    }

    void message(Markup out, DraftMessage message) {
        String tag = prefixes.of("message");
        if (message.parts().isEmpty()) {
            out.empty(tag, "name", message.name());
            return;
        }
        out.open(tag, "name", message.name());
        for (Part part : message.parts()) {
            out.empty(
                    prefixes.of("part"),
                    "name",
                    part.name(),
                    "element",
                    part.element() == null ? null : prefixes.of(part.element()),
                    "type",
                    part.type() == null ? null : prefixes.of(part.type()));
        }
        out.close(tag);
    }

    /** The operation in its port type. */
    void operation(Markup out, DraftOperation operation, boolean withFaults) {
        String tag = prefixes.of("operation");
        out.open(tag, "name", operation.said().name());
        if (operation.said().documentation() != null) {
            out.text(prefixes.of("documentation"), operation.said().documentation());
        }
        out.empty(
                prefixes.of("input"),
                "message",
                prefixes.of(own(operation.input().name())));
        if (operation.output() != null) {
            out.empty(
                    prefixes.of("output"),
                    "message",
                    prefixes.of(own(operation.output().name())));
        }
        if (withFaults) {
            operation
                    .faults()
                    .forEach((name, message) ->
                            out.empty(prefixes.of("fault"), "name", name, "message", prefixes.of(own(message.name()))));
        }
        out.close(tag);
    }

    /**
     * The operation in a binding.
     *
     * @param extension the prefix of the binding's own elements
     */
    void bound(Markup out, DraftOperation operation, SketchProtocol protocol, String extension) {
        String tag = prefixes.of("operation");
        out.open(tag, "name", operation.said().name());
        if (protocol.isSoap()) {
            soap(out, operation, extension);
        } else {
            http(out, operation, protocol, extension);
        }
        out.close(tag);
    }

    /**
     * A binding.
     *
     * @param extension the prefix of the binding's own elements
     */
    void binding(
            Markup out,
            String name,
            QName portType,
            String extension,
            List<DraftOperation> operations,
            SketchProtocol protocol) {
        String tag = prefixes.of("binding");
        out.open(tag, "name", name, "type", prefixes.of(portType));
        if (protocol.isSoap()) {
            out.empty(
                    extension + ":binding",
                    "style",
                    style == Style.RPC ? "rpc" : "document",
                    "transport",
                    Binding.HTTP_TRANSPORT);
        } else {
            out.empty(extension + ":binding", "verb", protocol.name());
        }
        operations.forEach(operation -> bound(out, operation, protocol, extension));
        out.close(tag);
    }

    /** A service with one port. */
    void service(Markup out, String name, String port, QName binding, String extension, String address) {
        out.open(prefixes.of("service"), "name", name);
        out.open(prefixes.of("port"), "name", port, "binding", prefixes.of(binding));
        out.empty(extension + ":address", "location", address);
        out.close(prefixes.of("port")).close(prefixes.of("service"));
    }

    private void soap(Markup out, DraftOperation operation, String extension) {
        out.empty(extension + ":operation", "soapAction", action(operation.said()));
        message(out, "input", operation.headers(), extension);
        if (operation.output() != null) {
            message(out, "output", operation.answerHeaders(), extension);
        }
        operation.faults().keySet().forEach(name -> out.open(prefixes.of("fault"), "name", name)
                .empty(extension + ":fault", "name", name, "use", "literal")
                .close(prefixes.of("fault")));
    }

    private void message(Markup out, String tag, List<DraftMessage> headers, String extension) {
        out.open(prefixes.of(tag));
        out.empty(extension + ":body", "use", "literal", "namespace", style == Style.RPC ? namespace : null);
        for (DraftMessage header : headers) {
            out.empty(
                    extension + ":header",
                    "message",
                    prefixes.of(own(header.name())),
                    "part",
                    header.parts().get(0).name(),
                    "use",
                    "literal");
        }
        out.close(prefixes.of(tag));
    }

    private void http(Markup out, DraftOperation operation, SketchProtocol protocol, String extension) {
        out.empty(extension + ":operation", "location", "/" + operation.said().name());
        out.open(prefixes.of("input"));
        if (protocol == SketchProtocol.GET) {
            out.empty(extension + ":urlEncoded");
        } else {
            out.empty("mime:content", "type", "application/x-www-form-urlencoded");
        }
        out.close(prefixes.of("input"));
        if (operation.output() != null) {
            out.open(prefixes.of("output"));
            out.empty("mime:mimeXml", "part", operation.output().parts().get(0).name());
            out.close(prefixes.of("output"));
        }
    }

    /** The SOAP action: that of the sketch, or the namespace with the operation behind it. */
    String action(SketchOperation operation) {
        return operation.action() != null ? operation.action() : usualAction(namespace, operation.name());
    }

    static String usualAction(String namespace, String operation) {
        String between = namespace.matches(".*[/#:]") ? "" : namespace.startsWith("urn:") ? ":" : "/";
        return namespace + between + operation;
    }
}
