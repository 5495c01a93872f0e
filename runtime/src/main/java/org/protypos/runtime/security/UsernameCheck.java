package org.protypos.runtime.security;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.Objects;
import java.util.function.UnaryOperator;
import org.protypos.runtime.soap.SoapGuard;
import org.w3c.dom.Element;

/**
 * Lets only those call an endpoint who show a name and its password (OASIS Web Services Security 1.1, UsernameToken
 * Profile), as text or as a digest. A digest is good for five minutes and only once.
 */
public final class UsernameCheck implements SoapGuard {

    private final UnaryOperator<String> passwords;
    private final Replays replays = new Replays();

    private UsernameCheck(UnaryOperator<String> passwords) {
        this.passwords = passwords;
    }

    /**
     * Gives a check.
     *
     * @param passwords gives the password of a name, or null for a name that must not call
     */
    public static UsernameCheck of(UnaryOperator<String> passwords) {
        return new UsernameCheck(Objects.requireNonNull(passwords, "passwords"));
    }

    @Override
    public void request(byte[] envelope, String charset) {
        Element security = SecurityHeader.of(envelope, charset).security();
        Element token =
                security == null ? null : SecurityHeader.child(security, SecurityHeader.SECEXT, "UsernameToken");
        if (token == null) {
            throw new SecurityException("the message shows no user name");
        }
        SecurityHeader.checkTime(security);
        Element shown = SecurityHeader.child(token, SecurityHeader.SECEXT, "Password");
        String password = passwords.apply(text(token, SecurityHeader.SECEXT, "Username"));
        // Whether the name or the password is wrong is nobody's business.
        if (shown == null || password == null || !isShown(token, shown, password)) {
            throw new SecurityException("the user name or the password is wrong");
        }
    }

    private boolean isShown(Element token, Element shown, String password) {
        String is = shown.getTextContent();
        if (!shown.getAttribute("Type").endsWith("#PasswordDigest")) {
            return same(is, password);
        }
        String created = text(token, SecurityHeader.UTILITY, "Created");
        String nonce = text(token, SecurityHeader.SECEXT, "Nonce").strip();
        Element made = SecurityHeader.child(token, SecurityHeader.UTILITY, "Created");
        if (made == null || nonce.isEmpty()) {
            throw new SecurityException("a digest needs a nonce and the time");
        }
        Instant at = SecurityHeader.instant(made);
        SecurityHeader.checkFresh(at);
        byte[] bytes;
        try {
            bytes = Base64.getMimeDecoder().decode(nonce);
        } catch (IllegalArgumentException e) {
            throw new SecurityException("the nonce cannot be read", e);
        }
        if (!same(is.strip(), UsernameToken.digested(bytes, created, password))) {
            return false;
        }
        replays.use(nonce, at.plus(SecurityHeader.LIFE));
        return true;
    }

    private static String text(Element token, String namespace, String name) {
        Element element = SecurityHeader.child(token, namespace, name);
        return element == null ? "" : element.getTextContent();
    }

    /** Compares in a time that tells nothing of where the difference is. */
    private static boolean same(String a, String b) {
        return MessageDigest.isEqual(a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8));
    }
}
