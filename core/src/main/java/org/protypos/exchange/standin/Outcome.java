package org.protypos.exchange.standin;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.PlayedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.runtime.soap.CallRefusedException;
import org.protypos.runtime.soap.DeclaredFault;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlOutput;

/**
 * What is answered.
 *
 * @param message the answer; null when there is none
 * @param fault the fault to answer with; null when it is none
 * @param refusal why the request is refused; null when it is not
 * @param broken how the answer is to be broken, or null
 * @param deviations where the request is not what the contract says
 */
public record Outcome(
        PlayedMessage message, DeclaredFault fault, String refusal, Breakage broken, List<Deviation> deviations) {
    /**
     * An answer.
     *
     * @param message the answer, or null when there is none
     */
    public static Outcome of(PlayedMessage message) {
        return new Outcome(message, null, null, null, List.of());
    }

    /** A fault of the service with what stands in its detail. */
    public static Outcome fault(String reason, List<XmlElement<?>> details) {
        return fault(reason, details, Blame.SERVICE);
    }

    static Outcome fault(String reason, List<XmlElement<?>> details, Blame blame) {
        DeclaredFault fault = new DeclaredFault(reason) {
            private static final long serialVersionUID = 1L;

            @Override
            protected void writeDetail(XmlOutput out) {
                details.forEach(out::element);
            }
        };
        QName[] codes = blame.codes().toArray(QName[]::new);
        DeclaredFault blaming =
                blame.isSenders() ? DeclaredFault.ofSender(fault, codes) : DeclaredFault.ofReceiver(fault, codes);
        return new Outcome(null, blaming, null, null, List.of());
    }

    static Outcome refused(String why, List<Deviation> deviations) {
        return new Outcome(null, null, why, null, deviations);
    }

    /** The same, broken on purpose. */
    Outcome broken(Breakage how) {
        return new Outcome(message, fault, refusal, how, deviations);
    }

    /**
     * The message to answer with, or null.
     *
     * @throws CallRefusedException when the request is refused
     * @throws DeclaredFault when a fault is answered
     */
    PlayedMessage answer() throws DeclaredFault {
        if (refusal != null) {
            throw new CallRefusedException(refusal);
        }
        if (fault != null) {
            throw fault;
        }
        return message;
    }
}
