package org.protypos.exchange.call;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.source.TagFinder;

/** An envelope that is there as text: header blocks are put in, and all else stays as somebody wrote it. */
final class EnvelopeText {
    private EnvelopeText() {}

    /**
     * Puts header blocks in front of those that are there.
     *
     * @param envelope a well-formed envelope
     */
    static String with(List<XmlElement<?>> blocks, String envelope) {
        if (blocks.isEmpty()) {
            return envelope;
        }
        StringBuilder written = new StringBuilder();
        for (XmlElement<?> block : blocks) {
            written.append(
                    new String(XmlTypes.NONE.write(block), StandardCharsets.UTF_8).replaceFirst("^<\\?[^>]*>", ""));
        }
        TagFinder tags = new TagFinder(envelope);
        String root = name(envelope, tags.next());
        int section = tags.next();
        String name = name(envelope, section);
        if (!name.endsWith("Header")) {
            String header = root.substring(0, root.length() - "Envelope".length()) + "Header";
            return envelope.substring(0, section) + "<" + header + ">" + written + "</" + header + ">"
                    + envelope.substring(section);
        }
        int end = tagEnd(envelope, section);
        boolean empty = envelope.charAt(end - 1) == '/';
        return empty
                ? envelope.substring(0, end - 1) + ">" + written + "</" + name + ">" + envelope.substring(end + 1)
                : envelope.substring(0, end + 1) + written + envelope.substring(end + 1);
    }

    private static String name(String text, int tag) {
        int end = tag + 1;
        while (text.charAt(end) > ' ' && text.charAt(end) != '>' && text.charAt(end) != '/') {
            end++;
        }
        return text.substring(tag + 1, end);
    }

    /** Where a start tag ends; its attributes may hold the bracket too. */
    private static int tagEnd(String text, int tag) {
        char quote = 0;
        int at = tag;
        while (quote != 0 || text.charAt(at) != '>') {
            char next = text.charAt(at++);
            if (quote == 0 && (next == '"' || next == '\'')) {
                quote = next;
            } else if (next == quote) {
                quote = 0;
            }
        }
        return at;
    }
}
