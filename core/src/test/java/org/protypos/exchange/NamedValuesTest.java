package org.protypos.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.Arguments;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.NamedDeviations;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.exchange.call.TakenValues;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;

/** Values are spoken of by the names under which they are given. */
class NamedValuesTest {
    private static final String DESK = "../examples/harbour/contract/desk.wsdl";
    private static final String TIDE = "../examples/tide/tide.wsdl";

    private final Findings findings = new Findings();
    private ContractCheck check;

    private CalledOperation operation(String contract, String name) {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract), null));
        assertThat(read.isSound()).as("%s", read.findings()).isTrue();
        check = new ContractCheck(read);
        return CalledOperation.of(check.wire()).stream()
                .filter(called -> called.operation().name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private Map<String, String> wrong(String contract, String name, String... values) {
        CalledOperation called = operation(contract, name);
        String text = MessageText.of(new RequestBuilder(called.carried(), check.vocabulary(), findings)
                .request(Arguments.of(List.of(values), findings)));
        CheckedMessage checked = new OperationCheck(called.carried(), check)
                .request(MessageReader.read("request", text.getBytes(StandardCharsets.UTF_8), new Findings()));
        return NamedDeviations.of(called.request(), check.vocabulary(), checked);
    }

    @Test
    void allThatIsMissingIsNamedAtOnce() {
        assertThat(wrong(DESK, "requestBerth", "vessel.name=Aurora", "need[0]=water", "need[1]=beer"))
                .containsExactlyInAnyOrderEntriesOf(
                        Map.of(
                                "vessel.@xsi:type", "is missing: Tanker, Ferry or Yacht",
                                "vessel.@callSign", "is missing",
                                "vessel.lengthInMetres", "is missing",
                                "vessel.draughtInMetres", "is missing",
                                "arrival", "is missing",
                                "stay", "is missing",
                                "need[1]",
                                        "\"beer\" is none of \"water\", \"shore-power\", \"pilot\"; wanted is a value of type Need"));
        assertThat(wrong(TIDE, "readTide", "mark=x"))
                .containsEntry("station", "is missing")
                .containsEntry("mark", "\"x\" is no int; wanted is a value of type int");
        assertThat(findings.sorted()).isEmpty();
    }

    @Test
    void aValueWithAttributesGoesByItsName() {
        for (String[] values : new String[][] {
            {"callSign=LB4F", "amount=41.50", "amount.@currency=LBD"},
            {"callSign=LB4F", "amount.@currency=LBD", "amount=41.50"},
            {"callSign=LB4F", "amount.#text=41.50", "amount.@currency=LBD"}
        }) {
            assertThat(wrong(DESK, "payDues", values)).isEmpty();
        }
        assertThat(wrong(
                        DESK,
                        "payDues",
                        "callSign=LB4F",
                        "amount=x",
                        "amount.@currency=LBD",
                        "#header.pass.holder=Ada"))
                .containsOnlyKeys("amount", "#header.pass.validUntil");
        assertThat(findings.sorted()).isEmpty();
    }

    @Test
    void aNameMayHaveItsNamespace() {
        assertThat(wrong(DESK, "castOff", "{http://lanternbay.example/harbour/desk}berthNumber=7"))
                .isEmpty();
        assertThat(findings.sorted()).isEmpty();
    }

    @Test
    void aMessageThatIsOneValueNeedsNoName(@TempDir Path folder) throws Exception {
        Path bell = folder.resolve("bell.wsdl");
        Files.writeString(bell, """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:s="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:b="urn:bell" xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:bell">
                  <types><xs:schema targetNamespace="urn:bell"><xs:element name="strokes" type="xs:int"/></xs:schema></types>
                  <message name="ring"><part name="body" element="b:strokes"/></message>
                  <portType name="Bell"><operation name="ring"><input message="b:ring"/></operation></portType>
                  <binding name="BellSoap" type="b:Bell"><s:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                    <operation name="ring"><s:operation soapAction=""/><input><s:body use="literal"/></input></operation>
                  </binding>
                  <service name="Tower"><port name="Bell" binding="b:BellSoap"><s:address location="http://localhost/bell"/></port></service>
                </definitions>
                """);
        assertThat(wrong(bell.toString(), "ring", "=5")).isEmpty();
        assertThat(wrong(bell.toString(), "ring", "=five")).containsOnlyKeys("");
        CalledOperation called = operation(bell.toString(), "ring");
        assertThat(TakenValues.of(called.request(), check.vocabulary()))
                .containsExactly(new TakenValues.Taken("", true, "a whole number"));
        assertThat(findings.sorted()).isEmpty();
    }
}
