package org.protypos.cli.argument;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.runtime.security.UsernameToken;
import org.protypos.runtime.security.XmlSignature;
import org.protypos.runtime.soap.SoapSettings;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** How a call shows who makes it. What is secret comes from the environment and stands on no command line. */
public final class SecurityArguments implements Described {
    private String security;
    private Path sign;
    private XmlSignature signature;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.option(
                        String.class,
                        "--security",
                        "HOW",
                        "How the message shows PROTYPOS_USER: text or digest, in a WS-Security header block.")
                .into(value -> security = value);
        syntax.option(
                        Path.class,
                        "--sign",
                        "KEYSTORE",
                        "Signs the body with the key of a PKCS #12 file; PROTYPOS_KEY_PASSWORD opens it.")
                .into(value -> sign = value);
    }

    /**
     * Takes what the environment has.
     *
     * @param kept how a call that is made again showed it, or null
     * @throws ParameterException when something is missing
     */
    public void prepare(CommandSpec spec, String kept) {
        security = security == null ? kept : security;
        signature = sign == null ? null : signature(sign, spec);
        if (security != null && !List.of("text", "digest").contains(security)) {
            throw new ParameterException(spec.commandLine(), "--security: is text or digest");
        }
        if (security != null && (user() == null || password() == null)) {
            throw new ParameterException(
                    spec.commandLine(), "--security: PROTYPOS_USER and PROTYPOS_PASSWORD say who calls");
        }
    }

    /** Whether anything is asked for. */
    public boolean isGiven() {
        return security != null || sign != null;
    }

    /** How the message shows who calls, or null. */
    public String how() {
        return security;
    }

    private static String user() {
        return System.getenv("PROTYPOS_USER");
    }

    private static String password() {
        return System.getenv("PROTYPOS_PASSWORD");
    }

    /** Settings with all of it. */
    public SoapSettings applied(SoapSettings plain) {
        SoapSettings settings = signature == null ? plain : plain.interceptor(signature);
        if (security == null) {
            return authorized(settings);
        }
        return settings.soapHeader(
                security.equals("text")
                        ? UsernameToken.text(user(), password())
                        : UsernameToken.digest(user(), password()));
    }

    /** Settings with who calls as HTTP shows it, if the environment says so. */
    static SoapSettings authorized(SoapSettings settings) {
        SoapSettings shown = settings;
        for (Map.Entry<String, String> header : authorization().entrySet()) {
            shown = shown.httpHeader(header.getKey(), header.getValue());
        }
        return shown;
    }

    /** The header field that shows who calls (RFC 6750, section 2.1; RFC 7617, section 2), if the environment says so. */
    public static Map<String, String> authorization() {
        String token = System.getenv("PROTYPOS_TOKEN");
        if (token != null) {
            return Map.of("Authorization", "Bearer " + token);
        }
        if (user() == null || password() == null) {
            return Map.of();
        }
        return Map.of("Authorization", SoapSettings.basic(user(), password()));
    }

    /**
     * A signature by the first key in a PKCS #12 file; the environment has its password.
     *
     * @throws ParameterException when there is no key in it, or it cannot be opened
     */
    private static XmlSignature signature(Path file, CommandSpec spec) {
        String given = System.getenv("PROTYPOS_KEY_PASSWORD");
        char[] password = given == null ? new char[0] : given.toCharArray();
        try (InputStream in = Files.newInputStream(file)) {
            KeyStore keys = KeyStore.getInstance("PKCS12");
            keys.load(in, password);
            for (String alias : Collections.list(keys.aliases())) {
                if (keys.getKey(alias, password) instanceof PrivateKey key
                        && keys.getCertificate(alias) instanceof X509Certificate certificate) {
                    return XmlSignature.by(key, certificate);
                }
            }
        } catch (GeneralSecurityException | IOException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--sign: " + file
                            + " cannot be opened; is it a PKCS #12 file, and PROTYPOS_KEY_PASSWORD its password?");
        }
        throw new ParameterException(spec.commandLine(), "--sign: there is no key in " + file);
    }
}
