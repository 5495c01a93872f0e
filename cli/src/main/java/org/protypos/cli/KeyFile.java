package org.protypos.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.util.Collections;
import org.protypos.runtime.security.XmlSignature;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Takes the key that signs from a file. */
final class KeyFile {
    private KeyFile() {}

    /**
     * A signature by the first key in a PKCS #12 file; the environment has its password.
     *
     * @throws ParameterException when there is no key in it, or it cannot be opened
     */
    static XmlSignature signature(Path file, CommandSpec spec) {
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
