package org.protypos.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.wire.WireInterface;
import org.protypos.wire.WireOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** One of two contracts, as far as messages go. */
final class WireSide {
    private final Contract contract;
    private final ContractCheck check;
    private final Samples samples;
    private Samples fullSamples;
    private final Inventory inventory;
    private final UnaryOperator<String> words;

    /**
     * Takes a contract.
     *
     * @param inventory its components by the designators of the old contract
     * @param words gives for a designator of the contract that of the old one
     */
    WireSide(Contract contract, Inventory inventory, UnaryOperator<String> words) {
        this.contract = contract;
        this.check = new ContractCheck(contract);
        this.samples = new Samples(contract, check.vocabulary(), false);
        this.inventory = inventory;
        this.words = words;
    }

    /** The same contract once more, with nothing found out yet. */
    WireSide again() {
        return new WireSide(contract, inventory, words);
    }

    Vocabulary vocabulary() {
        return check.vocabulary();
    }

    Samples samples() {
        return samples;
    }

    /** Makes messages with all that is optional. */
    Samples fullSamples() {
        if (fullSamples == null) {
            fullSamples = new Samples(contract, check.vocabulary(), true);
        }
        return fullSamples;
    }

    Inventory inventory() {
        return inventory;
    }

    /** A designator in the words of the old contract. */
    String old(String designator) {
        return words.apply(designator);
    }

    /** Whether it describes messages of operations, rather than elements alone. */
    boolean hasOperations() {
        return contract.wsdl().portTypes().values().stream()
                .anyMatch(portType -> !portType.operations().isEmpty());
    }

    /**
     * An operation as bindings carry it.
     *
     * @param designator the designator of the old contract
     */
    record Carried(String designator, WireOperation operation) {}

    /** The operations that bindings carry, by their designators and by what sets them apart where one is carried in several ways. */
    Map<String, Carried> operations() {
        Map<String, Carried> operations = new LinkedHashMap<>();
        for (PortType portType : contract.wsdl().portTypes().values()) {
            for (WireInterface type : check.wire().interfaces(portType)) {
                for (WireOperation carried : type.made().operations()) {
                    String designator = old(
                            Designators.operation(portType, carried.operation()).designator());
                    operations.put(designator + way(type), new Carried(designator, carried));
                }
            }
        }
        return operations;
    }

    private static String way(WireInterface type) {
        String speaks = type.isSoap() ? "" : " over HTTP";
        return type.standing() == WireInterface.Standing.OTHERWISE
                ? speaks + " by " + type.made().binding().name().getLocalPart()
                : speaks;
    }

    /** The operations that no binding carries, likewise: what they exchange is known, though not how. */
    Map<String, Operation> unbound() {
        Map<String, Operation> operations = new LinkedHashMap<>();
        for (PortType portType : contract.wsdl().portTypes().values()) {
            boolean bound = contract.wsdl().bindings().values().stream()
                    .anyMatch(binding -> binding.portType().equals(portType.name()));
            for (Operation operation : bound ? List.<Operation>of() : portType.operations()) {
                operations.put(old(Designators.operation(portType, operation).designator()), operation);
            }
        }
        return operations;
    }

    /** The parts of a message of an operation; none when there is no such message. */
    List<Message.Part> parts(Operation.Use use) {
        Message message = use == null ? null : contract.wsdl().messages().get(use.message());
        return message == null ? List.of() : message.parts();
    }

    /** What is wrong with a message. */
    List<Deviation> deviations(MessageElement message) {
        return check.recognize(message).checked().deviations();
    }

    /** A type with all that it is made of: bases, items, members; each may say what makes a difference. */
    List<SchemaType> chain(SchemaType type) {
        List<SchemaType> chain = new ArrayList<>();
        chain(type, chain);
        return chain;
    }

    private void chain(SchemaType type, List<SchemaType> to) {
        if (type == null || to.contains(type)) {
            return;
        }
        to.add(type);
        if (type instanceof SimpleType simple) {
            chain(simple.base(), to);
            simple.members().forEach(member -> chain(member, to));
        } else if (type instanceof ComplexType complex) {
            if (complex.content() instanceof ComplexType.SimpleContent content) {
                chain(content.type(), to);
            }
            chain(complex.base(), to);
        }
    }

    private void chain(TypeReference reference, List<SchemaType> to) {
        if (reference != null) {
            chain(vocabulary().schema().resolve(reference), to);
        }
    }

    /** A global element, or null. */
    ElementDeclaration element(QName name) {
        return vocabulary().element(name);
    }
}
