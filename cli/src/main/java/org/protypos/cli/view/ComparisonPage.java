package org.protypos.cli.view;

import java.util.List;
import java.util.Locale;
import org.protypos.binding.ProposedRule;
import org.protypos.change.Difference;
import org.protypos.change.Evidence;
import org.protypos.change.Reader;

/** Writes a comparison as one page that needs nothing else: no script, no picture, no address. */
public final class ComparisonPage {
    private static final String STYLE = """
            :root { color-scheme: light dark; --line: #8884; --weak: #666; --bad: #b3261e; --good: #2e7d32; --new: #1565c0; }
            @media (prefers-color-scheme: dark) { :root { --weak: #aaa; --bad: #ff8a80; --good: #81c784; --new: #90caf9; } }
            * { box-sizing: border-box; }
            body { font: 16px/1.5 system-ui, sans-serif; max-width: 62rem; margin: 0 auto; padding: 1.5rem; }
            h1 { font-size: 1.5rem; line-height: 1.25; margin: 0 0 .25rem; overflow-wrap: anywhere; }
            h2 { font-size: 1.1rem; margin: 2rem 0 .5rem; }
            p { margin: .25rem 0; }
            .readers { display: grid; grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr)); gap: .75rem; margin: 1.25rem 0; padding: 0; }
            .readers li { list-style: none; border: 1px solid var(--line); border-radius: .5rem; padding: .75rem; }
            .readers b { display: block; font-size: 1.5rem; line-height: 1.2; }
            .bad { color: var(--bad); } .good { color: var(--good); }
            ul.differences { padding: 0; margin: 0; }
            ul.differences > li { list-style: none; border-top: 1px solid var(--line); padding: .6rem 0 .6rem 1.6rem; position: relative; overflow-wrap: anywhere; }
            ul.differences > li::before { position: absolute; left: .2rem; font-weight: 700; }
            li.added::before { content: "+"; color: var(--new); } li.removed::before { content: "\\2212"; color: var(--bad); }
            li.changed::before, li.renamed::before { content: "~"; color: var(--weak); }
            .where { color: var(--weak); font-size: .85rem; } .breaks { font-size: .9rem; color: var(--bad); }
            summary { cursor: pointer; font-size: .9rem; }
            pre { border: 1px solid var(--line); border-radius: .5rem; padding: .75rem; overflow-x: auto; font-size: .85rem; }
            """;

    private ComparisonPage() {}

    /** The page of a comparison, complete in itself. */
    public static String of(ComparisonView view) {
        StringBuilder page = new StringBuilder(
                        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n")
                .append("<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n<title>")
                .append(text(view.old() + " → " + view.now()))
                .append("</title>\n<style>\n")
                .append(STYLE)
                .append("</style>\n</head>\n<body>\n<h1>")
                .append(text(view.old()))
                .append(" → ")
                .append(text(view.now()))
                .append("</h1>\n<p>")
                .append(text(view.summary()))
                .append(".</p>\n<ul class=\"readers\">\n");
        for (Reader reader : view.readers()) {
            long count = view.result().differences().stream()
                    .filter(difference -> difference.breaks().contains(reader))
                    .count();
            page.append("<li><b class=\"")
                    .append(count == 0 ? "good\">nothing" : "bad\">" + count)
                    .append("</b>breaks for ")
                    .append(text(reader.text()))
                    .append("</li>\n");
        }
        page.append("</ul>\n");
        section(page, view, "Breaks something", view.some(true));
        section(page, view, "Breaks nothing", view.some(false));
        if (!view.result().renames().isEmpty()) {
            page.append("<h2>Probably renamed</h2>\n<p>These rules keep the names in the code.</p>\n<pre>")
                    .append(text(ProposedRule.file(view.result().renames())))
                    .append("</pre>\n");
        }
        return page.append("</body>\n</html>\n").toString();
    }

    private static void section(StringBuilder page, ComparisonView view, String title, List<Difference> some) {
        if (some.isEmpty()) {
            return;
        }
        page.append("<h2>")
                .append(title)
                .append(" (")
                .append(some.size())
                .append(")</h2>\n<ul class=\"differences\">\n");
        for (Difference difference : some) {
            page.append("<li class=\"")
                    .append(difference.change().name().toLowerCase(Locale.ROOT))
                    .append("\"><div>")
                    .append(text(view.what(difference)))
                    .append("</div>");
            difference.evidence().forEach(evidence -> evidence(page, view, evidence));
            String beside = ComparisonView.breaksBeside(difference);
            if (!beside.isEmpty()) {
                page.append("<div class=\"breaks\">breaks ")
                        .append(text(beside))
                        .append("</div>");
            }
            page.append("<div class=\"where\">")
                    .append(text(ComparisonView.places(difference)))
                    .append("</div></li>\n");
        }
        page.append("</ul>\n");
    }

    /** The message that shows it is there to unfold. */
    private static void evidence(StringBuilder page, ComparisonView view, Evidence evidence) {
        page.append("<div class=\"breaks\">").append(text(view.why(evidence))).append("</div>");
        if (!evidence.isShown()) {
            return;
        }
        page.append("<details><summary>a message that shows it</summary>");
        if (evidence.at() != null) {
            page.append("<p class=\"where\">refused at ")
                    .append(text(evidence.at()))
                    .append(": ")
                    .append(text(evidence.why()))
                    .append(
                            evidence.contract() == null
                                    ? ""
                                    : " (" + text(evidence.contract().toString()) + ")")
                    .append("</p>");
        }
        page.append("<pre>").append(text(evidence.message())).append("</pre></details>");
    }

    /** Contract text is data: none of it is markup. */
    private static String text(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
