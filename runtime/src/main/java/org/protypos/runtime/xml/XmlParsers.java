package org.protypos.runtime.xml;

import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.concurrent.atomic.AtomicInteger;
import org.protypos.runtime.parse.MessageScanner;

/**
 * Scanners that are used again for one message after the other: they keep their buffers and the names they have met. Each
 * is used by one reading at a time, and one that met a broken message is not used again.
 */
final class XmlParsers {
    private static final int MOST_IDLE = 64;

    private final ConcurrentLinkedDeque<MessageScanner> idle = new ConcurrentLinkedDeque<>();
    private final AtomicInteger count = new AtomicInteger();

    /** Takes a scanner for one reading. */
    MessageScanner take() {
        MessageScanner known = idle.pollFirst();
        if (known == null) {
            return new MessageScanner();
        }
        count.decrementAndGet();
        return known;
    }

    /** Gives a scanner back after a reading that came to its end. */
    void give(MessageScanner scanner) {
        if (count.incrementAndGet() <= MOST_IDLE) {
            idle.addFirst(scanner);
        } else {
            count.decrementAndGet();
        }
    }
}
