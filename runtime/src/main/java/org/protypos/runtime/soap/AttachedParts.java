package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlLimits;

/** The parts that came beside a message, to be handed to the message parts that the contract binds to them. */
public final class AttachedParts {
    private final MimePackage around;
    private final List<MimePackage.Part> left;
    private final Reading reading;

    private AttachedParts(MimePackage around, List<MimePackage.Part> parts, Reading reading) {
        this.around = around;
        this.left = new ArrayList<>(parts);
        this.reading = reading;
    }

    /** Hands a message its only content. */
    static void readOnly(Attachment content, SoapMessage into) {
        MediaType type = MediaType.of(content.contentType());
        Reading strict = Reading.strict(XmlLimits.DEFAULT);
        into.readAttachments(new AttachedParts(null, List.of(new MimePackage.Part("", type, content)), strict));
    }

    static void read(MimePackage parts, SoapMessage into, Reading reading) {
        into.readAttachments(new AttachedParts(parts, parts == null ? List.of() : parts.attached(), reading));
    }

    /**
     * Finds the part that a reference in the message means (RFC 2392), without taking it.
     *
     * @return its bytes, or null when there is no such part
     */
    public Attachment find(String reference) {
        return around == null ? null : around.find(reference);
    }

    /**
     * Takes the attachment of a message part: the one whose identifier names it (WS-I Attachments Profile 1.0, section
     * 3.8), or else the next one that names none, for many senders go by the order alone.
     *
     * @return the attachment; null when none came and a lenient reading passes that over
     * @throws XmlFormatException when none came: a message has all its parts (WSDL 1.1, section 2.3.1)
     */
    public Attachment take(String part) {
        String named = OutgoingPackage.escaped(part) + "=";
        for (MimePackage.Part candidate : left) {
            if (candidate.id().startsWith(named) || candidate.id().equals(part)) {
                left.remove(candidate);
                return candidate.content();
            }
        }
        for (MimePackage.Part candidate : left) {
            if (candidate.id().indexOf('=') < 0) {
                left.remove(candidate);
                return candidate.content();
            }
        }
        XmlFormatException missing =
                XmlFormatException.of("the part " + part + ", which travels beside the message, is missing");
        if (reading.passesOver(missing)) {
            return null;
        }
        throw missing;
    }
}
