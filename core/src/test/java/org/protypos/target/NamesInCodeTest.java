package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;

/**
 * Contracts in which everything is called like something in the generated code around it: what the runtimes, expected sources and
 * their platforms have names for, the types of another namespace, and the beginning of the packages. All of it compiles.
 */
class NamesInCodeTest {
    private static final List<String> PLAIN =
            List.of(("string token int decimal boolean dateTime date base64Binary hexBinary QName"
                            + " anyURI duration double unsignedLong NMTOKENS anyType")
                    .split(" "));

    /** Where names of hosts end and packages begin, and what elements are called, too. */
    private static final List<String> ROOTS = List.of("no de id in it to at is us be name info org".split(" "));

    @TempDir
    private Path folder;

    /** One contract. */
    private static final class Maker {
        private final Random random;
        private final List<String> words;
        private final List<String> simple;
        private final List<String> complex;
        private final List<String> values;
        private final String root;

        Maker(long seed, List<String> words) {
            this.random = new Random(seed);
            this.words = words;
            this.root = one(ROOTS);
            this.values = names(5);
            List<String> types = names(14);
            this.simple = types.subList(0, 4);
            this.complex = types.subList(4, 14);
        }

        private String one(List<String> of) {
            return of.get(random.nextInt(of.size()));
        }

        private String word() {
            String word = random.nextInt(12) == 0 ? root : one(words);
            return switch (random.nextInt(8)) {
                case 0 -> word.toLowerCase(java.util.Locale.ROOT);
                case 1, 2 -> Character.toUpperCase(word.charAt(0)) + word.substring(1);
                case 3 -> Character.toLowerCase(word.charAt(0)) + word.substring(1);
                case 4 -> word + "-" + one(words);
                case 5 -> "_" + word;
                default -> word;
            };
        }

        private List<String> names(int count) {
            Set<String> names = new LinkedHashSet<>();
            while (names.size() < count) {
                names.add(word());
            }
            return List.copyOf(names);
        }

        private String type() {
            return switch (random.nextInt(3)) {
                case 0 -> "xs:" + one(PLAIN);
                case 1 -> space() + one(simple);
                default -> space() + one(complex);
            };
        }

        /** The namespace of the contract, or the other one, in which types are called the same. */
        private String space() {
            return random.nextInt(3) == 0 ? "u:" : "t:";
        }

        private String types() {
            StringBuilder types = new StringBuilder();
            simple.forEach(name -> types.append("<xs:simpleType name='")
                    .append(name)
                    .append("'>")
                    .append(values(values))
                    .append("</xs:simpleType>"));
            for (String name : complex) {
                types.append("<xs:complexType name='" + name + "'>" + particles(0));
                List<String> attributes = names(3);
                types.append("<xs:attribute name='" + attributes.get(0) + "' type='xs:int'/><xs:attribute name='"
                        + attributes.get(1) + "' type='" + space() + one(simple) + "' default='" + one(values)
                        + "'/><xs:attribute name='" + attributes.get(2) + "' type='" + space() + one(simple)
                        + "'/></xs:complexType>");
            }
            return types.toString();
        }

        private String occurs() {
            return one(List.of(
                    "",
                    "",
                    " minOccurs='0'",
                    " maxOccurs='unbounded'",
                    " minOccurs='0' nillable='true'",
                    " nillable='true'"));
        }

        private static String values(List<String> names) {
            StringBuilder values = new StringBuilder("<xs:restriction base='xs:token'>");
            names.forEach(name ->
                    values.append("<xs:enumeration value='").append(name).append("'/>"));
            return values.append("</xs:restriction>").toString();
        }

        private String particles(int depth) {
            StringBuilder all = new StringBuilder("<xs:sequence>");
            for (String name : names(random.nextInt(5))) {
                String start = "<xs:element name='" + name + "'" + occurs();
                all.append(
                        switch (random.nextInt(depth < 3 ? 6 : 3)) {
                            case 3 ->
                                start + "><xs:complexType>" + particles(depth + 1) + "</xs:complexType></xs:element>";
                            case 4 -> start + "><xs:simpleType>" + values(names(3)) + "</xs:simpleType></xs:element>";
                            case 5 ->
                                "<xs:choice maxOccurs='unbounded'>" + start + " type='" + type()
                                        + "'/><xs:element name='" + word() + ".2' type='xs:int'/></xs:choice>";
                            default -> start + " type='" + type() + "'/>";
                        });
            }
            return all.append("</xs:sequence>").toString();
        }

        String contract() {
            StringBuilder types = new StringBuilder(types());
            StringBuilder messages = new StringBuilder();
            StringBuilder offered = new StringBuilder();
            StringBuilder bound = new StringBuilder();
            List<String> operations = names(8);
            for (int i = 0; i < operations.size(); i++) {
                String name = operations.get(i);
                String block = "block" + i;
                types.append("<xs:element name='" + name + "'><xs:complexType>" + particles(3)
                                + "</xs:complexType></xs:element>")
                        .append("<xs:element name='" + name + "..'><xs:complexType>" + particles(3)
                                + "</xs:complexType></xs:element>")
                        .append("<xs:element name='" + block + "' type='" + type() + "'"
                                + one(List.of("", " nillable='true'")) + "/>");
                messages.append("<w:message name='in" + i + "'><w:part name='p' element='t:" + name
                        + "'/><w:part name='h' element='t:" + block + "'/></w:message><w:message name='out" + i
                        + "'><w:part name='p' element='t:" + name + "..'/></w:message><w:message name='" + name
                        + "'><w:part name='d' element='t:" + block + "'/></w:message>");
                offered.append(
                        "<w:operation name='" + name + "'><w:input message='t:in" + i + "'/><w:output message='t:out"
                                + i + "'/><w:fault name='f' message='t:" + name + "'/></w:operation>");
                bound.append(
                        "<w:operation name='" + name + "'><s:operation soapAction='a" + i
                                + "'/><w:input><s:header message='t:in" + i
                                + "' part='h' use='literal'/><s:body parts='p' use='literal'/></w:input><w:output><s:body"
                                + " use='literal'/></w:output><w:fault name='f'><s:fault name='f' use='literal'/></w:fault></w:operation>");
            }
            String space = "http://bay." + root + "/" + one(words) + "/" + one(words);
            String other = "http://bay." + root + "/twin";
            List<String> own = names(3);
            return "<w:definitions xmlns:w='http://schemas.xmlsoap.org/wsdl/' xmlns:xs='http://www.w3.org/2001/XMLSchema'"
                    + " xmlns:s='http://schemas.xmlsoap.org/wsdl/soap/' xmlns:t='" + space + "' xmlns:u='" + other
                    + "' targetNamespace='" + space
                    + "'><w:types><xs:schema targetNamespace='" + other + "' elementFormDefault='qualified'><xs:import"
                    + " namespace='" + space + "'/>" + types() + "</xs:schema><xs:schema targetNamespace='" + space
                    + "' elementFormDefault='qualified'><xs:import namespace='" + other + "'/>" + types
                    + "</xs:schema></w:types>" + messages + "<w:portType name='" + own.get(0) + "'>" + offered
                    + "</w:portType><w:binding name='b' type='t:" + own.get(0)
                    + "'><s:binding transport='http://schemas.xmlsoap.org/soap/http'/>" + bound
                    + "</w:binding><w:service name='"
                    + own.get(1) + "'><w:port name='" + own.get(2)
                    + "' binding='t:b'><s:address location='http://localhost/x'/></w:port></w:service></w:definitions>";
        }
    }

    /** All names in sources below a folder, but those in their texts and remarks. */
    private static void words(Path folder, String called, Set<String> into) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path source : all.filter(file -> file.getFileName().toString().matches("(" + called + ")\\.(java|cs)"))
                    .toList()) {
                String code = Files.readString(source).replaceAll("\"[^\"\n]*\"|//.*|(?m)^\\s*/?\\*.*", " ");
                Matcher word = Pattern.compile("\\b[A-Za-z_][A-Za-z0-9_]*\\b").matcher(code);
                while (word.find()) {
                    into.add(word.group());
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    void contractsCalledLikeTheCodeAroundThemCompile(long seed) throws Exception {
        Set<String> words = new TreeSet<>();
        words(Path.of("src/test/resources/expected"), ".*", words);
        words(Path.of("../runtime/src/main"), ".*", words);
        compile(
                Files.writeString(folder.resolve("named.wsdl"), new Maker(seed, new ArrayList<>(words)).contract()),
                false);
    }

    /** A type, a member and an attribute for each name in what generated classes are derived from. */
    @Test
    void whatClassesInheritHidesNothing() throws Exception {
        Set<String> words = new TreeSet<>();
        words(Path.of("../runtime/src/main"), "XmlObject|SoapMessage|DeclaredFault|SoapExceptions", words);
        StringBuilder schema = new StringBuilder("<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'"
                + " xmlns='urn:bay' targetNamespace='urn:bay' elementFormDefault='qualified'>");
        for (String word : words) {
            schema.append("<xs:complexType name='" + word + "'><xs:sequence><xs:element name='" + word
                    + "' type='xs:int'/></xs:sequence></xs:complexType><xs:complexType name='" + word
                    + ".'><xs:attribute name='" + word + "' type='xs:int'/></xs:complexType>");
        }
        compile(Files.writeString(folder.resolve("named.xsd"), schema + "</xs:schema>"), true);
    }

    /** Compiles all that is made of a contract, with a runtime or with one of its own, of which nothing is in its way. */
    private void compile(Path contract, boolean embedded) throws IOException {
        Generated.from(List.of(contract), folder.resolve("java"), (String) null).close();
        CSharp.assumed();
        Path sources = folder.resolve("csharp");
        GeneratedCode code = Generator.of(List.of(contract.toString()))
                .target(Targets.named("csharp"))
                .generate(new Order(
                        "", sources, null, EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER), embedded))
                .written(false, false);
        assertThat(code.isRefused()).as("findings %s", code.findings()).isFalse();
        CSharp.compile(
                CSharp.sources(sources),
                "library",
                folder.resolve("named.dll"),
                embedded ? List.of() : List.of(CSharp.runtime()));
    }
}
