package example.lanternbay.office;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.Documents;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.NoBerthFree;
import example.lanternbay.harbour.desk.NoBerthFreeFault;
import example.lanternbay.harbour.desk.RequestBerth;
import example.lanternbay.harbour.desk.RequestBerthResponse;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Yacht;
import java.math.BigDecimal;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.protypos.junit.PlayedContract;
import org.protypos.junit.Told;

class BookingTest {
    @RegisterExtension
    final PlayedContract office = PlayedContract.of("../examples/harbour/contract/desk.wsdl")
            .types(Documents.INSTANCE);

    private HarbourDesk desk() {
        return HarbourDeskClient.connect(
                HarbourOffice.DESK, with -> with.address(office.address("Desk")).timeout(Duration.ofSeconds(30)));
    }

    private static BerthOffer request(HarbourDesk desk, String name) throws NoBerthFreeFault {
        Yacht yacht = new Yacht();
        yacht.setCallSign("LB4F").setName(name);
        yacht.setLengthInMetres(new BigDecimal("9.5")).setDraughtInMetres(BigDecimal.ONE);
        yacht.setOwner("Ada");
        return desk.requestBerth(
                yacht, XmlDateTime.of("2027-05-09T14:30:00Z"), XmlDuration.of("P2D"), List.of(Need.WATER));
    }

    @Test
    void theOfficeAnswersAsItIsTold() throws Exception {
        BerthOffer offer = new BerthOffer()
                .setBerth(new Berth().setNumber(7).setQuay("north").setDepthInMetres(new BigDecimal("4.5")))
                .setFrom(XmlDateTime.of("2027-05-09T15:00:00Z"))
                .setDues(new Money().setCurrency("LBD").setValue(new BigDecimal("41.50")));
        office.when("requestBerth").with("vessel.name", "Aurora").answer(new RequestBerthResponse().setOffer(offer));

        assertEquals(offer, request(desk(), "Aurora"));

        RequestBerth asked = office.single("requestBerth").as(RequestBerth.class);
        assertEquals("Aurora", asked.getVessel().getName());
        assertEquals(List.of(Need.WATER), asked.getNeed());
    }

    @Test
    void whenAllBerthsAreTakenTheFaultSaysHowManyWait() {
        office.when("requestBerth").blaming("sender").fault(new NoBerthFree().setWaiting(4), "all berths are taken");

        NoBerthFreeFault fault = assertThrows(NoBerthFreeFault.class, () -> request(desk(), "Aurora"));

        assertEquals(4, fault.getDetail().getWaiting());
        assertTrue(fault.fault().isSenders());
    }

    @Test
    void aBrokenAnswerIsNoBerth() {
        office.when("requestBerth").broken(Told.Broken.TRUNCATED);

        assertThrows(RuntimeException.class, () -> request(desk(), "Aurora"));
    }

    @Test
    void nobodyWaitsForEver() {
        office.when("listBerths").after(Duration.ofSeconds(2)).sample();
        HarbourDesk hasty = HarbourDeskClient.connect(
                HarbourOffice.DESK, with -> with.address(office.address()).timeout(Duration.ofMillis(100)));

        assertThrows(RuntimeException.class, () -> hasty.listBerths(BigDecimal.ONE));
        assertEquals(0, office.received("payDues").size());
    }
}
