import java.io.StringReader;
import java.lang.management.ManagementFactory;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamReader;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.bridge.RecordMessages;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.layout.RecordLayout;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.record.RecordForm;
import org.protypos.record.RecordWriter;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;

/** What the bridge does with records, against code written by hand for the same bytes: by turns, in one run. */
public final class Records {
    private static final RecordForm FORM = new RecordForm(StandardCharsets.ISO_8859_1, false);
    private static final int TURNS = 10;
    private static final String DESK = "http://lanternbay.example/harbour/desk";
    private static final String VESSELS = "http://lanternbay.example/harbour/vessels";
    private static final String SOAP = "http://schemas.xmlsoap.org/soap/envelope/";

    private static final String REQUEST = "<s:Envelope xmlns:s=\"" + SOAP + "\" xmlns:d=\"" + DESK + "\" xmlns:v=\"" + VESSELS
            + "\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\"><s:Body><d:requestBerth><d:vessel xsi:type=\"v:Ferry\""
            + " callSign=\"LB4F\"><v:name>Aurora</v:name><v:lengthInMetres>38.5</v:lengthInMetres>"
            + "<v:draughtInMetres>2.9</v:draughtInMetres><v:passengers>180</v:passengers><v:line>Gull Island</v:line></d:vessel>"
            + "<d:arrival>2027-05-09T14:30:00Z</d:arrival><d:stay>P2D</d:stay><d:need>water</d:need><d:need>pilot</d:need>"
            + "</d:requestBerth></s:Body></s:Envelope>";
    private static final String ANSWER = "<s:Envelope xmlns:s=\"" + SOAP + "\" xmlns:d=\"" + DESK + "\"><s:Body>"
            + "<d:requestBerthResponse><d:offer><d:berth><d:number>17</d:number><d:quay>North Quay</d:quay>"
            + "<d:depthInMetres>6.25</d:depthInMetres></d:berth><d:from>2027-05-09T14:30:00Z</d:from>"
            + "<d:dues currency=\"EUR\">173.25</d:dues></d:offer></d:requestBerthResponse></s:Body></s:Envelope>";

    private final RecordMessages messages;
    private final ContractCheck check;
    private final RecordLayout request;
    private final RecordLayout response;
    private final Map<String, int[]> places = new LinkedHashMap<>();
    private final XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    private long seen;

    private Records(String contract) {
        PlannedContract planned = Generator.of(
                        ContractReader.read(DocumentGatherer.gather(List.of(contract), null)))
                .target(Targets.withRecords())
                .plan();
        check = new ContractCheck(planned.contract());
        CalledOperation called = CalledOperation.of(check.wire()).stream()
                .filter(one -> one.operation().name().equals("requestBerth"))
                .findFirst()
                .orElseThrow();
        messages = new RecordMessages(planned.code().records(), called, FORM);
        request = messages.request();
        response = planned.code().records().stream()
                .filter(record -> record.part() == RecordLayout.Part.RESPONSE && record.operation() == request.operation())
                .findFirst()
                .orElseThrow();
        for (RecordLayout layout : List.of(request, response)) {
            layout.placed()
                    .forEach(one -> places.put(
                            layout.part() + " " + one.slot().name(),
                            new int[] {one.offset(), one.slot().length()}));
        }
    }

    public static void main(String[] arguments) throws Exception {
        Records records = new Records(arguments[0]);
        int count = Integer.parseInt(arguments[1]);
        byte[] record = records.record(REQUEST, records.request);
        if (!Arrays.equals(records.answerByHand(ANSWER), records.answer(ANSWER))) {
            throw new IllegalStateException("the code by hand makes other records");
        }
        records.turn("warm up", record, count / TURNS);
        long[] all = new long[4];
        for (int turn = 1; turn <= TURNS; turn++) {
            long[] one = records.turn("turn " + turn, record, count / TURNS);
            for (int i = 0; i < all.length; i++) {
                all[i] += one[i];
            }
        }
        System.out.printf(
                "requests to messages: %,d a second, %.1f x the time by hand%n",
                count * 1_000_000_000L / all[0], (double) all[0] / all[1]);
        System.out.printf(
                "answers to records:   %,d a second, %.1f x the time by hand%n",
                count * 1_000_000_000L / all[2], (double) all[2] / all[3]);
    }

    private long[] turn(String name, byte[] record, int count) throws Exception {
        long[] times = new long[4];
        long start = System.nanoTime();
        for (int i = 0; i < count; i++) {
            seen += request(record).length();
        }
        times[0] = System.nanoTime() - start;
        start = System.nanoTime();
        for (int i = 0; i < count; i++) {
            seen += requestByHand(record).length();
        }
        times[1] = System.nanoTime() - start;
        start = System.nanoTime();
        for (int i = 0; i < count; i++) {
            seen += answer(ANSWER).length;
        }
        times[2] = System.nanoTime() - start;
        start = System.nanoTime();
        for (int i = 0; i < count; i++) {
            seen += answerByHand(ANSWER).length;
        }
        times[3] = System.nanoTime() - start;
        System.gc();
        System.out.printf(
                "%-8s %,d records, %d MB in use%n",
                name,
                2L * count,
                ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed() >> 20);
        return times;
    }

    private byte[] record(String envelope, RecordLayout layout) {
        Findings findings = new Findings();
        byte[] record = RecordWriter.write(
                layout,
                List.of(),
                EnvelopeParts.inside(MessageReader.read("message", envelope), "Body"),
                FORM,
                "message",
                findings);
        if (findings.hasErrors()) {
            throw new IllegalStateException(findings.sorted().toString());
        }
        return record;
    }

    private String request(byte[] record) {
        Findings findings = new Findings();
        String text = MessageText.of(messages.request(record, check, "request", findings));
        if (findings.hasErrors()) {
            throw new IllegalStateException(findings.sorted().toString());
        }
        return text;
    }

    private byte[] answer(String envelope) {
        Findings findings = new Findings();
        Caller.Answer came = new Caller.Answer(
                envelope, MessageReader.read("answer", envelope), Map.of(), null, null, null, null);
        return messages.answer(came, "answer", findings).record();
    }

    private String text(byte[] record, String field) {
        int[] place = places.get("REQUEST " + field);
        return new String(record, place[0], place[1], StandardCharsets.ISO_8859_1).stripTrailing();
    }

    private String packed(byte[] record, String field, int decimals) {
        int[] place = places.get("REQUEST " + field);
        long number = 0;
        for (int i = place[0]; i < place[0] + place[1]; i++) {
            number = number * 10 + ((record[i] >> 4) & 15);
            if (i < place[0] + place[1] - 1) {
                number = number * 10 + (record[i] & 15);
            }
        }
        boolean negative = (record[place[0] + place[1] - 1] & 15) == 13;
        return BigDecimal.valueOf(negative ? -number : number, decimals).stripTrailingZeros().toPlainString();
    }

    private String requestByHand(byte[] record) {
        StringBuilder out = new StringBuilder(800);
        out.append("<soap:Envelope xmlns:soap=\"").append(SOAP).append("\" xmlns:d=\"").append(DESK);
        out.append("\" xmlns:v=\"").append(VESSELS).append("\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\">");
        out.append("<soap:Body><d:requestBerth><d:vessel xsi:type=\"v:Ferry\" callSign=\"");
        out.append(text(record, "CALL-SIGN")).append("\"><v:name>").append(text(record, "FERRY-NAME"));
        out.append("</v:name><v:lengthInMetres>").append(packed(record, "LENGTH-IN-METRES", 5));
        out.append("</v:lengthInMetres><v:draughtInMetres>").append(packed(record, "DRAUGHT-IN-METRES", 5));
        out.append("</v:draughtInMetres><v:passengers>").append(packed(record, "PASSENGERS", 0));
        out.append("</v:passengers><v:line>").append(text(record, "FERRY-LINE")).append("</v:line></d:vessel><d:arrival>");
        out.append(text(record, "ARRIVAL")).append("</d:arrival><d:stay>").append(text(record, "STAY")).append("</d:stay>");
        int[] count = places.get("REQUEST NEED-COUNT");
        int[] need = places.get("REQUEST NEED");
        for (int i = 0; i < (record[count[0]] << 8 | record[count[0] + 1]); i++) {
            out.append("<d:need>");
            out.append(new String(record, need[0] + i * need[1], need[1], StandardCharsets.ISO_8859_1).stripTrailing());
            out.append("</d:need>");
        }
        return out.append("</d:requestBerth></soap:Body></soap:Envelope>").toString();
    }

    private byte[] answerByHand(String envelope) throws Exception {
        byte[] record = new byte[response.length()];
        Arrays.fill(record, (byte) ' ');
        XMLStreamReader in = factory.createXMLStreamReader(new StringReader(envelope));
        int[] currency = places.get("RESPONSE CURRENCY-IND");
        record[currency[0]] = 'N';
        while (in.hasNext()) {
            if (in.next() != XMLStreamReader.START_ELEMENT) {
                continue;
            }
            switch (in.getLocalName()) {
                case "number" -> putPacked(record, "BERTH-NUMBER", in.getElementText(), 0);
                case "quay" -> {
                    String quay = in.getElementText();
                    int[] length = places.get("RESPONSE QUAY-LEN");
                    record[length[0]] = (byte) (quay.length() >> 8);
                    record[length[0] + 1] = (byte) quay.length();
                    put(record, "QUAY", quay);
                }
                case "depthInMetres" -> putPacked(record, "DEPTH-IN-METRES", in.getElementText(), 5);
                case "from" -> put(record, "OFFER-FROM", in.getElementText());
                case "dues" -> {
                    record[currency[0]] = 'Y';
                    put(record, "DUES-CURRENCY", in.getAttributeValue(null, "currency"));
                    putPacked(record, "DUES-VALUE", in.getElementText(), 5);
                }
                default -> {}
            }
        }
        return record;
    }

    private void put(byte[] record, String field, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
        System.arraycopy(bytes, 0, record, places.get("RESPONSE " + field)[0], bytes.length);
    }

    private void putPacked(byte[] record, String field, String text, int decimals) {
        int[] place = places.get("RESPONSE " + field);
        BigInteger number = new BigDecimal(text).setScale(decimals).unscaledValue();
        long rest = number.abs().longValueExact();
        int at = place[0] + place[1] - 1;
        record[at] = (byte) (rest % 10 << 4 | (number.signum() < 0 ? 13 : 12));
        for (rest /= 10; --at >= place[0]; rest /= 100) {
            record[at] = (byte) (rest / 10 % 10 << 4 | rest % 10);
        }
    }
}
