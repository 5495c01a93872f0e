package org.protypos.cli.terminal;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Set;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** What values options may have: one that is out of range is told in a sentence, before anything is done. */
public record Limits(CommandSpec spec) {
    private static final int HIGHEST_PORT = 65_535;

    /** Header fields that HTTP clients write themselves (RFC 9110, section 7.2 and chapter 8; RFC 9112, chapter 6). */
    private static final Set<String> OWN_HEADERS =
            Set.of("connection", "content-length", "expect", "host", "upgrade", "transfer-encoding");

    /** A number in a range. */
    public void number(String option, long value, long least, long most) {
        if (value < least || value > most) {
            throw new ParameterException(
                    spec.commandLine(),
                    option + ": " + value + " is " + (value < least ? "less than " + least : "more than " + most));
        }
    }

    /** A port to listen at, or 0 for any. */
    public void port(String option, int value) {
        number(option, value, 0, HIGHEST_PORT);
    }

    /** An http or https address. */
    public void address(String option, String value) {
        String why = null;
        try {
            URI address = new URI(value);
            String scheme = String.valueOf(address.getScheme()).toLowerCase(Locale.ROOT);
            if (!scheme.equals("http") && !scheme.equals("https")) {
                why = "it begins with neither http:// nor https://";
            } else if (address.getHost() == null || address.getPort() > HIGHEST_PORT) {
                why = "it names no host";
            }
        } catch (URISyntaxException e) {
            why = e.getReason().toLowerCase(Locale.ROOT);
        }
        if (why != null) {
            throw new ParameterException(
                    spec.commandLine(), option + ": " + Terminal.plain(value) + " is no address to call: " + why);
        }
    }

    /** An HTTP header field (RFC 9110, sections 5.1 and 5.5). */
    public void header(String option, String header) {
        int colon = header.indexOf(':');
        if (colon <= 0) {
            throw new ParameterException(spec.commandLine(), option + ": write it like Name: value");
        }
        String name = header.substring(0, colon).strip();
        String value = header.substring(colon + 1).strip();
        if (!name.matches("[!#$%&'*+.^_`|~0-9A-Za-z-]+")) {
            throw new ParameterException(
                    spec.commandLine(), option + ": \"" + Terminal.plain(name) + "\" is no name for an HTTP header");
        }
        if (OWN_HEADERS.contains(name.toLowerCase(Locale.ROOT))) {
            throw new ParameterException(
                    spec.commandLine(), option + ": " + name + " is written by HTTP itself and cannot be set");
        }
        if (value.chars().anyMatch(c -> c < ' ' && c != '\t' || c == 0x7F || c > 0xFF)) {
            throw new ParameterException(
                    spec.commandLine(),
                    option + ": the value of " + name + " holds a character that no HTTP header can have");
        }
    }
}
