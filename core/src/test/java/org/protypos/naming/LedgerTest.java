package org.protypos.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.java.JavaSurface;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Plans;

/** Contracts that change, with names that nearly meet: what stays keeps its name. */
class LedgerTest {
    private static final List<String> NAMES = List.of(
            "berth",
            "Berth",
            "berth-no",
            "berthNo",
            "BERTH_NO",
            "Documents",
            "class",
            "object",
            "Object",
            "berthType",
            "vessel",
            "vessel2",
            "Vessel-2",
            "any",
            "Any",
            "value",
            "item",
            "na\u00efve",
            "NA\u00cfVE",
            "string",
            "String");

    private static Plan plan(Path folder, Map<String, List<String>> types, Random order, GivenNames past)
            throws IOException {
        List<String> declared = new ArrayList<>();
        types.forEach((name, members) -> {
            StringBuilder text = new StringBuilder("<xs:complexType name=\"" + name + "\"><xs:sequence>");
            List<String> shuffled = new ArrayList<>(members);
            Collections.shuffle(shuffled, order);
            shuffled.forEach(
                    member -> text.append("<xs:element name=\"" + member + "\" type=\"xs:int\" minOccurs=\"0\"/>"));
            declared.add(text + "</xs:sequence></xs:complexType>");
        });
        Collections.shuffle(declared, order);
        Path schema = Files.writeString(
                folder.resolve("c.xsd"),
                "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" targetNamespace=\"urn:ledger\">"
                        + String.join("\n", declared) + "</xs:schema>");
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        assertThat(contract.isSound()).as("%s", contract.findings()).isTrue();
        JavaNames names = new JavaNames();
        return Plans.of(contract, RuleReader.read(List.of(), names), past, null);
    }

    /** What a member is called, without its type. */
    private static Map<String, String> seen(Plan plan) {
        return new TreeMap<>(JavaSurface.of(plan).names());
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void survivorsKeepTheirNames(long seed, @TempDir Path folder) throws IOException {
        Random chance = new Random(seed);
        Map<String, List<String>> types = new LinkedHashMap<>();
        GivenNames names = GivenNames.NONE;
        Map<String, String> before = Map.of();
        for (int step = 0; step < 25; step++) {
            for (int change = 0; change < 4; change++) {
                String type = NAMES.get(chance.nextInt(NAMES.size()));
                String member = NAMES.get(chance.nextInt(NAMES.size()));
                if (chance.nextInt(6) == 0) {
                    types.remove(type);
                } else {
                    List<String> members = types.computeIfAbsent(type, any -> new ArrayList<>());
                    if (!members.remove(member)) {
                        members.add(member);
                    }
                }
            }
            Plan plan = plan(folder, types, chance, names);
            Map<String, String> after = seen(plan);
            for (Map.Entry<String, String> known : before.entrySet()) {
                if (after.containsKey(known.getKey())) {
                    assertThat(after).as("step " + step).containsEntry(known.getKey(), known.getValue());
                }
            }
            assertThat(after.values().stream().filter(name -> name.contains(".")))
                    .doesNotHaveDuplicates();
            names = plan.names();
            before = after;
        }
    }

    @Test
    void freedNamesGoToNobodyByAccident(@TempDir Path folder) throws IOException {
        Random order = new Random(1);
        Plan first = plan(folder, Map.of("berth-no", List.of(), "berthNo", List.of()), order, GivenNames.NONE);
        Map<String, String> names = seen(first);
        String freed = names.get("~{urn:ledger}berth-no");
        Plan second = plan(folder, Map.of("berthNo", List.of()), order, first.names());
        assertThat(seen(second)).containsEntry("~{urn:ledger}berthNo", names.get("~{urn:ledger}berthNo"));
        Plan third = plan(folder, Map.of("berthNo", List.of(), "BERTH_NO", List.of()), order, second.names());
        assertThat(seen(third).values()).doesNotContain(freed);
        Plan fourth = plan(
                folder,
                Map.of("berthNo", List.of(), "BERTH_NO", List.of(), "berth-no", List.of()),
                order,
                third.names());
        assertThat(seen(fourth)).containsEntry("~{urn:ledger}berth-no", freed).containsAllEntriesOf(seen(third));
    }

    /** Groups, wildcards and text have no names in the contract; what they were called stays, and rules may call them otherwise. */
    @Test
    void whatHasNoNameKeepsItsName(@TempDir Path folder) throws IOException {
        String schema = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns='urn:r' targetNamespace='urn:r'>"
                + "<xs:complexType name='Route'><xs:choice maxOccurs='unbounded'><xs:element name='up' type='xs:int'/>"
                + "<xs:element name='down' type='xs:int'/>%s</xs:choice><xs:anyAttribute/></xs:complexType>"
                + "<xs:complexType name='Note' mixed='true'><xs:sequence><xs:any processContents='lax'/></xs:sequence>"
                + "</xs:complexType></xs:schema>";
        Path file = Files.writeString(folder.resolve("r.xsd"), schema.formatted(""));
        Plan first = plan(file, GivenNames.NONE, List.of());
        Files.writeString(file, schema.formatted("<xs:element name='left' type='xs:int'/>"));
        Plan second = plan(file, first.names(), List.of());
        assertThat(route(first)).containsExactly("OtherAttributes", "UpOrDown", "UpOrDown");
        assertThat(route(second)).isEqualTo(route(first));
        assertThat(route(plan(file, GivenNames.NONE, List.of()))).contains("UpOrDownOrLeft");
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {r: "urn:r"}
                rules:
                  - {on: "~r:Route/choice()", name: Turn}
                  - {on: "~r:Route/@any()", name: Marks}
                  - {on: "~r:Note/text()", name: Words}
                """);
        Plan ruled = plan(file, first.names(), List.of(rules));
        assertThat(route(ruled)).containsExactly("Marks", "Turn", "Turn");
        assertThat(ruled.names().byScope().toString()).contains("~{urn:r}Note/text()=Words");
    }

    private static Plan plan(Path file, GivenNames past, List<Path> rules) {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
        JavaNames names = new JavaNames();
        Rules read = RuleReader.read(rules, names);
        Plan plan = Plans.of(contract, read, past, null);
        assertThat(read.findings(true)).isEmpty();
        return plan;
    }

    private static List<String> route(Plan plan) {
        return plan.classes().stream()
                .filter(type -> type.name().equals("Route"))
                .flatMap(type -> Stream.concat(
                        type.properties().stream().map(Property::name),
                        type.nestedClasses().stream().map(PlannedClass::name)))
                .sorted()
                .toList();
    }

    /** Contracts that are compared are planned beside each other, with the same names of yesterday. */
    @Test
    void namesOfYesterdayAreAskedByTwoAtOnce() throws Exception {
        Map<String, String> some = new LinkedHashMap<>();
        for (int i = 0; i < 200; i++) {
            some.put("~{urn:pier}T" + i, "T" + i);
        }
        ExecutorService two = Executors.newFixedThreadPool(2);
        try {
            for (int i = 0; i < 500; i++) {
                GivenNames names = new GivenNames("java", Map.of("pier", some, "mole", some));
                CyclicBarrier begin = new CyclicBarrier(2);
                Callable<String> question = () -> {
                    begin.await();
                    return names.holder("pier", "T199") + names.of("quay", "~{urn:pier}T199");
                };
                for (Future<String> answer : two.invokeAll(List.of(question, question))) {
                    assertThat(answer.get()).isEqualTo("~{urn:pier}T199T199");
                }
            }
        } finally {
            two.shutdownNow();
        }
    }
}
