package org.protypos.infer;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.authoring.SchemaText;
import org.protypos.diagnostic.Findings;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/** Documents in numbers: the platform's validator accepts each of them, and few that are spoilt. */
class ManyDocumentsTest {
    private static final int MESSAGES = 150;

    @ParameterizedTest
    @ValueSource(longs = {21, 22, 23, 24, 25, 26})
    void schemasAcceptWhatTheyWereInferredFromAndNotMuchElse(long seed, @TempDir Path folder) throws Exception {
        RandomContract random = new RandomContract(seed, 40);
        Map<String, String> documents = new LinkedHashMap<>();
        for (int i = 0; i < MESSAGES; i++) {
            documents.put("message" + i, random.message());
        }
        Infoset.Validator validator = validator(documents, folder);
        Random chance = new Random(seed);
        int rejected = 0;
        for (Map.Entry<String, String> document : documents.entrySet()) {
            assertThat(validator.complaint(document.getValue()))
                    .as("%s", document.getValue())
                    .isNull();
            if (validator.complaint(spoilt(document.getValue(), chance)) != null) {
                rejected++;
            }
        }
        assertThat(rejected).isGreaterThan(MESSAGES * 4 / 5);
    }

    /** Elements in every order there is, repeated at once and later, some from another namespace, some between text. */
    @Test
    void whateverTheOrderEveryDocumentIsAccepted(@TempDir Path folder) throws Exception {
        Random chance = new Random(7);
        Map<String, String> documents = new LinkedHashMap<>();
        for (int root = 0; root < 400; root++) {
            String round = "abcd".substring(0, 2 + chance.nextInt(3));
            for (int i = 0; i <= root % 4; i++) {
                StringBuilder text = new StringBuilder(chance.nextBoolean() ? "<head/>" : "");
                for (int at = chance.nextInt(12); at > 0; at--) {
                    char name = chance.nextInt(9) == 0
                            ? (char) ('a' + chance.nextInt(5))
                            : round.charAt(Math.floorMod(-at, round.length()));
                    String twice = "<" + (name == 'e' ? "e xmlns='urn:e'" : name) + "/>";
                    text.append(chance.nextInt(8) == 0 ? "" : twice).append(chance.nextInt(8) == 0 ? twice : "");
                }
                text.append(root % 17 == 0 ? "text" : "").append(chance.nextBoolean() ? "<tail/>" : "");
                documents.put(root + "." + i, "<r" + root + ">" + text + "</r" + root + ">");
            }
        }
        Infoset.Validator validator = validator(documents, folder);
        for (String document : documents.values()) {
            assertThat(validator.complaint(document)).as(document).isNull();
        }
    }

    private static Infoset.Validator validator(Map<String, String> documents, Path folder) throws Exception {
        Findings findings = new Findings();
        Inferred inferred = InferenceTest.inferred(documents, "", findings);
        assertThat(findings.sorted()).isEmpty();
        return InferenceTest.validator(SchemaText.of(inferred.schemas()), folder);
    }

    /** With an element more than any document has had, at the end of some element. */
    private static String spoilt(String document, Random chance) {
        List<Integer> ends = new ArrayList<>();
        for (int at = document.indexOf("</"); at >= 0; at = document.indexOf("</", at + 1)) {
            ends.add(at);
        }
        if (ends.isEmpty()) {
            return document.replaceFirst("/?>\\s*$", " spoilt=\"yes\"/>");
        }
        int at = ends.get(chance.nextInt(ends.size()));
        return document.substring(0, at) + "<spoilt/>" + document.substring(at);
    }

    @Test
    void depthNamespacesAndNumbersAreNoMatter(@TempDir Path folder) throws Exception {
        Map<String, String> documents = new LinkedHashMap<>();
        StringBuilder deep = new StringBuilder();
        for (int i = 0; i < 60; i++) {
            deep.append("<level").append(i).append('>');
        }
        for (int i = 59; i >= 0; i--) {
            deep.append("</level").append(i).append('>');
        }
        documents.put("deep", deep.toString());
        StringBuilder wide = new StringBuilder("<all>");
        for (int i = 0; i < 200; i++) {
            wide.append("<n:part xmlns:n=\"urn:lantern-bay:part:")
                    .append(i)
                    .append("\" n:number=\"")
                    .append(i)
                    .append("\"/>");
        }
        documents.put("wide", wide.append("</all>").toString());
        for (int i = 0; i < 5_000; i++) {
            documents.put(
                    "visit" + i,
                    "<visit number=\"" + i + "\"><vessel>" + (i % 3 == 0 ? "Gull" : "Tern") + "</vessel>"
                            + (i == 4_999 ? "<late/>" : "") + "</visit>");
        }
        Infoset.Validator validator = validator(documents, folder);
        for (String name : List.of("deep", "wide", "visit0", "visit4999")) {
            assertThat(validator.complaint(documents.get(name))).as(name).isNull();
        }
        assertThat(validator.complaint("<visit number=\"1\"><vessel>Marit</vessel></visit>"))
                .contains("Marit");
    }

    @Test
    void namesThatAreDataAreNotTakenForElements(@TempDir Path folder) throws Exception {
        StringBuilder document = new StringBuilder("<rates>");
        for (int i = 0; i < 1_500; i++) {
            document.append("<rate")
                    .append(i)
                    .append(" a")
                    .append(i)
                    .append("=\"x\">1</rate")
                    .append(i)
                    .append('>');
        }
        Map<String, String> documents =
                Map.of("rates", document.append("</rates>").toString());
        assertThat(validator(documents, folder).complaint(documents.get("rates")))
                .isNull();
    }

    /** A document that nobody holds in memory. */
    @Test
    void aDocumentIsNotHeldInMemory() {
        Findings findings = new Findings();
        Inference inference = new Inference(Decisions.none(findings), findings);
        inference.read(
                "long", repeated("<log>", "<entry><at>2026-11-03</at><wind>4</wind></entry>", 1_000_000, "</log>"));
        Inferred inferred = inference.inferred();
        assertThat(findings.sorted()).isEmpty();
        assertThat(SchemaText.of(inferred.schemas()).get("log.xsd"))
                .contains("<xs:element name=\"entry\" type=\"Entry\" maxOccurs=\"unbounded\"/>");
    }

    @Test
    void aTextThatNobodyCouldHoldIsTold() {
        Findings findings = new Findings();
        new Inference(Decisions.none(findings), findings)
                .read("huge", repeated("<log>", "x".repeat(1 << 20), 1 << 10, "</log>"));
        assertThat(findings.sorted()).hasSize(1);
        assertThat(findings.sorted().get(0).message()).contains("a text or a tag has more than 64 MB");
    }

    private static InputStream repeated(String first, String part, int times, String last) {
        return new InputStream() {
            private byte[] at = bytes(first);
            private int next;
            private int left = times + 1;

            private static byte[] bytes(String text) {
                return text.getBytes(StandardCharsets.UTF_8);
            }

            private boolean ready() {
                while (next == at.length) {
                    if (left == 0) {
                        return false;
                    }
                    left--;
                    at = left == 0 ? bytes(last) : left == times ? bytes(part) : at;
                    next = 0;
                }
                return true;
            }

            @Override
            public int read() {
                return ready() ? at[next++] & 0xff : -1;
            }

            @Override
            public int read(byte[] bytes, int offset, int length) {
                if (!ready()) {
                    return -1;
                }
                int some = Math.min(length, at.length - next);
                System.arraycopy(at, next, bytes, offset, some);
                next += some;
                return some;
            }
        };
    }
}
