package org.protypos.runtime.soap;

import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Locale;
import java.util.Set;
import org.protypos.runtime.value.Lexical;

/**
 * Where a client goes when a service redirects it (RFC 9110, section 15.4). A request keeps its method and its body on the way: a
 * call that became a question for a page would be none.
 */
public enum Redirects {
    /** Nowhere: the call fails and says where it would lead. */
    NONE,
    /** To another address of the same scheme, host and port; what the request holds was meant for that server. */
    SAME_ORIGIN,
    /** Anywhere but from a secured address to one that is not; headers that say who calls stay behind. */
    ANYWHERE;

    static final int MOST_HOPS = 5;

    private static final Set<Integer> STATUSES = Set.of(301, 302, 303, 307, 308);

    /**
     * The request to send next.
     *
     * @return the request, or null when the answer is no redirection
     * @throws Refused when it is one that is not followed
     */
    HttpRequest next(HttpRequest sent, HttpResponse<?> answer) {
        if (!STATUSES.contains(answer.statusCode())) {
            return null;
        }
        String location = answer.headers().firstValue("Location").orElse("").strip();
        URI target = target(sent.uri(), location);
        if (target == null) {
            throw new Refused(
                    answer.statusCode(), "is redirected to \"" + shortened(location) + "\", which is no address");
        }
        String leads = "is redirected to " + Origin.shown(target);
        boolean same = Origin.of(sent.uri()).equals(Origin.of(target));
        if (answer.statusCode() == 303 && !sent.method().equals("GET")) {
            throw new Refused(answer.statusCode(), leads + ", where an answer waits that is none to this call");
        }
        if (this == NONE) {
            throw new Refused(answer.statusCode(), leads + "; set that address, or followRedirects()");
        }
        if (!same && this == SAME_ORIGIN) {
            throw new Refused(
                    answer.statusCode(),
                    leads + ", another server than it was meant for; set that address if it is right");
        }
        if ("https".equalsIgnoreCase(sent.uri().getScheme()) && !"https".equalsIgnoreCase(target.getScheme())) {
            throw new Refused(answer.statusCode(), leads + ", which is not secured");
        }
        return HttpRequest.newBuilder(
                        sent,
                        (name, value) ->
                                same || !WireLog.blankedHeader(name, "").equals("***"))
                .uri(target)
                .build();
    }

    private static URI target(URI from, String location) {
        try {
            URI target = from.resolve(location);
            String scheme = String.valueOf(target.getScheme()).toLowerCase(Locale.ROOT);
            return !location.isEmpty() && (scheme.equals("http") || scheme.equals("https")) && target.getHost() != null
                    ? target
                    : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private static String shortened(String text) {
        return Lexical.shortened(Endpoint.printable(text), 100);
    }

    /** A redirection that is not followed. */
    static final class Refused extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private final int status;

        Refused(int status, String why) {
            super(why);
            this.status = status;
        }

        int status() {
            return status;
        }
    }
}
