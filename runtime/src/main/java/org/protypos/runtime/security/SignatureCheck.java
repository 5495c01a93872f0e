package org.protypos.runtime.security;

import java.security.GeneralSecurityException;
import java.security.cert.CertPathValidator;
import java.security.cert.CertPathValidatorException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.PKIXParameters;
import java.security.cert.TrustAnchor;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.crypto.KeySelector;
import javax.xml.crypto.MarshalException;
import javax.xml.crypto.dsig.CanonicalizationMethod;
import javax.xml.crypto.dsig.Reference;
import javax.xml.crypto.dsig.Transform;
import javax.xml.crypto.dsig.XMLSignature;
import javax.xml.crypto.dsig.XMLSignatureException;
import javax.xml.crypto.dsig.XMLSignatureFactory;
import javax.xml.crypto.dsig.dom.DOMValidateContext;
import javax.xml.namespace.QName;
import org.w3c.dom.Element;

/**
 * Checks the signature of one message: that it is by somebody trusted, that it is good, and that it covers the very
 * elements that are going to be read, not others of their name.
 */
final class SignatureCheck {
    private static final int MOST_REFERENCES = 30;

    /** What an element may be signed as: the content that it has, one way or the other (Canonical XML 1.0; Exclusive XML Canonicalization 1.0). */
    private static final Set<String> CANONICAL =
            Set.of(CanonicalizationMethod.EXCLUSIVE, CanonicalizationMethod.INCLUSIVE);

    /**
     * A good signature.
     *
     * @param value its value, which no other message has
     * @param until when the message has expired
     */
    record Signed(String value, Instant until) {}

    private final SecurityHeader message;
    private final List<X509Certificate> trusted;
    private final Map<String, Element> identified;

    SignatureCheck(SecurityHeader message, List<X509Certificate> trusted) {
        this.message = message;
        this.trusted = trusted;
        this.identified = message.identified();
    }

    /**
     * Checks that the body, the time stamp and some header blocks are signed, as far as they are there.
     *
     * @return what tells the message from all others
     * @throws SecurityException when they are not
     */
    Signed check(List<QName> blocks) {
        Element security = message.security();
        Element signature = security == null ? null : SecurityHeader.child(security, XMLSignature.XMLNS, "Signature");
        if (signature == null) {
            String reason = message.faultReason();
            throw new SecurityException(
                    "the message is not signed" + (reason == null ? "" : "; it is a fault: " + reason));
        }
        Set<Element> covered = new HashSet<>();
        String value;
        try {
            X509Certificate by = trusted(new SigningCertificate(security, trusted).of(signature));
            value = covered(signature, by, covered);
        } catch (CertificateException | CertPathValidatorException e) {
            throw new SecurityException("the certificate of the signature is not trusted", e);
        } catch (GeneralSecurityException | MarshalException | XMLSignatureException | IllegalArgumentException e) {
            throw new SecurityException("the signature cannot be checked: " + e.getMessage(), e);
        }
        covered.forEach(element -> atItsPlace(security, element));
        want(covered, message.body());
        Element stamp = SecurityHeader.child(security, SecurityHeader.UTILITY, "Timestamp");
        if (stamp == null) {
            throw new SecurityException("the security header does not say when the message was made");
        }
        want(covered, stamp);
        for (QName block : blocks) {
            message.blocks(block.getNamespaceURI(), block.getLocalPart()).forEach(element -> want(covered, element));
        }
        SecurityHeader.checkTime(security);
        return new Signed(value, SecurityHeader.end(stamp));
    }

    /** What was signed must be what is read: the body, a header block, or a part of this security header. */
    private void atItsPlace(Element security, Element element) {
        boolean stamp =
                SecurityHeader.UTILITY.equals(element.getNamespaceURI()) && "Timestamp".equals(element.getLocalName());
        boolean inHeader = element.getParentNode() == security
                || element != security && element.getParentNode() == security.getParentNode() && !stamp;
        if (element != message.body() && !inHeader) {
            throw new SecurityException(
                    "the signature covers <" + element.getLocalName() + "> in a place where nobody looks for it");
        }
    }

    private static void want(Set<Element> covered, Element element) {
        if (covered.stream().noneMatch(one -> one == element)) {
            throw new SecurityException("the signature does not cover <" + element.getLocalName() + ">");
        }
    }

    /** Checks the signature, gives what it covers to a set, and returns its value. */
    private String covered(Element element, X509Certificate by, Set<Element> covered)
            throws GeneralSecurityException, MarshalException, XMLSignatureException {
        XMLSignatureFactory factory = XMLSignatureFactory.getInstance("DOM");
        DOMValidateContext context =
                new DOMValidateContext(KeySelector.singletonKeySelector(by.getPublicKey()), element);
        context.setProperty("org.jcp.xml.dsig.secureValidation", true);
        identified.forEach((id, one) -> context.setIdAttributeNS(one, SecurityHeader.UTILITY, "Id"));
        XMLSignature signature = factory.unmarshalXMLSignature(context);
        List<Reference> references = signature.getSignedInfo().getReferences();
        if (references.size() > MOST_REFERENCES) {
            throw new SecurityException("the signature covers too many parts");
        }
        for (Reference reference : references) {
            covered.add(target(reference));
        }
        if (!signature.validate(context)) {
            throw new SecurityException("the signature is wrong: the message has been changed or is by somebody else");
        }
        return Base64.getEncoder().encodeToString(signature.getSignatureValue().getValue());
    }

    /** The element that a reference is to; it must be signed as it stands, not what some transform makes of it. */
    private Element target(Reference reference) {
        String uri = String.valueOf(reference.getURI());
        Element target = uri.startsWith("#") ? identified.get(uri.substring(1)) : null;
        if (target == null) {
            throw new SecurityException("the signature is of something that is not in the message");
        }
        for (Transform transform : reference.getTransforms()) {
            if (!CANONICAL.contains(transform.getAlgorithm())) {
                throw new SecurityException(
                        "the signature uses the transform " + transform.getAlgorithm() + ", which is not supported");
            }
        }
        return target;
    }

    private X509Certificate trusted(X509Certificate candidate) throws GeneralSecurityException {
        candidate.checkValidity();
        if (trusted.contains(candidate)) {
            return candidate;
        }
        PKIXParameters parameters = new PKIXParameters(
                trusted.stream().map(one -> new TrustAnchor(one, null)).collect(Collectors.toSet()));
        parameters.setRevocationEnabled(false);
        CertPathValidator.getInstance("PKIX")
                .validate(CertificateFactory.getInstance("X.509").generateCertPath(List.of(candidate)), parameters);
        return candidate;
    }
}
