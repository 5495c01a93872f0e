package org.protypos.runtime.soap;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Base64;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlTree;

/**
 * The security header block that shows who calls by name and password (OASIS Web Services Security 1.1, UsernameToken
 * Profile), with a time stamp. Give one to {@link SoapSettings#soapHeader(Supplier)}; it is made anew for each message.
 */
public final class UsernameToken implements Supplier<XmlElement<?>> {
    private static final String OASIS = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-";
    private static final String SECEXT = OASIS + "wssecurity-secext-1.0.xsd";
    private static final String UTILITY = OASIS + "wssecurity-utility-1.0.xsd";
    private static final String PROFILE = OASIS + "username-token-profile-1.0#";
    private static final String BASE64 = OASIS + "soap-message-security-1.0#Base64Binary";
    private static final Duration LIFE = Duration.ofMinutes(5);
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
        add(stamp, UTILITY, "Created", now.toString());
        add(stamp, UTILITY, "Expires", now.plus(LIFE).toString());
        security.content().add(XmlElement.of(UTILITY, "Timestamp", stamp));
        XmlTree token = new XmlTree();
        add(token, SECEXT, "Username", user);
        byte[] nonce = new byte[16];
        RANDOM.nextBytes(nonce);
        String shown = digest ? digested(nonce, now.toString()) : password;
        add(token, SECEXT, "Password", shown)
                .attributes()
                .put(new QName("Type"), PROFILE + (digest ? "PasswordDigest" : "PasswordText"));
        if (digest) {
            add(token, SECEXT, "Nonce", Base64.getEncoder().encodeToString(nonce))
                    .attributes()
                    .put(new QName("EncodingType"), BASE64);
            add(token, UTILITY, "Created", now.toString());
        }
        security.content().add(XmlElement.of(SECEXT, "UsernameToken", token));
        return XmlElement.of(SECEXT, "Security", security);
    }

    private static XmlTree add(XmlTree to, String namespace, String name, String text) {
        XmlTree inner = new XmlTree();
        inner.content().add(text);
        to.content().add(XmlElement.of(namespace, name, inner));
        return inner;
    }

    /** UsernameToken Profile 1.1, section 3.1: Base64(SHA-1(nonce + created + password)). */
    private String digested(byte[] nonce, String created) {
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
