package org.protypos.message.sample;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.message.model.Vocabulary;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.facet.FacetStep;
import org.protypos.source.Xml;

/** Makes up values of simple types: plausible ones, as far as facets leave a choice. */
final class SampleValues {
    /** No value is made longer, though its type may ask for it. */
    private static final int LONGEST = 100_000;

    private static final int MOST_STRETCH = 24;
    private static final int PATTERN_VARIANTS = 40;

    /** What a text is likely to be that is called so. */
    private static final Map<String, String> BY_WORD = Map.ofEntries(
            Map.entry("name", "Aurora"),
            Map.entry("email", "desk@lanternbay.example"),
            Map.entry("mail", "desk@lanternbay.example"),
            Map.entry("url", "http://lanternbay.example/"),
            Map.entry("uri", "http://lanternbay.example/"),
            Map.entry("currency", "EUR"),
            Map.entry("country", "GB"),
            Map.entry("city", "Lantern Bay"),
            Map.entry("street", "Quay Road"),
            Map.entry("phone", "+44 20 5550 0100"),
            Map.entry("telephone", "+44 20 5550 0100"),
            Map.entry("language", "en"),
            Map.entry("title", "Harbour master"),
            Map.entry("version", "1.0"));

    private static final Map<String, List<String>> BY_TYPE = Map.ofEntries(
            Map.entry("boolean", List.of("true", "false")),
            Map.entry("decimal", List.of("12.5", "1", "0", "-1", "0.5")),
            Map.entry("float", List.of("1.5", "0", "-1.5")),
            Map.entry("double", List.of("1.5", "0", "-1.5")),
            Map.entry("duration", List.of("P2D", "PT1H", "P1Y", "P1M", "PT1S")),
            Map.entry("dateTime", List.of("2027-05-09T12:00:00Z", "2027-05-09T12:00:00")),
            Map.entry("date", List.of("2027-05-09", "2027-05-09Z")),
            Map.entry("time", List.of("12:00:00", "06:00:00", "18:00:00", "00:00:01", "23:59:59", "12:00:00Z")),
            Map.entry("gYear", List.of("2027")),
            Map.entry("gYearMonth", List.of("2027-05")),
            Map.entry("gMonth", List.of("--05", "--01", "--12")),
            Map.entry("gMonthDay", List.of("--05-09", "--01-01", "--12-31")),
            Map.entry("gDay", List.of("---09", "---01", "---28")),
            Map.entry("language", List.of("en", "de", "fr")));

    private final Vocabulary vocabulary;
    private final Prefixes prefixes;
    private boolean cut;

    SampleValues(Vocabulary vocabulary, Prefixes prefixes) {
        this.vocabulary = vocabulary;
        this.prefixes = prefixes;
    }

    /**
     * A value that a rule allows.
     *
     * @param hint the name of what holds the value
     * @param variant which of several values to take, from 0
     * @return the value, or the best guess when none is found
     */
    String value(ValueRule rule, String hint, int variant) {
        String[] first = new String[1];
        return candidates(rule, hint, variant)
                .peek(candidate -> first[0] = first[0] == null ? candidate : first[0])
                .filter(candidate -> rule.complaint(candidate, this::namespace) == null)
                .findFirst()
                .orElseGet(() -> first[0] == null ? "" : first[0]);
    }

    private String namespace(String prefix) {
        return prefix.equals("xml") ? Xml.XML : prefixes.declarations().get(prefix);
    }

    /** What may be a value, the likeliest first; each made up only when those before it will not do. */
    private Stream<String> candidates(ValueRule rule, String hint, int variant) {
        List<Supplier<Stream<String>>> sources = new ArrayList<>();
        for (ValueRule current = rule; current != null; current = current.base()) {
            FacetStep step = vocabulary.step(current);
            if (step instanceof FacetStep.OneOf values) {
                int count = values.values().size();
                sources.add(() -> IntStream.range(0, count)
                        .mapToObj(i -> enumerated(rule, values.values().get((i + variant) % count), values)));
            } else if (step instanceof FacetStep.Matching matching) {
                sources.add(() -> matching(matching, variant));
            }
        }
        if (rule.members() != null) {
            sources.add(() -> rule.members().stream().map(member -> value(member, hint, variant)));
        } else {
            sources.add(() -> {
                Set<String> candidates = new LinkedHashSet<>();
                if (rule.item() != null) {
                    items(rule, hint, variant, candidates);
                } else {
                    atoms(rule, hint, variant, candidates);
                }
                return candidates.stream();
            });
        }
        return sources.stream().flatMap(Supplier::get);
    }

    /** Enumerated names carry the prefixes of the contract, not of the sample. */
    private String enumerated(ValueRule rule, String value, FacetStep.OneOf values) {
        boolean name = "QName".equals(rule.primitive()) || "NOTATION".equals(rule.primitive());
        if (!name) {
            return value;
        }
        String text = value.strip();
        int colon = text.indexOf(':');
        String namespace = values.namespaces().apply(colon < 0 ? "" : text.substring(0, colon));
        return prefixes.name(namespace == null ? "" : namespace, text.substring(colon + 1));
    }

    private static Stream<String> matching(FacetStep.Matching matching, int variant) {
        Stream<String> stretched = IntStream.range(0, MOST_STRETCH)
                .boxed()
                .flatMap(stretch -> matching.patterns().stream().map(pattern -> pattern.sample(stretch, variant)));
        Stream<String> varied = IntStream.range(0, PATTERN_VARIANTS)
                .boxed()
                .flatMap(other -> matching.patterns().stream()
                        .flatMap(pattern ->
                                Stream.of(pattern.sample(1, variant + other), pattern.sample(3, variant + other))));
        return Stream.concat(stretched, varied);
    }

    private void items(ValueRule rule, String hint, int variant, Set<String> candidates) {
        int least = 1;
        for (ValueRule current = rule; current != null; current = current.base()) {
            if (vocabulary.step(current) instanceof FacetStep.Length length) {
                least = Math.max(least, length.least());
            }
        }
        List<String> items = new ArrayList<>();
        int count = bounded(least);
        for (int i = 0; i < count; i++) {
            items.add(value(rule.item(), hint, variant + i));
        }
        candidates.add(String.join(" ", items));
        candidates.add("");
    }

    private void atoms(ValueRule rule, String hint, int variant, Set<String> candidates) {
        String builtin = rule.builtin();
        String primitive = rule.primitive();
        List<String> bounds = new ArrayList<>();
        int least = 0;
        int most = Integer.MAX_VALUE;
        for (ValueRule current = rule; current != null; current = current.base()) {
            FacetStep step = vocabulary.step(current);
            if (step instanceof FacetStep.Length length) {
                least = Math.max(least, length.least());
                most = Math.min(most, length.most());
            } else if (step instanceof FacetStep.Least bound) {
                bounds.add(bound.bound());
            } else if (step instanceof FacetStep.Most bound) {
                bounds.add(bound.bound());
            }
        }
        switch (primitive) {
            case "string", "anySimpleType", "anyURI" -> texts(builtin, hint, variant, least, most, candidates);
            case "hexBinary" -> candidates.add("0A".repeat(Math.max(1, bounded(least))));
            case "base64Binary" -> candidates.add(base64(bounded(Math.max(least, Math.min(most, 3)))));
            case "QName", "NOTATION" -> name(primitive, variant, candidates);
            case "decimal" -> numbers(builtin, bounds, variant, candidates);
            default -> {
                List<String> known = BY_TYPE.getOrDefault(primitive, List.of(""));
                for (int i = 0; i < known.size(); i++) {
                    candidates.add(known.get((i + variant) % known.size()));
                }
                later(primitive, variant, candidates);
                bounds.forEach(bound -> near(primitive, bound, candidates));
            }
        }
    }

    /** More values of the types of which there are many, where one is asked for that differs from others. */
    private static void later(String primitive, int variant, Set<String> candidates) {
        if (variant == 0) {
            return;
        }
        List<String> known = List.copyOf(candidates);
        candidates.clear();
        switch (primitive) {
            case "float", "double" -> candidates.add(variant + ".5");
            case "date" -> candidates.add(2027 + variant + "-05-09");
            case "dateTime" -> candidates.add(2027 + variant + "-05-09T12:00:00Z");
            case "gYear" -> candidates.add(String.valueOf(2027 + variant));
            case "duration" -> candidates.add("P" + (2 + variant) + "D");
            default -> {
                // the others have few values
            }
        }
        candidates.addAll(known);
    }

    private static void near(String primitive, String bound, Set<String> candidates) {
        candidates.add(bound);
        if (primitive.equals("float") || primitive.equals("double")) {
            try {
                double value = Double.parseDouble(bound);
                candidates.add(String.valueOf(value + 0.5));
                candidates.add(String.valueOf(value - 0.5));
            } catch (NumberFormatException e) {
                // a bound such as INF has no neighbours
            }
        } else if (bound.matches("[0-9]{4}.*") && !primitive.equals("time")) {
            int year = Integer.parseInt(bound.substring(0, 4));
            candidates.add(String.format(Locale.ROOT, "%04d", year + 1) + bound.substring(4));
            candidates.add(String.format(Locale.ROOT, "%04d", Math.max(1, year - 1)) + bound.substring(4));
        }
    }

    private static void numbers(String builtin, List<String> bounds, int variant, Set<String> candidates) {
        if (variant == 0 && builtin.equals("decimal")) {
            candidates.addAll(BY_TYPE.get("decimal"));
        }
        candidates.add(String.valueOf(1 + variant));
        candidates.add("0");
        candidates.add(String.valueOf(-1 - variant));
        for (String bound : bounds) {
            try {
                BigDecimal value = Lexical.parseDecimal(bound);
                BigDecimal step = BigDecimal.valueOf(1L + variant);
                candidates.add(value.add(step).toPlainString());
                candidates.add(value.subtract(step).toPlainString());
                candidates.add(value.toPlainString());
                candidates.add(value.add(new BigDecimal("0.1")).toPlainString());
                candidates.add(value.subtract(new BigDecimal("0.1")).toPlainString());
            } catch (IllegalArgumentException e) {
                // the contract's findings tell of a bound that is no number
            }
        }
        if (bounds.size() == 2) {
            try {
                candidates.add(Lexical.parseDecimal(bounds.get(0))
                        .add(Lexical.parseDecimal(bounds.get(1)))
                        .divide(BigDecimal.valueOf(2))
                        .toPlainString());
            } catch (IllegalArgumentException e) {
                // as above
            }
        }
    }

    /** How long something is made that is to be so long at least. */
    private int bounded(int least) {
        cut |= least > LONGEST;
        return Math.min(least, LONGEST);
    }

    /** Whether a value was made shorter than its type asks for. */
    boolean isCut() {
        return cut;
    }

    private static String base64(int length) {
        byte[] bytes = new byte[length];
        for (int i = 0; i < length; i++) {
            bytes[i] = (byte) ('A' + i % 26);
        }
        return Base64.getEncoder().encodeToString(bytes);
    }

    private void name(String primitive, int variant, Set<String> candidates) {
        List<QName> known = primitive.equals("NOTATION")
                ? List.copyOf(vocabulary.schema().notations().keySet())
                : List.copyOf(vocabulary.schema().elements().keySet());
        if (known.isEmpty()) {
            candidates.add("name" + (variant == 0 ? "" : variant));
            return;
        }
        QName name = known.get(variant % known.size());
        candidates.add(prefixes.name(name.getNamespaceURI(), name.getLocalPart()));
    }

    private void texts(String builtin, String hint, int variant, int least, int most, Set<String> candidates) {
        String word = word(hint);
        String number = variant == 0 ? "" : String.valueOf(variant + 1);
        switch (builtin) {
            case "language" -> candidates.addAll(BY_TYPE.get("language"));
            case "Name", "NCName", "NMTOKEN", "ID", "IDREF", "ENTITY" ->
                fit(
                        hint.replaceAll("[^A-Za-z0-9]", "").replaceFirst("^(?=[0-9]|$)", "a") + number,
                        least,
                        most,
                        candidates);
            case "anyURI" -> candidates.add("http://lanternbay.example/" + (variant == 0 ? "" : number));
            default -> {
                String liked = BY_WORD.getOrDefault(word.substring(word.lastIndexOf(' ') + 1), word);
                fit(number.isEmpty() ? liked : liked + " " + number, least, most, candidates);
            }
        }
        fit("a" + number, least, most, candidates);
        fit(number, least, most, candidates);
        fit("1" + number, least, most, candidates);
    }

    /** A name as words: {@code berthNo} becomes {@code berth no}. */
    private static String word(String hint) {
        return hint.replaceAll("([a-z0-9])([A-Z])", "$1 $2")
                .replaceAll("[^A-Za-z0-9]+", " ")
                .strip()
                .toLowerCase(Locale.ROOT);
    }

    /** Cuts or fills a text to a length; what tells variants apart stands at the end and stays. */
    private void fit(String text, int least, int most, Set<String> candidates) {
        String fitting = text.length() > most ? text.substring(text.length() - most) : text;
        if (fitting.length() < bounded(least)) {
            fitting = "x".repeat(bounded(least) - fitting.length()) + fitting;
        }
        candidates.add(fitting.strip().length() == fitting.length() ? fitting : fitting.replace(' ', 'x'));
    }
}
