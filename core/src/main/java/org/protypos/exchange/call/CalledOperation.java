package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.wire.Recognition;
import org.protypos.wire.Wire;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;
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
     * The operation that a SOAP request is for, or null when it is for none.
     *
     * @param operations all operations of one port
     * @param known how each is known, in the same order
     * @param first what stands first in the body, an empty name for nothing
     * @param action the action of the request, empty when it has none
     * @param parts gives the local names of the elements in what stands first
     */
    public static CalledOperation meant(
            List<CalledOperation> operations,
            List<Recognition> known,
            QName first,
            String action,
            Supplier<List<String>> parts) {
        for (int i = 0; i < operations.size(); i++) {
            if (known.get(i).fits(first, action, parts)) {
                return operations.get(i);
            }
        }
        return null;
    }

    /**
     * All operations at all ports that can be called: those that speak SOAP over HTTP first, those that speak it over something else
     * last, each kind in the contract's order.
     *
     * @param contract a sound contract
     */
    public static List<CalledOperation> of(Contract contract) {
        return of(Wire.of(contract));
    }

    /** The same where the messages of the contract have been decided on. */
    public static List<CalledOperation> of(Wire wire) {
        List<CalledOperation> all = new ArrayList<>();
        List<CalledOperation> plain = new ArrayList<>();
        List<CalledOperation> elsewhere = new ArrayList<>();
        for (WirePort port : wire.ports()) {
            List<CalledOperation> kind =
                    !port.carried().isSoap() ? plain : port.carried().binding().isOverHttp() ? all : elsewhere;
            for (WireOperation operation : port.carried().operations()) {
                kind.add(new CalledOperation(port, operation));
            }
        }
        all.addAll(plain);
        all.addAll(elsewhere);
        return all;
    }
}
