package org.protypos.runtime.soap;

import java.util.Map;

/**
 * A port that is called by HTTP alone (WSDL 1.1, section 4).
 *
 * @param service the local name of the service
 * @param name the local name of the port
 * @param address the address in the contract
 * @param verb the HTTP method
 * @param locations the locations of its operations where they differ from those of the default port, by operation
 * @param <T> the interface that can be called there
 */
public record HttpPort<T>(String service, String name, String address, String verb, Map<String, String> locations) {
    public HttpPort {
        locations = Map.copyOf(locations);
    }

    String location(String operation, String standard) {
        return locations.getOrDefault(operation, standard);
    }
}
