package org.protypos.exchange.standin;

import java.net.URI;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Printable;

/**
 * Who may ask a stand-in. A page of another site can make a browser on this machine send requests here, under the address of
 * this machine or under a name of its own that leads here: such requests are told by their headers (RFC 9110, section 7.2;
 * RFC 6454, section 7; W3C Fetch Metadata) and refused, for behind a stand-in there may be a real service.
 */
final class Visitors {
    private static final String PAGE_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self';"
                    + " img-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";
    private static final String POLICY = "default-src 'none'; base-uri 'none'; frame-ancestors 'none'; sandbox";

    private final Set<String> hosts = new HashSet<>(Set.of("localhost", "127.0.0.1", "[::1]"));
    private final Set<String> origins;

    /**
     * Says who may ask.
     *
     * @param hosts the names under which the stand-in may be asked, beside those of this machine itself
     * @param origins the origins of pages of which requests are taken, beside the stand-in's own
     */
    Visitors(Set<String> hosts, Set<String> origins) {
        hosts.forEach(host -> this.hosts.add(host.toLowerCase(Locale.ROOT)));
        this.origins = Set.copyOf(origins);
    }

    /** What every answer says: it is what it is said to be, stands in no frame, and nothing runs in it but the page's own. */
    static Map<String, String> headers(String path) {
        boolean page = path.equals("/") || path.startsWith(StandIn.RESERVED + "/");
        return Map.of(
                "X-Content-Type-Options",
                "nosniff",
                "X-Frame-Options",
                "DENY",
                "Referrer-Policy",
                "no-referrer",
                "Cross-Origin-Resource-Policy",
                "same-origin",
                "Content-Security-Policy",
                page ? PAGE_POLICY : POLICY);
    }

    /** Why a request is not answered, or null; header fields are empty when they did not come. */
    String complaint(UnaryOperator<String> field) {
        String host = field.apply("Host");
        String name = host.replaceFirst(":[0-9]*$", "").toLowerCase(Locale.ROOT);
        if (!host.isEmpty() && !hosts.contains(name)) {
            return "this stand-in is not known as " + printable(host)
                    + "; who starts it can say that it is one of its hosts";
        }
        String origin = field.apply("Origin");
        if (!origin.isEmpty() && !origins.contains(origin) && !isOwn(origin, host)) {
            return "a page of " + printable(origin) + " may not call here; who starts it can allow that origin";
        }
        String site = field.apply("Sec-Fetch-Site");
        return origin.isEmpty() && (site.equals("cross-site") || site.equals("same-site"))
                ? "a page of another site may not call here"
                : null;
    }

    private static boolean isOwn(String origin, String host) {
        try {
            URI from = URI.create(origin);
            return "http".equals(from.getScheme()) && host.equalsIgnoreCase(from.getAuthority());
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    /** A name for a message: whatever no host or origin can hold comes back as a question mark. */
    private static String printable(String text) {
        return Printable.of(text.replaceAll("[^A-Za-z0-9.:/_\\[\\]-]", "?"));
    }
}
