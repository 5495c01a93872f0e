package org.protypos.constraint;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.XMLConstants;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.RandomEdit;
import org.protypos.testing.Sections;
import org.xml.sax.SAXException;

/** Schemas that keep the standard's constraints and schemas that do not; whether they do is also judged by the platform. */
class SchemaConstraintsTest {
    private static final String SCHEMA = "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" xmlns:t=\"urn:t\""
            + " targetNamespace=\"urn:t\" elementFormDefault=\"qualified\">\n";

    /** Judged by how restrictions are written, where they allow no more than their bases all the same. */
    private static final List<String> BY_WRITING = List.of("rcase-", "cos-particle-restrict");

    /**
     * A schema.
     *
     * @param file the file of test cases that it is in
     * @param told what is to be found in it, a line each
     */
    record Case(String file, String name, String schema, String told) {
        @Override
        public String toString() {
            return file + " " + name;
        }
    }

    static Stream<Case> cases() {
        return Sections.in("constraints")
                .flatMap(file -> file.all().entrySet().stream().map(section -> {
                    Map<Boolean, String> lines = section.getValue()
                            .lines()
                            .collect(Collectors.partitioningBy(
                                    line -> line.startsWith("! "), Collectors.joining("\n", "", "\n")));
                    return new Case(file.toString(), section.getKey(), lines.get(false), lines.get(true));
                }));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void whatBreaksAConstraintIsTold(Case test, @TempDir Path folder) throws IOException {
        Path schema = Files.writeString(folder.resolve("quay.xsd"), SCHEMA + test.schema() + "</xs:schema>");
        String told = findings(schema).stream()
                .map(finding -> "! " + (finding.place().line() - 1) + ":"
                        + finding.place().column() + " " + finding.code() + " " + finding.message())
                .collect(Collectors.joining("\n", "", "\n"));
        assertThat(told).isEqualTo(test.told());
        assertThat(refused(schema)).as("by the platform").matches(refused -> (refused == null) == told.isBlank());
    }

    @Test
    void randomEditsAreJudgedAsThePlatformJudgesThem(@TempDir Path folder) throws IOException {
        String original = Files.readString(Path.of("src/test/resources/change/yard.xsd"));
        Random chance = new Random(20);
        List<String> faults = new ArrayList<>();
        int broken = 0;
        for (int i = 0; i < 300; i++) {
            RandomEdit.Edited edit = RandomEdit.of(original, chance);
            String done = edit.told();
            for (int more = i % 3; more > 0; more--) {
                edit = RandomEdit.of(edit.document(), chance);
                done += ", " + edit.told();
            }
            Path schema = Files.writeString(folder.resolve("yard.xsd"), edit.document());
            String refused = refused(schema);
            List<Finding> found = findings(schema);
            broken += refused == null ? 0 : 1;
            boolean lenient = refused != null && BY_WRITING.stream().anyMatch(refused::startsWith);
            if ((refused == null) != found.isEmpty() && !lenient) {
                faults.add(done + "\n  the platform: " + refused + "\n  we: " + found);
            }
        }
        assertThat(faults).isEmpty();
        assertThat(broken).isBetween(20, 280);
    }

    private static List<Finding> findings(Path schema) {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        List<Finding> all = new ArrayList<>(contract.findings());
        if (contract.isSound()) {
            all.addAll(ContractConstraints.of(contract));
        }
        return all;
    }

    /** Why the platform refuses a schema, or null. */
    private static String refused(Path schema) {
        try {
            SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI).newSchema(schema.toFile());
            return null;
        } catch (SAXException e) {
            return e.getMessage();
        }
    }
}
