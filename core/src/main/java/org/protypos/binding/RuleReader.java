package org.protypos.binding;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.naming.NameRules;
import org.protypos.schema.Particle;
import org.protypos.source.Xml;

/** Reads files of rules, in YAML or JSON, and tells everything that is wrong with them at once. */
public final class RuleReader {
    private static final Set<String> KEYS =
            Set.of("on", "name", "prefix", "suffix", "package", "omit", "occurs", "nillable", "type", "because");
    private static final Pattern SELECTOR =
            Pattern.compile("(namespace .+|((portType|service|message) )?[^ ]+('.*')?)");
    private static final Pattern OCCURS = Pattern.compile("([0-9]{1,6})(?:\\.\\.([0-9]{1,6}|\\*))?");
    private static final Pattern PREFIX = Pattern.compile("[A-Za-z_][\\w.-]*");

    private final NameRules names;
    private final Findings findings = new Findings();
    private final List<Rule> rules = new ArrayList<>();
    private final Map<String, String> shared = new LinkedHashMap<>();
    private Map<String, String> prefixes = new LinkedHashMap<>();
    private SourceText text;
    private JsonParser in;

    private RuleReader(NameRules names) {
        this.names = names;
    }

    /**
     * Reads files.
     *
     * @param files the files, each with prefixes of its own
     * @param names which names the target can have
     * @return the rules, with findings for what is wrong; rules that cannot be understood are not among them
     */
    public static Rules read(List<Path> files, NameRules names) {
        RuleReader reader = new RuleReader(names);
        files.forEach(reader::file);
        return new Rules(reader.rules, reader.shared, reader.findings);
    }

    private void file(Path file) {
        String content;
        try {
            content = Files.readString(file, StandardCharsets.UTF_8);
        } catch (IOException e) {
            findings.error(
                    "rules-unreadable",
                    null,
                    "the rules in " + file + " cannot be read",
                    "give the path of a file in UTF-8");
            return;
        }
        text = new SourceText(file.toString().replace('\\', '/'), content);
        prefixes = new LinkedHashMap<>();
        // Prefixes may stand below the rules that use them: the file is read twice.
        for (boolean declaring : new boolean[] {true, false}) {
            try (JsonParser parser = new YAMLFactory().createParser(content)) {
                in = parser;
                top(declaring);
            } catch (JsonProcessingException e) {
                JsonLocation at = e.getLocation();
                findings.error(
                        "rules-syntax",
                        at == null ? text.at(0) : place(at),
                        "the file is not well-formed: "
                                + e.getOriginalMessage().lines().findFirst().orElse(""),
                        "write it as YAML or JSON");
                return;
            } catch (IOException e) {
                throw new IllegalStateException("text in memory can be read", e);
            }
        }
        prefixes.forEach(shared::putIfAbsent);
    }

    private Place place(JsonLocation at) {
        long offset = at.getCharOffset();
        return text.at((int) Math.max(0, Math.min(offset, text.text().length())));
    }

    private Place here() {
        return place(in.currentTokenLocation());
    }

    private void top(boolean declaring) throws IOException {
        if (in.nextToken() == null) {
            return;
        }
        if (in.currentToken() != JsonToken.START_OBJECT) {
            if (declaring) {
                wrong("the file holds no map", "begin it with \"prefixes:\" or \"rules:\"");
            }
            return;
        }
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String key = in.currentName();
            Place at = here();
            in.nextToken();
            if (key.equals("prefixes") && declaring) {
                prefixes();
            } else if (key.equals("rules") && !declaring) {
                list();
            } else {
                if (!key.equals("prefixes") && !key.equals("rules") && declaring) {
                    findings.error(
                            "rule-key", at, "\"" + key + "\" is no key of a file of rules", "use prefixes or rules");
                }
                in.skipChildren();
            }
        }
    }

    private void wrong(String message, String cure) {
        findings.error("rule-value", here(), message, cure);
    }

    private void prefixes() throws IOException {
        if (in.currentToken() == JsonToken.VALUE_NULL) {
            return;
        }
        if (in.currentToken() != JsonToken.START_OBJECT) {
            wrong("prefixes are a map from prefix to namespace", "write them like \"v: http://...\"");
            in.skipChildren();
            return;
        }
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String prefix = in.currentName();
            if (!PREFIX.matcher(prefix).matches()) {
                wrong("\"" + prefix + "\" is no prefix", "use letters and digits");
            }
            in.nextToken();
            if (in.currentToken() == JsonToken.VALUE_STRING) {
                prefixes.put(prefix, in.getText());
            } else {
                wrong("the prefix " + prefix + " stands for no namespace", "give it the namespace as text");
                in.skipChildren();
            }
        }
    }

    private void list() throws IOException {
        if (in.currentToken() == JsonToken.VALUE_NULL) {
            return;
        }
        if (in.currentToken() != JsonToken.START_ARRAY) {
            wrong("rules are a list", "begin each with \"- on:\"");
            in.skipChildren();
            return;
        }
        while (in.nextToken() != JsonToken.END_ARRAY) {
            if (in.currentToken() == JsonToken.START_OBJECT) {
                rule();
            } else {
                wrong("a rule is a map", "begin it with \"on:\"");
                in.skipChildren();
            }
        }
    }

    private void rule() throws IOException {
        Place place = here();
        Map<String, String> values = new LinkedHashMap<>();
        Map<String, Place> places = new LinkedHashMap<>();
        boolean sound = true;
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String key = in.currentName();
            Place at = here();
            in.nextToken();
            if (!KEYS.contains(key)) {
                findings.error(
                        "rule-key",
                        at,
                        "\"" + key + "\" is no key of a rule",
                        "the keys are " + String.join(", ", new TreeSet<>(KEYS)));
                in.skipChildren();
                sound = false;
            } else if (!in.currentToken().isScalarValue() || in.currentToken() == JsonToken.VALUE_NULL) {
                wrong("the value of " + key + " is no text", "write it as text");
                in.skipChildren();
                sound = false;
            } else if (values.putIfAbsent(key, in.getText()) != null) {
                findings.error("rule-key", at, "\"" + key + "\" is there twice", "keep one of the two");
                sound = false;
            } else {
                places.put(key, here());
            }
        }
        if (sound) {
            add(values, places, place);
        }
    }

    private void add(Map<String, String> values, Map<String, Place> places, Place place) {
        String on = values.get("on");
        Rule.Effect effect = new Rule.Effect(
                values.get("name"),
                values.get("prefix"),
                values.get("suffix"),
                values.get("package"),
                "true".equals(values.get("omit")),
                correction(values, places));
        if (on == null) {
            findings.error("rule-key", place, "the rule does not say what it is about", "begin it with \"on:\"");
            return;
        }
        Rule.Selector selector = selector(on.strip(), places.get("on"));
        if (selector == null) {
            return;
        }
        boolean refused = effect.correction() == null && (values.containsKey("occurs") || values.containsKey("type"));
        if (refused) {
            return;
        }
        if (effect.isNothing()) {
            findings.error(
                    "rule-key",
                    place,
                    "the rule does nothing",
                    "give it one of name, prefix, suffix, package, omit, occurs, nillable and type");
        } else if (effect.correction() != null && values.get("because") == null) {
            findings.error(
                    "rule-key",
                    place,
                    "the correction does not say why it is there",
                    "add \"because:\" for who comes after you");
        } else if (effect.omitted() && (effect.isOfNames() || !selector.isOfOperationOrPort())) {
            findings.error(
                    "rule-value",
                    places.get("omit"),
                    "only an operation or a port is left out, and then has no name",
                    "write \"on: portType p:Name/operation\" or \"on: service p:Name/port\"");
        } else if (selector.isOfNamespace() != (effect.packageName() != null)
                || effect.isOfNames() && selector.isOfNamespace()) {
            findings.error(
                    "rule-value",
                    place,
                    selector.isOfNamespace()
                            ? "a namespace gets a package and nothing else"
                            : "only a namespace gets a package",
                    selector.isOfNamespace() ? "write \"package:\"" : "write \"on: namespace ...\"");
        } else if (effect.name() != null && (effect.prefix() != null || effect.suffix() != null)) {
            findings.error("rule-value", place, "a name is given and changed at once", "leave out prefix and suffix");
        } else if (effect.name() != null && selector.pattern() != null) {
            findings.error(
                    "rule-value",
                    places.get("name"),
                    "one name for all components that match a pattern",
                    "use prefix or suffix, or name one component");
        } else if (isSpelled(effect, places)) {
            rules.add(new Rule(selector, effect, values.get("because"), place));
        }
    }

    /** What the contract should say, or null when nothing is said of that. */
    private Correction correction(Map<String, String> values, Map<String, Place> places) {
        Integer least = null;
        Integer most = null;
        Matcher occurs = OCCURS.matcher(values.getOrDefault("occurs", ""));
        if (occurs.matches()) {
            least = Integer.valueOf(occurs.group(1));
            String upper = occurs.group(2);
            most = upper == null ? least : upper.equals("*") ? Particle.UNBOUNDED : Integer.valueOf(upper);
        }
        if (values.containsKey("occurs") && (least == null || most < least)) {
            findings.error(
                    "rule-value",
                    places.get("occurs"),
                    "\"" + values.get("occurs") + "\" is no occurrence",
                    "write it like 1, 0..1, 1..* or 2..5");
            least = null;
        }
        Boolean nillable = values.containsKey("nillable") ? Boolean.valueOf(values.get("nillable")) : null;
        QName type = null;
        if (values.containsKey("type")) {
            String[] parts = values.get("type").strip().split(":", 2);
            String namespace =
                    parts.length == 1 ? "" : prefixes.getOrDefault(parts[0], parts[0].equals("xs") ? Xml.XSD : null);
            if (namespace == null) {
                findings.error(
                        "rule-selector",
                        places.get("type"),
                        "the prefix " + parts[0] + " is not declared",
                        "declare it under \"prefixes:\"");
            } else {
                type = new QName(namespace, parts[parts.length - 1]);
            }
        }
        Correction correction = new Correction(least, most, nillable, type);
        return correction.isNothing() ? null : correction;
    }

    private boolean isSpelled(Rule.Effect effect, Map<String, Place> places) {
        boolean name = effect.name() == null || names.isName(effect.name());
        boolean around = names.isName("x"
                + (effect.prefix() == null ? "" : effect.prefix())
                + (effect.suffix() == null ? "" : effect.suffix()));
        boolean packageName = effect.packageName() == null || names.isPackage(effect.packageName());
        if (!name || !around || !packageName) {
            String key = !name ? "name" : !packageName ? "package" : effect.prefix() != null ? "prefix" : "suffix";
            findings.error(
                    "rule-name",
                    places.get(key),
                    "the target cannot have the " + key + " it is given",
                    "use letters and digits, and no word of the language");
        }
        return name && around && packageName;
    }

    /** Puts namespaces in braces for prefixes; a value in quotation marks stays as it is. */
    private Rule.Selector selector(String on, Place place) {
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
                if (prefix && !prefixes.containsKey(word)) {
                    findings.error(
                            "rule-selector",
                            place,
                            "the prefix " + word + " in \"" + on + "\" is not declared",
                            "declare it under \"prefixes:\"");
                    return null;
                }
                expanded.append(prefix ? "{" + prefixes.get(word) + "}" : word);
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
        for (String piece : named.split("(?<=\\*)|(?=\\*)")) {
            regex.append(piece.equals("*") ? "[^/{}=@]*" : Pattern.quote(piece));
        }
        regex.append(Pattern.quote(expanded.substring(named.length())));
        return new Rule.Selector(written, expanded, Pattern.compile(regex.toString()));
    }
}
