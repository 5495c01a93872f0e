package room;

import example.lanternbay.papers.Cabinet;
import example.lanternbay.papers.CabinetClient;
import example.lanternbay.papers.CabinetEndpoint;
import example.lanternbay.papers.Paper;
import example.lanternbay.papers.PaperRoom;
import example.lanternbay.papers.Pouch;
import example.lanternbay.papers.PouchClient;
import example.lanternbay.papers.PouchEndpoint;
import example.lanternbay.papers.Scan;
import example.lanternbay.papers.UnreadableFault;
import example.lanternbay.papers.runtime.attach.Attachment;
import example.lanternbay.papers.runtime.soap.SoapServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Messages with binary content beside them, called over HTTP; what was seen is told as text. */
public final class PaperCalls implements Cabinet, Pouch {
    private final List<String> told = new ArrayList<>();

    @Override
    public FileResult file(String callSign, List<Paper> papers) throws UnreadableFault {
        if (callSign.isEmpty()) {
            throw new UnreadableFault("no call sign", "page 1");
        }
        long bytes = 0;
        for (Paper paper : papers) {
            bytes += length(paper.getScan().getValue());
        }
        Attachment first = papers.get(0).getScan().getValue();
        return new FileResult(bytes, Attachment.of(new byte[] {1, 2, 3}), first);
    }

    private static long length(Attachment attachment) {
        try (InputStream in = attachment.open()) {
            byte[] buffer = new byte[8192];
            long length = 0;
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                length += read;
            }
            return length;
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public SendResult send(String callSign, Attachment photo, Attachment crewList) {
        told.add("sent " + callSign + " photo " + photo + " crew " + crewList);
        return new SendResult(photo.bytes().length, crewList);
    }

    private static Paper paper(String title, Attachment scan) {
        return new Paper().setTitle(title).setScan(new Scan().setValue(scan).setPages(2));
    }

    private static Attachment bytes(int count) {
        byte[] content = new byte[count];
        for (int i = 0; i < count; i++) {
            content[i] = (byte) (i * 31 + i / 251);
        }
        return Attachment.of(content, "image/tiff");
    }

    private static String post(String address, String type, String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofByteArray(body.getBytes(StandardCharsets.ISO_8859_1)))
                .build();
        HttpResponse<byte[]> answer = HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofByteArray());
        return answer.statusCode() + " "
                + new String(answer.body(), StandardCharsets.ISO_8859_1).replaceAll("[0-9a-f]{8}-[0-9a-f-]{27}", "ID");
    }

    /** A package as somebody else would send it. */
    private static String mixed(String include, String more) {
        return ("preamble\n--==b\nContent-Type: application/xop+xml; charset=utf-8; type=\"application/soap+xml\"\n"
                        + "Content-ID: <r@x>\n\n"
                        + "<e:Envelope xmlns:e=\"http://www.w3.org/2003/05/soap-envelope\">"
                        + "<e:Header xmlns:a='http://www.w3.org/2005/08/addressing'>"
                        + "<a:Action>http://lanternbay.example/papers/Cabinet/fileRequest</a:Action>"
                        + "<a:MessageID>urn:m1</a:MessageID></e:Header><e:Body>"
                        + "<file xmlns=\"http://lanternbay.example/papers\"><callSign>LB1</callSign><paper><title>t</title>"
                        + "<scan>" + include + "</scan></paper></file></e:Body></e:Envelope>"
                        + more + "\n--==b--\nepilogue")
                .replace("\n", "\r\n");
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        PaperCalls room = new PaperCalls();
        List<String> told = room.told;
        try (SoapServer server = SoapServer.listen(0)
                .publish("/cabinet", CabinetEndpoint.of(room))
                .publish("/pouch", PouchEndpoint.of(room))) {
            String base = "http://localhost:" + server.port();
            CabinetClient cabinet = CabinetClient.connect(PaperRoom.CABINET, with -> with.address(base + "/cabinet"));
            for (CabinetClient one : List.of(cabinet, cabinet.with(with -> with.notOptimized()))) {
                for (int size : new int[] {3, 2000, 700_000}) {
                    Attachment scan = bytes(size);
                    FileResult filed = one.file("LB4F", List.of(paper("a", scan), paper("b", bytes(5000))));
                    told.add(filed.bytes() + " " + filed.stamp() + " " + scan.equals(filed.first()) + " "
                            + filed.first().contentType());
                }
            }
            byte[] unknown = bytes(400_000).bytes();
            Attachment stream = Attachment.of(() -> new ByteArrayInputStream(unknown), "image/png", -1);
            told.add("" + cabinet.file("LB4F", List.of(paper("s", stream))).bytes());
            try {
                cabinet.file("", List.of(paper("x", bytes(1))));
            } catch (UnreadableFault e) {
                told.add(e.getMessage() + ", " + e.getDetail());
            }
            Pouch pouch = PouchClient.connect(PaperRoom.POUCH, with -> with.address(base + "/pouch"));
            SendResult sent = pouch.send(
                    "LB9T", bytes(300_000), Attachment.of("Ada\r\nBo".getBytes(StandardCharsets.UTF_8), "text/plain"));
            told.add(sent.count() + " " + new String(sent.receipt().bytes(), StandardCharsets.UTF_8)
                    .replace("\r\n", "|"));
            String type = "multipart/related; boundary=\"==b\"; type=\"application/xop+xml\"; start=\"<r@x>\"";
            String include = "<i:Include xmlns:i='http://www.w3.org/2004/08/xop/include' href='cid:p%40x'/>";
            told.add(post(base + "/cabinet", type, mixed(include,
                    "\n--==b\nContent-ID: <p@x>\nContent-Transfer-Encoding: base64\n\nQUJD\nREVG\n")));
            told.add(post(base + "/cabinet", type, mixed(include, "\n--==b\nContent-ID: <q@x>\n\nabc")));
            told.add(post(base + "/cabinet", type, mixed("abc" + include, "\n--==b\nContent-ID: <p@x>\n\nabc")));
            told.add(post(base + "/cabinet", type, "--==b\r\nContent-ID: <r@x>\r\n\r\nabc"));
            told.add(post(base + "/cabinet", type, "--==b\r\n\r\n".repeat(1002) + "--==b--"));
            told.add(post(base + "/cabinet", type, "--==b\r\nX: " + "y".repeat(20_000)));
            told.add(post(base + "/cabinet", "multipart/related", "abc"));
        }
        return String.join("\n", told).replace("\r\n", "\n") + "\n";
    }
}
