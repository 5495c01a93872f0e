package org.protypos.runtime.soap;

import java.io.IOException;
import java.lang.System.Logger.Level;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.concurrent.ThreadLocalRandom;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The server's end of an interface: has operations carried out and shows the contract. Safe for use by several threads if
 * the implementation is.
 */
public abstract sealed class ContractEndpoint extends Endpoint permits SoapEndpoint, HttpEndpoint {
    ContractEndpoint() {}

    /** What the contract declares by name. */
    protected abstract XmlTypes types();

    /**
     * Carries an operation out.
     *
     * @param input the message that came
     * @return the message to answer with, or null for a one-way operation
     * @throws Exception a declared fault or whatever else the implementation throws
     */
    protected abstract SoapMessage perform(SoapMessage input) throws Exception;

    /** The documents of the contract, to be shown on request. */
    protected abstract ContractDocuments documents();

    /** The name under which the documents speak of the ports that this endpoint serves. */
    protected abstract String portType();

    @Override
    public final boolean serves(String name) {
        return name.equals(portType());
    }

    /** Whether there can be anything at a path beneath the endpoint's own. */
    abstract boolean isAt(String path);

    @Override
    public final Reply answer(Request request) throws IOException {
        try {
            if (!isAt(request.path())) {
                return Reply.plain(404, "nothing is published here");
            }
            return request.method().equals("GET") && request.path().isEmpty() ? contract(request) : operation(request);
        } catch (Request.Refused e) {
            return Reply.plain(e.status(), e.getMessage());
        }
    }

    abstract Reply operation(Request request) throws IOException;

    /** What is answered when nobody can: a fault, or a status of HTTP, that says why. */
    public abstract Reply unanswered(Request request, String why);

    private Reply contract(Request request) {
        String text = documents().show(request.query(), request.addresses());
        return text == null
                ? Reply.plain(404, "the contract has no such document")
                : Reply.of(200, "text/xml; charset=utf-8", text.getBytes(StandardCharsets.UTF_8));
    }

    /**
     * Writes a failure that is none of the caller's affair to the log.
     *
     * @return what the caller is told of it: a number that the log has too
     */
    final String failed(Throwable failure) {
        String reference =
                String.format(Locale.ROOT, "%08x", ThreadLocalRandom.current().nextInt());
        System.getLogger(getClass().getName())
                .log(Level.ERROR, "an operation failed (reference " + reference + ")", failure);
        return "the service failed (reference " + reference + ")";
    }
}
