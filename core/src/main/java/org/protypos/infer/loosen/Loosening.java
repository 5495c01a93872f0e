package org.protypos.infer.loosen;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;

/**
 * Loosens schemas where documents ask for it, in their own text, until they accept every one. Documents are read one after the
 * other, again in each round, so that there may be any number of them.
 */
public final class Loosening {
    private static final int MOST_ROUNDS = 100;
    private static final int MOST_TOLD = 20;

    private final Findings findings;

    /** A document that is read in each round. */
    public interface Source {
        /** How to call it in findings. */
        String name();

        /** Its bytes. */
        byte[] bytes() throws IOException;
    }

    /**
     * Begins.
     *
     * @param findings is told what no loosening would do for
     */
    public Loosening(Findings findings) {
        this.findings = findings;
    }

    /**
     * Loosens.
     *
     * @param schemas the files of the schemas, in a folder where they may be written
     * @return the contract as it has become; with findings that are errors it does not accept every document
     * @throws IOException when a file cannot be read or written
     */
    public Contract loosen(List<Path> schemas, List<? extends Source> documents) throws IOException {
        for (int round = 0; ; round++) {
            Contract contract = ContractReader.read(
                    DocumentGatherer.gather(schemas.stream().map(Path::toString).toList(), null));
            if (!contract.isSound()) {
                findings.addAll(contract.findings());
                return contract;
            }
            SchemaEdits edits = new SchemaEdits();
            SchemaLoosening loosening = new SchemaLoosening(contract, edits);
            Set<Deviation> hopeless = new LinkedHashSet<>();
            Set<Deviation> left = round(contract, documents, loosening, hopeless);
            boolean fits = left.isEmpty();
            if (findings.hasErrors() || fits) {
                if (fits && round > 0) {
                    judge(schemas);
                }
                return contract;
            }
            loosening.finish();
            if (edits.isEmpty() || round == MOST_ROUNDS) {
                // What each can be helped with need not help all of them together.
                (hopeless.isEmpty() ? left : hopeless).forEach(this::tell);
                return contract;
            }
            edits.write(findings);
            if (findings.hasErrors()) {
                return contract;
            }
        }
    }

    /** What documents deviate in, the first of it; what cannot be helped goes to what is hopeless. */
    private Set<Deviation> round(
            Contract contract, List<? extends Source> documents, SchemaLoosening loosening, Set<Deviation> hopeless)
            throws IOException {
        ContractCheck check = new ContractCheck(contract);
        Set<Deviation> left = new LinkedHashSet<>();
        for (Source document : documents) {
            MessageElement root = MessageReader.read(document.name(), document.bytes(), findings);
            if (root == null) {
                continue;
            }
            CheckedMessage checked = check.check(root);
            for (Deviation deviation : checked.deviations()) {
                boolean helped = loosening.loosen(deviation, checked, root);
                if (!helped && hopeless.size() < MOST_TOLD) {
                    hopeless.add(deviation);
                }
                if (left.size() < MOST_TOLD) {
                    left.add(deviation);
                }
            }
        }
        return left;
    }

    /** What was put together may be valid nowhere, for reasons that only a whole schema shows: then it is not handed out. */
    private void judge(List<Path> schemas) {
        String complaint = SchemaJudge.complaint(schemas);
        if (complaint != null) {
            findings.error(
                    "not-loosened",
                    null,
                    "what the documents ask for does not go together: " + complaint,
                    "change the schema by hand, or leave documents out");
        }
    }

    private void tell(Deviation deviation) {
        findings.error(
                "not-loosened",
                deviation.place(),
                deviation.came(),
                "change the schema by hand (" + deviation.expected() + "), or leave that document out");
    }
}
