package example.lanternbay.office;

import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.NoBerthFree;
import example.lanternbay.harbour.desk.NoBerthFreeFault;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.value.XmlDate;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Ferry;
import example.lanternbay.harbour.vessels.Flag;
import example.lanternbay.harbour.vessels.Tanker;
import example.lanternbay.harbour.vessels.Vessel;
import example.lanternbay.harbour.vessels.Yacht;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;

/** The harbour office of Lantern Bay, written by hand against the generated interface. */
public final class LanternBayDesk implements HarbourDesk {
    private static final BigDecimal DUES_PER_METRE = new BigDecimal("4.50");

    private final Map<Integer, Berth> free = new TreeMap<>();
    private final Map<String, Vessel> vessels = new ConcurrentHashMap<>();

    public LanternBayDesk() {
        berth(1, "North Quay", "4.2");
        berth(2, "North Quay", "6.0");
        berth(7, "Lighthouse Quay", "11.5");
        register(new Ferry().setPassengers(180).setLine("Lantern Bay - Gull Island"), "Aurora", "38.5", "2.9", "LB4F");
        register(new Tanker().setCargo("rape oil").setCubicMetres(5400), "Mellow Drop", "96.0", "7.8", "LB9T");
        register(new Yacht().setClub("Lantern Bay Sailing Club"), "Plover", "11.2", "1.9", "LB2Y");
    }

    private void berth(int number, String quay, String depth) {
        free.put(number, new Berth().setNumber(number).setQuay(quay).setDepthInMetres(new BigDecimal(depth)));
    }

    private void register(Vessel vessel, String name, String length, String draught, String callSign) {
        vessel.setName(name)
                .setLengthInMetres(new BigDecimal(length))
                .setDraughtInMetres(new BigDecimal(draught))
                .setFlag(Flag.LANTERN_COAST)
                .setCallSign(callSign);
        vessels.put(callSign, vessel);
    }

    @Override
    public synchronized BerthOffer requestBerth(
            Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Need> need) throws NoBerthFreeFault {
        for (Berth berth : List.copyOf(free.values())) {
            if (berth.getDepthInMetres().compareTo(vessel.getDraughtInMetres()) > 0) {
                free.remove(berth.getNumber());
                BigDecimal dues = vessel.getLengthInMetres().multiply(DUES_PER_METRE);
                return new BerthOffer().setBerth(berth).setFrom(arrival).setDues(new Money().setValue(dues));
            }
        }
        throw new NoBerthFreeFault(
                "no berth is free for a draught of " + vessel.getDraughtInMetres() + " m",
                new NoBerthFree()
                        .setWaiting(2)
                        .setNextFree(XmlDateTime.of("2027-05-11T06:00:00Z")));
    }

    @Override
    public synchronized List<Berth> listBerths(BigDecimal deepEnoughFor) {
        return free.values().stream()
                .filter(berth -> deepEnoughFor == null || berth.getDepthInMetres().compareTo(deepEnoughFor) > 0)
                .toList();
    }

    @Override
    public Vessel findVessel(String callSign) {
        return vessels.get(callSign);
    }

    @Override
    public PayDuesResult payDues(String callSign, Money amount, Pass pass) {
        if (pass == null) {
            throw new IllegalArgumentException("dues are paid with a harbour pass");
        }
        return new PayDuesResult(270_451L, XmlDate.of(LocalDate.of(2027, 5, 9)));
    }

    @Override
    public synchronized void castOff(int berthNumber) {
        berth(berthNumber, "North Quay", "4.2");
    }
}
