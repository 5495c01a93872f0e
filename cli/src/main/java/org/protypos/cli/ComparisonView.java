package org.protypos.cli;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.binding.Designators;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.Suggestions;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Reader;
import org.protypos.diagnostic.Place;

/** Shows the differences between two contracts: what breaks somebody comes first. */
final class ComparisonView {
    private static final int MOST_SHOWN = 60;

    private final String old;
    private final String now;
    private final Comparison.Result result;
    private final Map<String, String> prefixes;

    ComparisonView(String old, String now, Comparison.Result result) {
        this.old = old;
        this.now = now;
        this.result = result;
        List<String> texts = new ArrayList<>();
        for (Difference difference : result.differences()) {
            texts.add(difference.designator() + " " + difference.before() + " " + difference.after());
        }
        this.prefixes = new LinkedHashMap<>(Suggestions.prefixesFor(texts));
        prefixes.values().removeIf("http://www.w3.org/2001/XMLSchema"::equals);
        prefixes.put("xs", "http://www.w3.org/2001/XMLSchema");
    }

    String old() {
        return old;
    }

    String now() {
        return now;
    }

    Comparison.Result result() {
        return result;
    }

    List<Difference> some(boolean breaking) {
        return result.differences().stream()
                .filter(difference -> difference.isBreaking() == breaking)
                .toList();
    }

    String shown(String text) {
        return text == null ? "" : Designators.shown(text, prefixes);
    }

    /** What happened, in words. */
    String what(Difference difference) {
        if (difference.kind().equals("namespace")) {
            return "namespace " + difference.before() + " is called " + difference.after() + " now";
        }
        String kind = difference.kind() + " " + shown(difference.designator()).replaceFirst("^(portType|service) ", "");
        return switch (difference.change()) {
            case ADDED -> kind + " is new" + tail(difference.after());
            case REMOVED -> kind + " is gone" + tail(difference.before());
            case RENAMED -> kind + " is called " + difference.after() + " now";
            case CHANGED ->
                kind + ": " + difference.fact() + " " + said(difference.before()) + " becomes "
                        + said(difference.after());
        };
    }

    private String tail(String facts) {
        return facts == null || facts.isEmpty() ? "" : " (" + shorter(shown(facts)) + ")";
    }

    private String said(String fact) {
        return fact == null ? "nothing" : shorter(shown(fact));
    }

    private static String shorter(String text) {
        return text.length() > 160 ? text.substring(0, 157) + "..." : text;
    }

    /** For whom it breaks something. */
    static String breaks(Difference difference) {
        return difference.breaks().stream().map(Reader::brief).collect(Collectors.joining(", "));
    }

    /** Where both contracts say it. */
    static String places(Difference difference) {
        Place before = difference.oldPlace();
        Place after = difference.newPlace();
        if (before == null && after == null) {
            return "everywhere";
        }
        return before == null ? String.valueOf(after) : after == null ? String.valueOf(before) : before + " → " + after;
    }

    String summary() {
        int breaking = some(true).size();
        int all = result.differences().size();
        if (all == 0) {
            return "no differences";
        }
        String verdict = breaking == 0
                ? "none of them breaks anything"
                : breaking == all && all > 1
                        ? "all of them break something"
                        : breaking + (breaking == 1 ? " of them breaks something" : " of them break something");
        return all + (all == 1 ? " difference, " : " differences, ") + verdict;
    }

    void text(PrintWriter out) {
        for (boolean breaking : new boolean[] {true, false}) {
            List<Difference> some = some(breaking);
            if (some.isEmpty()) {
                continue;
            }
            int shown = 0;
            out.println(Terminal.bold(breaking ? "breaks something" : "breaks nothing"));
            for (Difference difference : some) {
                out.println("  " + mark(difference) + " " + Terminal.plain(what(difference)));
                out.println("      " + Terminal.dim(Terminal.plain(places(difference))));
                if (breaking) {
                    out.println("      " + Terminal.red("breaks ") + breaks(difference));
                }
                if (!breaking && ++shown == MOST_SHOWN && some.size() > MOST_SHOWN) {
                    out.println("  and " + (some.size() - shown) + " more; --json lists them all");
                    break;
                }
            }
            out.println();
        }
        if (!result.differences().isEmpty()) {
            Columns columns = new Columns(2);
            for (Reader reader : Reader.values()) {
                long count = result.differences().stream()
                        .filter(difference -> difference.breaks().contains(reader))
                        .count();
                columns.row(reader.text(), count == 0 ? "nothing breaks" : count + (count == 1 ? " break" : " breaks"));
            }
            columns.print(out);
            out.println();
        }
        if (!result.renames().isEmpty()) {
            out.println("probably renamed; these rules keep the Java names:");
            ProposedRule.file(result.renames()).lines().forEach(line -> out.println("  " + Terminal.plain(line)));
            out.println();
        }
        out.println(summary());
    }

    private static String mark(Difference difference) {
        return switch (difference.change()) {
            case ADDED -> Terminal.cyan("+");
            case REMOVED -> Terminal.red("-");
            case RENAMED, CHANGED -> Terminal.yellow("~");
        };
    }

    void markdown(PrintWriter out) {
        out.println("# " + cell(old) + " → " + cell(now));
        out.println();
        out.println(summary() + ".");
        for (boolean breaking : new boolean[] {true, false}) {
            List<Difference> some = some(breaking);
            if (some.isEmpty()) {
                continue;
            }
            out.println();
            out.println(breaking ? "## Breaks something" : "## Breaks nothing");
            out.println();
            out.println(breaking ? "| difference | breaks | where |" : "| difference | where |");
            out.println(breaking ? "|---|---|---|" : "|---|---|");
            for (Difference difference : some) {
                List<String> breaks =
                        difference.breaks().stream().map(Reader::text).toList();
                out.println("| " + cell(what(difference)) + " | " + (breaking ? breaks(difference) + " | " : "")
                        + cell(places(difference)) + " |");
            }
        }
        if (!result.renames().isEmpty()) {
            out.println();
            out.println("## Probably renamed");
            out.println();
            out.println("```yaml");
            out.print(ProposedRule.file(result.renames()));
            out.println("```");
        }
    }

    /** Text in a table: contract text is data, and none of it is markup. */
    private static String cell(String text) {
        return text.replaceAll("\\p{Cntrl}", " ").replaceAll("([\\\\`*_{}\\[\\]<>|#~])", "\\\\$1");
    }

    void json(JsonGenerator document) throws IOException {
        document.writeStringField("old", old);
        document.writeStringField("new", now);
        document.writeNumberField("breaking", some(true).size());
        document.writeArrayFieldStart("differences");
        for (Difference difference : result.differences()) {
            document.writeStartObject();
            document.writeStringField("change", difference.change().name().toLowerCase(Locale.ROOT));
            document.writeStringField("kind", difference.kind());
            document.writeStringField("component", difference.designator());
            document.writeStringField("fact", difference.fact());
            document.writeStringField("before", difference.before());
            document.writeStringField("after", difference.after());
            document.writeStringField(
                    "oldPlace",
                    difference.oldPlace() == null ? null : difference.oldPlace().toString());
            document.writeStringField(
                    "newPlace",
                    difference.newPlace() == null ? null : difference.newPlace().toString());
            Json.strings(
                    document,
                    "breaks",
                    difference.breaks().stream()
                            .map(reader ->
                                    reader.name().toLowerCase(Locale.ROOT).replace('_', '-'))
                            .toList());
            document.writeEndObject();
        }
        document.writeEndArray();
        document.writeArrayFieldStart("renames");
        for (ProposedRule rule : result.renames()) {
            document.writeStartObject();
            document.writeStringField("on", rule.on());
            for (Map.Entry<String, String> value : rule.values().entrySet()) {
                document.writeStringField(value.getKey(), value.getValue());
            }
            document.writeEndObject();
        }
        document.writeEndArray();
    }
}
