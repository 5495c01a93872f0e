package org.protypos.cli.argument;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.Limits;
import org.protypos.runtime.soap.SoapSettings;
import picocli.CommandLine.Model.CommandSpec;

/** Where and how services are called. */
public final class TransportArguments implements Described {
    private static final int LONGEST_TIMEOUT = 86_400;

    private CommandSpec spec;
    private String address;
    private List<String> headers = new ArrayList<>();
    private int timeout = 30;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(String.class, "--address", "URL", "Where to call instead of the port's address.")
                .into(value -> address = value);
        syntax.options(String.class, "--header", "NAME: VALUE", "An HTTP header. May be repeated.")
                .into(value -> headers = value);
        syntax.option(Integer.class, "--timeout", "SECONDS", "How long to wait; 30 if not given.")
                .into(value -> timeout = value);
    }

    /** Refuses what cannot be. */
    public void check() {
        Limits limits = new Limits(spec);
        limits.number("--timeout", timeout, 1, LONGEST_TIMEOUT);
        if (address != null) {
            limits.address("--address", address);
        }
        headers.forEach(header -> limits.header("--header", header));
    }

    /** Takes what a call that was kept had, where nothing else is given. */
    public void again(String keptAddress, List<String> keptHeaders) {
        address = address == null ? keptAddress : address;
        List<String> all = new ArrayList<>(keptHeaders);
        all.addAll(headers);
        headers = all;
    }

    /** The address that is given, or null. */
    public String address() {
        return address;
    }

    /** How long to wait. */
    public Duration timeout() {
        return Duration.ofSeconds(timeout);
    }

    /** The headers that are given, each with its name, a colon and its value. */
    public List<String> headers() {
        return List.copyOf(headers);
    }

    /** Settings with all that is given, and with who calls. */
    public SoapSettings applied(SoapSettings plain, SecurityArguments security) {
        SoapSettings settings = plain.timeout(timeout()).followRedirects();
        settings = address == null ? settings : settings.address(address);
        settings = security.applied(settings);
        for (String header : headers) {
            int colon = header.indexOf(':');
            settings = settings.httpHeader(
                    header.substring(0, colon).strip(),
                    header.substring(colon + 1).strip());
        }
        return settings;
    }
}
