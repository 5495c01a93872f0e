package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.protypos.contract.Contract;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;

/**
 * Messages that are small and were made so that reading them takes long or takes much: each is answered by every kind of server, and
 * the servers live on. A server whose work grows with the square of a message needs minutes for some of them.
 */
@Isolated("keeps both cores busy")
class StrainTest {
    private static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
    private static final Path CONTRACT = Path.of("src/test/resources/wire/strain.wsdl");
    private static final String SOAP = "http://schemas.xmlsoap.org/soap/envelope/";
    private static final String ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";
    private static final String XOP = "xmlns:x='http://www.w3.org/2004/08/xop/include'";
    private static final String SOUND = "202|200";

    /** About half a megabyte of each. */
    private static final int MUCH = 500_000;

    @TempDir
    private Path folder;

    private final HttpClient client = HttpClient.newHttpClient();

    /**
     * A request.
     *
     * @param port where it goes
     * @param expected a pattern of status, or of status and what is said, at generated servers
     * @param played the same at the stand-in
     */
    private record Strain(String name, String port, String type, String body, String expected, String played) {}

    private static String times(String text) {
        return text.repeat(MUCH / text.length());
    }

    /** As many as come to that, each of which is made by its number. */
    private static String each(IntFunction<String> one) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; all.length() < MUCH; i++) {
            all.append(one.apply(i));
        }
        return all.toString();
    }

    private static String first(int count, IntFunction<String> one) {
        return IntStream.range(0, count).mapToObj(one).collect(Collectors.joining());
    }

    private static String store(String content) {
        return "<s:Envelope xmlns:s='" + SOAP + "' xmlns='urn:loft' xmlns:l='urn:loft'><s:Body><store>" + content
                + "</store></s:Body></s:Envelope>";
    }

    private static String roll(String rolls, String beside) {
        return "<s:Envelope xmlns:s='" + SOAP + "' xmlns:l='urn:loft' xmlns:c='" + ENCODING
                + "' xmlns:i='http://www.w3.org/2001/XMLSchema-instance'><s:Body s:encodingStyle='" + ENCODING + "'>"
                + "<l:roll>" + rolls + "</l:roll>" + beside + "</s:Body></s:Envelope>";
    }

    private static String array(String members) {
        return "<rolls c:arrayType='l:Roll[]'>" + members + "</rolls>";
    }

    /** Tags that declare many prefixes each, one in the other, with something inside of the innermost. */
    private static String declarations(String inside) {
        return first(
                        60,
                        i -> "<w xmlns='urn:other'" + first(200, j -> " xmlns:p" + i + "-" + j + "='urn:" + j + "'")
                                + ">")
                + inside
                + "</w>".repeat(60);
    }

    /** A message whose envelope refers to one large part as often as there is room for. */
    private static String parts(String reference) {
        return "--b\r\nContent-Type: application/xop+xml; type=\"text/xml\"\r\nContent-ID: <r>\r\n\r\n"
                + store(reference) + "\r\n--b\r\nContent-ID: <p>\r\n\r\n" + times("sailcloth ") + "\r\n--b--\r\n";
    }

    private final List<Strain> strains = new ArrayList<>();

    private void literal(String name, String content, String expected, String played) {
        strains.add(new Strain(name, "Loft", "text/xml; charset=utf-8", store(content), expected, played));
    }

    private void encoded(String name, String rolls, String beside, String expected, String played) {
        strains.add(new Strain(name, "Roller", "text/xml; charset=utf-8", roll(rolls, beside), expected, played));
    }

    private void included(String name, String reference, String expected, String played) {
        String type =
                "multipart/related; boundary=b; type=\"application/xop+xml\"; start=\"<r>\"; start-info=\"text/xml\"";
        strains.add(new Strain(name, "Loft", type, parts(reference), expected, played));
    }

    private void collect() {
        literal("the same identifier again and again", times("<sail id='i'/>"), SOUND, "500 .*\"i\" is there twice.*");
        literal(
                "references to nothing",
                "<sail beside='" + each(i -> "i" + i + " ") + "'/>",
                SOUND,
                "500 .*leads nowhere.*");
        literal("names in many namespaces", declarations(times("<y>l:x</y>")), SOUND, SOUND);
        literal(
                "values with many prefixes",
                declarations(each(i -> "<y>p" + i / 200 % 60 + "-" + i % 200 + ":x</y>")),
                "202|500 an element has more than 1000 attributes.*",
                SOUND);
        literal(
                "elements that nobody expects",
                times("<zz/>"),
                "500 <zz> of namespace urn:loft is not expected.*",
                "500 .*may not hold <zz>.*");
        literal("an element with a long name", "<" + times("a") + "/>", "500 .{1,1100}", "500 .{1,2100}");
        encoded(
                "elements that nothing refers to",
                "<rolls/>",
                each(i -> "<m id='i" + i + "'><l:name>a</l:name></m>"),
                SOUND,
                SOUND);
        encoded(
                "each refers to the next",
                "<rolls href='#i0'/>",
                each(i -> "<m id='i" + i + "'><l:name href='#i" + (i + 1) + "'/></m>"),
                "500 elements are nested deeper than 400 levels",
                SOUND + "|500 .*");
        encoded(
                "references to references",
                "<rolls href='#i0'/>",
                each(i -> "<m id='i" + i + "' href='#i" + (i + 1) + "'/>"),
                "500 the reference \"#i[0-9]+\" leads nowhere",
                SOUND + "|500 .*");
        encoded(
                "many references to the first of many",
                array(times("<i href='#i0'/>")),
                first(10_000, i -> "<m id='i" + i + "' href='#i" + (i + 1) + "'/>")
                        + "<m id='i10000'><l:name>a</l:name></m>",
                "500 references make the message grow beyond [0-9]+ elements",
                SOUND + "|500 .*");
        encoded(
                "each refers to the next twice",
                "<rolls href='#a0'/>",
                first(60, i -> "<m id='a" + i + "'><x href='#a" + (i + 1) + "'/><x href='#a" + (i + 1) + "'/></m>")
                        + "<m id='a60'/>",
                "500 references make the message grow beyond 10[0-9]{4} elements",
                SOUND + "|500 .*");
        encoded(
                "one long text for many",
                array(times("<i href='#a'/>")),
                "<m id='a'><l:name>" + times("a") + "</l:name></m>",
                "500 references make the message grow beyond 67108864 bytes",
                SOUND + "|500 .*");
        encoded(
                "a list of a thousand, each said beside",
                array(first(1_000, i -> "<i href='#i" + i + "'/>")),
                first(1_000, i -> "<m id='i" + i + "'><l:name>a</l:name></m>"),
                SOUND,
                SOUND);
        encoded(
                "types whose prefixes nobody declares",
                array(each(i -> "<i i:type='q" + i + ":x'><l:name>a</l:name></i>")),
                "",
                "500 the prefix q0 in \"q0:x\" is not declared",
                SOUND + "|500 .*");
        encoded(
                "words with prefixes that nobody declares",
                array("<i><l:name>" + each(i -> "q" + i + ":x ") + "</l:name></i>"),
                "",
                SOUND,
                SOUND);
        encoded(
                "places far out",
                array("<i c:position='[999999]'><l:name>a</l:name></i>"),
                "",
                "500 references make the message grow beyond 10[0-9]{4} elements",
                SOUND + "|500 .*");
        encoded(
                "a place in two dimensions",
                "<rolls c:arrayType='l:Roll[20,30]'><i c:position='[1,2]'><l:name>a</l:name></i></rolls>",
                "",
                SOUND,
                SOUND);
        included(
                "one part for many values",
                times("<cut><x:Include " + XOP + " href='cid:p'/></cut>"),
                "500 the values of the message take more than [0-9]+ KiB of memory",
                "202|500 .*");
        included(
                "one part for one value, many times",
                "<w xmlns='urn:other'>" + times("<x:Include " + XOP + " href='cid:p'/>") + "</w>",
                "500 the values of the message take more than [0-9]+ KiB of memory",
                "202|500 .*");
        strains.add(new Strain(
                "a path that nearly fits",
                "Sheets",
                null,
                "/sheet/" + ",".repeat(7_000),
                "404 no operation is at .*",
                "404 .*"));
        strains.add(new Strain(
                "a path that fits in many ways",
                "Sheets",
                null,
                "/sheet/" + ",".repeat(7_000) + "%FF.txt",
                "400 a field is not URL-encoded: %FF",
                "400 .*"));
        strains.add(new Strain(
                "bytes that are no text",
                "Sheets",
                null,
                "/sheet/a,%C3%28,c.txt",
                "400 a field is not URL-encoded: %C3%28",
                "400 .*"));
    }

    private String answer(Strain strain, String address) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder().timeout(Duration.ofMinutes(2));
        if (strain.type == null) {
            request.uri(URI.create(address + strain.body));
        } else {
            request.uri(URI.create(address))
                    .header("Content-Type", strain.type)
                    .header("SOAPAction", strain.port.equals("Loft") ? "\"urn:store\"" : "\"urn:roll\"")
                    .POST(HttpRequest.BodyPublishers.ofString(strain.body));
        }
        HttpResponse<String> answer =
                client.send(request.build(), HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        String said = answer.body()
                .replaceAll("(?s).*<faultstring[^>]*>(.*?)</faultstring>.*", "$1")
                .replace("&lt;", "<")
                .replace("&gt;", ">")
                .replace("&quot;", "\"")
                .replaceAll(" \\(line [0-9]+.*", "");
        return answer.statusCode() + (answer.statusCode() < 300 ? "" : " " + said.strip());
    }

    /** What a server says that it should not. */
    private List<String> wrong(String server, Map<String, String> addresses) throws Exception {
        List<String> wrong = new ArrayList<>();
        for (Strain strain : strains) {
            String came = answer(strain, addresses.get(strain.port));
            boolean played = server.equals("stand-in");
            if (!came.matches("(?s)" + (played ? strain.played : strain.expected))) {
                wrong.add(server + ", " + strain.name + ": " + came.substring(0, Math.min(200, came.length())));
            }
        }
        return wrong;
    }

    private static String at(Contract contract, StandIn standIn, String port) {
        return CalledOperation.of(contract).stream()
                .filter(called -> called.port().name().equals(port))
                .map(called -> standIn.addresses().get(called.port()))
                .findFirst()
                .orElseThrow();
    }

    @Test
    @Timeout(value = 10, unit = TimeUnit.MINUTES)
    void whatIsMadeToTakeLongIsAnswered() throws Exception {
        collect();
        Generated generated = Generated.from(CONTRACT, Files.createDirectories(folder.resolve("java")), null);
        GeneratedEnds ends = new GeneratedEnds(generated);
        List<String> wrong = new ArrayList<>();
        List<AutoCloseable> servers = new ArrayList<>();
        Map<String, String> inJava = new LinkedHashMap<>();
        for (PlannedService.Port port : generated.plan().services().get(0).ports()) {
            AutoCloseable server = ends.serve(port.type());
            servers.add(server);
            inJava.put(port.xmlName(), GeneratedEnds.address(server));
        }
        wrong.addAll(wrong("java", inJava));
        Map<String, String> played = new LinkedHashMap<>();
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, one -> {})) {
            inJava.keySet().forEach(port -> played.put(port, at(generated.contract(), standIn, port)));
            wrong.addAll(wrong("stand-in", played));
        }
        CSharp.assumed();
        Path folderOfCSharp = Files.createDirectories(folder.resolve("csharp"));
        PlannedService service = CSharp.service(CONTRACT, folderOfCSharp);
        List<List<String>> stops = new ArrayList<>();
        for (PlannedService.Port port : service.ports()) {
            stops.add(CSharp.stop(service, port, "/" + port.xmlName(), inJava.get(port.xmlName())));
        }
        try (CSharp.Program relay = CSharp.relay(folderOfCSharp, stops)) {
            Map<String, String> inCSharp = new LinkedHashMap<>();
            inJava.keySet().forEach(port -> inCSharp.put(port, relay.address("/" + port)));
            wrong.addAll(wrong("csharp", inCSharp));
            assertThat(relay.said()).isEmpty();
        }
        for (AutoCloseable server : servers) {
            server.close();
        }
        assertThat(wrong).isEmpty();
    }
}
