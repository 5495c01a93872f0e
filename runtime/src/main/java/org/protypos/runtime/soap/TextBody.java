package org.protypos.runtime.soap;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;

/** One value as plain text (WSDL 1.1, section 5.2); the message reads and writes it as the content of its only part. */
final class TextBody {
    private TextBody() {}

    static String write(SoapMessage message, XmlTypes types) {
        // What stands between the tags for the eye is no part of the value.
        return Fields.of(message, types).text();
    }

    static void read(Incoming came, SoapMessage into, XmlTypes types, Reading reading) {
        XmlTree part = new XmlTree();
        part.content().add(new String(came.body(), charset(came)));
        XmlTree around = new XmlTree();
        around.content().add(XmlElement.of("", into.textPart(), part));
        byte[] written = XmlTypes.NONE.write(XmlElement.of("", "text", around));
        reading.read(written, null, types, null, in -> {
            into.readBody(in);
            in.finish();
            return into;
        });
    }

    private static Charset charset(Incoming came) {
        String named = came.type().charset();
        try {
            return named == null ? StandardCharsets.UTF_8 : Charset.forName(named);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            return StandardCharsets.UTF_8;
        }
    }
}
