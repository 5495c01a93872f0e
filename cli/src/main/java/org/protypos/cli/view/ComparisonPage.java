package org.protypos.cli.view;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.binding.ProposedRule;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Evidence;
import org.protypos.change.Reader;
import org.protypos.reference.ComparedReference;
import org.protypos.reference.ContractReference;
import org.protypos.reference.page.ComparedPage;

/** Writes a comparison as one page that needs nothing else. */
public final class ComparisonPage {
    /** Messages that show something take half as much room as the contracts themselves, and this. */
    private static final int ROOM = 20_000;

    private final ComparisonView view;
    private int room;

    private ComparisonPage(ComparisonView view) {
        this.view = view;
    }

    /** The page of a comparison, complete in itself. */
    public static String of(ComparisonView view) {
        return new ComparisonPage(view).text();
    }

    private String text() {
        Comparison.Sides sides = view.result().sides();
        ComparedReference reference = new ComparedReference(
                new ContractReference(sides.before(), Map.of()),
                new ContractReference(sides.after(), Map.of()),
                sides.oldName());
        ComparedPage page = new ComparedPage(sides.before(), sides.after(), reference, view.old() + " → " + view.now());
        Map<String, Long> readers = new LinkedHashMap<>();
        for (Reader reader : view.readers()) {
            readers.put(
                    reader.text(),
                    view.result().differences().stream()
                            .filter(difference -> difference.breaks().contains(reader))
                            .count());
        }
        page.summary(view.summary(), readers);
        room = (sides.before().documents().size() + sides.after().documents().size()) / 2 + ROOM;
        for (boolean breaking : List.of(true, false)) {
            view.some(breaking).forEach(difference -> page.difference(told(difference)));
        }
        return view.result().renames().isEmpty()
                ? page.text()
                : page.renames(ProposedRule.file(view.result().renames())).text();
    }

    private ComparedPage.Told told(Difference difference) {
        return new ComparedPage.Told(
                difference.change().name().toLowerCase(Locale.ROOT),
                difference.designator(),
                view.what(difference),
                ComparisonView.breaksBeside(difference),
                difference.isBreaking(),
                difference.oldPlace(),
                difference.newPlace(),
                difference.evidence().stream().map(this::shown).toList());
    }

    private ComparedPage.Shown shown(Evidence evidence) {
        if (!evidence.isShown() || evidence.message().length() > room) {
            // What has no room here is written by --witness.
            return new ComparedPage.Shown(view.why(evidence), "", null);
        }
        room -= evidence.message().length();
        String where = evidence.at() == null
                ? ""
                : "refused at " + evidence.at() + ": " + evidence.why()
                        + (evidence.contract() == null ? "" : " (" + evidence.contract() + ")");
        return new ComparedPage.Shown(view.why(evidence), where, evidence.message());
    }
}
