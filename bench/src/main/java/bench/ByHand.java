package bench;

import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;

/** What somebody would write by hand for this one message, with the platform's StAX. */
final class ByHand {
    private static final String NAMESPACE = "http://lanternbay.example/harbour/desk";
    private static final XMLInputFactory INPUT = input();
    private static final XMLOutputFactory OUTPUT = XMLOutputFactory.newDefaultFactory();

    /** A berth. */
    static final class Berth {
        int number;
        String quay;
        BigDecimal depthInMetres;
    }

    private ByHand() {}

    private static XMLInputFactory input() {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        return factory;
    }

    static List<Berth> read(InputStream stream) throws XMLStreamException {
        XMLStreamReader in = INPUT.createXMLStreamReader(stream);
        List<Berth> berths = new ArrayList<>();
        in.nextTag();
        in.require(XMLStreamReader.START_ELEMENT, NAMESPACE, "listBerthsResponse");
        while (in.nextTag() == XMLStreamReader.START_ELEMENT) {
            in.require(XMLStreamReader.START_ELEMENT, NAMESPACE, "berth");
            berths.add(berth(in));
        }
        return berths;
    }

    private static Berth berth(XMLStreamReader in) throws XMLStreamException {
        Berth berth = new Berth();
        while (in.nextTag() == XMLStreamReader.START_ELEMENT) {
            if (!in.getNamespaceURI().equals(NAMESPACE)) {
                throw new XMLStreamException("unexpected " + in.getName());
            }
            switch (in.getLocalName()) {
                case "number" -> berth.number = Integer.parseInt(in.getElementText().strip());
                case "quay" -> berth.quay = in.getElementText();
                case "depthInMetres" -> berth.depthInMetres = new BigDecimal(in.getElementText().strip());
                default -> throw new XMLStreamException("unexpected " + in.getName());
            }
        }
        return berth;
    }

    static byte[] write(List<Berth> berths) throws XMLStreamException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        XMLStreamWriter out = OUTPUT.createXMLStreamWriter(bytes, "UTF-8");
        out.writeStartDocument("UTF-8", "1.0");
        out.writeStartElement("d", "listBerthsResponse", NAMESPACE);
        out.writeNamespace("d", NAMESPACE);
        for (Berth berth : berths) {
            out.writeStartElement("d", "berth", NAMESPACE);
            element(out, "number", Integer.toString(berth.number));
            element(out, "quay", berth.quay);
            element(out, "depthInMetres", berth.depthInMetres.toPlainString());
            out.writeEndElement();
        }
        out.writeEndElement();
        out.writeEndDocument();
        out.close();
        return bytes.toByteArray();
    }

    private static void element(XMLStreamWriter out, String name, String text) throws XMLStreamException {
        out.writeStartElement("d", name, NAMESPACE);
        out.writeCharacters(text);
        out.writeEndElement();
    }
}
