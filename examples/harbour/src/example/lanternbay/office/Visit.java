package example.lanternbay.office;

import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.NoBerthFreeFault;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
import example.lanternbay.harbour.desk.runtime.value.XmlDate;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Tanker;
import example.lanternbay.harbour.vessels.Vessel;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.List;

/** A day at the harbour office: a server on a free port, and a client that calls it over HTTP. */
public final class Visit {
    private Visit() {}

    public static void main(String[] arguments) throws Exception {
        InetSocketAddress anyPort = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        try (SoapServer server =
                SoapServer.listen(anyPort).publish("/desk", HarbourDeskEndpoint.of(new LanternBayDesk()))) {
            String address = "http://127.0.0.1:" + server.port() + "/desk";
            System.out.println("server at " + address + " (SOAP 1.1 and 1.2; GET shows the contract)");
            HarbourDeskClient desk = HarbourDeskClient.connect(
                    HarbourOffice.SOAP12_DESK,
                    with -> with.address(address).timeout(Duration.ofSeconds(30)));

            System.out.println("a list");
            for (Berth berth : desk.listBerths(null)) {
                System.out.println("  berth " + berth.getNumber() + " at " + berth.getQuay() + ", "
                        + berth.getDepthInMetres() + " m deep");
            }

            System.out.println("a vessel whose type the answer chooses");
            Vessel vessel = desk.findVessel("LB9T");
            System.out.println("  " + vessel);

            System.out.println("an answer");
            XmlDateTime arrival = XmlDateTime.of("2027-05-09T14:30:00+02:00");
            XmlDuration stay = XmlDuration.of(Duration.ofDays(2));
            BerthOffer offer = desk.requestBerth(vessel, arrival, stay, List.of(Need.WATER, Need.PILOT));
            System.out.println("  berth " + offer.getBerth().getNumber() + " from " + offer.getFrom() + " for "
                    + offer.getDues().getValue() + " " + offer.getDues().getCurrency());

            System.out.println("a declared fault, caught by its type");
            Tanker deep = new Tanker().setCargo("water").setCubicMetres(90_000);
            deep.setName("Deep Well")
                    .setLengthInMetres(new BigDecimal("210"))
                    .setDraughtInMetres(new BigDecimal("15.0"))
                    .setCallSign("NI7T");
            try {
                desk.requestBerth(deep, arrival, stay, List.of());
            } catch (NoBerthFreeFault fault) {
                System.out.println("  " + fault.getMessage() + "; waiting: " + fault.getDetail().getWaiting()
                        + ", next free: " + fault.getDetail().getNextFree());
            }

            System.out.println("a call with a header");
            Pass pass = new Pass().setHolder("Ada Quill").setValidUntil(XmlDate.of("2027-12-31"));
            System.out.println("  " + desk.payDues("LB9T", new Money().setValue(new BigDecimal("432.00")), pass));

            System.out.println("calls that do not wait");
            desk.castOffAsync(1).thenCompose(done -> desk.listBerthsAsync(null)).thenAccept(berths ->
                    System.out.println("  " + berths.size() + " berths are free")).get();
        }
    }
}
