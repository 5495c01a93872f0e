package org.protypos.source.fetch;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.channels.UnresolvedAddressException;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import javax.net.ssl.SSLException;
import org.protypos.runtime.attach.Gzip;
import org.protypos.runtime.value.Lexical;

/**
 * Gets documents from web servers. Trust store and client certificate are those of the platform's properties; the proxy is
 * that of {@code HTTPS_PROXY}, {@code HTTP_PROXY} and {@code NO_PROXY}, or else of the platform's properties.
 */
public final class Web {
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    /** How long one document may take altogether, and how long all of them. */
    private static final Duration MOST_TIME = Duration.ofSeconds(60);

    private static final Duration MOST_OF_ALL = Duration.ofMinutes(5);
    private static final int MOST_HOPS = 10;
    private static final int ATTEMPTS = 3;
    private static final long PAUSE = 300;
    private static final int LONGEST_SHOWN = 200;
    private static final Set<Integer> REDIRECTS = Set.of(301, 302, 303, 307, 308);

    /** What may be over soon (RFC 9110, section 15.6; RFC 6585, section 4). */
    private static final Set<Integer> PASSING = Set.of(429, 502, 503, 504);

    private final Map<String, String> environment;
    private final Credentials credentials;
    private final Duration most;
    private long spent;
    private HttpClient client;

    /** Fetches with the settings of an environment. */
    public Web(Map<String, String> environment) {
        this(environment, MOST_TIME);
    }

    /**
     * Makes one with another patience.
     *
     * @param most how long one document may take
     */
    public Web(Map<String, String> environment, Duration most) {
        this.environment = environment;
        this.most = most;
        this.credentials = new Credentials(environment);
    }

    /** Says that somebody has named an address: its server may see who asks. */
    public URI name(URI address) {
        return credentials.name(address);
    }

    /** Whether somebody has named the server of an address. */
    boolean isNamed(URI address) {
        return credentials.isNamed(address);
    }

    /**
     * Gets a document.
     *
     * @throws IOException when it cannot be had; the message says why, for a person
     */
    public byte[] fetch(URI address) throws IOException {
        if (spent > MOST_OF_ALL.toNanos()) {
            throw new IOException("fetching has taken more than " + MOST_OF_ALL.toMinutes() + " minutes already");
        }
        long start = System.nanoTime();
        try {
            return tried(address);
        } finally {
            spent += System.nanoTime() - start;
        }
    }

    private byte[] tried(URI address) throws IOException {
        for (int attempt = 1; ; attempt++) {
            try {
                return follow(address);
            } catch (Passing e) {
                if (attempt == ATTEMPTS) {
                    throw new IOException(e.getMessage() + ", " + ATTEMPTS + " times", e);
                }
                pause(attempt * PAUSE);
            }
        }
    }

    /** Redirections are followed by hand, for what one host may see is not for another. */
    private byte[] follow(URI address) throws IOException {
        URI at = address;
        for (int hop = 0; hop < MOST_HOPS; hop++) {
            HttpResponse<InputStream> response = send(at);
            try (InputStream body = response.body()) {
                int status = response.statusCode();
                if (REDIRECTS.contains(status)) {
                    at = next(at, response.headers().firstValue("Location").orElse(""));
                    continue;
                }
                if (status == 200) {
                    return document(at, response, body);
                }
                String what = "the server answered with HTTP status " + status;
                if (PASSING.contains(status)) {
                    throw new Passing(what, null);
                }
                throw new IOException(
                        status == 401 || status == 403
                                ? what + ": put user and password for " + at.getHost()
                                        + " into ~/.netrc, or set PROTYPOS_TOKEN"
                                : what);
            }
        }
        throw new IOException("it is redirected more than " + MOST_HOPS + " times");
    }

    private byte[] document(URI at, HttpResponse<InputStream> response, InputStream body) throws IOException {
        byte[] bytes = Fetcher.bounded(whole(body));
        if (Gzip.packs(response.headers().firstValue("Content-Encoding").orElse(""))) {
            bytes = Fetcher.bounded(Gzip.open(new ByteArrayInputStream(bytes)));
        }
        String type = response.headers().firstValue("Content-Type").orElse("").toLowerCase(Locale.ROOT);
        String complaint = WebPage.complaint(bytes, type, at);
        if (complaint != null) {
            throw new IOException(complaint);
        }
        return bytes;
    }

    /** Reads a body, however slowly it comes, for as long as a document may take. */
    private byte[] whole(InputStream body) throws IOException {
        AtomicBoolean late = new AtomicBoolean();
        CompletableFuture<Void> watch = CompletableFuture.runAsync(
                () -> {
                    late.set(true);
                    try {
                        body.close();
                    } catch (IOException e) {
                        // Who reads is told one way or the other.
                        late.set(true);
                    }
                },
                CompletableFuture.delayedExecutor(most.toMillis(), TimeUnit.MILLISECONDS));
        try {
            byte[] bytes = body.readNBytes(Fetcher.LARGEST_DOCUMENT + 1);
            if (!late.get()) {
                return bytes;
            }
        } catch (IOException e) {
            if (!late.get()) {
                throw new Passing("the connection broke off", e);
            }
        } finally {
            watch.cancel(false);
        }
        throw new IOException("it did not come to its end within " + most.toSeconds() + " seconds");
    }

    private static URI next(URI at, String location) throws IOException {
        URI next;
        try {
            next = at.resolve(location.strip());
        } catch (IllegalArgumentException e) {
            throw new IOException("it is redirected to \"" + shown(location) + "\", which is no address", e);
        }
        boolean web = "http".equals(next.getScheme()) || "https".equals(next.getScheme());
        if (location.isBlank() || !web || "https".equals(at.getScheme()) && "http".equals(next.getScheme())) {
            throw new IOException("it is redirected to \"" + shown(location) + "\", which is not followed");
        }
        return next;
    }

    private static String shown(String address) {
        return Lexical.shortened(address, LONGEST_SHOWN);
    }

    private HttpResponse<InputStream> send(URI address) throws IOException {
        if (client == null) {
            client = HttpClient.newBuilder()
                    .connectTimeout(PATIENCE)
                    .followRedirects(HttpClient.Redirect.NEVER)
                    .proxy(new EnvironmentProxies())
                    .build();
        }
        try {
            return client.send(request(address), HttpResponse.BodyHandlers.ofInputStream());
        } catch (IllegalArgumentException e) {
            // The platform's client hands it on as it is when a server states a length that is none.
            throw new Passing("the connection broke off", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("the download was interrupted", e);
        } catch (UnknownHostException e) {
            throw new IOException("its host " + shown(address.getHost()) + " is not known", e);
        } catch (HttpTimeoutException e) {
            throw new IOException("no answer within " + PATIENCE.toSeconds() + " seconds", e);
        } catch (SSLException e) {
            throw new IOException("the connection is not secure: " + e.getMessage(), e);
        } catch (ConnectException e) {
            throw new IOException(
                    e.getCause() instanceof UnresolvedAddressException
                            ? "its host " + shown(address.getHost()) + " is not known"
                            : "nothing answers at " + shown(address.getAuthority()),
                    e);
        } catch (IOException e) {
            throw new Passing("the connection broke off", e);
        }
    }

    private HttpRequest request(URI address) throws IOException {
        try {
            HttpRequest.Builder request =
                    HttpRequest.newBuilder(address).timeout(PATIENCE).header("Accept-Encoding", "gzip");
            String authorization = credentials.authorization(address);
            if (authorization != null) {
                request.header("Authorization", authorization);
            }
            return request.build();
        } catch (IllegalArgumentException e) {
            throw new IOException("it is no address of a document", e);
        }
    }

    private static void pause(long millis) throws IOException {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("the download was interrupted", e);
        }
    }

    /** A failure that may be over when one asks again. */
    private static final class Passing extends IOException {
        private static final long serialVersionUID = 1L;

        Passing(String message, Throwable cause) {
            super(message, cause);
        }
    }

    /** The proxies that the environment names. */
    private final class EnvironmentProxies extends ProxySelector {
        @Override
        public List<Proxy> select(URI address) {
            String key = address.getScheme() + "_proxy";
            String named = environment.getOrDefault(key, environment.get(key.toUpperCase(Locale.ROOT)));
            if (named == null || named.isBlank() || isExempt(address.getHost())) {
                return ProxySelector.getDefault() == null
                        ? List.of(Proxy.NO_PROXY)
                        : ProxySelector.getDefault().select(address);
            }
            URI proxy = URI.create(named.contains("://") ? named : "http://" + named);
            int port = proxy.getPort() < 0 ? 80 : proxy.getPort();
            return List.of(new Proxy(Proxy.Type.HTTP, InetSocketAddress.createUnresolved(proxy.getHost(), port)));
        }

        private boolean isExempt(String host) {
            String list = environment.getOrDefault("no_proxy", environment.getOrDefault("NO_PROXY", ""));
            for (String one : list.split("[,\\s]+")) {
                String suffix = one.startsWith(".") ? one : "." + one;
                if (!one.isEmpty() && (one.equals("*") || ("." + host).endsWith(suffix))) {
                    return true;
                }
            }
            return false;
        }

        @Override
        public void connectFailed(URI address, SocketAddress proxy, IOException failure) {
            // The call itself tells of the failure.
        }
    }
}
