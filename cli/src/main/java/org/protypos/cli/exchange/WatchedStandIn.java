package org.protypos.cli.exchange;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ReferencePages;
import org.protypos.contract.Contract;
import org.protypos.exchange.page.StandInPage;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.Relay;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.Deviation;

/** A stand-in that plays what its files say, and goes on with what they say when they become others. */
final class WatchedStandIn {
    private static final int PAUSE = 300;

    private final Terminal terminal;
    private final Source source;
    private final Relay relay;
    private final Set<String> hosts;
    private final Set<String> origins;
    private final FileWatch watch = new FileWatch();

    /**
     * What is played.
     *
     * @param generator makes code of the contract
     * @param contract the contract, or null when something is wrong, which has been told
     * @param answers what is answered otherwise than with samples
     * @param files the files that say so
     * @param status how the command ends when something is wrong
     */
    record Played(Generator generator, Contract contract, Answers answers, List<Path> files, int status) {
        /** Nothing is. */
        static Played not(int status) {
            return new Played(null, null, null, List.of(), status);
        }

        boolean isSound() {
            return contract != null;
        }
    }

    /** Reads what is to be played. */
    interface Source {
        /**
         * Reads it.
         *
         * @param consequence what follows when something is wrong
         */
        Played read(Terminal terminal, String consequence) throws IOException;
    }

    /**
     * Begins.
     *
     * @param relay the real service, or null
     * @param hosts further names under which it may be asked
     * @param origins origins of pages that may call it
     */
    WatchedStandIn(Terminal terminal, Source source, Relay relay, Set<String> hosts, Set<String> origins) {
        this.terminal = terminal;
        this.source = source;
        this.relay = relay;
        this.hosts = hosts;
        this.origins = origins;
    }

    /**
     * Plays until it is ended from outside.
     *
     * @param contract how the contract was named
     */
    int serve(InetSocketAddress address, String contract) throws IOException {
        Played played = source.read(terminal, "nothing is served");
        if (!played.isSound()) {
            return played.status();
        }
        watch.add(played.files());
        StandIn standIn = begin(played, address, contract);
        try {
            if (standIn.addresses().isEmpty()) {
                terminal.problem("no port of the contract speaks SOAP or HTTP: nothing is served", "");
                return ExitStatus.CONTRACT;
            }
            tell(standIn);
            terminal.out()
                    .println("next: open the page, or protypos call " + contract
                            + " OPERATION --address "
                            + standIn.addresses().values().iterator().next() + "; Ctrl-C ends");
            terminal.out().flush();
            while (true) {
                Thread.sleep(PAUSE);
                List<Path> changed = watch.changed();
                if (!changed.isEmpty()) {
                    standIn = again(standIn, changed, contract);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            standIn.close();
        }
        return ExitStatus.DONE;
    }

    private StandIn begin(Played played, InetSocketAddress address, String contract) throws IOException {
        StandIn standIn = relay == null
                ? StandIn.serve(played.contract(), address, played.answers(), this::seen)
                : StandIn.between(played.contract(), address, relay, this::seen);
        standIn.admit(hosts, origins);
        StandInPage.publish(standIn, () -> {
            PlannedContract planned = played.generator().plan();
            return new ReferencePages(
                            planned,
                            other -> played.generator().target(other).plan(),
                            contract.replaceFirst("^.*/", ""))
                    .page();
        });
        return standIn;
    }

    private void tell(StandIn standIn) {
        Columns columns = new Columns(2);
        standIn.addresses().forEach((played, at) -> columns.row(played.name(), at));
        columns.row("page", standIn.root() + "/");
        columns.print(terminal.out());
    }

    /** Plays what the files say now, or what they said when something is wrong with what they say now. */
    private StandIn again(StandIn before, List<Path> changed, String contract) throws IOException {
        String files = changed.stream()
                .map(file -> Terminal.plain(String.valueOf(file.getFileName())))
                .collect(Collectors.joining(", "));
        Played played;
        synchronized (terminal) {
            played = read();
            terminal.err().flush();
        }
        if (!played.isSound()) {
            return before;
        }
        watch.add(played.files());
        before.close();
        int port = URI.create(before.root()).getPort();
        StandIn standIn = begin(played, new InetSocketAddress(InetAddress.getLoopbackAddress(), port), contract);
        synchronized (terminal) {
            terminal.line(files, "changed, and is played as it is now");
            if (!List.copyOf(standIn.addresses().values())
                    .equals(List.copyOf(before.addresses().values()))) {
                tell(standIn);
                terminal.out().flush();
            }
        }
        return standIn;
    }

    private Played read() {
        String consequence = "what was played before goes on";
        try {
            return source.read(terminal, consequence);
        } catch (IOException e) {
            terminal.problem(String.valueOf(e.getMessage()), consequence);
            return Played.not(ExitStatus.OUTSIDE);
        }
    }

    private void seen(StandIn.Seen exchange) {
        synchronized (terminal) {
            PrintWriter out = terminal.out();
            String operation = exchange.operation() == null ? exchange.port() : exchange.operation();
            boolean asSaid =
                    exchange.operation() != null && exchange.deviations().isEmpty();
            out.println(operation + ": " + (asSaid ? "" : "not ") + "as the contract says");
            print(out, exchange.deviations());
            if (exchange.failure() != null && exchange.deviations().isEmpty()) {
                boolean none = asSaid && exchange.answer().isEmpty();
                out.println("  " + (none ? "no answer: " : "") + Terminal.plain(exchange.failure()));
            }
            if (!exchange.answered().isEmpty()) {
                out.println("  the answer is not as the contract says");
                print(out, exchange.answered());
            }
            terminal.out().flush();
        }
    }

    private static void print(PrintWriter out, List<Deviation> deviations) {
        deviations.forEach(deviation -> out.println("  " + Terminal.plain(deviation.path() + ": " + deviation.came())));
    }
}
