package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.protypos.runtime.attach.MimePackage;

/**
 * Reads a message that breaks its contract: again and again from the start, each time with one more kind of element put
 * off that stood in the way, until what can be understood is. What deviates is kept for a report.
 */
final class Lenience {
    /** So many kinds of elements may stand in the way; whatever else does is passed over for good. */
    private static final int MOST_ROUNDS = 100;

    private final Set<String> putOff = new HashSet<>();
    private List<XmlFormatException> passedOver = new ArrayList<>();
    private MessageReplay replay;

    /** An element stands in the way: the reading starts anew. */
    private static final class Again extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Again() {
            super(null, null, false, false);
        }
    }

    <T> T read(
            MessageReplay.Message message,
            XmlLimits limits,
            XmlTypes types,
            MimePackage parts,
            Function<XmlInput, T> reader) {
        while (true) {
            try {
                passedOver = new ArrayList<>();
                replay = new MessageReplay(message, putOff);
                XmlInput in = new XmlInput(new XmlCursor(replay, limits, this), types);
                in.setParts(parts);
                return reader.apply(in);
            } catch (Again e) {
                // One more element is known to be put off now.
            }
        }
    }

    List<XmlFormatException> passedOver() {
        return passedOver;
    }

    void passOver(XmlFormatException deviation) {
        passedOver.add(deviation);
    }

    /** Puts the element that comes next off. When too many have been, nothing happens. */
    void putOff() {
        if (putOff.size() < MOST_ROUNDS && putOff.add(replay.key())) {
            throw new Again();
        }
    }

    /** Puts the element that comes next off if one of this local name is to come after it, or is it but for its namespace. */
    void putOffBefore(String name) {
        if (replay.isToCome(name)) {
            putOff();
        }
    }

    /**
     * Brings an element that was put off.
     *
     * @return its namespace, or null when none of this local name was put off here
     */
    String bring(String namespace, String name) {
        return replay.bring(namespace, name);
    }

    /** Reports what was put off in the element that ends here and never asked for. */
    void passOverRest(String path) {
        passedOver.addAll(replay.leftOver(path));
    }
}
