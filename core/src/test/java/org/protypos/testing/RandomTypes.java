package org.protypos.testing;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Predicate;

/**
 * Simple types of every variety with facets one upon the other, and texts that some of them take. The same seed gives the
 * same ones. Where the platform's validator is known to judge in its own way (long years, URIs, characters beyond the first
 * plane, white space in unions) nothing is asked.
 */
public final class RandomTypes {
    private static final List<String> TEXTS = List.of(
            "", " ", "a", "ab", "abcd", " a  b ", "A1", "7", "007", "é", "a b c", "&lt;", "-1", "AB-12", "a&#9;b");
    private static final List<String> NUMBERS = List.of(
            "0",
            "-0",
            "1",
            "-1",
            "+1",
            "7",
            "007",
            "12",
            "99",
            "100",
            "-5",
            "127",
            "128",
            "256",
            "32768",
            "4294967295",
            " 5 ",
            "1.0",
            "1.50",
            "00.10",
            ".5",
            "5.",
            "12.345",
            "-0.001",
            "1000000",
            "1e3",
            "x",
            "");
    private static final List<String> FLOATS = List.of(
            "0", "-0", "1", "1.50", "1E3", "1e-3", "INF", "-INF", "NaN", "+INF", "0.1", "-1.5E10", "007", " 2 ", "");
    private static final List<String> DATES = List.of(
            "2027-05-09",
            "2027-05-09Z",
            "2027-05-09+02:00",
            "-0044-03-15",
            "2027-02-29",
            "2028-02-29",
            "2027-05-10+10:00");
    private static final List<String> MOMENTS = List.of(
            "2027-05-09T10:00:00",
            "2027-05-09T10:00:00Z",
            "2027-05-09T10:00:00.10",
            "2027-05-09T12:00:00+02:00",
            "2027-05-09T24:00:00",
            "2027-05-10T00:00:00",
            "2027-02-29T00:00:00");
    private static final Map<String, List<String>> VALUES = new TreeMap<>(Map.ofEntries(
            Map.entry("string", TEXTS),
            Map.entry("token", TEXTS),
            Map.entry("language", TEXTS),
            Map.entry("NCName", TEXTS),
            Map.entry("NMTOKEN", TEXTS),
            Map.entry("decimal", NUMBERS),
            Map.entry("integer", NUMBERS),
            Map.entry("long", NUMBERS),
            Map.entry("byte", NUMBERS),
            Map.entry("nonNegativeInteger", NUMBERS),
            Map.entry("unsignedShort", NUMBERS),
            Map.entry("float", FLOATS),
            Map.entry("double", FLOATS),
            Map.entry("boolean", List.of("true", "false", "1", "0", " true ", "TRUE", "")),
            Map.entry("hexBinary", List.of("", "00", "0a", "0A", "0aFf", "ABCDEF0123", "0", " 0a ")),
            Map.entry("base64Binary", List.of("", "AAEC", "AAEC/w==", "AA==", "AA A=", "A", " AAEC ")),
            Map.entry("date", DATES),
            Map.entry("dateTime", MOMENTS),
            Map.entry(
                    "time",
                    List.of(
                            "10:00:00",
                            "10:00:00Z",
                            "24:00:00",
                            "00:00:00",
                            "10:00:00.50",
                            "12:00:00+02:00",
                            "25:00:00")),
            Map.entry("gMonthDay", List.of("--02-29", "--02-30", "--05-09", "--12-31")),
            Map.entry(
                    "duration",
                    List.of("P1Y", "P12M", "P30D", "PT24H", "P1D", "PT0.5S", "-PT0.5S", "PT60S", "P", "P400D"))));
    private static final List<String> PATTERNS = List.of(
            "[0-9]{3}",
            "[0-9]+",
            "[a-z]*",
            "[A-Z]{2}-[0-9]{2}",
            "\\d{1,2}(\\.\\d{2})?",
            "[+-]?\\d+",
            "0|1",
            "true|false",
            "[^ ]*",
            "\\S+( \\S+)*",
            ".{0,4}",
            "\\i\\c*",
            "[0-9a-f]*",
            "\\d{4}-\\d\\d-\\d\\dZ?",
            "P\\d+[YMD]",
            "[\\w-[0-9]]+",
            "\\p{L}+",
            "\\P{Nd}*",
            "-?[1-9][0-9]*",
            "[0-9]+\\.[0-9]{2}",
            "-?\\.\\d+");
    private static final List<String> BOUNDS = List.of("minInclusive", "minExclusive", "maxInclusive", "maxExclusive");
    private static final List<String> LENGTHS = List.of("length", "minLength", "maxLength");

    private final Dice random;
    private final List<Type> types = new ArrayList<>();

    /**
     * A type.
     *
     * @param name its name
     * @param markup its definition
     * @param root the built-in type that its values are of; empty for unions, and for lists of them
     * @param values texts to try
     */
    public record Type(String name, String markup, String root, List<String> values, boolean isList, boolean isUnion) {}

    /**
     * Makes types.
     *
     * @param seed decides everything
     * @param size how many
     * @param isSchema whether the definitions of some types are valid
     */
    public RandomTypes(long seed, int size, Predicate<String> isSchema) {
        random = new Dice(seed);
        StringBuilder markup = new StringBuilder();
        for (int tries = 0; types.size() < size && tries < 20 * size; tries++) {
            Type type = type("T" + types.size());
            if (type != null && isSchema.test(markup + type.markup())) {
                types.add(type);
                markup.append(type.markup());
            }
        }
    }

    /** The types. */
    public List<Type> types() {
        return types;
    }

    private Type base() {
        if (types.size() > 3 && random.nextInt(100) < 60) {
            return random.of(types);
        }
        String name = random.of(List.copyOf(VALUES.keySet()));
        return new Type("xs:" + name, "", name, VALUES.get(name), false, false);
    }

    private Type type(String name) {
        String start = "<xs:simpleType name=\"" + name + "\">";
        String end = "</xs:simpleType>\n";
        switch (random.nextInt(8)) {
            case 0 -> {
                Type item = base();
                return item.isList || item.isUnion
                        ? null
                        : new Type(
                                name,
                                start + "<xs:list itemType=\"" + item.name + "\"/>" + end,
                                item.root,
                                lists(item),
                                true,
                                false);
            }
            case 1 -> {
                List<String> values = new ArrayList<>();
                StringBuilder members = new StringBuilder();
                for (int i = 2 + random.nextInt(2); i > 0; i--) {
                    Type member = base();
                    members.append(member.name).append(' ');
                    member.values.stream()
                            .filter(text -> !text.matches("(?s).*(\\s|&#).*"))
                            .forEach(values::add);
                }
                return new Type(
                        name, start + "<xs:union memberTypes=\"" + members + "\"/>" + end, "", values, false, true);
            }
            default -> {
                Type base = base();
                return new Type(
                        name,
                        start + "<xs:restriction base=\"" + base.name + "\">" + facets(base) + "</xs:restriction>"
                                + end,
                        base.root,
                        base.values,
                        base.isList,
                        base.isUnion);
            }
        }
    }

    private List<String> lists(Type item) {
        List<String> lists = new ArrayList<>(List.of(""));
        for (int i = 0; i < 10; i++) {
            List<String> items = new ArrayList<>();
            for (int j = random.nextInt(4); j > 0; j--) {
                items.add(random.of(item.values).strip());
            }
            lists.add(String.join(random.nextBoolean() ? " " : "  ", items));
        }
        return lists;
    }

    private String facets(Type base) {
        List<String> values =
                base.values.stream().filter(text -> !text.contains("&#")).toList();
        return switch (random.nextInt(5)) {
            case 0, 1 -> {
                String facets = facet("pattern", random.of(PATTERNS));
                yield random.nextBoolean() ? facets : facets + facet("pattern", random.of(PATTERNS));
            }
            case 2 -> facet("enumeration", random.of(values)) + facet("enumeration", random.of(values));
            case 3 ->
                base.values == NUMBERS
                        ? facet(
                                random.of(List.of("totalDigits", "fractionDigits")),
                                String.valueOf(1 + random.nextInt(4)))
                        : facet("whiteSpace", random.of(List.of("replace", "collapse")));
            default ->
                random.nextBoolean()
                        ? facet(random.of(BOUNDS), random.of(values))
                        : facet(random.of(LENGTHS), String.valueOf(random.nextInt(5)));
        };
    }

    private static String facet(String name, String value) {
        return "<xs:" + name + " value=\"" + value + "\"/>";
    }
}
