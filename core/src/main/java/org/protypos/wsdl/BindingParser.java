package org.protypos.wsdl;

import java.util.ArrayList;
import java.util.List;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Reads how the operations of a binding travel (WSDL 1.1, sections 3 to 5). */
final class BindingParser {
    private final WsdlReader reader;
    private final Findings findings;

    BindingParser(WsdlReader reader, Findings findings) {
        this.reader = reader;
        this.findings = findings;
    }

    BoundOperation operation(Element element, boolean rpcByDefault) {
        boolean rpc = rpcByDefault;
        String action = "";
        BoundOperation.Carrier input = null;
        BoundOperation.Carrier output = null;
        List<BoundOperation.BoundFault> faults = new ArrayList<>();
        for (Element child : element.children()) {
            if (child.name().equals("operation")
                    && WsdlReader.protocol(child.namespace()).isSoap()) {
                rpc = child.attribute("style") == null ? rpc : "rpc".equals(child.attribute("style"));
                action = child.attribute("soapAction") == null
                        ? ""
                        : child.attribute("soapAction").strip();
            } else if (child.is(Xml.WSDL, "input")) {
                input = carrier(child);
            } else if (child.is(Xml.WSDL, "output")) {
                output = carrier(child);
            } else if (child.is(Xml.WSDL, "fault")) {
                faults.add(fault(child));
            }
        }
        return new BoundOperation(
                reader.requiredName(element), rpc, action, input, output, List.copyOf(faults), element.place());
    }

    private BoundOperation.Carrier carrier(Element element) {
        Element body = null;
        boolean attachments = false;
        List<BoundOperation.Header> headers = new ArrayList<>();
        List<Element> extensions = new ArrayList<>(element.children());
        for (int i = 0; i < extensions.size(); i++) {
            Element child = extensions.get(i);
            if (child.is(Xml.WSDL_MIME, "multipartRelated")) {
                attachments = true;
                child.children(Xml.WSDL_MIME, "part").forEach(part -> extensions.addAll(part.children()));
            } else if (WsdlReader.protocol(child.namespace()).isSoap()) {
                if (child.name().equals("body")) {
                    body = child;
                } else if (child.name().equals("header")) {
                    headers.add(header(child));
                }
            }
        }
        String parts = body == null ? null : body.attribute("parts");
        String namespace = body == null ? null : body.attribute("namespace");
        return new BoundOperation.Carrier(
                element.attribute("name"),
                body != null && "encoded".equals(body.attribute("use")),
                parts == null
                        ? null
                        : parts.isBlank() ? List.of() : List.of(parts.strip().split("\\s+")),
                namespace == null ? "" : namespace.strip(),
                List.copyOf(headers),
                attachments,
                body == null ? element.place() : body.place());
    }

    private BoundOperation.Header header(Element element) {
        if (element.attribute("part") == null) {
            findings.error(
                    "attribute-missing", element.place(), "<header> needs the attribute part", "name the message part");
        }
        return new BoundOperation.Header(
                reader.requiredReference(element, "message"),
                String.valueOf(element.attribute("part")).strip(),
                "encoded".equals(element.attribute("use")),
                namespace(element),
                element.place());
    }

    private static String namespace(Element element) {
        String namespace = element.attribute("namespace");
        return namespace == null ? "" : namespace.strip();
    }

    private BoundOperation.BoundFault fault(Element element) {
        boolean encoded = element.children().stream().anyMatch(child -> "encoded".equals(child.attribute("use")));
        String namespace = element.children().stream()
                .filter(child -> child.name().equals("fault"))
                .map(BindingParser::namespace)
                .findFirst()
                .orElse("");
        return new BoundOperation.BoundFault(element.attribute("name"), encoded, namespace, element.place());
    }
}
