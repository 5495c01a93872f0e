package caller;

import carried.Gauge;
import carried.GaugeByHttp;
import carried.GaugeByHttpClient;
import carried.GaugeByHttpEndpoint;
import carried.GaugeClient;
import carried.GaugeEndpoint;
import carried.Gauges;
import carried.runtime.soap.CallFailedException;
import carried.runtime.soap.SoapServer;
import carried.runtime.value.XmlDate;
import carried.runtime.xml.XmlFormatException;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;

/** One port type that SOAP 1.1, SOAP 1.2 and HTTP carry; and what is read leniently on either end. */
public final class CarriedCalls {
    private CarriedCalls() {}

    private static List<BigDecimal> level(String station, XmlDate day) {
        return List.of(new BigDecimal(station == null ? 0 : station.length()), new BigDecimal(day == null ? "0.5" : "1.5"));
    }

    private static String ask(String address, String type, String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
        HttpResponse<String> answer = HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
        return answer.statusCode() + " " + answer.body().strip();
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        List<String> told = new ArrayList<>();
        Gauge gauge = CarriedCalls::level;
        GaugeByHttp byHttp = CarriedCalls::level;
        InetSocketAddress here = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        List<XmlFormatException> passedOver = new ArrayList<>();
        try (SoapServer strict = SoapServer.listen(here);
                SoapServer lenient = SoapServer.listen(here).lenient(passedOver::add)) {
            for (SoapServer server : List.of(strict, lenient)) {
                server.publish("/soap", GaugeEndpoint.of(gauge)).publish("/http", GaugeByHttpEndpoint.of(byHttp));
                String base = "http://127.0.0.1:" + server.port();
                told.add("" + GaugeClient.connect(Gauges.SOAP11, with -> with.address(base + "/soap")).level("mole", null));
                told.add("" + GaugeClient.connect(Gauges.SOAP12, with -> with.address(base + "/soap"))
                        .level("mole", XmlDate.of("2027-05-09")));
                told.add("" + GaugeByHttpClient.connect(with -> with.address(base + "/http/")).level("quay", null));
                String odd = "<level xmlns='urn:carried'><day>soon</day><station>mole</station><tide/></level>";
                told.add(ask(base + "/http/level", "application/xml", odd));
                String envelope = "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body>" + odd
                        + "</e:Body></e:Envelope>";
                told.add(ask(base + "/soap", "text/xml", envelope));
                String shown = HttpClient.newHttpClient()
                        .send(HttpRequest.newBuilder(URI.create(base + "/http")).build(),
                                HttpResponse.BodyHandlers.ofString())
                        .body();
                told.add(shown.contains("address location=\"" + base + "/http\"") + " "
                        + shown.contains("address location=\"" + base + "/soap\"") + " "
                        + shown.contains("http://gauge.example/"));
            }
            passedOver.forEach(deviation -> told.add("lenient server: " + deviation.getMessage()));
            answers(told);
        }
        return String.join("\n", told) + "\n";
    }

    /** A service that gives odd answers, asked by a strict client and a lenient one. */
    private static void answers(List<String> told) throws Exception {
        com.sun.net.httpserver.HttpServer peer = com.sun.net.httpserver.HttpServer.create(
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        byte[] answer = ("<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body><levelResponse"
                        + " xmlns='urn:carried' at='noon'><metres>1.5</metres><metres>high</metres>"
                        + "<metres xmlns=''>2.5</metres></levelResponse></e:Body></e:Envelope>")
                .getBytes(java.nio.charset.StandardCharsets.UTF_8);
        peer.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            exchange.getResponseHeaders().set("Content-Type", "text/xml");
            exchange.sendResponseHeaders(200, answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        peer.start();
        GaugeClient client = GaugeClient.connect(
                with -> with.address("http://127.0.0.1:" + peer.getAddress().getPort() + "/"));
        try {
            told.add("" + client.level("x", null));
        } catch (CallFailedException e) {
            told.add(e.getMessage());
        }
        told.add("" + client.with(with -> with.lenient(deviation -> told.add("lenient client: " + deviation.getMessage())))
                .level("x", null));
        peer.stop(0);
    }
}
