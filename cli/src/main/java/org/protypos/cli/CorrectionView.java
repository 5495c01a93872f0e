package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import org.protypos.binding.Designators;
import org.protypos.binding.Rule;
import org.protypos.binding.Rules;

/** Shows what corrections change of a contract. */
final class CorrectionView {
    private final Rules rules;

    CorrectionView(Rules rules) {
        this.rules = rules;
    }

    void print(PrintWriter out, boolean json) throws IOException {
        if (json) {
            json(out);
            return;
        }
        int changes = 0;
        for (Rule rule : rules.all()) {
            for (Rule.Change change : rule.changes()) {
                out.println(Terminal.bold(Terminal.plain(Designators.shown(change.designator(), rules.prefixes())))
                        + " (" + change.place() + ")");
                out.println("  " + Terminal.red("- " + Terminal.plain(change.before())));
                out.println("  " + Terminal.cyan("+ " + Terminal.plain(change.after())));
                out.println("  because " + Terminal.plain(rule.because()) + " (" + rule.place() + ")");
                out.println();
                changes++;
            }
        }
        out.println(changes + (changes == 1 ? " correction" : " corrections"));
    }

    private void json(PrintWriter out) throws IOException {
        Json.print(out, document -> {
            document.writeArrayFieldStart("corrections");
            for (Rule rule : rules.all()) {
                for (Rule.Change change : rule.changes()) {
                    document.writeStartObject();
                    document.writeStringField("component", change.designator());
                    document.writeStringField("place", change.place().toString());
                    document.writeStringField("before", change.before());
                    document.writeStringField("after", change.after());
                    document.writeStringField("because", rule.because());
                    document.writeStringField("rule", rule.place().toString());
                    document.writeEndObject();
                }
            }
            document.writeEndArray();
        });
    }
}
