package example.lanternbay.office;

import com.sun.net.httpserver.HttpServer;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.desk.HarbourOffice;
import example.lanternbay.harbour.desk.runtime.soap.CallFailedException;
import example.lanternbay.harbour.desk.runtime.soap.SoapInterceptor;
import example.lanternbay.harbour.desk.runtime.security.UsernameToken;
import example.lanternbay.harbour.desk.runtime.xml.XmlElement;
import example.lanternbay.harbour.desk.runtime.xml.XmlSimple;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.logging.Handler;
import java.util.logging.Level;
import java.util.logging.LogRecord;
import java.util.logging.Logger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/** What the client's settings do on the wire, seen by a peer that was written by hand. */
public final class Wire {
    private static final String ANSWER = "<e:Envelope xmlns:e=\"http://schemas.xmlsoap.org/soap/envelope/\"><e:Body>"
            + "<listBerthsResponse xmlns=\"http://lanternbay.example/harbour/desk\"/></e:Body></e:Envelope>";

    private final List<String> told = new ArrayList<>();
    private String type = "text/xml";
    private int status = 200;
    private byte[] answer = ANSWER.getBytes(StandardCharsets.UTF_8);
    private String packing = "";
    private String request = "";
    private String authorization = "";
    private boolean packed;

    private static String first(String regex, String text) {
        Matcher matcher = Pattern.compile(regex).matcher(text);
        return matcher.find() ? matcher.group(1) : "none";
    }

    private HttpServer peer() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/desk", exchange -> {
            byte[] body = exchange.getRequestBody().readAllBytes();
            packed = "gzip".equals(exchange.getRequestHeaders().getFirst("Content-Encoding"));
            request = new String(
                    packed ? new GZIPInputStream(new ByteArrayInputStream(body)).readAllBytes() : body,
                    StandardCharsets.UTF_8);
            authorization = String.valueOf(exchange.getRequestHeaders().getFirst("Authorization"));
            exchange.getResponseHeaders().set("Content-Type", type);
            if (!packing.isEmpty()) {
                exchange.getResponseHeaders().set("Content-Encoding", packing);
            }
            exchange.sendResponseHeaders(status, answer.length == 0 ? -1 : answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        server.start();
        return server;
    }

    private void fails(HarbourDeskClient client, int code, String contentType, String body) {
        status = code;
        type = contentType;
        answer = body.getBytes(StandardCharsets.UTF_8);
        try {
            client.listBerths(null);
            told.add("no failure");
        } catch (CallFailedException e) {
            told.add(e.status() + " " + e.getMessage().replaceAll("localhost:[0-9]+", "peer"));
        }
        status = 200;
        type = "text/xml";
        answer = ANSWER.getBytes(StandardCharsets.UTF_8);
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        Wire wire = new Wire();
        HttpServer server = wire.peer();
        String address = "http://localhost:" + server.getAddress().getPort() + "/desk";
        System.setProperty("address.HarbourOffice." + HarbourOffice.DESK.name(), address);
        StringBuilder logged = new StringBuilder();
        Logger logger = Logger.getLogger("example.lanternbay.harbour.desk.runtime.soap");
        logger.setLevel(Level.FINE);
        logger.setUseParentHandlers(false);
        logger.addHandler(new Handler() {
            @Override
            public void publish(LogRecord record) {
                logged.append(record.getMessage()).append('\n');
            }

            @Override
            public void flush() {}

            @Override
            public void close() {}
        });
        try {
            wire.run(logged);
        } finally {
            System.clearProperty("address.HarbourOffice." + HarbourOffice.DESK.name());
            server.stop(0);
        }
        return String.join("\n", wire.told) + "\n";
    }

    private void run(StringBuilder logged) throws Exception {
        HarbourDeskClient plain = HarbourDeskClient.connect();
        told.add(plain.listBerths(null) + " " + authorization + " " + packed);
        HarbourDeskClient known = plain.with(with -> with.basicAuthorization("ada", "p:w"));
        known.with(with -> with.compressed().bearerToken("t0ken")).listBerths(null);
        told.add(authorization + " " + packed);
        known.listBerths(null);
        told.add(authorization + " " + packed);

        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream stream = new GZIPOutputStream(bytes)) {
            stream.write(answer);
        }
        answer = bytes.toByteArray();
        packing = "gzip";
        told.add("" + plain.listBerths(null));
        packing = "";
        answer = ANSWER.getBytes(StandardCharsets.UTF_8);

        XmlElement<XmlSimple> trace = XmlElement.of("urn:trace", "trace", XmlSimple.of("42"));
        HarbourDeskClient secured = plain.with(with -> with.soapHeader(trace)
                .soapHeader(UsernameToken.digest("ada", "s3cret"))
                .soapHeader(UsernameToken.text("bo", "pl41n")));
        secured.listBerths(null);
        byte[] nonce = Base64.getDecoder().decode(first("Nonce[^>]*>([^<]+)<", request));
        MessageDigest sha = MessageDigest.getInstance("SHA-1");
        sha.update(nonce);
        sha.update(first("Nonce>\\s*<[^>]*Created[^>]*>([^<]+)<", request).getBytes(StandardCharsets.UTF_8));
        sha.update("s3cret".getBytes(StandardCharsets.UTF_8));
        String digest = Base64.getEncoder().encodeToString(sha.digest());
        told.add(first("(urn:trace)", request) + " " + first("trace[^>]*>(\\d+)<", request) + " "
                + first("PasswordDigest[^>]*>([^<]+)<", request).equals(digest) + " "
                + first("PasswordText[^>]*>([^<]+)<", request));
        told.add("logged secrets: " + (logged.indexOf("pl41n") >= 0 || logged.indexOf(digest) >= 0) + ", logged: "
                + first("(request of listBerths)", logged.toString()) + ", blanked: " + first(">(\\*\\*\\*)<", logged.toString()));

        HarbourDeskClient changed = plain.with(with -> with.interceptor(new SoapInterceptor() {
            @Override
            public byte[] request(Call call, byte[] envelope) {
                call.headers().put("Authorization", "signed " + call.operation() + " of " + call.service());
                return new String(envelope, StandardCharsets.UTF_8)
                        .replace("listBerths", "listQuays")
                        .getBytes(StandardCharsets.UTF_8);
            }

            @Override
            public byte[] answer(Call call, byte[] body, String charset) {
                return new String(body, StandardCharsets.UTF_8)
                        .replace("<e:Body>", "<e:Body><!-- seen -->")
                        .getBytes(StandardCharsets.UTF_8);
            }
        }));
        told.add(changed.listBerths(null) + " " + authorization + " " + first("(listQuays)", request));

        fails(plain, 200, "text/html", "<html><body>Please log in</body></html>");
        fails(plain, 500, "text/xml", "");
        fails(plain, 502, "text/plain", "bad gateway");
        fails(plain, 200, "text/xml", ANSWER.substring(0, 150));
        fails(plain, 200, "text/xml", ANSWER.replace("listBerthsResponse", "listBerthsAnswer"));
        fails(plain, 200, "text/xml", "<contract/>");
    }
}
