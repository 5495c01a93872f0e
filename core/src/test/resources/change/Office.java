package example.lanternbay.office;

import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.function.IntFunction;

/** The office, open for as long as somebody visits it. */
public final class Office {
    private Office() {}

    /** Opens the office at a free port and lets somebody visit it. */
    public static String open(IntFunction<String> visit) {
        InetSocketAddress anyPort = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        try (SoapServer server = SoapServer.listen(anyPort).publish("/desk", HarbourDeskEndpoint.of(new LanternBayDesk()))) {
            return visit.apply(server.port());
        }
    }
}
