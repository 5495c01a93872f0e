package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.sample.Samples;
import org.protypos.runtime.attach.Attachment;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Surface;
import org.protypos.target.java.JavaSurface;
import org.protypos.testing.Plans;
import org.protypos.testing.RandomEdit;
import org.protypos.testing.RandomWsdlEdit;

/** Random edits of how contracts carry their messages: clients of the one meet a stand-in of the other, and what fails was told. */
class CarriedEvidenceTest {
    private static final int EDITS = 60;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/papers/papers.wsdl",
                "../examples/tables/tables.wsdl",
                "src/test/resources/carried/carried.wsdl",
                "src/test/resources/wire/crossing.wsdl",
                "src/test/resources/encoded/dues.wsdl"
            })
    void whatFailsWasTold(Path original, @TempDir Path folder) throws Exception {
        Random chance = new Random(20270509);
        Contract before = read(original);
        List<String> missed = new ArrayList<>();
        int failing = 0;
        int judged = 0;
        for (int i = 0; i < EDITS; i++) {
            RandomEdit.Edited edit = RandomWsdlEdit.of(Files.readString(original), chance);
            Path edited = Files.createDirectories(folder.resolve("e" + i));
            try (var beside = Files.list(original.getParent())) {
                for (Path file :
                        beside.filter(one -> one.toString().endsWith(".xsd")).toList()) {
                    Files.copy(file, edited.resolve(file.getFileName()));
                }
            }
            Contract after = read(Files.writeString(edited.resolve(original.getFileName()), edit.document()));
            if (!after.isSound()) {
                continue;
            }
            judged++;
            Set<Reader> told = EnumSet.noneOf(Reader.class);
            Comparison.of(before, after, surface(before), surface(after))
                    .differences()
                    .forEach(difference -> told.addAll(difference.breaks()));
            for (Reader reader : List.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS)) {
                String failure = reader == Reader.OLD_CLIENTS ? failure(before, after) : failure(after, before);
                failing += failure == null ? 0 : 1;
                if (failure != null && !told.contains(reader)) {
                    missed.add(reader + " " + edit.told() + ": " + failure);
                }
            }
        }
        assertThat(missed).isEmpty();
        assertThat(judged).isGreaterThan(EDITS / 3);
        assertThat(failing).isPositive();
    }

    private static Contract read(Path document) {
        return ContractReader.read(DocumentGatherer.gather(List.of(document.toString()), null));
    }

    private static Surface surface(Contract contract) {
        return JavaSurface.of(Plans.of(contract));
    }

    /** What goes wrong when clients of a contract call the operations that a server of the other has too, or null. */
    private static String failure(Contract client, Contract server) throws Exception {
        ContractCheck check = new ContractCheck(client);
        List<StandIn.Seen> came = new ArrayList<>();
        InetSocketAddress here = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        try (StandIn standIn = StandIn.serve(server, here, Answers.NONE, came::add)) {
            for (CalledOperation called : CalledOperation.of(client)) {
                CalledOperation there = CalledOperation.of(server).stream()
                        .filter(one -> one.key().equals(called.key())
                                && one.port().name().equals(called.port().name()))
                        .findFirst()
                        .orElse(null);
                if (there == null) {
                    continue;
                }
                String address = standIn.addresses().get(there.port());
                for (boolean full : new boolean[] {false, true}) {
                    came.clear();
                    String failure = call(client, called, check, address, full);
                    if (failure != null || !came.stream().allMatch(StandIn.Seen::isSound)) {
                        return called.key() + " " + (failure == null ? came : failure);
                    }
                }
            }
        }
        return null;
    }

    private static String call(
            Contract client, CalledOperation called, ContractCheck check, String address, boolean full)
            throws Exception {
        Map<String, Attachment> attached = new LinkedHashMap<>();
        called.request()
                .attachments()
                .forEach(part -> attached.put(
                        part.name(), Attachment.of("chart".getBytes(StandardCharsets.UTF_8), "image/png")));
        String request = new Samples(client, check.vocabulary(), full).message(called.request());
        Caller.Answer answer = new Caller(called, check, with -> with.address(address)).call(request, attached);
        if (answer.failure() != null || answer.fault() != null) {
            return answer.failure() + " " + answer.text();
        }
        return answer.root() == null
                ? null
                : new OperationCheck(called.carried(), check)
                        .answer(answer.root()).deviations().stream()
                                .map(Object::toString)
                                .findFirst()
                                .orElse(null);
    }
}
