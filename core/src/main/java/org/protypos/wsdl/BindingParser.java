package org.protypos.wsdl;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Reads how the operations of a binding travel (WSDL 1.1, sections 3 to 5). */
final class BindingParser {
    private final WsdlReader reader;
    private final Findings findings;
    private final PolicyParser policies;

    BindingParser(WsdlReader reader, PolicyParser policies, Findings findings) {
        this.reader = reader;
        this.policies = policies;
        this.findings = findings;
    }

    BoundOperation operation(Element element, Protocol protocol, boolean rpcByDefault) {
        boolean rpc = rpcByDefault;
        String action = "";
        String location = protocol == Protocol.HTTP ? "" : null;
        BoundOperation.Carrier input = null;
        BoundOperation.Carrier output = null;
        List<BoundOperation.BoundFault> faults = new ArrayList<>();
        for (Element child : element.children()) {
            if (child.is(Xml.WSDL_HTTP, "operation")) {
                String beneath = child.attribute("location");
                location = location == null || beneath == null ? location : beneath.strip();
            } else if (child.name().equals("operation")
                    && WsdlReader.protocol(child.namespace()).isSoap()) {
                rpc = child.attribute("style") == null ? rpc : "rpc".equals(child.attribute("style"));
                action = child.attribute("soapAction") == null
                        ? ""
                        : child.attribute("soapAction").strip();
            } else if (child.is(Xml.WSDL, "input")) {
                input = carrier(child, protocol);
            } else if (child.is(Xml.WSDL, "output")) {
                output = carrier(child, protocol);
            } else if (child.is(Xml.WSDL, "fault")) {
                faults.add(fault(child));
            }
        }
        return new BoundOperation(
                reader.requiredName(element),
                rpc,
                action,
                location,
                input,
                output,
                List.copyOf(faults),
                policies.of(element),
                element.place());
    }

    private BoundOperation.Carrier carrier(Element element, Protocol protocol) {
        Element body = null;
        Map<String, BoundOperation.Attached> attachments = new LinkedHashMap<>();
        String mediaType = "";
        BoundOperation.Form form = BoundOperation.Form.ENVELOPE;
        List<String> parts = null;
        List<BoundOperation.Header> headers = new ArrayList<>();
        List<Element> extensions = new ArrayList<>(element.children());
        boolean packaged = false;
        for (int i = 0; i < extensions.size(); i++) {
            Element child = extensions.get(i);
            if (child.is(Xml.WSDL_MIME, "multipartRelated")) {
                packaged = true;
                child.children(Xml.WSDL_MIME, "part").forEach(part -> extensions.addAll(part.children()));
            } else if (child.namespace().equals(Xml.WSDL_MIME) && packaged) {
                if (child.attribute("part") != null) {
                    // Several for one part are alternatives (WSDL 1.1, section 5.3): the first is as good as any.
                    attachments.putIfAbsent(
                            child.attribute("part").strip(),
                            new BoundOperation.Attached(mediaType(child), child.place("part")));
                }
            } else if (child.namespace().equals(Xml.WSDL_HTTP)
                    || child.namespace().equals(Xml.WSDL_MIME)) {
                form = protocol == Protocol.HTTP ? form(child) : form;
                mediaType = mediaType(child);
                parts = child.attribute("part") == null
                        ? parts
                        : List.of(child.attribute("part").strip());
            } else if (WsdlReader.protocol(child.namespace()).isSoap()) {
                if (child.name().equals("body")) {
                    body = child;
                } else if (child.name().equals("header")) {
                    headers.add(header(child));
                }
            }
        }
        String listed = body == null ? null : body.attribute("parts");
        if (listed != null) {
            parts = listed.isBlank() ? List.of() : List.of(listed.strip().split("\\s+"));
        }
        return new BoundOperation.Carrier(
                element.attribute("name"),
                form,
                body != null && "encoded".equals(body.attribute("use")),
                parts,
                body == null ? "" : namespace(body),
                List.copyOf(headers),
                Collections.unmodifiableMap(attachments),
                mediaType,
                body == null ? element.place() : body.place());
    }

    /** The media type of a part, empty for one that is left open (WSDL 1.1, section 5.2). */
    private static String mediaType(Element content) {
        String type = content.attribute("type");
        return type == null || type.contains("*") ? "" : type.strip();
    }

    /** What a message of an HTTP binding is put into (WSDL 1.1, sections 4 and 5). */
    private static BoundOperation.Form form(Element extension) {
        if (extension.namespace().equals(Xml.WSDL_HTTP)) {
            return extension.name().equals("urlReplacement")
                    ? BoundOperation.Form.URL_REPLACEMENT
                    : BoundOperation.Form.URL_ENCODED;
        }
        String type = extension.attribute("type") == null
                ? ""
                : extension.attribute("type").strip().toLowerCase(Locale.ROOT);
        if (type.equals("application/x-www-form-urlencoded")) {
            return BoundOperation.Form.URL_ENCODED;
        }
        return extension.name().equals("mimeXml") || type.endsWith("/xml") || type.endsWith("+xml")
                ? BoundOperation.Form.XML
                : BoundOperation.Form.CONTENT;
    }

    private BoundOperation.Header header(Element element) {
        String part = element.attribute("part") == null
                ? ""
                : element.attribute("part").strip();
        if (part.isEmpty()) {
            findings.error(
                    "attribute-missing", element.place(), "<header> needs the attribute part", "name the message part");
        }
        return new BoundOperation.Header(
                reader.requiredReference(element, "message"),
                part,
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
