package org.protypos.runtime.security;

import java.io.ByteArrayInputStream;
import java.math.BigInteger;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.function.Predicate;
import javax.security.auth.x500.X500Principal;
import javax.xml.crypto.dsig.XMLSignature;
import org.w3c.dom.Element;

/**
 * Finds the certificate that a signature says it is by: one that travels with the message, or one of those that are trusted, by
 * its issuer and number, its subject, its key or its thumbprint (XML Signature 1.1, section 4.5; Web Services Security 1.1, X.509
 * Certificate Token Profile, section 3.2).
 */
final class SigningCertificate {
    /** The extension that identifies a key (RFC 5280, section 4.2.1.2). */
    private static final String KEY_IDENTIFIER = "2.5.29.14";

    private final Element security;
    private final List<X509Certificate> trusted;

    SigningCertificate(Element security, List<X509Certificate> trusted) {
        this.security = security;
        this.trusted = trusted;
    }

    /**
     * Finds it. It may be one that nobody trusts.
     *
     * @throws SecurityException when the signature does not say, or says one that is not there
     */
    X509Certificate of(Element signature) throws GeneralSecurityException {
        Element about = SecurityHeader.child(signature, XMLSignature.XMLNS, "KeyInfo");
        Element where =
                about == null ? null : SecurityHeader.child(about, SecurityHeader.SECEXT, "SecurityTokenReference");
        Element reference = where == null ? null : SecurityHeader.child(where, SecurityHeader.SECEXT, "Reference");
        if (reference != null) {
            return token(reference.getAttribute("URI"));
        }
        Element identifier = where == null ? null : SecurityHeader.child(where, SecurityHeader.SECEXT, "KeyIdentifier");
        if (identifier != null) {
            return identified(identifier);
        }
        for (Element around : where == null ? listOf(about) : List.of(where)) {
            Element data = SecurityHeader.child(around, XMLSignature.XMLNS, "X509Data");
            if (data != null) {
                return described(data);
            }
        }
        if (trusted.size() > 1) {
            throw new SecurityException("the signature does not say which certificate it is by");
        }
        return trusted.get(0);
    }

    private static List<Element> listOf(Element element) {
        return element == null ? List.of() : List.of(element);
    }

    private X509Certificate token(String uri) throws GeneralSecurityException {
        for (Element token : SecurityHeader.children(security, SecurityHeader.SECEXT, "BinarySecurityToken")) {
            String id = SecurityHeader.attribute(token, SecurityHeader.UTILITY, "Id");
            if (!id.isEmpty() && uri.equals("#" + id)) {
                return parsed(token);
            }
        }
        throw new SecurityException("the signature is by a certificate that is not in the message");
    }

    private static X509Certificate parsed(Element base64) throws GeneralSecurityException {
        return (X509Certificate)
                CertificateFactory.getInstance("X.509").generateCertificate(new ByteArrayInputStream(bytes(base64)));
    }

    private static byte[] bytes(Element base64) {
        return Base64.getMimeDecoder().decode(base64.getTextContent());
    }

    private X509Certificate identified(Element identifier) throws GeneralSecurityException {
        String kind = identifier.getAttribute("ValueType");
        if (kind.endsWith("#X509v3")) {
            return parsed(identifier);
        }
        byte[] wanted = bytes(identifier);
        if (kind.endsWith("#ThumbprintSHA1")) {
            MessageDigest digest = MessageDigest.getInstance("SHA-1");
            for (X509Certificate one : trusted) {
                if (Arrays.equals(digest.digest(one.getEncoded()), wanted)) {
                    return one;
                }
            }
        }
        return amongTrusted(one -> Arrays.equals(keyIdentifier(one), wanted));
    }

    /** By the certificate itself, or by what tells it from others. */
    private X509Certificate described(Element data) throws GeneralSecurityException {
        List<X509Certificate> given = new ArrayList<>();
        for (Element one : SecurityHeader.children(data, XMLSignature.XMLNS, "X509Certificate")) {
            given.add(parsed(one));
        }
        if (!given.isEmpty()) {
            // A chain may be given in any order: the signature is by the one that has issued none of the others.
            return given.stream()
                    .filter(one -> given.stream()
                            .noneMatch(other -> other != one
                                    && other.getIssuerX500Principal().equals(one.getSubjectX500Principal())))
                    .findFirst()
                    .orElse(given.get(0));
        }
        Element serial = SecurityHeader.child(data, XMLSignature.XMLNS, "X509IssuerSerial");
        if (serial != null) {
            X500Principal issuer = new X500Principal(text(serial, "X509IssuerName"));
            BigInteger number = new BigInteger(text(serial, "X509SerialNumber"));
            return amongTrusted(one -> one.getIssuerX500Principal().equals(issuer)
                    && one.getSerialNumber().equals(number));
        }
        Element key = SecurityHeader.child(data, XMLSignature.XMLNS, "X509SKI");
        if (key != null) {
            byte[] wanted = bytes(key);
            return amongTrusted(one -> Arrays.equals(keyIdentifier(one), wanted));
        }
        Element subject = SecurityHeader.child(data, XMLSignature.XMLNS, "X509SubjectName");
        if (subject != null) {
            X500Principal wanted = new X500Principal(subject.getTextContent().strip());
            return amongTrusted(one -> one.getSubjectX500Principal().equals(wanted));
        }
        throw new SecurityException("the signature does not say which certificate it is by");
    }

    private static String text(Element of, String name) {
        Element part = SecurityHeader.child(of, XMLSignature.XMLNS, name);
        return part == null ? "" : part.getTextContent().strip();
    }

    private X509Certificate amongTrusted(Predicate<X509Certificate> meant) {
        return trusted.stream()
                .filter(meant)
                .findFirst()
                .orElseThrow(() -> new SecurityException("the signature is by a certificate that is not trusted"));
    }

    /** The identifier without the two lengths around it; no bytes for a certificate that has none. */
    private static byte[] keyIdentifier(X509Certificate certificate) {
        byte[] extension = certificate.getExtensionValue(KEY_IDENTIFIER);
        return extension == null || extension.length < 4
                ? new byte[0]
                : Arrays.copyOfRange(extension, 4, extension.length);
    }
}
