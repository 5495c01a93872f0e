package org.protypos.plan;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.wsdl.Protocol;

/** A service: a class of constants, one for each port. */
public record ApiService(String packageName, String name, QName xmlName, List<Port> ports, String documentation) {
    /**
     * A port.
     *
     * @param constant the name of its constant
     * @param actions the SOAP actions that differ from those of the default port, by operation
     * @param isDefault whether a client connects to it when none is named
     */
    public record Port(
            String constant,
            String xmlName,
            String address,
            Protocol protocol,
            ApiInterface type,
            Map<String, String> actions,
            boolean isDefault,
            String documentation) {}
}
