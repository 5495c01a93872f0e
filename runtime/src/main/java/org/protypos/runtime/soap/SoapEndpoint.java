package org.protypos.runtime.soap;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;

/**
 * An endpoint that speaks SOAP over HTTP (SOAP 1.1, section 6; SOAP 1.2 Part 2, section 7). A generated subclass knows the
 * operations.
 */
public abstract non-sealed class SoapEndpoint extends ContractEndpoint {
    private static final int BAD_REQUEST = 400;
    private static final int SERVER_ERROR = 500;
    private static final long THRESHOLD = 1024;

    private volatile List<SoapGuard> guards = List.of();

    /** For the generated subclass. */
    protected SoapEndpoint() {}

    /**
     * Finds the operation that a message is for.
     *
     * @param namespace the namespace of the first element in the body, empty when there is none
     * @param name its local name, empty when there is none
     * @param action the SOAP action of the request, empty when there is none
     * @return an empty input message, or null when no operation fits
     */
    protected abstract SoapMessage input(String namespace, String name, String action);

    /**
     * Finds the operation that a message is for, where operations of one name are told apart by their parts.
     *
     * @param parts gives the local names of the elements in the first element of the body
     */
    protected SoapMessage input(String namespace, String name, String action, Supplier<List<String>> parts) {
        return input(namespace, name, action);
    }

    /** Whether parts are of these names, in any order. */
    protected static boolean areParts(Supplier<List<String>> parts, String... names) {
        return Set.copyOf(parts.get()).equals(Set.of(names));
    }

    /** Sets somebody to watch over this endpoint; several look at a message one after the other. */
    public final SoapEndpoint guarded(SoapGuard guard) {
        List<SoapGuard> more = new ArrayList<>(guards);
        more.add(guard);
        guards = List.copyOf(more);
        return this;
    }

    /** Whether messages come in the SOAP encoding (SOAP 1.1, section 5). */
    protected boolean isEncoded() {
        return false;
    }

    /** Whether the contract asks for binary content beside the message (MTOM). */
    protected boolean isOptimized() {
        return false;
    }

    /** Whether the contract asks that messages are addressed (WS-Addressing 1.0 Metadata, section 3.1). */
    protected boolean isAddressed() {
        return false;
    }

    @Override
    boolean isAt(String path) {
        return path.isEmpty();
    }

    @Override
    final Reply operation(Request request) throws IOException {
        if (!request.method().equals("POST")) {
            return Reply.notAllowed("GET, POST", "POST calls an operation, GET shows the contract");
        }
        MediaType type = request.type();
        if (!type.isMultipart() && version(type) == null) {
            return Reply.plain(415, wrongType(request.field("Content-Type")));
        }
        Incoming message = request.message(type);
        SoapVersion spoken = version(message.type());
        return spoken == null
                ? Reply.plain(415, wrongType(message.type().name()))
                : new Exchange(request, message, spoken).reply();
    }

    @Override
    public final Reply unanswered(Request request, String why) {
        SoapVersion spoken = version(request.type());
        SoapVersion version = spoken == null ? SoapVersion.SOAP_1_1 : spoken;
        QName code = new QName(version.namespace(), version.receiverCode());
        return Reply.of(
                SERVER_ERROR,
                version.contentType(""),
                Envelope.writeFault(version, List.of(code), why, List.of(), types(), null));
    }

    /**
     * The action of a request, by the HTTP header or by the content type; empty when neither has one.
     *
     * @param inner the content type of the message itself, which may come in a package
     */
    public static String action(Request request, MediaType inner) {
        String action = request.field("SOAPAction");
        for (MediaType one : List.of(request.type(), inner)) {
            String inType = one.parameter("action");
            action = action.isEmpty() && inType != null ? inType : action;
        }
        return action.replace("\"", "").strip();
    }

    private static String wrongType(String type) {
        return "a SOAP message is text/xml or application/soap+xml, not " + printable(type);
    }

    private static SoapVersion version(MediaType type) {
        for (SoapVersion version : SoapVersion.values()) {
            if (type.name().equals(version.mediaType())) {
                return version;
            }
        }
        return null;
    }

    private static String unknown(String namespace, String name, String action) {
        return "no operation takes "
                + (name.isEmpty() ? "an empty body" : "the element {" + namespace + "}" + name)
                + (action.isEmpty() ? "" : " with the action \"" + action + "\"");
    }

    /** One message on its way to its answer. */
    private final class Exchange {
        private final Request request;
        private final Incoming message;
        private SoapVersion version;
        private Envelope envelope;
        private Addressing.OfRequest addressing;
        private SoapMessage input;

        Exchange(Request request, Incoming message, SoapVersion spoken) {
            this.request = request;
            this.message = message;
            this.version = spoken;
        }

        Reply reply() {
            try {
                Reply guarded = guarded();
                if (guarded != null) {
                    return guarded;
                }
                Reply refused = Envelope.read(message, isEncoded(), types(), request.reading(), this::take);
                if (refused != null) {
                    return refused;
                }
                AttachedParts.read(message.parts(), input, request.reading());
            } catch (XmlFormatException e) {
                return senderFault(e.getMessage());
            } catch (Envelope.NotAnEnvelopeException e) {
                return fault("VersionMismatch", e.getMessage());
            } catch (Exception | StackOverflowError | OutOfMemoryError e) {
                return fault(version.receiverCode(), failed(e));
            }
            return performed();
        }

        /** The answer that says why a guard does not let the request pass, or null. */
        private Reply guarded() {
            try {
                for (SoapGuard guard : guards) {
                    guard.arrived(request::field);
                    guard.request(message.body(), message.type().charset());
                }
                return null;
            } catch (SecurityException e) {
                return senderFault(printable(String.valueOf(e.getMessage())));
            }
        }

        /** What the implementation throws is its own affair: the caller is told of declared faults alone. */
        private Reply performed() {
            try {
                return answer(perform(input));
            } catch (DeclaredFault e) {
                return fault(
                        e.codes(version), String.valueOf(e.getMessage()), input.action(e), List.of(), e::writeDetail);
            } catch (CallRefusedException e) {
                return fault(e.isSenders() ? version.senderCode() : version.receiverCode(), e.getMessage());
            } catch (Throwable e) {
                return fault(version.receiverCode(), failed(e));
            }
        }

        /** Finds the operation and reads its input, or gives the answer that says why not. */
        private Reply take(Envelope came) {
            envelope = came;
            version = came.version();
            addressing = new Addressing.OfRequest(came);
            boolean empty = !envelope.content().atElement();
            String namespace = empty ? "" : envelope.content().namespace();
            String name = empty ? "" : envelope.content().localName();
            String action = anyAction();
            input = input(namespace, name, action, this::parts);
            if (input == null) {
                return senderFault(unknown(namespace, name, action));
            }
            Addressing.Problem problem = addressing.problem(
                    isAddressed(), !input.isOneWay(), SoapEndpoint.action(request, message.type()), input.action());
            if (problem != null) {
                return fault(problem);
            }
            List<QName> notUnderstood = envelope.readInto(input, !guards.isEmpty());
            return notUnderstood.isEmpty() ? null : fault(notUnderstood);
        }

        /** The action, by an addressing header if by nothing else. */
        private String anyAction() {
            String action = SoapEndpoint.action(request, message.type());
            return action.isEmpty() && addressing.action() != null ? addressing.action() : action;
        }

        /** The names of what is in the first element of the body, found in the message apart from reading it. */
        private List<String> parts() {
            return Envelope.read(message, isEncoded(), XmlTypes.NONE, request.reading(), Envelope::partNames);
        }

        private Reply nothing() {
            return Reply.of(202, version.contentType(""), new byte[0]);
        }

        private Reply answer(SoapMessage output) {
            if (output == null) {
                return nothing();
            }
            boolean optimized = isOptimized()
                    || message.parts() != null
                    || request.field("Accept").toLowerCase(Locale.ROOT).contains("application/xop+xml");
            OutgoingPackage parts = new OutgoingPackage(optimized && !output.isEncoded() ? THRESHOLD : -1);
            byte[] written = Envelope.write(version, output, addressing.ofAnswer(output.action()), parts, types());
            byte[] sent = watched(written);
            return addressing.wantsAnswer() ? Reply.of(200, version.contentType(""), sent, parts) : nothing();
        }

        private byte[] watched(byte[] written) {
            byte[] sent = written;
            for (SoapGuard guard : guards) {
                sent = guard.answer(sent);
            }
            return sent;
        }

        private Reply senderFault(String reason) {
            return fault(version.senderCode(), reason);
        }

        private Reply fault(Addressing.Problem problem) {
            boolean inDetail = version == SoapVersion.SOAP_1_2;
            List<QName> code = new ArrayList<>(List.of(own(version.senderCode())));
            code.addAll(problem.names());
            return fault(
                    code,
                    problem.reason(),
                    problem.faultAction(),
                    inDetail ? List.of() : List.of(problem.asBlock()),
                    inDetail ? problem.written() : null);
        }

        private Reply fault(List<QName> notUnderstood) {
            return fault(
                    List.of(own("MustUnderstand")),
                    "the header block " + notUnderstood.get(0) + " is not understood",
                    null,
                    version == SoapVersion.SOAP_1_2 ? Envelope.notUnderstood(notUnderstood) : List.of(),
                    null);
        }

        private Reply fault(String code, String reason) {
            return fault(List.of(own(code)), reason, null, List.of(), null);
        }

        private QName own(String code) {
            return new QName(version.namespace(), code);
        }

        /** SOAP 1.1, section 6.2 sends every fault with status 500; SOAP 1.2 Part 2, table 20 blames the sender with 400. */
        private Reply fault(
                List<QName> code, String reason, String action, List<XmlElement<?>> more, Consumer<XmlOutput> detail) {
            List<XmlElement<?>> blocks = new ArrayList<>(more);
            if (addressing != null) {
                blocks.addAll(addressing.ofFault(action));
            }
            boolean blamesSender = version == SoapVersion.SOAP_1_2
                    && code.get(0).getLocalPart().equals(version.senderCode());
            byte[] sent = watched(Envelope.writeFault(version, code, reason, blocks, types(), detail));
            return addressing == null || addressing.wantsFault()
                    ? Reply.of(blamesSender ? BAD_REQUEST : SERVER_ERROR, version.contentType(""), sent)
                    : nothing();
        }
    }
}
