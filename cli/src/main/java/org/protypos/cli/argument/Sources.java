package org.protypos.cli.argument;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.fetch.Remote;
import picocli.CommandLine.Model.CommandSpec;

/** Where the documents of a contract come from that its own documents lead to. */
public final class Sources implements Described {
    private Path catalog;
    private boolean offline;
    private CommandSpec spec;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(
                        Path.class,
                        "--catalog",
                        "FILE",
                        "An OASIS XML catalog that maps addresses and namespaces to local documents.")
                .into(value -> catalog = value);
        syntax.flag("--offline", "Fetches nothing from web servers.").into(value -> offline = value);
    }

    /** The catalog that was given, or null. */
    Path catalog() {
        return catalog;
    }

    /** Without a catalog and without the network. */
    public static Sources withoutNetwork() {
        Sources sources = new Sources();
        sources.offline = true;
        return sources;
    }

    /** Reads a contract with the catalog that was given. */
    public Contract read(List<String> names) {
        try {
            return Progress.during("reading " + String.join(" ", names), isSilent(), () -> gathered(names));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether a program reads what the command prints. */
    private boolean isSilent() {
        return spec == null
                || spec.commandLine().getParseResult() != null
                        && spec.commandLine().getParseResult().hasMatchedOption("--json");
    }

    private Contract gathered(List<String> names) {
        return offline
                ? ContractReader.read(
                        DocumentGatherer.gather(names, catalog, (address, named) -> "nothing is fetched (--offline)"))
                : ContractReader.read(DocumentGatherer.gather(
                        names,
                        catalog,
                        asking(new Terminal(
                                spec.commandLine().getOut(), spec.commandLine().getErr()))));
    }

    /** Lets everything be fetched; what comes from servers that nobody has named is told as it is. */
    public static Remote asking(Terminal terminal) {
        return (address, named) -> {
            if (!Progress.at("fetching " + address) && !named) {
                terminal.err().println("fetching " + Terminal.plain(address.toString()));
                terminal.err().flush();
            }
            return null;
        };
    }
}
