package org.protypos.infer;

import java.io.InputStream;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import org.protypos.authoring.DraftSchema;
import org.protypos.diagnostic.Findings;
import org.protypos.source.ParserComplaint;

/**
 * Infers schemas from documents: schemas that accept every one of them. Documents are read one after the other and not kept, so
 * that there may be any number of any length; of each only what it was like is remembered.
 */
public final class Inference {
    private final Observations seen = new Observations();
    private final Decisions decisions;
    private final Findings findings;
    private final DocumentObserver observer;
    private long documents;

    /**
     * Begins.
     *
     * @param decisions what is decided already
     * @param findings is told what is wrong with documents
     */
    public Inference(Decisions decisions, Findings findings) {
        this.decisions = decisions;
        this.findings = findings;
        this.observer = new DocumentObserver(seen, decisions);
    }

    /**
     * Reads a document: one of its own, or an envelope with others in it.
     *
     * @param name how to call it in findings
     */
    public void read(String name, InputStream in) {
        documents++;
        try {
            observer.read(name, in);
        } catch (XMLStreamException e) {
            String where = e.getLocation() == null
                    ? name
                    : name + ":" + e.getLocation().getLineNumber() + ":"
                            + e.getLocation().getColumnNumber();
            findings.error(
                    "malformed-xml",
                    null,
                    where + " cannot be read: " + ParserComplaint.reason(e),
                    "get the document as it was sent, or leave it out");
        }
    }

    /** Makes schemas of all that was read. */
    public Inferred inferred() {
        Set<Remark> remarks = new LinkedHashSet<>();
        new Sharing(seen, decisions, remarks).share();
        new Families(seen, remarks).found();
        seen.declareForeign();
        List<DraftSchema> schemas = new SchemaDrafts(seen, decisions, remarks).drafted();
        return findings.hasErrors()
                ? new Inferred(List.of(), List.of(), documents, findings.sorted())
                : new Inferred(schemas, List.copyOf(remarks), documents, findings.sorted());
    }
}
