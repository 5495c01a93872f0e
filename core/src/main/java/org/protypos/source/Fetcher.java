package org.protypos.source;

import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.channels.UnresolvedAddressException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;

/** Gets the bytes behind an address: a file, or a document on a web server. */
final class Fetcher {
    private static final int LARGEST_DOCUMENT = 128 << 20;
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    private HttpClient client;

    /**
     * Gets a document.
     *
     * @throws IOException when it cannot be had; the message says why, for a person
     */
    byte[] fetch(URI address) throws IOException {
        return switch (String.valueOf(address.getScheme())) {
            case "file" -> file(Path.of(address));
            case "http", "https" -> download(address);
            default ->
                throw new IOException("addresses of the kind \"" + address.getScheme() + ":\" cannot be fetched");
        };
    }

    private static byte[] file(Path path) throws IOException {
        try (InputStream stream = Files.newInputStream(path)) {
            return bounded(stream);
        } catch (NoSuchFileException e) {
            throw new IOException("there is no such file", e);
        } catch (IOException e) {
            throw new IOException(Files.isDirectory(path) ? "it is a directory" : "it cannot be read", e);
        }
    }

    private static byte[] bounded(InputStream stream) throws IOException {
        byte[] bytes = stream.readNBytes(LARGEST_DOCUMENT + 1);
        if (bytes.length > LARGEST_DOCUMENT) {
            throw new IOException("it is longer than " + LARGEST_DOCUMENT + " bytes");
        }
        return bytes;
    }

    private byte[] download(URI address) throws IOException {
        if (client == null) {
            client = HttpClient.newBuilder()
                    .connectTimeout(PATIENCE)
                    .followRedirects(HttpClient.Redirect.NORMAL)
                    .build();
        }
        try {
            HttpResponse<InputStream> response = client.send(
                    HttpRequest.newBuilder(address).timeout(PATIENCE).build(),
                    HttpResponse.BodyHandlers.ofInputStream());
            try (InputStream body = response.body()) {
                if (response.statusCode() != 200) {
                    throw new IOException("the server answered with HTTP status " + response.statusCode());
                }
                return bounded(body);
            }
        } catch (IllegalArgumentException e) {
            throw new IOException("it is no address of a document", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("the download was interrupted", e);
        } catch (UnknownHostException e) {
            throw new IOException("its host " + address.getHost() + " is not known", e);
        } catch (HttpTimeoutException e) {
            throw new IOException("no answer within " + PATIENCE.toSeconds() + " seconds", e);
        } catch (ConnectException e) {
            throw new IOException(
                    e.getCause() instanceof UnresolvedAddressException
                            ? "its host " + address.getHost() + " is not known"
                            : "nothing answers at " + address.getAuthority(),
                    e);
        }
    }
}
