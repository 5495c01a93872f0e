package org.protypos.cli.argument;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.terminal.Limits;
import org.protypos.runtime.soap.SoapSettings;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Where and how services are called. */
public final class TransportArguments {
    private static final int LONGEST_TIMEOUT = 86_400;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Option(names = "--address", paramLabel = "URL", description = "Where to call instead of the port's address.")
    private String address;

    @Option(names = "--header", paramLabel = "NAME: VALUE", description = "An HTTP header. May be repeated.")
    private List<String> headers = new ArrayList<>();

    @Option(
            names = "--timeout",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = "How long to wait; 30 if not given.")
    private int timeout;

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
