package org.protypos.message.check;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/**
 * Knows the elements that no schema declares: those that wrap remote procedure calls and their answers (SOAP 1.1, section
 * 7.1), and parts of a type that travel in a header or in the detail of a fault.
 */
public final class CallWrappers {
    private final Vocabulary vocabulary;
    private final Map<QName, Map<String, TypeModel>> parts = new HashMap<>();
    private final Map<QName, TypeModel> outside = new HashMap<>();

    /** Takes the operations of a sound contract. */
    public CallWrappers(Definitions wsdl, Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
        for (Binding binding : wsdl.bindings().values()) {
            PortType portType = wsdl.portTypes().get(binding.portType());
            for (Operation operation : portType == null ? List.<Operation>of() : portType.operations()) {
                BoundOperation bound = binding.operation(operation);
                if (bound == null) {
                    continue;
                }
                headers(wsdl, bound.input());
                headers(wsdl, bound.output());
                faults(wsdl, operation, bound);
                if (bound.rpc()) {
                    add(wsdl, operation.input(), bound.input(), operation.name());
                    add(wsdl, operation.output(), bound.output(), operation.name() + "Response");
                }
            }
        }
    }

    private void headers(Definitions wsdl, BoundOperation.Carrier carrier) {
        if (carrier != null) {
            for (BoundOperation.Header header : carrier.headers()) {
                outside(wsdl.messages().get(header.message()).part(header.part()), header.namespace());
            }
        }
    }

    private void faults(Definitions wsdl, Operation operation, BoundOperation bound) {
        for (Operation.Use fault : operation.faults()) {
            BoundOperation.BoundFault carried = bound.fault(fault);
            if (carried != null) {
                wsdl.messages().get(fault.message()).parts().forEach(part -> outside(part, carried.namespace()));
            }
        }
    }

    private void outside(Message.Part part, String namespace) {
        if (part.type() != null) {
            outside.put(new QName(namespace, part.name()), vocabulary.type(part.type()));
        }
    }

    private void add(Definitions wsdl, Operation.Use use, BoundOperation.Carrier carrier, String name) {
        if (use == null || carrier == null || carrier.encoded()) {
            return;
        }
        Map<String, TypeModel> types = new LinkedHashMap<>();
        for (Message.Part part : BoundOperation.bodyParts(wsdl.messages().get(use.message()), carrier)) {
            types.put(
                    part.name(),
                    part.type() != null
                            ? vocabulary.type(part.type())
                            : vocabulary.typeOf(vocabulary.element(part.element())));
        }
        parts.put(new QName(carrier.namespace(), name), types);
    }

    /** The type of an element that is a part of a type, standing alone; null when the element is none. */
    public TypeModel alone(QName element) {
        return outside.get(element);
    }

    /** The types of the parts that a wrapper holds, by name; null when the element wraps no call. */
    public Map<String, TypeModel> parts(QName wrapper) {
        return parts.get(wrapper);
    }
}
