package caller;

import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.security.UsernameCheck;
import example.lanternbay.harbour.desk.runtime.security.UsernameToken;
import example.lanternbay.harbour.desk.runtime.security.XmlSignature;
import example.lanternbay.harbour.desk.runtime.soap.SoapGuard;
import example.lanternbay.harbour.desk.runtime.soap.SoapInterceptor;
import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
import example.lanternbay.harbour.desk.runtime.soap.SoapSettings;
import example.lanternbay.harbour.desk.runtime.value.XmlDate;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.vessels.Vessel;
import java.io.InputStream;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;

/** Calls that must show who makes them, well and badly. */
public final class SecurityCalls implements HarbourDesk {
    private final List<String> told = new ArrayList<>();
    private final Path home = Files.createTempDirectory("keys");

    private SecurityCalls() throws Exception {}

    private KeyStore keys(String name, String algorithm) throws Exception {
        Path file = home.resolve(name + ".p12");
        Process tool = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                        "-genkeypair", "-alias", "it", "-keyalg", algorithm, "-dname", "CN=" + name,
                        "-validity", "2", "-keystore", file.toString(), "-storepass", "changeit")
                .redirectErrorStream(true)
                .start();
        tool.getInputStream().readAllBytes();
        tool.waitFor();
        KeyStore store = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(file)) {
            store.load(in, "changeit".toCharArray());
        }
        Files.delete(file);
        return store;
    }

    private static XmlSignature by(KeyStore keys) throws Exception {
        return XmlSignature.by((PrivateKey) keys.getKey("it", "changeit".toCharArray()), certificate(keys));
    }

    private static X509Certificate certificate(KeyStore keys) throws Exception {
        return (X509Certificate) keys.getCertificate("it");
    }

    /** Calls, and tells the answer or why there is none. */
    private void call(String what, SoapServer server, String path, UnaryOperator<SoapSettings> with) {
        HarbourDeskClient client = HarbourDeskClient.connect(HarbourOffice.SOAP12_DESK, settings ->
                with.apply(settings.address("http://127.0.0.1:" + server.port() + path)));
        try {
            told.add(what + ": " + client.listBerths(new BigDecimal("2.5")).size());
            client.castOff(4);
        } catch (RuntimeException e) {
            told.add(what + ": " + e.getMessage());
        }
    }

    /** Changes what is sent after everybody else has. */
    private static SoapInterceptor changing(Function<String, String> change) {
        return new SoapInterceptor() {
            @Override
            public byte[] request(Call call, byte[] envelope) {
                return change.apply(new String(envelope, StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8);
            }
        };
    }

    private static String body(String envelope) {
        return envelope.substring(envelope.indexOf("<soap:Body"), envelope.indexOf("</soap:Body>") + 12);
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        SecurityCalls calls = new SecurityCalls();
        try (SoapServer server =
                SoapServer.listen(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0))) {
            calls.names(server);
            calls.signatures(server);
        }
        Files.delete(calls.home);
        return String.join("\n", calls.told) + "\n";
    }

    private void names(SoapServer server) {
        server.publish("/open", HarbourDeskEndpoint.of(this));
        server.publish(
                "/names",
                HarbourDeskEndpoint.of(this).guarded(UsernameCheck.of(name -> name.equals("ada") ? "p\u00e4ss" : null)));
        call("no name", server, "/names", with -> with);
        call("text", server, "/names", with -> with.soapHeader(UsernameToken.text("ada", "p\u00e4ss")));
        call("digest", server, "/names", with -> with.soapHeader(UsernameToken.digest("ada", "p\u00e4ss")));
        call("wrong text", server, "/names", with -> with.soapHeader(UsernameToken.text("ada", "pass")));
        call("wrong digest", server, "/names", with -> with.soapHeader(UsernameToken.digest("ada", "pass")));
        call("wrong name", server, "/names", with -> with.soapHeader(UsernameToken.digest("bo", "p\u00e4ss")));
        String[] first = new String[1];
        call("first", server, "/names", with -> with.soapHeader(UsernameToken.digest("ada", "p\u00e4ss"))
                .interceptor(changing(envelope -> first[0] == null ? first[0] = envelope : envelope)));
        call("again", server, "/names", with -> with.interceptor(changing(envelope -> first[0])));
        call("old", server, "/names", with -> with.soapHeader(UsernameToken.text("ada", "p\u00e4ss"))
                .interceptor(changing(envelope -> envelope.replaceAll("Expires>20..", "Expires>2001"))));
        call("must be understood", server, "/names", with -> with.soapHeader(UsernameToken.text("ada", "p\u00e4ss"))
                .interceptor(changing(envelope -> envelope.replace(":Security ", ":Security soap:mustUnderstand='1' ")
                        .replace(":Security>", ":Security soap:mustUnderstand='1'>")
                        .replaceAll("</([a-z0-9]+):Security [^>]*>", "</$1:Security>"))));
    }

    private void signatures(SoapServer server) throws Exception {
        KeyStore ours = keys("office", "EC");
        KeyStore theirs = keys("agent", "RSA");
        KeyStore strange = keys("stranger", "RSA");
        server.publish(
                "/signed",
                HarbourDeskEndpoint.of(this).guarded(by(ours).trusting(List.of(certificate(theirs)))));
        XmlSignature agent = by(theirs).trusting(List.of(certificate(ours), certificate(strange)));
        call("signed", server, "/signed", with -> with.interceptor(agent));
        call("signed with a name", server, "/signed", with -> with.soapHeader(UsernameToken.digest("ada", "x"))
                .interceptor(agent.covering(new QName("urn:x", "block"))));
        call("not signed", server, "/signed", with -> with);
        XmlSignature stranger = by(strange);
        call("by a stranger", server, "/signed", with -> with.interceptor(stranger));
        call("changed", server, "/signed", with -> with.interceptor(agent)
                .interceptor(changing(envelope -> envelope.replace("2.5", "9.5"))));
        call("moved", server, "/signed", with -> with.interceptor(agent).interceptor(changing(envelope -> {
            String signed = body(envelope);
            String forged = signed.replaceAll("(wsu:Id=.)", "$1forged").replace("2.5", "9.5");
            return envelope.replace(signed, forged)
                    .replace("</soap:Header>", "<x:box xmlns:x='urn:x'>" + signed + "</x:box></soap:Header>");
        })));
        call("twice", server, "/signed", with -> with.interceptor(agent).interceptor(changing(envelope ->
                envelope.replace("</soap:Header>", "<x:box xmlns:x='urn:x'>" + body(envelope) + "</x:box></soap:Header>"))));
        call("expired", server, "/signed", with -> with.interceptor(agent)
                .interceptor(changing(envelope -> envelope.replaceAll("Expires>20..", "Expires>2001"))));
        call("a bomb", server, "/signed", with -> with.interceptor(changing(envelope ->
                "<!DOCTYPE e [<!ENTITY a 'aaaa'>]>" + envelope)));
        call("deep", server, "/signed", with -> with.interceptor(changing(envelope ->
                envelope.replace("<soap:Body>", "<soap:Body>" + "<y>".repeat(5000)))));
        call("answer not signed", server, "/open", with -> with.interceptor(agent));
        call("fault not signed", server, "/open", with -> with.interceptor(agent)
                .interceptor(changing(envelope -> envelope.replace("listBerths", "listQuays"))));
        XmlSignature trustsNobodyHere = by(theirs).trusting(List.of(certificate(theirs)));
        call("answer by a stranger", server, "/signed", with -> with.interceptor(trustsNobodyHere));
        server.publish("/blocks", HarbourDeskEndpoint.of(this)
                .guarded(XmlSignature.trustingOnly(List.of(certificate(theirs)))
                        .covering(new QName("http://www.w3.org/2005/08/addressing", "To"))));
        call("block not covered", server, "/blocks", with -> with.addressed(true).interceptor(agent));
        XmlSignature both = by(theirs).covering(new QName("http://www.w3.org/2005/08/addressing", "To"));
        call("block covered", server, "/blocks", with -> with.addressed(true).interceptor(both));
        SoapGuard failing = (envelope, charset) -> {
            throw new SecurityException("not\ntoday");
        };
        server.publish("/never", HarbourDeskEndpoint.of(this).guarded(failing));
        call("never", server, "/never", with -> with);
    }

    @Override
    public List<Berth> listBerths(BigDecimal deepEnoughFor) {
        Berth berth = new Berth();
        berth.setNumber(4);
        return deepEnoughFor.intValue() > 5 ? List.of(berth, berth) : List.of();
    }

    @Override
    public void castOff(int berthNumber) {}

    @Override
    public BerthOffer requestBerth(Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Need> need) {
        throw new UnsupportedOperationException();
    }

    @Override
    public Vessel findVessel(String callSign) {
        throw new UnsupportedOperationException();
    }

    @Override
    public PayDuesResult payDues(String callSign, Money amount, Pass pass) {
        return new PayDuesResult(1, XmlDate.of("2027-05-09"));
    }
}
