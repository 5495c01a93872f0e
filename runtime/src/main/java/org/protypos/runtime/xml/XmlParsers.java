package org.protypos.runtime.xml;

import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.concurrent.atomic.AtomicInteger;
import javax.xml.stream.XMLInputFactory;

/**
 * Parsers that are used again for one message after the other: making one costs more than reading a small message. Each is
 * used by one reading at a time, and one that met a broken message is not used again.
 */
final class XmlParsers {
    private static final int MOST_IDLE = 64;

    /** The platform's parsers have it; they start from nothing with each message then, but keep their buffers. */
    private static final String REUSE = "reuse-instance";

    private final ConcurrentLinkedDeque<XMLInputFactory> idle = new ConcurrentLinkedDeque<>();
    private final AtomicInteger count = new AtomicInteger();

    /** Takes a parser for one reading. */
    XMLInputFactory take() {
        XMLInputFactory known = idle.pollFirst();
        if (known != null) {
            count.decrementAndGet();
            return known;
        }
        XMLInputFactory made = XmlCursor.factory();
        if (made.isPropertySupported(REUSE)) {
            made.setProperty(REUSE, true);
        }
        return made;
    }

    /** Gives a parser back after a reading that came to its end. */
    void give(XMLInputFactory parser) {
        if (count.incrementAndGet() <= MOST_IDLE) {
            idle.addFirst(parser);
        } else {
            count.decrementAndGet();
        }
    }
}
