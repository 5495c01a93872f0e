package org.protypos.target.classes;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.ApiService;
import org.protypos.wire.WireInterface;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Protocol;

/**
 * A service: a class of constants, one for each port.
 *
 * @param api what it is in the API
 */
public record PlannedService(String packageName, String name, List<Port> ports, ApiService api) {
    /** The name of the service. */
    public QName xmlName() {
        return api.name();
    }

    /** What is said about it. */
    public String documentation() {
        return api.documentation();
    }

    /**
     * A port.
     *
     * @param constant the name of its constant
     * @param actions the SOAP actions or locations that differ from those of the default port, by method
     * @param api what it is in the API
     */
    public record Port(String constant, PlannedInterface type, Map<String, String> actions, ApiService.Port api) {
        /** Its constant as comparisons know it: with the interface, where that is not the one that the port type is known by. */
        public String surface() {
            return api.type().standing() == WireInterface.Standing.FIRST ? constant : constant + " of " + type.name();
        }

        /** The name of the port. */
        public String xmlName() {
            return api.name();
        }

        /** Where it is. */
        public String address() {
            return api.address();
        }

        /** What it speaks. */
        public Protocol protocol() {
            return api.protocol();
        }

        /** The HTTP method of a port that speaks HTTP alone, otherwise null. */
        public String verb() {
            return api.verb();
        }

        /** What its policies ask for. */
        public List<PolicyAssertion> policy() {
            return api.policy();
        }

        /** Whether they ask for binary content beside the message, and nothing goes without. */
        public boolean isOptimized() {
            return api.isOptimized();
        }

        /** Whether requests have addressing header blocks. */
        public boolean isAddressed() {
            return api.isAddressed();
        }

        /** Whether its policies ask for them, and nothing goes without. */
        public boolean isAddressNeeded() {
            return api.isAddressNeeded();
        }

        /** Whether a client connects to it when none is named. */
        public boolean isDefault() {
            return api.isDefault();
        }

        /** What is said about it. */
        public String documentation() {
            return api.documentation();
        }

        /** What it speaks, for a person. */
        public String speaks() {
            return api.speaks();
        }
    }
}
