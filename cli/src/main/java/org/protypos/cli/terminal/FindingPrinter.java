package org.protypos.cli.terminal;

import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Severity;
import org.protypos.message.check.Deviation;

/** Prints findings as a good compiler does: place, what is wrong, the line with a caret, the cure. */
public final class FindingPrinter {
    private static final int WIDEST_LINE = 110;

    private static final int SHOWN_NOTES = 3;

    private final PrintWriter to;

    /** Prints to a stream, for people. */
    public FindingPrinter(PrintWriter to) {
        this.to = to;
    }

    /** Prints each finding with its place, the line of the document and the cure. */
    public void print(List<Finding> findings) {
        for (Finding finding : findings) {
            print(finding);
        }
    }

    /**
     * Prints each finding, but of many notes of one kind only the first few and how many there are.
     *
     * @param where the command that prints all of them
     */
    public void printFolded(List<Finding> findings, String where) {
        Map<String, Integer> notes = new TreeMap<>();
        for (Finding finding : findings) {
            boolean folds = finding.severity() == Severity.NOTE;
            if (!folds || notes.merge(finding.code(), 1, Integer::sum) <= SHOWN_NOTES) {
                print(finding);
            }
        }
        notes.forEach((code, count) -> {
            if (count > SHOWN_NOTES) {
                to.println(Terminal.cyan("note: ") + (count - SHOWN_NOTES) + " more of this kind "
                        + Terminal.dim("[" + code + "]"));
                to.println("  " + Terminal.cyan("cure: ") + Terminal.plain(where) + " tells all of them");
                to.println();
            }
        });
    }

    private void print(Finding finding) {
        headline(finding.place(), severity(finding.severity()), finding.message(), finding.code());
        if (!finding.cure().isEmpty()) {
            to.println("  " + Terminal.cyan("cure: ") + Terminal.plain(Terminal.options(finding.cure())));
        }
        to.println();
    }

    /**
     * Prints where a message is not what the contract says, or where it came out changed.
     *
     * @param changed whether the message is as the contract says and came out changed
     */
    public void print(boolean changed, Deviation deviation) {
        String kind = Terminal.red(changed ? "changed" : "invalid");
        headline(deviation.place(), kind, deviation.came(), deviation.code());
        if (!deviation.path().isEmpty()) {
            to.println("  " + Terminal.cyan("at: ") + Terminal.plain(deviation.path()));
        }
        if (!deviation.expected().isEmpty()) {
            to.println("  " + Terminal.cyan(changed ? "was: " : "expected: ") + Terminal.plain(deviation.expected()));
        }
        if (deviation.contract() != null) {
            to.println("  " + Terminal.cyan("contract: ") + deviation.contract());
        }
        to.println();
    }

    private void headline(Place place, String kind, String message, String code) {
        String where = place == null ? "" : Terminal.bold(place.toString()) + ": ";
        to.println(where + kind + ": " + Terminal.plain(message) + " " + Terminal.dim("[" + code + "]"));
        if (place != null) {
            excerpt(place);
        }
    }

    private static String severity(Severity severity) {
        return switch (severity) {
            case ERROR -> Terminal.red("error");
            case WARNING -> Terminal.yellow("warning");
            case NOTE -> Terminal.cyan("note");
        };
    }

    /** The line of a place, of which a part is shown when it is long: some documents are one line. */
    private void excerpt(Place place) {
        String before = place.before(WIDEST_LINE);
        String line = before + place.behind(WIDEST_LINE);
        if (line.isBlank()) {
            return;
        }
        int column = before.length();
        int from = 0;
        while (from < column && Character.isWhitespace(line.charAt(from))) {
            from++;
        }
        if (column - from > WIDEST_LINE - 30) {
            from = column - 30;
        }
        String shown = line.substring(from, Math.min(line.length(), from + WIDEST_LINE));
        String number = String.valueOf(place.line());
        to.println(
                "  " + Terminal.dim(number + " |") + " " + Terminal.plain(shown).replace('\t', ' '));
        to.println("  " + " ".repeat(number.length()) + Terminal.dim(" |") + " " + " ".repeat(column - from)
                + Terminal.red("^"));
    }

    /** A line such as {@code 2 errors, 1 warning}. */
    public static String summary(List<Finding> findings) {
        StringBuilder text = new StringBuilder();
        for (Severity severity : Severity.values()) {
            long count = findings.stream()
                    .filter(finding -> finding.severity() == severity)
                    .count();
            if (count > 0) {
                text.append(text.isEmpty() ? "" : ", ")
                        .append(Terminal.counted(count, severity.name().toLowerCase(Locale.ROOT)));
            }
        }
        return text.isEmpty() ? "no findings" : text.toString();
    }
}
