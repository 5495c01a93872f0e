package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;

/** What calling several times came to: the times, and which answers there were how often. */
public final class Repetition {
    private final List<CallView.Read> answers = new ArrayList<>();
    private final List<Long> nanoseconds = new ArrayList<>();

    /** Counts an answer and the time that it took, in nanoseconds. */
    public void add(CallView.Read answer, long took) {
        answers.add(answer);
        nanoseconds.add(took);
    }

    CallView.Read first() {
        return answers.get(0);
    }

    int calls() {
        return answers.size();
    }

    /** The worst status that an answer leads to. */
    int status() {
        return answers.stream().mapToInt(CallView.Read::status).max().orElse(ExitStatus.DONE);
    }

    private double milliseconds(double share) {
        long[] sorted = nanoseconds.stream().mapToLong(Long::longValue).toArray();
        Arrays.sort(sorted);
        return sorted[Math.max(0, (int) Math.ceil(share * sorted.length) - 1)] / 1e6;
    }

    private long count(int status) {
        return answers.stream().filter(answer -> answer.status() == status).count();
    }

    private Map<String, Integer> different() {
        Map<String, Integer> counts = new LinkedHashMap<>();
        answers.forEach(answer -> counts.merge(String.valueOf(answer.answer().text()), 1, Integer::sum));
        return counts;
    }

    void print(PrintWriter out) {
        Columns columns = new Columns(2);
        long bad = answers.stream()
                .filter(answer -> answer.answer().fault() != null)
                .count();
        long deviating = answers.stream()
                .filter(answer -> !answer.deviations().isEmpty())
                .count();
        long failed = count(ExitStatus.OUTSIDE);
        columns.row(
                "calls",
                calls() + ": " + count(ExitStatus.DONE) + " answered as the contract says, " + bad + " with a fault, "
                        + deviating + " otherwise than the contract says, " + failed + " not at all");
        columns.row(
                "time",
                String.format(
                        Locale.ROOT,
                        "median %.1f ms, %.1f to %.1f ms, 95 %% within %.1f ms",
                        milliseconds(0.5),
                        milliseconds(0),
                        milliseconds(1),
                        milliseconds(0.95)));
        Map<String, Integer> different = different();
        List<Integer> counts = different.values().stream()
                .sorted((one, other) -> other - one)
                .limit(5)
                .toList();
        columns.row(
                "answers",
                different.size() == 1
                        ? "all the same"
                        : different.size() + " different, the most frequent "
                                + String.join(
                                        ", ",
                                        counts.stream().map(String::valueOf).toList()) + " times");
        columns.print(out);
    }

    void json(JsonGenerator json) throws IOException {
        json.writeObjectFieldStart("repeated");
        json.writeNumberField("calls", calls());
        json.writeNumberField("asTheContractSays", count(ExitStatus.DONE));
        json.writeNumberField("failed", count(ExitStatus.OUTSIDE));
        json.writeNumberField("differentAnswers", different().size());
        json.writeObjectFieldStart("milliseconds");
        json.writeNumberField("least", milliseconds(0));
        json.writeNumberField("median", milliseconds(0.5));
        json.writeNumberField("within95Percent", milliseconds(0.95));
        json.writeNumberField("most", milliseconds(1));
        json.writeEndObject();
        json.writeEndObject();
    }
}
