import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.lang.reflect.Method;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;

/** Compares checking messages against a contract with reading them into generated types, in turns in one process. */
final class Check {
    private static final int ROUNDS = 7;
    private static final long ROUND_NANOS = 400_000_000L;

    private Check() {}

    /** Takes the contract, the folder of compiled types, the class that reads documents, and the folder of messages. */
    public static void main(String[] arguments) throws Exception {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(arguments[0]), null));
        List<byte[]> messages = new ArrayList<>();
        try (Stream<Path> files = Files.list(Path.of(arguments[3]))) {
            for (Path file : files.sorted().toList()) {
                messages.add(Files.readAllBytes(file));
            }
        }
        URL[] classes = {Path.of(arguments[1]).toUri().toURL()};
        Object types = new URLClassLoader(classes, ClassLoader.getPlatformClassLoader())
                .loadClass(arguments[2])
                .getField("INSTANCE")
                .get(null);
        Method read = types.getClass().getMethod("read", InputStream.class);
        MessageChecker checker = new MessageChecker(new Vocabulary(contract.schema()));
        List<MessageElement> parsed = new ArrayList<>();
        for (byte[] message : messages) {
            MessageElement root = MessageReader.read("message", message, new Findings());
            if (!checker.check(root).deviations().isEmpty()) {
                throw new IllegalStateException(
                        "a message is not valid: " + checker.check(root).deviations());
            }
            parsed.add(root);
        }
        double[] reading = new double[ROUNDS];
        double[] taking = new double[ROUNDS];
        double[] checking = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) {
            reading[round] = time(() -> {
                for (byte[] message : messages) {
                    read.invoke(types, new ByteArrayInputStream(message));
                }
                return null;
            });
            taking[round] = time(() -> {
                for (byte[] message : messages) {
                    MessageReader.read("message", message, new Findings());
                }
                return null;
            });
            checking[round] = time(() -> {
                for (MessageElement message : parsed) {
                    checker.check(message);
                }
                return null;
            });
        }
        long bytes = messages.stream().mapToLong(message -> message.length).sum();
        double whole = best(taking) + best(checking);
        System.out.printf(
                "%-44s %5d %8.1f %9.1f %9.1f %9.1f %6.2f %6.2f%n",
                Path.of(arguments[0]).getFileName(),
                messages.size(),
                bytes / 1024.0,
                best(reading),
                best(taking),
                best(checking),
                best(checking) / best(reading),
                whole / best(reading));
    }

    private static double best(double[] times) {
        return Arrays.stream(times).skip(2).min().orElseThrow();
    }

    /** Milliseconds for one pass over all messages. */
    private static double time(Callable<?> pass) throws Exception {
        long start = System.nanoTime();
        long end = start;
        int passes = 0;
        while (end - start < ROUND_NANOS) {
            pass.call();
            passes++;
            end = System.nanoTime();
        }
        return (end - start) / 1e6 / passes;
    }
}
