package org.protypos.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.Arguments;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.MessageValues;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/** Contracts tried without generated code: messages as JSON, calls, and a service that stands in. */
class ExchangeTest {
    static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

    private static final HttpClient HTTP = HttpClient.newHttpClient();

    static Contract read(String contract) {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract), null));
        assertThat(read.isSound()).as("%s", read.findings()).isTrue();
        return read;
    }

    private static MessageElement parsed(String text) {
        return MessageReader.read("message", text.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    /** Every operation of a contract is called with samples, at a service that stands in; both messages are valid. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/tide/tide.wsdl",
                "../examples/customs/customs.wsdl",
                "../examples/tables/tables.wsdl",
                "src/test/resources/bodies/bodies.wsdl",
                "src/test/resources/encoded/dues.wsdl",
                "src/test/resources/carried/carried.wsdl",
                "../examples/papers/papers.wsdl"
            })
    void everyOperationIsAnsweredByTheStandIn(String path) throws IOException {
        Contract contract = read(path);
        ContractCheck check = new ContractCheck(contract);
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(contract, ANY, Answers.NONE, seen::add)) {
            for (CalledOperation called : CalledOperation.of(contract)) {
                for (boolean full : new boolean[] {true, false}) {
                    String request = new Samples(contract, check.vocabulary(), full).message(called.request());
                    String address = standIn.addresses().get(called.port());
                    Map<String, Attachment> attached = new LinkedHashMap<>();
                    called.request()
                            .attachments()
                            .forEach(part -> attached.put(part.name(), Attachment.of(new byte[] {1, 2, 3})));
                    Caller caller = new Caller(called, check, with -> with.address(address));
                    Caller.Answer answer = caller.call(request, attached);
                    assertThat(answer.failure()).as(request).isNull();
                    assertThat(answer.fault()).as(request + answer.text()).isNull();
                    if (!attached.isEmpty()) {
                        assertThat(caller.call(request).fault().fault().reason())
                                .contains("which travels beside");
                    }
                    boolean empty = called.answer() == null
                            || !called.isSoap() && called.answer().parts().isEmpty();
                    assertThat(answer.root() == null).isEqualTo(empty);
                    if (!empty) {
                        CheckedMessage checked = new OperationCheck(called.carried(), check).answer(answer.root());
                        assertThat(checked.deviations()).as(answer.text()).isEmpty();
                    }
                }
            }
        }
        assertThat(seen).isNotEmpty().allMatch(one -> one.deviations().isEmpty());
    }

    /** What came in the request comes back where the answer has the like; a wrong request is told what is wrong. */
    @Test
    void theStandInEchoesAndRefuses() throws IOException {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        ContractCheck check = new ContractCheck(contract);
        CalledOperation find = CalledOperation.of(contract).stream()
                .filter(called -> called.operation().name().equals("castOff"))
                .findFirst()
                .orElseThrow();
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(contract, ANY, Answers.NONE, seen::add)) {
            String address = standIn.addresses().get(find.port());
            Findings findings = new Findings();
            RequestBuilder builder = new RequestBuilder(find.carried(), check.vocabulary(), findings);
            String wrong = MessageText.of(builder.request(Arguments.of(List.of("berthNumber=seven"), findings)));
            Caller.Answer refused = new Caller(find, check, with -> with.address(address)).call(wrong);
            assertThat(refused.text())
                    .contains("/castOff/berthNumber: \"seven\" is no int; expected is a value of type int");
            assertThat(seen.get(0).deviations().get(0).place().toString()).isEqualTo("request:5:7");
            assertThat(seen.get(0).request()).isEqualTo(wrong);
            String right = MessageText.of(builder.request(Arguments.of(List.of("berthNumber=7"), findings)));
            Caller.Answer taken = new Caller(find, check, with -> with.address(address)).call(right);
            assertThat(taken.failure()).isNull();
            assertThat(taken.fault()).isNull();
            assertThat(findings.hasErrors()).isFalse();
        }
    }

    /** Many at once, from the first request on, and hostile messages between them. */
    @Test
    void theStandInSurvivesCrowdsAndHostileMessages() throws Exception {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        List<CalledOperation> all = CalledOperation.of(contract);
        ContractCheck check = new ContractCheck(contract);
        Samples samples = new Samples(contract, check.vocabulary(), true);
        List<String> requests =
                all.stream().map(called -> samples.message(called.request())).toList();
        String whole = requests.get(0);
        String start = whole.substring(0, whole.indexOf("<soap:Envelope"));
        List<String> hostile = List.of(
                "",
                "berth",
                whole.substring(0, whole.length() / 2),
                whole + whole,
                start + "<!DOCTYPE a [<!ENTITY b SYSTEM 'file:///etc/passwd'>]>" + whole.substring(start.length()),
                "<a>".repeat(20_000),
                whole.replace("http://schemas.xmlsoap.org/soap/envelope/", "urn:other"),
                whole.replaceFirst("<soap:Body>", "<soap:Body><stranger xmlns='urn:x'/>"),
                whole.replaceFirst(
                        "<soap:Body>",
                        "<soap:Header><x xmlns='urn:x' soap:mustUnderstand='1'/></soap:Header>" + "<soap:Body>"));
        AtomicInteger seen = new AtomicInteger();
        try (StandIn standIn = StandIn.serve(contract, ANY, Answers.NONE, one -> seen.incrementAndGet())) {
            List<Callable<Caller.Answer>> calls = new ArrayList<>();
            for (int i = 0; i < 400; i++) {
                CalledOperation called = all.get(i % all.size());
                String text = requests.get(i % all.size());
                calls.add(() -> new Caller(
                                called,
                                new ContractCheck(contract),
                                with -> with.address(standIn.addresses().get(called.port())))
                        .call(text));
            }
            URI address = URI.create(standIn.addresses().get(all.get(0).port()));
            for (int i = 0; i < hostile.size(); i++) {
                String sent = hostile.get(i);
                HttpRequest post = HttpRequest.newBuilder(address)
                        .header("Content-Type", "text/xml; charset=utf-8")
                        .POST(HttpRequest.BodyPublishers.ofString(sent))
                        .build();
                calls.add(30 * (i + 1), () -> {
                    HttpResponse<String> answer = HTTP.send(post, HttpResponse.BodyHandlers.ofString());
                    assertThat(answer.statusCode()).as(sent).isBetween(400, 599);
                    assertThat(answer.body()).doesNotContain("root:", "Exception", "\tat ");
                    return new Caller.Answer(null, null, null, null, null, null, null);
                });
            }
            ExecutorService crowd = Executors.newFixedThreadPool(12);
            for (Future<Caller.Answer> answer : crowd.invokeAll(calls)) {
                assertThat(answer.get().fault()).isNull();
                assertThat(answer.get().failure()).isNull();
            }
            crowd.shutdown();
        }
        assertThat(seen.get()).isGreaterThanOrEqualTo(400);
    }

    /** A file of answers: by what is in the request, in turn, with parts of the request, faults, delays and broken ones. */
    @Test
    void theStandInAnswersAsAFileSays() throws IOException {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        ContractCheck check = new ContractCheck(contract);
        Findings findings = new Findings();
        Answers answers = Answers.read(new SourceText("answers.yaml", """
                answers:
                  requestBerth:
                    - when: {vessel.name: Aurora}
                      answer: {offer: {berth: {number: 7, quay: "for ${vessel.name} at ${arrival}"}}}
                    - when: {"need[0]": pilot}
                      fault: {noBerthFree: {waiting: 4}}
                      reason: all berths are taken
                    - each:
                        - answer: {offer: {berth: {number: 1}}}
                        - {broken: truncated, delay: 1ms}
                        - broken: html
                        - answer: {offer: {berth: {number: 3}}}
                """), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        CalledOperation request = CalledOperation.of(contract).get(0);
        List<String> told = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(contract, ANY, answers, one -> {})) {
            String address = standIn.addresses().get(request.port());
            for (String name : List.of("Aurora", "x:pilot", "a", "b", "c", "d", "e")) {
                List<String> values = new ArrayList<>(List.of(
                        "vessel.@xsi:type=Yacht",
                        "vessel.@callSign=LB4F",
                        "vessel.name=" + name.replace(":pilot", ""),
                        "vessel.lengthInMetres=9",
                        "vessel.draughtInMetres=1",
                        "vessel.owner=Ada",
                        "arrival=2027-05-09T14:30:00Z",
                        "stay=P2D"));
                if (name.endsWith("pilot")) {
                    values.add("need[0]=pilot");
                }
                String text = MessageText.of(new RequestBuilder(request.carried(), check.vocabulary(), findings)
                        .request(Arguments.of(values, findings)));
                Caller.Answer answer = new Caller(request, check, with -> with.address(address)).call(text);
                String valid = answer.failure() == null && answer.fault() == null
                        ? new OperationCheck(request.carried(), check)
                                .answer(parsed(answer.text()))
                                .deviations()
                                .toString()
                        : "";
                told.add(
                        answer.failure() != null
                                ? "failure"
                                : answer.fault() != null
                                        ? answer.fault().fault().reason()
                                                + answer.text().replaceAll("(?s).*waiting>(\\d+)<.*", " $1")
                                        : answer.text()
                                                        .replaceAll(
                                                                "(?s).*number>(\\d+)<.*<[^/>]*quay>(.*?)</.*", "$1 $2")
                                                + valid);
            }
        }
        assertThat(told)
                .containsExactly(
                        "7 for Aurora at 2027-05-09T14:30:00Z[]",
                        "all berths are taken 4",
                        "1 quay[]",
                        "failure",
                        "failure",
                        "3 quay[]",
                        "3 quay[]");
    }

    @Test
    void thePrefixXmlIsNotDeclared() {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        RequestBuilder builder = new RequestBuilder(
                CalledOperation.of(contract).get(0).carried(),
                new ContractCheck(contract).vocabulary(),
                new Findings());
        String text = MessageText.of(builder.envelope(List.of(parsed("<note xml:lang='en'>full</note>")), List.of()));
        assertThat(text).contains("<note xml:lang=\"en\">full</note>");
        assertThat(Infoset.of(text)).contains("lang");
    }

    /** Plain HTTP is refused, delayed and broken as SOAP is; nothing of it is a failure of the stand-in. */
    @Test
    void plainHttpIsAnsweredAsAFileSaysToo() throws Exception {
        Contract contract = read("../examples/tables/tables.wsdl");
        Findings findings = new Findings();
        Answers answers = Answers.read(new SourceText("answers.yaml", """
                answers:
                  highWater:
                    - when: {mark: "pier"}
                      answer: 7.25
                    - when: {mark: "jetty"}
                      broken: html
                    - when: {mark: "mole"}
                      broken: truncated
                  note:
                    answer: {lines: 12}
                """), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        List<StandIn.Seen> seen = new ArrayList<>();
        List<String> told = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(contract, ANY, answers, seen::add)) {
            for (String path : List.of(
                    "/get/highWater?mark=pier&day=2027-05-09",
                    "/get/highWater?mark=jetty&day=2027-05-09",
                    "/get/highWater?mark=mole&day=2027-05-09",
                    "/get/highWater?mark=pier&day=soon",
                    "/get/highWater?mark=pier",
                    "/get/marks/pier/days/two",
                    "/get/nothing")) {
                HttpResponse<String> got = HTTP.send(
                        HttpRequest.newBuilder(URI.create(standIn.root() + path))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                told.add(got.statusCode() + " " + got.body().strip());
            }
            HttpResponse<String> note = HTTP.send(
                    HttpRequest.newBuilder(URI.create(standIn.root() + "/post/note"))
                            .header("Content-Type", "text/xml")
                            .POST(HttpRequest.BodyPublishers.ofString(
                                    "<day xmlns='http://lanternbay.example/tables'><date>2027-05-09</date>"
                                            + "<level>1.5</level></day>"))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            told.add(note.statusCode() + " " + note.body());
        }
        assertThat(told.get(0)).startsWith("200").contains(">7.25</");
        assertThat(told.get(1)).isEqualTo("200 <html><body>Please log in.</body></html>");
        assertThat(told.get(2)).startsWith("200 <?xml").doesNotContain("</");
        assertThat(told.subList(3, 8))
                .containsExactly(
                        "400 the field day: \"soon\" is no date; expected is a value of type date",
                        "400 the field day is missing",
                        "400 the field number: \"two\" is no int; expected is a value of type int",
                        "404 no operation is at /nothing",
                        "200 12");
        assertThat(seen).hasSize(7);
        assertThat(seen.stream().filter(StandIn.Seen::isSound)).hasSize(4);
    }

    /** Operations of one name have answers of their own, by the names of their inputs. */
    @Test
    void operationsOfOneNameAreAnsweredApart() throws IOException {
        Contract contract = read("src/test/resources/wire/lock.wsdl");
        ContractCheck check = new ContractCheck(contract);
        Findings findings = new Findings();
        Answers answers = Answers.read(new SourceText("answers.yaml", """
                answers:
                  countOne: {answer: {total: 1}}
                  count: {answer: {total: 2}}
                """), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        List<String> totals = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(contract, ANY, answers, one -> {})) {
            for (CalledOperation called : CalledOperation.of(contract)) {
                if (called.operation().name().equals("count")) {
                    String request = new Samples(contract, check.vocabulary(), true).message(called.request());
                    Caller caller = new Caller(
                            called,
                            check,
                            set -> set.address(standIn.addresses().get(called.port())));
                    totals.add(
                            called.key() + caller.call(request).text().replaceAll("(?s).*<total>(.*)</total>.*", "$1"));
                }
            }
        }
        assertThat(totals).containsExactly("countOne1", "countMany2");
    }

    /** What is wrong with an answer is said when the file is read, at its place. */
    @Test
    void answersAreJudgedWhenTheyAreRead() {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        Findings findings = new Findings();
        Answers.read(new SourceText("answers.yaml", """
                answers:
                  listBerths:
                    - when: {fra: 1}
                      answer: {berth: [{number: four}]}
                    - answer: {births: []}
                  requestBerth:
                    - fault: {noBerth: {}}
                    - fault: {noBerthFree: {waitin: 4}}
                    - reason: the office is closed
                  castOff:
                    - answer: {}
                """), contract, findings);
        assertThat(findings.sorted().stream()
                        .map(finding -> finding.place().line() + " " + finding.message() + " | " + finding.cure()))
                .hasSize(7)
                .anyMatch(line -> line.startsWith("3 no request has anything at fra"))
                .anyMatch(line -> line.contains("number"))
                .anyMatch(line -> line.startsWith("5 ") && line.contains("births"))
                .anyMatch(line ->
                        line.equals("7 the contract declares no fault noBerth for requestBerth | there is noBerthFree"))
                .anyMatch(line -> line.startsWith("8 ") && line.contains("waitin"))
                .anyMatch(line -> line.startsWith("11 castOff is not answered"));
    }

    /** An answer that cannot be made is a fault that says why; the next request is answered as ever. */
    @Test
    void whatCannotBeAnsweredIsSaid() throws IOException {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        ContractCheck check = new ContractCheck(contract);
        Findings findings = new Findings();
        Answers answers = Answers.read(new SourceText("answers.yaml", """
                answers:
                  listBerths:
                    - each:
                        - fault: {lowTide: {}}
                        - answer: {berth: []}
                """), contract, findings);
        CalledOperation list = CalledOperation.of(contract).get(1);
        String request = new Samples(contract, check.vocabulary(), true).message(list.request());
        try (StandIn standIn = StandIn.serve(contract, ANY, answers, one -> {})) {
            String address = standIn.addresses().get(list.port());
            Caller caller = new Caller(list, check, with -> with.address(address));
            assertThat(caller.call(request).fault().fault().reason())
                    .isEqualTo("there is no answer: the contract declares no fault lowTide for listBerths");
            assertThat(caller.call(request).fault()).isNull();
        }
    }

    /** What travels beside a message is told in JSON, and what is wrong with it is named. */
    @Test
    void attachmentsAreValuesToo() {
        Contract contract = read("../examples/papers/papers.wsdl");
        ContractCheck check = new ContractCheck(contract);
        CalledOperation send = CalledOperation.of(contract).stream()
                .filter(called -> called.operation().name().equals("send"))
                .findFirst()
                .orElseThrow();
        Findings findings = new Findings();
        JsonValue value = JsonText.parse(new SourceText("request.json", """
                {"callSign": "LB4F", "#attached": {
                  "photo": {"type": "image/png", "base64": "AQID"},
                  "crew list": "*",
                  "log": "AQID"}}
                """), findings);
        RequestBuilder builder = new RequestBuilder(send.carried(), check.vocabulary(), findings);
        Map<String, Attachment> attached = builder.attached(value, send.request());
        MessageElement request = builder.request(value);
        assertThat(attached.keySet()).containsExactly("photo", "crew list");
        assertThat(attached.get("photo").contentType()).isEqualTo("image/png");
        assertThat(attached.get("photo").bytes()).containsExactly(1, 2, 3);
        assertThat(findings.sorted().stream().map(one -> one.place().line() + " " + one.message()))
                .containsExactly("4 nothing called log is attached");
        assertThat(new OperationCheck(send.carried(), check).request(request).deviations())
                .isEmpty();
        JsonValue.Members again =
                (JsonValue.Members) new MessageValues(send.carried(), check).request(request, attached);
        assertThat(again.members().keySet()).containsExactly("callSign", "#attached");
    }

    static String said(CalledOperation called, Samples samples, StandIn at) {
        Caller.Answer answer = new Caller(
                        called,
                        new ContractCheck(at.contract()),
                        with -> with.address(at.addresses().get(called.port())))
                .call(samples.message(called.request()));
        assertThat(answer.failure()).isNull();
        String infoset = answer.text() == null || answer.text().isBlank() ? "" : Infoset.of(answer.text());
        return called.operation().name() + infoset.replaceAll("\\s+", " ");
    }

    @Test
    void everyMistakeInAFileOfAnswersIsTold() {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        Findings findings = new Findings();
        Answers.read(new SourceText("answers.yaml", """
                answer: 1
                answers:
                  requestBirth:
                    - whem: {a: b}
                      delay: soon
                      broken: badly
                      when: [a]
                      code: full house
                  listBerths: none
                """), contract, findings);
        assertThat(findings.sorted().stream().map(finding -> finding.place().line() + " " + finding.message()))
                .containsExactly(
                        "1 \"answer\" is no key of a file of answers",
                        "4 there is no operation requestBirth",
                        "4 \"whem\" is no key of an answer",
                        "5 \"soon\" is no delay",
                        "6 \"badly\" is no way to break an answer",
                        "7 when is no map",
                        "8 \"full house\" is no code of a fault",
                        "9 an answer is no map");
    }

    /** Messages become JSON and messages again, and are the same. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/customs/customs.wsdl",
                "../examples/papers/papers.wsdl"
            })
    void messagesGoThroughJson(String path) throws IOException {
        Contract contract = read(path);
        ContractCheck check = new ContractCheck(contract);
        for (boolean full : new boolean[] {true, false}) {
            Samples samples = new Samples(contract, check.vocabulary(), full);
            for (QName name : samples.elements()) {
                MessageElement before = parsed(samples.element(name));
                String json = json(check, before);
                Findings findings = new Findings();
                JsonValue value = JsonText.parse(new SourceText("message.json", json), findings);
                MessageElement after = new JsonMessageReader(check.vocabulary(), findings)
                        .element(
                                value,
                                name,
                                check.vocabulary().typeOf(check.vocabulary().element(name)),
                                "");
                assertThat(findings.sorted()).as(json).isEmpty();
                assertThat(Infoset.of(whole(after))).as(json).isEqualTo(Infoset.of(whole(before)));
            }
        }
    }

    /** Whatever a contract allows becomes JSON that says the same when it has been a message again. */
    @ParameterizedTest
    @ValueSource(longs = {41, 42, 43})
    void randomMessagesSayTheSameAsJson(long seed, @TempDir Path folder) throws IOException {
        RandomContract random = new RandomContract(seed, 40);
        Path schema = random.layOut(folder);
        ContractCheck check = new ContractCheck(read(schema.toString()));
        for (int i = 0; i < 100; i++) {
            MessageElement before = parsed(random.message());
            String json = json(check, before);
            Findings findings = new Findings();
            JsonValue value = JsonText.parse(new SourceText("message.json", json), findings);
            MessageElement after = new JsonMessageReader(check.vocabulary(), findings)
                    .element(
                            value,
                            before.name(),
                            check.vocabulary().typeOf(check.vocabulary().element(before.name())),
                            "");
            assertThat(findings.sorted()).as(json).isEmpty();
            MessageElement read = parsed(whole(after));
            assertThat(check.check(read).deviations())
                    .as(json + "\n" + whole(after))
                    .isEmpty();
            assertThat(json(check, read)).isEqualTo(json);
            assertThat(Infoset.of(whole(read))).as(json).isEqualTo(Infoset.of(whole(before)));
        }
    }

    private static String json(ContractCheck check, MessageElement message) throws IOException {
        CheckedMessage checked = check.check(message);
        assertThat(checked.deviations()).isEmpty();
        StringWriter text = new StringWriter();
        try (JsonGenerator out = new JsonFactory().createGenerator(text)) {
            new JsonMessageWriter(check.vocabulary(), checked.types()).write(message, out);
        }
        return text.toString();
    }

    /** Without white space and with the types by their full names, for prefixes may be others. */
    private static String whole(MessageElement message) {
        trim(message);
        return MessageText.compact(message);
    }

    private static void trim(MessageElement element) {
        if (!element.children().isEmpty()) {
            element.content().removeIf(item -> item instanceof String text && text.isBlank());
        }
        element.children().forEach(ExchangeTest::trim);
    }

    /** Everything that is wrong with arguments and JSON is told at once, each with what it is about. */
    @Test
    void wrongValuesAreNamed() {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        ContractCheck check = new ContractCheck(contract);
        CalledOperation request = CalledOperation.of(contract).get(0);
        Findings findings = new Findings();
        JsonValue value = JsonText.parse(new SourceText("request.json", """
                {"vessel": {"@xsi:type": "Fery", "name": ["a", "b"], "callSign": "LB4F"},
                 "arival": "2027-05-09T14:30:00Z", "stay": {"days": 2}, "need": [["water"]],
                 "#header": {"pass": {}}}
                """), findings);
        new RequestBuilder(request.carried(), check.vocabulary(), findings).request(value);
        assertThat(findings.sorted().stream()
                        .map(finding -> finding.place().line() + ":"
                                + finding.place().column() + " " + finding.message() + " | " + finding.cure()))
                .containsExactly(
                        "1:26 vessel: there is no type Fery for it | perhaps Ferry",
                        "1:66 vessel: there is no callSign | perhaps @callSign",
                        "2:12 there is no arival | perhaps arrival",
                        "2:53 stay: there is no days | leave it out",
                        "2:66 need[0]: an array stands where one value is wanted | give one value",
                        "3:22 the message has no header block pass | leave it out");
        Findings wrong = new Findings();
        Arguments.of(List.of("a", "a..b=1", "b.c=1", "b[0]=2", "d[1]=x", "e={\"f\": }"), wrong);
        assertThat(wrong.sorted()).hasSize(4);
        Findings malformed = new Findings();
        assertThat(JsonText.parse(new SourceText("x", "[".repeat(2000)), malformed))
                .isNull();
        assertThat(malformed.sorted()).extracting(finding -> finding.code()).containsExactly("malformed-json");
    }
}
