package org.protypos.target;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;

/** Runs programs of a toolchain. */
public final class ToolchainProcess {
    private ToolchainProcess() {}

    /**
     * Runs a program to its end.
     *
     * @param program the program, its arguments and what is around it
     * @param lines where each line goes that it prints, in UTF-8
     * @throws IOException when it cannot be started, or ends with another status than 0
     */
    public static void run(ProcessBuilder program, Consumer<String> lines) throws IOException {
        Process process = program.redirectErrorStream(true).start();
        process.getOutputStream().close();
        try (BufferedReader said =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            said.lines().forEach(lines);
        }
        int status = end(process);
        if (status != 0) {
            throw new IOException(program.command().get(0) + " ends with status " + status);
        }
    }

    /**
     * Runs a compiler that takes warnings for errors.
     *
     * @return what it says when it fails, empty when it does not
     */
    public static String complaints(ProcessBuilder compiler) {
        StringBuilder said = new StringBuilder();
        try {
            run(compiler, line -> said.append(line).append('\n'));
            return "";
        } catch (IOException e) {
            return said.isEmpty() ? e.getMessage() : said.toString().strip();
        }
    }

    /** Waits for the end of a program, and gives its status. */
    public static int end(Process process) throws IOException {
        try {
            return process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }
}
