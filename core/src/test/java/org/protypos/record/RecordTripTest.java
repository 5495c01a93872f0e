package org.protypos.record;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.generator.Generator;
import org.protypos.layout.RecordLayout;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;
import org.protypos.testing.Sections;

/**
 * Random contracts with random messages that the platform's validator takes: what comes out of a record is what went in, or it
 * is said what had no room.
 */
class RecordTripTest {
    private static final int MESSAGES = 80;
    private static final RecordForm FORM = new RecordForm(StandardCharsets.ISO_8859_1, false);
    private static final Pattern VALUE = Pattern.compile("(?m)(?<=\")[^\"]*(?=\"$)|(?<==)[^,}]*(?=[,}])");

    @ParameterizedTest
    @CsvSource({
        "1,ISO-8859-1,false",
        "2,Cp1047,false",
        "3,UTF-8,true",
        "4,Cp1140,true",
        "5,US-ASCII,false",
        "6,UTF-8,false",
        "9,Cp037,false",
        "42,UTF-8,true"
    })
    void nothingIsLostInSilence(long seed, String charset, boolean littleEndian, @TempDir Path folder)
            throws Exception {
        RandomContract random = new RandomContract(seed, 60);
        Path schema = random.layOut(folder);
        // Every other contract has dates in parts, bytes in files, and records that end with the last of their entries.
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                rules:
                  - on: "**"
                    cobol: {parts: true, file: true, varying: true}
                """);
        Map<String, RecordLayout> records = records(schema, seed % 2 == 0 ? List.of(rules) : List.of());
        RecordForm form = new RecordForm(
                Charset.forName(charset),
                littleEndian,
                new FolderFiles(Files.createDirectory(folder.resolve("bytes"))));
        int whole = 0;
        int valid = 0;
        Map<String, Integer> told = new TreeMap<>();
        for (int i = 0; i < MESSAGES; i++) {
            String message = random.message();
            if (Infoset.complaint(schema, message) != null) {
                continue;
            }
            valid++;
            MessageElement root =
                    MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
            RecordLayout layout = records.get(root.name().toString());
            Findings findings = new Findings();
            byte[] record = RecordWriter.write(layout, List.of(), List.of(root), form, "message", findings);
            assertThat(layout.fits(record.length)).isTrue();
            if (findings.hasErrors()) {
                for (Finding finding : findings.sorted()) {
                    told.merge(finding.code(), 1, Integer::sum);
                    assertThat(finding.code())
                            .as(message + "\n" + finding.message())
                            .isIn("record-overflow", "record-character", "record-left-out");
                    assertThat(finding.message()).as(message).doesNotContain(": the element ");
                }
                continue;
            }
            whole++;
            Findings again = new Findings();
            RecordReader.Content content = RecordReader.read(layout, record, form, "record", again);
            assertThat(again.sorted()).as(message).isEmpty();
            String written = MessageText.of(content.body().get(0));
            assertThat(plain(Infoset.of(written))).as(message + "\n" + written).isEqualTo(plain(Infoset.of(message)));
            assertThat(Infoset.complaint(schema, written)).as(written).isNull();
        }
        assertThat(whole).as(valid + " messages, " + told).isGreaterThan(valid / 3);
    }

    /** Records hold values; what is made of them is written as the patterns of the contract want it. */
    @Test
    void numbersAreWrittenAsPatternsWantThem(@TempDir Path folder) throws Exception {
        Sections cases = Sections.in("messages")
                .filter(test -> !test.get("depths.xsd").isEmpty())
                .findFirst()
                .orElseThrow();
        Path schema = cases.layOut(folder);
        RecordLayout layout = records(schema, List.of()).get("{urn:d}depths");
        for (String message : cases.startingWith("message").toList()) {
            String written = MessageText.of(back(layout, message, new Findings()));
            assertThat(Infoset.complaint(schema, written)).as(written).isNull();
        }
    }

    /** Names keep their namespaces, whatever prefixes they had: one, several, and one of some. */
    @Test
    void namesKeepTheirNamespaces(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("marks.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:m="urn:marks">
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="one" type="xs:QName"/>
                    <xs:element name="some"><xs:simpleType><xs:list itemType="xs:QName"/></xs:simpleType></xs:element>
                    <xs:element name="this"><xs:simpleType><xs:restriction base="xs:QName">
                      <xs:enumeration value="m:buoy"/><xs:enumeration value="m:light"/></xs:restriction></xs:simpleType></xs:element>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        RecordLayout layout = records(schema, List.of()).get("log");
        MessageElement log = MessageReader.read("message", """
                <log xmlns:a="urn:marks" xmlns:b="urn:fog"><one>a:buoy</one><some>b:horn
                  a:light b:bell plain</some><this>a:light</this></log>
                """);
        Findings findings = new Findings();
        byte[] record = RecordWriter.write(layout, List.of(), List.of(log), FORM, "message", findings);
        RecordReader.Content content = RecordReader.read(layout, record, FORM, "record", findings);
        assertThat(findings.sorted()).isEmpty();
        String written = MessageText.of(content.body().get(0));
        assertThat(Infoset.complaint(schema, written)).as(written).isNull();
        List<MessageElement> children = MessageReader.read("again", written).children();
        assertThat(children.get(0).resolve(children.get(0).text())).isEqualTo(new QName("urn:marks", "buoy"));
        assertThat(List.of(children.get(1).text().split(" ")))
                .extracting(children.get(1)::resolve)
                .containsExactly(
                        new QName("urn:fog", "horn"),
                        new QName("urn:marks", "light"),
                        new QName("urn:fog", "bell"),
                        new QName("plain"));
        assertThat(children.get(2).resolve(children.get(2).text())).isEqualTo(new QName("urn:marks", "light"));
    }

    /** What a rule leaves out is gone, and nothing else: what has its name elsewhere, and what a wildcard would take as well. */
    @Test
    void whatARuleLeavesOutIsNotCarried(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="log" type="Log"/>
                  <xs:element name="extra" type="xs:string"/>
                  <xs:complexType name="Log"><xs:sequence>
                    <xs:element name="keeper" type="Keeper"/>
                    <xs:element name="remark" type="xs:string" minOccurs="0" maxOccurs="unbounded"/>
                    <xs:choice><xs:element name="wind" type="xs:int"/><xs:element name="calm" type="xs:int"/></xs:choice>
                    <xs:any minOccurs="0" maxOccurs="unbounded" processContents="lax"/>
                  </xs:sequence><xs:attribute name="page" type="xs:int"/></xs:complexType>
                  <xs:complexType name="Keeper"><xs:sequence>
                    <xs:element name="name" type="xs:string"/>
                    <xs:element name="remark" type="xs:string" minOccurs="0"/>
                  </xs:sequence></xs:complexType>
                </xs:schema>
                """);
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                rules:
                  - on: ~Log/remark
                    cobol: {room: 0}
                  - on: ~Log/@page
                    cobol: {room: 0}
                  - on: ~Log/any()
                    cobol: {room: 0}
                """);
        RecordLayout layout = records(schema, List.of(rules)).get("log");
        MessageElement log = MessageReader.read("message", """
                <log page="3"><keeper><name>Ada</name><remark>stays</remark></keeper><remark>goes</remark><remark>too</remark>
                <calm>1</calm><extra>goes as well</extra></log>
                """);
        Findings findings = new Findings();
        byte[] record = RecordWriter.write(layout, List.of(), List.of(log), FORM, "message", findings);
        assertThat(findings.sorted()).isEmpty();
        RecordReader.Content content = RecordReader.read(layout, record, FORM, "record", findings);
        assertThat(MessageText.compact(content.body().get(0)))
                .isEqualTo("<log><keeper><name>Ada</name><remark>stays</remark></keeper><calm>1</calm></log>");
    }

    /** Of a record that would be too large the elements are XML as text; a group that repeats is no element. */
    @Test
    void groupsThatRepeatHaveFieldsAtTheLowestLevel(@TempDir Path folder) throws Exception {
        String names = IntStream.range(0, 40)
                .mapToObj(i -> "<xs:element name=\"f" + i + "\" type=\"xs:string\" minOccurs=\"0\"/>")
                .collect(Collectors.joining());
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:complexType name="Wide"><xs:sequence>%s</xs:sequence></xs:complexType>
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:choice minOccurs="0" maxOccurs="unbounded">
                      <xs:element name="buoy" type="Wide"/>
                      <xs:sequence><xs:element name="light" type="Wide"/><xs:element name="hours" type="xs:int"/></xs:sequence>
                    </xs:choice>
                    %s
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """.formatted(
                        names, names.replace("f", "w").replace("xs:string", "Wide")));
        RecordLayout layout = records(schema, List.of()).get("log");
        String text =
                "<log><light><f1>a</f1></light><hours>3</hours><buoy/><buoy><f0>b</f0></buoy><w7><f39>c</f39></w7></log>";
        Findings findings = new Findings();
        MessageElement back = back(layout, text, findings);
        assertThat(findings.sorted()).isEmpty();
        assertThat(MessageText.compact(back)).isEqualTo(text);
    }

    /** What is nil has attributes, and may be of a type of its own. */
    @Test
    void whatIsNilKeepsItsAttributes(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:complexType name="Mark"><xs:sequence><xs:element name="depth" type="xs:int"/></xs:sequence>
                    <xs:attribute name="id" type="xs:int" use="required"/><xs:attribute name="name" type="xs:string"/></xs:complexType>
                  <xs:complexType name="Buoy"><xs:complexContent><xs:extension base="Mark">
                    <xs:attribute name="colour" type="xs:string"/></xs:extension></xs:complexContent></xs:complexType>
                  <xs:complexType name="Tide"><xs:simpleContent><xs:extension base="xs:decimal">
                    <xs:attribute name="unit" type="xs:string"/></xs:extension></xs:simpleContent></xs:complexType>
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="mark" type="Mark" nillable="true" minOccurs="0" maxOccurs="unbounded"/>
                    <xs:element name="tide" type="Tide" nillable="true"/>
                    <xs:element name="note" type="xs:string" nillable="true"/>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        RecordLayout layout = records(schema, List.of()).get("log");
        String text = """
                <log xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance"><mark xsi:nil="true" id="3" name="Fog"/>\
                <mark xsi:type="Buoy" xsi:nil="true" id="4" colour="red"/><mark id="5"><depth>7</depth></mark>\
                <tide xsi:nil="true" unit="m"/><note xsi:nil="true"/></log>
                """.strip();
        assertThat(Infoset.complaint(schema, text)).isNull();
        Findings findings = new Findings();
        MessageElement back = back(layout, text, findings);
        assertThat(findings.sorted()).isEmpty();
        assertThat(Infoset.of(MessageText.of(back))).isEqualTo(Infoset.of(text));

        String odd =
                text.replace("<note ", "<note xmlns:o='urn:odd' o:tone='low' ").replace("<tide ", "<tide more='1' ");
        RecordWriter.write(layout, List.of(), List.of(MessageReader.read("message", odd)), FORM, "message", findings);
        assertThat(findings.sorted()).extracting(Finding::code).containsExactly("record-left-out", "record-left-out");
    }

    /** What is empty stands for its default, and what may come no further time is of the next of what repeats around it. */
    @Test
    void emptyElementsAndGroupsInGroupsAreWhatTheContractSays(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:complexType name="Tide"><xs:simpleContent><xs:extension base="xs:int">
                    <xs:attribute name="unit" type="xs:string"/></xs:extension></xs:simpleContent></xs:complexType>
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="open" type="xs:boolean" default="true" maxOccurs="2"/>
                    <xs:element name="tide" type="Tide" fixed="7"/>
                    <xs:sequence minOccurs="1" maxOccurs="2">
                      <xs:sequence minOccurs="0" maxOccurs="2"><xs:element name="buoy" type="xs:int"/>
                        <xs:element name="light" type="xs:string" minOccurs="0" maxOccurs="2"/></xs:sequence>
                    </xs:sequence>
                    <xs:element name="note" type="xs:string" minOccurs="0"/>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        RecordLayout layout = records(schema, List.of()).get("log");
        String text =
                "<log><open/><open>false</open><tide unit=\"m\"/><buoy>1</buoy><light>a</light><buoy>2</buoy><buoy>3</buoy>"
                        + "<light>b</light><light>c</light><buoy>4</buoy><note/></log>";
        assertThat(Infoset.complaint(schema, text)).isNull();
        Findings findings = new Findings();
        MessageElement back = back(layout, text, findings);
        assertThat(findings.sorted()).isEmpty();
        assertThat(MessageText.compact(back))
                .isEqualTo(text.replace("<open/>", "<open>true</open>").replace("\"m\"/>", "\"m\">7</tide>"));

        String more = text.replace("<note/>", "<buoy>5</buoy><light>d</light><note/>");
        RecordWriter.write(layout, List.of(), List.of(MessageReader.read("message", more)), FORM, "message", findings);
        assertThat(findings.sorted()).extracting(Finding::code).containsOnly("record-left-out");
    }

    /** Bytes are in files as they are, in one folder and in no other; of a record that is none nothing is left. */
    @Test
    void bytesAreInFiles(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("chart.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="chart"><xs:complexType><xs:sequence>
                    <xs:element name="picture" type="xs:base64Binary" minOccurs="0" maxOccurs="2"/>
                    <xs:element name="name"><xs:simpleType><xs:restriction base="xs:string">
                      <xs:maxLength value="4"/></xs:restriction></xs:simpleType></xs:element>
                  </xs:sequence><xs:attribute name="sum" type="xs:hexBinary" use="required"/></xs:complexType></xs:element>
                </xs:schema>
                """);
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                rules:
                  - on: chart/picture
                    cobol: {file: true}
                  - on: chart/@sum
                    cobol: {file: true, room: 20}
                """);
        Path bytes = Files.createDirectory(folder.resolve("bytes"));
        Files.writeString(folder.resolve("secret"), "of somebody else");
        Files.createSymbolicLink(bytes.resolve("link"), folder.resolve("secret"));
        RecordForm form = new RecordForm(StandardCharsets.ISO_8859_1, false, new FolderFiles(bytes));
        RecordLayout layout = records(schema, List.of(rules)).get("chart");
        String text = "<chart sum=\"00FF10\"><picture>AQID/w==</picture><picture/><name>Bay</name></chart>";
        MessageElement chart = MessageReader.read("message", text);
        Findings findings = new Findings();
        byte[] record = RecordWriter.write(layout, List.of(), List.of(chart), form, "message", findings);
        assertThat(findings.sorted()).isEmpty();
        List<byte[]> kept = new ArrayList<>();
        for (Path file : filesOf(bytes)) {
            kept.add(Files.readAllBytes(file));
        }
        assertThat(kept).containsExactlyInAnyOrder(new byte[] {0, -1, 16}, new byte[] {1, 2, 3, -1}, new byte[0]);
        assertThat(MessageText.compact(RecordReader.read(layout, record, form, "record", findings)
                        .body()
                        .get(0)))
                .isEqualTo("<chart sum=\"00FF10\"><picture>AQID/w==</picture><picture/><name>Bay</name></chart>");

        for (String name : List.of(
                "",
                "../secret",
                "link",
                "..",
                ".",
                "no such",
                folder.resolve("secret").toString())) {
            Findings told = new Findings();
            byte[] other = record.clone();
            byte[] letters = name.getBytes(StandardCharsets.ISO_8859_1);
            Arrays.fill(other, 0, 20, (byte) ' ');
            System.arraycopy(letters, 0, other, 0, Math.min(20, letters.length));
            RecordReader.read(layout, other, form, "record", told);
            assertThat(told.sorted()).as(name).extracting(Finding::code).containsExactly("record-file");
        }

        Findings refused = new Findings();
        MessageElement wide = MessageReader.read("message", text.replace("Bay", "Long Bay"));
        RecordWriter.write(layout, List.of(), List.of(wide), form, "message", refused);
        assertThat(refused.sorted()).extracting(Finding::code).containsExactly("record-overflow");
        assertThat(filesOf(bytes)).hasSize(3);
    }

    private static MessageElement back(RecordLayout layout, String message, Findings findings) {
        byte[] record = RecordWriter.write(
                layout, List.of(), List.of(MessageReader.read("message", message)), FORM, "message", findings);
        return RecordReader.read(layout, record, FORM, "record", findings)
                .body()
                .get(0);
    }

    private static List<Path> filesOf(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(file -> !Files.isSymbolicLink(file)).toList();
        }
    }

    private static Map<String, RecordLayout> records(Path schema, List<Path> rules) {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Map<String, RecordLayout> records = new TreeMap<>();
        Generator.of(contract)
                .target(Targets.withRecords())
                .rules(rules)
                .plan()
                .code()
                .records()
                .forEach(record -> {
                    QName element = record.element();
                    records.put(element.toString(), record);
                });
        return records;
    }

    /**
     * What the infoset says, each value in one of the ways in which it can be written: in the order of its letters, for the members
     * of an {@code xs:all} have none, and without the types that messages say, on which what is in them depends anyway.
     */
    static List<String> plain(String infoset) {
        return canonicalText(infoset)
                .replaceAll("(?i)\\{http://www.w3.org/2001/XMLSchema-instance\\}type=\\{[^}]*\\}[^,}]*(, )?", "")
                .replace(" {}", "")
                .toLowerCase(Locale.ROOT)
                .lines()
                .map(line -> line.replaceAll(", \\}$", "}").stripTrailing())
                .sorted()
                .toList();
    }

    private static String canonicalText(String infoset) {
        Matcher values = VALUE.matcher(infoset);
        StringBuilder text = new StringBuilder();
        while (values.find()) {
            values.appendReplacement(text, Matcher.quoteReplacement(canonical(values.group())));
        }
        return values.appendTail(text).toString();
    }

    private static String canonical(String value) {
        String trimmed = value.strip();
        if (trimmed.equals("true") || trimmed.equals("false")) {
            return trimmed.equals("true") ? "1" : "0";
        }
        try {
            BigDecimal number = new BigDecimal(trimmed);
            return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
        } catch (NumberFormatException e) {
            return value;
        }
    }
}
