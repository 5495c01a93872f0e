package org.protypos.exchange.standin;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.protypos.contract.Publication;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.soap.ContractDocuments;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.soap.HttpEndpoint;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlTypes;

/** A port that speaks plain HTTP and that a stand-in plays. */
final class PlayedHttpPort extends HttpEndpoint {
    private final List<CalledOperation> operations;
    private final Player player;
    private final Witness witness;
    private final String[] locations;

    PlayedHttpPort(List<CalledOperation> operations, Player player, Witness witness) {
        this.operations = operations;
        this.player = player;
        this.witness = witness;
        this.locations =
                operations.stream().map(called -> called.carried().target()).toArray(String[]::new);
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
    protected String[] locations() {
        return locations;
    }

    @Override
    protected SoapMessage input(int operation) {
        return player.request(operations.get(operation));
    }

    @Override
    protected String[] verbs() {
        return new String[] {operations.get(0).binding().verb()};
    }

    @Override
    protected SoapMessage perform(SoapMessage came) throws DeclaredFault {
        PlayedMessage request = (PlayedMessage) came;
        List<MessageElement> body = request.body();
        Outcome outcome = player.outcome(request.called(), body.isEmpty() ? null : body.get(0));
        String answer =
                text(outcome.message() == null ? List.of() : outcome.message().body());
        witness.plain(request.called(), outcome, text(body), answer);
        SoapMessage sent = outcome.answer();
        return outcome.broken() == null
                ? sent
                : new Broken(outcome.broken().applied(answer.getBytes(StandardCharsets.UTF_8)));
    }

    private static String text(List<MessageElement> body) {
        return body.isEmpty() ? "" : MessageText.of(body.get(0));
    }

    /** An answer that is broken on purpose. */
    private static final class Broken extends SoapMessage {
        private final byte[] content;

        Broken(byte[] content) {
            this.content = content;
        }

        @Override
        protected Form form() {
            return Form.BYTES;
        }

        @Override
        protected void writeAttachments(OutgoingPackage out) {
            out.attach("broken", Attachment.of(content, "text/xml"));
        }
    }
}
