package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Surface;
import org.protypos.target.java.JavaSurface;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Infoset;
import org.protypos.testing.Plans;
import org.protypos.testing.RandomEdit;

/**
 * Random edits of a contract with something of everything: what is told of each is held against messages that the platform's validator
 * judges. What is seen to break is told, and each message that is shown is valid under the one contract and not under the other.
 */
class ChangeEvidenceTest {
    private static final Path YARD = Path.of("src/test/resources/change");
    private static final List<String> REQUESTS = List.of("book", "survey");
    private static final List<String> ANSWERS = List.of("booked", "surveyed");
    private static final Set<Reader> WIRE = EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS);
    private static final int EDITS = 50;
    private static final int TRIES = 120;

    /** A contract, its schema as a contract of its own, and their judge. */
    private record Side(Contract contract, Contract schema, Infoset.Validator judge) {}

    private static Side read(Path folder) {
        Contract contract = contract(folder.resolve("yard.wsdl"));
        Path schema = folder.resolve("yard.xsd");
        return contract.isSound() ? new Side(contract, contract(schema), Infoset.validator(schema)) : null;
    }

    private static Contract contract(Path document) {
        return ContractReader.read(DocumentGatherer.gather(List.of(document.toString()), null));
    }

    private static Surface surface(Contract contract) {
        JavaNames names = new JavaNames();
        return JavaSurface.of(Plans.of(contract));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void whatIsToldIsWhatIsSeen(long seed, @TempDir Path folder) throws IOException {
        Random chance = new Random(seed);
        String original = Files.readString(YARD.resolve("yard.xsd"));
        Side before = read(YARD);
        int judged = 0;
        int breaking = 0;
        int unshown = 0;
        List<String> faults = new ArrayList<>();
        for (int i = 0; judged < EDITS; i++) {
            RandomEdit.Edited edit = RandomEdit.of(original, chance);
            Path edited = Files.createDirectories(folder.resolve("e" + i));
            Files.copy(YARD.resolve("yard.wsdl"), edited.resolve("yard.wsdl"));
            Files.writeString(edited.resolve("yard.xsd"), edit.document());
            Side after;
            try {
                after = read(edited);
            } catch (IllegalArgumentException e) {
                continue;
            }
            if (after == null) {
                continue;
            }
            judged++;
            Set<Reader> told = EnumSet.noneOf(Reader.class);
            List<Evidence> shown = compare(before.contract(), after.contract(), told);
            Set<Reader> alone = EnumSet.noneOf(Reader.class);
            List<Evidence> shownAlone = compare(before.schema(), after.schema(), alone);
            told.retainAll(WIRE);
            Set<Reader> seen = EnumSet.noneOf(Reader.class);
            String why = seen(before, after, chance, seen);
            breaking += seen.isEmpty() ? 0 : 1;
            if (!told.containsAll(seen)) {
                faults.add("MISSED " + edit.told() + "\n  told " + told + ", seen " + seen + "\n" + why);
            }
            // Of a schema alone each side sends and is sent everything.
            if (!seen.isEmpty() && !alone.containsAll(WIRE)) {
                faults.add("MISSED in the schema " + edit.told() + "\n  told " + alone + "\n" + why);
            }
            for (Evidence evidence : shown) {
                if (!evidence.isShown()) {
                    unshown++;
                    faults.add("unshown " + edit.told() + ": " + evidence);
                    continue;
                }
                MessageElement body = body(evidence.message());
                boolean forth = (evidence.reader() == Reader.OLD_CLIENTS)
                        == REQUESTS.contains(body.name().getLocalPart());
                if (forth != evidence.sent()) {
                    faults.add("FALSE " + edit.told() + ": it goes the other way, " + evidence);
                }
                judge(evidence, MessageText.of(body), before, after, edit, faults);
            }
            for (Evidence evidence : shownAlone) {
                if (evidence.isShown()) {
                    judge(evidence, evidence.message(), before, after, edit, faults);
                }
            }
        }
        System.out.println(seed + ": " + judged + " judged, " + breaking + " breaking, " + unshown + " unshown");
        faults.forEach(System.out::println);
        assertThat(faults).noneMatch(fault -> !fault.startsWith("unshown"));
        assertThat(breaking).isGreaterThan(EDITS / 3);
    }

    /** A message that has to refer to something shows it too, though that may be absent as far as its element goes. */
    @Test
    void whatIsReferredToStandsInTheMessage(@TempDir Path folder) throws IOException {
        String log = """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="keeper" minOccurs="0"><xs:complexType>
                      <xs:attribute name="number" type="xs:int" use="required"/>
                    </xs:complexType></xs:element>
                    <xs:element name="entry"><xs:complexType>
                      <xs:attribute name="by" type="xs:int" use="required"/>
                    </xs:complexType></xs:element>
                  </xs:sequence></xs:complexType>
                  <xs:key name="keepers"><xs:selector xpath="keeper"/><xs:field xpath="@number"/></xs:key>
                  <xs:keyref name="by" refer="keepers"><xs:selector xpath="entry"/><xs:field xpath="@by"/></xs:keyref>
                  </xs:element>
                </xs:schema>
                """;
        Path old = folder.resolve("log.xsd");
        Path renamed = folder.resolve("journal.xsd");
        Files.writeString(old, log);
        Files.writeString(renamed, log.replace("\"log\"", "\"journal\""));
        List<Evidence> shown = compare(contract(old), contract(renamed), EnumSet.noneOf(Reader.class));
        assertThat(shown).hasSizeGreaterThan(1).allMatch(Evidence::isShown);
        for (Evidence evidence : shown) {
            Path own = evidence.sent() ? old : renamed;
            Path other = evidence.sent() ? renamed : old;
            assertThat(Infoset.validator(own).complaint(evidence.message())).isNull();
            assertThat(Infoset.validator(other).complaint(evidence.message())).isNotNull();
        }
    }

    private static List<Evidence> compare(Contract before, Contract after, Set<Reader> told) {
        List<Evidence> shown = new ArrayList<>();
        for (Difference difference :
                Comparison.of(before, after, surface(before), surface(after)).differences()) {
            told.addAll(difference.breaks());
            shown.addAll(difference.evidence());
        }
        return shown;
    }

    /** A message is valid for who sends it, and refused by the others when the evidence says so. */
    private static void judge(
            Evidence evidence, String message, Side before, Side after, RandomEdit.Edited edit, List<String> faults)
            throws IOException {
        String own = (evidence.sent() ? before : after).judge().complaint(message);
        String other = (evidence.sent() ? after : before).judge().complaint(message);
        boolean refused = evidence.at() != null;
        if (own != null || refused != (other != null)) {
            faults.add("FALSE " + edit.told() + ": " + evidence + "\n  own " + own + "\n  other " + other);
        }
    }

    private static MessageElement body(String message) {
        MessageElement root = read(message);
        MessageElement body = root.children().get(root.children().size() - 1);
        MessageElement first = body.children().get(0);
        first.prefixes().putAll(root.prefixes());
        return first;
    }

    private static MessageElement read(String message) {
        return MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    /** Who is seen to fail when messages of the one contract meet the other. */
    private static String seen(Side before, Side after, Random chance, Set<Reader> seen) throws IOException {
        StringBuilder why = new StringBuilder();
        for (Side side : List.of(before, after)) {
            Side other = side == before ? after : before;
            for (String message : messages(side, chance)) {
                String complaint = other.judge().complaint(message);
                boolean request = REQUESTS.contains(read(message).name().getLocalPart());
                Reader reader = (side == before) == request ? Reader.OLD_CLIENTS : Reader.OLD_SERVERS;
                if (complaint != null && seen.add(reader)) {
                    why.append(reader)
                            .append(": ")
                            .append(complaint)
                            .append('\n')
                            .append(message)
                            .append('\n');
                }
            }
        }
        return why.toString();
    }

    /** Messages that are valid: samples, and what becomes of them when they are changed here and there. */
    private static Set<String> messages(Side side, Random chance) throws IOException {
        Set<String> messages = new LinkedHashSet<>();
        Vocabulary vocabulary = new Vocabulary(side.contract().schema());
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(side.contract(), vocabulary, full);
            for (QName name : samples.elements()) {
                if (REQUESTS.contains(name.getLocalPart()) || ANSWERS.contains(name.getLocalPart())) {
                    String sample = samples.element(name);
                    messages.add(sample);
                    for (int i = 0; i < TRIES / 4; i++) {
                        MessageElement root = read(sample);
                        for (int times = 1 + chance.nextInt(3); times > 0; times--) {
                            change(root, chance);
                        }
                        messages.add(MessageText.of(root));
                    }
                }
            }
        }
        Set<String> valid = new LinkedHashSet<>();
        for (String message : messages) {
            if (side.judge().complaint(message) == null) {
                valid.add(message);
            }
        }
        return valid;
    }

    private static final List<String> VALUES = List.of(
            "",
            "1",
            "0",
            "7",
            "99",
            "-1",
            "1.25",
            "12345.6",
            "diesel",
            "petrol",
            "wind",
            "steam",
            "good",
            "poor",
            "AB1",
            "AB12",
            "AB123",
            "XYZ",
            "EUR",
            "text",
            "true",
            "2027-05-09",
            "P1D",
            "a much longer text",
            "12345678",
            "2.5",
            "89.5",
            "AB1 CD2",
            "yard");

    private static void change(MessageElement root, Random chance) {
        List<MessageElement> all = new ArrayList<>();
        collect(root, all);
        MessageElement element = all.get(chance.nextInt(all.size()));
        int items = element.content().size();
        switch (chance.nextInt(7)) {
            case 0 -> {
                if (items > 0) {
                    element.content().remove(chance.nextInt(items));
                }
            }
            case 1 -> {
                List<MessageElement> children = element.children();
                if (!children.isEmpty()) {
                    int at = chance.nextInt(children.size());
                    MessageElement twin = copy(children.get(at));
                    int index = element.content().indexOf(children.get(at));
                    element.add(twin);
                    element.content().remove(element.content().size() - 1);
                    element.content().add(index, twin);
                }
            }
            case 2 -> {
                if (items > 1) {
                    element.content().add(0, element.content().remove(items - 1));
                }
            }
            case 3 -> {
                List<QName> names = new ArrayList<>(element.attributes().keySet());
                if (!names.isEmpty()) {
                    element.attributes().remove(names.get(chance.nextInt(names.size())));
                }
            }
            case 4 -> {
                List<QName> names = new ArrayList<>(element.attributes().keySet());
                names.removeIf(name -> !name.getNamespaceURI().isEmpty());
                if (!names.isEmpty()) {
                    element.attributes().put(names.get(chance.nextInt(names.size())), any(chance));
                }
            }
            case 5 -> {
                if (element.children().isEmpty()) {
                    element.setText(any(chance));
                } else {
                    element.add(any(chance));
                }
            }
            default -> {
                if (chance.nextBoolean()) {
                    element.add(new MessageElement(new QName("urn:elsewhere", "stranger"), null));
                } else {
                    element.attributes().put(new QName("urn:elsewhere", "mark"), any(chance));
                }
            }
        }
    }

    private static String any(Random chance) {
        return VALUES.get(chance.nextInt(VALUES.size()));
    }

    private static MessageElement copy(MessageElement element) {
        MessageElement copy = new MessageElement(element.name(), null);
        copy.attributes().putAll(element.attributes());
        for (Object item : element.content()) {
            if (item instanceof MessageElement child) {
                copy.add(copy(child));
            } else {
                copy.add((String) item);
            }
        }
        return copy;
    }

    private static void collect(MessageElement element, List<MessageElement> to) {
        to.add(element);
        element.children().forEach(child -> collect(child, to));
    }
}
