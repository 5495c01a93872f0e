package org.protypos.source.fetch;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.protypos.runtime.soap.Origin;
import org.protypos.runtime.soap.SoapSettings;

/**
 * What a web server is shown so that it gives a document out. The environment speaks for the servers that somebody has
 * named on the command line, and for none that only a document or a redirection names: {@code PROTYPOS_TOKEN}, or {@code PROTYPOS_USER} and {@code PROTYPOS_PASSWORD}. For all hosts there is the
 * netrc file: the one that {@code NETRC} names, or {@code .netrc} in the home folder. No secret ever stands in a message.
 */
final class Credentials {
    private final Map<String, String> environment;
    private final Set<Origin> named = new HashSet<>();
    private final Map<Origin, String> typed = new HashMap<>();

    Credentials(Map<String, String> environment) {
        this.environment = environment;
    }

    /**
     * Says that somebody has named an address, perhaps with user and password: these are for its server alone.
     *
     * @return the address without them
     */
    URI name(URI address) {
        named.add(Origin.of(address));
        if (address.getUserInfo() == null) {
            return address;
        }
        String[] pair = address.getUserInfo().split(":", 2);
        typed.put(Origin.of(address), SoapSettings.basic(pair[0], pair.length == 1 ? "" : pair[1]));
        return URI.create(Origin.withoutUser(address.toString()));
    }

    /** Whether somebody has named the server of an address. */
    boolean isNamed(URI address) {
        return named.contains(Origin.of(address));
    }

    /** The value of the header {@code Authorization} for an address, or null. */
    String authorization(URI address) throws IOException {
        if (typed.containsKey(Origin.of(address))) {
            return typed.get(Origin.of(address));
        }
        boolean first = isNamed(address);
        String token = environment.get("PROTYPOS_TOKEN");
        String user = environment.get("PROTYPOS_USER");
        if (first && token != null) {
            return "Bearer " + token;
        }
        if (first && user != null) {
            return SoapSettings.basic(user, environment.getOrDefault("PROTYPOS_PASSWORD", ""));
        }
        String[] entry = entry(address.getHost());
        return entry == null ? null : SoapSettings.basic(entry[0], entry[1]);
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
