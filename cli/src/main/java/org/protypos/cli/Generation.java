package org.protypos.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.protypos.contract.Contract;
import org.protypos.contract.Publication;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.output.OutputFolder;
import org.protypos.output.WriteReport;
import org.protypos.project.ProjectContract;
import org.protypos.target.SourceFile;
import org.protypos.target.java.JavaTarget;

/**
 * What is to be made of one contract, and where.
 *
 * @param owner what the contract is called in its project, empty when it is in none
 * @param into the folder for the sources
 * @param scaffold the folder for a beginning of each implementation, or null
 * @param products what to write
 * @param embedded whether the runtime's sources are written too
 */
record Generation(String owner, Path into, Path scaffold, Set<JavaTarget.Product> products, boolean embedded) {
    /** What the project file asks for. */
    static Generation of(AdoptedContract adopted) {
        ProjectContract settings = adopted.settings();
        Set<JavaTarget.Product> products = EnumSet.of(JavaTarget.Product.TYPES);
        for (String product : settings.produce()) {
            products.add(JavaTarget.Product.valueOf(product.toUpperCase(Locale.ROOT)));
        }
        if (settings.server().equals("servlet")) {
            products.add(JavaTarget.Product.SERVLET);
        }
        return new Generation(
                settings.name(),
                AdoptedContract.near(adopted.project().root().resolve(settings.into())),
                settings.scaffold() == null
                        ? null
                        : AdoptedContract.near(adopted.project().root().resolve(settings.scaffold())),
                products,
                settings.runtime().equals("embedded"));
    }

    /** The part of a contract that the project file selects. */
    static Contract selected(AdoptedContract adopted, Contract whole) {
        ProjectContract settings = adopted.settings();
        return new Selection(settings.services(), settings.ports(), settings.operations()).of(whole);
    }

    /**
     * What came of it.
     *
     * @param planned the contract with its plan, or null when the contract is at fault
     * @param files the files that are to be written
     * @param report what became of the files, or null while nothing was compared
     */
    record Result(
            Generation generation,
            PlannedContract planned,
            List<SourceFile> files,
            WriteReport report,
            List<Finding> findings) {
        boolean isRefused() {
            return planned == null && report == null
                    || findings.stream().anyMatch(finding -> finding.severity() == Severity.ERROR);
        }

        /** Writes the files, or tells what would be written. */
        Result written(boolean preview, boolean overwrite) throws IOException {
            if (planned == null) {
                return this;
            }
            WriteReport done = OutputFolder.write(generation.into(), generation.owner(), files, preview, overwrite);
            List<Finding> all = new ArrayList<>(planned.findings());
            all.addAll(done.findings());
            return new Result(generation, planned, files, done, all);
        }
    }

    /** A contract of which the code is as it was generated, as far as can be told without generating it. */
    Result unchanged(WriteReport report) {
        return new Result(this, null, List.of(), report, List.of());
    }

    /** A contract at fault: nothing is written. */
    Result refused(List<Finding> findings) {
        return new Result(this, null, List.of(), null, findings);
    }

    /** The code of a planned contract; a contract at fault has none. */
    Result of(PlannedContract planned, Contract published) {
        return planned.isSound()
                ? new Result(
                        this,
                        planned,
                        JavaTarget.emit(planned.plan(), products, embedded, () -> Publication.of(published)),
                        null,
                        planned.findings())
                : refused(planned.findings());
    }
}
