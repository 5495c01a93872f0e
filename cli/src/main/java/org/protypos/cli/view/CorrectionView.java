package org.protypos.cli.view;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.XMLConstants;
import org.protypos.binding.Designators;
import org.protypos.binding.Rule;
import org.protypos.binding.Rules;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;

/** Shows what corrections change of a contract. */
public final class CorrectionView {
    private final Rules rules;
    private final Map<String, String> prefixes;

    /** Shows the corrections of some rules. */
    public CorrectionView(Rules rules) {
        this.rules = rules;
        this.prefixes = new LinkedHashMap<>(rules.prefixes());
        prefixes.putIfAbsent("xs", XMLConstants.W3C_XML_SCHEMA_NS_URI);
    }

    /** Prints them, for people or as JSON. */
    public void print(PrintWriter out, boolean json) throws IOException {
        if (json) {
            json(out);
            return;
        }
        int changes = 0;
        for (Rule rule : rules.all()) {
            for (Rule.Change change : rule.changes()) {
                out.println(Terminal.bold(shown(change.designator())) + " (" + change.place() + ")");
                out.println("  " + Terminal.red("- " + named(change.before())));
                out.println("  " + Terminal.cyan("+ " + named(change.after())));
                out.println("  because " + Terminal.plain(rule.because()) + " (" + rule.place() + ")");
                out.println();
                changes++;
            }
        }
        out.println(changes + (changes == 1 ? " correction" : " corrections"));
    }

    private String shown(String designator) {
        return Terminal.plain(Designators.shown(designator, prefixes));
    }

    private String named(String text) {
        return Terminal.plain(Designators.named(text, prefixes));
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
