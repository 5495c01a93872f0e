package org.protypos.wsdl;

import java.util.List;
import java.util.Locale;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * An operation (WSDL 1.1, section 2.4).
 *
 * @param input what goes in, or null
 * @param output what comes out, or null
 * @param faults what may come instead
 * @param parameterOrder the order of the parts, empty when the contract does not say
 */
public record Operation(
        String name,
        Pattern pattern,
        Use input,
        Use output,
        List<Use> faults,
        List<String> parameterOrder,
        String documentation,
        Place place) {
    /** Whether it begins with a message that comes in: others no binding carries. */
    public boolean isIncoming() {
        return pattern == Pattern.ONE_WAY || pattern == Pattern.REQUEST_RESPONSE;
    }

    /** What the input is called that has no name of its own (WSDL 1.1, section 2.4.5). */
    String inputName() {
        return pattern == Pattern.REQUEST_RESPONSE
                ? name + "Request"
                : pattern == Pattern.SOLICIT_RESPONSE ? name + "Response" : name;
    }

    /** What the output is called that has no name of its own (WSDL 1.1, section 2.4.5). */
    String outputName() {
        return pattern == Pattern.REQUEST_RESPONSE
                ? name + "Response"
                : pattern == Pattern.SOLICIT_RESPONSE ? name + "Solicit" : name;
    }

    /** The four transmission primitives (WSDL 1.1, section 2.4). */
    public enum Pattern {
        /** A message comes in, none goes out. */
        ONE_WAY,
        /** A message comes in and one goes out. */
        REQUEST_RESPONSE,
        /** A message goes out and one comes in. */
        SOLICIT_RESPONSE,
        /** A message goes out, none comes in. */
        NOTIFICATION;

        /** What the standard calls it. */
        public String inWords() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * The use of a message in an operation.
     *
     * @param name the name of the input, output or fault, or null
     * @param message the message
     * @param action the action that addresses it, or null (WS-Addressing 1.0 Metadata, section 4.4.1)
     */
    public record Use(String name, QName message, String action, String documentation, Place place) {}
}
