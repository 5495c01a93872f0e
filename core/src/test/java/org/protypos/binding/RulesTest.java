package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;
import org.protypos.output.OutputFolder;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Plans;

/** Rules over the customs contract: what they do, and how they are told to be wrong. */
class RulesTest {
    private static final Path DESK = Path.of("../examples/harbour/contract/desk.wsdl");
    private static final Path CUSTOMS = Path.of("../examples/customs/customs.wsdl");
    private static final Path NAMES = Path.of("../examples/customs/names.yaml");

    private static final Map<String, String> PREFIXES = Map.of("d", "http://lanternbay.example/harbour/desk");

    private static Contract contract() {
        return ContractReader.read(DocumentGatherer.gather(List.of(CUSTOMS.toString()), null));
    }

    private static Rules rules(Path file) {
        return RuleReader.read(List.of(file), new JavaNames());
    }

    private static Plan plan(Rules rules) {
        return Plans.of(contract(), rules);
    }

    private static List<String> told(List<Finding> findings) {
        return findings.stream()
                .map(finding -> (finding.place() == null
                                ? "-"
                                : finding.place().line() + ":" + finding.place().column())
                        + " " + finding.code() + " " + finding.message() + " | " + finding.cure())
                .toList();
    }

    @Test
    void rulesNameWhatTheySay(@TempDir Path folder) throws IOException {
        Rules rules = rules(NAMES);
        Plan plan = plan(rules);
        assertThat(told(rules.findings(true))).isEmpty();
        assertThat(plan.findings()).isEmpty();
        assertThat(plan.classes()).extracting(PlannedClass::packageName).containsOnly("bay.customs");
        assertThat(plan.classes())
                .extracting(PlannedClass::name)
                .containsExactly("ObjectType", "Cargo", "Manifest", "Notify", "NotifyResponse");
        PlannedClass cargo = plan.classes().get(1);
        assertThat(cargo.elements())
                .extracting(Property::name)
                .containsExactly("Class2", "Weight", "LotNo", "FormerLot");
        assertThat(cargo.attributes()).extracting(Property::name).containsExactly("DeclaredWeight", "DeclaredLOTNO");
        assertThat(plan.enums().get(0).constants())
                .extracting(PlannedEnum.Constant::name)
                .containsExactly("FREE", "FREE_", "_5", "UNKNOWN", "EMPTY");
        PlannedInterface customs = plan.interfaces().get(0);
        assertThat(customs.operations().get(0).method()).isEqualTo("declare");
        assertThat(customs.operations().get(0).parameters()).containsExactly("items", "sealed_object");
        assertThat(plan.services().get(0).ports().get(0).constant()).isEqualTo("QUAYSIDE");
        assertThat(rules.all()).allMatch(rule -> !rule.matched().isEmpty());
        Generated.from(List.of(CUSTOMS), folder, rules).close();
    }

    @Test
    void correctionsChangeWhatTheContractSays(@TempDir Path folder) throws Exception {
        Path file = Files.writeString(folder.resolve("lies.yaml"), """
                prefixes: {c: "http://lanternbay.example/customs"}
                rules:
                  - {on: "~c:cargo-item/c:weight", occurs: 0..*, because: they weigh twice}
                  - {on: "~c:cargo-item/c:lot-no", type: "xs:string", nillable: true, because: lots have letters}
                  - {on: "~c:cargo-item/@weight", occurs: 1, because: they promised}
                  - {on: "c:notify/c:object", occurs: 0..1, because: it was 1 once}
                  - {on: "~c:cargo-item/c:class", occurs: 5..2, because: no reason}
                  - {on: "~c:Object/c:seal", nillable: true}
                  - {on: "~c:Object/c:seal", type: "c:Seal", because: who knows}
                """);
        Rules rules = rules(file);
        Contract corrected = rules.correct(contract());
        Plans.of(corrected, rules);
        assertThat(told(rules.findings(true)))
                .containsExactly(
                        "6:5 correction-unneeded the contract says occurs 0..1 of c:notify/c:object by now | take the correction out",
                        "7:43 rule-value \"5..2\" is no occurrence | write it like 1, 0..1, 1..* or 2..5",
                        "8:5 rule-key the correction does not say why it is there | add \"because:\" for who comes after you",
                        "9:5 correction-refused there is no type c:Seal | name a type that the contract has");
        assertThat(rules.all().stream().flatMap(rule -> rule.changes().stream()))
                .extracting(change -> change.place().line() + " " + change.before() + " -> " + change.after())
                .containsExactly(
                        "11 occurs 1 -> occurs 0..*",
                        "12 type xs:int -> type xs:string",
                        "12 nillable false -> nillable true",
                        "15 occurs 0..1 -> occurs 1");
        Path sound = Files.writeString(
                folder.resolve("sound.yaml"),
                String.join("\n", Files.readAllLines(file).subList(0, 5)));
        try (Generated generated = Generated.from(List.of(CUSTOMS), folder.resolve("out"), rules(sound))) {
            String message =
                    "<notify xmlns='http://lanternbay.example/customs'><items><item weight='heavy'><class>a</class>"
                            + "<weight>1</weight><weight>2</weight><lot-no>7b</lot-no></item></items></notify>";
            assertThat(Infoset.of(generated.roundTrip(message))).isEqualTo(Infoset.of(message));
        }
    }

    @Test
    void everyKindOfLieCanBePutRight(@TempDir Path folder) throws Exception {
        Path file = Files.writeString(folder.resolve("lies.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk", v: "http://lanternbay.example/harbour/vessels"}
                rules:
                  - {on: "~d:Berth", add: "d:tideless", type: "xs:boolean", occurs: 0..1, after: "d:quay", because: it is there}
                  - {on: "~d:Berth", add: "@since", type: "xs:gYear", because: it is there}
                  - {on: "~d:Berth/d:depthInMetres", drop: true, because: it never comes}
                  - {on: "~d:Berth/d:number", form: unqualified, default: "7", because: so it is sent}
                  - {on: "~d:Need", add: "'crane'", because: some need one}
                  - {on: "~d:Need='pilot'", drop: true, because: nobody does}
                  - {on: "~d:Money/@currency", type: "xs:string", default: null, because: it has no default}
                  - {on: "~d:BerthOffer", base: "d:Berth", because: an offer is one}
                  - {on: "d:listBerthsResponse", add: "d:total", type: "xs:int", because: it is counted}
                  - {on: "service d:HarbourOffice/Desk", address: "http://localhost:9/desk", because: it moved}
                  - {on: "portType d:HarbourDesk/castOff", soapAction: "urn:off", because: that is what they look at}
                  - {on: "portType d:HarbourDesk/payDues", drop: "header d:pass", because: nobody asks for it}
                  - {on: "portType d:HarbourDesk/findVessel", add: "header d:pass", because: they ask for it}
                  - {on: "portType d:HarbourDesk/listBerths", style: document, because: it is}
                  - {on: "~d:Berth", base: "d:BerthOffer", because: no}
                  - {on: "~d:Berth", add: "d:quay", type: "xs:string", because: it is there already}
                  - {on: "~d:Berth", add: "d:last", type: "xs:string", after: "d:nothing", because: no}
                  - {on: "~v:Vessel/@callSign", type: "d:Berth", because: no}
                  - {on: "~d:Berth", add: "@offer", type: "{http://lanternbay.example/harbour/desk}BerthOffer", because: no}
                  - {on: "~d:Berth", add: "z:last", type: "xs:string", because: no}
                  - {on: "~d:Berth", add: "d:the last", type: "xs:string", because: no}
                  - {on: "~d:Need", add: "@since", type: "xs:gYear", because: no}
                  - {on: "~v:CallSign", add: "'LB7'", because: no}
                """);
        Rules rules = rules(file);
        Path desk = Path.of("../examples/harbour/contract/desk.wsdl");
        Rules told = rules(file);
        told.correct(read(desk));
        assertThat(told(told.findings(false)))
                .containsExactly(
                        "16:5 correction-unneeded the contract says style document of portType d:HarbourDesk/listBerths by now | take the correction out",
                        "17:5 correction-refused this type would be derived from itself | name a base that is not derived from this type",
                        "18:5 correction-unneeded the contract says element d:quay of type xs:string, occurs 0..1 of ~d:Berth by now | take the correction out",
                        "19:5 correction-refused there is no element d:nothing that it could follow | name an element of the type, or leave \"after:\" out for the last place",
                        "20:5 correction-refused an attribute cannot be of d:Berth, which is no simple type | name a simple type",
                        "21:5 correction-refused an attribute cannot be of d:BerthOffer, which is no simple type | name a simple type",
                        "22:27 rule-selector the prefix z in \"z:last\" is not declared | declare it under \"prefixes:\"",
                        "23:27 rule-value \"d:the last\" is no name | write it like p:Type, or {http://example.org/namespace}Type",
                        "24:5 correction-refused ~d:Need holds text alone, and neither elements nor attributes | write a value like \"'crane'\", or name a type that holds such",
                        "25:5 correction-refused ~v:CallSign has no list of values that one could be added to | name the type that lists them");
        Files.writeString(file, Files.readString(file).lines().limit(15).collect(Collectors.joining("\n")) + "\n");
        rules = rules(file);
        try (Generated generated = Generated.from(List.of(desk), folder.resolve("out"), rules)) {
            assertThat(rules.all().stream().flatMap(rule -> rule.changes().stream()))
                    .extracting(change -> Designators.shown(change.before() + " -> " + change.after(), PREFIXES))
                    .containsExactly(
                            "no such element -> element d:tideless of type xs:boolean, occurs 0..1",
                            "no such attribute -> attribute since of type xs:gYear",
                            "element d:depthInMetres -> no such element",
                            "no default -> default '7'",
                            "form qualified -> form unqualified",
                            "no such value -> value 'crane'",
                            "value 'pilot' -> no such value",
                            "type xs:token -> type xs:string",
                            "default 'LBC' -> no default",
                            "base xs:anyType -> base d:Berth",
                            "no such element -> element d:total of type xs:int, occurs 0..1",
                            "address http://office.lanternbay.example/desk -> address http://localhost:9/desk",
                            "soapAction \"http://lanternbay.example/harbour/desk/castOff\" -> soapAction \"urn:off\"",
                            "soapAction \"http://lanternbay.example/harbour/desk/castOff\" -> soapAction \"urn:off\"",
                            "header d:pass -> no header d:pass",
                            "header d:pass -> no header d:pass",
                            "no header d:pass -> header d:pass",
                            "no header d:pass -> header d:pass");
            String message = "<listBerthsResponse xmlns='http://lanternbay.example/harbour/desk'><berth since='1999'>"
                    + "<number xmlns=''>4</number><quay>west</quay><tideless>true</tideless></berth><total>1</total>"
                    + "</listBerthsResponse>";
            assertThat(Infoset.of(generated.roundTrip(message))).isEqualTo(Infoset.of(message));
            assertThat(text(generated, "HarbourDesk"))
                    .contains("Vessel findVessel(String callSign, Pass pass);")
                    .contains("payDues(String callSign, Money amount)");
            assertThat(text(generated, "HarbourOffice")).contains("http://localhost:9/desk");
            assertThat(text(generated, "HarbourDeskClient")).contains("urn:off");
            assertThat(text(generated, "Need")).contains("CRANE(\"crane\")").doesNotContain("PILOT");
            assertThat(text(generated, "BerthOffer")).contains("extends Berth ");
        }
    }

    @Test
    void operationsAndPortsCanBeLeftOut(@TempDir Path folder) throws IOException {
        Path file = Files.writeString(folder.resolve("less.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk"}
                rules:
                  - {on: "portType d:HarbourDesk/p*", omit: true, because: nobody pays}
                  - {on: "portType d:HarbourDesk/cast*", omit: true}
                  - {on: "service d:HarbourOffice/Soap12Desk", omit: true}
                  - {on: "~d:Berth/d:quay", omit: true}
                """);
        Rules rules = rules(file);
        Contract desk =
                ContractReader.read(DocumentGatherer.gather(List.of("../examples/harbour/contract/desk.wsdl"), null));
        Plan plan = Plans.of(desk, rules);
        assertThat(plan.interfaces().get(0).operations())
                .extracting(PlannedOperation::method)
                .containsExactly("requestBerth", "listBerths", "findVessel");
        assertThat(plan.services().get(0).ports()).hasSize(1);
        assertThat(told(rules.findings(true)))
                .containsExactly("6:35 rule-value only an operation, a port or a type is left out, and then has no name"
                        + " | write \"on: portType p:Name/operation\", \"on: service p:Name/port\" or \"on: ~p:Type\"");
    }

    @Test
    void operationsGetTheShapeThatRulesGive(@TempDir Path folder) throws Exception {
        Path file = Files.writeString(folder.resolve("shape.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk", v: "http://lanternbay.example/harbour/vessels"}
                rules:
                  - {on: "portType d:HarbourDesk/**", async: false}
                  - {on: "portType d:HarbourDesk/payDues", async: true, parameters: object, documentation: Pays.}
                  - {on: "portType d:HarbourDesk/castOff", parameters: plain}
                  - {on: "d:requestBerth/d:arrival", as: OffsetDateTime}
                  - {on: "~xs:dateTime", as: Instant}
                """);
        Rules rules = rules(file);
        Path desk = Path.of("../examples/harbour/contract/desk.wsdl");
        try (Generated generated = Generated.from(List.of(desk), folder.resolve("out"), rules)) {
            assertThat(told(rules.findings(true))).isEmpty();
            String client = text(generated, "HarbourDeskClient");
            assertThat(client.lines().filter(line -> line.contains("Async(")))
                    .containsExactly(
                            "    public CompletableFuture<PayDuesResponse> payDuesAsync(PayDues payDues, Pass pass) {");
            assertThat(text(generated, "HarbourDesk"))
                    .contains("     * <p>Pays.\n     */\n    PayDuesResponse payDues(PayDues payDues, Pass pass);")
                    .contains("requestBerth(Vessel vessel, OffsetDateTime arrival,");
            assertThat(text(generated, "BerthOffer")).contains("public Instant getFrom()");
        }
    }

    private static String text(Generated generated, String name) {
        return generated.files().stream()
                .filter(file -> file.path().endsWith("/" + name + ".java"))
                .findFirst()
                .orElseThrow()
                .text();
    }

    /** A class that another contract has brought along stands for the same type of this one. */
    @Test
    void existingClassesAreUsedInPlaceOfNewOnes(@TempDir Path folder) throws Exception {
        Path vessels = Path.of("../examples/harbour/contract/vessels.xsd");
        Path desk = Path.of("../examples/harbour/contract/desk.wsdl");
        Path file = Files.writeString(folder.resolve("shared.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk", v: "http://lanternbay.example/harbour/vessels"}
                rules:
                  - {on: "~v:Vessel", existing: bay.shared.Vessel}
                  - {on: "~v:Ferry", existing: bay.shared.Ferry}
                  - {on: "namespace d", package: bay.desk}
                """);
        Rules rules = rules(file);
        ClassApi shared =
                Plans.code(read(vessels), RuleReader.read(List.of(), new JavaNames()), GivenNames.NONE, "bay.shared");
        ClassApi own = Plans.code(read(desk), rules, GivenNames.NONE, null);
        Plan plan = own.plan();
        assertThat(plan.findings()).isEmpty();
        assertThat(told(rules.findings(true))).isEmpty();
        assertThat(plan.classes())
                .extracting(PlannedClass::name)
                .doesNotContain("Vessel", "Ferry")
                .contains("Tanker");
        List<SourceFile> files = new ArrayList<>();
        for (ClassApi each : List.of(shared, own)) {
            files.addAll(each.emit(Set.of(Product.TYPES), false, List::of));
        }
        OutputFolder.write(folder.resolve("sources"), files, false, false);
        assertThat(Generated.compile(folder.resolve("sources"), Files.createDirectory(folder.resolve("classes"))))
                .isEmpty();
    }

    private static Contract read(Path contract) {
        return ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
    }

    @Test
    void rulesThatCannotBeFollowedAreTold(@TempDir Path folder) throws IOException {
        Path file = Files.writeString(folder.resolve("useless.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk", v: "http://lanternbay.example/harbour/vessels"}
                rules:
                  - {on: "~d:Berth", as: URI}
                  - {on: "~d:Berth/d:quay", as: LocalDate}
                  - {on: "~d:Berth/d:number", carries: "d:pass"}
                  - {on: "d:listBerths/d:deepEnoughFor", unwrap: true}
                  - {on: "~d:BerthOffer/d:berth", unwrap: true}
                  - {on: "~v:Vessel", omit: true}
                  - {on: "~d:Money", parameters: object}
                  - {on: "portType d:HarbourDesk/payDues", as: int}
                  - {on: "~d:Need", as: bay.Need, parse: bay.Need.of}
                  - {on: "~d:Need", with: bay.Need}
                  - {on: "~d:Need", as: "bay.Need;", print: none}
                  - {on: "~d:Need", implements: "bay.Need, {}"}
                  - {on: "d:pass/d:holder", optional: maybe}
                """);
        Rules rules = rules(file);
        List<String> told = new ArrayList<>(told(Plans.findings(read(DESK), rules)));
        told.addAll(told(rules.findings(true)));
        assertThat(String.join("\n", told)).isEqualTo("""
                20:3 type-needed this type is derived from ~v:Vessel, which a rule leaves out | leave this type out too, or neither
                35:3 type-needed this type is derived from ~v:Vessel, which a rule leaves out | leave this type out too, or neither
                49:3 type-needed this type is derived from ~v:Vessel, which a rule leaves out | leave this type out too, or neither
                4:5 rule-useless ~d:Berth/d:quay does not become LocalDate by itself: a converter is needed ("with:") | take the rule out, or say it of another component
                5:5 rule-useless ~d:Berth/d:number cannot hold <pass>: only text holds an element with structure | take the rule out, or say it of another component
                6:5 rule-useless d:listBerths/d:deepEnoughFor is no element around a list | take the rule out, or say it of another component
                7:5 rule-useless ~d:BerthOffer/d:berth holds more than a list | take the rule out, or say it of another component
                3:5 rule-useless what ~d:Berth is has no use for what the rule says | take the rule out, or say it of another component
                9:5 rule-value only an operation can be treated like this | write "on: portType p:Name/operation"
                10:5 rule-value only a component of a schema can be treated like this | write "on: ~p:Type", "on: ~p:Type/p:element" or the like
                11:5 rule-key a converter with half of what it needs | give it parse and print, or a class with both as "with:"
                12:5 rule-key a converter for no type | add "as:" with the type
                13:5 rule-key a converter with half of what it needs | give it parse and print, or a class with both as "with:"
                13:25 rule-name "bay.Need;" is no class | write the class with its package, like org.example.Tonnage
                14:33 rule-name "bay.Need, {}" is no class | write the class with its package, like org.example.Tonnage
                15:39 rule-value "maybe" is neither true nor false | write true or false""");
    }

    @Test
    void everyMistakeIsToldWithItsPlace() throws IOException {
        Rules rules = rules(Path.of("src/test/resources/rules/mistakes.yaml"));
        List<Finding> planned = Plans.findings(contract(), rules);
        Path expected = Path.of("src/test/resources/rules/mistakes.txt");
        List<String> told = new ArrayList<>(told(rules.findings(true)));
        told.addAll(told(planned));
        if (Boolean.getBoolean("expected.write")) {
            Files.write(expected, told);
        }
        assertThat(told).containsExactlyElementsOf(Files.readAllLines(expected));
        assertThat(told(rules(Path.of("src/test/resources/rules/unfinished.yaml"))
                        .findings(true)))
                .hasSize(1)
                .allMatch(text -> text.matches("[0-9]+:[0-9]+ rules-syntax .*"));
        assertThat(told(rules(Path.of("no-such-file")).findings(true))).hasSize(1);
    }

    @Test
    void suggestedRulesSettleEveryClashAsItWas(@TempDir Path folder) throws IOException {
        Plan plain = plan(RuleReader.read(List.of(), new JavaNames()));
        List<String> settled = plain.clashes().stream().map(Clash::given).toList();
        assertThat(settled).hasSize(9);
        Path file = folder.resolve("names.yaml");
        Files.writeString(file, Suggestions.file(plain.clashes(), List.of()));
        Rules rules = rules(file);
        Plan again = plan(rules);
        assertThat(again.clashes()).isEmpty();
        assertThat(told(rules.findings(true))).isEmpty();
        assertThat(again.classes()).extracting(PlannedClass::name).isEqualTo(names(plain));
    }

    private static List<String> names(Plan plan) {
        return plan.classes().stream().map(PlannedClass::name).toList();
    }

    @Test
    void suggestionsJoinAFileAndKeepWhatIsThere(@TempDir Path folder) throws IOException {
        String existing = Files.readString(NAMES);
        Plan first = plan(rules(NAMES));
        String merged = Suggestions.merged(existing, rules(NAMES).prefixes(), first.clashes(), List.of())
                .orElseThrow();
        assertThat(merged.lines()
                        .filter(line -> existing.lines().noneMatch(line::equals))
                        .collect(Collectors.joining("\n")))
                .isEqualTo(
                        """
                          # bay.customs: Object is wanted by generated code or the language
                          - on: "~c:Object"
                            name: ObjectType
                          # bay.customs.Duty: FREE is wanted by ~c:duty='free'
                          - on: "~c:duty='FREE'"
                            name: FREE_
                          # bay.customs.Cargo: Class is wanted by generated code or the language
                          - on: "~c:cargo-item/c:class"
                            name: Class2
                          # bay.customs: Customs is wanted by portType c:customs
                          - on: "service c:Customs"
                            name: CustomsService""".indent(0).stripTrailing().replaceAll("(?m)^", "  ").replaceAll("(?m)^ {2}(?= *)", "  "));
        Path file = folder.resolve("names.yaml");
        Files.writeString(file, merged);
        Rules rules = rules(file);
        assertThat(plan(rules).clashes()).isEmpty();
        assertThat(told(rules.findings(true))).isEmpty();
        assertThat(Suggestions.merged("{\"rules\": []}", Map.of(), first.clashes(), List.of()))
                .isEmpty();
    }

    @Test
    void theShippedSchemaKnowsTheKeysOfARule() throws IOException {
        String schema = Files.readString(Path.of("src/main/resources/org/protypos/binding/rules.schema.json"));
        for (String key : RuleBuilder.keys(new JavaNames().languages())) {
            assertThat(schema).contains("\"" + key + "\": {");
        }
    }
}
