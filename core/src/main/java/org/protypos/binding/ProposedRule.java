package org.protypos.binding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Printable;
import org.protypos.source.Xml;

/**
 * A rule that somebody may want, as it would stand in a file.
 *
 * @param on the component, with namespaces in braces
 * @param values the other keys with their values; names in them have their namespaces in braces, and what is said for one
 *     language alone has its name and a dot before the key
 * @param remark what to say above it, or an empty text
 */
public record ProposedRule(String on, Map<String, String> values, String remark) {
    /** Keys of which the values are written as they are. */
    private static final List<String> BARE = List.of(
            "name",
            "package",
            "prefix",
            "suffix",
            "occurs",
            "nillable",
            "form",
            "drop",
            "optional",
            "async",
            "unwrap",
            "parameters",
            "room",
            "times",
            "digits");

    /** Keys of which the values name components. */
    private static final List<String> NAMED = List.of("type", "base", "add", "after");

    /** A file of rules. */
    public static String file(List<ProposedRule> rules) {
        List<String> texts = new ArrayList<>();
        for (ProposedRule rule : rules) {
            texts.add(rule.on());
            rule.values().forEach((key, value) -> {
                if (isNamed(key, value)) {
                    texts.add(value);
                }
            });
        }
        Map<String, String> prefixes = new LinkedHashMap<>(Suggestions.prefixesFor(texts));
        prefixes.values().remove(Xml.XSD);
        StringBuilder text = new StringBuilder(Suggestions.declared(prefixes)).append("rules:\n");
        for (ProposedRule rule : rules) {
            rule.append(text, prefixes, "  ");
        }
        return text.toString();
    }

    ProposedRule withoutRemark() {
        return new ProposedRule(on, values, "");
    }

    void append(StringBuilder to, Map<String, String> prefixes, String indent) {
        if (!remark.isEmpty()) {
            String line = Printable.without(Designators.named(remark, prefixes), ' ');
            to.append(indent).append("# ").append(line).append('\n');
        }
        to.append(indent)
                .append("- on: ")
                .append(Printable.quoted(shown(on, prefixes)))
                .append('\n');
        values.forEach((key, value) -> {
            int dot = key.indexOf('.');
            String said = key.substring(dot + 1) + ": "
                    + (isBare(key.substring(dot + 1), value)
                            ? value
                            : Printable.quoted(isNamed(key, value) ? shown(value, prefixes) : value));
            to.append(indent)
                    .append("  ")
                    .append(dot < 0 ? said : key.substring(0, dot) + ": {" + said + "}")
                    .append('\n');
        });
    }

    /** Whether a value names a component; what is added may be a value in quotation marks instead. */
    private static boolean isNamed(String key, String value) {
        return NAMED.contains(key) && !value.startsWith("'");
    }

    /** Whether a value needs no quotation marks: no text, or a number or nothing of a facet. */
    private static boolean isBare(String key, String value) {
        return BARE.contains(key) || Correction.isFacet(key) && value.matches("null|0|[1-9][0-9]{0,8}");
    }

    private static String shown(String text, Map<String, String> prefixes) {
        return Designators.shown(text, prefixes).replace("{" + Xml.XSD + "}", "xs:");
    }
}
