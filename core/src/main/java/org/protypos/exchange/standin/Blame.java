package org.protypos.exchange.standin;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.soap.SoapFault;

/**
 * Whom a fault blames.
 *
 * @param isSenders whether it is the request that is at fault
 * @param codes what says it more precisely, the widest first
 */
record Blame(boolean isSenders, List<QName> codes) {
    /** What the name of a code is made of; other text is no name, whatever faults have in its place. */
    static final String NAME = "[^{}:\\s]+";

    static final String SENDER = "sender";
    static final String RECEIVER = "receiver";

    /** What a fault says when nobody says more: it is the service. */
    static final Blame SERVICE = new Blame(false, List.of());

    /** Whom the fault that an envelope carries blames. */
    static Blame of(MessageElement envelope) {
        SoapFault fault = new SoapFault(EnvelopeParts.codes(envelope), "", null, List.of(), "");
        return new Blame(
                fault.isSenders(),
                fault.ownCodes().stream()
                        .filter(code -> code.getLocalPart().matches(NAME))
                        .toList());
    }

    /** How a file of answers says it; empty when there is nothing to say. */
    List<String> words() {
        List<String> words = new ArrayList<>();
        if (isSenders) {
            words.add(SENDER);
        }
        codes.forEach(code -> words.add(code.toString()));
        return words;
    }
}
