package org.protypos.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.List;

/**
 * Runs the commands once each, so that the launcher can keep the classes they load in a class-data archive. It goes
 * through the same doors as the program itself; what it says is of no interest.
 */
final class WarmUp {
    private WarmUp() {}

    /**
     * Runs the commands.
     *
     * @param arguments a contract, and a folder to preview the output for
     */
    public static void main(String[] arguments) throws InterruptedException {
        Main.start("show", arguments[0]);
        List<String[]> commands = List.of(
                new String[] {"show", arguments[0], "--json"},
                new String[] {"check", arguments[0]},
                new String[] {"check", arguments[0] + ".missing"},
                new String[] {"generate", arguments[0], "--into", arguments[1]},
                new String[] {"sample", arguments[0], "--all", "--full", "--into", arguments[1] + "/samples"},
                new String[] {"proof", arguments[0], "--message", arguments[1] + "/samples"});
        for (String[] command : commands) {
            Main.run(new PrintWriter(new StringWriter()), new PrintWriter(new StringWriter()), command);
        }
    }
}
