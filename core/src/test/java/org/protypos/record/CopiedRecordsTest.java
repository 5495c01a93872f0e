package org.protypos.record;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Targets;
import org.protypos.testing.Cobc;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/**
 * Random messages go into records, a compiled program takes each record apart and puts it together again field by field, as what
 * is said in it about counts, choices and types makes it, and out of that comes what went in.
 */
class CopiedRecordsTest {
    private static final int MESSAGES = 120;
    private static final RecordForm FORM = new RecordForm(StandardCharsets.ISO_8859_1, false);

    @BeforeAll
    static void assumed() {
        Cobc.assumed();
    }

    /** The records of messages of one kind. */
    private static final class Filled {
        private final ByteArrayOutputStream records = new ByteArrayOutputStream();
        private final List<String> messages = new ArrayList<>();
    }

    @ParameterizedTest
    @CsvSource({"3,ibm", "11,default", "17,cobol2014"})
    void whatAProgramCopiesIsWhatItWas(long seed, String standard, @TempDir Path folder) throws Exception {
        RandomContract random = new RandomContract(seed, 40);
        Path schema = random.layOut(folder);
        PlannedContract planned = Generator.of(
                        ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null)))
                .target(Targets.withRecords())
                .rules(List.of(Files.writeString(folder.resolve("rules.yaml"), """
                        rules:
                          - on: "**"
                            cobol: {parts: true}
                        """)))
                .plan();
        Map<RecordLayout, Filled> filled = filled(planned, random, schema);
        assertThat(filled).hasSizeGreaterThan(3);
        for (SourceFile file : planned.code().emit(Set.of(Product.TYPES), true, List::of)) {
            Files.writeString(folder.resolve(file.path()), file.text());
        }
        Files.writeString(folder.resolve("copier.cbl"), new Copier(filled).program(copybooks(planned)));
        assertThat(Cobc.run(folder, "cobc", "-x", "-std=" + standard, "-o", "copier", "copier.cbl"))
                .isEmpty();
        int number = 0;
        for (Filled one : filled.values()) {
            Files.write(folder.resolve("FROM" + ++number), one.records.toByteArray());
        }
        assertThat(Cobc.run(folder, "./copier")).isEmpty();
        number = 0;
        int compared = 0;
        for (Map.Entry<RecordLayout, Filled> one : filled.entrySet()) {
            byte[] copied = Files.readAllBytes(folder.resolve("COPY" + ++number));
            int length = one.getKey().length();
            List<String> messages = one.getValue().messages;
            assertThat(copied).hasSize(length * messages.size());
            for (int i = 0; i < messages.size(); i++) {
                Findings wrong = new Findings();
                byte[] record = Arrays.copyOfRange(copied, i * length, (i + 1) * length);
                RecordReader.Content content = RecordReader.read(one.getKey(), record, FORM, "copy", wrong);
                assertThat(wrong.sorted()).as(messages.get(i)).isEmpty();
                assertThat(RecordTripTest.plain(
                                Infoset.of(MessageText.of(content.body().get(0)))))
                        .isEqualTo(RecordTripTest.plain(Infoset.of(messages.get(i))));
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(MESSAGES / 4);
    }

    private static Map<RecordLayout, Filled> filled(PlannedContract planned, RandomContract random, Path schema)
            throws Exception {
        Map<RecordLayout, Filled> filled = new LinkedHashMap<>();
        for (int i = 0; i < MESSAGES; i++) {
            String message = random.message();
            MessageElement root =
                    MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
            RecordLayout layout = planned.code().records().stream()
                    .filter(record -> record.element().equals(root.name()))
                    .findFirst()
                    .orElseThrow();
            Findings findings = new Findings();
            byte[] record = RecordWriter.write(layout, List.of(), List.of(root), FORM, "message", findings);
            if (!findings.hasErrors() && Infoset.complaint(schema, message) == null) {
                Filled one = filled.computeIfAbsent(layout, any -> new Filled());
                one.records.writeBytes(record);
                one.messages.add(message);
            }
        }
        return filled;
    }

    private static Map<String, String> copybooks(PlannedContract planned) {
        Map<String, String> files = new LinkedHashMap<>();
        planned.code().emit(Set.of(Product.TYPES), true, List::of).forEach(file -> file.text()
                .lines()
                .filter(line -> line.startsWith("       01  "))
                .forEach(line -> files.put(line.substring(11).replace(".", ""), file.path())));
        return files;
    }

    /** Writes the program. */
    private static final class Copier {
        private final Map<RecordLayout, Filled> filled;
        private final StringBuilder text = new StringBuilder();
        private RecordLayout record;

        Copier(Map<RecordLayout, Filled> filled) {
            this.filled = filled;
        }

        private void heading(String line) {
            text.append("       ").append(line).append('\n');
        }

        /** A statement, with a line for each of its words, for lines are short and names are long. */
        private void line(String... words) {
            for (String word : words) {
                text.append("           ").append(word).append('\n');
            }
        }

        String program(Map<String, String> copybooks) {
            heading("IDENTIFICATION DIVISION.");
            heading("PROGRAM-ID. COPIER.");
            heading("ENVIRONMENT DIVISION.");
            heading("INPUT-OUTPUT SECTION.");
            heading("FILE-CONTROL.");
            for (int i = 1; i <= filled.size(); i++) {
                line("SELECT FROM-" + i + " ASSIGN TO \"FROM" + i + "\"", "FILE STATUS IS HOW-IT-WENT.");
                line("SELECT COPY-" + i + " ASSIGN TO \"COPY" + i + "\".");
            }
            heading("DATA DIVISION.");
            heading("FILE SECTION.");
            int number = 0;
            for (RecordLayout layout : filled.keySet()) {
                number++;
                heading("FD  FROM-" + number + ".");
                heading("01  FROM-RECORD-" + number + " PIC X(" + layout.length() + ").");
                heading("FD  COPY-" + number + ".");
                heading("01  COPY-RECORD-" + number + " PIC X(" + layout.length() + ").");
            }
            heading("WORKING-STORAGE SECTION.");
            heading("01  HOW-IT-WENT PIC X(2).");
            for (int i = 1; i <= 9; i++) {
                heading("01  ENTRY-" + i + " PIC S9(9) BINARY.");
            }
            for (RecordLayout layout : filled.keySet()) {
                heading("COPY \"" + copybooks.get(layout.name()) + "\".");
                heading("COPY \"" + copybooks.get(layout.name()) + "\"");
                line("REPLACING ==" + layout.name() + "== BY", "==COPIED-" + suffix(layout) + "==.");
            }
            heading("PROCEDURE DIVISION.");
            number = 0;
            for (RecordLayout layout : filled.keySet()) {
                number++;
                record = layout;
                line("OPEN INPUT FROM-" + number + ".", "OPEN OUTPUT COPY-" + number + ".");
                line("READ FROM-" + number + " INTO", layout.name() + ".");
                line("PERFORM UNTIL HOW-IT-WENT NOT = \"00\"");
                line("MOVE LOW-VALUES TO", "COPIED-" + suffix(layout));
                layout.root().children().forEach(slot -> copy(slot, 0));
                line("WRITE COPY-RECORD-" + number + " FROM", "COPIED-" + suffix(layout));
                line("READ FROM-" + number + " INTO", layout.name());
                line("END-PERFORM.");
                line("CLOSE FROM-" + number + " COPY-" + number + ".");
            }
            line("STOP RUN.");
            return text.toString();
        }

        private int suffix(RecordLayout layout) {
            return List.copyOf(filled.keySet()).indexOf(layout) + 1;
        }

        private String[] of(Slot slot, int depth, boolean copied) {
            StringBuilder indices = new StringBuilder();
            for (int i = 1; i <= depth; i++) {
                indices.append(" ENTRY-").append(i);
            }
            return new String[] {
                slot.name(),
                " OF " + (copied ? "COPIED-" + suffix(record) : record.name()),
                depth == 0 ? "" : " (" + indices.toString().strip() + ")"
            };
        }

        private void copy(Slot slot, int depth) {
            if (slot.kind() == Slot.Kind.AREA) {
                return;
            }
            if (slot.count() != null) {
                int entry = depth + 1;
                line("PERFORM VARYING ENTRY-" + entry + " FROM 1 BY 1", "UNTIL ENTRY-" + entry + " >");
                line(of(slot.count(), depth, false));
                one(slot, entry);
                line("END-PERFORM");
            } else {
                one(slot, depth);
            }
        }

        private void one(Slot slot, int depth) {
            if (slot.picture() != null) {
                line("MOVE");
                line(of(slot, depth, false));
                line("TO");
                line(of(slot, depth, true));
            }
            for (Slot child : slot.children()) {
                if (child.area() == null) {
                    copy(child, depth);
                    continue;
                }
                line("IF");
                line(of(slot.selector(), depth, false));
                line("= " + child.ordinal());
                int before = text.length();
                copy(child, depth);
                if (text.length() == before) {
                    line("CONTINUE");
                }
                line("END-IF");
            }
        }
    }
}
