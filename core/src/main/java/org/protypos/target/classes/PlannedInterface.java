package org.protypos.target.classes;

import java.util.List;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.api.ApiInterface;

/**
 * A port type: an interface with its client and its endpoint.
 *
 * @param client the name of the client
 * @param endpoint the name of the endpoint
 * @param servlet the name of the adapter that serves the endpoint in a servlet container
 * @param messages the name of the class that holds the messages
 * @param api what it is in the API
 */
public record PlannedInterface(
        String packageName,
        String name,
        String client,
        String endpoint,
        String servlet,
        String messages,
        List<PlannedOperation> operations,
        ApiInterface api) {
    /** The name of the port type. */
    public QName xmlName() {
        return api.name();
    }

    /** Whether some binding carries it, so that it can be called and served. */
    public boolean binding() {
        return api.isBound();
    }

    /** Whether it is called by HTTP alone. */
    public boolean isHttp() {
        return api.isHttp();
    }

    /** The HTTP methods of its bindings when they speak HTTP alone, empty when they speak SOAP. */
    public List<String> verbs() {
        return api.verbs();
    }

    /**
     * A place where an operation is called by HTTP alone.
     *
     * @param location where it is, beneath the address of a port
     */
    public record Located(String location, PlannedOperation operation) {}

    /** Where its operations are called by HTTP alone: those of the default port first, in the order of the operations. */
    public List<Located> located() {
        Stream<Located> standard = operations.stream().map(one -> new Located(one.location(), one));
        Stream<Located> elsewhere = operations.stream()
                .flatMap(one -> one.api().locations().stream().skip(1).map(location -> new Located(location, one)));
        return Stream.concat(standard, elsewhere).toList();
    }

    /** What is said about it. */
    public String documentation() {
        return api.documentation();
    }
}
