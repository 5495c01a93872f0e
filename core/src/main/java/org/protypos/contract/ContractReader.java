package org.protypos.contract;

import org.protypos.diagnostic.Findings;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.parse.SchemaReader;
import org.protypos.source.Documents;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.WsdlReader;

/** Makes one contract of its documents. The door of this package. */
public final class ContractReader {
    private ContractReader() {}

    /**
     * Reads a contract.
     *
     * @return the contract with all its findings; never fails
     */
    public static Contract read(Documents documents) {
        SchemaComponents schema = SchemaReader.read(documents);
        Findings findings = new Findings();
        Definitions wsdl = ForgottenPrefixes.mend(WsdlReader.read(documents), schema, findings);
        findings.addAll(documents.findings());
        findings.addAll(schema.findings());
        findings.addAll(wsdl.findings());
        NameFinder names = new NameFinder(documents, findings);
        new SchemaReferences(schema, names, findings).check();
        new WsdlReferences(wsdl, schema, names, findings).check();
        names.finish();
        new Completeness(documents, schema, wsdl, findings).check();
        return new Contract(documents, schema, wsdl, findings.sorted());
    }
}
