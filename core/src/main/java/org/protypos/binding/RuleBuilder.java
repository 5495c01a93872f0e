package org.protypos.binding;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.naming.NameRules;

/** Makes rules of what a file says, and tells what it says that makes no sense. */
final class RuleBuilder {
    private static final Set<String> NAMES = Set.of("name", "prefix", "suffix", "package", "omit");
    private static final Set<String> CORRECTIONS = Set.of(
            "occurs",
            "nillable",
            "type",
            "form",
            "default",
            "base",
            "address",
            "soapAction",
            "style",
            "add",
            "after",
            "values",
            "drop");
    private static final Set<String> SHAPES = Set.of(
            "as",
            "with",
            "parse",
            "print",
            "existing",
            "optional",
            "unwrap",
            "carries",
            "implements",
            "documentation",
            "parameters",
            "async");
    private static final Set<String> NUMBERS = Set.of("room", "times", "digits", "decimals");
    private static final Set<String> MAY_BE_NOTHING = Set.of("room", "decimals");
    private static final Set<String> USAGES = Set.of("packed", "binary", "zoned");
    private static final int MOST_ROOM = 1_000_000;
    private static final Set<String> FLAGS =
            Set.of("omit", "nillable", "optional", "unwrap", "async", "parts", "file", "varying");

    private final NameRules names;
    private final SelectorReader selectors;
    private final Findings findings;
    private boolean sound;

    RuleBuilder(NameRules names, SelectorReader selectors, Findings findings) {
        this.names = names;
        this.selectors = selectors;
        this.findings = findings;
    }

    /** The keys that a rule may have for one language alone. */
    static Set<String> languageKeys() {
        Set<String> keys = new TreeSet<>(NAMES);
        keys.addAll(SHAPES);
        keys.addAll(NUMBERS);
        keys.addAll(List.of("usage", "parts", "file", "varying"));
        keys.removeAll(Set.of("omit", "carries"));
        return keys;
    }

    /** All keys that a rule may have, with those of languages. */
    static Set<String> keys(Set<String> languages) {
        Set<String> keys = new TreeSet<>(Set.of("on", "because"));
        keys.addAll(languages);
        keys.addAll(NAMES);
        keys.addAll(CORRECTIONS);
        Correction.FACETS.forEach(facet -> keys.add(facet.local()));
        keys.addAll(SHAPES);
        return keys;
    }

    private void wrong(String code, Place place, String message, String cure) {
        findings.error(code, place, message, cure);
        sound = false;
    }

    /** A name in the value of a key; null when it is none, which is told. */
    private QName name(WrittenRule rule, String key, String text) {
        QName name = selectors.name(text, rule.at(key));
        sound &= name != null;
        return name;
    }

    private void wrong(WrittenRule rule, String key, String message, String cure) {
        wrong("rule-value", rule.at(key), message, cure);
    }

    /** The rule, or null when it cannot be understood. */
    Rule rule(WrittenRule written) {
        sound = true;
        for (String flag : FLAGS) {
            if (written.has(flag) && !written.text(flag).matches("true|false")) {
                wrong(written, flag, "\"" + written.text(flag) + "\" is neither true nor false", "write true or false");
            }
        }
        Shape shape = shape(written);
        Correction correction =
                new CorrectionBuilder(this::name, (key, text, cure) -> wrong(written, key, text, cure)).build(written);
        Rule.Effect effect = new Rule.Effect(
                written.text("name"),
                written.text("prefix"),
                written.text("suffix"),
                written.text("package"),
                Boolean.TRUE.equals(written.flag("omit")),
                shape.isNothing() ? null : shape,
                correction.isNothing() ? null : correction);
        if (!written.has("on")) {
            wrong("rule-key", written.place(), "the rule does not say what it is about", "begin it with \"on:\"");
            return null;
        }
        Rule.Selector selector = selectors.selector(written.text("on").strip(), written.at("on"));
        if (selector == null || !sound) {
            return null;
        }
        kinds(written, effect, selector);
        if (sound) {
            spelling(written, effect);
        }
        return sound
                ? new Rule(
                        selector,
                        effect,
                        written.said(),
                        written.text("because"),
                        written.place(),
                        written.inContract())
                : null;
    }

    /** Tells what a rule says that does not go together, or not with what it is about. */
    private void kinds(WrittenRule written, Rule.Effect effect, Rule.Selector selector) {
        Place place = written.place();
        if (effect.isNothing()) {
            wrong(
                    "rule-key",
                    place,
                    "the rule does nothing",
                    "say what becomes of the component: name, package, as, occurs or another key of a rule");
        } else if (effect.correction() != null && written.text("because") == null) {
            wrong(
                    "rule-key",
                    place,
                    "the correction does not say why it is there",
                    "add \"because:\" for who comes after you");
        } else if (effect.omitted()
                && (effect.isOfNames() || !selector.isOfType() && !selector.isOfOperationOrPort())) {
            wrong(
                    written,
                    "omit",
                    "only an operation, a port or a type is left out, and then has no name",
                    "write \"on: portType p:Name/operation\", \"on: service p:Name/port\" or \"on: ~p:Type\"");
        } else if (selector.isOfNamespace() != (effect.packageName() != null)
                || selector.isOfNamespace() && !effect.isOfPackageAlone()) {
            boolean namespace = selector.isOfNamespace();
            wrong(
                    "rule-value",
                    place,
                    namespace ? "a namespace gets a package and nothing else" : "only a namespace gets a package",
                    namespace ? "write \"package:\"" : "write \"on: namespace ...\"");
        } else if (effect.name() != null && (effect.prefix() != null || effect.suffix() != null)) {
            wrong("rule-value", place, "a name is given and changed at once", "leave out prefix and suffix");
        } else if (effect.name() != null && selector.pattern() != null) {
            wrong(
                    written,
                    "name",
                    "one name for all components that match a pattern",
                    "use prefix or suffix, or name one component");
        } else if (effect.isOfOperation() && !selector.isOfAll() && !selector.isOfOperationOrPort()) {
            wrong(
                    "rule-value",
                    place,
                    "only an operation can be treated like this",
                    "write \"on: portType p:Name/operation\"");
        } else if (effect.isOfPort() && !selector.written().startsWith("service ")) {
            wrong(written, "address", "only a port has an address", "write \"on: service p:Name/port\"");
        } else if (selector.isOfWsdl() && (effect.isOfSchema() || effect.isOfRecords() && !selector.isOfPart())) {
            wrong(
                    "rule-value",
                    place,
                    "only a component of a schema can be treated like this",
                    "write \"on: ~p:Type\", \"on: ~p:Type/p:element\" or the like");
        }
    }

    private Shape shape(WrittenRule rule) {
        List<String> interfaces = !rule.has("implements")
                ? null
                : Arrays.stream(rule.text("implements").split(","))
                        .map(String::strip)
                        .toList();
        if (interfaces != null && !interfaces.stream().allMatch(this::isClass)) {
            noClass(rule, "implements");
        }
        if (rule.has("existing") && !isClass(rule.text("existing"))) {
            noClass(rule, "existing");
        }
        if (rule.has("parameters") && !rule.text("parameters").matches("plain|object")) {
            wrong(rule, "parameters", "parameters are plain or one object", "write plain or object");
        }
        return new Shape(
                conversion(rule),
                rule.text("existing"),
                rule.flag("optional"),
                rule.flag("unwrap"),
                rule.has("carries") ? name(rule, "carries", rule.text("carries")) : null,
                interfaces,
                rule.text("documentation"),
                rule.has("parameters") ? rule.text("parameters").equals("plain") : null,
                rule.flag("async"),
                room(rule));
    }

    private Shape.Room room(WrittenRule rule) {
        for (String key : NUMBERS) {
            if (rule.has(key) && number(rule, key) == null) {
                wrong(
                        rule,
                        key,
                        "\"" + rule.text(key) + "\" is no number that a record could have of " + key,
                        "write a whole number from " + (MAY_BE_NOTHING.contains(key) ? 0 : 1) + " to " + MOST_ROOM);
            }
        }
        if (rule.has("usage") && !USAGES.contains(rule.text("usage"))) {
            wrong(
                    rule,
                    "usage",
                    "\"" + rule.text("usage") + "\" is no way to keep a number",
                    "write packed, binary or zoned");
        }
        Shape.Room room = new Shape.Room(
                number(rule, "room"),
                number(rule, "times"),
                number(rule, "digits"),
                number(rule, "decimals"),
                rule.text("usage"),
                rule.flag("parts"),
                rule.flag("file"),
                rule.flag("varying"));
        if (!room.isNothing() && !names.hasRecords()) {
            wrong(
                    "rule-value",
                    rule.place(),
                    "the rule says what records have room for, and " + names.language() + " has no records",
                    "say it below a language that has them");
        }
        return room.isNothing() ? null : room;
    }

    private static Integer number(WrittenRule rule, String key) {
        String text = rule.text(key);
        if (text == null || !text.matches("[0-9]{1,7}")) {
            return null;
        }
        int number = Integer.parseInt(text);
        return number > MOST_ROOM || number == 0 && !MAY_BE_NOTHING.contains(key) ? null : number;
    }

    private boolean isClass(String text) {
        return text.indexOf('.') > 0 && names.isQualifiedName(text);
    }

    private void noClass(WrittenRule rule, String key) {
        wrong(
                "rule-name",
                rule.at(key),
                "\"" + rule.text(key) + "\" is no class",
                "write the class with its package, like org.example.Tonnage");
    }

    private Shape.Conversion conversion(WrittenRule rule) {
        boolean own = rule.has("with") || rule.has("parse") || rule.has("print");
        if (!rule.has("as")) {
            if (own) {
                wrong("rule-key", rule.place(), "a converter for no type", "add \"as:\" with the type");
            }
            return null;
        }
        String type = rule.text("as");
        if (own ? !isClass(type) : !type.matches("[a-z]+") && !names.isQualifiedName(type)) {
            noClass(rule, "as");
        }
        if (!own) {
            return new Shape.Conversion(type, null, null);
        }
        if (rule.has("with") && !isClass(rule.text("with"))) {
            noClass(rule, "with");
        }
        String parse = method(rule, "parse");
        String print = method(rule, "print");
        if (parse == null || print == null) {
            wrong(
                    "rule-key",
                    rule.place(),
                    "a converter with half of what it needs",
                    "give it parse and print, or a class with both as \"with:\"");
        }
        return new Shape.Conversion(type, parse, print);
    }

    /** A method of a converter: static with its class, of the value itself, or a constructor. */
    private String method(WrittenRule rule, String key) {
        if (!rule.has(key)) {
            return rule.has("with") ? rule.text("with") + "." + key : null;
        }
        String method = rule.text(key);
        boolean ofValue = key.equals("print") ? names.isName(method) : method.equals("new");
        if (!ofValue && !(method.indexOf('.') > 0 && names.isQualifiedName(method))) {
            wrong(
                    "rule-name",
                    rule.at(key),
                    "\"" + method + "\" is no method",
                    "write a static method with its class, like org.example.Tonnage." + key);
        }
        return method;
    }

    private void spelling(WrittenRule written, Rule.Effect effect) {
        boolean name = effect.name() == null || names.isName(effect.name());
        boolean around = names.canStandAround(
                Objects.requireNonNullElse(effect.prefix(), ""), Objects.requireNonNullElse(effect.suffix(), ""));
        boolean packageName = effect.packageName() == null || names.isPackage(effect.packageName());
        if (!name || !around || !packageName) {
            String key = !name ? "name" : !packageName ? "package" : effect.prefix() != null ? "prefix" : "suffix";
            wrong(
                    "rule-name",
                    written.at(key),
                    "\"" + Printable.of(written.text(key)) + "\" cannot be a " + key + " in " + names.language(),
                    "use letters and digits, and no word of the language");
        }
    }
}
