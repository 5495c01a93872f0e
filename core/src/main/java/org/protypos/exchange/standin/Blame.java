package org.protypos.exchange.standin;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
    /** A code with its namespace; other text is none, whatever faults have in its place. */
    private static final Pattern CODE = Pattern.compile("(?:\\{([^{}]*)\\})?([^{}:\\s]+)");

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
                        .filter(code -> code(code.toString()) != null)
                        .toList());
    }

    /** The code that a word of a file of answers is, or null when it is none. */
    static QName code(String word) {
        Matcher code = CODE.matcher(word);
        return code.matches() ? new QName(code.group(1), code.group(2)) : null;
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
