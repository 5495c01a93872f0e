package house;

import example.lanternbay.tide.DryFault;
import example.lanternbay.tide.Reading;
import example.lanternbay.tide.TideGauge;
import example.lanternbay.tide.TideGaugeClient;
import example.lanternbay.tide.TideGaugeEndpoint;
import example.lanternbay.tide.TideHouse;
import example.lanternbay.tide.TideLog;
import example.lanternbay.tide.TideLogClient;
import example.lanternbay.tide.TideLogEndpoint;
import example.lanternbay.tide.TooAlikeFault;
import example.lanternbay.tide.Trend;
import example.lanternbay.tide.runtime.soap.SoapServer;
import example.lanternbay.tide.runtime.value.XmlDateTime;
import java.math.BigDecimal;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;

/** Remote procedure calls and a body of two elements, called over HTTP; what was seen is told as text. */
public final class TideCalls implements TideGauge, TideLog {
    private final List<String> seen = new ArrayList<>();

    @Override
    public ReadTideResult readTide(int mark, String station) throws DryFault {
        if (station == null || station.isEmpty()) {
            throw new DryFault("no water", "dry since spring");
        }
        Reading reading = new Reading()
                .setAt(XmlDateTime.of("2027-05-09T24:00:00"))
                .setLevel(new BigDecimal("4.20"))
                .setTrend(Trend.RISING);
        return new ReadTideResult(mark + 1, reading);
    }

    @Override
    public void reset() {
        seen.add("reset");
    }

    @Override
    public BigDecimal highest(Reading of, Reading or, Integer number) throws TooAlikeFault {
        seen.add("ticket " + number);
        if (of.equals(or)) {
            throw new TooAlikeFault("no difference", of);
        }
        return of.getLevel().max(or.getLevel());
    }

    @Override
    public int log(String watch, Reading entry) {
        seen.add(watch + " " + entry);
        return 7;
    }

    private static Reading reading(String level) {
        return new Reading().setAt(XmlDateTime.of("2027-05-09T06:00:00Z")).setLevel(new BigDecimal(level));
    }

    private static String post(String address, String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", "text/xml")
                .header("SOAPAction", "\"\"")
                .POST(HttpRequest.BodyPublishers.ofString(
                        "<e:Envelope xmlns:e=\"http://schemas.xmlsoap.org/soap/envelope/\" xmlns:c=\"http://lanternbay.example/tide/calls\"><e:Body>"
                                + body + "</e:Body></e:Envelope>"))
                .build();
        return HttpClient.newHttpClient()
                .send(request, HttpResponse.BodyHandlers.ofString())
                .body();
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        TideCalls house = new TideCalls();
        List<String> told = new ArrayList<>();
        try (SoapServer server = SoapServer.listen(0)
                .trustForwardedHeaders()
                .publish("/gauge", TideGaugeEndpoint.of(house))
                .publish("/log", TideLogEndpoint.of(house))) {
            String base = "http://localhost:" + server.port();
            TideGauge gauge = TideGaugeClient.connect(TideHouse.GAUGE, with -> with.address(base + "/gauge"));
            told.add("" + gauge.readTide(41, "North mole"));
            try {
                gauge.readTide(1, "");
            } catch (DryFault e) {
                told.add(e.getDetail() + " / " + e.getMessage());
            }
            gauge.reset();
            told.add("" + gauge.highest(reading("3.1"), reading("3.10001"), 12));
            try {
                gauge.highest(reading("3"), reading("3"), null);
            } catch (TooAlikeFault e) {
                told.add(e.getMessage() + " " + e.getDetail());
            }
            TideLog log = TideLogClient.connect(TideHouse.LOG, with -> with.address(base + "/log"));
            told.add("" + log.log("first", reading("2")));
            told.add(post(base + "/gauge", "<c:readTide><mark>1</mark><station>x</station></c:readTide>"));
            HttpRequest asked = HttpRequest.newBuilder(URI.create(base + "/gauge?wsdl"))
                    .header("X-Forwarded-Host", "front.example")
                    .header("X-Forwarded-Proto", "https")
                    .build();
            String shown = HttpClient.newHttpClient()
                    .send(asked, HttpResponse.BodyHandlers.ofString())
                    .body();
            told.add("" + shown.contains("location=\"https://front.example/gauge\""));
            told.add(post(base + "/gauge", "<c:readTide><station>x</station></c:readTide>"));
        }
        told.addAll(house.seen);
        return String.join("\n", told) + "\n";
    }
}
