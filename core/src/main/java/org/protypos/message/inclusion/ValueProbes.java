package org.protypos.message.inclusion;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.facet.FacetStep;
import org.protypos.schema.pattern.SchemaPattern;

/** Texts that are likely to tell two simple types apart: what stands at the edges of their facets, and one of every kind. */
final class ValueProbes {
    private static final int LONGEST = 20_000;
    private static final int STRETCHES = 8;
    private static final int VARIANTS = 12;

    /** A small range of whole numbers is gone through. */
    private static final long SMALL = 1_000;

    private static final List<String> KINDS = List.of(
            "text",
            "a",
            "A",
            "",
            "1",
            "0",
            "-1",
            "1.5",
            "+1",
            "01",
            "1.0",
            "true",
            "false",
            "1E5",
            "NaN",
            "INF",
            "-INF",
            "2027-05-09",
            "2027-05-09Z",
            "2027-05-09T12:00:00",
            "2027-05-09T12:00:00Z",
            "2027-05-09T12:00:00.5+01:00",
            "12:00:00",
            "12:00:00Z",
            "P1D",
            "P1Y",
            "-P1D",
            "PT0.5S",
            "2027",
            "2027-05",
            "--05",
            "--05-09",
            "---09",
            "en",
            "en-GB",
            "http://lanternbay.example/",
            "a b",
            "a  b",
            " a",
            "A1",
            "1a",
            "_a",
            "a-b",
            "a.b",
            "a:b",
            ":",
            "%",
            "\u00e9",
            "\u6e2f",
            "0A",
            "0a",
            "QUJD",
            "QUI=",
            "1 2",
            "0.123456789012345678",
            "123456789012345678901234567890");

    private static final List<String> EDGES = List.of(
            "127",
            "128",
            "-128",
            "-129",
            "255",
            "256",
            "32767",
            "32768",
            "-32768",
            "-32769",
            "65535",
            "65536",
            "2147483647",
            "2147483648",
            "-2147483648",
            "-2147483649",
            "4294967295",
            "4294967296",
            "9223372036854775807",
            "9223372036854775808",
            "-9223372036854775808",
            "-9223372036854775809",
            "18446744073709551615",
            "18446744073709551616",
            "3.5E38",
            "1E300");

    private final Set<String> probes = new LinkedHashSet<>();

    /**
     * Gathers texts.
     *
     * @param samples makes values of the one type
     */
    ValueProbes(ValueRule one, Vocabulary ofOne, Samples samples, ValueRule other, Vocabulary ofOther) {
        probes.addAll(samples.values(one, 4));
        facets(one, ofOne, false);
        facets(other, ofOther, true);
        probes.addAll(KINDS);
        probes.addAll(EDGES);
    }

    Set<String> all() {
        return probes;
    }

    private void facets(ValueRule rule, Vocabulary vocabulary, boolean refuses) {
        for (ValueRule at = rule; at != null; at = at.base()) {
            FacetStep step = vocabulary.step(at);
            if (step != null) {
                step.map(probing(refuses)).run();
            }
        }
        if (rule.members() != null) {
            rule.members().forEach(member -> facets(member, vocabulary, refuses));
        }
        if (rule.item() != null) {
            facets(rule.item(), vocabulary, refuses);
        }
    }

    private FacetStep.Cases<Runnable> probing(boolean refuses) {
        return new FacetStep.Cases<>(
                space -> () -> {},
                matching -> () -> matching.patterns().forEach(pattern -> matching(pattern, refuses)),
                values -> () -> values.values()
                        .forEach(value -> addAll(value, value + "x", value + " x", value.toUpperCase(Locale.ROOT))),
                least -> () -> around(least.bound()),
                most -> () -> around(most.bound()),
                length -> () -> lengths(length),
                digits -> () -> digits(digits));
    }

    private void addAll(String... texts) {
        probes.addAll(Arrays.asList(texts));
    }

    private void lengths(FacetStep.Length length) {
        for (long edge : new long[] {length.least(), length.most()}) {
            for (long count = edge - 1; count <= edge + 1; count++) {
                if (count >= 0 && count <= LONGEST) {
                    int times = (int) count;
                    addAll("x".repeat(times), "1".repeat(times), "0A".repeat(times), "QUJD".repeat((times + 2) / 3));
                    addAll(base64(times), ("a ".repeat(times)).strip(), ("1 ".repeat(times)).strip());
                }
            }
        }
    }

    private static String base64(int length) {
        return Base64.getEncoder().encodeToString("A".repeat(length).getBytes(StandardCharsets.US_ASCII));
    }

    private void around(String bound) {
        probes.add(bound);
        try {
            BigDecimal value = Lexical.parseDecimal(bound);
            for (String step : List.of("1", "0.1", "0.000001", "1000000")) {
                probes.add(value.add(new BigDecimal(step)).toPlainString());
                probes.add(value.subtract(new BigDecimal(step)).toPlainString());
            }
        } catch (IllegalArgumentException e) {
            if (bound.matches("[0-9]{4}.*")) {
                int year = Integer.parseInt(bound.substring(0, 4));
                for (int other : new int[] {year - 1, year + 1, year + 100}) {
                    probes.add(String.format(Locale.ROOT, "%04d", Math.max(1, Math.min(9999, other)))
                            + bound.substring(4));
                }
            } else if (bound.startsWith("P")) {
                addAll("P1D", "P100Y", "PT1S", "-P100Y");
            } else {
                addAll("00:00:00", "23:59:59");
            }
        }
    }

    private void digits(FacetStep.Digits digits) {
        if (digits.total() <= LONGEST) {
            addAll("9".repeat(digits.total()), "9".repeat(digits.total() + 1));
        }
        if (digits.fraction() <= LONGEST) {
            addAll("1." + "1".repeat(digits.fraction() + 1), "0." + "1".repeat(Math.max(1, digits.fraction())));
        }
    }

    private void matching(SchemaPattern pattern, boolean refuses) {
        for (int stretch = 0; stretch < STRETCHES; stretch++) {
            String text = pattern.sample(stretch, 0);
            probes.add(text);
            if (refuses && !text.isEmpty()) {
                addAll(text + text.charAt(text.length() - 1), text.substring(1), text.toLowerCase(Locale.ROOT));
            }
        }
        for (int variant = 1; variant < VARIANTS; variant++) {
            probes.add(pattern.sample(1, variant));
        }
    }

    /** All whole numbers of a range, or nothing when there are many. */
    static Set<String> range(BigDecimal least, BigDecimal most) {
        Set<String> all = new LinkedHashSet<>();
        if (least != null && most != null && most.subtract(least).compareTo(BigDecimal.valueOf(SMALL)) <= 0) {
            for (BigDecimal at = least; at.compareTo(most) <= 0; at = at.add(BigDecimal.ONE)) {
                all.add(at.toPlainString());
            }
        }
        return all;
    }
}
