package org.protypos.runtime.soap;

import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.function.UnaryOperator;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTypes;

/** A connection that speaks HTTP without SOAP (WSDL 1.1, sections 4 and 5). */
public final class HttpConnection extends Connection {
    private final HttpPort<?> port;

    private HttpConnection(HttpPort<?> port, SoapSettings settings, HttpClient client, XmlTypes types) {
        super(settings, client, types);
        this.port = port;
    }

    /**
     * Gives a connection. Nothing is sent before the first call.
     *
     * @param port the port of the contract
     * @param with says what differs from the contract and the defaults
     * @param types what the contract declares by name
     */
    public static HttpConnection to(HttpPort<?> port, UnaryOperator<SoapSettings> with, XmlTypes types) {
        SoapSettings settings = with.apply(SoapSettings.of(port));
        return new HttpConnection(port, settings, settings.client(), types);
    }

    /** Gives a connection to the same port that differs in some setting; this one stays as it is. */
    public HttpConnection with(UnaryOperator<SoapSettings> with) {
        SoapSettings changed = with.apply(settings());
        return new HttpConnection(
                port, changed, changed.sharesClient(settings()) ? client() : changed.client(), types());
    }

    @Override
    HttpRequest request(SoapInterceptor.Call call, String standard, SoapMessage message) {
        String location = port.location(call.operation(), standard);
        String target = beneath(address(), location);
        byte[] body = new byte[0];
        String type = null;
        switch (message.form()) {
            case FIELDS -> {
                String fields = Fields.of(message, types()).encoded();
                if (!Fields.areInAddress(port.verb())) {
                    body = fields.getBytes(StandardCharsets.UTF_8);
                    type = "application/x-www-form-urlencoded";
                } else if (!fields.isEmpty()) {
                    target += (target.contains("?") ? "&" : "?") + fields;
                }
            }
            case REPLACED ->
                target = beneath(address(), Fields.of(message, types()).replacedIn(location));
            case DOCUMENT -> {
                XmlOutput out = new XmlOutput(types());
                message.writeBody(out);
                body = out.finish();
                type = "text/xml; charset=utf-8";
            }
            case BYTES -> {
                return sent(call, target, message);
            }
            case TEXT -> {
                body = TextBody.write(message, types()).getBytes(StandardCharsets.UTF_8);
                type = "text/plain; charset=utf-8";
            }
            default -> throw new IllegalArgumentException(message.form().name());
        }
        SoapInterceptor.Call shown = call.at(target);
        for (SoapInterceptor interceptor : settings().interceptors()) {
            body = interceptor.request(shown, body);
        }
        WireLog.request(call, body);
        if (type != null) {
            call.headers().put("Content-Type", type);
        }
        if (settings().isCompressed()) {
            call.headers().put("Accept-Encoding", "gzip");
        }
        return builder(target, call.headers())
                .method(
                        port.verb(),
                        body.length == 0
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofByteArray(body))
                .build();
    }

    /** A location beneath an address, with one slash between them (WSDL 1.1, section 4.4). */
    private static String beneath(String address, String location) {
        if (location.isEmpty() || location.startsWith("?")) {
            return address + location;
        }
        String start = address.endsWith("/") ? address.substring(0, address.length() - 1) : address;
        return start + (location.startsWith("/") ? "" : "/") + location;
    }

    /** The request that carries one part as it is. */
    private HttpRequest sent(SoapInterceptor.Call call, String target, SoapMessage message) {
        OutgoingPackage parts = new OutgoingPackage(-1);
        message.writeAttachments(parts);
        Attachment content = parts.isEmpty() ? Attachment.of(new byte[0]) : parts.first();
        call.headers().put("Content-Type", content.contentType());
        return builder(target, call.headers())
                .method(port.verb(), OutgoingPackage.publisher(content))
                .build();
    }

    @Override
    void interpret(SoapInterceptor.Call call, Answer came, SoapMessage answer) {
        String operation = call.operation();
        if (came.status() / 100 != 2) {
            throw unusable(operation, came, "is a failure", null);
        }
        if (answer == null) {
            return;
        }
        try {
            came.message()
                    .readInto(answer, came.contentType(), types(), settings().reading());
        } catch (XmlFormatException e) {
            if (!came.message().type().isXml()) {
                boolean page = came.message().type().name().equals("text/html");
                throw unusable(operation, came, page ? "is a web page" : "is no XML document", e);
            }
            throw new CallFailedException(
                    "the answer to " + operation + " (HTTP " + came.status() + ", " + came.contentType()
                            + ") cannot be read: " + e.getMessage(),
                    came.status(),
                    e);
        }
    }
}
