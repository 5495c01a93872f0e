package org.protypos.exchange.standin;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.output.WholeFile;
import org.protypos.runtime.soap.WireLog;
import org.protypos.source.Xml;

/** A file of answers that grows with what a real service answers: by operation and by the values of the request. */
public final class Recording {
    private final Path file;
    private final Map<String, Map<Map<String, String>, List<Kept>>> kept = new LinkedHashMap<>();

    /** One answer: values, or a fault with its element and reason. */
    private record Kept(JsonValue values, String fault, String reason) {}

    /**
     * Prepares to record.
     *
     * @param file is written anew whenever there is something new
     */
    public Recording(Path file) {
        this.file = file;
    }

    /**
     * Keeps an answer.
     *
     * @param request the elements of the request's body
     * @param values the values of the answer, or of the detail of a fault
     * @param fault the element of the fault, or null
     * @param reason what the fault says, or null
     */
    synchronized void keep(
            CalledOperation called, List<MessageElement> request, JsonValue values, String fault, String reason)
            throws IOException {
        Map<String, String> when = new LinkedHashMap<>();
        if (!request.isEmpty()) {
            gather(request.get(0), "", when);
        }
        List<Kept> answers = kept.computeIfAbsent(called.operation().name(), any -> new LinkedHashMap<>())
                .computeIfAbsent(when, any -> new ArrayList<>());
        Kept now = new Kept(values, fault, reason);
        boolean again = !answers.isEmpty() && Objects.equals(text(answers.get(answers.size() - 1)), text(now));
        if (!again) {
            answers.add(now);
            write();
        }
    }

    /** All values below an element, by the paths that conditions use: but no types, which are prefixed, and no secrets. */
    private static void gather(MessageElement element, String path, Map<String, String> values) {
        for (Map.Entry<QName, String> attribute : element.attributes().entrySet()) {
            String name = attribute.getKey().getLocalPart();
            if (!attribute.getKey().getNamespaceURI().equals(Xml.XSI) && !isSecret(name)) {
                values.putIfAbsent(below(path, "@" + name), attribute.getValue());
            }
        }
        Map<String, Integer> counts = new LinkedHashMap<>();
        for (MessageElement child : element.children()) {
            String name = child.name().getLocalPart();
            int number = counts.merge(name, 1, Integer::sum) - 1;
            String at = below(path, number == 0 ? name : name + "[" + number + "]");
            if (child.children().isEmpty() && !isSecret(name)) {
                values.put(at, child.text());
            }
            gather(child, at, values);
        }
    }

    private static boolean isSecret(String name) {
        return WireLog.blankedHeader(name, "").equals("***");
    }

    private static String below(String path, String name) {
        return path.isEmpty() ? name : path + "." + name;
    }

    private static String text(Kept one) throws IOException {
        StringWriter text = new StringWriter();
        try (JsonGenerator yaml = JsonText.yamlWriter(text)) {
            write(one, Map.of(), yaml);
        }
        return text.toString();
    }

    private void write() throws IOException {
        StringWriter text = new StringWriter();
        try (JsonGenerator yaml = JsonText.yamlWriter(text)) {
            yaml.writeStartObject();
            yaml.writeObjectFieldStart("answers");
            for (Map.Entry<String, Map<Map<String, String>, List<Kept>>> operation : kept.entrySet()) {
                yaml.writeArrayFieldStart(operation.getKey());
                for (Map.Entry<Map<String, String>, List<Kept>> one :
                        operation.getValue().entrySet()) {
                    write(one.getKey(), one.getValue(), yaml);
                }
                yaml.writeEndArray();
            }
            yaml.writeEndObject();
            yaml.writeEndObject();
        }
        WholeFile.write(file, text.toString());
    }

    /** The same request may have had several answers, which are given in turn. */
    private static void write(Map<String, String> when, List<Kept> answers, JsonGenerator yaml) throws IOException {
        if (answers.size() == 1) {
            write(answers.get(0), when, yaml);
            return;
        }
        yaml.writeStartObject();
        conditions(when, yaml);
        yaml.writeArrayFieldStart("each");
        for (Kept one : answers) {
            write(one, Map.of(), yaml);
        }
        yaml.writeEndArray();
        yaml.writeEndObject();
    }

    private static void conditions(Map<String, String> when, JsonGenerator yaml) throws IOException {
        if (!when.isEmpty()) {
            yaml.writeObjectFieldStart("when");
            for (Map.Entry<String, String> one : when.entrySet()) {
                yaml.writeStringField(one.getKey(), one.getValue());
            }
            yaml.writeEndObject();
        }
    }

    private static void write(Kept one, Map<String, String> when, JsonGenerator yaml) throws IOException {
        yaml.writeStartObject();
        conditions(when, yaml);
        yaml.writeBooleanField("whole", true);
        if (one.fault() == null) {
            yaml.writeFieldName("answer");
            JsonText.write(one.values(), yaml);
        } else {
            yaml.writeStringField("reason", one.reason());
            yaml.writeObjectFieldStart("fault");
            yaml.writeFieldName(one.fault());
            JsonText.write(one.values(), yaml);
            yaml.writeEndObject();
        }
        yaml.writeEndObject();
    }
}
