package org.protypos.maven;

import java.util.Locale;
import java.util.stream.Collectors;
import org.protypos.change.Difference;
import org.protypos.change.Reader;
import org.protypos.diagnostic.Place;

/** Tells differences between contracts as lines of a build's log. */
final class Differences {
    private Differences() {}

    /** A difference in one line: where the contract says it now, or said it before. */
    static String line(Difference difference) {
        Place at = difference.newPlace() == null ? difference.oldPlace() : difference.newPlace();
        String place =
                at == null ? "" : ContractMojo.absolute(at.document()) + ":" + at.line() + ":" + at.column() + ": ";
        String what = difference.fact().isEmpty()
                ? difference.change().name().toLowerCase(Locale.ROOT)
                : difference.fact() + ": " + difference.before() + " -> " + difference.after();
        String whom = difference.isBreaking()
                ? "; breaks " + difference.breaks().stream().map(Reader::brief).collect(Collectors.joining(", "))
                : "";
        return place + difference.kind() + " " + difference.designator() + " " + what + whom;
    }
}
