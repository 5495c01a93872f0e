package org.protypos.exchange.standin;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.MessageValues;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.output.WholeFile;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.WireLog;
import org.protypos.source.Xml;

/** Answers that become more with what a service answers, by operation and by the values of the request; in a file, or as text. */
public final class Recording {
    /** How long a write may take, in nanoseconds, to be done with every answer. */
    private static final long QUICK = TimeUnit.MILLISECONDS.toNanos(100);

    private static final int PAUSE = 9;

    private final Path file;
    private final String begin;
    private final long most;
    private final Map<String, List<Case>> cases = new LinkedHashMap<>();
    private long length;
    private boolean full;
    private long next = System.nanoTime();
    private boolean waiting;
    private IOException failure;

    /**
     * What a request had.
     *
     * @param when its values by their paths
     * @param secret the paths of values that look secret: they are left out, and stay a condition
     */
    private record Condition(Map<String, String> when, List<String> secret) {
        static final Condition NONE = new Condition(Map.of(), List.of());

        /** How many characters it has. */
        long length() {
            return Stream.of(when.keySet(), when.values(), secret)
                    .flatMap(Collection::stream)
                    .mapToLong(String::length)
                    .sum();
        }

        /** Whether another holds for all requests for which this one does. */
        boolean includes(Condition other) {
            return when.entrySet().containsAll(other.when.entrySet()) && secret.containsAll(other.secret);
        }
    }

    /** The answers to requests for which a condition holds. */
    private record Case(Condition condition, List<Kept> answers) {}

    /** One answer: values, or a fault with its reason and whom it blames, and with its element and values if it has a detail. */
    private record Kept(JsonValue values, String fault, String reason, Blame blame) {}

    /**
     * Prepares to record.
     *
     * @param file is written anew whenever there is something new; a large one not for each answer, and to its end by {@link #finish}
     * @param begin what the file is to begin with: comments
     * @param most how many characters the answers may have
     */
    public Recording(Path file, String begin, long most) {
        this.file = file;
        this.begin = begin;
        this.most = most;
    }

    /** Begins to collect answers of which there will be no file. */
    public Recording() {
        this(null, "", Long.MAX_VALUE);
    }

    /**
     * Keeps an answer as it came.
     *
     * @param asked the request: its envelope, or what stands alone; null when there was nothing
     * @param given the answer likewise
     * @param attached what came beside it
     * @throws IOException when the file cannot be written, or there are more answers than may be kept, which is told once
     */
    public void keep(
            CalledOperation called,
            ContractCheck check,
            MessageElement asked,
            MessageElement given,
            Map<String, Attachment> attached)
            throws IOException {
        String reason = called.isSoap() ? EnvelopeParts.reason(given) : null;
        List<MessageElement> details = reason == null ? List.of() : EnvelopeParts.detail(given);
        MessageElement detail = details.size() == 1 ? details.get(0) : null;
        JsonValue values = reason == null
                ? new MessageValues(called.carried(), check).answer(given, attached)
                : detail == null
                        ? null
                        : JsonMessageWriter.value(
                                check.vocabulary(), check.check(detail).types(), detail);
        keep(
                called,
                called.isSoap() ? EnvelopeParts.inside(asked, "Body") : asked == null ? List.of() : List.of(asked),
                new Kept(
                        values,
                        detail == null ? null : detail.name().getLocalPart(),
                        reason,
                        reason == null ? Blame.SERVICE : Blame.of(given)));
    }

    /**
     * Keeps an answer.
     *
     * @param request the elements of the request's body
     */
    private synchronized void keep(CalledOperation called, List<MessageElement> request, Kept now) throws IOException {
        if (full) {
            return;
        }
        Condition condition = new Condition(new LinkedHashMap<>(), new ArrayList<>());
        if (!request.isEmpty()) {
            gather(request.get(0), "", condition);
        }
        String nowText = text(now);
        long longer = length + nowText.length() + condition.length();
        if (longer > most) {
            full = true;
            throw new IOException("there are more answers than a recording can hold; from here on none is recorded");
        }
        List<Kept> answers = answers(cases.computeIfAbsent(called.key(), any -> new ArrayList<>()), condition);
        boolean again = !answers.isEmpty() && Objects.equals(text(answers.get(answers.size() - 1)), nowText);
        if (!again) {
            answers.add(now);
            length = longer;
            if (file != null) {
                save();
            }
        }
    }

    /** Writes at once, unless that has taken so long the last time that nothing else would be done. */
    private void save() throws IOException {
        if (failure != null) {
            IOException told = failure;
            failure = null;
            throw told;
        }
        long pause = next - System.nanoTime();
        if (pause <= 0) {
            write();
        } else if (!waiting) {
            waiting = true;
            CompletableFuture.delayedExecutor(pause, TimeUnit.NANOSECONDS).execute(this::finish);
        }
    }

    private void write() throws IOException {
        long start = System.nanoTime();
        WholeFile.write(file, text());
        long end = System.nanoTime();
        next = end - start < QUICK ? end : end + PAUSE * (end - start);
    }

    /** Writes what waits to be written. */
    public synchronized void finish() {
        if (waiting) {
            waiting = false;
            try {
                write();
            } catch (IOException e) {
                failure = e;
            }
        }
    }

    /** The answers to a condition. The first that holds is taken: one that says more stands before those that hold for its requests too. */
    private static List<Kept> answers(List<Case> cases, Condition condition) {
        int at = 0;
        while (at < cases.size() && !condition.includes(cases.get(at).condition())) {
            at++;
        }
        if (at == cases.size() || !cases.get(at).condition().equals(condition)) {
            cases.add(at, new Case(condition, new ArrayList<>()));
        }
        return cases.get(at).answers();
    }

    /** All values below an element, by the paths that conditions use, but no types, which are prefixed; of secrets the paths. */
    private static void gather(MessageElement element, String path, Condition condition) {
        for (Map.Entry<QName, String> attribute : element.attributes().entrySet()) {
            String name = attribute.getKey().getLocalPart();
            if (!attribute.getKey().getNamespaceURI().equals(Xml.XSI)) {
                keep(name, below(path, "@" + name), attribute.getValue(), condition);
            }
        }
        Map<String, Integer> counts = new LinkedHashMap<>();
        for (MessageElement child : element.children()) {
            String name = child.name().getLocalPart();
            int number = counts.merge(name, 1, Integer::sum) - 1;
            String at = below(path, number == 0 ? name : name + "[" + number + "]");
            if (child.children().isEmpty()) {
                keep(name, at, child.text(), condition);
            }
            gather(child, at, condition);
        }
    }

    private static void keep(String name, String path, String value, Condition condition) {
        if (isSecret(name)) {
            condition.secret().add(path);
        } else {
            condition.when().putIfAbsent(path, value);
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
            write(one, Condition.NONE, yaml);
        }
        return text.toString();
    }

    /** What a file of the answers so far holds. */
    public synchronized String text() throws IOException {
        StringWriter text = new StringWriter();
        try (JsonGenerator yaml = JsonText.yamlWriter(text)) {
            yaml.writeStartObject();
            yaml.writeObjectFieldStart("answers");
            for (Map.Entry<String, List<Case>> operation : cases.entrySet()) {
                yaml.writeArrayFieldStart(operation.getKey());
                for (Case one : operation.getValue()) {
                    write(one.condition(), one.answers(), yaml);
                }
                yaml.writeEndArray();
            }
            yaml.writeEndObject();
            yaml.writeEndObject();
        }
        return begin + text;
    }

    /** The same request may have had several answers, which are given in turn. */
    private static void write(Condition when, List<Kept> answers, JsonGenerator yaml) throws IOException {
        if (answers.size() == 1) {
            write(answers.get(0), when, yaml);
            return;
        }
        yaml.writeStartObject();
        conditions(when, yaml);
        yaml.writeArrayFieldStart("each");
        for (Kept one : answers) {
            write(one, Condition.NONE, yaml);
        }
        yaml.writeEndArray();
        yaml.writeEndObject();
    }

    private static void conditions(Condition condition, JsonGenerator yaml) throws IOException {
        if (!condition.when().isEmpty()) {
            yaml.writeObjectFieldStart("when");
            for (Map.Entry<String, String> one : condition.when().entrySet()) {
                yaml.writeFieldName(one.getKey());
                JsonText.write(one.getValue(), yaml);
            }
            yaml.writeEndObject();
        }
        if (!condition.secret().isEmpty()) {
            texts("secret", condition.secret(), yaml);
        }
    }

    private static void texts(String key, List<String> texts, JsonGenerator yaml) throws IOException {
        yaml.writeArrayFieldStart(key);
        for (String text : texts) {
            JsonText.write(text, yaml);
        }
        yaml.writeEndArray();
    }

    private static void write(Kept one, Condition when, JsonGenerator yaml) throws IOException {
        yaml.writeStartObject();
        conditions(when, yaml);
        if (one.values() != null) {
            yaml.writeBooleanField("whole", true);
        }
        if (one.reason() == null) {
            yaml.writeFieldName("answer");
            JsonText.write(one.values(), yaml);
        } else {
            yaml.writeFieldName("reason");
            JsonText.write(one.reason(), yaml);
        }
        if (!one.blame().words().isEmpty()) {
            texts("code", one.blame().words(), yaml);
        }
        if (one.fault() != null) {
            yaml.writeObjectFieldStart("fault");
            yaml.writeFieldName(one.fault());
            JsonText.write(one.values(), yaml);
            yaml.writeEndObject();
        }
        yaml.writeEndObject();
    }
}
