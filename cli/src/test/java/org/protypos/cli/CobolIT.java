package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Programs in COBOL, compiled by a compiler that is not ours, ask and answer services through the built program. */
class CobolIT {
    private static final Path EXAMPLES = Path.of("../examples").toAbsolutePath();

    @TempDir
    private Path folder;

    private BuiltProgram program;
    private final List<Process> processes = new ArrayList<>();
    private BufferedReader seen;
    private String address;

    /** Skips where there is no compiler; in continuous integration its absence fails. */
    @BeforeAll
    static void assumed() {
        boolean there =
                Stream.of(System.getenv("PATH").split(":")).anyMatch(path -> Files.isExecutable(Path.of(path, "cobc")));
        if (System.getenv("CI") != null) {
            assertThat(there).as("cobc, which .ci/run installs").isTrue();
        }
        assumeTrue(there, "no COBOL compiler here: apt-get install gnucobol3");
    }

    @BeforeEach
    void example() throws IOException {
        program = new BuiltProgram(folder);
        program.example();
        Files.copy(EXAMPLES.resolve("tide/tide.wsdl"), folder.resolve("tide.wsdl"));
    }

    @AfterEach
    void end() {
        processes.forEach(process -> {
            process.descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        });
    }

    /** How the built program is run. */
    private static List<String> command(String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-jar",
                Path.of("target/protypos.jar").toAbsolutePath().toString()));
        command.addAll(List.of(arguments));
        return command;
    }

    /** Begins a command that goes on until the test ends. */
    private Process started(String... arguments) throws IOException {
        return started(command(arguments));
    }

    private Process started(List<String> command) throws IOException {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        processes.add(process);
        return process;
    }

    private static BufferedReader reader(Process process) {
        return new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
    }

    private void standIn() throws IOException {
        seen = reader(started("stand-in", "desk.wsdl", "--port", "0"));
        address = seen.readLine().strip().split(" +")[1];
        assertThat(Stream.of(seen.readLine(), seen.readLine(), seen.readLine())).doesNotContainNull();
    }

    /** Generates copybooks and programs to go on with. */
    private void generate(String contract, String... more) throws IOException, InterruptedException {
        List<String> all = new ArrayList<>(
                List.of("generate", contract, "--language", "cobol", "--into", "copy", "--scaffold", "office"));
        all.addAll(List.of(more));
        BuiltProgram.Run generated = program.run(all.toArray(String[]::new));
        assertThat(generated.status()).as(generated.err()).isZero();
    }

    /** Puts lines where a program that was begun says what is to come there. */
    private static void fill(Path source, String where, String... lines) throws IOException {
        String begun = Files.readString(source);
        assertThat(begun).contains(where);
        int at = begun.indexOf('\n', begun.indexOf(where)) + 1;
        Files.writeString(source, begun.substring(0, at) + cobol(lines) + begun.substring(at));
    }

    private static String cobol(String... lines) {
        return Arrays.stream(lines).map(line -> " ".repeat(11) + line + "\n").collect(Collectors.joining());
    }

    private void compiled(String standard, String program, String... sources) throws IOException, InterruptedException {
        List<String> all =
                new ArrayList<>(List.of("cobc", "-x", "-Wall", "-std=" + standard, "-I", "copy", "-o", program));
        all.addAll(List.of(sources));
        assertThat(said(Map.of(), all)).isEmpty();
    }

    private String asked(String call) throws IOException, InterruptedException {
        return said(Map.of("PROTYPOS_CALL", call), List.of("./ask"));
    }

    private String said(Map<String, String> environment, List<String> command)
            throws IOException, InterruptedException {
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return said;
    }

    /** A program fills the request in, and reads the answer and what went wrong. */
    @Test
    void aProgramAsksTheStandIn() throws Exception {
        standIn();
        BuiltProgram.Run generated = program.run(
                "generate",
                "desk.wsdl",
                "--operation",
                "requestBerth",
                "--language",
                "cobol",
                "--into",
                "copy",
                "--scaffold",
                "office");
        assertThat(generated.status()).as(generated.err()).isZero();
        Path source = folder.resolve("office/HRBRDESK.cbl");
        String begun = Files.readString(source);
        Files.writeString(
                source,
                begun.replace(
                                "      * Fill in REQUEST-BERTH-REQUEST here.\n",
                                cobol(
                                        "SET VESSEL-IS-FERRY TO TRUE.",
                                        "MOVE SPACES TO FERRY.",
                                        "MOVE \"LB4F\" TO CALL-SIGN.",
                                        "MOVE 0 TO NAME-LEN LINE-LEN.",
                                        "MOVE \"Aurora\" TO FERRY-NAME.",
                                        "MOVE 38.5 TO LENGTH-IN-METRES.",
                                        "MOVE 2.9 TO DRAUGHT-IN-METRES.",
                                        "MOVE \"N\" TO FLAG-IND.",
                                        "MOVE 180 TO PASSENGERS.",
                                        "MOVE \"Gull Island\" TO FERRY-LINE.",
                                        "MOVE \"2027-05-09T14:30:00Z\" TO ARRIVAL.",
                                        "MOVE \"P2D\" TO STAY.",
                                        "MOVE 2 TO NEED-COUNT.",
                                        "SET NEED-WATER (1) TO TRUE.",
                                        "SET NEED-PILOT (2) TO TRUE."))
                        .replaceFirst(
                                "(?<=Work with the answer here.\n) +CONTINUE\n",
                                cobol("DISPLAY \"berth \"", " BERTH-NUMBER", " \" at \" QUAY", " (1:QUAY-LEN)")));
        compiled("default", "ask", source.toString(), "copy/CALLSERV.cbl");
        String call = Path.of(System.getProperty("java.home"), "bin", "java") + " -jar "
                + Path.of("target/protypos.jar").toAbsolutePath() + " call desk.wsdl --address ";
        assertThat(asked(call + address)).isEqualTo("berth +0000000001 at quay\n");
        assertThat(seen.readLine()).isEqualTo("requestBerth: as the contract says");
        severalRequests(Files.readAllBytes(folder.resolve("CALLREQ")));
        assertThat(asked(call + "http://localhost:1/desk")).startsWith("20 ");
        Files.writeString(source, Files.readString(source).replace("MOVE 38.5 TO LENGTH-IN-METRES.", "CONTINUE."));
        compiled("default", "ask", source.toString(), "copy/CALLSERV.cbl");
        assertThat(asked(call + address)).startsWith("12 ").contains("LENGTH-IN-METRES", "no packed number");
    }

    /** What a record names goes out of a folder, and what comes in is put there. */
    @Test
    void bytesTravelInFiles() throws Exception {
        Files.copy(EXAMPLES.resolve("papers/papers.wsdl"), folder.resolve("papers.wsdl"));
        Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {papers: "http://lanternbay.example/papers"}
                rules:
                  - on: ~papers:Scan/text()
                    cobol: {file: true}
                  - on: papers:fileResponse/papers:stamp
                    cobol: {file: true}
                """);
        String cabinet = reader(started("stand-in", "papers.wsdl", "--port", "0"))
                .readLine()
                .strip()
                .split(" +")[1];
        byte[] record = new byte[11444];
        Arrays.fill(record, (byte) ' ');
        put(record, 0, "\0\0LB4F");
        put(record, 82, "\0\1\0\0Chart");
        put(record, 166, "N");
        put(record, 173, "SCAN.BIN");
        Files.write(folder.resolve("request.rec"), record);
        Path files = Files.createDirectory(folder.resolve("files"));
        Files.write(files.resolve("SCAN.BIN"), new byte[] {0, 1, -1});
        List<String> call = new ArrayList<>(List.of("call", "papers.wsdl", "file", "--address", cabinet));
        call.addAll(List.of("--rules", "rules.yaml", "--record-in", "request.rec", "--record-out", "answer.rec"));
        BuiltProgram.Run nowhere = program.run(call.toArray(String[]::new));
        assertThat(nowhere.err()).contains("offset 173, SCAN-VALUE", "the file SCAN.BIN is", "--byte-files");
        call.addAll(List.of("--byte-files", "files"));
        BuiltProgram.Run run = program.run(call.toArray(String[]::new));
        assertThat(run.status()).as(run.err()).isZero();
        String answer = Files.readString(folder.resolve("answer.rec"), StandardCharsets.ISO_8859_1);
        Path stamp = files.resolve(answer.substring(266 + 10, 266 + 54).strip());
        assertThat(stamp).isNotEmptyFile();
    }

    private static void put(byte[] record, int at, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
        System.arraycopy(bytes, 0, record, at, bytes.length);
    }

    /** The same request several times, one after the other: out of a file, and over a connection. */
    private void severalRequests(byte[] request) throws Exception {
        byte[] broken = request.clone();
        Arrays.fill(broken, 164, 174, (byte) ' ');
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        frame("requestBerth", request, all);
        frame("REQUEST-BERTH-REQUEST", request, all);
        frame("requestBerth", broken, all);
        frame("castAway", request, all);
        frame("requestBerth", request, all);
        Files.write(folder.resolve("requests.rec"), all.toByteArray());
        BuiltProgram.Run run = program.run(
                "bridge",
                "desk.wsdl",
                "--address",
                address,
                "--record-in",
                "requests.rec",
                "--record-out",
                "answers.rec");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.out()).isEqualTo("5 requests, 3 answered; written to answers.rec\n");
        assertThat(run.err())
                .contains(
                        "3 requestBerth: 12 requestBerth, offset 164, LENGTH-IN-METRES", "4 castAway: 12 there is no");
        String answers = Files.readString(folder.resolve("answers.rec"), StandardCharsets.ISO_8859_1);
        assertThat(answers).hasSize(5 * 266 + 3 * 224);
        assertThat(List.of(0, 490, 980, 980 + 266, 980 + 2 * 266).stream()
                        .map(at -> answers.substring(at, at + 2))
                        .toList())
                .containsExactly("00", "00", "12", "12", "00");
        for (int i = 0; i < 3; i++) {
            assertThat(seen.readLine()).isEqualTo("requestBerth: as the contract says");
        }
        Path files = Files.createDirectory(folder.resolve("day"));
        Files.copy(folder.resolve("requests.rec"), files.resolve("monday.req"));
        BufferedReader taken = reader(started("bridge", "desk.wsdl", "--address", address, "--files", "day"));
        assertThat(taken.readLine()).isEqualTo("requests are taken from day, as NAME.req; Ctrl-C ends");
        assertThat(Stream.generate(() -> line(taken)).limit(5).toList().get(3)).startsWith("castAway: 12");
        for (int i = 0; i < 3; i++) {
            assertThat(seen.readLine()).isEqualTo("requestBerth: as the contract says");
        }
        for (int i = 0; i < 1_500 && !Files.exists(files.resolve("monday.ans")); i++) {
            Thread.sleep(20);
        }
        assertThat(files.resolve("monday.ans")).hasBinaryContent(Files.readAllBytes(folder.resolve("answers.rec")));
        assertThat(files.resolve("monday.done")).exists();
        Process bridge = started("bridge", "desk.wsdl", "--address", address, "--listen", "0");
        try {
            BufferedReader said =
                    new BufferedReader(new InputStreamReader(bridge.getInputStream(), StandardCharsets.UTF_8));
            int port = Integer.parseInt(said.readLine().replaceAll(".*localhost:(\\d+);.*", "$1"));
            try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
                ByteArrayOutputStream one = new ByteArrayOutputStream();
                frame("requestBerth", request, one);
                for (int i = 0; i < 2; i++) {
                    socket.getOutputStream().write(one.toByteArray());
                    byte[] answer = socket.getInputStream().readNBytes(490);
                    assertThat(new String(answer, StandardCharsets.ISO_8859_1)).isEqualTo(answers.substring(0, 490));
                    assertThat(said.readLine()).isEqualTo("requestBerth: 00");
                    assertThat(seen.readLine()).isEqualTo("requestBerth: as the contract says");
                }
                socket.getOutputStream().write("no head".repeat(10).getBytes(StandardCharsets.ISO_8859_1));
                socket.shutdownOutput();
                assertThat(new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1))
                        .hasSize(266)
                        .startsWith("12");
            }
        } finally {
            bridge.destroyForcibly();
        }
    }

    private static void frame(String operation, byte[] record, ByteArrayOutputStream to) {
        to.writeBytes(String.format(Locale.ROOT, "%-30s%09d", operation, record.length)
                .getBytes(StandardCharsets.ISO_8859_1));
        to.writeBytes(record);
    }

    /** Compiles Java code against what is generated of contracts, and begins its main class. */
    private BufferedReader java(String main, String source, List<Path> more, String... contracts) throws Exception {
        List<String> sources = new ArrayList<>();
        for (String contract : contracts) {
            BuiltProgram.Run generated = program.run("generate", contract, "--into", "java/" + contract);
            assertThat(generated.status()).as(generated.err()).isZero();
        }
        try (Stream<Path> all = Files.walk(folder.resolve("java"))) {
            all.map(Path::toString).filter(file -> file.endsWith(".java")).forEach(sources::add);
        }
        sources.add(Files.writeString(folder.resolve(main + ".java"), source).toString());
        more.forEach(file -> sources.add(file.toString()));
        List<String> options = new ArrayList<>(
                List.of("-nowarn", "-d", folder.resolve("classes").toString()));
        options.addAll(sources);
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        assertThat(ToolProvider.getSystemJavaCompiler().run(null, said, said, options.toArray(String[]::new)))
                .as(said.toString(StandardCharsets.UTF_8))
                .isZero();
        return reader(started(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp",
                folder.resolve("classes").toString(),
                main,
                address == null ? "" : address)));
    }

    /** Generated Java is served; programs ask it in steps of a batch and one call after the other: lists, faults, a bare type. */
    @Test
    void programsAskGeneratedServers() throws Exception {
        BufferedReader served = java(
                "Served",
                """
                import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
                import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
                import example.lanternbay.office.LanternBayDesk;
                import example.lanternbay.tide.DryFault;
                import example.lanternbay.tide.Reading;
                import example.lanternbay.tide.TideGauge;
                import example.lanternbay.tide.TideGaugeEndpoint;
                import example.lanternbay.tide.Trend;
                import example.lanternbay.tide.runtime.value.XmlDateTime;
                import java.math.BigDecimal;
                import java.net.InetAddress;
                import java.net.InetSocketAddress;

                public final class Served {
                    public static void main(String[] arguments) throws Exception {
                        InetSocketAddress any = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
                        SoapServer desk = SoapServer.listen(any)
                                .publish("/desk", HarbourDeskEndpoint.of(new LanternBayDesk()));
                        var tide = example.lanternbay.tide.runtime.soap.SoapServer.listen(any)
                                .publish("/tide", TideGaugeEndpoint.of(new TideGauge() {
                                    @Override
                                    public ReadTideResult readTide(int mark, String station) throws DryFault {
                                        if (station.equals("sandbank")) {
                                            throw new DryFault("there is no water", "since noon");
                                        }
                                        Reading reading = new Reading()
                                                .setAt(XmlDateTime.of("2027-05-09T14:30:00Z"))
                                                .setLevel(new BigDecimal("-0.35"))
                                                .setTrend(Trend.FALLING);
                                        return new ReadTideResult(mark + 1, reading);
                                    }

                                    @Override
                                    public void reset() {}

                                    @Override
                                    public BigDecimal highest(Reading of, Reading or, Integer number) {
                                        return of.getLevel().max(or.getLevel());
                                    }
                                }));
                        System.out.println("http://127.0.0.1:" + desk.port() + "/desk");
                        System.out.println("http://127.0.0.1:" + tide.port() + "/tide");
                        Thread.sleep(600_000);
                    }
                }
                """,
                List.of(EXAMPLES.resolve("harbour/src/example/lanternbay/office/LanternBayDesk.java")),
                "desk.wsdl",
                "tide.wsdl");
        String desk = served.readLine();
        String tide = served.readLine();
        assertThat(tide).as(desk).startsWith("http://127.0.0.1:");
        batch(desk);
        generate("tide.wsdl", "--operation", "readTide", "--operation", "highest", "--overwrite");
        Path source = folder.resolve("office/TIDEGAGE.cbl");
        fill(source, "Fill in READ-TIDE-REQUEST", "MOVE \"quay\" TO STATION.", "MOVE 41 TO MARK OF READ-TIDE-REQUEST.");
        fill(
                source,
                "TO READ-TIDE-RESPONSE",
                "DISPLAY READING-AT (1:20) \" \"",
                " LEVEL OF READ-TIDE-RESPONSE \" \"",
                " TREND OF READ-TIDE-RESPONSE \" \" MARK OF READ-TIDE-RESPONSE");
        fill(source, "TO READ-TIDE-DRY", "DISPLAY \"dry: \" DRY (1:DRY-LEN) \" \"", " CALL-REASON (1:20)");
        fill(
                source,
                "Fill in HIGHEST-REQUEST",
                "MOVE \"Y\" TO NUMBER-IND.",
                "MOVE 7 TO NUMBER-FLD.",
                "MOVE \"2027-05-09T14:30:00Z\" TO OF-AT OR-AT.",
                "MOVE 1.5 TO LEVEL OF HIGHEST-REQUEST.",
                "MOVE 2.25 TO OR-LEVEL.");
        fill(source, "TO HIGHEST-RESPONSE", "DISPLAY LEVEL OF HIGHEST-RESPONSE");
        compiled("default", "ask", source.toString(), "copy/CALLSERV.cbl");
        String call = String.join(" ", command("call", "tide.wsdl", "--address", tide));
        assertThat(asked(call)).isEqualTo("""
                2027-05-09T14:30:00Z -0000000000000.35000 falling +0000000042
                +0000000000002.25000
                """);
        Files.writeString(source, Files.readString(source).replace("\"quay\"", "\"sandbank\""));
        compiled("cobol2014", "ask", source.toString(), "copy/CALLSERV.cbl");
        assertThat(asked(call)).startsWith("dry: since noon there is no water   \n");
    }

    private void batch(String desk) throws Exception {
        generate("desk.wsdl", "--operation", "requestBerth", "--operation", "listBerths");
        Path source = folder.resolve("office/HRBRDESK.cbl");
        fill(
                source,
                "Fill in REQUEST-BERTH-REQUEST",
                "SET VESSEL-IS-TANKER TO TRUE.",
                "MOVE SPACES TO TANKER.",
                "MOVE \"NI7T\" TO TANKER-CALL-SIGN.",
                "MOVE 0 TO TANKER-NAME-LEN CARGO-LEN.",
                "MOVE \"Deep Well\" TO TANKER-NAME.",
                "MOVE 210 TO TANKER-LENGTH-IN-METRES.",
                "MOVE 15 TO TANKER-DRAUGHT-IN-METRES.",
                "MOVE \"water\" TO CARGO.",
                "MOVE 90000 TO CUBIC-METRES.",
                "MOVE \"2027-05-09T14:30:00Z\" TO ARRIVAL.",
                "MOVE \"P2D\" TO STAY.");
        fill(
                source,
                "TO REQUST-BERTH-NO-BERTH-FREE",
                "DISPLAY CALL-REASON (1:38) \"; waiting \" WAITING",
                "DISPLAY NEXT-FREE-IND NEXT-FREE (1:20)");
        fill(
                source,
                "TO LIST-BERTHS-RESPONSE",
                "DISPLAY BERTH-COUNT",
                "DISPLAY QUAY OF LIST-BERTHS-RESPONSE",
                " (BERTH-COUNT) (1:15) DEPTH-IN-METRES",
                " OF LIST-BERTHS-RESPONSE (BERTH-COUNT)");
        compiled("default", "ask", source.toString(), "copy/CALLBTCH.cbl");
        assertThat(said(Map.of("PROTYPOS_STEP", "ASK"), List.of("./ask"))).isEmpty();
        BuiltProgram.Run carried = program.run(
                "bridge", "desk.wsdl", "--address", desk, "--record-in", "CALLREQ", "--record-out", "CALLANS");
        assertThat(carried.out()).isEqualTo("2 requests, 1 answered; written to CALLANS\n");
        assertThat(said(Map.of("PROTYPOS_STEP", "TAKE"), List.of("./ask"))).isEqualTo("""
                no berth is free for a draught of 15 m; waiting +0000000002
                Y2027-05-11T06:00:00Z
                +0003
                Lighthouse Quay+0000000000011.50000
                """);
    }

    /** A program answers generated Java: kept for all requests, and by files in a folder. */
    @Test
    void aProgramAnswersAGeneratedClient() throws Exception {
        generate("desk.wsdl");
        Path source = folder.resolve("office/HRBRDSKS.cbl");
        fill(
                source,
                "Do the work here, and fill in REQUEST-BERTH-RESPONSE",
                "IF VESSEL-IS-FERRY OF REQUEST-BERTH-REQUEST",
                "    AND NEED-COUNT = 2 AND NEED-PILOT (2)",
                "    MOVE 17 TO BERTH-NUMBER OF REQUEST-BERTH-RESPONSE",
                "    MOVE \"North Quay\" TO QUAY OF REQUEST-BERTH-RESPONSE",
                "    MOVE 6.25",
                "        TO DEPTH-IN-METRES OF REQUEST-BERTH-RESPONSE",
                "    MOVE ARRIVAL TO OFFER-FROM",
                "    MULTIPLY 4.5 BY LENGTH-IN-METRES",
                "        OF REQUEST-BERTH-REQUEST GIVING DUES-VALUE",
                "ELSE",
                "    SET CALL-FAULT TO TRUE",
                "    MOVE \"REQUST-BERTH-NO-BERTH-FREE\" TO CALL-ANSWER",
                "    MOVE \"all berths are taken\" TO CALL-REASON",
                "    MOVE 3 TO WAITING",
                "    SET NEXT-FREE-NIL TO TRUE",
                "END-IF.");
        fill(
                source,
                "Do the work here, and fill in LIST-BERTHS-RESPONSE",
                "MOVE 2 TO BERTH-COUNT.",
                "MOVE 1 TO BERTH-NUMBER OF LIST-BERTHS-RESPONSE (1).",
                "MOVE 2 TO BERTH-NUMBER OF LIST-BERTHS-RESPONSE (2).",
                "MOVE \"a  \" TO QUAY OF LIST-BERTHS-RESPONSE (1).",
                "MOVE 3 TO QUAY-LEN OF LIST-BERTHS-RESPONSE (1).");
        fill(
                source,
                "Do the work here, and fill in FIND-VESSEL-RESPONSE",
                "MOVE \"no such vessel\" TO CALL-REASON.",
                "SET CALL-REFUSED TO TRUE.");
        compiled("ibm", "desk", source.toString(), "copy/NEXTSERV.cbl");
        BufferedReader bridge = reader(started("bridge", "desk.wsdl", "--serve", "0", "--program", "./desk", "--keep"));
        address = bridge.readLine().strip().split(" +")[1];
        assertThat(Stream.of(bridge.readLine(), bridge.readLine())).doesNotContainNull();
        String visit = """
                import example.lanternbay.harbour.desk.*;
                import example.lanternbay.harbour.desk.runtime.soap.*;
                import example.lanternbay.harbour.desk.runtime.value.*;
                import example.lanternbay.harbour.vessels.*;
                import java.math.BigDecimal;
                import java.util.List;

                public final class Visitor {
                    public static void main(String[] arguments) throws Exception {
                        HarbourDeskClient desk = HarbourDeskClient.connect(with -> with.address(arguments[0]));
                        Ferry ferry = new Ferry().setPassengers(180).setLine("Gull Island");
                        ferry.setName("Aurora").setCallSign("LB4F");
                        ferry.setLengthInMetres(new BigDecimal("38.5")).setDraughtInMetres(new BigDecimal("2.9"));
                        XmlDateTime arrival = XmlDateTime.of("2027-05-09T14:30:00Z");
                        XmlDuration stay = XmlDuration.of("P2D");
                        System.out.println(desk.requestBerth(ferry, arrival, stay, List.of(Need.WATER, Need.PILOT)));
                        try {
                            desk.requestBerth(ferry, arrival, stay, List.of());
                        } catch (NoBerthFreeFault fault) {
                            System.out.println(fault.getMessage() + "; " + fault.getDetail());
                        }
                        System.out.println(desk.listBerths(null));
                        try {
                            desk.findVessel("LB4F");
                        } catch (UndeclaredFaultException fault) {
                            System.out.println(fault.getMessage());
                        }
                        desk.castOff(7);
                    }
                }
                """;
        BufferedReader visitor = java("Visitor", visit, List.of(), "desk.wsdl");
        assertThat(visitor.lines().collect(Collectors.joining("\n", "", "\n"))).isEqualTo("""
                BerthOffer{berth=Berth{number=17, quay=North Quay, depthInMetres=6.25}, from=2027-05-09T14:30:00Z, dues=Money{value=173.25}}
                all berths are taken; NoBerthFree{waiting=3}
                [Berth{number=1, quay=a  , depthInMetres=0}, Berth{number=2, quay=, depthInMetres=0}]
                the service answered findVessel with the fault Server: no such vessel
                """);
        assertThat(Stream.generate(() -> line(bridge)).limit(5))
                .containsExactly(
                        "requestBerth: 00",
                        "requestBerth: 04 all berths are taken",
                        "listBerths: 00",
                        "findVessel: 08 no such vessel",
                        "castOff: 00");
        filesForAProgram();
    }

    private static String line(BufferedReader said) {
        try {
            return said.readLine();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The same program finds requests as files, and what it answers wrongly is told where it is, and not to callers. */
    private void filesForAProgram() throws Exception {
        Path files = Files.createDirectory(folder.resolve("files"));
        BufferedReader bridge = reader(started("bridge", "desk.wsdl", "--serve", "0", "--files", "files"));
        String at = bridge.readLine().strip().split(" +")[1];
        assertThat(Stream.of(bridge.readLine(), bridge.readLine())).doesNotContainNull();
        BufferedReader call = reader(started("call", "desk.wsdl", "listBerths", "--address", at));
        answered(files.resolve("R0000001.req"));
        assertThat(call.lines().collect(Collectors.joining("\n"))).contains("number          2");
        assertThat(bridge.readLine()).isEqualTo("listBerths: 00");
        assertThat(files).isEmptyDirectory();
        call = reader(started("call", "desk.wsdl", "payDues", "callSign=LB4F", "amount=3", "--address", at));
        answered(files.resolve("R0000002.req"));
        assertThat(call.readLine()).isEqualTo("fault: the service cannot answer");
        assertThat(bridge.readLine())
                .startsWith("payDues: /Envelope/Body/payDuesResponse/")
                .contains("is no date");
    }

    private void answered(Path request) throws Exception {
        for (int i = 0; i < 1_500 && !Files.exists(request); i++) {
            Thread.sleep(20);
        }
        String name = request.toString();
        Map<String, String> environment = Map.of("DD_NEXTREQ", name, "DD_NEXTANS", name.replace(".req", ".ans"));
        assertThat(said(environment, List.of("./desk"))).isEmpty();
    }
}
