package org.protypos.runtime.xml;

import java.io.ByteArrayInputStream;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.parse.MessageScanner;

/**
 * How messages are read: within which bounds, and what becomes of deviations from the contract.
 * A strict reading ends at the
 * first; a lenient one passes over deviations and tells them, in the order of the message.
 */
public final class Reading {
    private final XmlLimits limits;
    private final Consumer<XmlFormatException> passedOver;
    private final XmlParsers parsers;

    private Reading(XmlLimits limits, Consumer<XmlFormatException> passedOver, XmlParsers parsers) {
        this.limits = limits;
        this.passedOver = passedOver;
        this.parsers = parsers;
    }

    /** A strict reading. */
    public static Reading strict(XmlLimits limits) {
        return new Reading(limits, null, new XmlParsers());
    }

    /** The bounds. */
    public XmlLimits limits() {
        return limits;
    }

    /** The same with other bounds. */
    public Reading limits(XmlLimits value) {
        return new Reading(value, passedOver, parsers);
    }

    /** A lenient reading within the same bounds. */
    public Reading leniently(Consumer<XmlFormatException> report) {
        return new Reading(limits, report, parsers);
    }

    /** Whether a deviation is passed over, as a lenient reading does; it is told then. */
    public boolean passesOver(XmlFormatException deviation) {
        if (passedOver != null) {
            passedOver.accept(deviation);
        }
        return passedOver != null;
    }

    /**
     * Reads a message. A lenient reading may read it several times, so {@code reader} must start from nothing each time. It
     * takes unknown elements and attributes, values that are none, another order and other namespaces than the contract's,
     * and leaves empty what does not come; what is not well-formed or passes a bound it refuses like a strict one.
     *
     * @param charset the encoding that the transport names, or null to take it from the message itself
     * @param types what the contract declares by name
     * @param parts the package that the message is the root of, or null
     * @param reader reads the message
     * @throws XmlFormatException when it cannot be read
     */
    public <T> T read(byte[] message, String charset, XmlTypes types, MimePackage parts, Function<XmlInput, T> reader) {
        try {
            MessageScanner parser = parsers.take();
            XmlInput in = XmlInput.open(parser, new ByteArrayInputStream(message), charset, types, limits);
            in.setParts(parts);
            T value = reader.apply(in);
            in.close();
            parsers.give(parser);
            return value;
        } catch (XmlFormatException e) {
            if (passedOver == null) {
                throw e;
            }
        }
        Lenience lenience = new Lenience();
        MessageReplay.Message kept =
                MessageReplay.keep(XmlCursor.parser(new ByteArrayInputStream(message), charset, limits), limits);
        T value = lenience.read(kept, limits, types, parts, reader);
        // What is looked at twice may have been told twice.
        Map<String, XmlFormatException> once = new LinkedHashMap<>();
        lenience.passedOver().forEach(deviation -> once.putIfAbsent(deviation.getMessage(), deviation));
        once.values().stream()
                .sorted(Comparator.comparing(XmlFormatException::line).thenComparing(XmlFormatException::column))
                .forEach(passedOver);
        return value;
    }
}
