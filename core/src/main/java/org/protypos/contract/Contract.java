package org.protypos.contract;

import java.util.List;
import org.protypos.diagnostic.Finding;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Documents;
import org.protypos.wsdl.Definitions;

/**
 * A contract: all of its documents read and its references checked.
 *
 * @param findings everything that is wrong or worth knowing, by document and place
 */
public record Contract(Documents documents, SchemaComponents schema, Definitions wsdl, List<Finding> findings) {
    /** Whether nothing stands in the way of generating code. */
    public boolean isSound() {
        return findings.stream().noneMatch(Finding::isError);
    }
}
