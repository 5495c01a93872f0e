package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.wire.WireMessage;

/**
 * Tells where a request is not what the contract says by the names of the values that were given for it: who has typed
 * {@code vessel.name=Aurora} has seen no elements and no lines.
 */
public final class NamedDeviations {
    private static final Pattern INDEX = Pattern.compile("\\[([0-9]+)]");

    private final WireMessage message;
    private final Vocabulary vocabulary;
    private final CheckedMessage checked;
    private final Map<String, String> told = new LinkedHashMap<>();

    private NamedDeviations(WireMessage message, Vocabulary vocabulary, CheckedMessage checked) {
        this.message = message;
        this.vocabulary = vocabulary;
        this.checked = checked;
    }

    /** What is wrong, by the names of values, in the order of the message. */
    public static Map<String, String> of(WireMessage message, Vocabulary vocabulary, CheckedMessage checked) {
        NamedDeviations named = new NamedDeviations(message, vocabulary, checked);
        checked.deviations().forEach(named::tell);
        return named.told;
    }

    private void tell(Deviation deviation) {
        String name = name(deviation.path());
        Deviation.Cause cause = deviation.cause();
        switch (deviation.code()) {
            case "abstract-type" -> {
                MessageElement element = element(deviation.path());
                TypeModel type = element == null ? null : checked.types().get(element);
                put(
                        TakenValues.below(name, "@xsi:type"),
                        "is missing: "
                                + (type == null
                                        ? deviation.expected()
                                        : TakenValues.listed(
                                                vocabulary.standIns(type).keySet())));
            }
            case "missing-element" -> missing(name, deviation);
            case "unexpected-element" -> {
                // Values have no order: one that comes too early comes before others that are missing.
                String around = deviation.path().substring(0, deviation.path().lastIndexOf('/'));
                Map<String, String> lacks = lacking(around);
                lacks.forEach(this::put);
                if (lacks.isEmpty()) {
                    other(name, deviation);
                }
            }
            case "missing-attribute" ->
                put(
                        cause == null
                                ? name
                                : TakenValues.below(name, "@" + cause.name().getLocalPart()),
                        "is missing");
            default -> other(name, deviation);
        }
    }

    private void other(String name, Deviation deviation) {
        Deviation.Cause cause = deviation.cause();
        boolean attribute = cause != null
                && (cause.lack() == Deviation.Lack.ATTRIBUTE_VALUE || cause.lack() == Deviation.Lack.UNKNOWN_ATTRIBUTE);
        put(
                attribute ? TakenValues.below(name, "@" + cause.name().getLocalPart()) : name,
                deviation.came() + (deviation.expected().isEmpty() ? "" : "; wanted is " + deviation.expected()));
    }

    /** All that is missing in the element at a path. */
    private Map<String, String> lacking(String path) {
        Map<String, String> lacks = new LinkedHashMap<>();
        MessageElement element = element(path);
        TypeModel type = element == null ? null : checked.types().get(element);
        if (type != null) {
            List<String> missing = new ArrayList<>(TakenValues.required(type, vocabulary));
            element.children().forEach(child -> missing.remove(vocabulary.key(type, child.name())));
            missing.forEach(one -> lacks.put(TakenValues.below(name(path), one), "is missing"));
        }
        return lacks;
    }

    /** All that is missing in an element: a check of the message goes no further than the first. */
    private void missing(String name, Deviation deviation) {
        Map<String, String> lacks = lacking(deviation.path());
        lacks.forEach(this::put);
        if (lacks.isEmpty()) {
            List<String> wanted = Pattern.compile("<([^>]+)>")
                    .matcher(deviation.expected())
                    .results()
                    .map(found -> TakenValues.below(name, found.group(1)))
                    .toList();
            if (wanted.size() == 1) {
                put(wanted.get(0), "is missing");
            } else {
                put(name, "lacks " + (wanted.isEmpty() ? deviation.expected() : TakenValues.listed(wanted)));
            }
        }
    }

    private MessageElement element(String path) {
        return checked.types().keySet().stream()
                .filter(element -> element.path().equals(path))
                .findFirst()
                .orElse(null);
    }

    private void put(String name, String what) {
        told.merge(name, what, (first, more) -> first.contains(more) ? first : first + "; " + more);
    }

    /** The name of the value at a path from the root of the message. */
    private String name(String path) {
        List<String> steps = new ArrayList<>(List.of(path.substring(1).split("/")));
        String before = "";
        if (message.isSoap() && steps.size() > 1) {
            steps.remove(0);
            before = steps.remove(0).equals("Header") ? "#header." : "";
        }
        boolean whole = before.isEmpty() && (!message.isSoap() || message.isWrapped() || TakenValues.isOne(message));
        if (whole && !steps.isEmpty()) {
            steps.remove(0);
        }
        // Paths count from one, as people do; lists of values count from nought, as programs do.
        return before
                + INDEX.matcher(String.join(".", steps))
                        .replaceAll(
                                found -> Matcher.quoteReplacement("[" + (Integer.parseInt(found.group(1)) - 1) + "]"));
    }
}
