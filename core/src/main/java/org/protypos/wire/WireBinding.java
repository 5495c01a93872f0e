package org.protypos.wire;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** A binding that is understood: of SOAP or of plain HTTP. */
public final class WireBinding {
    private final Binding binding;
    private final PortType portType;
    private final List<WireOperation> operations;
    private final Map<Operation, WireOperation> carried = new IdentityHashMap<>();

    WireBinding(Binding binding, PortType portType, List<WireOperation> operations) {
        this.binding = binding;
        this.portType = portType;
        this.operations = List.copyOf(operations);
        this.operations.forEach(one -> carried.putIfAbsent(one.operation(), one));
    }

    /** The binding as the contract has it. */
    public Binding binding() {
        return binding;
    }

    public PortType portType() {
        return portType;
    }

    /**
     * Those operations of the port type that begin with a request and that the binding carries, in the order of the port type.
     */
    public List<WireOperation> operations() {
        return operations;
    }

    /** How it carries an operation, or null when it does not. */
    public WireOperation operation(Operation wanted) {
        return carried.get(wanted);
    }

    /** Whether messages travel in envelopes. */
    public boolean isSoap() {
        return binding.protocol().isSoap();
    }
}
