package org.protypos.runtime.soap;

import java.net.http.HttpClient;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.protypos.runtime.xml.XmlLimits;

/** How a client talks to a service. Settings never change: each method gives a copy with one thing set. */
public final class SoapSettings {
    private static final Duration DEFAULT_TIMEOUT = Duration.ofSeconds(60);

    private final String address;
    private final Duration timeout;
    private final Map<String, String> headers;
    private final HttpClient client;
    private final XmlLimits limits;

    private SoapSettings(
            String address, Duration timeout, Map<String, String> headers, HttpClient client, XmlLimits limits) {
        this.address = address;
        this.timeout = timeout;
        this.headers = headers;
        this.client = client;
        this.limits = limits;
    }

    static SoapSettings of(SoapPort<?> port) {
        return new SoapSettings(port.address(), DEFAULT_TIMEOUT, Map.of(), null, XmlLimits.DEFAULT);
    }

    /** Sends to another address than the contract's. */
    public SoapSettings address(String value) {
        return new SoapSettings(Objects.requireNonNull(value, "address"), timeout, headers, client, limits);
    }

    /** Gives up when no whole answer has come in this time. The default is one minute. */
    public SoapSettings timeout(Duration value) {
        return new SoapSettings(address, Objects.requireNonNull(value, "timeout"), headers, client, limits);
    }

    /** Adds an HTTP header to every request. */
    public SoapSettings httpHeader(String name, String value) {
        Map<String, String> more = new LinkedHashMap<>(headers);
        more.put(name, value);
        return new SoapSettings(address, timeout, more, client, limits);
    }

    /** Uses an HTTP client of the caller's: with its proxy, TLS context, authenticator and executor. */
    public SoapSettings httpClient(HttpClient value) {
        return new SoapSettings(address, timeout, headers, Objects.requireNonNull(value, "client"), limits);
    }

    /** Holds answers to other bounds than the default ones. */
    public SoapSettings limits(XmlLimits value) {
        return new SoapSettings(address, timeout, headers, client, Objects.requireNonNull(value, "limits"));
    }

    String address() {
        return address;
    }

    Duration timeout() {
        return timeout;
    }

    Map<String, String> headers() {
        return headers;
    }

    HttpClient client() {
        return client == null ? HttpClient.newBuilder().connectTimeout(timeout).build() : client;
    }

    XmlLimits limits() {
        return limits;
    }
}
