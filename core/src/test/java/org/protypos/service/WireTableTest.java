package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.lang.reflect.InvocationTargetException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.sample.Samples;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;

/**
 * One table for both ends: messages that were written by hand, as they travel, at both kinds of client and both kinds of server.
 * What each made of them stands in {@code wire/table.txt}; write it anew with {@code -Dexpected.write=true} and read it.
 */
class WireTableTest {
    private static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
    private static final Path CASES = Path.of("src/test/resources/wire/cases.txt");
    private static final Path TABLE = Path.of("src/test/resources/wire/table.txt");
    private static final Pattern FAULT =
            Pattern.compile("(?s)<(?:\\w+:)?(faultcode|Value|faultstring|Text|ProblemHeaderQName|"
                    + "ProblemAction|NotUnderstood)(?: [^>]*?(?:qname=\"([^\"]*)\"[^>]*)?)?(?:/>|>([^<]*)<)");

    @TempDir
    private Path folder;

    private Generated generated;
    private GeneratedEnds ends;
    private ContractCheck check;

    /**
     * One row of the table.
     *
     * @param side "answer" for what a client gets, "request" for what a server gets
     * @param head the head of the message; its first line is a status, or a path
     */
    private record Case(String name, String side, String port, String operation, List<String> head, String body) {
        byte[] bytes() {
            String type = head.stream()
                    .filter(line -> line.startsWith("Content-Type"))
                    .findFirst()
                    .orElse("");
            Matcher encoding = Pattern.compile("in=([\\w-]+)").matcher(type);
            Charset charset = encoding.find() ? Charset.forName(encoding.group(1)) : StandardCharsets.UTF_8;
            return body.getBytes(charset);
        }

        String headText(int length) {
            StringBuilder text = new StringBuilder();
            head.forEach(
                    line -> text.append(line.replaceFirst("; in=[\\w-]+", "")).append("\r\n"));
            return text + "Content-Length: " + length + "\r\nConnection: close\r\n\r\n";
        }
    }

    private static List<Case> cases() throws IOException {
        List<Case> cases = new ArrayList<>();
        for (String text : Files.readString(CASES).split("(?m)^== ")) {
            if (text.isBlank() || text.startsWith("#")) {
                continue;
            }
            String[] lines = text.split("\n", 2);
            String[] about = lines[0].split(" \\| ");
            int gap = lines[1].indexOf("\n\n");
            String head = gap < 0 ? lines[1].strip() : lines[1].substring(0, gap);
            String body = gap < 0 ? "" : lines[1].substring(gap + 2).strip();
            cases.add(
                    new Case(about[0], about[1], about[2], about[3].strip(), List.of(head.split("\n")), written(body)));
        }
        return cases;
    }

    /** {@code <11>} and {@code <12>} stand for what is around every body. */
    private static String written(String body) {
        return body.replaceAll("\n\\s*", "")
                .replace("<11>", "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/' xmlns='urn:lock'>")
                .replace("<12>", "<e:Envelope xmlns:e='http://www.w3.org/2003/05/soap-envelope' xmlns='urn:lock'>")
                .replaceAll("</1[12]>", "</e:Envelope>")
                .replace("[bom]", "\uFEFF")
                .replace("[break]", "\r\n");
    }

    @Test
    void bothEndsMakeTheSameOfEveryMessage() throws Exception {
        generated = Generated.from(Path.of("src/test/resources/wire/lock.wsdl"), folder, null);
        ends = new GeneratedEnds(generated);
        check = new ContractCheck(generated.contract());
        StringBuilder table = new StringBuilder();
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, one -> {})) {
            for (Case one : cases()) {
                CalledOperation called = called(one);
                Map<String, String> results =
                        one.side.equals("answer") ? atClients(one, called) : atServers(one, called, standIn);
                table.append("== ")
                        .append(one.name)
                        .append(" | ")
                        .append(one.side)
                        .append('\n');
                results.forEach((end, result) ->
                        table.append(end).append(": ").append(result).append('\n'));
            }
        }
        if (Boolean.getBoolean("expected.write")) {
            Files.writeString(TABLE, table);
        }
        assertThat(table.toString()).isEqualTo(Files.readString(TABLE));
    }

    private CalledOperation called(Case one) {
        return CalledOperation.of(generated.contract()).stream()
                .filter(called -> called.port().name().equals(one.port)
                        && (called.operation().name().equals(one.operation)
                                || one.operation.equals(
                                        called.operation().input().name())))
                .findFirst()
                .orElseThrow();
    }

    private PlannedService.Port port(Case one) {
        return generated.plan().services().get(0).ports().stream()
                .filter(each -> each.xmlName().equals(one.port))
                .findFirst()
                .orElseThrow();
    }

    private PlannedOperation api(CalledOperation called, PlannedService.Port port) {
        return GeneratedEnds.operation(port.type(), called);
    }

    /** The arguments that a sample of the request comes to. */
    private Object[] arguments(CalledOperation called, PlannedService.Port port) throws Exception {
        String request = new Samples(generated.contract(), check.vocabulary(), true).message(called.request());
        try (AutoCloseable server = ends.serve(port.type())) {
            String address = GeneratedEnds.address(server);
            ends.forget();
            new Caller(called, check, with -> with.address(address)).call(request);
            return ends.seen();
        }
    }

    private Map<String, String> atClients(Case one, CalledOperation called) throws Exception {
        PlannedService service = generated.plan().services().get(0);
        PlannedService.Port port = port(one);
        PlannedOperation api = api(called, port);
        String request = new Samples(generated.contract(), check.vocabulary(), true).message(called.request());
        Map<String, String> results = new LinkedHashMap<>();
        Object[] arguments = arguments(called, port);
        assertThat(arguments).as(one.name).isNotNull();
        try (Peer peer = new Peer(one)) {
            String result;
            try {
                Object client = ends.client(port.type(), service, port, peer.address(), false);
                result = String.valueOf(ends.call(port.type(), api, client, arguments));
            } catch (InvocationTargetException e) {
                result = e.getCause().getClass().getSimpleName() + ": "
                        + e.getCause().getMessage();
            }
            results.put("generated", plain(result));
        }
        try (Peer peer = new Peer(one)) {
            Caller.Answer answer = new Caller(called, check, with -> with.address(peer.address())).call(request);
            String result = answer.failure() != null
                    ? answer.failure().getMessage()
                    : answer.fault() != null
                            ? answer.fault().getMessage()
                            : answer.root() == null
                                    ? "nothing"
                                    : new OperationCheck(called.carried(), check)
                                            .answer(answer.root()).deviations().stream()
                                                    .map(each -> each.came() + "; expected " + each.expected())
                                                    .findFirst()
                                                    .orElse("sound");
            results.put("call", plain(result));
        }
        return results;
    }

    private Map<String, String> atServers(Case one, CalledOperation called, StandIn standIn) throws Exception {
        PlannedService.Port port = port(one);
        PlannedOperation api = api(called, port);
        Map<String, String> results = new LinkedHashMap<>();
        Object client = ends.client(
                port.type(),
                generated.plan().services().get(0),
                port,
                standIn.addresses().get(called.port()),
                false);
        ends.results().put(api.method(), ends.call(port.type(), api, client, arguments(called, port)));
        try (AutoCloseable server = ends.serve(port.type())) {
            ends.forget();
            String result = sent(one, GeneratedEnds.address(server));
            results.put("generated", (ends.seen() == null ? "not called, " : "called, ") + result);
        }
        results.put("stand-in", sent(one, standIn.addresses().get(called.port())));
        return results;
    }

    private static String sent(Case one, String address) throws IOException {
        URI target = URI.create(address);
        try (Socket socket = new Socket(target.getHost(), target.getPort());
                OutputStream out = socket.getOutputStream()) {
            byte[] body = one.bytes();
            String head = "POST " + target.getPath() + " HTTP/1.1\r\nHost: " + target.getAuthority() + "\r\n"
                    + one.headText(body.length);
            out.write(head.getBytes(StandardCharsets.US_ASCII));
            out.write(body);
            out.flush();
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            int status = Integer.parseInt(answer.substring(9, 12));
            String content = answer.substring(answer.indexOf("\r\n\r\n") + 4);
            StringBuilder told = new StringBuilder(String.valueOf(status));
            boolean fault = content.contains(":Fault>");
            Matcher matcher = FAULT.matcher(content);
            while (fault && matcher.find()) {
                told.append(' ').append(matcher.group(2) != null ? matcher.group(2) : matcher.group(3));
            }
            Matcher headers = Pattern.compile("(?s)Header>(.*?)</soap:Header>").matcher(content);
            if (headers.find()) {
                told.append(" with ").append(headers.group(1).replaceAll(" xmlns:\\w+=\"[^\"]*\"", ""));
            }
            return plain(fault || status != 200 || headers.reset().find() ? told.toString() : told + " answered")
                    .replaceAll("urn:uuid:[0-9a-f-]+", "urn:uuid:ID")
                    .replaceAll("reference [0-9a-f]{8}", "reference N");
        }
    }

    private static String plain(String text) {
        return text.replaceAll("127\\.0\\.0\\.1:[0-9]+", "HOST")
                .replaceAll("\\s+", " ")
                .strip();
    }

    /** A service that gives one answer, whatever it is asked. */
    private static final class Peer implements Closeable {
        private final ServerSocket socket = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());

        Peer(Case one) throws IOException {
            Thread thread = new Thread(() -> {
                try (Socket came = socket.accept();
                        OutputStream out = came.getOutputStream()) {
                    read(came.getInputStream());
                    byte[] body = one.bytes();
                    out.write(one.headText(body.length).getBytes(StandardCharsets.US_ASCII));
                    out.write(body);
                } catch (IOException e) {
                    // The client sees that nothing comes, and says so.
                }
            });
            thread.start();
        }

        private static void read(InputStream in) throws IOException {
            ByteArrayOutputStream head = new ByteArrayOutputStream();
            while (!head.toString(StandardCharsets.US_ASCII).endsWith("\r\n\r\n")) {
                head.write(in.read());
            }
            String length =
                    head.toString(StandardCharsets.US_ASCII).replaceAll("(?is).*content-length: *([0-9]+).*", "$1");
            in.readNBytes(Integer.parseInt(length));
        }

        String address() {
            return "http://127.0.0.1:" + socket.getLocalPort() + "/";
        }

        @Override
        public void close() throws IOException {
            socket.close();
        }
    }
}
