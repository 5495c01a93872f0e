package org.protypos.runtime.soap;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlOutput;

/** An endpoint that speaks HTTP without SOAP (WSDL 1.1, sections 4 and 5). A generated subclass knows the operations. */
public abstract non-sealed class HttpEndpoint extends ContractEndpoint {
    private static final String FORM = "application/x-www-form-urlencoded";

    /** For the generated subclass. */
    protected HttpEndpoint() {}

    /** The locations of the operations, each beneath the path of the endpoint, in the order of {@link #input}; one may have several. */
    protected abstract String[] locations();

    /** An empty input message for the operation at a location. */
    protected abstract SoapMessage input(int operation);

    /** The HTTP methods by which the operations are called. */
    protected abstract String[] verbs();

    @Override
    boolean isAt(String path) {
        return path.isEmpty() || path.startsWith("/");
    }

    @Override
    final Reply operation(Request request) throws IOException {
        int number = operationAt(request);
        return number < 0
                ? Reply.plain(404, "no operation is at " + printable(request.path()))
                : called(request, input(number), number);
    }

    /** The number of the operation that a request is for, by where it is; negative when there is none. */
    public final int operationAt(Request request) {
        int found = -1;
        int most = -1;
        for (int i = 0; i < locations().length; i++) {
            int told = told(request, i);
            if (told > most) {
                found = i;
                most = told;
            }
        }
        return found;
    }

    /** How much of a request's address is the location of an operation; negative when the request is for another place. */
    private int told(Request request, int number) {
        if (input(number).form() == SoapMessage.Form.REPLACED) {
            return taken(request, number) == null ? -1 : 0;
        }
        String location = location(number);
        int query = location.indexOf('?');
        if (!Request.normal(query < 0 ? location : location.substring(0, query)).equals(request.path())) {
            return -1;
        }
        Fields own = Fields.inQuery(location);
        boolean isTheirs = own.size() == 0 || Fields.inQuery(request).without(own) != null;
        return isTheirs ? 1 + own.size() : -1;
    }

    private String location(int number) {
        String location = locations()[number];
        boolean isWhole = location.isEmpty() || location.matches("[/?].*");
        return isWhole ? location : "/" + location;
    }

    private Fields taken(Request request, int number) {
        String location = location(number);
        String asked = location.contains("?") && request.query() != null
                ? request.path() + "?" + Request.normal(request.query())
                : request.path();
        return Fields.taken(location, asked);
    }

    @Override
    public final Reply unanswered(Request request, String why) {
        return Reply.plain(502, why);
    }

    private Reply called(Request request, SoapMessage input, int number) throws IOException {
        String allowed = String.join(", ", verbs());
        if (!List.of(verbs()).contains(request.method())) {
            return Reply.notAllowed(allowed, "the operation is called by " + allowed);
        }
        try {
            read(request, input, number);
        } catch (XmlFormatException e) {
            return Reply.plain(400, e.getMessage());
        } catch (Request.Refused | IOException e) {
            throw e;
        } catch (Exception | StackOverflowError | OutOfMemoryError e) {
            return Reply.plain(500, failed(e));
        }
        try {
            return answer(perform(input));
        } catch (DeclaredFault e) {
            return Reply.plain(e.isSenders() ? 400 : 500, String.valueOf(e.getMessage()));
        } catch (CallRefusedException e) {
            return Reply.plain(e.isSenders() ? 400 : 501, e.getMessage());
        } catch (Throwable e) {
            return Reply.plain(500, failed(e));
        }
    }

    /**
     * Has a message read what came with a request.
     *
     * @param number the number of its operation
     * @throws IOException when that cannot be had
     */
    public final void read(Request request, SoapMessage input, int number) throws IOException {
        switch (input.form()) {
            case REPLACED -> taken(request, number).readInto(input, types(), request.reading());
            case FIELDS -> {
                if (!Fields.areInAddress(request.method())) {
                    want(request, request.type().name().equals(FORM), "the fields of a form (" + FORM + ")");
                }
                Fields.of(request, location(number)).readInto(input, types(), request.reading());
            }
            case BYTES -> {
                Incoming message = request.message();
                AttachedParts.readOnly(Attachment.of(message.body(), request.field("Content-Type")), input);
            }
            case TEXT -> TextBody.read(request.message(), input, types(), request.reading());
            default -> {
                Incoming message = request.message();
                want(request, message.body().length == 0 || message.type().isXml(), "an XML document (text/xml)");
                message.readDocument(input, types(), request.reading());
            }
        }
    }

    /** Refuses content of another kind; some senders do not say what they send, which is no reason. */
    private static void want(Request request, boolean fits, String wanted) {
        String type = request.field("Content-Type");
        if (!fits && !type.isEmpty()) {
            throw new Request.Refused(415, "the operation takes " + wanted + ", not " + printable(type));
        }
    }

    private Reply answer(SoapMessage output) {
        if (output == null) {
            return Reply.of(202, "text/plain", new byte[0]);
        }
        switch (output.form()) {
            case TEXT -> {
                byte[] text = TextBody.write(output, types()).getBytes(StandardCharsets.UTF_8);
                return Reply.of(200, "text/plain; charset=utf-8", text);
            }
            case BYTES -> {
                OutgoingPackage parts = new OutgoingPackage(-1);
                output.writeAttachments(parts);
                return parts.isEmpty() ? Reply.of(200, Attachment.ANY_TYPE, new byte[0]) : Reply.of(parts.first());
            }
            default -> {
                XmlOutput out = new XmlOutput(types());
                output.writeBody(out);
                return Reply.of(200, "text/xml; charset=utf-8", out.finish());
            }
        }
    }
}
