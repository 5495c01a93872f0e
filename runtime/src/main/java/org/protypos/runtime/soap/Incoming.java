package org.protypos.runtime.soap;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.Gzip;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.attach.Spool;
import org.protypos.runtime.parse.DecodedText;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.runtime.xml.XmlTypes;

/**
 * What came over HTTP, unpacked.
 *
 * @param body the message: the whole body, or the root of a package
 * @param type its content type; for the root of an optimized package the type that the message would have alone (MTOM,
 *     section 4)
 * @param parts the package, or null when the message came alone
 */
public record Incoming(byte[] body, MediaType type, MimePackage parts) {
    private static final String XOP_TYPE = "application/xop+xml";

    private static final byte[] NOTHING = "<nothing/>".getBytes(StandardCharsets.US_ASCII);

    /** Has a message read the body as an XML document. One without content is none, but a message may expect no more. */
    void readDocument(SoapMessage into, XmlTypes types, Reading reading) {
        reading.read(body.length == 0 ? NOTHING : body, type.charset(), types, parts, in -> {
            into.readBody(in);
            if (body.length > 0) {
                in.finish();
            }
            return into;
        });
    }

    /**
     * Unpacks a body that came with a request, or as the answer to one.
     *
     * @param encoding the content encoding that HTTP names, empty for none
     * @param request says how much there may be of it
     * @throws IOException when it cannot be unpacked or is longer than allowed
     */
    public static Incoming of(Spool came, MediaType type, String encoding, Request request) throws IOException {
        return of(came, type, encoding, request.reading().limits(), request.attachments(), "the message");
    }

    /** The message as text. */
    public String text() {
        return DecodedText.of(body, type.charset());
    }

    /** Has a message take the parts that came beside it, as far as they are there. */
    public void readAttachments(SoapMessage into) {
        Reading lenient = Reading.strict(XmlLimits.DEFAULT).leniently(missing -> {});
        AttachedParts.read(parts, into, lenient);
    }

    /**
     * Has a message without an envelope read the body (WSDL 1.1, sections 4 and 5).
     *
     * @param contentType the content type as it came
     * @param types what the contract declares by name
     */
    public void readInto(SoapMessage into, String contentType, XmlTypes types, Reading reading) {
        switch (into.form()) {
            case BYTES -> AttachedParts.readOnly(Attachment.of(body, contentType), into);
            case TEXT -> TextBody.read(this, into, types, reading);
            default -> readDocument(into, types, reading);
        }
    }

    /** Where to put a body of some content type while it comes. */
    static Spool spool(MediaType type, XmlLimits limits, long attachments, String what) {
        return type.isMultipart() ? Spool.large(attachments, what) : Spool.small(limits.bytes(), what);
    }

    /**
     * Unpacks a body.
     *
     * @param encoding the content encoding that HTTP names, empty for none
     * @throws IOException when it cannot be unpacked or is longer than allowed
     */
    static Incoming of(Spool came, MediaType type, String encoding, XmlLimits limits, long attachments, String what)
            throws IOException {
        Spool body = Gzip.packs(encoding) && came.length() > 0
                ? Gzip.unpack(came, spool(type, limits, attachments, what))
                : came;
        if (!type.isMultipart()) {
            return new Incoming(body.bytes(), type, null);
        }
        MimePackage parts = MimePackage.open(body, type);
        Spool root = Spool.small(limits.bytes(), what);
        parts.root().content().open().transferTo(root);
        MediaType rootType = parts.root().type();
        String inner = rootType.parameter("type");
        MediaType alone = rootType.name().equals(XOP_TYPE) && inner != null
                ? new MediaType(MediaType.of(inner).name(), rootType.parameters())
                : rootType;
        return new Incoming(root.bytes(), alone, parts);
    }
}
