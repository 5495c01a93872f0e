package org.protypos.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import picocli.CommandLine.Model.OptionSpec;

/**
 * Runs random command lines one after the other in the folder that it is started in, with files that are changed between
 * them, and writes a line for each: what was said, and what came of it. A program of its own, since the folder counts.
 */
final class RandomCommands {
    /** What was run, with which end. */
    record Ran(long seed, List<String> arguments, int status, String out, String err, boolean ended) {}

    private static final long STACK_BYTES = 256L << 20;
    private static final long MOST_MILLIS = 30_000;
    private static final Path HERE = Path.of("").toAbsolutePath();

    static final List<String> COMMANDS = List.of(
            "show",
            "check",
            "generate",
            "sample",
            "proof",
            "compare",
            "call",
            "bridge",
            "draft",
            "infer",
            "adopt",
            "refresh",
            "abandon",
            "repair",
            "schema",
            "completion");

    /** Values for options, the sound ones more often than the others; of options that are not here any file. */
    private static final Map<String, List<String>> VALUES = Map.ofEntries(
            Map.entry("--address", List.of("http://127.0.0.1:1/desk", "nowhere")),
            Map.entry("--accept", List.of("documents", "breaking", "all")),
            Map.entry("--as", List.of("requestBerth", "Need", "vessel")),
            Map.entry("--bind", List.of("soap11", "soap12", "soap")),
            Map.entry("--code-page", List.of("IBM273", "UTF-8", "none")),
            Map.entry("--depth", List.of("1", "3", "-1", "deep")),
            Map.entry("--element", List.of("requestBerth", "noBerthFree", "")),
            Map.entry("--fail-on", List.of("breaking", "any", "x")),
            Map.entry("--for", List.of("client", "server", "both", "all")),
            Map.entry("--form", List.of("fixed", "free", "x")),
            Map.entry("--header", List.of("Pier: 7", "no header", "Pier: \r\n7")),
            Map.entry("--html", List.of("page.html", "desk.xsd/page.html")),
            Map.entry("--into", List.of("out", "out/deep", "contract", "desk.wsdl")),
            Map.entry("--jar", List.of("desk-1.jar")),
            Map.entry("--language", List.of("java", "csharp", "cobol", "morse")),
            Map.entry("--message", List.of("messages", "messages/berth.xml", "none")),
            Map.entry("--name", List.of("desk", "pier", "..", "a b")),
            Map.entry("--operation", List.of("requestBerth", "*", "sail")),
            Map.entry("--package", List.of("bay.desk", "class", "1x")),
            Map.entry("--port", List.of("HarbourDesk", "*", "7")),
            Map.entry("--produce", List.of("types", "client,server", "sails")),
            Map.entry("--profile", List.of("basic-1.1", "basic-2.0", "x")),
            Map.entry("--record-out", List.of("answer.rec")),
            Map.entry("--rename", List.of("pier")),
            Map.entry("--repeat", List.of("2", "0")),
            Map.entry("--runtime", List.of("embedded", "library", "x")),
            Map.entry("--scaffold", List.of("src")),
            Map.entry("--server", List.of("jdk", "servlet", "x")),
            Map.entry("--service", List.of("HarbourDesk", "*")),
            Map.entry("--style", List.of("document", "rpc", "x")),
            Map.entry("--timeout", List.of("1", "x")),
            Map.entry("--war", List.of("desk.war")),
            Map.entry("--witness", List.of("witnesses")));

    private static final List<String> JUNK = List.of(
            "[]",
            "{}",
            "null",
            "''",
            "- x",
            "a: b",
            "*a",
            "&a x",
            "1e400",
            "-1",
            "\u00e9",
            "\u2028",
            "'\"",
            "|\n  x",
            "true",
            "{a: {b: c}}",
            "\t",
            "%",
            "@x",
            "/",
            "..",
            "");

    private final Random random;
    private final List<String> names = new ArrayList<>();

    private RandomCommands(long seed) {
        random = new Random(seed);
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    /** Folder of the examples, file for the lines, first seed, number of seeds. */
    public static void main(String[] arguments) throws Exception {
        ObjectMapper json = new ObjectMapper();
        long first = Long.parseLong(arguments[2]);
        for (long seed = first; seed < first + Long.parseLong(arguments[3]); seed++) {
            for (Ran ran : new RandomCommands(seed).round(Path.of(arguments[0]), seed)) {
                Files.writeString(
                        Path.of(arguments[1]),
                        json.writeValueAsString(ran) + "\n",
                        StandardOpenOption.CREATE,
                        StandardOpenOption.APPEND);
            }
        }
        System.exit(0);
    }

    private List<Ran> round(Path examples, long seed) throws Exception {
        begin(examples);
        List<Ran> all = new ArrayList<>();
        if (random.nextInt(3) > 0) {
            all.add(run(seed, List.of("adopt", "desk.wsdl", "--name", "desk")));
            if (random.nextBoolean()) {
                all.add(run(seed, List.of("generate")));
            }
        }
        for (int step = 0; step < 4; step++) {
            if (random.nextBoolean()) {
                change(one(files("")));
            }
            all.add(run(seed, line()));
        }
        return all;
    }

    private void begin(Path examples) throws IOException {
        try (Stream<Path> old = Files.walk(HERE)) {
            for (Path path : old.sorted(Comparator.reverseOrder()).toList()) {
                if (!path.equals(HERE)) {
                    Files.delete(path);
                }
            }
        }
        copy(examples.resolve("harbour/contract"), HERE);
        copy(examples.resolve("harbour/next"), HERE.resolve("next"));
        copy(examples.resolve("harbour/messages"), HERE.resolve("messages"));
        copy(examples.resolve("fog"), HERE);
        copy(examples.resolve("customs"), HERE.resolve("customs"));
        copy(examples.resolve("tables"), HERE.resolve("tables"));
        for (Path file : files(".wsdl")) {
            Matcher named = Pattern.compile(" name=\"([^\"]+)\"").matcher(Files.readString(file));
            while (named.find()) {
                names.add(named.group(1));
            }
        }
    }

    private static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> all = Files.walk(from)) {
            for (Path path : all.sorted().toList()) {
                Path target = to.resolve(from.relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(path, target);
                }
            }
        }
    }

    private static List<Path> files(String end) throws IOException {
        try (Stream<Path> all = Files.walk(HERE)) {
            return all.filter(Files::isRegularFile)
                    .filter(path ->
                            path.toString().endsWith(end) && !path.toString().endsWith(".java"))
                    .sorted()
                    .toList();
        }
    }

    private String file(String end) throws IOException {
        List<Path> some = files(end);
        return some.isEmpty() || random.nextInt(15) == 0
                ? one(List.of("none.xml", ".", "customs", ""))
                : HERE.relativize(one(some)).toString();
    }

    private List<String> line() throws IOException {
        String command = one(COMMANDS);
        List<String> line = new ArrayList<>(List.of(command));
        switch (command) {
            case "infer" -> line.addAll(List.of(file(".xml"), "--into", "schemas"));
            case "draft" -> line.addAll(List.of(file(".yaml"), "--into", "contract"));
            case "refresh", "abandon", "repair" -> line.add(one(List.of("desk", "desk", "pier")));
            case "sample" -> line.addAll(List.of(contract(), "--all", "--into", "samples"));
            case "schema" -> line.add(one(List.of("project", "rules", "call", "x")));
            case "completion" -> line.addAll(List.of(one(List.of("bash", "zsh")), contract()));
            case "compare" -> line.addAll(List.of(contract(), contract()));
            case "call" -> line.addAll(List.of(contract(), one(names), "--address", "http://127.0.0.1:1/"));
            case "show" -> line.addAll(random.nextBoolean() ? List.of(contract()) : List.of(contract(), one(names)));
            case "proof" -> line.addAll(List.of(contract(), "--message", one(VALUES.get("--message"))));
            default -> line.add(contract());
        }
        List<OptionSpec> options =
                Protypos.line(command).getSubcommands().get(command).getCommandSpec().options().stream()
                        .filter(option -> !option.usageHelp())
                        .filter(option ->
                                !List.of("--listen", "--serve", "--files").contains(option.longestName()))
                        .toList();
        for (int more = random.nextInt(3); more > 0 && !options.isEmpty(); more--) {
            OptionSpec option = one(options);
            line.add(option.longestName());
            if (option.arity().max() > 0) {
                List<String> values = VALUES.get(option.longestName());
                line.add(values == null ? file("") : one(values));
            }
        }
        return line;
    }

    private String contract() throws IOException {
        return random.nextInt(4) == 0 ? "desk" : file(random.nextBoolean() ? ".wsdl" : ".xsd");
    }

    /** Does to a file what a slip of the hand does, or a merge. */
    private void change(Path file) throws IOException {
        List<String> lines = new ArrayList<>(
                Arrays.asList(new String(Files.readAllBytes(file), StandardCharsets.UTF_8).split("\n", -1)));
        int at = random.nextInt(lines.size());
        String line = lines.get(at);
        switch (random.nextInt(6)) {
            case 0 -> lines.remove(at);
            case 1 -> lines.add(at, one(lines));
            case 2 -> lines.set(at, "  " + line);
            case 3 -> lines.set(at, line.replaceFirst(":.*", ": " + Matcher.quoteReplacement(one(JUNK))));
            case 4 -> lines.set(at, line.replaceFirst("\"[^\"]*\"", Matcher.quoteReplacement("\"" + one(JUNK) + "\"")));
            default -> {
                String[] words = line.split("(?<=\\W)|(?=\\W)");
                words[random.nextInt(words.length)] = one(JUNK);
                lines.set(at, String.join("", words));
            }
        }
        Files.writeString(file, String.join("\n", lines));
    }

    private static Ran run(long seed, List<String> arguments) throws InterruptedException {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        AtomicInteger status = new AtomicInteger(-1);
        Thread thread = new Thread(
                null,
                () -> status.set(
                        Main.run(new PrintWriter(out), new PrintWriter(err), arguments.toArray(String[]::new))),
                "command",
                STACK_BYTES);
        thread.setDaemon(true);
        thread.start();
        thread.join(MOST_MILLIS);
        boolean ended = !thread.isAlive();
        return new Ran(seed, arguments, status.get(), out.toString(), err.toString(), ended);
    }
}
