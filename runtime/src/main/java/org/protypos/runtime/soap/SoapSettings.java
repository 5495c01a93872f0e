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
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
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

    private static final long DEFAULT_THRESHOLD = 1024;
    private static final long DEFAULT_ATTACHMENT_LIMIT = 2L << 30;

    private final String service;
    private final String port;
    private final String inContract;
    private String address;
    private Duration timeout = DEFAULT_TIMEOUT;
    private Map<String, String> headers = Map.of();
    private List<Supplier<XmlElement<?>>> soapHeaders = List.of();
    private List<SoapInterceptor> interceptors = List.of();
    private HttpClient client;
    private List<Consumer<HttpClient.Builder>> clientChanges = List.of();
    private boolean compressed;
    private long optimizedFrom = -1;
    private long attachmentLimit = DEFAULT_ATTACHMENT_LIMIT;
    private boolean addressed;
    private Redirects redirects = Redirects.NONE;
    private Reading reading = Reading.strict(XmlLimits.DEFAULT);

    private SoapSettings(String service, String port, String inContract) {
        this.service = service;
        this.port = port;
        this.inContract = inContract;
    }

    static SoapSettings of(SoapPort<?> port) {
        SoapSettings settings = new SoapSettings(port.service(), port.name(), port.address());
        settings.optimizedFrom = port.features().contains(SoapFeature.MTOM) ? DEFAULT_THRESHOLD : -1;
        settings.addressed = port.features().contains(SoapFeature.ADDRESSING);
        return settings;
    }

    static SoapSettings of(HttpPort<?> port) {
        return new SoapSettings(port.service(), port.name(), port.address());
    }

    private SoapSettings with(Consumer<SoapSettings> change) {
        SoapSettings copy = new SoapSettings(service, port, inContract);
        copy.address = address;
        copy.timeout = timeout;
        copy.redirects = redirects;
        copy.headers = headers;
        copy.soapHeaders = soapHeaders;
        copy.interceptors = interceptors;
        copy.client = client;
        copy.clientChanges = clientChanges;
        copy.compressed = compressed;
        copy.optimizedFrom = optimizedFrom;
        copy.attachmentLimit = attachmentLimit;
        copy.addressed = addressed;
        copy.reading = reading;
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
        return httpHeader("Authorization", basic(user, password));
    }

    /** The value of the header {@code Authorization} that shows name and password (RFC 7617, section 2). */
    public static String basic(String user, String password) {
        byte[] pair = (user + ":" + password).getBytes(StandardCharsets.UTF_8);
        return "Basic " + Base64.getEncoder().encodeToString(pair);
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

    /**
     * Sends binary content of at least so many bytes beside the message rather than in it (MTOM). That is done from 1,024
     * bytes on when a policy of the port asks for it, and not at all otherwise. What comes in is taken either way.
     */
    public SoapSettings optimizedFrom(long bytes) {
        return with(copy -> copy.optimizedFrom = Math.max(0, bytes));
    }

    /** Sends all binary content in the message, whatever the policies of the port ask for. */
    public SoapSettings notOptimized() {
        return with(copy -> copy.optimizedFrom = -1);
    }

    /** Takes answers with attachments of at most so many bytes together. The default is 2 GiB. */
    public SoapSettings attachmentLimit(long bytes) {
        return with(copy -> copy.attachmentLimit = bytes);
    }

    /**
     * Says in header blocks where a message goes (WS-Addressing 1.0), whether or not a policy of the port asks for it. An
     * operation for which the contract has no action goes without.
     */
    public SoapSettings addressed(boolean value) {
        return with(copy -> copy.addressed = value);
    }

    /** Goes through a proxy. */
    public SoapSettings proxy(String host, int portNumber) {
        return change(builder -> builder.proxy(ProxySelector.of(new InetSocketAddress(host, portNumber))));
    }

    /** Secures the transport in a way of the caller's: with his trust store, and his certificate for the service. */
    public SoapSettings tls(SSLContext context) {
        return change(builder -> builder.sslContext(context));
    }

    /** Goes where the service redirects to, as long as that is the same server. */
    public SoapSettings followRedirects() {
        return followRedirects(Redirects.SAME_ORIGIN);
    }

    /** Goes where the service redirects to, as far as is said. */
    public SoapSettings followRedirects(Redirects how) {
        return with(copy -> copy.redirects = Objects.requireNonNull(how, "how"));
    }

    /** Keeps the cookies that the service sets and sends them back. */
    public SoapSettings cookies() {
        return change(builder -> builder.cookieHandler(new CookieManager()));
    }

    private SoapSettings change(Consumer<HttpClient.Builder> made) {
        return with(copy -> copy.clientChanges = plus(clientChanges, made));
    }

    /** Uses an HTTP client of the caller's: what was said of proxy, TLS and cookies is its own affair then. */
    public SoapSettings httpClient(HttpClient value) {
        return with(copy -> copy.client = Objects.requireNonNull(value, "client"));
    }

    /** Holds answers to other bounds than the default ones. */
    public SoapSettings limits(XmlLimits value) {
        return with(copy -> copy.reading = reading.limits(Objects.requireNonNull(value, "limits")));
    }

    /** Reads answers leniently, as {@link Reading} says: what breaks the contract is passed over and told of. */
    public SoapSettings lenient(Consumer<XmlFormatException> passedOver) {
        return with(copy -> copy.reading = reading.leniently(Objects.requireNonNull(passedOver, "passedOver")));
    }

    /** The service's name in the contract. */
    String service() {
        return service;
    }

    /** The port's name in the contract. */
    String port() {
        return port;
    }

    String address() {
        return address != null ? address : OutsideAddress.of(service, port, inContract);
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

    long optimizedFrom() {
        return optimizedFrom;
    }

    long attachmentLimit() {
        return attachmentLimit;
    }

    Redirects redirects() {
        return redirects;
    }

    boolean isAddressed() {
        return addressed;
    }

    boolean isCompressed() {
        return compressed;
    }

    HttpClient client() {
        if (client != null) {
            return client;
        }
        HttpClient.Builder builder = HttpClient.newBuilder().connectTimeout(timeout);
        if (address().startsWith("http:")) {
            // Otherwise each request would offer another version of HTTP, which old servers do not understand.
            builder.version(HttpClient.Version.HTTP_1_1);
        }
        clientChanges.forEach(change -> change.accept(builder));
        return builder.build();
    }

    /** Whether a connection with these settings can go on with the HTTP client of one with others. */
    boolean sharesClient(SoapSettings other) {
        return client == other.client && clientChanges.equals(other.clientChanges) && timeout.equals(other.timeout);
    }

    Reading reading() {
        return reading;
    }
}
