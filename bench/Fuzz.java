import java.io.ByteArrayInputStream;
import org.protypos.naming.GivenNames;
import org.protypos.target.Wishes;
import org.protypos.api.ApiBuilder;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.target.Surface;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.protypos.change.Comparison;
import org.protypos.contract.Contract;
import org.protypos.constraint.ContractConstraints;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Publication;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.Document;
import org.protypos.source.DocumentGatherer;

/**
 * Changes contracts and messages at random, always in the same way, and has them read, generated from, compared, sampled and
 * checked. Nothing may throw, nothing may take ten seconds. What is well-formed is asked of the platform's parser.
 */
final class Fuzz {
    private static final Pattern VALUE = Pattern.compile("\\s(?!xmlns)[A-Za-z]+=(\"[^\"<]*\")");
    private static final Pattern EMPTY_ELEMENT = Pattern.compile("(<[A-Za-z:]+(?:\\s[^<>]*)?/>)");

    private static final long MOST_NANOS = 10_000_000_000L;
    private static final int SHOWN = 20;
    private static final String[] NUMBERS = {
        "0", "-1", "2147483647", "2147483648", "99999999999999999999", "1e999999999", "unbounded", "", "NaN"
    };

    private final Random random;
    private final Map<String, Integer> outcomes = new TreeMap<>();
    private long slowest;
    private String slowestName = "";
    private int failures;

    private Fuzz(long seed) {
        random = new Random(seed);
    }

    /** Takes the number of mutants of each kind, the seed, and documents of contracts. */
    public static void main(String[] arguments) throws Exception {
        int[] status = new int[1];
        Thread deep = new Thread(
                null,
                () -> {
                    try {
                        status[0] = new Fuzz(Long.parseLong(arguments[1])).run(arguments);
                    } catch (IOException e) {
                        e.printStackTrace();
                        status[0] = 1;
                    }
                },
                "fuzz",
                1L << 30);
        deep.start();
        deep.join();
        System.exit(status[0]);
    }

    private int run(String[] arguments) throws IOException {
        int count = Integer.parseInt(arguments[0]);
        List<Path> contracts =
                Stream.of(arguments).skip(2).map(Path::of).toList();
        Path work = Files.createTempDirectory("fuzz");
        Map<Path, List<byte[]>> messages = new TreeMap<>();
        for (int i = 0; i < count; i++) {
            contract(contracts.get(i % contracts.size()), work, i);
        }
        report("contracts");
        for (int i = 0; i < count; i++) {
            Path contract = contracts.get(i % contracts.size());
            List<byte[]> some = messages.computeIfAbsent(contract, this::samples);
            if (!some.isEmpty()) {
                message(contract, some.get(random.nextInt(some.size())), i);
            }
        }
        report("messages");
        delete(work);
        return failures == 0 ? 0 : 1;
    }

    private void report(String what) {
        System.out.printf("%-10s %s, slowest %.1f s (%s)%n", what, outcomes, slowest / 1e9, slowestName);
        outcomes.clear();
        slowest = 0;
    }

    private static Contract read(Path contract) {
        return ContractReader.read(DocumentGatherer.gather(
                List.of(contract.toString()), null, (address, named) -> "nothing is fetched"));
    }

    /** What is done with something, how it ends, and how long it takes. */
    private interface Step {
        String run() throws Exception;
    }

    /** Keeps what failed or was slow for who wants to look at it. */
    private void keep(Path mutant, Path work) {
        try {
            Path kept = Files.createTempDirectory("mutant");
            Files.move(work, kept.resolve("contract"));
            Files.createDirectories(work);
            System.out.println("    kept as " + kept.resolve("contract").resolve(work.relativize(mutant)));
        } catch (IOException e) {
            System.out.println("    not kept: " + e);
        }
    }

    private boolean watch(String name, Step step) {
        int before = failures;
        long start = System.nanoTime();
        String outcome;
        try {
            outcome = step.run();
        } catch (Throwable e) {
            outcome = "FAILED";
            if (failures++ < SHOWN) {
                System.out.println(name + ": " + e);
                Stream.of(e.getStackTrace()).limit(6).forEach(frame -> System.out.println("    " + frame));
            }
        }
        long taken = System.nanoTime() - start;
        if (taken > slowest) {
            slowest = taken;
            slowestName = name;
        }
        if (taken > MOST_NANOS) {
            outcome = "SLOW";
            failures++;
            System.out.printf("%s: %.1f s%n", name, taken / 1e9);
        }
        outcomes.merge(outcome, 1, Integer::sum);
        return failures == before;
    }

    private void contract(Path original, Path work, int number) throws IOException {
        Contract sound = read(original);
        List<Document> documents = sound.documents().all().stream()
                .filter(document -> "file".equals(document.location().getScheme()))
                .toList();
        if (documents.isEmpty()) {
            return;
        }
        Document changed = documents.get(random.nextInt(documents.size()));
        delete(work);
        Path root = topOf(original, documents);
        for (Document document : documents) {
            Path file = Path.of(document.location());
            byte[] bytes = Files.readAllBytes(file);
            Path copy = work.resolve(root.relativize(file).toString());
            Files.createDirectories(copy.getParent());
            Files.write(copy, document == changed ? number % 2 == 0 ? mutated(bytes) : rewritten(bytes) : bytes);
        }
        Path mutant = work.resolve(root.relativize(original.toAbsolutePath().normalize()).toString());
        String name = number + " of " + original;
        Contract[] read = new Contract[1];
        boolean well = watch("reading " + name, () -> {
            read[0] = read(mutant);
            return read[0].isSound() ? "sound" : "refused";
        });
        well &= watch("judging " + name, () -> {
            ContractConstraints.of(read[0]);
            return "judged";
        });
        if (read[0] == null || !read[0].isSound()) {
            if (!well) {
                keep(mutant, work);
            }
            return;
        }
        well &= watch("generating " + name, () -> {
            for (Target target : Targets.all()) {
                Rules none = RuleReader.read(List.of(), target.rules());
                target.lower(ApiBuilder.build(read[0], none), new Wishes(none, GivenNames.NONE, null))
                        .emit(target.products(), false, () -> Publication.of(read[0]));
            }
            return "generated";
        });
        well &= watch("sampling " + name, () -> {
            ContractCheck check = new ContractCheck(read[0]);
            Samples samples = new Samples(read[0], check.vocabulary(), number % 2 == 0);
            for (QName element : samples.elements().stream().limit(3).toList()) {
                String sample = samples.element(element);
                MessageElement made = MessageReader.read("sample", sample);
                if (made == null) {
                    throw new IllegalStateException("a sample is not well-formed: " + sample);
                }
                check.check(made);
            }
            return "sampled";
        });
        well &= watch("comparing " + name, () -> {
            Comparison.of(sound, read[0], new Surface(), new Surface());
            return "compared";
        });
        if (!well) {
            keep(mutant, work);
        }
    }

    /** The folder around all documents. */
    private static Path topOf(Path original, List<Document> documents) {
        Path top = original.toAbsolutePath().normalize().getParent();
        for (Document document : documents) {
            while (!Path.of(document.location()).startsWith(top)) {
                top = top.getParent();
            }
        }
        return top;
    }

    private List<byte[]> samples(Path path) {
        Contract contract = read(path);
        List<byte[]> made = new ArrayList<>();
        if (contract.isSound()) {
            ContractCheck check = new ContractCheck(contract);
            for (boolean full : new boolean[] {false, true}) {
                Samples samples = new Samples(contract, check.vocabulary(), full);
                samples.elements().stream()
                        .limit(5)
                        .forEach(name -> made.add(samples.element(name).getBytes(StandardCharsets.UTF_8)));
            }
        }
        return made;
    }

    private void message(Path path, byte[] original, int number) {
        byte[] mutant = mutated(original);
        ContractCheck check = new ContractCheck(read(path));
        watch("message " + number + " of " + path, () -> {
            Findings findings = new Findings();
            MessageElement root = MessageReader.read("message", mutant, findings);
            String complaint = complaint(mutant);
            // A document of another version of XML 1 is read as one of 1.0 (XML 1.0, fifth edition, section 2.8).
            boolean other = complaint != null && complaint.contains("only XML 1.0 is supported");
            if ((root == null) == (complaint == null) && !other) {
                throw new IllegalStateException("the platform says " + complaint + ", we say "
                        + findings.sorted().stream().map(finding -> finding.message()).toList());
            }
            if (root == null) {
                return "not well-formed";
            }
            var checked = check.check(root);
            JsonMessageWriter.value(check.vocabulary(), checked.types(), root);
            return checked.deviations().isEmpty() ? "valid" : "deviating";
        });
    }

    /** Why the parser of the platform refuses a message; null when it takes it. A message has no document type declaration. */
    private static String complaint(byte[] message) {
        try {
            XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
            factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            XMLStreamReader reader = factory.createXMLStreamReader(new ByteArrayInputStream(message));
            while (reader.hasNext()) {
                int event = reader.next();
                if (event == XMLStreamReader.DTD) {
                    return "a document type declaration";
                }
                if (event == XMLStreamReader.ENTITY_REFERENCE) {
                    return "an entity";
                }
            }
            return null;
        } catch (XMLStreamException | RuntimeException e) {
            return String.valueOf(e.getMessage());
        }
    }

    /** Changes a contract so that it stays well-formed: what it says somewhere is said elsewhere, or no longer. */
    private byte[] rewritten(byte[] bytes) {
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        for (int changes = 1 + random.nextInt(3); changes > 0; changes--) {
            List<int[]> values = found(VALUE, text);
            List<int[]> elements = found(EMPTY_ELEMENT, text);
            if (values.isEmpty() || elements.isEmpty()) {
                break;
            }
            int[] value = values.get(random.nextInt(values.size()));
            int[] other = values.get(random.nextInt(values.size()));
            int[] element = elements.get(random.nextInt(elements.size()));
            int[] place = elements.get(random.nextInt(elements.size()));
            text = switch (random.nextInt(4)) {
                case 0 -> text.substring(0, element[0]) + text.substring(element[1]);
                case 1 -> text.substring(0, place[0]) + text.substring(element[0], element[1]) + text.substring(place[0]);
                default -> text.substring(0, value[0]) + text.substring(other[0], other[1]) + text.substring(value[1]);
            };
        }
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    private static List<int[]> found(Pattern pattern, String text) {
        return pattern.matcher(text).results()
                .map(match -> new int[] {match.start(1), match.end(1)})
                .toList();
    }

    private byte[] mutated(byte[] bytes) {
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        for (int changes = 1 + random.nextInt(4); changes > 0 && !text.isEmpty(); changes--) {
            text = changed(text);
        }
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    private String changed(String text) {
        int at = random.nextInt(text.length());
        int end = Math.min(text.length(), at + 1 + random.nextInt(60));
        switch (random.nextInt(9)) {
            case 0 -> {
                return text.substring(0, at) + (char) random.nextInt(256) + text.substring(Math.min(text.length(), at + 1));
            }
            case 1 -> {
                return text.substring(0, at) + text.substring(end);
            }
            case 2 -> {
                return text.substring(0, end) + text.substring(at, end) + text.substring(end);
            }
            case 3 -> {
                int value = text.indexOf("=\"", at);
                int close = value < 0 ? -1 : text.indexOf('"', value + 2);
                String instead = NUMBERS[random.nextInt(NUMBERS.length)];
                return close < 0 ? text : text.substring(0, value + 2) + instead + text.substring(close);
            }
            case 4 -> {
                return attributeMoved(text, at, random.nextInt(text.length()));
            }
            case 5 -> {
                int open = text.indexOf('<', at);
                int close = open < 0 ? -1 : text.indexOf("/>", open);
                return close < 0 || close - open > 300
                        ? text
                        : text.substring(0, open) + text.substring(open, close + 2).repeat(1 + random.nextInt(50))
                                + text.substring(close + 2);
            }
            case 6 -> {
                int open = text.indexOf('<', at);
                int close = open < 0 ? -1 : text.indexOf("/>", open);
                return close < 0 ? text : text.substring(0, open) + text.substring(close + 2);
            }
            case 7 -> {
                return text.substring(0, at) + "<![CDATA[<&]]>".substring(random.nextInt(3)) + text.substring(at);
            }
            default -> {
                return text.substring(0, random.nextInt(20) == 0 ? at : text.length());
            }
        }
    }

    /** The value of one attribute takes the place of another's. */
    private static String attributeMoved(String text, int from, int to) {
        int value = text.indexOf("=\"", from);
        int close = value < 0 ? -1 : text.indexOf('"', value + 2);
        int other = text.indexOf("=\"", to);
        int otherClose = other < 0 ? -1 : text.indexOf('"', other + 2);
        return close < 0 || otherClose < 0
                ? text
                : text.substring(0, other + 2) + text.substring(value + 2, close) + text.substring(otherClose);
    }

    private static void delete(Path tree) throws IOException {
        try (Stream<Path> files = Files.walk(tree)) {
            for (Path file : files.sorted((a, b) -> b.compareTo(a)).toList()) {
                if (!file.equals(tree)) {
                    Files.delete(file);
                }
            }
        }
    }
}
