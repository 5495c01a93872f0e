package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.wire.Wire;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/**
 * An operation at a port.
 *
 * @param at the port
 * @param carried how its binding carries the operation
 */
public record CalledOperation(WirePort at, WireOperation carried) {
    /** The service that the port is of. */
    public Service service() {
        return at.service();
    }

    /** The port as the contract has it. */
    public Service.Port port() {
        return at.port();
    }

    /** The binding of the port. */
    public Binding binding() {
        return at.carried().binding();
    }

    /** The port type that the operation is of. */
    public PortType portType() {
        return at.carried().portType();
    }

    /** The operation as the contract has it. */
    public Operation operation() {
        return carried.operation();
    }

    /** What tells it from all others at its port: its name, or that of its input where operations share one (WSDL 1.1, section 2.4.5). */
    public String key() {
        boolean shared = at.carried().operations().stream()
                .anyMatch(other -> other != carried && other.name().equals(carried.name()));
        return shared && operation().input().name() != null
                ? operation().input().name()
                : carried.name();
    }

    /** Whether messages travel in envelopes. */
    public boolean isSoap() {
        return at.carried().isSoap();
    }

    /** What goes in. */
    public WireMessage request() {
        return carried.request();
    }

    /** What comes out, or null when nothing does. */
    public WireMessage answer() {
        return carried.answer();
    }

    /**
     * All operations at all ports that can be called: those that speak SOAP first, each kind in the contract's order.
     *
     * @param contract a sound contract
     */
    public static List<CalledOperation> of(Contract contract) {
        List<CalledOperation> all = new ArrayList<>();
        List<CalledOperation> plain = new ArrayList<>();
        for (WirePort port : Wire.of(contract).ports()) {
            for (WireOperation operation : port.carried().operations()) {
                (port.carried().isSoap() ? all : plain).add(new CalledOperation(port, operation));
            }
        }
        all.addAll(plain);
        return all;
    }
}
