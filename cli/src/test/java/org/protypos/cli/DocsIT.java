package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.target.Targets;

/**
 * Every command of the documentation is run, page by page, in a folder with the examples, and prints what the page says it prints. A line
 * {@code ...} stands for any lines, three dots at the end of a line for any rest of it.
 */
class DocsIT {
    private static final Path TOP = Path.of("..").toAbsolutePath().normalize();
    private static final Pattern LINK = Pattern.compile("]\\(([^)#]+)(#[^)]*)?\\)");

    private static final Pattern WORD = Pattern.compile("'([^']*)'|\\S+");

    @TempDir
    private Path folder;

    /** A command with the lines that are to follow it. */
    private record Step(String command, List<String> expected) {}

    static List<Path> pages() throws IOException {
        List<Path> pages = new ArrayList<>(List.of(TOP.resolve("README.md")));
        try (Stream<Path> docs = Files.list(TOP.resolve("docs"))) {
            docs.filter(page -> page.toString().endsWith(".md")).sorted().forEach(pages::add);
        }
        return pages;
    }

    private static List<Step> steps(Path page) throws IOException {
        List<Step> steps = new ArrayList<>();
        Step running = null;
        for (String line : Files.readAllLines(page)) {
            if (line.startsWith("    $ ")) {
                running = new Step(
                        line.substring(6).replaceFirst("\\s{2,}# .*$", "").strip(), new ArrayList<>());
                steps.add(running);
            } else if (running != null && (line.startsWith("    ") || line.isBlank())) {
                running.expected().add(line.isBlank() ? "" : line.substring(4));
            } else {
                running = null;
            }
        }
        steps.forEach(step -> {
            List<String> lines = step.expected();
            while (!lines.isEmpty() && lines.get(lines.size() - 1).isEmpty()) {
                lines.remove(lines.size() - 1);
            }
        });
        return steps;
    }

    @ParameterizedTest
    @MethodSource("pages")
    void everyCommandDoesWhatThePageSays(Path page) throws Exception {
        try (Stream<Path> files = Files.walk(TOP.resolve("examples"))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Path copy = folder.resolve(TOP.relativize(file).toString());
                Files.createDirectories(copy.getParent());
                Files.copy(file, copy);
            }
        }
        String port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = String.valueOf(free.getLocalPort());
        }
        Process playing = null;
        try {
            for (Step step : steps(page)) {
                String[] words = words(step.command().replace("8480", port));
                if (!words[0].equals("protypos") || isLackingCompiler(step)) {
                    continue;
                }
                String[] arguments = java.util.Arrays.copyOfRange(words, 1, words.length);
                String said;
                if (arguments[0].equals("stand-in")) {
                    if (playing != null) {
                        playing.destroy();
                        playing.waitFor();
                    }
                    Path out = Files.createTempFile("out", ".txt");
                    playing = new BuiltProgram(folder).begin(out, append(arguments, port));
                    said = begun(out);
                } else {
                    BuiltProgram.Run run = new BuiltProgram(folder).run(arguments);
                    assertThat(run.status())
                            .as("%s: %s%s", step.command(), run.out(), run.err())
                            .isIn(ExitStatus.DONE, ExitStatus.CONTRACT, ExitStatus.PROMISE);
                    said = expectsErrors(step) ? run.err() + run.out() : run.out() + run.err();
                }
                compare(step, said.replace(port, "8480"));
            }
        } finally {
            if (playing != null) {
                playing.destroy();
                playing.waitFor(10, TimeUnit.SECONDS);
            }
        }
    }

    /** The tour in C# needs a compiler that is not everywhere; in continuous integration it is. */
    private static boolean isLackingCompiler(Step step) {
        return step.command().contains("demo --language csharp")
                && System.getenv("CI") == null
                && Targets.named("csharp").toolchain().missing() != null;
    }

    /** As a shell takes them apart; what stands between quotes is one word. */
    private static String[] words(String command) {
        return WORD.matcher(command)
                .results()
                .map(word -> word.group(1) == null ? word.group() : word.group(1))
                .toArray(String[]::new);
    }

    private static String[] append(String[] arguments, String port) {
        List<String> all = new ArrayList<>(List.of(arguments));
        all.addAll(List.of("--port", port));
        return all.toArray(String[]::new);
    }

    private static boolean expectsErrors(Step step) {
        return step.expected().stream().anyMatch(line -> line.startsWith("error:"));
    }

    /** What a service says when it has begun. */
    private static String begun(Path out) throws IOException, InterruptedException {
        for (int i = 0; i < 600; i++) {
            String said = Files.readString(out);
            if (said.contains("\nnext: ")) {
                return said;
            }
            Thread.sleep(50);
        }
        throw new AssertionError("it has not begun: " + Files.readString(out));
    }

    private static void compare(Step step, String said) {
        if (step.expected().isEmpty()) {
            return;
        }
        StringBuilder pattern = new StringBuilder("(?s)");
        List<String> lines = step.expected();
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i);
            if (line.strip().equals("...")) {
                pattern.append("(?:.*\n)?");
            } else if (line.endsWith("...")) {
                pattern.append(Pattern.quote(line.substring(0, line.length() - 3)))
                        .append("[^\n]*\n");
            } else {
                pattern.append(Pattern.quote(line)).append("\n");
            }
        }
        assertThat(said + (said.endsWith("\n") ? "" : "\n"))
                .as(step.command())
                .matches(text -> Pattern.matches(pattern.toString(), text), "is\n" + String.join("\n", lines));
    }

    @Test
    void noLinkOfTheDocumentationLeadsNowhere() throws IOException {
        List<String> lost = new ArrayList<>();
        for (Path page : pages()) {
            Matcher links = LINK.matcher(Files.readString(page));
            while (links.find()) {
                String target = links.group(1);
                if (!target.matches("https?://.*") && !Files.exists(page.resolveSibling(target))) {
                    lost.add(TOP.relativize(page) + ": " + target);
                }
            }
        }
        assertThat(lost).isEmpty();
    }
}
