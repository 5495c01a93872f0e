package org.protypos.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.print.PrintOptions;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.reference.page.ComparedPage;
import org.protypos.reference.page.ReferencePage;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Browser;

/** The page about a contract in a browser, read from a file. */
class ReferencePageTest {
    @TempDir
    private static Path folder;

    private static ChromeDriver browser;

    @BeforeAll
    static void open() {
        browser = Browser.open(folder);
    }

    @AfterAll
    static void close() {
        if (browser != null) {
            browser.quit();
        }
    }

    private static Contract read(Path contract) {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
        assertThat(read.isSound()).isTrue();
        return read;
    }

    private static void page(Path contract) throws IOException {
        Contract read = read(contract);
        Map<String, String> names = Map.of("~{http://lanternbay.example/harbour/vessels}Yacht", "vessels.Yacht");
        Path file = folder.resolve("page.html");
        Files.writeString(
                file,
                new ReferencePage(read, new ContractReference(read, Map.of()), "a <contract>")
                        .language("Java", names)
                        .language("C#", Map.of("~{http://lanternbay.example/harbour/vessels}Yacht", "Vessels.Yacht"))
                        .findings(read.findings())
                        .text());
        browser.get(file.toUri().toString());
    }

    private static String text(String selector) {
        return browser.findElement(By.cssSelector(selector)).getText();
    }

    private static void nothingWentWrong() {
        assertThat(browser.manage().logs().get(LogType.BROWSER).getAll()).isEmpty();
    }

    @Test
    void itIsReadWithTheKeyboardAlone() throws IOException {
        page(Path.of("../examples/harbour/contract/desk.wsdl"));
        assertThat(text("nav h1")).isEqualTo("a <contract>");
        assertThat(Browser.complaints(browser)).isEmpty();
        assertThat(text("main")).contains("HarbourOffice", "SOAP 1.2", "Finds a vessel by its call sign.");
        browser.switchTo().activeElement().sendKeys("/");
        WebElement search = browser.switchTo().activeElement();
        search.sendKeys("yach");
        assertThat(text("#found")).isEqualTo("1 found");
        search.sendKeys(Keys.ENTER);
        assertThat(text("main h2")).isEqualTo("Yacht type");
        assertThat(text("main .tree")).contains("@callSign", "owner", "one of");
        assertThat(browser.findElements(By.cssSelector("main svg text"))).hasSizeGreaterThan(7);
        assertThat(text("main pre.signature")).isEqualTo("vessels.Yacht");
        assertThat(Browser.complaints(browser)).isEmpty();
        browser.findElements(By.cssSelector("[role=tab]")).get(1).sendKeys(Keys.SPACE);
        assertThat(text("main pre.signature")).isEqualTo("Vessels.Yacht");
        String here = browser.getCurrentUrl();
        browser.navigate().refresh();
        assertThat(browser.getCurrentUrl()).isEqualTo(here);
        assertThat(text("main h2")).isEqualTo("Yacht type");
        assertThat(text("main pre.signature")).isEqualTo("Vessels.Yacht");
        browser.findElement(By.cssSelector("main a.mono")).sendKeys(Keys.ENTER);
        assertThat(text("main h2")).isEqualTo("vessels.xsd");
        assertThat(text("main .here")).contains("name=\"Yacht\"");
        assertThat(Browser.complaints(browser)).isEmpty();
        browser.findElement(By.cssSelector("nav h1 a")).sendKeys(Keys.ENTER);
        browser.findElement(By.cssSelector("main table a")).sendKeys(Keys.ENTER);
        browser.findElements(By.cssSelector(".tree button")).stream()
                .filter(button -> "false".equals(button.getDomAttribute("aria-expanded")))
                .forEach(button -> button.sendKeys(Keys.ENTER));
        assertThat(browser.findElements(By.cssSelector(".tree button[aria-expanded=false]")))
                .isEmpty();
        nothingWentWrong();
    }

    @Test
    void oldAndNewStandBesideEachOther() throws IOException {
        compared(Path.of("../examples/harbour/contract/desk.wsdl"), Path.of("../examples/harbour/next/desk.wsdl"));
        assertThat(text("main h2")).isEqualTo("1 difference.");
        assertThat(text(".readers")).contains("3\nbreaks for everybody", "nothing\nbreaks for nobody");
        assertThat(text(".differences")).contains("quay is quayside", "because", "desk.xsd:");
        browser.findElement(By.cssSelector(".differences a")).sendKeys(Keys.ENTER);
        assertThat(text("main h2")).isEqualTo("Berth type");
        assertThat(rows())
                .containsExactly(
                        "old | new",
                        "number int 1 | number int 1",
                        "~quay string 1 | ~quayside string 1",
                        "depthInMetres decimal 1 | depthInMetres decimal 1",
                        "| +lit boolean 0..1");
        assertThat(text(".pairs del")).isEqualTo("quay");
        assertThat(browser.findElements(By.cssSelector("svg rect.added"))).hasSize(1);
        assertThat(Browser.complaints(browser)).isEmpty();
        // The way to it is open from whoever has it in itself.
        browser.get(browser.getCurrentUrl().replaceFirst("#.*", "#element"));
        browser.findElement(By.cssSelector("#search")).sendKeys("requestBerth", Keys.ENTER);
        assertThat(text("main h2")).isEqualTo("requestBerth operation of HarbourDesk");
        assertThat(rows()).contains("•offer BerthOffer 1 | •offer BerthOffer 1", "| +lit boolean 0..1");
        compared(Path.of("../examples/harbour/next/desk.wsdl"), Path.of("../examples/harbour/contract/desk.wsdl"));
        browser.get(browser.getCurrentUrl() + "#~{http://lanternbay.example/harbour/desk}Berth");
        assertThat(rows()).contains("−lit boolean 0..1 |");
        nothingWentWrong();
    }

    /** The rows of the tree, with what is left and right in them. */
    private static List<String> rows() {
        return browser.findElements(By.cssSelector(".pairs .row")).stream()
                .map(row -> row.findElements(By.cssSelector(".old, .new")).stream()
                        .map(half -> half.getText().replaceAll("\\s+", " "))
                        .collect(Collectors.joining(" | "))
                        .strip())
                .toList();
    }

    private static void compared(Path old, Path now) throws IOException {
        Contract before = read(old);
        Contract after = read(now);
        String berth = "~{http://lanternbay.example/harbour/desk}Berth";
        Path file = folder.resolve("compared.html");
        Files.writeString(
                file,
                new ComparedPage(
                                before,
                                after,
                                new ComparedReference(
                                        new ContractReference(before, Map.of()),
                                        new ContractReference(after, Map.of()),
                                        name -> name.replace("quayside", "quay")),
                                "old → new")
                        .summary("1 difference", new TreeMap<>(Map.of("everybody", 3L, "nobody", 0L)))
                        .difference(new ComparedPage.Told(
                                "renamed",
                                berth + "/{http://lanternbay.example/harbour/desk}quay",
                                "quay is quayside",
                                "",
                                true,
                                before.schema()
                                        .types()
                                        .get(QName.valueOf(berth.substring(1)))
                                        .place(),
                                null,
                                List.of(new ComparedPage.Shown("because", "at <quay>", "<quay/>"))))
                        .text());
        browser.get(file.toUri().toString());
    }

    /** What rules say stands at what they say it of, with what they correct and why. */
    @Test
    void rulesAreMarked() throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {desk: "http://lanternbay.example/harbour/desk"}
                rules:
                  - on: ~desk:Berth
                    name: Mooring
                  - on: ~desk:Berth/desk:depthInMetres
                    nillable: true
                    because: nobody sounds every berth
                """);
        PlannedContract planned = Generator.of(read(Path.of("../examples/harbour/contract/desk.wsdl")))
                .rules(List.of(rules))
                .plan();
        Path file = folder.resolve("ruled.html");
        Files.writeString(
                file,
                new ReferencePage(planned.contract(), new ContractReference(planned.contract(), Map.of()), "ruled")
                        .rules(planned.rules())
                        .text());
        browser.get(file.toUri() + "#~{http://lanternbay.example/harbour/desk}Berth");
        assertThat(text("main .rules")).startsWith("§name: Mooring").endsWith("rules.yaml:3:5");
        assertThat(text(".tree .rule"))
                .isEqualTo("§nillable: true (nillable false nillable true), nobody sounds every berth");
        assertThat(text(".tree .rule del")).isEqualTo("nillable false");
        assertThat(Browser.complaints(browser)).isEmpty();
        nothingWentWrong();
    }

    @Test
    void nothingInAContractIsMarkup() throws IOException {
        Path evil = Files.writeString(folder.resolve("evil.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <!-- </script><script>document.title = "owned"</script> -->
                  <xs:complexType name="Evil"><xs:annotation><xs:documentation>
                    &lt;/script>&lt;script>document.title = "owned"&lt;/script>&lt;img src=x onerror="document.title='owned'">
                    </xs:documentation></xs:annotation><xs:sequence>
                    <xs:element name="value" default="&lt;b>bold&lt;/b>" type="xs:string"/></xs:sequence></xs:complexType>
                </xs:schema>
                """);
        page(evil);
        browser.get(browser.getCurrentUrl() + "#~Evil");
        assertThat(text("main h2")).isEqualTo("Evil type");
        assertThat(text("main")).contains("<img src=x onerror=", "<b>bold</b> when empty");
        assertThat(browser.findElements(By.cssSelector("main img, main b"))).isEmpty();
        assertThat(browser.getTitle()).isEqualTo("Evil – a <contract>");
        browser.get(browser.getCurrentUrl().replaceFirst("#.*", "#%3Cscript%3E"));
        assertThat(text("main")).contains("There is nothing called <script> in this contract.");
        nothingWentWrong();
    }

    @Test
    void theScriptsDoWhatTheyShould() throws IOException {
        page(Path.of("../examples/harbour/contract/desk.wsdl"));
        assertThat((List<?>) browser.executeScript(Files.readString(Path.of("src/test/resources/page/scripts.js"))))
                .isEmpty();
    }

    @Test
    void itIsPrintedWithoutItsList() throws IOException {
        page(Path.of("../examples/harbour/contract/desk.wsdl"));
        byte[] pdf =
                Base64.getDecoder().decode(browser.print(new PrintOptions()).getContent());
        assertThat(new String(pdf, 0, 5, StandardCharsets.US_ASCII)).isEqualTo("%PDF-");
        browser.executeScript("window.dispatchEvent(new Event('beforeprint'))");
        assertThat(browser.findElements(By.cssSelector("#whole ol li"))).hasSizeGreaterThan(30);
        assertThat(browser.findElements(By.cssSelector("#whole article"))).hasSizeGreaterThan(30);
        browser.executeScript("window.dispatchEvent(new Event('afterprint'))");
        assertThat(browser.findElements(By.cssSelector("#whole"))).isEmpty();
        Object hidden = browser.executeScript(
                "return [...document.styleSheets[0].cssRules].some(rule => rule.media && rule.media.mediaText === 'print')");
        assertThat(hidden).isEqualTo(true);
    }
}
