package org.protypos.cli.view;

import java.io.PrintWriter;
import java.util.List;
import org.protypos.binding.ProposedRule;
import org.protypos.change.Difference;
import org.protypos.diagnostic.Printable;

/** Writes a comparison as Markdown, for a review. */
public final class ComparisonMarkdown {
    private final ComparisonView view;

    /** Writes a comparison for reviews. */
    public ComparisonMarkdown(ComparisonView view) {
        this.view = view;
    }

    /** Prints it. */
    public void print(PrintWriter out) {
        out.println("# " + cell(view.old()) + " → " + cell(view.now()));
        out.println();
        out.println(view.summary() + ".");
        for (boolean breaking : new boolean[] {true, false}) {
            List<Difference> some = view.some(breaking);
            if (some.isEmpty()) {
                continue;
            }
            out.println();
            out.println(breaking ? "## Breaks something" : "## Breaks nothing");
            out.println();
            out.println(breaking ? "| difference | breaks | where |" : "| difference | where |");
            out.println(breaking ? "|---|---|---|" : "|---|---|");
            for (Difference difference : some) {
                out.println(
                        "| " + cell(view.what(difference)) + " | " + (breaking ? cell(breaks(difference)) + " | " : "")
                                + cell(ComparisonView.places(difference)) + " |");
            }
        }
        if (!view.result().renames().isEmpty()) {
            out.println();
            out.println("## Probably renamed");
            out.println();
            out.println("```yaml");
            out.print(ProposedRule.file(view.result().renames()));
            out.println("```");
        }
    }

    /** Text in a table: contract text is data, and none of it is markup. */
    private static String cell(String text) {
        return Printable.without(text, ' ').replaceAll("([\\\\`*_{}\\[\\]<>|#~])", "\\\\$1");
    }

    private String breaks(Difference difference) {
        StringBuilder text = new StringBuilder(ComparisonView.breaks(difference));
        difference.evidence().forEach(evidence -> text.append("; ").append(view.why(evidence)));
        return text.toString();
    }
}
