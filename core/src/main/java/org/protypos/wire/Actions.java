package org.protypos.wire;

import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/**
 * The actions that address the messages of an operation: those that the contract names, or else made of its names
 * (WS-Addressing 1.0 Metadata, section 4.4). There are none when nothing in the contract asks for addressing.
 */
final class Actions {
    private final String prefix;
    private final String delimiter;
    private final Operation operation;
    private final BoundOperation bound;
    private final boolean wanted;

    /**
     * Takes an operation.
     *
     * @param addressed whether a policy asks for addressing
     */
    Actions(PortType portType, Operation operation, BoundOperation bound, boolean addressed) {
        String namespace = portType.name().getNamespaceURI();
        this.delimiter = namespace.startsWith("urn:") ? ":" : "/";
        this.prefix = (namespace.endsWith(delimiter) ? namespace : namespace + delimiter)
                + portType.name().getLocalPart()
                + delimiter;
        this.operation = operation;
        this.bound = bound;
        this.wanted = addressed || named(operation.input()) || named(operation.output());
    }

    private static boolean named(Operation.Use use) {
        return use != null && use.action() != null;
    }

    /** The action of the input, or null. */
    String input() {
        boolean bySoapAction =
                operation.input().action() == null && !bound.soapAction().isEmpty();
        return bySoapAction && wanted ? bound.soapAction() : of(operation.input(), "");
    }

    /** The action of the output, or null. */
    String output() {
        return of(operation.output(), "");
    }

    String fault(Operation.Use use) {
        return of(use, operation.name() + delimiter + "Fault" + delimiter);
    }

    private String of(Operation.Use use, String within) {
        if (!wanted || use == null) {
            return null;
        }
        return use.action() != null ? use.action() : prefix + within + use.name();
    }
}
