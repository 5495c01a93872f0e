package org.protypos.runtime.soap;

import java.net.CookieManager;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javax.net.ssl.SSLContext;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlLimits;

/**
 * How a client talks to a service. Settings never change: each method gives a copy with one thing set.
 *
 * <p>The address is, in this order: the one set here; the system property {@code address.SERVICE.PORT}; the environment
 * variable {@code ADDRESS_SERVICE_PORT}, in capitals with an underscore for every other character; the entry
 * {@code SERVICE.PORT} in {@code addresses.properties} on the class path; the one in the contract. SERVICE and PORT are
 * the names in the contract. It is looked up once, when a client is made or changed by {@code with}.
 */
public final class SoapSettings {
    private static final Duration DEFAULT_TIMEOUT = Duration.ofSeconds(60);

    private final SoapPort<?> port;
    private String address;
    private Duration timeout = DEFAULT_TIMEOUT;
    private Map<String, String> headers = Map.of();
    private List<Supplier<XmlElement<?>>> soapHeaders = List.of();
    private List<SoapInterceptor> interceptors = List.of();
    private HttpClient client;
    private List<Consumer<HttpClient.Builder>> clientChanges = List.of();
    private boolean compressed;
    private XmlLimits limits = XmlLimits.DEFAULT;

    private SoapSettings(SoapPort<?> port) {
        this.port = port;
    }

    static SoapSettings of(SoapPort<?> port) {
        return new SoapSettings(port);
    }

    private SoapSettings with(Consumer<SoapSettings> change) {
        SoapSettings copy = new SoapSettings(port);
        copy.address = address;
        copy.timeout = timeout;
        copy.headers = headers;
        copy.soapHeaders = soapHeaders;
        copy.interceptors = interceptors;
        copy.client = client;
        copy.clientChanges = clientChanges;
        copy.compressed = compressed;
        copy.limits = limits;
        change.accept(copy);
        return copy;
    }

    private static <T> List<T> plus(List<T> list, T more) {
        List<T> longer = new ArrayList<>(list);
        longer.add(Objects.requireNonNull(more));
        return List.copyOf(longer);
    }

    /** Sends to another address than the contract's. */
    public SoapSettings address(String value) {
        return with(copy -> copy.address = Objects.requireNonNull(value, "address"));
    }

    /** Gives up when no whole answer has come in this time. The default is one minute. */
    public SoapSettings timeout(Duration value) {
        return with(copy -> copy.timeout = Objects.requireNonNull(value, "timeout"));
    }

    /** Adds an HTTP header to every request. */
    public SoapSettings httpHeader(String name, String value) {
        Map<String, String> more = new LinkedHashMap<>(headers);
        more.put(name, value);
        return with(copy -> copy.headers = more);
    }

    /** Shows who calls by name and password (RFC 7617). Only a secured transport keeps them secret. */
    public SoapSettings basicAuthorization(String user, String password) {
        byte[] pair = (user + ":" + password).getBytes(StandardCharsets.UTF_8);
        return httpHeader("Authorization", "Basic " + Base64.getEncoder().encodeToString(pair));
    }

    /** Shows who calls by a token (RFC 6750). */
    public SoapSettings bearerToken(String token) {
        return httpHeader("Authorization", "Bearer " + token);
    }

    /** Adds a header block to every message. */
    public SoapSettings soapHeader(XmlElement<?> block) {
        Objects.requireNonNull(block, "block");
        return soapHeader(() -> block);
    }

    /** Adds a header block to every message, made anew for each. */
    public SoapSettings soapHeader(Supplier<XmlElement<?>> block) {
        return with(copy -> copy.soapHeaders = plus(soapHeaders, block));
    }

    /** Lets somebody see and change messages before they are sent and after they came. */
    public SoapSettings interceptor(SoapInterceptor value) {
        return with(copy -> copy.interceptors = plus(interceptors, value));
    }

    /** Sends requests compressed with gzip, and asks for answers that are. */
    public SoapSettings compressed() {
        return with(copy -> copy.compressed = true);
    }

    /** Goes through a proxy. */
    public SoapSettings proxy(String host, int portNumber) {
        return change(builder -> builder.proxy(ProxySelector.of(new InetSocketAddress(host, portNumber))));
    }

    /** Secures the transport in a way of the caller's: with his trust store, and his certificate for the service. */
    public SoapSettings tls(SSLContext context) {
        return change(builder -> builder.sslContext(context));
    }

    /** Goes where the service redirects to, though not from a secured address to one that is not. */
    public SoapSettings followRedirects() {
        return change(builder -> builder.followRedirects(HttpClient.Redirect.NORMAL));
    }

    /** Keeps the cookies that the service sets and sends them back. */
    public SoapSettings cookies() {
        return change(builder -> builder.cookieHandler(new CookieManager()));
    }

    private SoapSettings change(Consumer<HttpClient.Builder> made) {
        return with(copy -> copy.clientChanges = plus(clientChanges, made));
    }

    /** Uses an HTTP client of the caller's: what was said of proxy, TLS, redirects and cookies is its own affair then. */
    public SoapSettings httpClient(HttpClient value) {
        return with(copy -> copy.client = Objects.requireNonNull(value, "client"));
    }

    /** Holds answers to other bounds than the default ones. */
    public SoapSettings limits(XmlLimits value) {
        return with(copy -> copy.limits = Objects.requireNonNull(value, "limits"));
    }

    String address() {
        return address != null ? address : OutsideAddress.of(port);
    }

    Duration timeout() {
        return timeout;
    }

    Map<String, String> headers() {
        return headers;
    }

    List<XmlElement<?>> soapHeaders() {
        List<XmlElement<?>> blocks = new ArrayList<>();
        soapHeaders.forEach(block -> blocks.add(block.get()));
        return blocks;
    }

    List<SoapInterceptor> interceptors() {
        return interceptors;
    }

    boolean isCompressed() {
        return compressed;
    }

    HttpClient client() {
        if (client != null) {
            return client;
        }
        HttpClient.Builder builder = HttpClient.newBuilder().connectTimeout(timeout);
        clientChanges.forEach(change -> change.accept(builder));
        return builder.build();
    }

    /** Whether a connection with these settings can go on with the HTTP client of one with others. */
    boolean sharesClient(SoapSettings other) {
        return client == other.client && clientChanges.equals(other.clientChanges) && timeout.equals(other.timeout);
    }

    XmlLimits limits() {
        return limits;
    }
}
