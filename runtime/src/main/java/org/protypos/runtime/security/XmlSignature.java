package org.protypos.runtime.security;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.PrivateKey;
import java.security.SecureRandom;
import java.security.cert.CertificateEncodingException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import javax.xml.XMLConstants;
import javax.xml.crypto.MarshalException;
import javax.xml.crypto.dom.DOMStructure;
import javax.xml.crypto.dsig.CanonicalizationMethod;
import javax.xml.crypto.dsig.DigestMethod;
import javax.xml.crypto.dsig.Reference;
import javax.xml.crypto.dsig.SignedInfo;
import javax.xml.crypto.dsig.XMLSignatureException;
import javax.xml.crypto.dsig.XMLSignatureFactory;
import javax.xml.crypto.dsig.dom.DOMSignContext;
import javax.xml.crypto.dsig.keyinfo.KeyInfo;
import javax.xml.crypto.dsig.spec.C14NMethodParameterSpec;
import javax.xml.crypto.dsig.spec.TransformParameterSpec;
import javax.xml.namespace.QName;
import org.protypos.runtime.soap.SoapGuard;
import org.protypos.runtime.soap.SoapInterceptor;
import org.w3c.dom.Element;

/**
 * Signs messages and checks the signatures of those that come (XML Signature 1.1; OASIS Web Services Security 1.1, X.509
 * Certificate Token Profile). What is signed is the body, a time stamp, and the header blocks that are named.
 *
 * <p>The same serves both ends: as an interceptor of a client it signs requests and checks answers, as a guard of an
 * endpoint it checks requests and signs answers. It signs when it has a key, and checks when it trusts somebody. Content
 * beside a message is not covered: a message that refers to such content is not signed but refused.
 */
public final class XmlSignature implements SoapInterceptor, SoapGuard {
    private static final String EXCLUSIVE = CanonicalizationMethod.EXCLUSIVE;
    private static final String XOP = "http://www.w3.org/2004/08/xop/include";
    private static final SecureRandom RANDOM = new SecureRandom();

    private final PrivateKey key;
    private final X509Certificate certificate;
    private final List<X509Certificate> trusted;
    private final List<QName> blocks;
    private final Replays replays = new Replays();

    private XmlSignature(
            PrivateKey key, X509Certificate certificate, Collection<X509Certificate> trusted, List<QName> blocks) {
        this.key = key;
        this.certificate = certificate;
        this.trusted = List.copyOf(trusted);
        this.blocks = List.copyOf(blocks);
    }

    /**
     * Signs what is sent.
     *
     * @param key an RSA or EC key
     * @param certificate the certificate of the key; it travels with the message
     */
    public static XmlSignature by(PrivateKey key, X509Certificate certificate) {
        return new XmlSignature(
                Objects.requireNonNull(key, "key"),
                Objects.requireNonNull(certificate, "certificate"),
                List.of(),
                List.of());
    }

    /** Signs nothing and checks what comes. */
    public static XmlSignature trustingOnly(Collection<X509Certificate> trusted) {
        return new XmlSignature(null, null, trusted, List.of());
    }

    /** Checks what comes too: it must be signed by one of these, or by somebody whom one of these vouches for. */
    public XmlSignature trusting(Collection<X509Certificate> certificates) {
        return new XmlSignature(key, certificate, certificates, blocks);
    }

    /** Signs header blocks of a name as well, and wants those that come signed. */
    public XmlSignature covering(QName block) {
        List<QName> more = new ArrayList<>(blocks);
        more.add(block);
        return new XmlSignature(key, certificate, trusted, more);
    }

    @Override
    public byte[] request(Call call, byte[] envelope) {
        return signed(envelope);
    }

    @Override
    public byte[] answer(Call call, byte[] body, String charset) {
        // Nothing at all is the answer of a one-way operation, and taken for no other.
        if (body.length > 0) {
            check(body, charset);
        }
        return body;
    }

    @Override
    public void request(byte[] envelope, String charset) {
        SignatureCheck.Signed signed = check(envelope, charset);
        if (signed != null) {
            replays.use(signed.value(), signed.until());
        }
    }

    @Override
    public byte[] answer(byte[] envelope) {
        return signed(envelope);
    }

    private SignatureCheck.Signed check(byte[] envelope, String charset) {
        return trusted.isEmpty()
                ? null
                : new SignatureCheck(SecurityHeader.of(envelope, charset), trusted).check(blocks);
    }

    private byte[] signed(byte[] envelope) {
        if (key == null) {
            return envelope;
        }
        SecurityHeader header = SecurityHeader.of(envelope, StandardCharsets.UTF_8.name());
        if (header.body().getElementsByTagNameNS(XOP, "Include").getLength() > 0) {
            throw new IllegalStateException(
                    "a message with content beside it cannot be signed: set notOptimized() or a larger optimizedFrom");
        }
        Element security = header.madeSecurity();
        Element stamp = SecurityHeader.child(security, SecurityHeader.UTILITY, "Timestamp");
        if (stamp == null) {
            stamp = header.addTimestamp(security, Instant.now().truncatedTo(ChronoUnit.MILLIS));
        }
        List<Element> covered = new ArrayList<>(List.of(header.body(), stamp));
        blocks.forEach(block -> covered.addAll(header.blocks(block.getNamespaceURI(), block.getLocalPart())));
        try {
            sign(header, security, covered);
        } catch (GeneralSecurityException | MarshalException | XMLSignatureException e) {
            throw new IllegalStateException("the message cannot be signed: " + e.getMessage(), e);
        }
        return header.write();
    }

    private void sign(SecurityHeader header, Element security, List<Element> covered)
            throws GeneralSecurityException, MarshalException, XMLSignatureException {
        XMLSignatureFactory factory = XMLSignatureFactory.getInstance("DOM");
        List<Reference> references = new ArrayList<>();
        for (Element element : covered) {
            references.add(factory.newReference(
                    "#" + identify(element),
                    factory.newDigestMethod(DigestMethod.SHA256, null),
                    List.of(factory.newTransform(EXCLUSIVE, (TransformParameterSpec) null)),
                    null,
                    null));
        }
        SignedInfo info = factory.newSignedInfo(
                factory.newCanonicalizationMethod(EXCLUSIVE, (C14NMethodParameterSpec) null),
                factory.newSignatureMethod(method(), null),
                references);
        Element token = header.add(security, SecurityHeader.SECEXT, "BinarySecurityToken", encoded(), false);
        token.setAttribute("EncodingType", SecurityHeader.BASE64);
        token.setAttribute("ValueType", SecurityHeader.X509);
        Element where = header.add(security, SecurityHeader.SECEXT, "SecurityTokenReference", null, false);
        Element reference = header.add(where, SecurityHeader.SECEXT, "Reference", null, false);
        reference.setAttribute("URI", "#" + identify(token));
        reference.setAttribute("ValueType", SecurityHeader.X509);
        security.removeChild(where);
        KeyInfo about = factory.getKeyInfoFactory().newKeyInfo(List.of(new DOMStructure(where)));
        DOMSignContext context = new DOMSignContext(key, security);
        context.setDefaultNamespacePrefix("ds");
        for (Element element : covered) {
            context.setIdAttributeNS(element, SecurityHeader.UTILITY, "Id");
        }
        factory.newXMLSignature(info, about).sign(context);
    }

    private String method() {
        return switch (key.getAlgorithm()) {
            case "RSA" -> "http://www.w3.org/2001/04/xmldsig-more#rsa-sha256";
            case "EC" -> "http://www.w3.org/2001/04/xmldsig-more#ecdsa-sha256";
            default -> throw new IllegalStateException("a key to sign with is RSA or EC, not " + key.getAlgorithm());
        };
    }

    private String encoded() throws CertificateEncodingException {
        return Base64.getEncoder().encodeToString(certificate.getEncoded());
    }

    /** The identifier of an element, given to it if it has none. */
    private static String identify(Element element) {
        String id = SecurityHeader.attribute(element, SecurityHeader.UTILITY, "Id");
        if (id.isEmpty()) {
            byte[] random = new byte[12];
            RANDOM.nextBytes(random);
            id = "id-" + Base64.getUrlEncoder().withoutPadding().encodeToString(random);
            element.setAttributeNS(XMLConstants.XMLNS_ATTRIBUTE_NS_URI, "xmlns:wsu", SecurityHeader.UTILITY);
            element.setAttributeNS(SecurityHeader.UTILITY, "wsu:Id", id);
        }
        return id;
    }
}
