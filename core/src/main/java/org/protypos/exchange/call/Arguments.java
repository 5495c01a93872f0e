package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;

/** Makes JSON of plain arguments: {@code vessel.name=Aurora need[0]=water}. */
public final class Arguments {
    private static final Pattern STEP =
            Pattern.compile("((?:\\{[^{}]*\\}|[^.\\[\\]])+)((?:\\[[0-9]{1,4}\\])*)(?:\\.|$)");

    /** What the text of an element with attributes is called. */
    private static final String TEXT = "#text";

    private Arguments() {}

    /**
     * Puts arguments together to one object.
     *
     * @param arguments each a path, an equals sign and a value, without a path where the message is one value; a value that begins like JSON is JSON, but for
     *     a qualified name such as {@code {urn:x}name}
     * @param findings is told what is wrong with them
     */
    public static JsonValue of(List<String> arguments, Findings findings) {
        Map<String, Object> root = new LinkedHashMap<>();
        for (String argument : arguments) {
            int equals = argument.indexOf('=');
            if (equals == 0 && arguments.size() == 1) {
                // A message that is one value has no name for it.
                return value(argument, equals, findings);
            }
            if (equals <= 0 || !put(root, argument.substring(0, equals), value(argument, equals, findings))) {
                findings.error(
                        "argument",
                        null,
                        "\"" + argument + "\" is no argument",
                        "write it like name=value, vessel.name=value or need[0]=value");
            }
        }
        return built(root);
    }

    private static JsonValue value(String argument, int equals, Findings findings) {
        String text = argument.substring(equals + 1);
        boolean name = text.matches("\\{[^{}\"]*\\}[^{}\\s]+");
        if (!name && (text.startsWith("{") || text.startsWith("["))) {
            JsonValue json = JsonText.parse(new SourceText(argument.substring(0, equals), text), findings);
            return json == null ? new JsonValue.Text(text, null) : json;
        }
        return new JsonValue.Text(text, null);
    }

    @SuppressWarnings("unchecked")
    private static boolean put(Map<String, Object> root, String path, JsonValue value) {
        List<Object> steps = new ArrayList<>();
        Matcher matcher = STEP.matcher(path);
        int end = 0;
        while (matcher.find() && matcher.start() == end) {
            steps.add(matcher.group(1));
            Matcher index = Pattern.compile("[0-9]+").matcher(matcher.group(2));
            while (index.find()) {
                steps.add(Integer.valueOf(index.group()));
            }
            end = matcher.end();
        }
        if (end != path.length() || steps.isEmpty()) {
            return false;
        }
        Object at = root;
        for (int i = 0; i < steps.size(); i++) {
            boolean last = i == steps.size() - 1;
            Object next =
                    last ? value : steps.get(i + 1) instanceof Integer ? new ArrayList<>() : new LinkedHashMap<>();
            if (steps.get(i) instanceof Integer index && at instanceof List<?> list) {
                List<Object> items = (List<Object>) list;
                while (items.size() <= index) {
                    items.add(null);
                }
                if (items.get(index) == null) {
                    items.set(index, next);
                }
                at = items.get(index);
            } else if (steps.get(i) instanceof String name && at instanceof Map<?, ?> map) {
                at = below((Map<String, Object>) map, name, next);
            } else {
                return false;
            }
            if (last && at != next) {
                return false;
            }
        }
        return true;
    }

    /** What is at a name in a map; a value that has attributes too is its text. */
    @SuppressWarnings("unchecked")
    private static Object below(Map<String, Object> map, String name, Object next) {
        Object there = map.computeIfAbsent(name, any -> next);
        if (there instanceof JsonValue.Text text && next instanceof Map) {
            Map<String, Object> both = (Map<String, Object>) next;
            both.put(TEXT, text);
            map.put(name, both);
            return both;
        }
        return there instanceof Map<?, ?> known && next instanceof JsonValue.Text
                ? below((Map<String, Object>) known, TEXT, next)
                : there;
    }

    private static JsonValue built(Object value) {
        if (value instanceof Map<?, ?> map) {
            Map<String, JsonValue> members = new LinkedHashMap<>();
            map.forEach((name, inner) -> members.put((String) name, built(inner)));
            return new JsonValue.Members(members, null);
        }
        if (value instanceof List<?> list) {
            return new JsonValue.Items(list.stream().map(Arguments::built).toList(), null);
        }
        return value == null ? new JsonValue.Nothing(null) : (JsonValue) value;
    }
}
