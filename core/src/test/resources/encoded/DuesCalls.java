package office;

import dues.DuesBook;
import dues.DuesBookClient;
import dues.DuesBookEndpoint;
import dues.DuesOffice;
import dues.Entries;
import dues.Entry;
import dues.Names;
import dues.runtime.soap.SoapServer;
import java.math.BigDecimal;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;

/** Calls in the SOAP encoding, between generated code and with messages as other senders write them. */
public final class DuesCalls implements DuesBook {
    private static final String START = "<e:Envelope xmlns:e=\"http://schemas.xmlsoap.org/soap/envelope/\" xmlns:xs=\"http://www.w3.org/2001/XMLSchema\""
            + " xmlns:i=\"http://www.w3.org/2001/XMLSchema-instance\" xmlns:n=\"http://schemas.xmlsoap.org/soap/encoding/\" xmlns:d=\"urn:dues\"><e:Body>";

    @Override
    public Entries list(Names names, Entry pattern, Integer most) {
        Entries entries = new Entries();
        if (pattern != null && "twins".equals(pattern.getWho())) {
            return entries.addItem(pattern).addItem(new Entry().setWho("odd")).addItem(pattern);
        }
        for (String name : names == null ? List.<String>of() : names.getItem()) {
            entries.addItem(new Entry().setWho(name).setAmount(pattern == null ? null : pattern.getAmount()));
        }
        return most == null ? null : entries;
    }

    private static String post(String address, String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", "text/xml")
                .header("SOAPAction", "\"urn:dues#list\"")
                .POST(HttpRequest.BodyPublishers.ofString(START + body + "</e:Body></e:Envelope>"))
                .build();
        String answer = HttpClient.newHttpClient()
                .send(request, HttpResponse.BodyHandlers.ofString())
                .body();
        return answer.substring(answer.indexOf("Body>") + 5, answer.lastIndexOf("</soap:Body>"));
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        List<String> told = new ArrayList<>();
        try (SoapServer server = SoapServer.listen(0).publish("/book", DuesBookEndpoint.of(new DuesCalls()))) {
            String address = "http://localhost:" + server.port() + "/book";
            DuesBook book = DuesBookClient.connect(DuesOffice.BOOK, with -> with.address(address));
            Entry pattern = new Entry().setAmount(new BigDecimal("1.50")).setWho("any").setPaid(true);
            told.add("" + book.list(new Names().addItem("Ada").addItem("Bo"), pattern, 2));
            told.add("" + book.list(null, null, null));
            Entry twin = new Entry().setWho("twins").setAmount(new BigDecimal("2")).setPaid(false);
            Entries twins = book.list(null, twin, 0);
            told.add(twins + " same: " + (twins.getItem().get(0) == twins.getItem().get(2)) + " "
                    + (twins.getItem().get(0) == twins.getItem().get(1)));
            told.add(post(
                    address,
                    "<d:list><pattern i:type=\"d:Entry\"><who>twins</who><paid>true</paid></pattern><most>1</most></d:list>"));
            told.add(post(
                    address,
                    "<d:list e:encodingStyle=\"http://schemas.xmlsoap.org/soap/encoding/\"><names href=\"#1\"/><pattern href=\"#2\"/><most i:type=\"xs:int\">5</most></d:list>"
                            + "<multiRef id=\"2\" n:root=\"0\" i:type=\"d:Entry\"><paid i:nil=\"1\"/><who href=\"#3\"/><amount i:type=\"xs:decimal\">2</amount></multiRef>"
                            + "<n:Array id=\"1\" n:arrayType=\"xs:string[2]\" i:type=\"n:Array\"><a href=\"#3\"/><b i:type=\"n:string\">Cy</b></n:Array>"
                            + "<multiRef id=\"3\" i:type=\"xs:string\">Di</multiRef>"));
            told.add(post(
                    address,
                    "<d:list><names n:arrayType=\"xs:string[9]\" n:offset=\"[1]\"><a>Fay</a><b n:position=\"[4]\">Gus</b>"
                            + "<c n:position=\"[3]\">Eli</c></names><most>9</most></d:list>"));
            told.add(post(address, "<d:list><names href=\"#9\"/></d:list>"));
            told.add(post(address, "<d:list><names href=\"#9\"/></d:list><x id=\"9\"><item href=\"#9\"/></x>"));
            StringBuilder bomb = new StringBuilder("<d:list><names href=\"#0\"/></d:list>");
            for (int i = 0; i < 40; i++) {
                bomb.append("<x id=\"" + i + "\"><i href=\"#" + (i + 1) + "\"/><i href=\"#" + (i + 1) + "\"/></x>");
            }
            told.add(post(address, bomb + "<x id=\"40\"/>"));
        }
        return String.join("\n", told) + "\n";
    }
}
