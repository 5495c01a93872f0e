package org.protypos.message.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.protypos.diagnostic.Findings;
import org.protypos.message.tree.MessageReader;

/** Messages as HTTP brought them give what they carry, whatever was done to it on the way. */
class HttpCaptureTest {
    private static final String TIDE = "<tide>h\u00f6her</tide>";

    private static byte[] message(String head, byte[] body) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.writeBytes(head.getBytes(StandardCharsets.ISO_8859_1));
        all.writeBytes(body);
        return all.toByteArray();
    }

    private static String carried(String head, byte[] body) throws IOException {
        HttpCapture capture = HttpCapture.of("tide.http", message(head, body));
        return new String(capture.document(), StandardCharsets.UTF_8);
    }

    private static byte[] in(Charset charset, String text) {
        return text.getBytes(charset);
    }

    @Test
    void whatItCarriesStandsWhereItStoodInTheFile() throws IOException {
        String head = "POST /tide HTTP/1.1\r\nContent-Type: text/xml\r\n\r\n";
        String text = carried(
                head, in(StandardCharsets.UTF_8, "<?xml version='1.0' encoding='utf-8'?>\n<tide>\n  <at/></tide>"));
        assertThat(text).doesNotContain("<?xml").endsWith("<tide>\n  <at/></tide>");
        assertThat(MessageReader.read("tide.http", text.getBytes(StandardCharsets.UTF_8), new Findings())
                        .children()
                        .get(0)
                        .place()
                        .line())
                .isEqualTo(6);
    }

    @Test
    void everyEncodingIsUndone() throws IOException {
        String type = "HTTP/1.1 200 OK\nContent-Type: text/xml";
        assertThat(carried(type + "; charset=\"iso-8859-1\"\n\n", in(StandardCharsets.ISO_8859_1, TIDE)))
                .endsWith(TIDE);
        assertThat(carried(type + ";charset=utf-16\n\n", in(StandardCharsets.UTF_16, TIDE)))
                .endsWith(TIDE);
        assertThat(carried(type + "\n\n", in(StandardCharsets.UTF_16, TIDE))).endsWith(TIDE);
        assertThat(carried(type + "\n\n", in(StandardCharsets.UTF_8, "\uFEFF" + TIDE)))
                .endsWith("\n" + TIDE);
        byte[] chunks = in(StandardCharsets.ISO_8859_1, "4;x=y\r\n<tid\r\n003\r\ne/>\r\n0\r\nTrailer: x\r\n\r\n");
        assertThat(carried(type + "\nTransfer-Encoding: chunked\n\n", chunks)).endsWith("<tide/>");
        assertThat(carried(type + "\nTransfer-Encoding: chunked\n\n", in(StandardCharsets.UTF_8, TIDE)))
                .endsWith(TIDE);
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(packed)) {
            gzip.write(in(StandardCharsets.UTF_8, TIDE));
        }
        assertThat(carried(type + "\nContent-Encoding: gzip\n\n", packed.toByteArray()))
                .isEqualTo(TIDE);
        String parts = "--b\r\nContent-ID: <pic>\r\n\r\nabc\r\n--b\r\nContent-Type: text/xml; charset=iso-8859-1\r\n"
                + "Content-ID: <root>\r\n\r\n" + TIDE + "\r\n--b--\r\n";
        assertThat(carried(
                        "POST / HTTP/1.1\nContent-Type: multipart/related; boundary=b; start=\"<root>\"\n\n",
                        in(StandardCharsets.ISO_8859_1, parts)))
                .isEqualTo(TIDE);
    }

    @Test
    void whatCannotBeUndoneIsTold() {
        String type = "HTTP/1.1 200 OK\nContent-Type: text/xml";
        assertThatThrownBy(() -> carried(type + ";charset=utf-8\n\n", in(StandardCharsets.ISO_8859_1, TIDE)))
                .hasMessage("the body is not in the encoding that is said");
        assertThatThrownBy(() -> carried(type + ";charset=tide\n\n", in(StandardCharsets.UTF_8, TIDE)))
                .hasMessage("the body is in the encoding tide, which is not known here");
        assertThatThrownBy(() -> carried(type + "\nContent-Encoding: br\n\n", in(StandardCharsets.UTF_8, TIDE)))
                .hasMessage("it is packed with \"br\"; gzip alone can be read");
        assertThatThrownBy(() -> carried(type + "\nContent-Encoding: gzip\n\n", in(StandardCharsets.UTF_8, TIDE)))
                .hasMessage("the data are not packed with gzip");
        assertThatThrownBy(() -> carried("HTTP/1.1 200\nContent-Type: multipart/related\n\n", new byte[1]))
                .isInstanceOf(IOException.class);
    }

    @Test
    void otherFilesAreNone() {
        for (String text :
                new String[] {TIDE, "", "GET /\n", "HTTP/1.1 OK\n", "<!-- POST / HTTP/1.1\n -->", "POST / HTTP/1.1"}) {
            assertThat(HttpCapture.of("tide.xml", text.getBytes(StandardCharsets.UTF_8)))
                    .as(text)
                    .isNull();
        }
        HttpCapture answer = HttpCapture.of("a.http", "HTTP/1.0 202\nX:".getBytes(StandardCharsets.UTF_8));
        assertThat(answer.isEmpty()).isTrue();
        assertThat(answer.status()).isEqualTo(202);
        assertThat(answer.field("X")).isEmpty();
    }
}
