package org.protypos.generator;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.protypos.diagnostic.Finding;
import org.protypos.output.OutputFolder;
import org.protypos.output.WriteReport;
import org.protypos.target.SourceFile;

/**
 * What came of one contract.
 *
 * @param order what was wanted
 * @param planned the contract with its plan, or null when the contract is at fault, or nothing had to be planned
 * @param files the files that are to be written
 * @param report what became of the files, or null while they were not compared with what is there
 * @param findings all that is to be said; with an error among them nothing is written
 */
public record GeneratedCode(
        Order order, PlannedContract planned, List<SourceFile> files, WriteReport report, List<Finding> findings) {
    /** A contract of which the code is as it was generated, as far as can be told without generating it. */
    static GeneratedCode unchanged(Order order, WriteReport report) {
        return new GeneratedCode(order, null, List.of(), report, List.of());
    }

    /** A contract at fault: nothing is written. */
    static GeneratedCode refused(Order order, List<Finding> findings) {
        return new GeneratedCode(order, null, List.of(), null, findings);
    }

    /** Whether nothing is written because something is at fault. */
    public boolean isRefused() {
        return planned == null && report == null || findings.stream().anyMatch(Finding::isError);
    }

    /**
     * Writes the files, or tells what would be written: all of them or none.
     *
     * @param preview whether only to tell
     * @param overwrite whether files of an earlier run are replaced even if somebody has edited them since
     * @return the same with what became of the files
     * @throws IOException when the folder cannot be read or written
     */
    public GeneratedCode written(boolean preview, boolean overwrite) throws IOException {
        if (planned == null) {
            return this;
        }
        WriteReport done = OutputFolder.write(order.into(), order.owner(), files, preview, overwrite);
        List<Finding> all = new ArrayList<>(findings);
        all.addAll(done.findings());
        return new GeneratedCode(order, planned, files, done, all);
    }
}
