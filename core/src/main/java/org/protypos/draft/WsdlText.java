package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.Markup;
import org.protypos.draft.Sketch.SketchPort;
import org.protypos.draft.Sketch.SketchProtocol;
import org.protypos.draft.Sketch.Style;
import org.protypos.draft.WsdlParts.DraftMessage;
import org.protypos.draft.WsdlParts.DraftOperation;
import org.protypos.source.Xml;

/** Writes the WSDL of a contract (WSDL 1.1), which imports its schemas. */
final class WsdlText {
    /** The prefixes that it has for itself. */
    static final Set<String> PREFIXES = Set.of("wsdl", "soap", "soap12", "http", "mime", "xs", "tns");

    private final DraftContract contract;
    private final Set<SketchProtocol> protocols = new LinkedHashSet<>();
    private final Markup out = Markup.document();

    /**
     * A contract that is to be written.
     *
     * @param prefixes prefixes by namespaces, {@code tns} for that of the contract
     * @param overHttp the operations as plain HTTP ports have them
     * @param ports none for a contract without bindings
     */
    record DraftContract(
            String name,
            String portType,
            String service,
            String documentation,
            Style style,
            String namespace,
            Map<String, String> prefixes,
            List<DraftSchema> schemas,
            List<DraftMessage> messages,
            List<DraftOperation> operations,
            List<DraftOperation> overHttp,
            List<SketchPort> ports) {}

    private WsdlText(DraftContract contract) {
        this.contract = contract;
        contract.ports().forEach(port -> protocols.add(port.protocol()));
    }

    static String of(DraftContract contract) {
        return new WsdlText(contract).text();
    }

    private String text() {
        Map<String, String> others = new LinkedHashMap<>();
        others.put(Xml.XSD, "xs");
        others.putAll(contract.prefixes());
        WsdlParts parts = new WsdlParts(contract.style(), contract.namespace(), new WsdlParts.Prefixes("wsdl", others));
        out.open("wsdl:definitions", root(others).toArray(String[]::new));
        if (contract.documentation() != null) {
            out.text("wsdl:documentation", contract.documentation());
        }
        types();
        out.gap();
        contract.messages().forEach(message -> parts.message(out, message));
        if (!contract.operations().isEmpty()) {
            portType(contract.portType(), contract.operations(), parts, true);
        }
        if (!contract.overHttp().isEmpty()) {
            portType(contract.portType() + "Http", contract.overHttp(), parts, false);
        }
        for (SketchProtocol protocol : protocols) {
            binding(protocol, protocol.isSoap() ? contract.operations() : contract.overHttp(), parts);
        }
        if (!contract.ports().isEmpty()) {
            service();
        }
        return out.close("wsdl:definitions").toString();
    }

    private List<String> root(Map<String, String> others) {
        List<String> root = new ArrayList<>(List.of("xmlns:wsdl", Xml.WSDL));
        for (SketchProtocol soap : List.of(SketchProtocol.SOAP11, SketchProtocol.SOAP12)) {
            if (protocols.contains(soap)) {
                root.addAll(List.of("xmlns:" + soap.prefix(), soap.namespace()));
            }
        }
        if (protocols.contains(SketchProtocol.GET) || protocols.contains(SketchProtocol.POST)) {
            root.addAll(List.of("xmlns:http", Xml.WSDL_HTTP, "xmlns:mime", Xml.WSDL_MIME));
        }
        others.forEach((namespace, prefix) -> {
            if (!namespace.isEmpty()) {
                root.addAll(List.of("xmlns:" + prefix, namespace));
            }
        });
        root.addAll(List.of("name", contract.name(), "targetNamespace", contract.namespace()));
        return root;
    }

    private void types() {
        if (contract.schemas().isEmpty()) {
            return;
        }
        out.gap().open("wsdl:types").open("xs:schema");
        for (DraftSchema schema : contract.schemas()) {
            // Around it is no namespace either: such a schema is included.
            boolean none = schema.namespace().isEmpty();
            out.empty(
                    none ? "xs:include" : "xs:import",
                    "namespace",
                    none ? null : schema.namespace(),
                    "schemaLocation",
                    schema.file());
        }
        out.close("xs:schema").close("wsdl:types");
    }

    private void portType(String name, List<DraftOperation> operations, WsdlParts parts, boolean withFaults) {
        out.gap().open("wsdl:portType", "name", name);
        operations.forEach(operation -> parts.operation(out, operation, withFaults));
        out.close("wsdl:portType");
    }

    private String binding(SketchProtocol protocol) {
        return contract.portType() + protocol.suffix();
    }

    private void binding(SketchProtocol protocol, List<DraftOperation> operations, WsdlParts parts) {
        out.gap();
        parts.binding(
                out,
                binding(protocol),
                new QName(contract.namespace(), contract.portType() + (protocol.isSoap() ? "" : "Http")),
                protocol.prefix(),
                operations,
                protocol);
    }

    private void service() {
        out.gap().open("wsdl:service", "name", contract.service());
        for (SketchPort port : contract.ports()) {
            out.open("wsdl:port", "name", port.name(), "binding", "tns:" + binding(port.protocol()));
            out.empty(port.protocol().prefix() + ":address", "location", port.address());
            out.close("wsdl:port");
        }
        out.close("wsdl:service");
    }
}
