package org.protypos.runtime.attach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Packages of several parts, from raw bytes as the RFCs write them and back to bytes. */
class MimePackageTest {
    private static final String RELATED = "multipart/related; boundary=\"edge\"; start=\"<main@bay>\"";

    private static final String MIXED = "multipart/related; boundary=edge";

    /** Opens a package of lines that end with a tilde or a line feed. */
    private static MimePackage open(String body, String type) throws IOException {
        Spool spool = Spool.large(1_000_000, "the message");
        spool.write(body.replace("~", "\n").replace("\n", "\r\n").getBytes(StandardCharsets.ISO_8859_1));
        return MimePackage.open(spool, MediaType.of(type));
    }

    private static String text(MimePackage.Part part) {
        return new String(part.content().bytes(), StandardCharsets.ISO_8859_1);
    }

    /** RFC 2387, section 5: the start parameter names the root, wherever it stands. */
    @Test
    void theRootIsTheOneThatTheTypeNames() throws IOException {
        MimePackage opened = open(
                "a preamble that says nothing\n--edge\nContent-ID: <picture@bay>\nContent-Type: image/png; name=\"a b\"\n\n"
                        + "not really\n--edge  \ncontent-id: <main@bay>\n\n<a/>\n--edge--\nan epilogue",
                RELATED);
        assertThat(text(opened.root())).isEqualTo("<a/>");
        assertThat(opened.root().type().name()).isEqualTo("application/octet-stream");
        assertThat(opened.attached()).extracting(MimePackage.Part::id).containsExactly("picture@bay");
        assertThat(opened.attached().get(0).type().parameter("name")).isEqualTo("a b");
        assertThat(opened.find("cid:picture@bay").bytes()).asString().isEqualTo("not really");
        assertThat(opened.find("cid:picture%40bay")).isNotNull();
        assertThat(opened.find("cid:main@bay")).isNull();
        assertThat(opened.find("http://bay/picture")).isNull();
    }

    /** RFC 2046, section 5.1.1: what only begins like a boundary is content, and the line end before one is not. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "x",
                "\n",
                "\n\n",
                "--edg",
                "\n--edg",
                "\n--edgy\n--edges",
                "\n\n--edge2",
                "-\n--\n---edge",
                "\r",
                "\n--edge-x",
            })
    void contentIsWhatStandsBetweenBoundaries(String content) throws IOException {
        MimePackage opened =
                open("--edge\n\n" + content + "\n--edge\nContent-ID: <b>\n\n" + content + "\n--edge--", MIXED);
        String expected = content.replace("\n", "\r\n");
        assertThat(text(opened.root())).isEqualTo(expected);
        assertThat(opened.find("cid:b").bytes())
                .asString(StandardCharsets.ISO_8859_1)
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "base64 | SGFyYm91ciBv~ZmZpY2U= | Harbour office",
                "BASE64 | SGFy Ym91cg== | Harbour",
                "quoted-printable | fish =3D 3 kg=20=~ and ice | fish = 3 kg  and ice",
                "quoted-printable | =C3=A9t=c3=a9 | \u00c3\u00a9t\u00c3\u00a9",
                "8bit | as it is | as it is",
                "7bit | as it is | as it is",
            })
    void transferEncodingsAreUndone(String encoding, String written, String expected) throws IOException {
        MimePackage opened =
                open("--edge\nContent-Transfer-Encoding: " + encoding + "\n\n" + written + "\n--edge--", MIXED);
        assertThat(text(opened.root())).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "--edge~~x | ends before its last part",
                "--edge | ends before its last part",
                "nothing here | ends before its last part",
                "--edge-- | has no part",
                "--edge~Content-Transfer-Encoding: zip~~x~--edge-- | unknown encoding zip",
                "--edge~Content-ID: <main@bay>~~x~--edge~Content-ID: <b>~~x~--edge~Content-ID: <b>~~y~--edge--"
                        + " | two parts have the identifier b",
                "--edge~Content-ID: <other@bay>~~x~--edge-- | begins with the part <main@bay>, which is not there",
            })
    void brokenPackagesAreRefused(String body, String why) {
        assertThatThrownBy(() -> open(body, RELATED))
                .isInstanceOf(IOException.class)
                .hasMessageContaining(why);
    }

    /** Some senders end lines with a line feed alone, and write schemes in capitals. */
    @Test
    void lineFeedsAloneEndLinesToo() throws IOException {
        for (String content : new String[] {"", "x", "\n", "\r", "a\nb\n", "\n--edg", "--edge"}) {
            Spool spool = Spool.large(1_000_000, "the message");
            String body =
                    "--edge\nContent-Type: text/xml\n\n<a/>\n--edge\nContent-ID:\n <b>\n\n" + content + "x\n--edge--\n";
            spool.write(body.getBytes(StandardCharsets.ISO_8859_1));
            MimePackage opened = MimePackage.open(spool, MediaType.of(MIXED));
            assertThat(text(opened.root())).isEqualTo("<a/>");
            assertThat(opened.find("CID:b").bytes())
                    .asString(StandardCharsets.ISO_8859_1)
                    .isEqualTo(content + "x");
        }
    }

    /** What is decoded on the way is read by blocks as what is not: a byte at a time took seconds for a megabyte. */
    @Test
    @Timeout(20)
    void encodedPartsAreReadByBlocks() throws IOException {
        byte[] large = new byte[20_000_000];
        new Random(3).nextBytes(large);
        Spool spool = Spool.large(100_000_000, "the message");
        spool.write("--edge\r\nContent-Transfer-Encoding: base64\r\n\r\n".getBytes(StandardCharsets.ISO_8859_1));
        spool.write(Base64.getMimeEncoder().encode(large));
        spool.write("\r\n--edge--\r\n".getBytes(StandardCharsets.ISO_8859_1));
        MimePackage opened = MimePackage.open(spool, MediaType.of(MIXED));
        assertThat(opened.root().content().bytes()).isEqualTo(large);
    }

    @Test
    void packagesAreHeldToLimits() {
        assertThatThrownBy(() -> open("x", "multipart/related")).hasMessageContaining("names no boundary");
        assertThatThrownBy(() -> open("x", "multipart/related; boundary=" + "b".repeat(300)))
                .hasMessageContaining("names no boundary");
        assertThatThrownBy(() -> open("--edge\nX: " + "x".repeat(20_000) + "\n\n\n--edge--", RELATED))
                .hasMessageContaining("longer than 16384 bytes");
        assertThatThrownBy(() -> open("--edge\n\n\n".repeat(1_200) + "--edge--", RELATED))
                .hasMessageContaining("more than 1000 parts");
    }

    /** What is written can be read, whatever is in it; the length that is told is that of the bytes. */
    @Test
    void randomPartsComeBackAsTheyWent() throws IOException {
        Random random = new Random(7);
        for (int round = 0; round < 50; round++) {
            OutgoingPackage out = new OutgoingPackage(0);
            byte[][] contents = new byte[1 + random.nextInt(5)][];
            String[] references = new String[contents.length];
            for (int i = 0; i < contents.length; i++) {
                contents[i] = new byte[random.nextInt(3_000)];
                random.nextBytes(contents[i]);
                for (int spoil = random.nextInt(4); spoil > 0 && contents[i].length > 10; spoil--) {
                    byte[] line = "\r\n--".getBytes(StandardCharsets.US_ASCII);
                    System.arraycopy(line, 0, contents[i], random.nextInt(contents[i].length - 4), 4);
                }
                references[i] = out.refer(Attachment.of(contents[i], "image/png"));
            }
            byte[] message = "<a/>".getBytes(StandardCharsets.UTF_8);
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            out.write(message, "text/xml", bytes);
            assertThat(out.length(message, "text/xml")).isEqualTo(bytes.size());
            Spool spool = Spool.large(1_000_000, "the message");
            spool.write(bytes.toByteArray());
            MimePackage opened = MimePackage.open(spool, MediaType.of(out.contentType("text/xml")));
            assertThat(text(opened.root())).isEqualTo("<a/>");
            for (int i = 0; i < contents.length; i++) {
                assertThat(opened.find(references[i]).bytes()).isEqualTo(contents[i]);
            }
        }
    }

    /** RFC 2045, section 5.1, and what senders make of it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "text/xml; charset=utf-8 | text/xml | utf-8",
                "Text/XML;CHARSET=\"UTF-8\" | text/xml | UTF-8",
                "application/soap+xml; action=\"urn:a;b\"; charset=latin1 | application/soap+xml | latin1",
                "text/xml; charset=\"a\\\"b\" | text/xml | a\"b",
                "text/xml; charset= utf-16 ; x | text/xml | utf-16",
                "text/xml; charset=one; charset=two | text/xml | one",
            })
    void contentTypesAreTakenApart(String text, String name, String charset) {
        MediaType type = MediaType.of(text);
        assertThat(type.name()).isEqualTo(name);
        assertThat(type.charset()).isEqualTo(charset);
        assertThat(type.isXml()).isTrue();
        assertThat(type.isMultipart()).isFalse();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", ";", "text", "text/plain;", "text/plain; charset", "multipart/mixed; boundary=\"never ends"})
    void contentTypesThatMakeNoSenseAreNoFailure(String text) {
        assertThat(MediaType.of(text).charset()).isNull();
        assertThat(List.of("", "text", "text/plain", "multipart/mixed"))
                .contains(MediaType.of(text).name());
    }
}
