package org.protypos.proof;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.InfosetComparison;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.check.Recognized;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.Xml;
import org.protypos.target.LoweredApi;
import org.protypos.target.Toolchain;

/**
 * Shows whether messages survive the generated types: compiles them, reads each message, writes it again and compares.
 * The door of this package.
 */
public final class Proof {
    private final ContractCheck check;
    private final LoweredApi code;

    /** Whether the contract has messages that do not tell what they are: only those have to be looked at before they are proved. */
    private final boolean untold;

    private final List<MessageElement> deviating = new ArrayList<>();

    /** Opens a message. */
    public interface Message {
        /** What to call it. */
        String name();

        /** Its bytes. */
        byte[] bytes() throws IOException;
    }

    /**
     * Prepares for a contract.
     *
     * @param contract a sound contract
     * @param code its code
     */
    public Proof(Contract contract, LoweredApi code) {
        this.check = new ContractCheck(contract);
        this.code = code;
        this.untold = check.wire().bindings().stream()
                .flatMap(binding -> binding.operations().stream())
                .flatMap(operation -> operation.messages().stream())
                .anyMatch(SelfTelling::isNeeded);
    }

    /**
     * Puts messages to the proof.
     *
     * @throws IOException when a message cannot be read from where it lies, or the types cannot be compiled and run
     */
    public List<ProofResult> of(List<? extends Message> messages) throws IOException {
        List<ProofResult> results = new ArrayList<>();
        try (Toolchain.Types types = code.compiled(namesIn(messages))) {
            for (Message message : messages) {
                results.add(prove(types, message.name(), message.bytes()));
            }
        }
        return results;
    }

    /** The messages put to the proof so far that are well-formed and not what the contract says. */
    public List<MessageElement> deviating() {
        return List.copyOf(deviating);
    }

    /** The names of all elements in the messages, and of the types that they name: only those need code. */
    private Set<QName> namesIn(List<? extends Message> messages) throws IOException {
        Set<QName> names = new HashSet<>();
        for (Message message : messages) {
            MessageElement root = MessageReader.read(message.name(), message.bytes(), new Findings());
            if (root != null) {
                Set<QName> own = new HashSet<>();
                collect(root, own);
                SelfTelling told = untold ? told(root, check.recognize(root)) : null;
                if (told != null) {
                    collect(told.message(), own);
                }
                if (check.isSent(root)) {
                    // Envelopes carry the messages, and have no types of the contract, though it may declare them.
                    own.removeIf(name -> EnvelopeParts.isOfSoap(name.getNamespaceURI()));
                }
                names.addAll(own);
            }
        }
        return names;
    }

    private static void collect(MessageElement element, Set<QName> names) {
        names.add(element.name());
        String type = element.attribute(Xml.XSI, "type");
        QName stated = type == null ? null : element.resolve(type.strip());
        if (stated != null) {
            names.add(stated);
        }
        element.children().forEach(child -> collect(child, names));
    }

    private ProofResult prove(Toolchain.Types types, String name, byte[] bytes) throws IOException {
        Findings findings = new Findings();
        MessageElement before = MessageReader.read(name, bytes, findings);
        if (before == null) {
            return new ProofResult(
                    name,
                    ProofResult.Status.INVALID,
                    findings.sorted().stream().map(Proof::deviation).toList());
        }
        Recognized recognized = check.recognize(before);
        CheckedMessage checked = recognized.checked();
        if (!checked.deviations().isEmpty()) {
            deviating.add(before);
            return new ProofResult(name, ProofResult.Status.INVALID, checked.deviations());
        }
        if (!recognized.byElements() && !recognized.carried().isDocument()) {
            return new ProofResult(name, ProofResult.Status.INVALID, List.of(noDocument(before, recognized)));
        }
        SelfTelling told = told(before, recognized);
        byte[] in = told == null ? bytes : MessageText.compact(told.message()).getBytes(StandardCharsets.UTF_8);
        List<Deviation> differences = through(
                types,
                name,
                in,
                told == null ? null : before.place(),
                before,
                after -> told == null
                        ? InfosetComparison.compare(before, after, check.vocabulary(), checked.types())
                        : told.compared(after, new OperationCheck(recognized.operation(), check)));
        return new ProofResult(
                name,
                differences.isEmpty() ? ProofResult.Status.SURVIVED : ProofResult.Status.FAILED,
                List.copyOf(differences));
    }

    /** The message as it tells itself what it is, or null when it does already or is no document. */
    private SelfTelling told(MessageElement message, Recognized recognized) {
        return recognized.byElements() || !recognized.carried().isDocument()
                ? null
                : new SelfTelling(message, recognized.carried(), check.vocabulary());
    }

    private static Deviation noDocument(MessageElement message, Recognized recognized) {
        return new Deviation(
                "no-document",
                message.place(),
                message.path(),
                "messages of " + recognized.operation().name()
                        + " are no documents on the wire: their parts travel one by one, and no type holds them",
                "a message in XML",
                null);
    }

    private static Deviation deviation(Finding finding) {
        return new Deviation(finding.code(), finding.place(), "", finding.message(), finding.cure(), null);
    }

    /**
     * What became of a message.
     *
     * @param start where all that is refused is told, or null when the bytes are those of the message itself
     */
    private static List<Deviation> through(
            Toolchain.Types types,
            String name,
            byte[] bytes,
            Place start,
            MessageElement before,
            Function<MessageElement, List<Deviation>> compared)
            throws IOException {
        byte[] written;
        try {
            written = types.again(bytes);
        } catch (Toolchain.Refused e) {
            return List.of(new Deviation(
                    "not-read",
                    start != null ? start : before.place().source().at(e.line(), e.column()),
                    e.path(),
                    "the generated types refuse it: " + e.getMessage(),
                    "",
                    null));
        }
        Findings findings = new Findings();
        MessageElement after = MessageReader.read(name + " as written again", written, findings);
        return after == null ? findings.sorted().stream().map(Proof::deviation).toList() : compared.apply(after);
    }
}
