package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.proof.Reconciliation;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/** Messages, whole and spoilt, are judged as the platform's validator judges them. */
class MessageCheckerTest {
    private static final int MESSAGES = 150;

    private static final int WAYS = 9;

    /** What a message says of itself by attributes of the instance namespace is corrected by no rule. */
    private static final int CORRECTABLE_WAYS = 7;

    /** The validator counts the repetitions of an element over those of its group; such messages are left out. */
    private static final String MISCOUNTED = "cvc-complex-type.2.4.d.1";

    /** The same on platforms that have not lost the text of this complaint. */
    private static final String MISCOUNTED_IN_WORDS = "No child element '{";

    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";

    @ParameterizedTest
    @ValueSource(longs = {11, 12, 13, 14})
    void verdictsAreThoseOfTheValidator(long seed, @TempDir Path folder) throws Exception {
        RandomContract random = new RandomContract(seed, 40);
        Path schema = random.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Vocabulary vocabulary = new Vocabulary(contract.schema());
        MessageChecker checker = new MessageChecker(vocabulary);
        Infoset.Validator oracle = Infoset.validator(schema);
        Random chance = new Random(seed);
        int invalid = 0;
        for (int i = 0; i < MESSAGES; i++) {
            MessageElement root = read(random.message());
            for (int spoils = chance.nextInt(3); spoils > 0; spoils--) {
                spoil(root, chance, WAYS);
            }
            String message = MessageText.of(root);
            String complaint = oracle.complaint(message);
            if (complaint != null && (complaint.equals(MISCOUNTED) || complaint.contains(MISCOUNTED_IN_WORDS))) {
                continue;
            }
            List<Deviation> deviations = checker.check(read(message)).deviations();
            assertThat(deviations.isEmpty())
                    .as("%s%nthe validator: %s%nwe: %s", message, complaint, deviations)
                    .isEqualTo(complaint == null);
            invalid += complaint == null ? 0 : 1;
        }
        assertThat(invalid).isBetween(MESSAGES / 5, MESSAGES * 4 / 5);
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(contract, vocabulary, full);
            for (QName name : samples.elements()) {
                String sample = samples.element(name);
                assertThat(oracle.complaint(sample)).as(sample).isNull();
            }
        }
    }

    /** In what is empty there may not even be white space; what only holds nothing is another thing. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<xs:complexType/>",
                "<xs:complexType mixed='true'/>",
                "<xs:complexType><xs:attribute name='b'/></xs:complexType>",
                "<xs:complexType><xs:sequence/></xs:complexType>",
                "<xs:complexType><xs:sequence><xs:annotation/></xs:sequence></xs:complexType>",
                "<xs:complexType><xs:all/></xs:complexType>",
                "<xs:complexType><xs:choice minOccurs='0'/></xs:complexType>",
                "<xs:complexType><xs:sequence><xs:element name='b' minOccurs='0' maxOccurs='0'/></xs:sequence></xs:complexType>",
                "<xs:complexType><xs:sequence minOccurs='0' maxOccurs='0'><xs:element name='b'/></xs:sequence></xs:complexType>",
                "<xs:complexType><xs:sequence><xs:sequence/></xs:sequence></xs:complexType>",
                "<xs:complexType><xs:sequence><xs:element name='b' minOccurs='0'/></xs:sequence></xs:complexType>",
                "<xs:complexType><xs:group ref='nothing'/></xs:complexType>",
                "<xs:complexType><xs:complexContent><xs:extension base='Empty'><xs:sequence/></xs:extension></xs:complexContent></xs:complexType>",
                "<xs:complexType><xs:complexContent><xs:extension base='Inner'><xs:sequence/></xs:extension></xs:complexContent></xs:complexType>",
                "<xs:complexType><xs:complexContent><xs:restriction base='Room'><xs:sequence/></xs:restriction></xs:complexContent></xs:complexType>",
                "<xs:simpleType><xs:restriction base='xs:token'/></xs:simpleType>"
            })
    void whatIsEmptyIsWhatTheValidatorTakesForEmpty(String type, @TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("schema.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:group name="nothing"><xs:sequence/></xs:group>
                  <xs:complexType name="Empty"/>
                  <xs:complexType name="Inner"><xs:sequence><xs:sequence/></xs:sequence></xs:complexType>
                  <xs:complexType name="Room"><xs:sequence><xs:element name="b" minOccurs="0"/></xs:sequence></xs:complexType>
                  <xs:element name="a">%s</xs:element>
                </xs:schema>
                """.formatted(type));
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        assertThat(contract.findings()).isEmpty();
        MessageChecker checker = new MessageChecker(new Vocabulary(contract.schema()));
        for (String content :
                List.of("", " ", "\n\t", "<!--x-->", " <!--x-->", "<![CDATA[ ]]>", "&#32;", "x", "<b/>", " <b/>")) {
            String message = "<a>" + content + "</a>";
            String complaint = Infoset.complaint(schema, message);
            assertThat(checker.check(read(message)).deviations())
                    .as("%s, the validator: %s", message, complaint)
                    .hasSize(complaint == null ? 0 : 1);
        }
    }

    /** Of a contract that lies about messages, corrections that are proposed and laid over it make one that does not. */
    @ParameterizedTest
    @ValueSource(longs = {21, 22})
    void proposedCorrectionsMakeSpoiltMessagesFit(long seed, @TempDir Path folder) throws Exception {
        RandomContract random = new RandomContract(seed, 40);
        Path schema = random.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Random chance = new Random(seed);
        int wrong = 0;
        int fitting = 0;
        for (int i = 0; i < MESSAGES; i++) {
            MessageElement message = read(random.message());
            spoil(message, chance, CORRECTABLE_WAYS);
            message = read(MessageText.of(message));
            if (isValid(contract, message)) {
                continue;
            }
            wrong++;
            Reconciliation.Outcome outcome = new Reconciliation(contract, new JavaNames()).of(List.of(message));
            Path file = Files.writeString(folder.resolve("rules.yaml"), ProposedRule.file(outcome.rules()));
            Rules rules = RuleReader.read(List.of(file), new JavaNames());
            Contract corrected = rules.correct(contract);
            assertThat(rules.findings(false)).as(Files.readString(file)).isEmpty();
            assertThat(isValid(corrected, message))
                    .as(MessageText.of(message) + "\n" + Files.readString(file))
                    .isEqualTo(outcome.fitting() == 1);
            fitting += outcome.fitting();
        }
        assertThat(wrong).isGreaterThan(MESSAGES / 3);
        assertThat(fitting).isGreaterThan(wrong / 2);
    }

    /** Where a wildcard wants declared attributes, those of XML itself are so by a schema that refers to them, and by no other. */
    @ParameterizedTest
    @CsvSource({
        "strict, '', ''",
        "lax, '', ''",
        "strict, <xs:attribute ref='xml:lang'/>, xml.xsd",
        "strict, <xs:attribute name='lang'/>, ''",
    })
    void attributesOfXmlAreKnownWhereASchemaRefersToThem(
            String processing, String attribute, String imported, @TempDir Path folder) throws Exception {
        Files.writeString(folder.resolve("xml.xsd"), """
                <xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' targetNamespace='http://www.w3.org/XML/1998/namespace'>
                <xs:attribute name='lang' type='xs:language'/></xs:schema>
                """);
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' targetNamespace='urn:log' xmlns='urn:log'>
                %s<xs:element name='log'><xs:complexType><xs:anyAttribute namespace='##other' processContents='%s'/>
                </xs:complexType></xs:element><xs:attributeGroup name='any'>%s</xs:attributeGroup></xs:schema>
                """.formatted(
                        imported.isEmpty()
                                ? ""
                                : "<xs:import namespace='http://www.w3.org/XML/1998/namespace' schemaLocation='"
                                        + imported + "'/>",
                        processing,
                        attribute));
        String message = "<log xmlns='urn:log' xml:lang='en'/>";
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        assertThat(contract.isSound()).isTrue();
        assertThat(isValid(contract, read(message))).isEqualTo(Infoset.complaint(schema, message) == null);
    }

    private static boolean isValid(Contract contract, MessageElement message) {
        return new MessageChecker(new Vocabulary(contract.schema()))
                .check(message)
                .deviations()
                .isEmpty();
    }

    private static MessageElement read(String message) {
        return MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    private static void collect(MessageElement element, List<MessageElement> to) {
        to.add(element);
        element.children().forEach(child -> collect(child, to));
    }

    /** Changes something somewhere: now and then that leaves the message valid, and then both must say so. */
    private static void spoil(MessageElement root, Random chance, int ways) {
        List<MessageElement> all = new ArrayList<>();
        collect(root, all);
        MessageElement element = all.get(chance.nextInt(all.size()));
        int items = element.content().size();
        switch (chance.nextInt(ways)) {
            case 0 -> {
                if (items > 0) {
                    element.content().remove(chance.nextInt(items));
                }
            }
            case 1 -> {
                if (!element.children().isEmpty()) {
                    MessageElement child = element.children().get(0);
                    element.add(read(MessageText.of(copy(child, root))));
                }
            }
            case 2 -> {
                if (items > 1) {
                    element.content().add(0, element.content().remove(items - 1));
                }
            }
            case 3 -> element.attributes().put(new QName("a" + chance.nextInt(9)), "1");
            case 4 -> element.attributes().clear();
            case 5 ->
                element.setText(List.of("", "1", "x", "2027-05-09", "true", "\u3000", "\u20051", " ")
                        .get(chance.nextInt(8)));
            case 7 ->
                element.attributes()
                        .put(
                                new QName(XSI, "nil"),
                                List.of("true", "1", "false", "yes", "\u30001").get(chance.nextInt(5)));
            case 8 -> {
                element.prefixes().put("xs", "http://www.w3.org/2001/XMLSchema");
                element.attributes()
                        .put(
                                new QName(XSI, "type"),
                                List.of("xs:anyType", "xs:int", "xs:string", "Unknown")
                                        .get(chance.nextInt(4)));
            }
            default -> element.add(new MessageElement(new QName("urn:other", "stranger"), null));
        }
    }

    /** An element with the prefixes that are declared further out. */
    private static MessageElement copy(MessageElement element, MessageElement root) {
        MessageElement copy = new MessageElement(element.name(), null);
        copy.prefixes().putAll(root.prefixes());
        copy.attributes().putAll(element.attributes());
        for (Object item : element.content()) {
            if (item instanceof MessageElement child) {
                MessageElement inner = copy(child, root);
                inner.prefixes().clear();
                copy.add(inner);
            } else {
                copy.add((String) item);
            }
        }
        return copy;
    }
}
