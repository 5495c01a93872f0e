package org.protypos.source;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HashMap;
import java.util.Map;

/**
 * What a web server is shown so that it gives a document out. The environment speaks for the host of the first address
 * asked for: {@code PROTYPOS_TOKEN}, or {@code PROTYPOS_USER} and {@code PROTYPOS_PASSWORD}. For all hosts there is the
 * netrc file: the one that {@code NETRC} names, or {@code .netrc} in the home folder. No secret ever stands in a message.
 */
final class Credentials {
    private final Map<String, String> environment;
    private String host;

    Credentials(Map<String, String> environment) {
        this.environment = environment;
    }

    /** The value of the header {@code Authorization} for an address, or null. */
    String authorization(URI address) throws IOException {
        if (host == null) {
            host = address.getHost();
        }
        boolean first = host.equalsIgnoreCase(address.getHost());
        String token = environment.get("PROTYPOS_TOKEN");
        String user = environment.get("PROTYPOS_USER");
        if (first && token != null) {
            return "Bearer " + token;
        }
        if (first && user != null) {
            return basic(user, environment.getOrDefault("PROTYPOS_PASSWORD", ""));
        }
        String[] entry = entry(address.getHost());
        return entry == null ? null : basic(entry[0], entry[1]);
    }

    private static String basic(String user, String password) {
        byte[] pair = (user + ":" + password).getBytes(StandardCharsets.UTF_8);
        return "Basic " + Base64.getEncoder().encodeToString(pair);
    }

    /** User and password of a host in the netrc file; its last entry may be for all others. */
    private String[] entry(String wanted) throws IOException {
        String named = environment.get("NETRC");
        Path file = named != null ? Path.of(named) : Path.of(System.getProperty("user.home"), ".netrc");
        if (!Files.isRegularFile(file)) {
            return null;
        }
        String[] words =
                Files.readString(file).replaceAll("(?m)^\\s*#.*$", "").strip().split("\\s+");
        Map<String, String> entry = null;
        for (int i = 0; i < words.length; i++) {
            boolean everybody = words[i].equals("default");
            if (everybody || words[i].equals("machine") && i + 1 < words.length) {
                if (entry != null && entry.containsKey("login")) {
                    break;
                }
                entry = everybody || words[++i].equalsIgnoreCase(wanted) ? new HashMap<>() : null;
            } else if ((words[i].equals("login") || words[i].equals("password")) && i + 1 < words.length) {
                String key = words[i];
                String value = words[++i];
                if (entry != null) {
                    entry.put(key, value);
                }
            }
        }
        return entry == null || !entry.containsKey("login")
                ? null
                : new String[] {entry.get("login"), entry.getOrDefault("password", "")};
    }
}
