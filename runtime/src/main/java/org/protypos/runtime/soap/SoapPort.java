package org.protypos.runtime.soap;

import java.util.Map;

/**
 * A port of a service (WSDL 1.1, section 2.6): where and how an interface can be called.
 *
 * @param service the local name of the service
 * @param name the local name of the port
 * @param address the address in the contract
 * @param version the protocol version of its binding
 * @param <T> the interface that can be called there
 * @param actions the SOAP actions of its operations where they differ from those of the default port, by operation
 */
public record SoapPort<T>(
        String service, String name, String address, SoapVersion version, Map<String, String> actions) {
    public SoapPort {
        actions = Map.copyOf(actions);
    }

    /** A port with the same actions as the default port. */
    public static <T> SoapPort<T> of(String service, String name, String address, SoapVersion version) {
        return new SoapPort<>(service, name, address, version, Map.of());
    }

    String action(String operation, String standard) {
        return actions.getOrDefault(operation, standard);
    }
}
