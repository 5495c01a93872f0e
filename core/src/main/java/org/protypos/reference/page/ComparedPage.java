package org.protypos.reference.page;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.reference.ComparedReference;
import org.protypos.reference.Component;
import org.protypos.reference.Mark;
import org.protypos.reference.Node;
import org.protypos.reference.NodePair;

/** Writes one page about two contracts that is complete in itself: what is different, and each component as both have it. */
public final class ComparedPage {
    private final Contract before;
    private final Contract after;
    private final ComparedReference reference;
    private final String title;
    private final List<Told> differences = new ArrayList<>();
    private final Map<String, String> byOldName = new HashMap<>();
    private String summary = "";
    private Map<String, Long> readers = Map.of();
    private String renames = "";

    /**
     * A difference in words.
     *
     * @param mark what happened: {@code added}, {@code removed}, {@code renamed} or {@code changed}
     * @param designator the component, in the names of the old contract
     * @param text what happened
     * @param breaks for whom it breaks something beside those for whom {@code shown} tells it; empty for nobody
     * @param isBreaking whether it breaks anything for anybody
     * @param before where the old contract says it, or null
     * @param after where the new contract says it, or null
     * @param shown why it breaks something
     */
    public record Told(
            String mark,
            String designator,
            String text,
            String breaks,
            boolean isBreaking,
            Place before,
            Place after,
            List<Shown> shown) {}

    /**
     * Why something breaks.
     *
     * @param why in a sentence
     * @param where where in the message, and why it is refused there; empty when there is nothing to say
     * @param message a message that shows it, or null
     */
    public record Shown(String why, String where, String message) {}

    /**
     * Begins.
     *
     * @param title what the page is called
     */
    public ComparedPage(Contract before, Contract after, ComparedReference reference, String title) {
        this.before = before;
        this.after = after;
        this.reference = reference;
        this.title = title;
        for (ComparedReference.Pair pair : reference.pairs()) {
            Component known = pair.before() == null ? pair.after() : pair.before();
            byOldName.put(known.designator(), pair.either().designator());
        }
    }

    /**
     * Says what there is in all.
     *
     * @param sentence all in a sentence
     * @param broken for how many differences something breaks, by whose it is
     */
    public ComparedPage summary(String sentence, Map<String, Long> broken) {
        summary = sentence;
        readers = broken;
        return this;
    }

    /** Adds a difference; what weighs most comes first. */
    public ComparedPage difference(Told difference) {
        differences.add(difference);
        return this;
    }

    /** Says which rules keep the names in code of what was probably renamed. */
    public ComparedPage renames(String rules) {
        renames = rules;
        return this;
    }

    /** The page. */
    public String text() {
        return PageFrame.text(title, PageData.text(this::write));
    }

    private void write(PageData data, JsonGenerator json) throws IOException {
        json.writeArrayFieldStart("documents");
        PageData.Numbers old = data.documents(before, 0, "old");
        PageData.Numbers now = data.documents(after, before.documents().all().size(), "new");
        json.writeEndArray();
        json.writeArrayFieldStart("components");
        for (ComparedReference.Pair pair : reference.pairs()) {
            component(pair, data, json, old, now);
        }
        json.writeEndArray();
        json.writeObjectFieldStart("compared");
        json.writeStringField("summary", summary);
        data.optional("renames", renames);
        json.writeObjectFieldStart("readers");
        for (Map.Entry<String, Long> reader : readers.entrySet()) {
            json.writeNumberField(reader.getKey(), reader.getValue());
        }
        json.writeEndObject();
        json.writeArrayFieldStart("differences");
        for (Told difference : differences) {
            difference(difference, data, json, old, now);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void component(
            ComparedReference.Pair pair, PageData data, JsonGenerator json, PageData.Numbers old, PageData.Numbers now)
            throws IOException {
        json.writeStartObject();
        Component was = pair.before();
        if (pair.after() == null) {
            data.component(was, reference.before(), old);
        } else {
            data.component(pair.after(), reference.after(), now);
        }
        List<NodePair> own = reference.own(pair);
        Mark mark = reference.mark(pair, own);
        mark(mark, json);
        if (was != null && pair.after() != null) {
            data.place("before", was.place(), old);
            data.optional("oldId", was.designator().equals(pair.after().designator()) ? "" : was.designator());
        }
        if (mark == Mark.CHANGED) {
            json.writeObjectFieldStart("was");
            data.component(was, reference.before(), old);
            json.writeEndObject();
        }
        nodes("own", own, data, json);
        json.writeEndObject();
    }

    private static void mark(Mark mark, JsonGenerator json) throws IOException {
        if (mark != Mark.SAME) {
            json.writeStringField("m", mark.name().toLowerCase(Locale.ROOT));
        }
    }

    private static void nodes(String name, List<NodePair> nodes, PageData data, JsonGenerator json) throws IOException {
        if (nodes.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart(name);
        for (NodePair pair : nodes) {
            json.writeStartObject();
            data.node(pair.either());
            mark(pair.mark(), json);
            Node was = pair.before();
            if (pair.mark() == Mark.CHANGED) {
                json.writeObjectFieldStart("was");
                data.node(was);
                json.writeEndObject();
            }
            nodes("c", pair.inside(), data, json);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void difference(
            Told difference, PageData data, JsonGenerator json, PageData.Numbers old, PageData.Numbers now)
            throws IOException {
        json.writeStartObject();
        json.writeStringField("m", difference.mark());
        json.writeStringField("text", difference.text());
        data.optional("breaks", difference.breaks());
        json.writeBooleanField("breaking", difference.isBreaking());
        data.place("before", difference.before(), old);
        data.place("after", difference.after(), now);
        data.optional("id", around(difference.designator()));
        json.writeArrayFieldStart("shown");
        for (Shown shown : difference.shown()) {
            json.writeStartObject();
            json.writeStringField("why", shown.why());
            data.optional("where", shown.where());
            data.optional("message", shown.message());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** The component that a difference is about: the one with the longest designator that it begins with; null for none. */
    private String around(String designator) {
        for (int end = designator.length(); end > 0; end = cut(designator, end)) {
            String known = byOldName.get(designator.substring(0, end));
            if (known != null) {
                return known;
            }
        }
        return null;
    }

    /** Where the name before the last of a designator ends; 0 when there is none. */
    private static int cut(String designator, int end) {
        int at = end - 1;
        while (at > 0 && "/=[ ".indexOf(designator.charAt(at)) < 0) {
            at--;
        }
        return at;
    }
}
