package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.binding.Designators;
import org.protypos.binding.Rule;
import org.protypos.binding.Suggestions;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.Place;
import org.protypos.generator.PlannedContract;
import org.protypos.naming.Clash;
import org.protypos.naming.Subject;

/** Shows which components would have got one name, by package and cause, and what rules have met. */
public final class ClashPrinter {
    private final List<PlannedContract> plans;
    private final Map<String, String> prefixes = new LinkedHashMap<>();

    /** Prints the clashes that plans of one contract settled, one for each language. */
    public ClashPrinter(List<PlannedContract> plans) {
        this.plans = plans;
        plans.forEach(plan -> plan.rules().prefixes().forEach(prefixes::putIfAbsent));
        Suggestions.prefixes(clashes()).forEach((prefix, namespace) -> {
            if (!prefixes.containsValue(namespace)) {
                prefixes.putIfAbsent(prefix, namespace);
            }
        });
    }

    private List<Clash> clashes() {
        return plans.stream().flatMap(plan -> plan.code().clashes().stream()).toList();
    }

    /** Prints them for people. */
    public void text(PrintWriter out) {
        Map<String, List<Clash>> groups = new LinkedHashMap<>();
        for (PlannedContract plan : plans) {
            String language = plans.size() == 1 ? "" : plan.target().title() + ", ";
            for (Clash clash : plan.code().clashes()) {
                groups.computeIfAbsent(
                                language + clash.where() + ": " + clash.cause().text(), key -> new ArrayList<>())
                        .add(clash);
            }
        }
        groups.forEach((heading, group) -> {
            out.println(Terminal.bold(Terminal.plain(heading)));
            Columns columns = new Columns(2);
            for (Clash clash : group) {
                columns.row(clash.given(), what(clash.other(), null), holder(clash));
            }
            columns.print(out);
            out.println();
        });
        plans.stream()
                .flatMap(plan -> plan.code().choices().stream())
                .findFirst()
                .ifPresent(clash -> {
                    out.println("a rule that would choose otherwise, for a file to be given with --rules:");
                    Suggestions.rule(clash, prefixes).lines().forEach(line -> out.println("  " + Terminal.plain(line)));
                    out.println();
                });
        rules(out);
    }

    private String what(Subject subject, Subject beside) {
        return subject.kind().text() + " "
                + Designators.shown(subject.designator(), prefixes).replaceFirst("^(portType|service|message) ", "")
                + place(subject.place(), beside == null ? null : beside.place());
    }

    /** Where it is; in the document of what it stands beside the line says enough. */
    private static String place(Place place, Place beside) {
        if (place == null) {
            return "";
        }
        boolean same = beside != null && beside.source() == place.source();
        return " (" + (same ? place.line() + ":" + place.column() : place) + ")";
    }

    private String holder(Clash clash) {
        return clash.wanted() + " is "
                + (clash.holder() == null ? "not to be had" : "the name of " + what(clash.holder(), clash.other()));
    }

    /** The rules of all of them; one that several read stands once. */
    private List<Rule> rules() {
        Map<String, Rule> rules = new LinkedHashMap<>();
        for (PlannedContract plan : plans) {
            for (Rule rule : plan.rules().all()) {
                rules.merge(
                        rule.place() + " " + rule.on(),
                        rule,
                        (a, b) -> a.matched().isEmpty() ? b : a);
            }
        }
        return List.copyOf(rules.values());
    }

    private void rules(PrintWriter out) {
        Columns columns = new Columns(2);
        List<Rule> rules = rules();
        for (Rule rule : rules) {
            int met = rule.matched().size();
            String first =
                    met == 0 ? "" : Designators.shown(rule.matched().iterator().next(), prefixes);
            columns.row(
                    rule.place().toString(),
                    rule.on(),
                    met == 0 ? "meets nothing" : met == 1 ? "meets one" : "meets " + met + ", the first " + first);
        }
        if (!rules.isEmpty()) {
            out.println(Terminal.bold("rules"));
            columns.print(out);
            out.println();
        }
    }

    /** Writes them as a field of the object that is open. */
    public void json(JsonGenerator document) throws IOException {
        document.writeArrayFieldStart("clashes");
        for (PlannedContract plan : plans) {
            for (Clash clash : plan.code().clashes()) {
                clash(document, plan, clash);
            }
        }
        document.writeEndArray();
        document.writeArrayFieldStart("rules");
        for (Rule rule : rules()) {
            document.writeStartObject();
            document.writeStringField("place", rule.place().toString());
            document.writeStringField("on", rule.on());
            Json.strings(document, "meets", List.copyOf(rule.matched()));
            document.writeEndObject();
        }
        document.writeEndArray();
    }

    private static void clash(JsonGenerator document, PlannedContract plan, Clash clash) throws IOException {
        document.writeStartObject();
        document.writeStringField("language", plan.target().name());
        document.writeStringField("where", clash.where());
        document.writeStringField("cause", clash.cause().name().toLowerCase(Locale.ROOT));
        document.writeStringField("wanted", clash.wanted());
        document.writeStringField("given", clash.given());
        subject(document, "component", clash.other());
        if (clash.holder() != null) {
            subject(document, "holder", clash.holder());
        }
        document.writeEndObject();
    }

    private static void subject(JsonGenerator document, String field, Subject subject) throws IOException {
        document.writeObjectFieldStart(field);
        document.writeStringField("kind", subject.kind().text());
        document.writeStringField("designator", subject.designator());
        if (subject.place() != null) {
            document.writeStringField("place", subject.place().toString());
        }
        document.writeEndObject();
    }
}
