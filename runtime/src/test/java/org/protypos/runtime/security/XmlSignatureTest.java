package org.protypos.runtime.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javax.xml.crypto.KeySelector;
import javax.xml.crypto.dsig.CanonicalizationMethod;
import javax.xml.crypto.dsig.DigestMethod;
import javax.xml.crypto.dsig.Reference;
import javax.xml.crypto.dsig.XMLSignature;
import javax.xml.crypto.dsig.XMLSignatureFactory;
import javax.xml.crypto.dsig.dom.DOMSignContext;
import javax.xml.crypto.dsig.dom.DOMValidateContext;
import javax.xml.crypto.dsig.keyinfo.KeyInfoFactory;
import javax.xml.crypto.dsig.spec.C14NMethodParameterSpec;
import javax.xml.crypto.dsig.spec.TransformParameterSpec;
import javax.xml.namespace.QName;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** Signed messages, judged by the platform's own validation of signatures, and what an attacker makes of them. */
class XmlSignatureTest {
    private static final String SOAP = "http://schemas.xmlsoap.org/soap/envelope/";
    private static final String ENVELOPE =
            "<e:Envelope xmlns:e=\"" + SOAP + "\"><e:Header><p:pass xmlns:p=\"urn:p\">LB</p:pass>"
                    + "</e:Header><e:Body><b:pay xmlns:b=\"urn:b\"><b:amount>12</b:amount></b:pay></e:Body></e:Envelope>";

    @TempDir
    private static Path folder;

    private static KeyStore keys;

    @BeforeAll
    static void makeKeys() throws Exception {
        Path store = folder.resolve("keys.p12");
        for (String[] key :
                new String[][] {{"office", "RSA", "2048"}, {"agent", "EC", "256"}, {"stranger", "RSA", "2048"}}) {
            Process process = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "keytool")
                                    .toString(),
                            "-genkeypair",
                            "-alias",
                            key[0],
                            "-keyalg",
                            key[1],
                            "-keysize",
                            key[2],
                            "-dname",
                            "CN=" + key[0] + ".lanternbay.example",
                            "-validity",
                            "3650",
                            "-storetype",
                            "PKCS12",
                            "-storepass",
                            "harbour",
                            "-keystore",
                            store.toString())
                    .redirectErrorStream(true)
                    .start();
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
            assertThat(process.exitValue()).isZero();
        }
        keys = KeyStore.getInstance("PKCS12");
        try (InputStream stream = Files.newInputStream(store)) {
            keys.load(stream, "harbour".toCharArray());
        }
    }

    private static X509Certificate certificate(String alias) throws Exception {
        return (X509Certificate) keys.getCertificate(alias);
    }

    private static XmlSignature by(String alias) throws Exception {
        return XmlSignature.by((PrivateKey) keys.getKey(alias, "harbour".toCharArray()), certificate(alias));
    }

    private static String signed(XmlSignature signature) {
        byte[] bytes = signature.answer(ENVELOPE.getBytes(StandardCharsets.UTF_8));
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private static void check(XmlSignature trusting, String message) {
        trusting.request(message.getBytes(StandardCharsets.UTF_8), "UTF-8");
    }

    @ParameterizedTest
    @ValueSource(strings = {"office", "agent"})
    void thePlatformFindsTheSignatureGood(String alias) throws Exception {
        String message = signed(by(alias).covering(new QName("urn:p", "pass")));
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document document =
                factory.newDocumentBuilder().parse(new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8)));
        NodeList all = document.getElementsByTagName("*");
        Element signature = (Element)
                document.getElementsByTagNameNS(XMLSignature.XMLNS, "Signature").item(0);
        DOMValidateContext context = new DOMValidateContext(
                KeySelector.singletonKeySelector(certificate(alias).getPublicKey()), signature);
        for (int i = 0; i < all.getLength(); i++) {
            Element element = (Element) all.item(i);
            if (element.hasAttributeNS(SecurityHeader.UTILITY, "Id")) {
                context.setIdAttributeNS(element, SecurityHeader.UTILITY, "Id");
            }
        }
        XMLSignature read = XMLSignatureFactory.getInstance("DOM").unmarshalXMLSignature(context);
        assertThat(read.validate(context)).isTrue();
        assertThat(read.getSignedInfo().getReferences()).hasSize(3);
        assertThatCode(() -> check(
                        XmlSignature.trustingOnly(List.of(certificate(alias))).covering(new QName("urn:p", "pass")),
                        message))
                .doesNotThrowAnyException();
    }

    /** A message that the platform has signed, in a way of canonical XML and with one of the ways to say by which certificate. */
    private static String byThePlatform(String alias, String canonical, String shown) throws Exception {
        Instant now = Instant.now();
        String message = ENVELOPE.replace(
                        "</e:Header>",
                        "<w:Security xmlns:w='" + SecurityHeader.SECEXT + "' xmlns:u='" + SecurityHeader.UTILITY
                                + "'><u:Timestamp u:Id='ts'><u:Created>" + now + "</u:Created><u:Expires>"
                                + now.plusSeconds(60) + "</u:Expires></u:Timestamp></w:Security></e:Header>")
                .replace("<e:Body>", "<e:Body xmlns:u='" + SecurityHeader.UTILITY + "' u:Id='bd'>");
        DocumentBuilderFactory documents = DocumentBuilderFactory.newInstance();
        documents.setNamespaceAware(true);
        Document document = documents
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8)));
        Element security = (Element) document.getElementsByTagNameNS(SecurityHeader.SECEXT, "Security")
                .item(0);
        XMLSignatureFactory factory = XMLSignatureFactory.getInstance("DOM");
        DOMSignContext context = new DOMSignContext(keys.getKey(alias, "harbour".toCharArray()), security);
        List<Reference> references = new ArrayList<>();
        for (String[] one : new String[][] {{"bd", SOAP, "Body"}, {"ts", SecurityHeader.UTILITY, "Timestamp"}}) {
            Element element =
                    (Element) document.getElementsByTagNameNS(one[1], one[2]).item(0);
            context.setIdAttributeNS(element, SecurityHeader.UTILITY, "Id");
            references.add(factory.newReference(
                    "#" + one[0],
                    factory.newDigestMethod(DigestMethod.SHA256, null),
                    List.of(factory.newTransform(canonical, (TransformParameterSpec) null)),
                    null,
                    null));
        }
        KeyInfoFactory info = factory.getKeyInfoFactory();
        X509Certificate certificate = certificate(alias);
        Object described =
                switch (shown) {
                    case "serial" ->
                        info.newX509IssuerSerial(
                                certificate.getIssuerX500Principal().getName(), certificate.getSerialNumber());
                    case "subject" -> certificate.getSubjectX500Principal().getName();
                    default -> certificate;
                };
        factory.newXMLSignature(
                        factory.newSignedInfo(
                                factory.newCanonicalizationMethod(canonical, (C14NMethodParameterSpec) null),
                                factory.newSignatureMethod("http://www.w3.org/2001/04/xmldsig-more#rsa-sha256", null),
                                references),
                        info.newKeyInfo(List.of(info.newX509Data(List.of(described)))))
                .sign(context);
        StringWriter written = new StringWriter();
        TransformerFactory.newInstance().newTransformer().transform(new DOMSource(document), new StreamResult(written));
        return written.toString();
    }

    @ParameterizedTest
    @CsvSource({
        CanonicalizationMethod.EXCLUSIVE + ",certificate",
        CanonicalizationMethod.INCLUSIVE + ",certificate",
        CanonicalizationMethod.INCLUSIVE + ",serial",
        CanonicalizationMethod.EXCLUSIVE + ",subject"
    })
    void whatThePlatformSignsIsFoundGoodWhoeverElseIsTrusted(String canonical, String shown) throws Exception {
        String message = byThePlatform("office", canonical, shown);
        XmlSignature several = XmlSignature.trustingOnly(List.of(certificate("agent"), certificate("office")));
        assertThatCode(() -> check(several, message)).doesNotThrowAnyException();
        assertThatThrownBy(() -> check(several, message.replace("<b:amount>12", "<b:amount>13")))
                .isInstanceOf(SecurityException.class);
        XmlSignature others = XmlSignature.trustingOnly(List.of(certificate("agent"), certificate("stranger")));
        assertThatThrownBy(() -> check(others, message)).hasMessageContaining("not trusted");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<b:amount>12 | <b:amount>13",
                "</e:Body> | <b:more xmlns:b='urn:b'/></e:Body>",
                ">LB< | >LC<",
                "<e:Body | <e:Body xmlns:x='urn:x' x:a='1'",
            })
    void whatIsChangedIsRefused(String before, String after) throws Exception {
        XmlSignature trusting =
                XmlSignature.trustingOnly(List.of(certificate("office"))).covering(new QName("urn:p", "pass"));
        String message = signed(by("office").covering(new QName("urn:p", "pass")));
        assertThat(message).contains(before);
        assertThatThrownBy(() -> check(trusting, message.replace(before, after)))
                .isInstanceOf(SecurityException.class);
    }

    /** The signed body is moved aside and another put in its place (signature wrapping). */
    @Test
    void anotherBodyInThePlaceOfTheSignedOneIsRefused() throws Exception {
        XmlSignature trusting = XmlSignature.trustingOnly(List.of(certificate("office")));
        String message = signed(by("office"));
        String body =
                message.substring(message.indexOf("<e:Body"), message.indexOf("</e:Body>") + "</e:Body>".length());
        String forged = "<e:Body><b:pay xmlns:b=\"urn:b\"><b:amount>999</b:amount></b:pay></e:Body>";
        assertThatThrownBy(() -> check(
                        trusting,
                        message.replace(body, forged)
                                .replace(
                                        "</e:Header>", "<w:aside xmlns:w=\"urn:w\">" + body + "</w:aside></e:Header>")))
                .isInstanceOf(SecurityException.class);
        String id = body.replaceFirst("(?s).*wsu:Id=\"([^\"]*)\".*", "$1");
        String twice = forged.replace(
                "<e:Body>", "<e:Body xmlns:wsu=\"" + SecurityHeader.UTILITY + "\" wsu:Id=\"" + id + "\">");
        assertThatThrownBy(() -> check(
                        trusting,
                        message.replace(body, twice)
                                .replace(
                                        "</e:Header>", "<w:aside xmlns:w=\"urn:w\">" + body + "</w:aside></e:Header>")))
                .isInstanceOf(SecurityException.class);
    }

    /** What was signed counts at its place: a time stamp that is moved aside leaves the message without a time. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "</e:Header> | %s</e:Header>",
                "</e:Header> | <w:aside xmlns:w='urn:w'>%s</w:aside></e:Header>",
                "</e:Envelope> | %s</e:Envelope>",
                "</p:pass> | %s</p:pass>",
                "</e:Header> | </e:Header>",
            })
    void aTimeStampThatIsMovedIsRefused(String before, String after) throws Exception {
        XmlSignature trusting = XmlSignature.trustingOnly(List.of(certificate("office")));
        String message = signed(by("office"));
        String stamp = message.substring(
                message.indexOf("<wsu:Timestamp"), message.indexOf("</wsu:Timestamp>") + "</wsu:Timestamp>".length());
        String namespaced = stamp.contains("xmlns:wsu")
                ? stamp
                : stamp.replaceFirst("<wsu:Timestamp", "<wsu:Timestamp xmlns:wsu=\"" + SecurityHeader.UTILITY + "\"");
        String moved = message.replace(stamp, "").replace(before, after.formatted(namespaced));
        assertThatThrownBy(() -> check(trusting, moved)).isInstanceOf(SecurityException.class);
        assertThatCode(() -> check(trusting, message)).doesNotThrowAnyException();
    }

    @Test
    void aMessageThatComesAgainIsRefused() throws Exception {
        XmlSignature trusting = XmlSignature.trustingOnly(List.of(certificate("office")));
        String message = signed(by("office"));
        check(trusting, message);
        assertThatThrownBy(() -> check(trusting, message))
                .isInstanceOf(SecurityException.class)
                .hasMessageContaining("come before");
        assertThatThrownBy(() -> check(trusting, message.replace("<e:Body", "<e:Body  ")))
                .hasMessageContaining("come before");
        assertThatCode(() -> check(trusting, signed(by("office")))).doesNotThrowAnyException();
    }

    @Test
    void strangersAndTheUnsignedAreRefused() throws Exception {
        XmlSignature trusting = XmlSignature.trustingOnly(List.of(certificate("office")));
        assertThatThrownBy(() -> check(trusting, ENVELOPE))
                .isInstanceOf(SecurityException.class)
                .hasMessageContaining("not signed");
        assertThatThrownBy(() -> check(trusting, signed(by("stranger")))).isInstanceOf(SecurityException.class);
        XmlSignature strict = trusting.covering(new QName("urn:p", "pass"));
        assertThatThrownBy(() -> check(strict, signed(by("office")))).isInstanceOf(SecurityException.class);
        assertThatThrownBy(() -> check(trusting, "<!DOCTYPE a>" + signed(by("office"))))
                .isInstanceOf(RuntimeException.class);
    }

    /** UsernameToken Profile 1.1, section 3.1, computed anew from what the token shows. */
    @Test
    void aDigestIsThatOfTheProfile() throws Exception {
        XmlElement<?> header = UsernameToken.digest("ada", "brook").get();
        String text = new String(XmlTypes.NONE.write(header), StandardCharsets.UTF_8);
        XmlTree security = (XmlTree) header.value();
        XmlTree token = (XmlTree) ((XmlElement<?>) security.content().get(1)).value();
        byte[] nonce = Base64.getDecoder().decode(text(token, "Nonce"));
        MessageDigest sha = MessageDigest.getInstance("SHA-1");
        sha.update(nonce);
        sha.update((text(token, "Created") + "brook").getBytes(StandardCharsets.UTF_8));
        assertThat(text(token, "Password")).isEqualTo(Base64.getEncoder().encodeToString(sha.digest()));
        assertThat(text).doesNotContain("brook").contains("#PasswordDigest");
        assertThat(nonce).hasSize(16);
        assertThat(text(token((UsernameToken.digest("ada", "brook").get())), "Nonce"))
                .isNotEqualTo(text(token, "Nonce"));
    }

    private static XmlTree token(XmlElement<?> header) {
        return (XmlTree) ((XmlElement<?>) ((XmlTree) header.value()).content().get(1)).value();
    }

    private static String text(XmlTree in, String name) {
        return in.content().stream()
                .map(item -> (XmlElement<?>) item)
                .filter(element -> element.name().getLocalPart().equals(name))
                .map(element -> ((XmlTree) element.value()).text())
                .findFirst()
                .orElseThrow();
    }
}
