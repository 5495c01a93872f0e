package org.protypos.binding;

import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.source.Names;
import org.protypos.source.Xml;

/** Reads the selectors and names in one file of rules, with the prefixes that it declares. */
final class SelectorReader {
    private static final Pattern SELECTOR =
            Pattern.compile("(namespace .+|((portType|service|message) )?[^ ]+('.*')?)", Pattern.DOTALL);

    private static final Pattern NAME =
            Pattern.compile("(\\{(?<namespace>[^{}]*)\\}|(?<prefix>[^:{}]*):)?(?<local>[^:{}]+)");

    private final Map<String, String> prefixes;
    private final Findings findings;

    SelectorReader(Map<String, String> prefixes, Findings findings) {
        this.prefixes = prefixes;
        this.findings = findings;
    }

    /** The namespace of a prefix, or null; that of XML Schema need not be declared. */
    private String namespace(String prefix) {
        return prefixes.getOrDefault(prefix, prefix.equals("xs") ? Xml.XSD : null);
    }

    private void undeclared(String prefix, String text, Place place) {
        findings.error(
                "rule-selector",
                place,
                "the prefix " + prefix + " in \"" + text + "\" is not declared",
                "declare it under \"prefixes:\"");
    }

    /** Reads a name with a prefix, a namespace in braces or neither, or tells why it is none and gives null. */
    QName name(String text, Place place) {
        Matcher parts = NAME.matcher(text.strip());
        if (!parts.matches() || !Names.isName(parts.group("local"))) {
            findings.error(
                    "rule-value",
                    place,
                    "\"" + Printable.of(text) + "\" is no name",
                    "write it like p:Type, or {http://example.org/namespace}Type");
            return null;
        }
        String prefix = parts.group("prefix");
        String namespace =
                prefix == null ? Objects.requireNonNullElse(parts.group("namespace"), "") : namespace(prefix);
        if (namespace == null) {
            undeclared(prefix, text, place);
            return null;
        }
        return new QName(namespace, parts.group("local"));
    }

    /** Puts namespaces in braces for prefixes; a value in quotation marks stays as it is. Gives null for what is none. */
    Rule.Selector selector(String on, Place place) {
        if (!SELECTOR.matcher(on).matches()) {
            findings.error(
                    "rule-selector",
                    place,
                    "\"" + on + "\" designates no component",
                    "write it like ~p:Type, ~p:Type/p:element, ~p:Type/@attribute, ~p:Type='value', portType p:Name/operation,"
                            + " service p:Name/port, message p:Name or namespace p");
            return null;
        }
        if (on.startsWith(Rule.NAMESPACE)) {
            String named = on.substring(Rule.NAMESPACE.length()).strip();
            return selector(on, Rule.NAMESPACE + prefixes.getOrDefault(named, named));
        }
        StringBuilder expanded = new StringBuilder();
        int value = on.indexOf("='");
        int end = value < 0 ? on.length() : value;
        int at = 0;
        while (at < end) {
            char c = on.charAt(at);
            if (c == '{') {
                int close = Math.max(at, on.indexOf('}', at));
                expanded.append(on, at, close + 1);
                at = close + 1;
            } else if (Character.isLetter(c) || c == '_') {
                int stop = at;
                while (stop < end && ":/@~*{ ".indexOf(on.charAt(stop)) < 0) {
                    stop++;
                }
                String word = on.substring(at, stop);
                boolean prefix = stop < end && on.charAt(stop) == ':';
                String namespace = prefix ? namespace(word) : "";
                if (namespace == null) {
                    undeclared(word, on, place);
                    return null;
                }
                expanded.append(prefix ? "{" + namespace + "}" : word);
                at = prefix ? stop + 1 : stop;
            } else {
                expanded.append(c);
                at++;
            }
        }
        return selector(on, expanded.append(on, end, on.length()).toString());
    }

    private static Rule.Selector selector(String written, String expanded) {
        int value = expanded.indexOf("='");
        String named = value < 0 ? expanded : expanded.substring(0, value);
        if (named.indexOf('*') < 0) {
            return new Rule.Selector(written, expanded, null);
        }
        StringBuilder regex = new StringBuilder();
        for (String piece : named.split("(?<=\\*)(?!\\*)|(?<!\\*)(?=\\*)")) {
            regex.append(piece.equals("*") ? "[^/{}=@]*" : piece.startsWith("**") ? ".*" : Pattern.quote(piece));
        }
        regex.append(Pattern.quote(expanded.substring(named.length())));
        return new Rule.Selector(written, expanded, Pattern.compile(regex.toString()));
    }
}
