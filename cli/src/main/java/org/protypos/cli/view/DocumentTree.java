package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.source.Document;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Shows the documents of a contract, which leads to which, and which of them are not there. */
public final class DocumentTree {
    private final Documents documents;
    private final Map<Document, List<Link>> links = new LinkedHashMap<>();

    /**
     * What leads from a document to another: {@code import}, {@code include} or {@code redefine}.
     *
     * @param name the name of the other document; when that is not there, its address as it is written, or its namespace
     * @param to the other document, or null when it is not there
     */
    private record Link(String how, String name, Document to) {}

    /** Shows some documents. */
    public DocumentTree(Documents documents) {
        this.documents = documents;
        documents.links().forEach((element, to) -> add(element, new Link(element.name(), to.name(), to)));
        for (Element missing : documents.missing()) {
            String address = missing.attribute(missing.is(Xml.WSDL, "import") ? "location" : "schemaLocation");
            // A catalog may say where a namespace is that is imported without an address.
            add(missing, new Link(missing.name(), address == null ? missing.attribute("namespace") : address, null));
        }
    }

    private void add(Element reference, Link link) {
        List<Link> all = links.computeIfAbsent(reference.document(), any -> new ArrayList<>());
        if (!all.contains(link)) {
            all.add(link);
        }
    }

    /** Prints it for people: what was shown once is not taken apart again. */
    public void text(PrintWriter out) {
        Set<Document> shown = new HashSet<>();
        for (Document entry : documents.entries()) {
            text(out, "", entry, 0, shown);
        }
    }

    private void text(PrintWriter out, String how, Document document, int level, Set<Document> shown) {
        boolean again = !shown.add(document);
        String namespace = document.root() == null ? null : document.root().attribute("targetNamespace");
        List<Link> all = links.getOrDefault(document, List.of());
        out.println(Terminal.plain("  ".repeat(level) + (how.isEmpty() ? "" : how + " ") + document.name())
                + Terminal.dim((namespace == null ? "" : "  " + Terminal.plain(namespace))
                        + (again && !all.isEmpty() ? "  (as above)" : "")));
        if (!again) {
            for (Link link : all) {
                if (link.to() == null) {
                    out.println(Terminal.plain("  ".repeat(level + 1) + link.how() + " " + link.name())
                            + Terminal.dim("  (not there)"));
                } else {
                    text(out, link.how(), link.to(), level + 1, shown);
                }
            }
        }
    }

    /** Writes it as one JSON document. */
    public void json(PrintWriter out) throws IOException {
        Json.print(out, json -> {
            json.writeArrayFieldStart("documents");
            for (Document document : documents.all()) {
                json(json, document);
            }
            json.writeEndArray();
            Json.findings(json, documents.findings());
        });
    }

    private void json(JsonGenerator json, Document document) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", document.name());
        json.writeBooleanField("entry", documents.entries().contains(document));
        json.writeArrayFieldStart("leadsTo");
        for (Link link : links.getOrDefault(document, List.of())) {
            json.writeStartObject();
            json.writeStringField("how", link.how());
            json.writeStringField("name", link.name());
            json.writeBooleanField("there", link.to() != null);
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
