package org.protypos.wire;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;

/**
 * What is decided on the messages of a contract, as text beside the expected one. Write that anew with {@code -Dexpected.write=true}
 * and read it.
 */
class WireTest {
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
