package org.protypos.runtime.soap;

import java.util.Map;
import java.util.Set;

/**
 * A port of a service (WSDL 1.1, section 2.6): where and how an interface can be called.
 *
 * @param service the local name of the service
 * @param name the local name of the port
 * @param address the address in the contract
 * @param version the protocol version of its binding
 * @param <T> the interface that can be called there
 * @param actions the SOAP actions of its operations where they differ from those of the default port, by operation
 * @param features what its policies ask for
 */
public record SoapPort<T>(
        String service,
        String name,
        String address,
        SoapVersion version,
        Map<String, String> actions,
        Set<SoapFeature> features) {
    public SoapPort {
        actions = Map.copyOf(actions);
        features = Set.copyOf(features);
    }

    /** A port of which no policy asks for anything. */
    public SoapPort(String service, String name, String address, SoapVersion version, Map<String, String> actions) {
        this(service, name, address, version, actions, Set.of());
    }

    /** A port with the same actions as the default port. */
    public static <T> SoapPort<T> of(String service, String name, String address, SoapVersion version) {
        return new SoapPort<>(service, name, address, version, Map.of());
    }

    String action(String operation, String standard) {
        return actions.getOrDefault(operation, standard);
    }
}
