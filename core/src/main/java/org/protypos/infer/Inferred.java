package org.protypos.infer;

import java.util.List;
import org.protypos.authoring.DraftSchema;
import org.protypos.diagnostic.Finding;

/**
 * What was inferred.
 *
 * @param schemas one schema for each namespace; none when a finding is an error
 * @param remarks what was decided
 * @param documents how many documents were read
 * @param findings what is wrong with documents and decisions
 */
public record Inferred(List<DraftSchema> schemas, List<Remark> remarks, long documents, List<Finding> findings) {
    public Inferred {
        schemas = List.copyOf(schemas);
        remarks = List.copyOf(remarks);
    }
}
