package org.protypos.runtime.security;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Base64;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTree;

/**
 * The security header block that shows who calls by name and password (OASIS Web Services Security 1.1, UsernameToken
 * Profile), with a time stamp. Give one to {@link org.protypos.runtime.soap.SoapSettings#soapHeader(Supplier)}; it is made
 * anew for each message.
 */
public final class UsernameToken implements Supplier<XmlElement<?>> {
    private static final SecureRandom RANDOM = new SecureRandom();

    private final String user;
    private final String password;
    private final boolean digest;

    private UsernameToken(String user, String password, boolean digest) {
        this.user = user;
        this.password = password;
        this.digest = digest;
    }

    /** The password travels as it is: only a secured transport keeps it secret. */
    public static UsernameToken text(String user, String password) {
        return new UsernameToken(user, password, false);
    }

    /** The password travels as a digest with a nonce and the time, so that it cannot be read or used again. */
    public static UsernameToken digest(String user, String password) {
        return new UsernameToken(user, password, true);
    }

    @Override
    public XmlElement<?> get() {
        Instant now = Instant.now().truncatedTo(ChronoUnit.MILLIS);
        XmlTree security = new XmlTree();
        XmlTree stamp = new XmlTree();
        add(stamp, SecurityHeader.UTILITY, "Created", now.toString());
        add(
                stamp,
                SecurityHeader.UTILITY,
                "Expires",
                now.plus(SecurityHeader.LIFE).toString());
        security.content().add(XmlElement.of(SecurityHeader.UTILITY, "Timestamp", stamp));
        XmlTree token = new XmlTree();
        add(token, SecurityHeader.SECEXT, "Username", user);
        byte[] nonce = new byte[16];
        RANDOM.nextBytes(nonce);
        String shown = digest ? digested(nonce, now.toString(), password) : password;
        add(token, SecurityHeader.SECEXT, "Password", shown)
                .attributes()
                .put(new QName("Type"), SecurityHeader.USERNAME + (digest ? "PasswordDigest" : "PasswordText"));
        if (digest) {
            add(token, SecurityHeader.SECEXT, "Nonce", Base64.getEncoder().encodeToString(nonce))
                    .attributes()
                    .put(new QName("EncodingType"), SecurityHeader.BASE64);
            add(token, SecurityHeader.UTILITY, "Created", now.toString());
        }
        security.content().add(XmlElement.of(SecurityHeader.SECEXT, "UsernameToken", token));
        return XmlElement.of(SecurityHeader.SECEXT, "Security", security);
    }

    private static XmlTree add(XmlTree to, String namespace, String name, String text) {
        XmlTree inner = new XmlTree();
        inner.content().add(text);
        to.content().add(XmlElement.of(namespace, name, inner));
        return inner;
    }

    /** UsernameToken Profile 1.1, section 3.1: Base64(SHA-1(nonce + created + password)). */
    static String digested(byte[] nonce, String created, String password) {
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-1");
            sha.update(nonce);
            sha.update(created.getBytes(StandardCharsets.UTF_8));
            sha.update(password.getBytes(StandardCharsets.UTF_8));
            return Base64.getEncoder().encodeToString(sha.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-1", e);
        }
    }
}
