package org.protypos.cli;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Path;
import org.protypos.generator.Version;
import picocli.CommandLine.IVersionProvider;

/** Says which program this is, for who reports something about it. */
final class Installation implements IVersionProvider {
    @Override
    public String[] getVersion() throws URISyntaxException, IOException {
        return new String[] {
            "protypos " + Version.current(),
            "Java " + Runtime.version() + " (" + System.getProperty("java.vendor") + ") in "
                    + System.getProperty("java.home"),
            "runs from " + place().toRealPath()
        };
    }

    /** The jar, or the folder of classes. */
    static Path place() throws URISyntaxException {
        return Path.of(Installation.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
    }
}
