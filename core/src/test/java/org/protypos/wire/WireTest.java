package org.protypos.wire;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.source.DocumentGatherer;

/**
 * What is decided on the messages of a contract, as text beside the expected one. Write that anew with {@code -Dexpected.write=true}
 * and read it.
 */
class WireTest {
    /** A queue that comes first is not where a client turns to, nor what is called. */
    @ParameterizedTest
    @CsvSource({
        "http://www.w3.org/2010/soapjms/, http://schemas.xmlsoap.org/soap/http, Second",
        "http://pier.example/mail, http://www.w3.org/2003/05/soap/bindings/HTTP/, Second",
        "http://schemas.xmlsoap.org/soap/http/, urn:pigeon, First",
        "urn:pigeon, urn:raven, First",
        "HTTPS, http://schemas.xmlsoap.org/soap/http, First"
    })
    void theDefaultPortIsOneOverHttp(String first, String second, String wanted, @TempDir Path folder)
            throws IOException {
        Path file = Files.writeString(folder.resolve("gauge.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:g="urn:gauge" targetNamespace="urn:gauge">
                  <message name="Read"/>
                  <portType name="Gauge"><operation name="read"><input message="g:Read"/></operation></portType>
                  <binding name="A" type="g:Gauge"><soap:binding style="rpc" transport="%s"/>
                    <operation name="read"><input><soap:body use="literal"/></input></operation></binding>
                  <binding name="B" type="g:Gauge"><soap:binding style="rpc" transport="%s"/>
                    <operation name="read"><input><soap:body use="literal"/></input></operation></binding>
                  <service name="Gauges">
                    <port name="First" binding="g:A"><soap:address location="urn:one"/></port>
                    <port name="Second" binding="g:B"><soap:address location="urn:two"/></port>
                  </service>
                </definitions>
                """.formatted(first, second));
        Wire wire = Wire.of(ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null)));
        WirePort standard =
                wire.defaultPort(wire.interfaceOf(wire.ports().get(0).carried()));
        assertThat(standard.port().name()).isEqualTo(wanted);
        assertThat(CalledOperation.of(wire).get(0).port()).isSameAs(standard.port());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "src/test/resources/wire/lock.wsdl",
                "src/test/resources/wire/crossing.wsdl",
                "src/test/resources/wire/ways.wsdl",
                "src/test/resources/carried/carried.wsdl",
                "src/test/resources/bodies/bodies.wsdl",
                "../examples/tables/tables.wsdl",
                "../examples/papers/papers.wsdl"
            })
    void theFormOfEachMessageIsDecided(String path) throws IOException {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(path), null));
        assertThat(contract.isSound()).isTrue();
        StringBuilder told = new StringBuilder();
        Wire wire = Wire.of(contract);
        for (WirePort port : wire.ports()) {
            told.append("port ").append(port.port().name());
            told.append(", optimized ")
                    .append(port.optimized())
                    .append(", addressed ")
                    .append(port.addressed());
            told.append('\n');
            List<Recognition> known = wire.recognitions(port.carried());
            for (int i = 0; i < known.size(); i++) {
                WireOperation operation = port.carried().operations().get(i);
                told.append("  ")
                        .append(operation.name())
                        .append(" at \"")
                        .append(operation.target())
                        .append("\"\n");
                if (port.carried().isSoap()) {
                    told.append("    known by ")
                            .append(known.get(i).by())
                            .append(' ')
                            .append(known.get(i).beginnings());
                    told.append(known.get(i).actions())
                            .append(known.get(i).parts())
                            .append('\n');
                }
                message("    in  ", operation.request(), told);
                message("    out ", operation.answer(), told);
                operation.faults().forEach(fault -> told.append("    fault ")
                        .append(parts(fault.details()))
                        .append('\n'));
            }
        }
        Path expected = Path.of("src/test/resources/wire", path.replaceFirst(".*/(\\w+)\\.wsdl", "$1.txt"));
        if (Boolean.getBoolean("expected.write")) {
            Files.writeString(expected, told);
        }
        assertThat(told.toString()).isEqualTo(Files.readString(expected));
    }

    private static void message(String before, WireMessage message, StringBuilder told) {
        if (message == null) {
            return;
        }
        told.append(before).append(message.form()).append(' ').append(message.arrangement());
        told.append(message.isEncoded() ? " encoded" : "")
                .append(' ')
                .append(message.wrapper() == null ? "" : message.wrapper());
        told.append(' ').append(parts(message.parts()));
        told.append(message.blocks().isEmpty() ? "" : " header " + parts(message.blocks()));
        told.append(message.attachments().isEmpty() ? "" : " beside " + parts(message.attachments()));
        told.append(message.action() == null ? "" : " action " + message.action())
                .append('\n');
    }

    private static String parts(List<WirePart> parts) {
        return parts.stream()
                .map(part -> part.name() + ": " + part.element() + " of "
                        + (part.type().name() == null
                                ? "a type of its own"
                                : part.type().name().getLocalPart())
                        + (part.mediaType().isEmpty() ? "" : " as " + part.mediaType())
                        + (part.beginnings().isEmpty() ? "" : " beginning with " + part.beginnings()))
                .collect(Collectors.joining(", ", "(", ")"));
    }

    /** A block that one binding has alone is there for all who call through the interface. */
    @Test
    void headerBlocksOfAllBindingsAreServed() {
        Contract contract =
                ContractReader.read(DocumentGatherer.gather(List.of("src/test/resources/wire/lock.wsdl"), null));
        Wire wire = Wire.of(contract);
        WireBinding made = wire.interfaces(
                        contract.wsdl().portTypes().values().iterator().next())
                .get(0)
                .made();
        assertThat(made.binding().name().getLocalPart()).isEqualTo("LockSoap");
        assertThat(made.operations().get(0).answer().blocks())
                .extracting(WirePart::name)
                .containsExactly("token");
        assertThat(wire.binding(made.binding().name())
                        .operations()
                        .get(0)
                        .answer()
                        .blocks())
                .isEmpty();
    }
}
