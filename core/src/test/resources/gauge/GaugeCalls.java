package tide;

import gauge.Colour;
import gauge.ColourError;
import gauge.Gauge;
import gauge.GaugeClient;
import gauge.GaugeEndpoint;
import gauge.Gauges;
import gauge.Reading;
import gauge.TroubleFault;
import gauge.runtime.soap.SoapPort;
import gauge.runtime.soap.SoapServer;
import gauge.runtime.xml.XmlObject;
import gauge.runtime.xml.XmlSimple;
import gauge.runtime.value.XmlTime;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;

/** Every shape of document/literal operation, called over HTTP; what was seen on both sides is told as text. */
public final class GaugeCalls implements Gauge {
    private final List<String> seen = new ArrayList<>();

    @Override
    public BigDecimal level(int station) throws TroubleFault, ColourError {
        switch (station) {
            case 1:
                throw new TroubleFault("low", "mud & <weed>");
            case 2:
                throw new ColourError("red", Colour.RED);
            default:
                return station == 3 ? null : new BigDecimal("1.50");
        }
    }

    @Override
    public Colour colour(Colour colour) {
        return colour == Colour.RED ? Colour.GREEN : Colour.RED;
    }

    @Override
    public List<Short> sizes(List<Short> sizes) {
        seen.add("sizes " + sizes);
        return List.of((short) -1, (short) 2);
    }

    @Override
    public XmlObject echo(XmlObject anything) {
        return anything;
    }

    @Override
    public NoteResult note(Reading body, Colour colour, Integer station) {
        seen.add("note " + body + " " + colour + " " + station);
        return new NoteResult(body, Colour.GREEN, station == null ? null : station + 1);
    }

    @Override
    public void reset() {
        seen.add("reset");
    }

    @Override
    public void restart() {
        seen.add("restart");
    }

    @Override
    public SwapResult swap(boolean value, Integer more) {
        return new SwapResult(!value, more == null ? List.of() : List.of(more, more));
    }

    @Override
    public void notify2(int station) {
        seen.add("notify " + station);
    }

    @Override
    public gauge.SwapResult keep(gauge.SwapResult kept) {
        return kept.setN(kept.getN() + 1);
    }

    private static String told(Object value) {
        return value + "\n";
    }

    /** Calls everything in one version of SOAP. */
    public static String all(boolean soap12) throws Exception {
        GaugeCalls gauges = new GaugeCalls();
        StringBuilder told = new StringBuilder();
        try (SoapServer server = SoapServer.listen(0).publish("/g", GaugeEndpoint.of(gauges))) {
            SoapPort<Gauge> port = soap12 ? Gauges.TWO : Gauges.ONE;
            GaugeClient gauge =
                    GaugeClient.connect(port, with -> with.address("http://127.0.0.1:" + server.port() + "/g"));
            told.append(told(gauge.level(4))).append(told(gauge.level(3)));
            try {
                gauge.level(1);
            } catch (TroubleFault e) {
                told.append(told(e.getMessage() + " " + e.getDetail()));
            }
            try {
                gauge.level(2);
            } catch (ColourError e) {
                told.append(told(e.getDetail()));
            }
            told.append(told(gauge.colour(Colour.RED)));
            told.append(told(gauge.sizes(List.of((short) 7))));
            told.append(told(gauge.echo(XmlSimple.of(5)))).append(told(gauge.echo(new Reading().setBy("me").setAt(XmlTime.of("12:00:00")))));
            told.append(told(gauge.note(new Reading().setAt(XmlTime.of("24:00:00")), Colour.RED, 8)));
            told.append(told(gauge.note(new Reading().setAt(XmlTime.of("01:00:00Z")), null, null)));
            gauge.reset();
            gauge.restart();
            told.append(told(gauge.swap(true, 3))).append(told(gauge.swapAsync(false, null).get()));
            gauge.notify2(9);
            told.append(told(gauge.keep(new gauge.SwapResult().setN(1))));
        }
        return told + String.join("\n", gauges.seen) + "\n";
    }
}
