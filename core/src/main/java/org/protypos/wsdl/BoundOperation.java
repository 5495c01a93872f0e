package org.protypos.wsdl;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * How one operation travels (WSDL 1.1, sections 2.5 and 3).
 *
 * @param rpc whether the style is {@code rpc} rather than {@code document}
 * @param soapAction the SOAP action, empty when none is given
 * @param location where an HTTP binding finds the operation, beneath the address of the port; null for other bindings
 * @param input how the input travels, or null
 * @param output how the output travels, or null
 * @param faults how the faults travel
 * @param policy what the policies of the operation and its messages ask for
 */
public record BoundOperation(
        String name,
        boolean rpc,
        String soapAction,
        String location,
        Carrier input,
        Carrier output,
        List<BoundFault> faults,
        List<PolicyAssertion> policy,
        Place place) {
    private static final Pattern PLACEHOLDER = Pattern.compile("\\(([^()/?&]+)\\)");

    /** What a message is put into. */
    public enum Form {
        /** A SOAP envelope, the root of a MIME package when parts are attached (WSDL 1.1, sections 3.5 and 5.3). */
        ENVELOPE,
        /** Names and values as in an HTML form (WSDL 1.1, section 4.5). */
        URL_ENCODED,
        /** Values put into the location (WSDL 1.1, section 4.6). */
        URL_REPLACEMENT,
        /** An XML document (WSDL 1.1, section 5.6). */
        XML,
        /** The bytes or the text of one part (WSDL 1.1, section 5.2). */
        CONTENT
    }

    /**
     * How a message travels.
     *
     * @param name the name of the input or output, or null
     * @param form what it is put into
     * @param encoded whether the body's use is {@code encoded} rather than {@code literal}
     * @param parts the parts in the body, or null for all that are not elsewhere
     * @param namespace the namespace of an RPC wrapper, empty for none
     * @param headers the parts that travel as header blocks
     * @param attachments the parts that travel as MIME parts beside the envelope
     * @param mediaType the media type of the only part of a message without an envelope, empty for any
     */
    public record Carrier(
            String name,
            Form form,
            boolean encoded,
            List<String> parts,
            String namespace,
            List<Header> headers,
            Map<String, Attached> attachments,
            String mediaType,
            Place place) {}

    /** The names of parts in round brackets that a location has (WSDL 1.1, section 4.6). */
    public static List<String> placeholders(String location) {
        return PLACEHOLDER
                .matcher(location)
                .results()
                .map(found -> found.group(1))
                .distinct()
                .toList();
    }

    /** A location in which only the given parts have a place: round brackets around anything else are text. */
    public static String placing(Set<String> parts, String location) {
        return PLACEHOLDER
                .matcher(location)
                .replaceAll(found -> Matcher.quoteReplacement(
                        parts.contains(found.group(1)) ? found.group() : "%28" + found.group(1) + "%29"));
    }

    /**
     * The parts of a message in the body: those listed, or all that are not elsewhere (WSDL 1.1, section 3.5); one alone where a body
     * is nothing else (sections 5.2 and 5.6).
     *
     * @param carrier how the message travels, or null when no binding says
     */
    public static List<Message.Part> bodyParts(Message message, Carrier carrier) {
        Set<String> elsewhere = new HashSet<>();
        if (carrier != null) {
            elsewhere.addAll(carrier.attachments().keySet());
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
                .limit(
                        carrier != null && (carrier.form() == Form.XML || carrier.form() == Form.CONTENT)
                                ? 1
                                : Long.MAX_VALUE)
                .toList();
    }

    /**
     * How a part travels beside the envelope.
     *
     * @param mediaType its media type, empty for any
     */
    public record Attached(String mediaType, Place place) {}

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

    /** How much speaks for it that a bound operation is meant by an operation of its name, the most first. */
    enum Likeness {
        /** Input and output are called the same, by default too. */
        NAMES,
        /** No name speaks against it. */
        NO_OTHER_NAME,
        /** The inputs are called the same. */
        INPUT,
        /** It is bound by nobody else. */
        NOBODY_ELSE,
        /** There is no other. */
        NOTHING;

        boolean holds(BoundOperation bound, Operation operation) {
            return switch (this) {
                case NAMES ->
                    bound.isCalled(bound.input, operation.input(), operation.inputName())
                            && bound.isCalled(bound.output, operation.output(), operation.outputName());
                case NO_OTHER_NAME -> fits(bound.input, operation.input()) && fits(bound.output, operation.output());
                case INPUT -> bound.isCalled(bound.input, operation.input(), operation.inputName());
                case NOBODY_ELSE, NOTHING -> true;
            };
        }

        /** Whether what others are bound by may be meant too. */
        boolean isShared() {
            return this == NOTHING;
        }

        private static boolean fits(Carrier carrier, Operation.Use use) {
            return carrier == null
                    || carrier.name() == null
                    || use == null
                    || carrier.name().equals(use.name());
        }
    }

    private boolean isCalled(Carrier carrier, Operation.Use use, String standard) {
        String called = carrier == null || carrier.name() == null ? standard : carrier.name();
        return called.equals(use == null || use.name() == null ? standard : use.name());
    }
}
