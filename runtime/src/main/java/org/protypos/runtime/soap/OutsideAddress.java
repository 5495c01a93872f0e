package org.protypos.runtime.soap;

import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;
import java.util.Properties;

/** Finds the address of a port where it was set without the code being touched; see {@link SoapSettings} for the order. */
final class OutsideAddress {
    private static final String FILE = "addresses.properties";

    private OutsideAddress() {}

    static String of(String service, String port, String inContract) {
        String key = service + "." + port;
        String property = System.getProperty("address." + key);
        if (property != null) {
            return property.strip();
        }
        String variable =
                System.getenv("ADDRESS_" + key.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]", "_"));
        if (variable != null) {
            return variable.strip();
        }
        String entry = file().getProperty(key);
        return entry == null ? inContract : entry.strip();
    }

    private static Properties file() {
        Properties properties = new Properties();
        ClassLoader loader = Thread.currentThread().getContextClassLoader();
        ClassLoader any = loader == null ? OutsideAddress.class.getClassLoader() : loader;
        try (InputStream stream = any.getResourceAsStream(FILE)) {
            if (stream != null) {
                properties.load(stream);
            }
        } catch (IOException | IllegalArgumentException e) {
            throw new IllegalStateException(FILE + " on the class path cannot be read: " + e.getMessage(), e);
        }
        return properties;
    }
}
