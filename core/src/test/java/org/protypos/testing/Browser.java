package org.protypos.testing;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.junit.jupiter.api.Assumptions;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;

/** A browser in which pages are tried as people use them. */
public final class Browser {
    private static final List<Path> BROWSERS = List.of(Path.of("/usr/bin/chromium"), Path.of("/usr/bin/google-chrome"));
    private static final Path DRIVER = Path.of("/usr/bin/chromedriver");
    private static final Logger QUIET = Logger.getLogger("org.openqa.selenium");

    private Browser() {}

    /**
     * Opens one; without it the test is skipped.
     *
     * @param folder where it keeps what it has to keep
     */
    public static ChromeDriver open(Path folder) {
        Path program = BROWSERS.stream().filter(Files::isExecutable).findFirst().orElse(null);
        Assumptions.assumeTrue(program != null && Files.isExecutable(DRIVER), "no Chromium with its driver here");
        ChromeOptions options = new ChromeOptions();
        options.setBinary(program.toFile());
        options.addArguments(
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--lang=en-GB",
                "--user-data-dir=" + folder.resolve("profile"));
        // It would rather know the very version of the browser; nothing here needs that.
        QUIET.setLevel(Level.SEVERE);
        ChromeDriver browser = started(options, new File(folder.toFile(), "driver.log"));
        browser.manage().window().setSize(new Dimension(1280, 900));
        return browser;
    }

    /** Its driver is told its port in the digits of this place, which it does not read. */
    private static ChromeDriver started(ChromeOptions options, File log) {
        Locale here = Locale.getDefault();
        Locale.setDefault(Locale.ROOT);
        try {
            ChromeDriverService service = new ChromeDriverService.Builder()
                    .usingDriverExecutable(DRIVER.toFile())
                    .usingAnyFreePort()
                    .withLogFile(log)
                    .build();
            return new ChromeDriver(service, options);
        } finally {
            Locale.setDefault(here);
        }
    }

    /** What keeps somebody from reading or using the page that is open, by light and in the dark; empty when nothing does. */
    public static List<String> complaints(ChromeDriver browser) throws IOException {
        String script = Files.readString(Path.of("src/test/resources/page/accessible.js"));
        List<String> complaints = new ArrayList<>();
        for (String scheme : List.of("light", "dark")) {
            browser.executeCdpCommand(
                    "Emulation.setEmulatedMedia",
                    Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", scheme))));
            ((List<?>) browser.executeScript(script)).forEach(one -> complaints.add(scheme + ": " + one));
        }
        return complaints;
    }
}
