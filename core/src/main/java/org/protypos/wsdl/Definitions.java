package org.protypos.wsdl;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;

/** All WSDL components of a contract by name, in the order of the documents (WSDL 1.1, section 2.1). */
public record Definitions(
        Map<QName, Message> messages,
        Map<QName, PortType> portTypes,
        Map<QName, Binding> bindings,
        Map<QName, Service> services,
        List<Finding> findings) {}
