package org.protypos.cli.exchange;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import java.nio.file.Path;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.Limits;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** A service that a program answers. */
final class ServiceArguments implements Described {
    private CommandSpec spec;
    private String serve;
    private String program;
    private boolean keep;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(
                        String.class,
                        "--serve",
                        "N",
                        "Serves the contract at this port of this machine, 0 for any, or at HOST:N for others too.")
                .into(value -> serve = value);
        syntax.option(
                        String.class,
                        "--program",
                        "COMMAND",
                        "What answers: it reads requests from its standard input and writes answers to its standard"
                                + " output. Begun for each request.")
                .into(value -> program = value);
        syntax.flag("--keep", "The program stays, and gets one request after the other.")
                .into(value -> keep = value);
    }

    /** Whether there is one. */
    boolean isGiven() {
        return serve != null;
    }

    /** Refuses what cannot be. */
    void check(Path folder) {
        if (serve == null) {
            if (program != null || keep) {
                throw new ParameterException(
                        spec.commandLine(), (keep ? "--keep" : "--program") + " answers callers: give --serve too");
            }
            return;
        }
        if ((program == null) == (folder == null)) {
            throw new ParameterException(spec.commandLine(), "say who answers: --program or --files");
        }
        if (keep && program == null) {
            throw new ParameterException(spec.commandLine(), "--keep is about a program: give --program too");
        }
        String number = serve.substring(serve.lastIndexOf(':') + 1);
        if (!number.matches("[0-9]{1,5}")) {
            throw new ParameterException(
                    spec.commandLine(), "--serve: " + serve + " is no port; write 8490 or HOST:8490");
        }
        new Limits(spec).port("--serve", Integer.parseInt(number));
        try {
            address();
        } catch (UnknownHostException e) {
            throw new ParameterException(spec.commandLine(), "--serve: this machine is not known as " + serve);
        }
    }

    /** Whether others than this machine may ask. */
    boolean isOpen() {
        return serve.contains(":");
    }

    /** Where it is served. */
    InetSocketAddress address() throws UnknownHostException {
        int colon = serve.lastIndexOf(':');
        int port = Integer.parseInt(serve.substring(colon + 1));
        return colon < 0
                ? new InetSocketAddress(InetAddress.getLoopbackAddress(), port)
                : new InetSocketAddress(InetAddress.getByName(serve.substring(0, colon)), port);
    }

    /** The command that answers, or null when files do. */
    String program() {
        return program;
    }

    /** Whether it stays for the next request. */
    boolean isKept() {
        return keep;
    }
}
