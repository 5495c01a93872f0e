package example.lanternbay.agent;

import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.NoBerthFreeFault;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.value.XmlDate;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Ferry;
import example.lanternbay.harbour.vessels.Vessel;
import java.math.BigDecimal;
import java.util.List;

/** An agent's code against the client: it calls everything and looks at everything. */
public final class Agent {
    private Agent() {}

    /** Calls everything. */
    public static String all(String address) {
        Vessel vessel = new Ferry().setPassengers(9).setLine("Gull Island");
        vessel.setName("Aurora")
                .setLengthInMetres(BigDecimal.TEN)
                .setDraughtInMetres(BigDecimal.ONE)
                .setCallSign("LB4F");
        HarbourDeskClient desk = HarbourDeskClient.connect(HarbourOffice.DESK, with -> with.address(address));
        StringBuilder seen = new StringBuilder();
        for (Berth berth : desk.listBerths(BigDecimal.ONE)) {
            int number = berth.getNumber();
            String quay = berth.getQuay();
            BigDecimal depth = berth.getDepthInMetres();
            seen.append(number).append(quay).append(depth);
        }
        try {
            BerthOffer offer = desk.requestBerth(
                    vessel, XmlDateTime.of("2027-05-09T14:30:00Z"), XmlDuration.of("P1D"), List.of(Need.WATER, Need.PILOT));
            seen.append(offer.getBerth().getNumber()).append(offer.getDues().getValue());
        } catch (NoBerthFreeFault e) {
            seen.append(e.getMessage());
        }
        Pass pass = new Pass().setHolder("Ada").setValidUntil(XmlDate.of("2027-05-09"));
        HarbourDesk.PayDuesResult paid = desk.payDues("LB4F", new Money().setValue(BigDecimal.TEN), pass);
        long receipt = paid.receiptNumber();
        Vessel found = desk.findVessel("LB4F");
        desk.castOff(1);
        return seen.append(receipt).append(found).toString();
    }
}
