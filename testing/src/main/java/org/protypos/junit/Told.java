package org.protypos.junit;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.wire.WirePart;

/** What an operation is to answer. It counts once it is ended with an answer, a fault, a sample, or a broken answer. */
public final class Told {
    /** How an answer is broken on purpose. */
    public enum Broken {
        /** It ends in the middle. */
        TRUNCATED,
        /** It is a web page. */
        HTML,
        /** There is nothing in it. */
        EMPTY
    }

    private final PlayedContract played;
    private final CalledOperation called;
    private final TypedMessages types;
    private final ContractCheck check;
    private final Map<String, String> conditions = new LinkedHashMap<>();
    private final List<String> blamed = new ArrayList<>();
    private Duration delay = Duration.ZERO;

    Told(PlayedContract played, CalledOperation called, TypedMessages types, ContractCheck check) {
        this.played = played;
        this.called = called;
        this.types = types;
        this.check = check;
    }

    /** Only when the request has a value at a path: {@code vessel.name}, {@code need[0]}, {@code vessel.@callSign}. */
    public Told with(String path, Object value) {
        conditions.put(path, String.valueOf(value));
        return this;
    }

    /** Only after a while. */
    public Told after(Duration time) {
        delay = time;
        return this;
    }

    /**
     * Says whom the fault blames that is told next.
     *
     * @param codes {@code sender}, or {@code receiver} as when nothing is said, and codes of one's own with their namespaces,
     *     such as <code>{urn:lanternbay}full</code>
     */
    public Told blaming(String... codes) {
        blamed.addAll(List.of(codes));
        return this;
    }

    /** Answers with a value of a generated class, as it is: that of the element in the body of the answer. */
    public void answer(Object value) {
        if (called.answer() == null) {
            throw new IllegalStateException(called.operation().name() + " has no answer");
        }
        List<WirePart> parts = called.answer().parts();
        QName element = parts.size() == 1 ? parts.get(0).element() : null;
        if (element == null) {
            throw new IllegalStateException(
                    "the answer of " + called.operation().name() + " is more than one element: say it with answerJson");
        }
        say("\"whole\": true, \"answer\": " + values(value, element));
    }

    /** Answers with values in JSON or YAML over those of a sample, as in a file of answers. */
    public void answerJson(String values) {
        say("\"answer\": " + values);
    }

    /** Answers with samples, as when nothing is said. */
    public void sample() {
        say("\"whole\": false");
    }

    /** Answers with a declared fault that has a value of a generated class as its detail. */
    public void fault(Object detail, String reason) {
        typed();
        List<WirePart> details = called.carried().faults().stream()
                .flatMap(fault -> fault.details().stream())
                .toList();
        for (WirePart part : details) {
            if (part.element() != null && detail.getClass() == types.typeOf(part.element())) {
                say("\"whole\": true, \"reason\": " + Json.quoted(reason) + ", \"fault\": {"
                        + Json.quoted(part.element().getLocalPart()) + ": " + values(detail, part.element()) + "}");
                return;
            }
        }
        throw new IllegalArgumentException(called.operation().name() + " declares no fault with a "
                + detail.getClass().getSimpleName());
    }

    /** Answers with a fault that says no more than its reason. */
    public void fault(String reason) {
        say("\"reason\": " + Json.quoted(reason));
    }

    /** Answers with something that is broken. */
    public void broken(Broken how) {
        say("\"broken\": " + Json.quoted(how.name().toLowerCase(Locale.ROOT)));
    }

    private void typed() {
        if (types == null) {
            throw new IllegalStateException(
                    "values of generated classes need their registry: PlayedContract.of(...).types(Documents.INSTANCE)");
        }
    }

    private String values(Object value, QName element) {
        typed();
        MessageElement tree = MessageReader.read("the answer of the test", types.text(element, value));
        JsonValue values;
        synchronized (check) {
            values = JsonMessageWriter.value(
                    check.vocabulary(), check.check(tree).types(), tree);
        }
        return Json.of(json -> JsonText.write(values, json));
    }

    private void say(String what) {
        String when = conditions.entrySet().stream()
                .map(one -> Json.quoted(one.getKey()) + ": " + Json.quoted(one.getValue()))
                .collect(Collectors.joining(", "));
        String code = blamed.isEmpty()
                ? ""
                : "\"code\": " + blamed.stream().map(Json::quoted).toList() + ", ";
        played.tell(
                called.operation().name(),
                "{\"when\": {" + when + "}, " + code + "\"delay\": \"" + delay.toMillis() + "ms\", " + what + "}");
    }
}
