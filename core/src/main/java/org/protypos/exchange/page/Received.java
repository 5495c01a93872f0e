package org.protypos.exchange.page;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.Deviation;

/** The last exchanges of a stand-in, numbered in the order in which they ended. */
final class Received {
    private static final int MOST = 200;
    private static final int LONGEST = 100_000;

    private final Deque<Numbered> last = new ArrayDeque<>();
    private int count;

    private record Numbered(int number, StandIn.Seen seen) {}

    synchronized void add(StandIn.Seen seen) {
        last.addLast(new Numbered(++count, shown(seen)));
        if (last.size() > MOST) {
            last.removeFirst();
        }
    }

    /** What there is room for on the page. */
    private static StandIn.Seen shown(StandIn.Seen seen) {
        return new StandIn.Seen(
                seen.at(),
                seen.port(),
                seen.operation(),
                shortened(seen.request()),
                shortened(seen.answer()),
                first(seen.deviations()),
                first(seen.answered()),
                seen.failure());
    }

    private static List<Deviation> first(List<Deviation> deviations) {
        if (deviations.size() <= MOST) {
            return deviations;
        }
        List<Deviation> first = new ArrayList<>(deviations.subList(0, MOST));
        first.add(new Deviation("more", null, "…", deviations.size() - MOST + " more", "", null));
        return first;
    }

    private synchronized List<Numbered> after(int number) {
        return new ArrayList<>(
                last.stream().filter(one -> one.number() > number).toList());
    }

    /** Writes those that came after the one of a number. */
    void write(int number, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart("exchanges");
        for (Numbered one : after(number)) {
            StandIn.Seen seen = one.seen();
            out.writeStartObject();
            out.writeNumberField("number", one.number());
            out.writeStringField("at", seen.at().toString());
            out.writeStringField("port", seen.port());
            out.writeStringField("operation", seen.operation());
            out.writeBooleanField("sound", seen.isSound());
            out.writeStringField("failure", seen.failure());
            out.writeStringField("request", seen.request());
            out.writeStringField("answer", seen.answer());
            deviations("deviations", seen.deviations(), out);
            deviations("answered", seen.answered(), out);
            out.writeEndObject();
        }
        out.writeEndArray();
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST ? text : text.substring(0, LONGEST) + "\n… " + (text.length() - LONGEST);
    }

    /** Writes where a message is not what the contract says, with the places on both sides. */
    static void deviations(String field, List<Deviation> deviations, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart(field);
        for (Deviation deviation : deviations) {
            out.writeStartObject();
            out.writeStringField("path", deviation.path());
            out.writeStringField(
                    "place",
                    deviation.place() == null
                            ? ""
                            : deviation.place().line() + ":" + deviation.place().column());
            out.writeStringField("came", deviation.came());
            out.writeStringField("expected", deviation.expected());
            out.writeStringField(
                    "contract",
                    deviation.contract() == null ? "" : deviation.contract().toString());
            out.writeEndObject();
        }
        out.writeEndArray();
    }
}
