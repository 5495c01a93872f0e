package org.protypos.runtime.soap;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlOutput;

/** An endpoint that speaks HTTP without SOAP (WSDL 1.1, sections 4 and 5). A generated subclass knows the operations. */
public abstract non-sealed class HttpEndpoint extends Endpoint {
    /** For the generated subclass. */
    protected HttpEndpoint() {}

    /** The locations of the operations, each beneath the path of the endpoint, in the order of {@link #input}. */
    protected abstract String[] locations();

    /** An empty input message for an operation. */
    protected abstract SoapMessage input(int operation);

    /** The HTTP methods by which the operations are called. */
    protected abstract String[] verbs();

    @Override
    boolean isAt(String path) {
        return path.isEmpty() || path.startsWith("/");
    }

    @Override
    final Reply operation(Request request) throws IOException {
        String[] locations = locations();
        for (int i = 0; i < locations.length; i++) {
            SoapMessage input = input(i);
            boolean isWhole = locations[i].isEmpty() || locations[i].matches("[/?].*");
            String location = isWhole ? locations[i] : "/" + locations[i];
            boolean replaced = input.form() == SoapMessage.Form.REPLACED;
            String asked = location.contains("?") && request.query() != null
                    ? request.path() + "?" + request.query()
                    : request.path();
            Fields taken = replaced ? Fields.taken(location, asked) : null;
            if (replaced ? taken != null : location.equals(request.path())) {
                return called(request, input, taken);
            }
        }
        return Reply.plain(404, "no operation is at " + printable(request.path()));
    }

    private Reply called(Request request, SoapMessage input, Fields taken) throws IOException {
        String allowed = String.join(", ", verbs());
        if (!List.of(verbs()).contains(request.method())) {
            return Reply.notAllowed(allowed, "the operation is called by " + allowed);
        }
        try {
            read(request, input, taken);
        } catch (XmlFormatException e) {
            return Reply.plain(400, e.getMessage());
        } catch (SecurityException e) {
            return Reply.plain(400, String.valueOf(e.getMessage()));
        } catch (Request.Refused | IOException e) {
            throw e;
        } catch (Exception | StackOverflowError | OutOfMemoryError e) {
            return Reply.plain(500, failed(e));
        }
        try {
            return answer(perform(input));
        } catch (DeclaredFault e) {
            return Reply.plain(500, String.valueOf(e.getMessage()));
        } catch (CallRefusedException e) {
            return Reply.plain(400, e.getMessage());
        } catch (UnsupportedOperationException e) {
            return Reply.plain(501, notImplemented(e));
        } catch (Throwable e) {
            return Reply.plain(500, failed(e));
        }
    }

    private void read(Request request, SoapMessage input, Fields taken) throws IOException {
        switch (input.form()) {
            case REPLACED -> taken.readInto(input, types(), request.reading());
            case FIELDS -> {
                boolean inAddress = request.method().equals("GET");
                String text = inAddress
                        ? Objects.requireNonNullElse(request.query(), "")
                        : new String(request.message().body(), StandardCharsets.UTF_8);
                Fields.parse(text).readInto(input, types(), request.reading());
            }
            case BYTES -> {
                Incoming message = request.message();
                AttachedParts.readOnly(Attachment.of(message.body(), request.field("Content-Type")), input);
            }
            default -> request.message().readDocument(input, types(), request.reading());
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
