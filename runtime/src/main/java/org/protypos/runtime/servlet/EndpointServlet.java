package org.protypos.runtime.servlet;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Collections;
import java.util.List;
import org.protypos.runtime.soap.Endpoint;
import org.protypos.runtime.soap.Reply;
import org.protypos.runtime.soap.Request;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlLimits;

/**
 * Serves an endpoint inside a servlet container (Jakarta Servlet 6.0; 5.0 will do). The container says how long requests may
 * take, how many come at once, and whether a proxy in front is trusted. Map it to a path with everything beneath: {@code
 * /desk/*}.
 */
public class EndpointServlet extends HttpServlet {
    private static final long serialVersionUID = 1L;
    private static final long ATTACHMENT_LIMIT = 2L << 30;

    private final transient Endpoint endpoint;

    /** For an endpoint of any kind. */
    public EndpointServlet(Endpoint endpoint) {
        this.endpoint = endpoint;
    }

    /** How messages are read; override it for other bounds, or to read leniently. */
    protected Reading reading() {
        return Reading.strict(XmlLimits.DEFAULT);
    }

    /** The most bytes that a message with attachments may have; override it for another bound than 2 GiB. */
    protected long attachmentLimit() {
        return ATTACHMENT_LIMIT;
    }

    private static String headers(HttpServletRequest request, String name) {
        List<String> values = Collections.list(request.getHeaders(name));
        return values.isEmpty() ? null : String.join(", ", values);
    }

    @Override
    protected void service(HttpServletRequest request, HttpServletResponse response) throws IOException {
        String own = request.getContextPath() + request.getServletPath();
        String raw = request.getRequestURI();
        String beneath = raw.startsWith(own) ? raw.substring(own.length()) : request.getPathInfo();
        Reply reply = endpoint.answer(new Request(
                request.getMethod(),
                beneath == null ? "" : beneath,
                request.getQueryString(),
                name -> {
                    String whole = request.getRequestURL().toString();
                    boolean here = name.isEmpty() || endpoint.serves(name);
                    return here ? whole.substring(0, whole.length() - raw.length()) + own : null;
                },
                () -> Collections.list(request.getHeaderNames()),
                name -> headers(request, name),
                request.getInputStream(),
                reading(),
                attachmentLimit()));
        response.setStatus(reply.status());
        reply.headers().forEach((name, values) -> values.forEach(value -> response.addHeader(name, value)));
        if (reply.length() >= 0) {
            response.setContentLengthLong(reply.length());
        }
        try (OutputStream body = response.getOutputStream()) {
            reply.body().writeTo(body);
        }
    }
}
