package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.generator.Generator;
import org.protypos.source.DocumentGatherer;

/**
 * An attack in the place of each value of a contract in turn, and of each text. Wherever the contract is still sound, the
 * code of each language is taken apart as its compiler does, and nothing of the attack is outside of literals and comments.
 */
class HostileTextTest {
    private static final String CALL = "Zq.x(1);";

    private static final String ATTACK =
            ("*/@/*\"@'@\\@\n@\r@\u0085@\u2028@\n      *> @\n       @\\u000a@\\u002a\\u002f@"
                            + "</summary>@*\\u002f@\\\\u0022@\\\"@\n#if @\n")
                    .replace("@", CALL);

    private static final int MOST_OF_A_KIND = 2;

    private static final Pattern VALUE =
            Pattern.compile("(?<=\\s(?!xmlns)[\\w.-]{1,20}(?::[\\w.-]{1,20})?=\")[^\"]*(?=\")|(?<=[\\w/]>)[^<>]+(?=<)");

    private static final Pattern BACKSLASH_U = Pattern.compile("\\\\(\\\\|u+([0-9a-fA-F]{4}))");

    @TempDir
    private Path folder;

    /** The second number is how many of the contracts are sound in spite of the attack. */
    @ParameterizedTest
    @CsvSource({
        "src/test/resources/carried/carried.wsdl, 40",
        "src/test/resources/proof/quay.wsdl, 50",
        "src/test/resources/blocks/blocks.wsdl, 100",
        "src/test/resources/declared/table.wsdl, 25",
        "../examples/papers/papers.wsdl, 100"
    })
    void everyValueStaysText(Path original, int sound) throws IOException {
        try (Stream<Path> files = Files.list(original.getParent())) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Files.copy(file, folder.resolve(file.getFileName()));
            }
        }
        Path contract = folder.resolve(original.getFileName());
        String text = Files.readString(contract);
        int count = 0;
        Map<String, Integer> seen = new HashMap<>();
        for (Matcher value = VALUE.matcher(text); value.find(); ) {
            if (seen.merge(kind(text, value.start()), 1, Integer::sum) > MOST_OF_A_KIND) {
                continue;
            }
            Files.writeString(contract, text.substring(0, value.start()) + escaped() + text.substring(value.end()));
            Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
            if (read.isSound()) {
                count++;
                String where = value.group() + " at " + value.start();
                for (Target target : Targets.all()) {
                    for (SourceFile file : Generator.of(read)
                            .target(target)
                            .plan()
                            .code()
                            .emit(EnumSet.complementOf(EnumSet.of(Product.FREE_FORM)), false, List::of)) {
                        holdsNoCode(file, where);
                    }
                }
            }
        }
        assertThat(count).isGreaterThanOrEqualTo(sound);
    }

    /** The element and the attribute in which a value stands. */
    private static String kind(String text, int at) {
        String before = text.substring(text.lastIndexOf('<', at) + 1, at);
        return before.split("[\\s>]", 2)[0] + before.substring(before.lastIndexOf(' ') + 1);
    }

    private static String escaped() {
        StringBuilder escaped = new StringBuilder();
        ATTACK.codePoints()
                .forEach(c -> escaped.append(Character.isLetterOrDigit(c) ? Character.toString(c) : "&#" + c + ";"));
        return escaped.toString();
    }

    private static void holdsNoCode(SourceFile file, String where) {
        assertThat(code(file).toLowerCase(Locale.ROOT))
                .as("%s in place of %s", file.path(), where)
                .doesNotContain("zq.x(");
    }

    /** What of a file is neither literal nor comment, as the compiler of its language reads it. */
    static String code(SourceFile file) {
        return file.path().endsWith(".java")
                ? outside(unescaped(file.text()), "\n\r")
                : file.path().endsWith(".cs") ? outside(file.text(), "\n\r\u0085\u2028\u2029") : ofColumns(file.text());
    }

    /** Java (JLS, section 3.3) knows such characters before anything else, in comments too. */
    private static String unescaped(String text) {
        return BACKSLASH_U
                .matcher(text)
                .replaceAll(found -> Matcher.quoteReplacement(
                        found.group(2) == null
                                ? found.group()
                                : Character.toString(Integer.parseInt(found.group(2), 16))));
    }

    /** What is outside of literals and comments; all that follows when one of them is not closed. */
    private static String outside(String text, String lineEnds) {
        StringBuilder code = new StringBuilder();
        int at = 0;
        while (at < text.length()) {
            char c = text.charAt(at);
            if (text.startsWith("/*", at)) {
                int end = text.indexOf("*/", at + 2);
                at = end < 0 ? at + 1 : end + 2;
            } else if (text.startsWith("//", at)) {
                while (at < text.length() && lineEnds.indexOf(text.charAt(at)) < 0) {
                    at++;
                }
            } else if (c == '"' || c == '\'') {
                int end = at + 1;
                while (end < text.length() && text.charAt(end) != c && lineEnds.indexOf(text.charAt(end)) < 0) {
                    end += text.charAt(end) == '\\' ? 2 : 1;
                }
                at = end < text.length() && text.charAt(end) == c ? end + 1 : at + 1;
            } else {
                code.append(c);
                at++;
            }
        }
        return code.toString();
    }

    /** COBOL in fixed form: the seventh column makes a line a comment, and a literal ends with its line. */
    private static String ofColumns(String text) {
        StringBuilder code = new StringBuilder();
        text.lines().filter(line -> line.length() < 7 || line.charAt(6) != '*').forEach(line -> code.append(
                        line.replaceAll("\"(?:[^\"]|\"\")*\"", ""))
                .append('\n'));
        return code.toString();
    }
}
