package org.protypos.junit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.Collectors;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Setting;
import org.protypos.diagnostic.Severity;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.Generator;
import org.protypos.project.AdoptedContract;
import org.protypos.source.DocumentGatherer;
import org.protypos.wsdl.Service;

/**
 * Plays the service of a contract while a test runs: an extension of JUnit 5.
 *
 * <pre>{@code
 * class BookingTest {
 *     @RegisterExtension
 *     final PlayedContract office = PlayedContract.of("contract/desk.wsdl").types(Documents.INSTANCE);
 *
 *     @Test
 *     void booksABerth() {
 *         office.when("requestBerth").with("vessel.name", "Aurora").answer(new RequestBerthResponse().setOffer(...));
 *         ... // calls office.address()
 *         RequestBerth asked = office.single("requestBerth").as(RequestBerth.class);
 *     }
 * }
 * }</pre>
 *
 * <p>Each test has a service of its own at a free port of this machine, so tests that run side by side do not meet: the field is not
 * static. What nothing is said of is answered with samples. A test in which a request came that is not what the contract says fails,
 * unless it {@linkplain #tolerant() is tolerant}.
 */
public final class PlayedContract implements BeforeAllCallback, BeforeEachCallback, AfterEachCallback {
    private static final Map<List<Object>, Contract> READ = new ConcurrentHashMap<>();

    private final List<String> documents;
    private final List<Path> rules = new ArrayList<>();
    private final List<String> told = new ArrayList<>();
    private final List<StandIn.Seen> seen = new CopyOnWriteArrayList<>();
    private final Map<String, String> addresses = new LinkedHashMap<>();
    private Path file;
    private TypedMessages types;
    private boolean tolerant;
    private Contract contract;
    private StandIn standIn;

    private PlayedContract(List<String> documents) {
        this.documents = documents;
    }

    /**
     * Plays a contract.
     *
     * @param documents the name of a contract of the project around the current folder; or its documents: files, folders,
     *     archives, http(s) addresses
     */
    public static PlayedContract of(String... documents) {
        return new PlayedContract(List.of(documents));
    }

    /** Lays rules and corrections over the contract. */
    public PlayedContract rules(Path... files) {
        rules.addAll(List.of(files));
        return this;
    }

    /** Answers as a file says, where a test says nothing else. */
    public PlayedContract answers(Path answers) {
        file = answers;
        return this;
    }

    /**
     * Knows the generated classes, so that requests and answers can be values of them.
     *
     * @param documents the registry that is generated beside them: {@code Documents.INSTANCE}
     */
    public PlayedContract types(Object documents) {
        types = new TypedMessages(documents);
        return this;
    }

    /**
     * Lets requests pass that are not what the contract says, {@link Received#deviations()} tells of them, and answers be said
     * that are not.
     */
    public PlayedContract tolerant() {
        tolerant = true;
        return this;
    }

    @Override
    public void beforeAll(ExtensionContext context) {
        throw new ExtensionConfigurationException(
                "a PlayedContract is a field that is not static: each test has a service of its own");
    }

    @Override
    public void beforeEach(ExtensionContext context) throws IOException {
        if (standIn != null) {
            throw new ExtensionConfigurationException(
                    "another test is using this PlayedContract: let each test have an instance of its class of its own");
        }
        contract = contract();
        Findings findings = new Findings();
        Answers answers = answers(findings);
        demand(findings.sorted());
        seen.clear();
        addresses.clear();
        standIn =
                StandIn.serve(contract, new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), answers, seen::add);
        for (Map.Entry<Service.Port, String> one : standIn.addresses().entrySet()) {
            addresses.put(one.getKey().name(), one.getValue());
        }
    }

    @Override
    public void afterEach(ExtensionContext context) {
        standIn.close();
        standIn = null;
        told.clear();
        List<String> wrong = seen.stream()
                .filter(exchange -> !exchange.isSound()
                        && (exchange.operation() == null
                                || !exchange.deviations().isEmpty()))
                .map(PlayedContract::complaint)
                .toList();
        if (!tolerant && !wrong.isEmpty() && context.getExecutionException().isEmpty()) {
            throw new AssertionError("what was asked is not what the contract says:\n" + String.join("\n", wrong));
        }
    }

    private static String complaint(StandIn.Seen exchange) {
        return exchange.deviations().isEmpty()
                ? exchange.port() + ": " + exchange.failure()
                : exchange.deviations().stream()
                        .map(deviation -> exchange.operation() + ": " + deviation.path() + ": " + deviation.came()
                                + (deviation.expected().isEmpty() ? "" : "; expected is " + deviation.expected()))
                        .collect(Collectors.joining("\n"));
    }

    private Contract contract() throws IOException {
        AdoptedContract adopted = AdoptedContract.named(Path.of(""), documents);
        List<Object> key = new ArrayList<>(documents);
        key.addAll(rules);
        Contract known = READ.get(key);
        if (known != null) {
            return known;
        }
        Contract read = adopted != null
                ? adopted.read()
                : org.protypos.contract.ContractReader.read(DocumentGatherer.gather(documents, null));
        demand(read.isSound() ? List.of() : read.findings());
        Findings findings = new Findings();
        Contract corrected = Generator.of(adopted, read).rules(rules).corrected(findings);
        demand(findings.sorted());
        READ.put(key, corrected);
        return corrected;
    }

    private Answers answers(Findings findings) throws IOException {
        String own = "{\"answers\": {"
                + told.stream()
                        .collect(Collectors.groupingBy(
                                one -> one.substring(0, one.indexOf('\n')),
                                LinkedHashMap::new,
                                Collectors.mapping(one -> one.substring(one.indexOf('\n')), Collectors.joining(","))))
                        .entrySet()
                        .stream()
                        .map(operation -> operation.getKey() + ": [" + operation.getValue() + "]")
                        .collect(Collectors.joining(", "))
                + "}}";
        Answers said = Answers.read(new SourceText("the answers of the test", own), contract, findings);
        return file == null
                ? said
                : said.before(Answers.read(GivenFile.text(file, file.toString()), contract, findings));
    }

    /** An answer that was said in a test, as the text of a file of answers has it. */
    void tell(String operation, String answer) {
        told.add(0, Json.quoted(operation) + "\n" + answer);
        Findings findings = new Findings();
        try {
            Answers answers = answers(findings);
            List<Finding> wrong = findings.sorted().stream()
                    .filter(finding -> !tolerant || finding.severity() == Severity.ERROR)
                    .toList();
            if (!wrong.isEmpty()) {
                told.remove(0);
            }
            refuse(wrong);
            standIn.tell(answers);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void demand(List<Finding> findings) {
        refuse(findings.stream()
                .filter(finding -> finding.severity() == Severity.ERROR)
                .toList());
    }

    private static void refuse(List<Finding> findings) {
        List<String> errors = findings.stream()
                .map(finding -> (finding.place() == null ? "" : finding.place() + ": ")
                        + finding.message()
                        + (finding.cure().isEmpty() ? "" : "; " + Setting.in(finding.cure(), word -> word)))
                .toList();
        if (!errors.isEmpty()) {
            throw new IllegalArgumentException(String.join("\n", errors));
        }
    }

    /** The address of the only port, or of the first that speaks SOAP. */
    public String address() {
        return played().values().iterator().next();
    }

    /** The address of a port of the contract. */
    public String address(String port) {
        String address = played().get(port);
        if (address == null) {
            throw new IllegalArgumentException("the contract has no port " + port + nearest(port, addresses.keySet()));
        }
        return address;
    }

    private Map<String, String> played() {
        if (standIn == null) {
            throw new IllegalStateException(
                    "the service is played while a test runs: is the field a @RegisterExtension?");
        }
        return addresses;
    }

    private static String nearest(String name, Set<String> known) {
        return NearestName.of(name, known)
                .map(near -> "; did you mean " + near + "?")
                .orElse("; it has " + String.join(", ", known));
    }

    /** Begins to say what an operation answers; what is said last counts first. */
    public Told when(String operation) {
        played();
        return new Told(this, known(operation), types, standIn.check());
    }

    /** What was received of an operation so far, in the order in which it came. */
    public List<Received> received(String operation) {
        known(operation);
        return seen.stream()
                .filter(exchange -> operation.equals(exchange.operation()))
                .map(exchange -> new Received(exchange, types))
                .toList();
    }

    /** Everything that was received so far, in the order in which it came. */
    public List<Received> received() {
        return seen.stream().map(exchange -> new Received(exchange, types)).toList();
    }

    /** What was received of an operation that was called once; fails when it was called otherwise. */
    public Received single(String operation) {
        return called(operation, 1).get(0);
    }

    /** What was received of an operation; fails when it was called another number of times. */
    public List<Received> called(String operation, int times) {
        List<Received> received = received(operation);
        if (received.size() != times) {
            throw new AssertionError(operation + " was to be called " + times(times) + ", and was called "
                    + times(received.size())
                    + (seen.isEmpty()
                            ? "; nothing was called"
                            : "; called were "
                                    + seen.stream()
                                            .map(exchange -> exchange.operation() == null
                                                    ? "something that the contract does not have"
                                                    : exchange.operation())
                                            .collect(Collectors.joining(", "))));
        }
        return received;
    }

    private static String times(int times) {
        return times == 0 ? "never" : times == 1 ? "once" : times + " times";
    }

    private CalledOperation known(String operation) {
        Set<String> names = new LinkedHashSet<>();
        for (CalledOperation called : CalledOperation.of(standIn.check().wire())) {
            if (called.operation().name().equals(operation) || called.key().equals(operation)) {
                return called;
            }
            names.add(called.operation().name());
        }
        throw new IllegalArgumentException("the contract has no operation " + operation + nearest(operation, names));
    }
}
