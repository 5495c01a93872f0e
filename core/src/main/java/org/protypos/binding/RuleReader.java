package org.protypos.binding;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.MalformedText;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.naming.NameRules;

/** Reads files of rules, in YAML or JSON, and tells everything that is wrong with them at once. */
public final class RuleReader {
    private static final Set<String> LANGUAGE_KEYS = RuleBuilder.languageKeys();
    private static final Set<String> CONVERTERS = Set.of("with", "parse", "print");
    private static final Set<String> AROUND = Set.of("prefix", "suffix");

    /** The language that binding declarations are written for, and what they say that has a meaning in it alone. */
    private static final String DECLARED = "java";

    private static final Set<String> DECLARED_ALONE =
            Set.of("package", "as", "with", "parse", "print", "existing", "implements");
    private static final Pattern PREFIX = Pattern.compile("[A-Za-z_][\\w.-]*");

    private final NameRules names;
    private final Set<String> languages;
    private final Set<String> keys;
    private final Findings findings = new Findings();
    private final List<Rule> rules = new ArrayList<>();
    private final Map<String, String> shared = new LinkedHashMap<>();
    private Map<String, String> prefixes = new LinkedHashMap<>();
    private RuleBuilder builder;
    private SourceText text;
    private JsonParser in;

    private RuleReader(NameRules names) {
        this.names = names;
        this.languages = names.languages();
        this.keys = RuleBuilder.keys(languages);
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

    /**
     * Reads files, and makes rules of binding declarations.
     *
     * @param files the files, each with prefixes of its own
     * @param declared what binding declarations stand for
     * @param names which names the target can have
     */
    public static Rules read(List<Path> files, List<DeclaredRule> declared, NameRules names) {
        RuleReader reader = new RuleReader(names);
        files.forEach(reader::file);
        declared.forEach(reader::declared);
        return new Rules(reader.rules, reader.shared, reader.findings);
    }

    private void declared(DeclaredRule declared) {
        Findings own = new Findings();
        Map<String, String> values = new LinkedHashMap<>();
        values.put("on", declared.rule().on());
        values.putAll(declared.rule().values());
        if (!names.language().equals(DECLARED) && values.keySet().removeAll(DECLARED_ALONE) && values.size() == 1) {
            return;
        }
        Map<String, Place> places = new LinkedHashMap<>();
        values.keySet().forEach(key -> places.put(key, declared.place()));
        Rule rule = new RuleBuilder(names, new SelectorReader(Map.of(), own), own)
                .rule(new WrittenRule(values, places, declared.place(), declared.inContract()));
        if (rule != null) {
            rules.add(rule);
        }
        for (Finding finding : own.sorted()) {
            if (declared.inContract()) {
                findings.warning(finding.code(), finding.place(), finding.message(), finding.cure());
            } else {
                findings.error(finding.code(), finding.place(), finding.message(), finding.cure());
            }
        }
    }

    /**
     * Reads a text as if it stood in a file.
     *
     * @param name what to call the file
     */
    public static Rules read(String name, String text, NameRules names) {
        RuleReader reader = new RuleReader(names);
        reader.text(new SourceText(name, text));
        return new Rules(reader.rules, reader.shared, reader.findings);
    }

    private void file(Path file) {
        SourceText content;
        try {
            content = GivenFile.text(file, file.toString().replace('\\', '/'));
        } catch (IOException e) {
            findings.error(
                    "rules-unreadable",
                    null,
                    "the rules in " + file + " cannot be read: " + e.getMessage(),
                    "give the path of a file in UTF-8");
            return;
        }
        text(content);
    }

    private void text(SourceText source) {
        text = source;
        prefixes = new LinkedHashMap<>();
        builder = new RuleBuilder(names, new SelectorReader(prefixes, findings), findings);
        // Prefixes may stand below the rules that use them: the file is read twice.
        for (boolean declaring : new boolean[] {true, false}) {
            try (JsonParser parser = new YAMLFactory().createParser(source.text())) {
                in = parser;
                top(declaring);
            } catch (JsonProcessingException e) {
                findings.error(
                        "rules-syntax",
                        MalformedText.place(text, e),
                        "the file is not well-formed: " + MalformedText.reason(e),
                        "write it as YAML or JSON");
                return;
            } catch (IOException e) {
                throw new IllegalStateException("text in memory can be read", e);
            }
        }
        prefixes.forEach(shared::putIfAbsent);
    }

    private Place here() {
        return MalformedText.place(text, in.currentTokenLocation());
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
                if (!Set.of("prefixes", "rules", "$schema").contains(key) && declaring) {
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
        Entries neutral = new Entries();
        Entries own = new Entries();
        boolean sound = true;
        boolean ofLanguages = false;
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String key = in.currentName();
            Place at = here();
            in.nextToken();
            if (languages.contains(key)) {
                ofLanguages = true;
                sound &= block(key, key.equals(names.language()) ? own : new Entries());
            } else {
                sound &= entry(key, at, neutral, keys, "rule");
            }
        }
        if (!sound || ofLanguages && own.isEmpty() && neutral.saysNothing()) {
            return;
        }
        Rule rule = builder.rule(neutral.with(own).written(place));
        if (rule != null) {
            rules.add(rule);
        }
    }

    /** What a rule says for one language. */
    private boolean block(String language, Entries entries) throws IOException {
        if (in.currentToken() != JsonToken.START_OBJECT) {
            wrong("what is said for " + language + " is no map", "write keys and values below it");
            in.skipChildren();
            return false;
        }
        boolean sound = true;
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String key = in.currentName();
            Place at = here();
            in.nextToken();
            sound &= entry(key, at, entries, LANGUAGE_KEYS, "rule for " + language);
        }
        return sound;
    }

    private boolean entry(String key, Place at, Entries entries, Set<String> keys, String of) throws IOException {
        if (!keys.contains(key)) {
            findings.error(
                    "rule-key",
                    at,
                    "\"" + key + "\" is no key of a " + of,
                    NearestName.of(key, keys)
                            .map(near -> "the nearest is " + near)
                            .orElse("the keys are " + String.join(", ", keys)));
            in.skipChildren();
            return false;
        }
        Place there = here();
        String value = value(key);
        if (value == null) {
            return false;
        }
        if (!entries.add(key, value, there)) {
            findings.error("rule-key", at, "\"" + key + "\" is there twice", "keep one of the two");
            return false;
        }
        return true;
    }

    /** Keys with their values and where those stand. */
    private record Entries(Map<String, String> values, Map<String, Place> places) {
        Entries() {
            this(new LinkedHashMap<>(), new LinkedHashMap<>());
        }

        boolean add(String key, String value, Place place) {
            places.put(key, place);
            return values.putIfAbsent(key, value) == null;
        }

        boolean isEmpty() {
            return values.isEmpty();
        }

        boolean saysNothing() {
            return Set.of("on", "because").containsAll(values.keySet());
        }

        /** The same with what is said for the language: that comes first, and another type has no use for the converter of this one. */
        Entries with(Entries own) {
            Entries all = new Entries(new LinkedHashMap<>(values), new LinkedHashMap<>(places));
            if (own.values.containsKey("as")) {
                CONVERTERS.forEach(all.values::remove);
            }
            if (own.values.containsKey("name")) {
                AROUND.forEach(all.values::remove);
            }
            all.values.putAll(own.values);
            all.places.putAll(own.places);
            return all;
        }

        WrittenRule written(Place place) {
            return new WrittenRule(values, places, place, false);
        }
    }

    /** The text of a value, or null when it is none; interfaces and values may be a list, a default and facets nothing at all. */
    private String value(String key) throws IOException {
        if (in.currentToken() == JsonToken.VALUE_NULL && (key.equals("default") || Correction.isFacet(key))) {
            return WrittenRule.NOTHING;
        }
        if (in.currentToken() == JsonToken.START_ARRAY && (key.equals("implements") || key.equals("values"))) {
            List<String> items = new ArrayList<>();
            while (in.nextToken() != JsonToken.END_ARRAY) {
                items.add(in.getValueAsString(""));
                in.skipChildren();
            }
            return String.join(key.equals("values") ? WrittenRule.BETWEEN : ",", items);
        }
        if (!in.currentToken().isScalarValue() || in.currentToken() == JsonToken.VALUE_NULL) {
            wrong("the value of " + key + " is no text", "write it as text");
            in.skipChildren();
            return null;
        }
        return in.getText();
    }
}
