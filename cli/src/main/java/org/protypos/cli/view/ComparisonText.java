package org.protypos.cli.view;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.binding.ProposedRule;
import org.protypos.change.Difference;
import org.protypos.change.Reader;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Terminal;

/** Prints a comparison for a person. Long lists are folded: what is alike is one line, and of each type and service the worst is shown. */
public final class ComparisonText {
    /** Up to so many everything is shown. */
    private static final int FEW = 40;

    /** Of a longer list so many for each type or service. */
    private static final int SHOWN = 2;

    private static final int NAMED = 4;

    private final ComparisonView view;
    private final Map<Difference, Map<Reader, String>> files;

    /**
     * Takes a comparison.
     *
     * @param files the names of the files with messages that were written, by difference and reader
     */
    public ComparisonText(ComparisonView view, Map<Difference, Map<Reader, String>> files) {
        this.view = view;
        this.files = files;
    }

    /** Prints it for people. */
    public void print(PrintWriter out) {
        for (boolean breaking : new boolean[] {true, false}) {
            List<Difference> some = view.some(breaking);
            if (!some.isEmpty()) {
                out.println(Terminal.bold(breaking ? "breaks something" : "breaks nothing"));
                section(out, some);
                out.println();
            }
        }
        if (!view.result().differences().isEmpty()) {
            Columns columns = new Columns(2);
            for (Reader reader : view.readers()) {
                long count = view.result().differences().stream()
                        .filter(difference -> difference.breaks().contains(reader))
                        .count();
                columns.row(reader.text(), count == 0 ? "nothing breaks" : count + (count == 1 ? " break" : " breaks"));
            }
            columns.print(out);
            out.println();
        }
        if (!view.result().renames().isEmpty()) {
            out.println("probably renamed; these rules keep the names in the code:");
            ProposedRule.file(view.result().renames())
                    .lines()
                    .forEach(line -> out.println("  " + Terminal.plain(line)));
            out.println();
        }
        out.println(view.summary());
    }

    private void section(PrintWriter out, List<Difference> some) {
        Map<String, List<Difference>> alike = new LinkedHashMap<>();
        some.forEach(difference -> alike.computeIfAbsent(likeness(difference), any -> new ArrayList<>())
                .add(difference));
        boolean folds = some.size() > FEW;
        Map<String, Integer> shown = new LinkedHashMap<>();
        Map<String, Integer> hidden = new LinkedHashMap<>();
        for (List<Difference> same : alike.values()) {
            Difference first = same.get(0);
            if (same.size() > NAMED) {
                many(out, same);
            } else {
                for (Difference difference : same) {
                    if (folds && shown.merge(difference.around(), 1, Integer::sum) > SHOWN) {
                        hidden.merge(difference.around(), 1, Integer::sum);
                    } else {
                        one(out, difference);
                    }
                }
            }
        }
        int components = hidden.size();
        int more = hidden.values().stream().mapToInt(Integer::intValue).sum();
        hidden.entrySet().stream()
                .sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
                .limit(NAMED)
                .forEach(entry -> out.println("  "
                        + Terminal.dim(
                                Terminal.plain("and " + entry.getValue() + " more in " + view.shown(entry.getKey())))));
        if (components > NAMED) {
            out.println("  "
                    + Terminal.dim("in all " + more + " more in " + components
                            + " types and services; --json lists them all"));
        }
    }

    /** What two differences have in common when one line is enough for both. */
    private static String likeness(Difference difference) {
        boolean plain = difference.change() == Difference.Change.CHANGED
                && difference.evidence().isEmpty();
        return plain
                ? difference.kind() + "|" + difference.fact() + "|" + difference.before() + "|" + difference.after()
                        + "|" + difference.breaks()
                : difference.designator() + "|" + difference.fact() + "|" + difference.change();
    }

    private void many(PrintWriter out, List<Difference> same) {
        Difference first = same.get(0);
        List<String> names = same.stream()
                .limit(NAMED - 1L)
                .map(one -> view.shown(one.designator()).replaceFirst("^.*/", ""))
                .toList();
        out.println("  " + Terminal.yellow("~") + " "
                + Terminal.plain(same.size() + " × " + first.kind() + ": " + view.becomes(first)));
        out.println("      "
                + Terminal.dim(
                        Terminal.plain(String.join(", ", names) + " and " + (same.size() - names.size()) + " more")));
        why(out, first);
    }

    private void one(PrintWriter out, Difference difference) {
        out.println("  " + mark(difference) + " " + Terminal.plain(view.what(difference)));
        out.println("      " + Terminal.dim(Terminal.plain(ComparisonView.places(difference))));
        why(out, difference);
    }

    private void why(PrintWriter out, Difference difference) {
        difference.evidence().forEach(evidence -> {
            String file = files.getOrDefault(difference, Map.of()).get(evidence.reader());
            out.println("      " + Terminal.red("breaks:") + " " + Terminal.plain(view.why(evidence))
                    + (file == null ? "" : Terminal.dim(" (" + file + ")")));
        });
        beside(out, difference);
    }

    private static void beside(PrintWriter out, Difference difference) {
        String beside = ComparisonView.breaksBeside(difference);
        if (!beside.isEmpty()) {
            out.println("      " + Terminal.red("breaks:") + " " + beside);
        }
    }

    private static String mark(Difference difference) {
        return switch (difference.change()) {
            case ADDED -> Terminal.cyan("+");
            case REMOVED -> Terminal.red("-");
            case RENAMED, CHANGED -> Terminal.yellow("~");
        };
    }
}
