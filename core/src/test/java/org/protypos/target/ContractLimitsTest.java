package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.FutureTask;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Generated;
import org.protypos.testing.Plans;

/** Contracts of a size that nobody writes by hand: what a class can hold compiles, what none can is said. */
class ContractLimitsTest {
    @TempDir
    private Path folder;

    private Path schema(String namespace, String body) throws Exception {
        Path file = folder.resolve("large.xsd");
        return Files.writeString(
                file,
                "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" xmlns:t=\"" + namespace
                        + "\" targetNamespace=\"" + namespace + "\" elementFormDefault=\"qualified\">" + body
                        + "</xs:schema>",
                StandardCharsets.UTF_8);
    }

    private static String each(int count, IntFunction<String> one) {
        return IntStream.range(0, count).mapToObj(one).collect(Collectors.joining());
    }

    private static String type(String name, String content) {
        return "<xs:complexType name=\"" + name + "\">" + content + "</xs:complexType>";
    }

    /** Also in a namespace that asks for a package of the platform. */
    @Test
    void whatAClassCanHoldCompiles() throws Exception {
        String many = each(
                2_500,
                i -> "<xs:element name=\"berth" + i + "\" type=\"xs:dateTime\" minOccurs=\"0\" nillable=\"true\"/>");
        String ascii = "d".repeat(70_000);
        String wide = "\u00e4\u20ac".repeat(20_000);
        Path contract = schema(
                "http://util.java/",
                type("One", "<xs:choice>" + many + "</xs:choice>")
                        + type("Some", "<xs:choice maxOccurs=\"unbounded\">" + many + "</xs:choice>")
                        + type("All", "<xs:sequence>" + many + "</xs:sequence>")
                        + type(
                                "Remark",
                                "<xs:sequence><xs:element name=\"a\" type=\"xs:string\" default=\"" + ascii
                                        + "\"/></xs:sequence><xs:attribute name=\"b\" default=\"" + wide
                                        + "\" type=\"xs:string\"/>"));
        try (Generated generated = Generated.from(contract, folder.resolve("out"), null)) {
            assertThat(generated.plan().classes())
                    .allMatch(type -> type.packageName().equals("java_.util"));
            Class<?> remark = generated.load("java_.util.Remark");
            assertThat(remark.getMethod("getB").invoke(remark.getConstructor().newInstance()))
                    .isEqualTo(wide);
        }
    }

    /** Groups that double at each step; chains; nothing of it overflows or goes on without an end. */
    @Test
    void whatNoneCanHoldIsSaid() throws Exception {
        String doubling = each(
                60,
                i -> "<xs:group name=\"d" + i + "\"><xs:sequence>"
                        + (i == 0
                                ? "<xs:element name=\"x\" type=\"xs:string\"/>"
                                : ("<xs:group ref=\"t:d" + (i - 1) + "\"/>").repeat(2))
                        + "</xs:sequence></xs:group>");
        assertThat(findings(doubling + type("Wide", "<xs:group ref=\"t:d59\"/>")))
                .containsExactly("too-wide");
        assertThat(findings(doubling + type("Fits", "<xs:group ref=\"t:d7\"/>")))
                .isEmpty();
        String empty = doubling.replace("<xs:element name=\"x\" type=\"xs:string\"/>", "");
        assertThat(findings(empty + type("Wide", "<xs:group ref=\"t:d59\"/>"))).containsExactly("too-wide");
        String attributes = each(
                60,
                i -> "<xs:attributeGroup name='d" + i + "'>"
                        + (i == 0 ? "" : ("<xs:attributeGroup ref='t:d" + (i - 1) + "'/>").repeat(2))
                        + "</xs:attributeGroup>");
        assertThat(findings(attributes + type("Wide", "<xs:attributeGroup ref='t:d59'/>")))
                .containsExactly("too-wide");
        assertThat(findings(attributes + type("Fits", "<xs:attributeGroup ref='t:d7'/>")))
                .isEmpty();
        IntFunction<String> unions = steps -> each(
                        steps,
                        i -> "<xs:simpleType name='u" + i + "'>"
                                + (i == 0
                                        ? "<xs:restriction base='xs:int'/>"
                                        : "<xs:union memberTypes='t:u" + (i - 1) + " t:u" + (i - 1) + "'/>")
                                + "</xs:simpleType>")
                + type("Has", "<xs:attribute name='u' type='t:u" + (steps - 1) + "'/>");
        assertThat(findings(unions.apply(60))).containsExactly("too-wide");
        assertThat(findings(unions.apply(8))).isEmpty();
        Generated.from(schema("urn:u", unions.apply(12)), folder.resolve("unions"), "unions")
                .close();
    }

    /** Each of ten thousand is made from the next; and what goes round in circles is told of each on the circle alone. */
    @Test
    @Timeout(60)
    void chainsThatAreTooLongAndCirclesAreSaid() throws Exception {
        String[] one = {
            "<xs:simpleType name='r%1$d'><xs:restriction base='t:r%2$d'/></xs:simpleType>",
            "<xs:simpleType name='r%1$d'><xs:union memberTypes='xs:int t:r%2$d'/></xs:simpleType>",
            "<xs:simpleType name='r%1$d'><xs:list><xs:simpleType><xs:restriction base='t:r%2$d'/></xs:simpleType></xs:list>"
                    + "</xs:simpleType>",
            "<xs:complexType name='r%1$d'><xs:complexContent><xs:extension base='t:r%2$d'/></xs:complexContent></xs:complexType>",
            "<xs:group name='r%1$d'><xs:sequence><xs:group ref='t:r%2$d'/></xs:sequence></xs:group>",
        };
        String[] last = {
            "<xs:simpleType name='r%1$d'><xs:restriction base='xs:string'/></xs:simpleType>",
            "<xs:simpleType name='r%1$d'><xs:restriction base='xs:string'/></xs:simpleType>",
            "<xs:simpleType name='r%1$d'><xs:restriction base='xs:string'/></xs:simpleType>",
            "<xs:complexType name='r%1$d'/>",
            "<xs:group name='r%1$d'><xs:sequence/></xs:group>",
        };
        String[] circles = {"circular-base", "circular-base", "circular-base", "circular-base", "circular-group"};
        for (int kind = 0; kind < one.length; kind++) {
            String step = one[kind];
            String chain = each(10_000, i -> step.formatted(i, i + 1));
            assertThat(findings(chain + last[kind].formatted(10_000)))
                    .containsOnly("too-deep")
                    .hasSizeLessThan(3);
            String circle = each(5, i -> step.formatted(i, (i + 1) % 5)) + each(5, i -> step.formatted(i + 5, i));
            assertThat(findings(circle)).hasSize(5).containsOnly(circles[kind]);
        }
    }

    @Test
    void longChainsAreFollowed() throws Exception {
        int steps = 200;
        String chains = each(
                steps,
                i -> "<xs:simpleType name=\"r" + i + "\"><xs:restriction base=\""
                        + (i == 0 ? "xs:string" : "t:r" + (i - 1)) + "\"/></xs:simpleType>"
                        + "<xs:simpleType name=\"u" + i + "\"><xs:union memberTypes=\"xs:int "
                        + (i == 0 ? "xs:string" : "t:u" + (i - 1)) + "\"/></xs:simpleType>"
                        + "<xs:group name=\"g" + i + "\"><xs:sequence>"
                        + (i == 0
                                ? "<xs:element name=\"x\" type=\"t:u199\"/>"
                                : "<xs:group ref=\"t:g" + (i - 1) + "\"/>")
                        + "</xs:sequence></xs:group>"
                        + "<xs:attributeGroup name=\"a" + i + "\">"
                        + (i == 0
                                ? "<xs:attribute name=\"y\" type=\"t:r199\"/>"
                                : "<xs:attributeGroup ref=\"t:a" + (i - 1) + "\"/>")
                        + "</xs:attributeGroup>");
        String deep = type("Deep", "<xs:group ref=\"t:g199\"/><xs:attributeGroup ref=\"t:a199\"/>");
        FutureTask<List<String>> task = new FutureTask<>(() -> findings(chains + deep));
        new Thread(null, task, "as much as the program has", 256 << 20).start();
        assertThat(task.get()).isEmpty();
    }

    private List<String> findings(String body) throws Exception {
        Contract contract = ContractReader.read(DocumentGatherer.gather(
                List.of(schema("http://harbour.lanternbay.example/", body).toString()), null));
        List<String> codes = contract.findings().stream().map(Finding::code).toList();
        if (codes.isEmpty()) {
            assertThat(Plans.of(contract).classes()).isNotEmpty();
        }
        return codes;
    }
}
