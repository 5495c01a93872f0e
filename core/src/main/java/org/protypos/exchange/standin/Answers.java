package org.protypos.exchange.standin;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;

/** What a stand-in is to answer, by operation and by what is in the request: read from a file in YAML or JSON. */
public final class Answers {
    /** Samples for everything. */
    public static final Answers NONE = new Answers(Map.of());

    private static final Set<String> KEYS = new TreeSet<>(
            Set.of("when", "secret", "answer", "fault", "reason", "code", "delay", "broken", "each", "whole"));
    private static final Pattern DELAY = Pattern.compile("([0-9]{1,5})(ms|s)");

    private final Map<String, List<PlannedAnswer>> byOperation;

    private Answers(Map<String, List<PlannedAnswer>> byOperation) {
        this.byOperation = byOperation;
    }

    /**
     * Reads a file.
     *
     * @param contract the contract whose operations it is about
     * @param findings is told everything that is wrong
     */
    public static Answers read(SourceText text, Contract contract, Findings findings) {
        JsonValue value = JsonText.parseYaml(text, findings);
        Map<String, List<PlannedAnswer>> answers = new LinkedHashMap<>();
        if (value != null) {
            new Reader(contract, findings).top(value, answers);
        }
        if (!findings.hasErrors()) {
            AnswerJudge judge = new AnswerJudge(contract, findings);
            answers.forEach((operation, planned) -> planned.forEach(one -> judge.judge(operation, one)));
        }
        return new Answers(answers);
    }

    /** These answers, and after them others. */
    public Answers before(Answers others) {
        Map<String, List<PlannedAnswer>> all = new LinkedHashMap<>(byOperation);
        others.byOperation.forEach((operation, planned) -> all.merge(operation, planned, (first, more) -> {
            List<PlannedAnswer> both = new ArrayList<>(first);
            both.addAll(more);
            return both;
        }));
        return new Answers(all);
    }

    /** What is said of an operation: by what tells it from others of its name, and by its name alone. */
    List<PlannedAnswer> of(CalledOperation called) {
        List<PlannedAnswer> own = byOperation.getOrDefault(called.key(), List.of());
        return own.isEmpty() ? byOperation.getOrDefault(called.operation().name(), List.of()) : own;
    }

    /** Reads the values of a file. */
    private record Reader(Contract contract, Findings findings) {
        private void wrong(Place place, String message, String cure) {
            findings.error("answers", place, message, cure);
        }

        private Map<String, JsonValue> members(JsonValue value, String what) {
            if (value instanceof JsonValue.Members members) {
                return members.members();
            }
            wrong(value.place(), what + " is no map", "write keys with values below it");
            return Map.of();
        }

        void top(JsonValue value, Map<String, List<PlannedAnswer>> answers) {
            Set<String> operations = new LinkedHashSet<>();
            for (CalledOperation called : CalledOperation.of(contract)) {
                operations.add(called.operation().name());
                operations.add(called.key());
            }
            members(value, "the file").forEach((key, all) -> {
                if (key.equals("$schema")) {
                    return;
                }
                if (!key.equals("answers")) {
                    wrong(all.place(), "\"" + key + "\" is no key of a file of answers", "use answers");
                    return;
                }
                members(all, "answers").forEach((name, list) -> {
                    if (!operations.contains(name)) {
                        wrong(
                                list.place(),
                                "there is no operation " + name,
                                NearestName.of(name, operations)
                                        .map(near -> "perhaps " + near)
                                        .orElse("there is " + String.join(", ", operations)));
                    }
                    answers.put(name, list(list));
                });
            });
        }

        private List<PlannedAnswer> list(JsonValue value) {
            List<JsonValue> items = value instanceof JsonValue.Items all ? all.items() : List.of(value);
            List<PlannedAnswer> planned = new ArrayList<>();
            items.forEach(item -> planned.add(one(item)));
            return planned;
        }

        private PlannedAnswer one(JsonValue value) {
            Map<String, JsonValue> keys = members(value, "an answer");
            keys.forEach((key, given) -> {
                if (!KEYS.contains(key)) {
                    wrong(
                            given.place(),
                            "\"" + key + "\" is no key of an answer",
                            NearestName.of(key, KEYS)
                                    .map(near -> "the nearest is " + near)
                                    .orElse("the keys are " + String.join(", ", KEYS)));
                }
            });
            Map<String, String> when = new LinkedHashMap<>();
            if (keys.containsKey("when")) {
                members(keys.get("when"), "when").forEach((path, wanted) -> when.put(path, text(wanted)));
            }
            // A reason or a code alone is a fault without a detail.
            String fault = keys.containsKey("reason") || keys.containsKey("code") ? "" : null;
            JsonValue answer = keys.get("answer");
            if (keys.containsKey("fault")) {
                Map<String, JsonValue> named = members(keys.get("fault"), "fault");
                fault = named.isEmpty() ? "" : named.keySet().iterator().next();
            }
            if (fault != null && answer != null) {
                wrong(value.place(), "an answer and a fault cannot both come", "leave one of them out");
            }
            if (fault != null && !fault.isEmpty()) {
                answer = members(keys.get("fault"), "fault").get(fault);
            }
            return new PlannedAnswer(
                    when,
                    keys.containsKey("secret") ? texts(keys.get("secret")) : List.of(),
                    answer,
                    fault,
                    keys.containsKey("reason") ? text(keys.get("reason")) : "the stand-in was told to",
                    blame(keys.get("code")),
                    delay(keys.get("delay")),
                    broken(keys.get("broken")),
                    keys.containsKey("each") ? list(keys.get("each")) : List.of(),
                    keys.containsKey("whole") && text(keys.get("whole")).equals("true"),
                    value.place());
        }

        /** {@code sender} or {@code receiver}, and codes of one's own. */
        private Blame blame(JsonValue value) {
            if (value == null) {
                return Blame.SERVICE;
            }
            List<String> words = texts(value);
            List<QName> codes = new ArrayList<>();
            for (String word : words) {
                if (word.equals(Blame.SENDER) || word.equals(Blame.RECEIVER)) {
                    continue;
                }
                QName code = Blame.code(word);
                if (code != null) {
                    codes.add(code);
                } else {
                    wrong(
                            value.place(),
                            "\"" + word + "\" is no code of a fault",
                            "write sender or receiver, or a code with its namespace: \"{urn:lanternbay}full\"");
                }
            }
            return new Blame(words.contains(Blame.SENDER), List.copyOf(codes));
        }

        private List<String> texts(JsonValue value) {
            return value instanceof JsonValue.Items items
                    ? items.items().stream().map(this::text).toList()
                    : List.of(text(value));
        }

        private String text(JsonValue value) {
            if (value instanceof JsonValue.Text text) {
                return text.text();
            }
            if (value instanceof JsonValue.Literal literal) {
                return literal.text();
            }
            wrong(value.place(), "this is no text", "write a value");
            return "";
        }

        private Duration delay(JsonValue value) {
            if (value == null) {
                return Duration.ZERO;
            }
            Matcher matcher = DELAY.matcher(text(value));
            if (!matcher.matches()) {
                wrong(value.place(), "\"" + text(value) + "\" is no delay", "write it like 200ms or 3s");
                return Duration.ZERO;
            }
            long number = Long.parseLong(matcher.group(1));
            return matcher.group(2).equals("s") ? Duration.ofSeconds(number) : Duration.ofMillis(number);
        }

        private Breakage broken(JsonValue value) {
            if (value == null) {
                return null;
            }
            try {
                return Breakage.valueOf(text(value).toUpperCase(Locale.ROOT));
            } catch (IllegalArgumentException e) {
                wrong(
                        value.place(),
                        "\"" + text(value) + "\" is no way to break an answer",
                        "use truncated, html or empty");
                return null;
            }
        }
    }
}
