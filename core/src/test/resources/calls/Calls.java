package example.lanternbay.office;

import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.NoBerthFree;
import example.lanternbay.harbour.desk.NoBerthFreeFault;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.soap.CallFailedException;
import example.lanternbay.harbour.desk.runtime.soap.DeclaredFault;
import example.lanternbay.harbour.desk.runtime.soap.UndeclaredFaultException;
import example.lanternbay.harbour.desk.runtime.value.XmlDate;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Yacht;
import java.math.BigDecimal;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
import example.lanternbay.harbour.desk.runtime.soap.CallRefusedException;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import javax.xml.namespace.QName;

/** Calls of the generated client whose outcomes are told as text. */
public final class Calls {
    private Calls() {}

    private static HarbourDeskClient desk(String address, boolean soap12, Duration patience) {
        return HarbourDeskClient.connect(
                soap12 ? HarbourOffice.SOAP12_DESK : HarbourOffice.DESK,
                with -> with.address(address).timeout(patience).httpHeader("X-Agent", "quill"));
    }

    /** How a call that should give a list ends. */
    public static String list(String address) {
        return list(address, Duration.ofMinutes(1));
    }

    /** How it ends for one who does not wait long. */
    public static String listAtOnce(String address) {
        return list(address, Duration.ofMillis(1500));
    }

    private static String list(String address, Duration patience) {
        try {
            return desk(address, false, patience).listBerths(BigDecimal.ONE).size() + " berths";
        } catch (UndeclaredFaultException e) {
            return "fault " + e.fault().code() + ": " + e.getMessage();
        } catch (CallFailedException e) {
            return e.status() + ": " + e.getMessage();
        }
    }

    private static Yacht yacht() {
        Yacht yacht = new Yacht().setOwner("Ada <&> \u00e9\ud83d\ude00");
        yacht.setName("Plover")
                .setDraughtInMetres(new BigDecimal("1.90"))
                .setLengthInMetres(new BigDecimal("11"))
                .setCallSign("LB2Y");
        return yacht;
    }

    /** Every kind of call in one version of SOAP. */
    public static String all(String address, boolean soap12) throws Exception {
        HarbourDeskClient desk = desk(address, soap12, Duration.ofMinutes(1));
        StringBuilder told = new StringBuilder();
        Yacht yacht = yacht();
        XmlDateTime arrival = XmlDateTime.of("2027-05-09T24:00:00");
        XmlDuration stay = XmlDuration.of(Duration.ofHours(30));
        told.append(desk.requestBerth(yacht, arrival, stay, null).getFrom()).append('\n');
        told.append(desk.findVessel("LB9T")).append('\n').append(desk.findVessel("none")).append('\n');
        yacht.setDraughtInMetres(new BigDecimal("99"));
        try {
            desk.requestBerth(yacht, arrival, stay, List.of());
        } catch (NoBerthFreeFault e) {
            told.append(e.code().getLocalPart()).append(' ').append(e.getDetail()).append('\n');
        }
        try {
            desk.requestBerthAsync(yacht, arrival, stay, List.of()).join();
        } catch (CompletionException e) {
            told.append(e.getCause().getClass().getSimpleName()).append('\n');
        }
        Money money = new Money().setValue(new BigDecimal("1.20"));
        Pass pass = new Pass().setHolder("Ada").setValidUntil(XmlDate.of("2027-12-31Z"));
        told.append(desk.payDues("LB2Y", money, pass)).append('\n');
        try {
            desk.payDues("LB2Y", money, null);
        } catch (UndeclaredFaultException e) {
            told.append(e.getMessage()).append('\n');
        }
        desk.castOff(1);
        told.append(desk.listBerthsAsync(null).get().size()).append('\n');
        return told.toString();
    }

    /** What a caller is told of whatever an implementation throws. */
    public static String thrown() throws Exception {
        List<RuntimeException> thrown = List.of(
                new UnsupportedOperationException("of a list that somebody else made"),
                new SecurityException("no access to /etc/keys"),
                new CallRefusedException("no berth 4"),
                CallRefusedException.notImplemented("castOff is not implemented"));
        StringBuilder told = new StringBuilder();
        for (RuntimeException one : thrown) {
            HarbourDesk failing = (HarbourDesk) Proxy.newProxyInstance(
                    HarbourDesk.class.getClassLoader(), new Class<?>[] {HarbourDesk.class}, (proxy, method, values) -> {
                        throw one;
                    });
            InetSocketAddress anyPort = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
            try (SoapServer server = SoapServer.listen(anyPort).publish("/desk", HarbourDeskEndpoint.of(failing))) {
                told.append(list("http://127.0.0.1:" + server.port() + "/desk")).append('\n');
            }
        }
        return told.toString();
    }

    /** What a client sees of a declared fault for which the server says who is to blame, and why. */
    public static String blamed(boolean soap12) throws Exception {
        HarbourDesk strict = (HarbourDesk) Proxy.newProxyInstance(
                HarbourDesk.class.getClassLoader(), new Class<?>[] {HarbourDesk.class}, (proxy, method, values) -> {
                    NoBerthFreeFault fault = new NoBerthFreeFault("ask for less", new NoBerthFree().setWaiting(2).setNextFree(XmlDateTime.of("2027-05-11T06:00:00Z")));
                    throw ((List<?>) values[3]).isEmpty()
                            ? DeclaredFault.ofReceiver(fault)
                            : DeclaredFault.ofSender(fault, new QName("urn:lanternbay", "needs"));
                });
        InetSocketAddress anyPort = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        StringBuilder told = new StringBuilder();
        try (SoapServer server = SoapServer.listen(anyPort).publish("/desk", HarbourDeskEndpoint.of(strict))) {
            HarbourDeskClient desk =
                    desk("http://127.0.0.1:" + server.port() + "/desk", soap12, Duration.ofMinutes(1));
            for (List<Need> needs : List.of(List.of(Need.WATER), List.<Need>of())) {
                try {
                    desk.requestBerth(yacht(), XmlDateTime.of("2027-05-09T10:00:00"), XmlDuration.of(Duration.ZERO), needs);
                } catch (NoBerthFreeFault e) {
                    told.append(e.fault().code()).append(' ').append(e.getMessage()).append('\n');
                }
            }
        }
        return told.toString();
    }

    /** Cancels a call that waits for an answer. */
    public static String cancel(String address) {
        CompletableFuture<?> call = desk(address, false, Duration.ofMinutes(1)).listBerthsAsync(null);
        call.cancel(true);
        try {
            call.join();
            return "an answer";
        } catch (CancellationException e) {
            return "cancelled";
        }
    }
}
