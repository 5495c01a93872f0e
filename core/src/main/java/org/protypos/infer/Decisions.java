package org.protypos.infer;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.BuiltIn;
import org.protypos.source.XmlText;

/** What somebody has decided, so that nothing has to be inferred there: read from a file in YAML. */
public final class Decisions {
    private static final Set<String> KEYS = Set.of("at", "type", "values", "name", "apart", "occurs", "order");
    private static final Set<String> TOP = Set.of("decisions", "files");
    private static final String FILE = "[A-Za-z0-9][A-Za-z0-9._-]*\\.xsd";
    private static final int SHOWN = 40;

    private final Map<String, Decision> byPlace = new LinkedHashMap<>();
    private final Map<String, String> files = new LinkedHashMap<>();
    private final Map<String, ValueRule> rules = new HashMap<>();
    private final Set<String> met = new HashSet<>();
    private final Set<String> told = new HashSet<>();
    private final Findings findings;

    private Decisions(Findings findings) {
        this.findings = findings;
    }

    /** Nothing is decided. */
    public static Decisions none(Findings findings) {
        return new Decisions(findings);
    }

    /**
     * Reads decisions.
     *
     * @param findings is told what is wrong with them, now or when documents contradict them
     */
    public static Decisions read(SourceText text, Findings findings) {
        Decisions decisions = new Decisions(findings);
        JsonValue value = JsonText.parseYaml(text, findings);
        if (value instanceof JsonValue.Members top) {
            top.members().forEach(decisions::top);
        } else if (value != null && !(value instanceof JsonValue.Nothing)) {
            decisions.wrong(value.place(), "the file holds no map", "begin it with \"decisions:\"");
        }
        decisions.byPlace.forEach((at, decision) -> decisions.rule(decision));
        return decisions;
    }

    private void wrong(Place place, String message, String cure) {
        findings.error("decision", place, message, cure);
    }

    private void top(String key, JsonValue value) {
        if (key.equals("decisions") && value instanceof JsonValue.Items items) {
            items.items().forEach(this::decision);
        } else if (key.equals("files") && value instanceof JsonValue.Members members) {
            members.members().forEach((namespace, file) -> {
                String name = text(file);
                if (name == null || !name.matches(FILE)) {
                    wrong(file.place(), "that is no name of a schema file", "write a plain name such as desk.xsd");
                } else if (files.containsValue(name)) {
                    wrong(file.place(), "two namespaces have the file " + name, "give each one of its own");
                } else {
                    files.put(namespace, name);
                }
            });
        } else if (!key.equals("$schema") && !(TOP.contains(key) && value instanceof JsonValue.Nothing)) {
            wrong(
                    value.place(),
                    TOP.contains(key)
                            ? key + (key.equals("files") ? " is no map" : " is no list")
                            : "\"" + key + "\" is no key of a file of decisions",
                    "use \"decisions:\" with a list below it, \"files:\" with a map from namespaces to file names");
        }
    }

    private static String text(JsonValue value) {
        return value == null ? null : value.scalar();
    }

    private void decision(JsonValue value) {
        if (!(value instanceof JsonValue.Members members)) {
            wrong(value.place(), "a decision is a map", "write \"at: berth/number\" and what is decided");
            return;
        }
        Map<String, JsonValue> keys = members.members();
        keys.forEach((key, given) -> {
            if (!KEYS.contains(key)) {
                wrong(
                        given.place(),
                        "\"" + key + "\" is no key of a decision",
                        NearestName.of(key, KEYS)
                                .map(near -> "the nearest is " + near)
                                .orElse("the keys are " + String.join(", ", KEYS)));
            }
        });
        String at = keys.containsKey("at") ? text(keys.get("at")) : null;
        if (at == null) {
            wrong(value.place(), "the decision does not say what it is about", "add \"at: berth/number\"");
            return;
        }
        Boolean[] occurs = occurs(keys.get("occurs"));
        Decision decision = new Decision(
                at,
                type(keys.get("type")),
                values(keys.get("values")),
                name(keys.get("name")),
                isTrue(keys.get("apart")),
                occurs[0],
                occurs[1],
                isInAnyOrder(keys.get("order")),
                value.place());
        if (byPlace.putIfAbsent(at, decision) != null) {
            wrong(value.place(), "there is a decision about " + at + " already", "make one of the two");
        }
    }

    private BuiltIn type(JsonValue value) {
        if (value == null) {
            return null;
        }
        String name = text(value);
        BuiltIn type = name == null ? null : BuiltIn.of(name);
        if (type == null || type == BuiltIn.NOTATION) {
            wrong(
                    value.place(),
                    "\"" + name + "\" is no built-in type",
                    NearestName.of(
                                    String.valueOf(name),
                                    Stream.of(BuiltIn.values())
                                            .map(BuiltIn::local)
                                            .collect(Collectors.toSet()))
                            .map(near -> "the nearest is " + near)
                            .orElse("use one such as int, decimal, date or token"));
        }
        return type;
    }

    private List<String> values(JsonValue value) {
        if (value == null) {
            return null;
        }
        List<String> values = new ArrayList<>();
        if (value instanceof JsonValue.Items items) {
            items.items().forEach(item -> values.add(String.valueOf(text(item))));
        } else if (!"any".equals(text(value))) {
            wrong(value.place(), "the values are no list", "write a list, or \"any\"");
        }
        return values;
    }

    private String name(JsonValue value) {
        String name = value == null ? null : text(value);
        if (value != null && (name == null || !name.matches(XmlText.NAME))) {
            wrong(value.place(), "that is no name for a type", "use letters and digits");
            return null;
        }
        return name;
    }

    private boolean isTrue(JsonValue value) {
        return value != null && "true".equals(text(value));
    }

    private boolean isInAnyOrder(JsonValue value) {
        if (value != null && !"any".equals(text(value))) {
            wrong(value.place(), "the order is not \"any\"", "write \"any\"; without it documents say the order");
        }
        return value != null;
    }

    private Boolean[] occurs(JsonValue value) {
        if (value == null) {
            return new Boolean[2];
        }
        String occurs = String.valueOf(text(value)).toLowerCase(Locale.ROOT);
        if (!occurs.matches("[01]\\.\\.[1*]|1")) {
            wrong(value.place(), "\"" + occurs + "\" says no occurrence", "write 1, 0..1, 0..* or 1..*");
            return new Boolean[2];
        }
        return new Boolean[] {occurs.startsWith("0"), occurs.endsWith("*")};
    }

    private void rule(Decision decision) {
        if (decision.type() == null
                && (decision.values() == null || decision.values().isEmpty())) {
            return;
        }
        ValueRule rule = ValueRule.of(
                decision.type() == null
                        ? BuiltIn.TOKEN.local()
                        : decision.type().local());
        if (decision.values() != null && !decision.values().isEmpty()) {
            rule = rule.values(decision.values().toArray(String[]::new));
        }
        rules.put(decision.at(), rule);
    }

    /** Looks whether a value is as decided. */
    void judge(String at, String value, String document, int line) {
        ValueRule rule = rules.get(at);
        if (rule == null || told.contains(at)) {
            return;
        }
        // Of a qualified name only the form can be judged here.
        ValueRule.Complaint wrong = rule.complaint(value, prefix -> "");
        if (wrong != null) {
            told.add(at);
            wrong(
                    byPlace.get(at).place(),
                    "it is decided otherwise than documents are: " + wrong.message() + " (" + at + " in " + document
                            + ":" + line + ")",
                    "decide so that it can be, or leave that document out");
        }
    }

    /** What is decided about any of some places, or null. */
    Decision of(Iterable<String> places) {
        Decision found = null;
        for (String place : places) {
            Decision one = byPlace.get(place);
            if (one != null) {
                met.add(place);
                found = found == null ? one : found;
            }
        }
        return found;
    }

    /** What is decided about a place, or null. */
    Decision of(String place) {
        return of(List.of(place));
    }

    /** The files that are decided, by namespace. */
    Map<String, String> files() {
        return files;
    }

    /** What documents contradict. */
    void contradicted(Decision decision, String what) {
        wrong(
                decision.place(),
                "it is decided otherwise than documents are: " + decision.at() + " " + what,
                "decide so that it can be, or leave that document out");
    }

    /** Tells which decisions were about nothing. */
    void tellUnmet(Set<String> places) {
        byPlace.forEach((at, decision) -> {
            if (!met.contains(at)) {
                findings.warning(
                        "decision-unused",
                        decision.place(),
                        "there is no " + shortened(at)
                                + " in the documents, or nothing of that kind to decide about it",
                        NearestName.of(at, places)
                                .map(near -> "perhaps " + near)
                                .orElse("take it away"));
            }
        });
    }

    private static String shortened(String text) {
        return text.length() <= SHOWN ? text : text.substring(0, SHOWN) + "…";
    }
}
