package org.protypos.wsdl;

import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * How one operation travels (WSDL 1.1, sections 2.5 and 3).
 *
 * @param rpc whether the style is {@code rpc} rather than {@code document}
 * @param soapAction the SOAP action, empty when none is given
 * @param input how the input travels, or null
 * @param output how the output travels, or null
 * @param faults how the faults travel
 */
public record BoundOperation(
        String name,
        boolean rpc,
        String soapAction,
        Carrier input,
        Carrier output,
        List<BoundFault> faults,
        Place place) {
    /**
     * How a message travels.
     *
     * @param name the name of the input or output, or null
     * @param encoded whether the body's use is {@code encoded} rather than {@code literal}
     * @param parts the parts in the body, or null for all that are not elsewhere
     * @param namespace the namespace of an RPC wrapper, empty for none
     * @param headers the parts that travel as header blocks
     * @param attachments whether the message is bound to MIME parts
     */
    public record Carrier(
            String name,
            boolean encoded,
            List<String> parts,
            String namespace,
            List<Header> headers,
            boolean attachments,
            Place place) {}

    /**
     * The parts of a message in the body: those listed, or all that are not headers (WSDL 1.1, section 3.5).
     *
     * @param carrier how the message travels, or null when no binding says
     */
    public static List<Message.Part> bodyParts(Message message, Carrier carrier) {
        Set<String> elsewhere = new HashSet<>();
        if (carrier != null) {
            for (Header header : carrier.headers()) {
                if (header.message().equals(message.name())) {
                    elsewhere.add(header.part());
                }
            }
        }
        return message.parts().stream()
                .filter(part -> carrier == null || carrier.parts() == null
                        ? !elsewhere.contains(part.name())
                        : carrier.parts().contains(part.name()))
                .toList();
    }

    /**
     * A part that travels as a header block.
     *
     * @param namespace the namespace of the block when the part is of a type, empty for none
     */
    public record Header(QName message, String part, boolean encoded, String namespace, Place place) {}

    /**
     * How a fault travels.
     *
     * @param namespace the namespace of the element in the detail when the part is of a type, empty for none
     */
    public record BoundFault(String name, boolean encoded, String namespace, Place place) {}

    /** How a fault of the operation travels, or null when the binding does not say. */
    public BoundFault fault(Operation.Use wanted) {
        for (BoundFault fault : faults) {
            if (Objects.equals(fault.name(), wanted.name())) {
                return fault;
            }
        }
        return null;
    }

    boolean fits(Operation operation) {
        return fits(input, operation.input()) && fits(output, operation.output());
    }

    private static boolean fits(Carrier carrier, Operation.Use use) {
        return carrier == null || carrier.name() == null || use == null || Objects.equals(carrier.name(), use.name());
    }
}
