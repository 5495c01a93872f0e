package org.protypos.exchange.standin;

import java.util.List;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.contract.Publication;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.soap.SoapEndpoint;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wire.Need;
import org.protypos.wire.Recognition;

/** A port that speaks SOAP and that a stand-in plays. */
final class PlayedPort extends SoapEndpoint {
    private final List<CalledOperation> operations;
    private final List<Recognition> recognitions;
    private final Player player;
    private final Witness witness;

    PlayedPort(List<CalledOperation> operations, Player player, Witness witness) {
        this.operations = operations;
        this.recognitions = player.wire().recognitions(operations.get(0).at().carried());
        this.player = player;
        this.witness = witness;
        guarded(witness);
    }

    @Override
    protected XmlTypes types() {
        return XmlTypes.NONE;
    }

    @Override
    protected ContractDocuments documents() {
        return player.documents();
    }

    @Override
    protected String portType() {
        return Publication.mark(operations.get(0).port());
    }

    @Override
    protected boolean isEncoded() {
        return operations.stream().anyMatch(called -> called.request().isEncoded());
    }

    @Override
    protected boolean isAddressed() {
        return operations.get(0).at().addressed() == Need.REQUIRED;
    }

    @Override
    protected boolean isOptimized() {
        return operations.get(0).at().optimized() == Need.REQUIRED;
    }

    @Override
    protected SoapMessage input(String namespace, String name, String action) {
        return input(namespace, name, action, List::of);
    }

    @Override
    protected SoapMessage input(String namespace, String name, String action, Supplier<List<String>> parts) {
        CalledOperation meant =
                CalledOperation.meant(operations, recognitions, new QName(namespace, name), action, parts);
        return meant == null ? null : PlayedMessage.passedOver(meant);
    }

    @Override
    protected SoapMessage perform(SoapMessage came) throws DeclaredFault {
        PlayedMessage request = (PlayedMessage) came;
        Outcome outcome = player.outcome(request.called(), witness.tree(player, request));
        witness.outcome(request.called(), outcome);
        return outcome.answer();
    }
}
