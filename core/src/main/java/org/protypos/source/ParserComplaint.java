package org.protypos.source;

import javax.xml.stream.XMLStreamException;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;

/**
 * What the parser of the platform says of text that is not well-formed.
 *
 * @param place where it stopped
 * @param reason why, without what the parser writes around it
 */
public record ParserComplaint(Place place, String reason) {
    private static final String BEFORE_REASON = "Message: ";

    /** Takes a complaint about a text. */
    public static ParserComplaint of(SourceText text, XMLStreamException e) {
        Place place = e.getLocation() == null
                ? text.at(0)
                : text.at(e.getLocation().getLineNumber(), e.getLocation().getColumnNumber());
        return new ParserComplaint(place, reason(e));
    }

    /** Why a parser stopped, without what it writes around it. */
    public static String reason(XMLStreamException e) {
        String message = String.valueOf(e.getMessage());
        int at = message.indexOf(BEFORE_REASON);
        return (at < 0 ? message : message.substring(at + BEFORE_REASON.length())).strip();
    }
}
