package org.protypos.exchange.standin;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.check.CarriedMessage;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.soap.SoapEndpoint;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.PolicyAssertion;

/** A port that speaks SOAP and that a stand-in plays. */
final class PlayedPort extends SoapEndpoint {
    private final List<CalledOperation> operations;
    private final Player player;
    private final Witness witness;

    PlayedPort(List<CalledOperation> operations, Player player, Witness witness) {
        this.operations = operations;
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
        return operations.get(0).portType().name().toString();
    }

    @Override
    protected boolean isEncoded() {
        return operations.stream().anyMatch(called -> called.request().isEncoded());
    }

    @Override
    protected boolean isOptimized() {
        return operations.get(0).asksFor(PolicyAssertion::isMtom);
    }

    /** By what stands first in the body, then by the action. */
    @Override
    protected SoapMessage input(String namespace, String name, String action) {
        List<CalledOperation> fitting = operations.stream()
                .filter(called -> first(called).equals(new QName(namespace, name)))
                .toList();
        return fitting.stream()
                .filter(called -> isMeant(called, action))
                .findFirst()
                .or(() -> fitting.stream().findFirst())
                .or(() -> operations.stream()
                        .filter(called -> !action.isEmpty() && isMeant(called, action))
                        .findFirst())
                .map(player::request)
                .orElse(null);
    }

    private static boolean isMeant(CalledOperation called, String action) {
        return called.bound().soapAction().equals(action)
                || action.equals(called.request().action());
    }

    private static QName first(CalledOperation called) {
        CarriedMessage request = called.request();
        if (request.isWrapped()) {
            return request.wrapper();
        }
        List<Message.Part> parts = request.parts();
        return parts.isEmpty()
                ? new QName("")
                : parts.get(0).element() != null
                        ? parts.get(0).element()
                        : new QName(parts.get(0).name());
    }

    @Override
    protected SoapMessage perform(SoapMessage came) throws DeclaredFault {
        PlayedMessage request = (PlayedMessage) came;
        Player.Outcome outcome = player.outcome(request, witness.headers(), witness.text());
        witness.outcome(request.called(), outcome);
        return outcome.answer();
    }
}
