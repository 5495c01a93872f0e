package org.protypos.cli.drafting;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.ToolchainFolder;

/** What was drafted, read as others will read it: before it is written to where it belongs. */
final class DraftedContract implements AutoCloseable {
    private final Path folder;
    private final Contract contract;

    private DraftedContract(Path folder, Contract contract) {
        this.folder = folder;
        this.contract = contract;
    }

    static DraftedContract read(Map<String, String> texts) throws IOException {
        Path folder = Files.createTempDirectory("draft");
        for (Map.Entry<String, String> text : texts.entrySet()) {
            Files.writeString(folder.resolve(text.getKey()), text.getValue());
        }
        List<String> first = texts.keySet().stream()
                .filter(name -> name.endsWith(".wsdl"))
                .findFirst()
                .map(List::of)
                .orElse(List.copyOf(texts.keySet()));
        return new DraftedContract(
                folder,
                ContractReader.read(DocumentGatherer.gather(
                        first.stream()
                                .map(name -> folder.resolve(name).toString())
                                .toList(),
                        null)));
    }

    Contract contract() {
        return contract;
    }

    /** What is to be said of it, with plain names of documents. */
    List<Finding> findings() {
        Map<String, SourceText> plain = new HashMap<>();
        return contract.findings().stream()
                .map(finding -> finding.place() == null
                        ? finding
                        : new Finding(
                                finding.code(),
                                finding.severity(),
                                plain.computeIfAbsent(
                                                finding.place().document(),
                                                name -> new SourceText(
                                                        name.substring(name.lastIndexOf('/') + 1),
                                                        finding.place().source().text()))
                                        .at(finding.place().offset()),
                                finding.message(),
                                finding.cure()))
                .toList();
    }

    @Override
    public void close() throws IOException {
        ToolchainFolder.delete(folder);
    }
}
