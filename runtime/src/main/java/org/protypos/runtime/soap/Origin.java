package org.protypos.runtime.soap;

import java.net.URI;
import java.util.Locale;
import org.protypos.runtime.value.Conversions;
import org.protypos.runtime.value.Lexical;

/**
 * The server that an address means (RFC 6454, section 4): what is shown to one is not for another.
 *
 * @param scheme in lower case
 * @param host in lower case, empty when there is none
 * @param port with the one that the scheme means when the address names none
 */
public record Origin(String scheme, String host, int port) {
    private static final int HTTP = 80;
    private static final int HTTPS = 443;
    private static final int LONGEST_SHOWN = 1000;

    /**
     * The URI of an address as people write it.
     *
     * @throws IllegalArgumentException when it is none
     */
    static URI target(String address) {
        int authority = address.indexOf("://");
        int path = authority < 0 ? address.length() : authority + 3;
        while (path < address.length() && "/?#".indexOf(address.charAt(path)) < 0) {
            path++;
        }
        return URI.create(address.substring(0, path) + Conversions.escaped(address.substring(path), true));
    }

    /** The origin of an address. */
    public static Origin of(URI address) {
        String scheme = String.valueOf(address.getScheme()).toLowerCase(Locale.ROOT);
        String host = address.getHost() == null ? "" : address.getHost().toLowerCase(Locale.ROOT);
        int port = address.getPort() >= 0 ? address.getPort() : scheme.equals("https") ? HTTPS : HTTP;
        return new Origin(scheme, host, port);
    }

    /** An address for messages: without the user and the password that may stand in it, and without its query. */
    public static String shown(URI address) {
        String text = address.toString();
        int query = text.indexOf('?');
        return Lexical.shortened(withoutUser(query < 0 ? text : text.substring(0, query) + "?..."), LONGEST_SHOWN);
    }

    /** An address without the user and the password that may stand in it. */
    public static String withoutUser(String address) {
        return address.replaceFirst("(?i)^([a-z+.-]+://)[^/@]*@", "$1");
    }
}
