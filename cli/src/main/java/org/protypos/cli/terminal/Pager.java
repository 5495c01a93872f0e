package org.protypos.cli.terminal;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.function.Consumer;

/** Hands what is more than a screen to the reader's pager, where somebody reads; everywhere else it is printed as it is. */
public final class Pager {
    /** How {@code less} behaves when its user has not said it: it shows colours, and is gone where all has room. */
    private static final Map<String, String> CUSTOM = Map.of("LESS", "FRX", "LV", "-c");

    /** What a shell ends with when there is no such command. */
    private static final int COMMAND_NOT_FOUND = 127;

    private Pager() {}

    /** Prints what somebody writes. */
    public static void print(Terminal terminal, Consumer<PrintWriter> writer) {
        if (!Terminal.isRead() || command().isEmpty()) {
            writer.accept(terminal.out());
            return;
        }
        StringWriter written = new StringWriter();
        PrintWriter out = new PrintWriter(written);
        writer.accept(out);
        out.flush();
        String text = written.toString();
        if (text.lines().count() < terminal.height() || !isPaged(text)) {
            terminal.out().print(text);
        }
        terminal.out().flush();
    }

    private static String command() {
        String pager = System.getenv().getOrDefault("PAGER", "less").strip();
        return pager.equals("cat") ? "" : pager;
    }

    private static boolean isPaged(String text) {
        ProcessBuilder builder = new ProcessBuilder("sh", "-c", command())
                .redirectOutput(ProcessBuilder.Redirect.INHERIT)
                .redirectError(ProcessBuilder.Redirect.INHERIT);
        CUSTOM.forEach(builder.environment()::putIfAbsent);
        try {
            Process pager = builder.start();
            try (OutputStream out = pager.getOutputStream()) {
                out.write(text.getBytes(StandardCharsets.UTF_8));
            } catch (IOException e) {
                // Who has read enough ends the pager before all has come.
                return pager.waitFor() != COMMAND_NOT_FOUND;
            }
            return pager.waitFor() != COMMAND_NOT_FOUND;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return true;
        }
    }
}
