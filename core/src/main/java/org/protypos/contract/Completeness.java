package org.protypos.contract;

import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Document;
import org.protypos.source.Documents;
import org.protypos.source.Xml;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;
import org.protypos.wsdl.Service;

/** Checks whether the contract says enough to be called and served, and names what is missing. */
final class Completeness {
    private final Documents documents;
    private final SchemaComponents schema;
    private final Definitions wsdl;
    private final Findings findings;

    Completeness(Documents documents, SchemaComponents schema, Definitions wsdl, Findings findings) {
        this.documents = documents;
        this.schema = schema;
        this.wsdl = wsdl;
        this.findings = findings;
    }

    void check() {
        for (Document document : documents.entries()) {
            if (document.root() != null && document.root().is(Xml.WSDL, "definitions")) {
                wsdl(document.root().place());
                return;
            }
        }
        boolean nothing = schema.types().isEmpty()
                && schema.elements().isEmpty()
                && schema.groups().isEmpty()
                && schema.attributeGroups().isEmpty()
                && schema.attributes().values().stream().allMatch(attribute -> attribute.place() == null);
        for (Document document : documents.entries()) {
            if (nothing && document.root() != null && document.root().is(Xml.XSD, "schema")) {
                findings.warning(
                        "nothing-declared",
                        document.root().place(),
                        "the schema declares nothing",
                        "name the document that holds the declarations");
            }
        }
    }

    private void wsdl(Place root) {
        if (wsdl.portTypes().isEmpty()) {
            findings.warning(
                    "no-port-type",
                    root,
                    "the contract has no port type, so there is no operation to call: only types can be generated",
                    "name the document that holds the port type, or import it");
            return;
        }
        Set<QName> bound =
                wsdl.bindings().values().stream().map(Binding::portType).collect(Collectors.toSet());
        Set<QName> offered = wsdl.services().values().stream()
                .flatMap(service -> service.ports().stream())
                .map(port -> wsdl.bindings().get(port.binding()))
                .filter(Objects::nonNull)
                .map(Binding::portType)
                .collect(Collectors.toSet());
        for (PortType portType : wsdl.portTypes().values()) {
            bound(portType, bound, offered);
        }
        for (Service service : wsdl.services().values()) {
            if (service.ports().isEmpty()) {
                findings.warning(
                        "no-port",
                        service.place(),
                        "the service " + service.name().getLocalPart() + " has no port",
                        "add a wsdl:port with a binding and an address");
            }
            service.ports().forEach(this::port);
        }
        for (Binding binding : wsdl.bindings().values()) {
            binding(binding);
        }
    }

    private void bound(PortType portType, Set<QName> bound, Set<QName> offered) {
        if (!bound.contains(portType.name())) {
            findings.warning(
                    "no-binding",
                    portType.place().towards("name"),
                    "no binding says how the operations of the port type "
                            + portType.name().getLocalPart()
                            + " travel: it can be neither called nor served",
                    "add a wsdl:binding for it, or import the document that has one");
        } else if (!offered.contains(portType.name())) {
            findings.warning(
                    "no-port",
                    portType.place().towards("name"),
                    "no port gives an address for the port type "
                            + portType.name().getLocalPart(),
                    "add a wsdl:service with a wsdl:port, or set the address when you connect");
        }
        for (Operation operation : portType.operations()) {
            if (!operation.isIncoming()) {
                findings.warning(
                        "outgoing-operation",
                        operation.place().towards("name"),
                        "the operation " + operation.name()
                                + " starts with an output: no SOAP binding carries such an operation, so it is left out",
                        "write the input first if a request and its response are meant");
            }
        }
    }

    private void port(Service.Port port) {
        if (port.address().isEmpty()) {
            findings.warning(
                    "no-address",
                    port.place().towards("name"),
                    "the port " + port.name() + " has no address",
                    "add an address, or set one when you connect");
        }
        Binding binding = wsdl.bindings().get(port.binding());
        if (binding != null && port.protocol() != Protocol.OTHER && port.protocol() != binding.protocol()) {
            findings.warning(
                    "address-protocol",
                    port.place().towards("name"),
                    "the address of the port " + port.name() + " is one of "
                            + port.protocol().title() + ", its binding speaks "
                            + binding.protocol().title(),
                    "use the address element of the binding's protocol");
        }
    }

    private void binding(Binding binding) {
        if (binding.protocol() == Protocol.OTHER) {
            findings.warning(
                    "binding-protocol",
                    binding.place().towards("name"),
                    "the binding " + binding.name().getLocalPart() + " names no protocol that is known",
                    "add a soap:binding element");
        } else if (binding.protocol().isSoap() && !binding.isOverHttp()) {
            findings.warning(
                    "binding-transport",
                    binding.place().towards("name"),
                    "the binding " + binding.name().getLocalPart() + " travels over " + binding.transport()
                            + ", not over HTTP",
                    "use a binding over HTTP");
        }
    }
}
