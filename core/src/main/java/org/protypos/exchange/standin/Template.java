package org.protypos.exchange.standin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;

/** Values with parts of a request in them: <code>${vessel.name}</code>. */
final class Template {
    private static final Pattern PART = Pattern.compile("\\$\\{([^}]*)\\}");

    private final List<MessageElement> request;

    Template(List<MessageElement> request) {
        this.request = request;
    }

    /**
     * Whether a request has some values.
     *
     * @param secret the paths at which there must be some value
     */
    boolean fits(Map<String, String> when, List<String> secret) {
        return when.entrySet().stream().allMatch(one -> one.getValue().equals(value(one.getKey())))
                && secret.stream().allMatch(path -> value(path) != null);
    }

    /** The text at a path below the first element of the body, or null when there is none. */
    String value(String path) {
        List<MessageElement> at = request.isEmpty() ? List.of() : List.of(request.get(0));
        String[] steps = path.split("\\.");
        for (int i = 0; i < steps.length; i++) {
            String name = steps[i].replaceFirst("\\[[0-9]+\\]$", "");
            if (name.startsWith("@") && i == steps.length - 1) {
                return at.isEmpty()
                        ? null
                        : at.get(0).attributes().entrySet().stream()
                                .filter(one -> one.getKey().getLocalPart().equals(name.substring(1)))
                                .map(Map.Entry::getValue)
                                .findFirst()
                                .orElse(null);
            }
            List<MessageElement> found = new ArrayList<>();
            at.stream().limit(1).forEach(element -> element.children().stream()
                    .filter(child -> child.name().getLocalPart().equals(name))
                    .forEach(found::add));
            int index = name.length() < steps[i].length()
                    ? Integer.parseInt(steps[i].substring(name.length() + 1, steps[i].length() - 1))
                    : 0;
            at = index < found.size() ? List.of(found.get(index)) : List.of();
        }
        return at.isEmpty() ? null : at.get(0).text();
    }

    JsonValue filled(JsonValue value) {
        if (value instanceof JsonValue.Members members) {
            Map<String, JsonValue> filled = new LinkedHashMap<>();
            members.members().forEach((name, inner) -> filled.put(name, filled(inner)));
            return new JsonValue.Members(filled, value.place());
        }
        if (value instanceof JsonValue.Items items) {
            return new JsonValue.Items(items.items().stream().map(this::filled).toList(), value.place());
        }
        return value instanceof JsonValue.Text text
                ? new JsonValue.Text(
                        PART.matcher(text.text()).replaceAll(found -> {
                            String given = value(found.group(1));
                            return Matcher.quoteReplacement(given == null ? "" : given);
                        }),
                        value.place())
                : value;
    }

    /** Some values over others: members of objects one by one, everything else as a whole. */
    static JsonValue over(JsonValue base, JsonValue values) {
        if (base instanceof JsonValue.Members below && values instanceof JsonValue.Members above) {
            Map<String, JsonValue> all = new LinkedHashMap<>(below.members());
            above.members().forEach((name, value) -> all.merge(name, value, (old, now) -> over(old, now)));
            return new JsonValue.Members(all, values.place());
        }
        return values;
    }
}
