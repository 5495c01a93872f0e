package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.attach.OutgoingPackage;

/** The parts that came beside a message, to be handed to the message parts that the contract binds to them. */
public final class AttachedParts {
    private final List<MimePackage.Part> left;

    private AttachedParts(List<MimePackage.Part> parts) {
        left = new ArrayList<>(parts);
    }

    /** Hands a message its only content. */
    static void readOnly(Attachment content, SoapMessage into) {
        MediaType type = MediaType.of(content.contentType());
        into.readAttachments(new AttachedParts(List.of(new MimePackage.Part("", type, content))));
    }

    static void read(MimePackage parts, SoapMessage into) {
        into.readAttachments(new AttachedParts(parts == null ? List.of() : parts.attached()));
    }

    /**
     * Takes the attachment of a message part: the one whose identifier names it (WS-I Attachments Profile 1.0, section
     * 3.8), or else the next one that names none, for many senders go by the order alone.
     *
     * @return the attachment, or null when none came
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
        return null;
    }
}
