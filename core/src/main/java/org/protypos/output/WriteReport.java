package org.protypos.output;

import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Finding;

/**
 * What became of the files of one run, by their paths below the output folder.
 *
 * @param added files that were not there before
 * @param changed files that had other content
 * @param kept files that were as they should be and were not touched
 * @param removed files of an earlier run that are no longer needed
 * @param edits for files that somebody has edited, what they changed
 * @param findings what stood in the way; with any error nothing was written
 */
public record WriteReport(
        List<String> added,
        List<String> changed,
        List<String> kept,
        List<String> removed,
        Map<String, List<String>> edits,
        List<Finding> findings) {
    /** Whether everything was as it should be. */
    public boolean isUnchanged() {
        return added.isEmpty() && changed.isEmpty() && removed.isEmpty() && findings.isEmpty();
    }
}
