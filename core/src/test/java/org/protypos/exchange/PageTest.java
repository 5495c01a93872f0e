package org.protypos.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.page.StandInPage;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.reference.ContractReference;
import org.protypos.reference.page.ReferencePage;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Browser;

/** The page of a stand-in in a browser, as somebody uses it who would rather look than type. */
class PageTest {
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

    private static StandIn standIn(String contract, List<StandIn.Seen> seen) throws IOException {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract), null));
        assertThat(read.isSound()).as("%s", read.findings()).isTrue();
        InetSocketAddress any = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        return StandIn.serve(read, any, Answers.NONE, seen::add);
    }

    /** Waits until something is so; the page does all its work by itself. */
    private static void until(String what, Predicate<ChromeDriver> is) throws InterruptedException {
        for (int i = 0; i < 200; i++) {
            try {
                if (is.test(browser)) {
                    return;
                }
            } catch (RuntimeException e) {
                // What was looked at has been drawn anew: look again.
            }
            Thread.sleep(50);
        }
        throw new AssertionError(what + " did not come about:\n"
                + browser.findElement(By.tagName("body")).getText());
    }

    private static WebElement field(String path) {
        return browser.findElement(By.cssSelector("[data-path='" + path + "'] [data-focus='" + path + "']"));
    }

    private static void type(String path, String text) {
        WebElement field = field(path);
        field.clear();
        field.sendKeys(text);
    }

    /** Sets the field of a date or a time as its picker would. */
    private static void pick(String path, String value) {
        browser.executeScript(
                "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', {bubbles: true}))",
                field(path),
                value);
    }

    private static void choose(String focus, String option) throws InterruptedException {
        until(focus, page -> !page.findElements(By.cssSelector("select[data-focus='" + focus + "']"))
                .isEmpty());
        WebElement select = browser.findElement(By.cssSelector("select[data-focus='" + focus + "']"));
        select.findElements(By.tagName("option")).stream()
                .filter(one -> one.getText().equals(option))
                .findFirst()
                .orElseThrow()
                .click();
    }

    private static void press(String label) throws InterruptedException {
        By button = By.cssSelector("button[aria-label='" + label + "']");
        until(label, page -> page.findElement(button).isDisplayed());
        browser.findElement(button).click();
    }

    private static String xml() {
        return browser.findElement(By.id("xml")).getDomProperty("value");
    }

    private static void send() throws InterruptedException {
        browser.findElement(By.cssSelector("button.send")).click();
        until("an answer", page -> page.findElement(By.id("answer")).getText().contains("HTTP"));
    }

    /** Each kind of field once, from the empty form to the request that came, the answer and the list. */
    @Test
    void everyKindOfFieldIsFilledInAndSent() throws Exception {
        List<StandIn.Seen> seen = new ArrayList<>();
        Path photo = Files.write(folder.resolve("photo.bin"), new byte[] {1, 2, 3});
        try (StandIn standIn = standIn("src/test/resources/page/logbook.wsdl", seen)) {
            browser.get(StandInPage.publish(standIn));
            until("the form", page -> xml().contains("enter"));
            // A page of another test may have asked for its stand-in to the last.
            browser.manage().logs().get(LogType.BROWSER);
            assertThat(browser.findElement(By.tagName("nav")).getText())
                    .contains("LogbookOffice", "Keeps the log of the harbour.", "Logbook · SOAP 1.1", "enter");
            assertThat(browser.findElement(By.tagName("main")).getText())
                    .contains("Writes an entry into the log of the day.", "Who writes the entry.", "/logbook");
            type("/keeper", "Ada <&> \"Brook\"");
            pick("/day", "2027-06-01");
            pick("/at", "09:30");
            pick("/seen", "2027-06-01T09:15");
            browser.findElement(By.cssSelector("[data-focus='/seen~']")).clear();
            browser.findElement(By.cssSelector("[data-focus='/seen~']")).sendKeys("+02:00");
            type("/crew", "7");
            type("/depth", "12.250");
            if (field("/calm").isSelected()) {
                field("/calm").click();
            }
            field("/calm").click();
            press("another type for wind");
            until("a gust", page -> field("/wind/@knots").isDisplayed());
            type("/wind/@knots", "40");
            choose("/wind", "south");
            type("/quays", "3 4 5");
            browser.findElement(By.cssSelector("[data-path='/photo'] input[type=file]"))
                    .sendKeys(photo.toString());
            assertThat(field("/kind").getDomAttribute("readonly")).isNotNull();
            press("nil light");
            choose("?berth,buoy", "buoy");
            until("the buoy", page -> field("/buoy").isDisplayed());
            type("/buoy", "red 4");
            press("add from, to");
            until("the days", page -> field("/to").isDisplayed());
            press("remove from, to");
            press("add from, to");
            until("the days again", page -> field("/to").isDisplayed());
            pick("/to", "2027-06-03");
            press("add remark");
            until("the remark", page -> field("/remark").isDisplayed());
            type("/remark", "none");
            press("remove remark");
            press("add guest");
            until("a guest", page -> !page.findElements(By.cssSelector("[data-path='/guest']"))
                    .isEmpty());
            choose("/guest:type", "Inspector");
            until("an inspector", page -> field("/guest/office").isDisplayed());
            type("/guest/office", "customs");
            press("add guest");
            until("two guests", page -> field("/guest[2]/licence").isDisplayed());
            type("/guest[2]/name", "Finn");
            choose("?grain,timber", "timber");
            until("timber", page -> field("/timber").isDisplayed());
            type("/timber", "oak");
            press("add @unit");
            until("the unit", page -> field("/weight/@unit").isDisplayed());
            type("/weight/@unit", "t");
            type("/weight", "80");
            press("remove stamp");
            press("add stamp");
            until("the stamp", page -> field("/Header/stamp/office").isDisplayed());
            type("/Header/stamp/office", "north pier");
            until("all of it in the request", page -> xml().contains("north pier"));
            send();
            assertThat(browser.findElement(By.id("answer")).getText())
                    .contains("enterResponse", "keeper Ada <&> \"Brook\"", "HTTP 200");
            until("the list", page -> page.findElement(By.id("received-state"))
                    .getText()
                    .equals("1 so far, all as the contract says."));
            // The page goes on asking: once the stand-in has gone, it has something to complain of.
            assertThat(browser.manage().logs().get(LogType.BROWSER).getAll())
                    .extracting(LogEntry::getMessage)
                    .isEmpty();
        }
        assertThat(seen).hasSize(1).allMatch(StandIn.Seen::isSound);
        String came = seen.get(0)
                .request()
                .replaceAll("\\s*\\n\\s*", "")
                .replaceAll("(</?)[a-z0-9]+:", "$1")
                .replaceAll(" xmlns:[a-z0-9]+=\"[^\"]*\"", "")
                .replaceAll(" [a-z]+:type=\"[a-z0-9]+:", " type=\"");
        assertThat(came)
                .contains(
                        "<stamp><office>north pier</office></stamp>",
                        "<keeper>Ada &lt;&amp;&gt; \"Brook\"</keeper><day>2027-06-01",
                        "<at>09:30:00",
                        "<seen>2027-06-01T09:15:00+02:00</seen><crew>7</crew><depth>12.250</depth><calm>true</calm>"
                                + "<wind type=\"Gust\" knots=\"40\">south</wind><quays>3 4 5</quays><photo>AQID</photo><kind>entry</kind>",
                        "nil=\"true\"/><buoy>red 4</buoy><from>",
                        "<to>2027-06-03",
                        "<office>customs</office></guest>",
                        "<name>Finn</name><licence>",
                        "<timber>oak</timber>",
                        "unit=\"t\">80</weight>")
                .doesNotContain("remark", "berth");
    }

    /** What is wrong is told at its field before it is sent, and by the fault after; the XML can be edited as well. */
    @Test
    void whatIsWrongIsToldAtItsField() throws Exception {
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = standIn("../examples/harbour/contract/desk.wsdl", seen)) {
            browser.get(StandInPage.publish(standIn) + "#4");
            until("the form", page -> xml().contains("castOff"));
            type("/berthNumber", "seven");
            until("the problem", page -> page.findElement(By.cssSelector("[data-path='/berthNumber'].wrong .problem"))
                    .getText()
                    .equals("\"seven\" is no int; expected is a value of type int"));
            send();
            assertThat(browser.findElement(By.id("answer")).getText()).contains("Fault", "\"seven\" is no int");
            until("the list", page -> page.findElement(By.id("received-state"))
                    .getText()
                    .equals("1 so far, 0 as the contract says."));
            browser.findElement(By.cssSelector("main details > summary")).click();
            WebElement xml = browser.findElement(By.id("xml"));
            String right = xml().replace("seven", "8");
            xml.clear();
            xml.sendKeys(right);
            browser.findElement(By.cssSelector("button.send")).click();
            until("the second", page -> page.findElement(By.id("received-state"))
                    .getText()
                    .equals("2 so far, 1 as the contract says."));
            browser.findElement(By.cssSelector("#exchanges [data-number='1'] summary"))
                    .click();
            assertThat(browser.findElement(By.cssSelector("#exchanges [data-number='1']"))
                            .getText())
                    .contains("castOff", "at the port Desk", "/castOff/berthNumber", "desk.xsd:");
        }
        until(
                "the end",
                page -> page.findElement(By.id("received-state")).getText().contains("any more"));
        assertThat(seen).hasSize(2);
        assertThat(seen.get(1).request()).contains(">8<");
    }

    /** By keys alone, and on a narrow screen. */
    @Test
    void keysAloneDoAndNarrowScreensToo() throws Exception {
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = standIn("../examples/harbour/contract/desk.wsdl", seen)) {
            String address = StandInPage.publish(standIn);
            browser.get(address);
            until("the form", page -> xml().contains("requestBerth"));
            List<String> reached = new ArrayList<>();
            boolean listed = false;
            for (int i = 0; i < 60 && !reached.contains("Send"); i++) {
                browser.switchTo().activeElement().sendKeys(Keys.TAB);
                WebElement at = browser.switchTo().activeElement();
                String what = at.getText().isEmpty() ? at.getDomProperty("id") : at.getText();
                if (what.equals("listBerths") && !listed) {
                    listed = true;
                    at.sendKeys(Keys.ENTER);
                    until(
                            "the operation",
                            page -> xml().contains("listBerths")
                                    && page.switchTo()
                                            .activeElement()
                                            .getTagName()
                                            .equals("main"));
                }
                reached.add(what);
            }
            assertThat(reached).contains("To the request", "listBerths", "+ deepEnoughFor", "Send");
            browser.switchTo().activeElement().sendKeys(Keys.SPACE);
            until(
                    "an answer",
                    page -> page.findElement(By.id("answer")).getText().contains("listBerthsResponse"));
            browser.manage().window().setSize(new Dimension(500, 900));
            browser.get(address + "#0");
            browser.navigate().refresh();
            until("the form", page -> xml().contains("requestBerth"));
            Object wide = browser.executeScript(
                    "return document.documentElement.scrollWidth > document.documentElement.clientWidth");
            assertThat(wide).isEqualTo(false);
            assertThat(browser.findElement(By.cssSelector("nav summary")).isDisplayed())
                    .isTrue();
            assertThat(browser.findElement(By.cssSelector("nav a[href='#3']")).isDisplayed())
                    .isFalse();
            browser.manage().window().setSize(new Dimension(1280, 900));
        }
    }

    /** What a contract says is text on the page, whatever it looks like. */
    @Test
    void whatTheContractSaysIsNoCode() throws Exception {
        String evil = "&lt;img src=x onerror='document.title=1'>&lt;script>document.title=2&lt;/script>";
        String contract = Files.readString(Path.of("src/test/resources/page/logbook.wsdl"))
                .replace("Who writes the entry.", evil)
                .replace("Keeps the log of the harbour.", evil)
                .replace("Writes an entry into the log of the day.", evil)
                .replace("value=\"south\"", "value=\"&quot;>" + evil.replace("'", "&apos;") + "\"");
        Path file = Files.writeString(folder.resolve("evil.wsdl"), contract);
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = standIn(file.toString(), seen)) {
            browser.get(StandInPage.publish(standIn));
            until("the form", page -> xml().contains("enter"));
            String all = browser.findElement(By.tagName("body")).getText();
            assertThat(all).contains("<script>document.title=2</script>", "<img src=x onerror='document.title=1'>");
            assertThat(browser.findElements(By.cssSelector("img, body script, iframe")))
                    .isEmpty();
            choose("/wind", "\"><img src=x onerror='document.title=1'><script>document.title=2</script>");
            type("/keeper", "<script>document.title=3</script>");
            until("all of it", page -> xml().contains("document.title=3"));
            send();
            until("the list", page -> !page.findElements(By.cssSelector("#exchanges li"))
                    .isEmpty());
            assertThat(browser.getTitle()).isEqualTo("enter · Stand-in");
            assertThat(browser.findElements(By.cssSelector("img, body script"))).isEmpty();
        }
        assertThat(seen).hasSize(1).allMatch(StandIn.Seen::isSound);
    }

    /** Parts that travel beside a message are chosen as files; of plain HTTP the fields are the parts. */
    @Test
    void attachmentsAndPlainHttpHaveTheirFields() throws Exception {
        List<StandIn.Seen> seen = new ArrayList<>();
        Path photo = Files.write(folder.resolve("crew.bin"), new byte[] {1, 2, 3});
        try (StandIn standIn = standIn("../examples/papers/papers.wsdl", seen)) {
            browser.get(StandInPage.publish(standIn) + "#1");
            until("the form", page -> xml().contains("send"));
            type("/callSign", "LB4F");
            browser.findElement(By.cssSelector("[data-path='#photo'] input[type=file]"))
                    .sendKeys(photo.toString());
            until("the value", page -> xml().contains("LB4F"));
            send();
            assertThat(browser.findElement(By.id("answer")).getText()).contains("sendResponse", "beside it: receipt");
        }
        try (StandIn standIn = standIn("../examples/tables/tables.wsdl", seen)) {
            browser.get(StandInPage.publish(standIn) + "#1");
            until("the form", page -> xml().contains("highWater"));
            type("/mark", "pier");
            pick("/day", "2027-06-01");
            until("the values", page -> xml().contains("pier") && xml().contains("2027-06-01"));
            send();
            assertThat(browser.findElement(By.id("answer")).getText()).contains("level", "HTTP 200");
        }
        assertThat(seen).hasSize(2).allMatch(StandIn.Seen::isSound);
        assertThat(seen.get(1).request()).contains("<mark>pier</mark>");
    }

    /** Many ports fold, what may be there stands in one row, and what is read and what is tried lead to each other. */
    @Test
    void itIsOneSiteWithTheContractToRead() throws Exception {
        StringBuilder ports = new StringBuilder();
        for (int i = 1; i <= 6; i++) {
            ports.append("<wsdl:port name=\"QuayPort")
                    .append(i)
                    .append("\" binding=\"q:Soap\"><soap:address location=\"http://q/")
                    .append(i)
                    .append("\"/></wsdl:port>");
        }
        Path file = Files.writeString(folder.resolve("quays.wsdl"), """
                <wsdl:definitions xmlns:wsdl="http://schemas.xmlsoap.org/wsdl/" xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:q="urn:quays" xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:quays">
                  <wsdl:types><xs:schema targetNamespace="urn:quays"><xs:element name="look"><xs:complexType><xs:sequence>
                    <xs:element name="from" type="xs:string" minOccurs="0"/>
                    <xs:element name="lanternsThatAreLit" type="xs:int" minOccurs="0"/>
                    <xs:element name="to" type="xs:string" minOccurs="0" maxOccurs="4"/>
                    <xs:element name="quay" type="xs:string"/></xs:sequence></xs:complexType></xs:element></xs:schema></wsdl:types>
                  <wsdl:message name="look"><wsdl:part name="look" element="q:look"/></wsdl:message>
                  <wsdl:portType name="Quays"><wsdl:operation name="lookAround"><wsdl:input message="q:look"/></wsdl:operation>
                    <wsdl:operation name="lookAgain"><wsdl:input message="q:look"/></wsdl:operation></wsdl:portType>
                  <wsdl:binding name="Soap" type="q:Quays">
                    <soap:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                    <wsdl:operation name="lookAround"><soap:operation soapAction="around"/><wsdl:input><soap:body use="literal"/></wsdl:input>
                      </wsdl:operation>
                    <wsdl:operation name="lookAgain"><soap:operation soapAction="again"/><wsdl:input><soap:body use="literal"/></wsdl:input>
                      </wsdl:operation></wsdl:binding>
                  <wsdl:service name="Office">%s</wsdl:service></wsdl:definitions>
                """.formatted(ports));
        try (StandIn standIn = standIn(file.toString(), new ArrayList<>())) {
            Contract contract = standIn.contract();
            browser.get(StandInPage.publish(
                    standIn, () -> new ReferencePage(contract, new ContractReference(contract, Map.of()), "quays")));
            until("the form", page -> xml().contains("quay"));
            browser.manage().logs().get(LogType.BROWSER);
            assertThat(browser.findElements(By.cssSelector("nav .port"))).hasSize(6);
            assertThat(browser.findElements(By.cssSelector("nav .port[open]"))).hasSize(1);
            assertThat(browser.findElement(By.cssSelector(".adds")).getText().split("\\s*\n\\s*|(?<=\\w) (?=\\+)"))
                    .containsExactly("+ from", "+ lanternsThatAreLit", "+ to");
            press("add lanternsThatAreLit");
            until("the field", page -> field("/lanternsThatAreLit").isDisplayed());
            assertThat(browser.findElement(By.cssSelector("[data-path='/lanternsThatAreLit'] label wbr")))
                    .isNotNull();
            assertThat(Browser.complaints(browser)).isEmpty();
            browser.findElement(By.linkText("What is in it")).click();
            until("the page to read", page -> page.findElement(By.cssSelector("main h2"))
                    .getText()
                    .startsWith("lookAround"));
            assertThat(Browser.complaints(browser)).isEmpty();
            browser.findElement(By.linkText("lookAgain")).click();
            browser.findElement(By.linkText("Try it")).click();
            until("the other form", page -> page.findElement(By.cssSelector("main h2"))
                    .getText()
                    .equals("lookAgain"));
            assertThat(browser.manage().logs().get(LogType.BROWSER).getAll()).isEmpty();
        }
    }

    /** Everything comes from the stand-in itself, and what makes no sense is refused in words. */
    @Test
    void thePageNeedsNothingFromOutsideAndRefusesNonsense() throws Exception {
        HttpClient http = HttpClient.newHttpClient();
        try (StandIn standIn = standIn("../examples/harbour/contract/desk.wsdl", new ArrayList<>())) {
            String root = StandInPage.publish(standIn);
            for (String name :
                    List.of("", "stand-in/page.js", "stand-in/form.js", "stand-in/exchanges.js", "stand-in/page.css")) {
                HttpResponse<String> got = http.send(
                        HttpRequest.newBuilder(URI.create(root + name)).build(), HttpResponse.BodyHandlers.ofString());
                assertThat(got.statusCode()).as(name).isEqualTo(200);
                assertThat(got.body()).as(name).doesNotContain("http:", "https:", "//cdn", "innerHTML", "eval(");
            }
            Map<String, Integer> nonsense = Map.of(
                    "stand-in/type?number=99999", 400,
                    "stand-in/type?number=-1", 400,
                    "stand-in/operation?operation=x", 400,
                    "stand-in/operation?operation=77", 400,
                    "stand-in/nothing", 404,
                    "elsewhere", 404);
            for (Map.Entry<String, Integer> one : nonsense.entrySet()) {
                HttpResponse<String> got = http.send(
                        HttpRequest.newBuilder(URI.create(root + one.getKey())).build(),
                        HttpResponse.BodyHandlers.ofString());
                assertThat(got.statusCode()).as(one.getKey()).isEqualTo(one.getValue());
                assertThat(got.body()).doesNotContain("Exception", "\tat ");
            }
            for (String form : Stream.of("operation=0&xml=%3Ca", "operation=0&xml=&value=%7B", "operation=4&xml=%00")
                    .toList()) {
                HttpResponse<String> got = http.send(
                        HttpRequest.newBuilder(URI.create(root + "stand-in/call"))
                                .timeout(Duration.ofSeconds(20))
                                .POST(HttpRequest.BodyPublishers.ofString(form))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                assertThat(got.statusCode()).as(form).isBetween(200, 400);
                assertThat(got.body()).as(form).doesNotContain("Exception", "\tat ", "failed");
            }
        }
    }
}
