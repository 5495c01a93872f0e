package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import org.protypos.api.ApiOperation;
import org.protypos.api.ApiService;
import org.protypos.api.type.Member;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.generator.PlannedContract;
import org.protypos.source.Document;
import org.protypos.target.Outline;
import org.protypos.wsdl.PolicyAssertion;

/** What a contract offers, for a person and for a program. */
public final class ContractView {
    private final Contract contract;
    private final PlannedContract planned;
    private final Outline outline;

    /** Shows a contract with the names planned for it. */
    public ContractView(Contract contract, PlannedContract planned) {
        this.contract = contract;
        this.planned = planned;
        this.outline = planned.code().outline();
    }

    /** Prints it for people. */
    public void text(PrintWriter out) {
        documents(out);
        for (Outline.Service service : outline.services()) {
            service(out, service);
        }
        for (Outline.Interface type : outline.interfaces()) {
            operations(out, type);
        }
        if (!planned.code().records().isEmpty()) {
            new RecordView(planned.code().records()).text(out);
            return;
        }
        out.println(Terminal.bold("types"));
        out.println("  " + outline.structures() + " classes and " + outline.enumerations() + " enumerations in "
                + String.join(", ", outline.packages()));
        out.println();
    }

    private void documents(PrintWriter out) {
        out.println(Terminal.bold("documents"));
        Columns columns = new Columns(2);
        for (Document document : contract.documents().all()) {
            columns.row(document.name(), kind(document), namespace(document));
        }
        columns.print(out);
        out.println();
    }

    private static String kind(Document document) {
        return document.root().name().equals("schema") ? "schema" : "WSDL";
    }

    private static String namespace(Document document) {
        String namespace = document.root().attribute("targetNamespace");
        return namespace == null ? "" : namespace;
    }

    private void service(PrintWriter out, Outline.Service service) {
        out.println(Terminal.bold("service ") + service.name());
        Columns columns = new Columns(2);
        List<ApiService.Port> ports = service.api().ports();
        for (int i = 0; i < ports.size(); i++) {
            ApiService.Port port = ports.get(i);
            columns.row(
                    service.constants().get(i),
                    port.speaks(),
                    port.address(),
                    outline.nameOf(port.type()) + (port.isDefault() ? " (default)" : ""));
        }
        columns.print(out);
        for (int i = 0; i < ports.size(); i++) {
            List<String> asked = PolicyAssertion.inWords(ports.get(i).policy());
            if (!asked.isEmpty()) {
                out.println(
                        "  " + service.constants().get(i) + " asks for " + Terminal.plain(String.join(", ", asked)));
            }
        }
        out.println();
    }

    private void operations(PrintWriter out, Outline.Interface type) {
        out.println(Terminal.bold("interface ")
                + type.name()
                + (type.packageName().isEmpty() ? "" : Terminal.dim("  " + type.packageName())));
        for (Outline.Operation line : type.operations()) {
            ApiOperation operation = line.api();
            out.println("  " + Terminal.plain(line.method()));
            if (!operation.policy().isEmpty()) {
                List<String> asked = PolicyAssertion.inWords(operation.policy());
                out.println(Terminal.dim("    asks for " + Terminal.plain(String.join(", ", asked))));
            }
            if (!line.result().isEmpty()) {
                out.println(Terminal.dim("    result " + Terminal.plain(line.result())));
            }
            for (Member header : operation.input().headers()) {
                out.println(Terminal.dim("    header " + header.xmlName().getLocalPart() + " in"));
            }
            if (operation.output() == null) {
                out.println(Terminal.dim("    one-way"));
                continue;
            }
            for (Member header : operation.output().headers()) {
                out.println(Terminal.dim("    header " + header.xmlName().getLocalPart() + " out"));
            }
        }
        if (type.operations().isEmpty()) {
            out.println("  nothing that can be called");
        }
        out.println();
    }

    /** Prints it as one JSON document. */
    public void json(PrintWriter out) throws IOException {
        Json.print(out, json -> {
            json.writeArrayFieldStart("documents");
            for (Document document : contract.documents().all()) {
                json.writeStartObject();
                json.writeStringField("name", document.name());
                json.writeStringField("kind", kind(document));
                json.writeStringField("namespace", namespace(document));
                json.writeNumberField("bytes", document.size());
                json.writeStringField("sha256", document.hash());
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeArrayFieldStart("services");
            for (Outline.Service service : outline.services()) {
                jsonService(json, service);
            }
            json.writeEndArray();
            json.writeArrayFieldStart("interfaces");
            for (Outline.Interface type : outline.interfaces()) {
                jsonInterface(json, type);
            }
            json.writeEndArray();
            json.writeObjectFieldStart("types");
            json.writeNumberField("classes", outline.structures());
            json.writeNumberField("enumerations", outline.enumerations());
            Json.strings(json, "packages", outline.packages());
            json.writeEndObject();
            if (!planned.code().records().isEmpty()) {
                new RecordView(planned.code().records()).json(json);
            }
            Json.findings(json, planned.findings());
        });
    }

    private static String qualified(String packageName, String name) {
        return packageName.isEmpty() ? name : packageName + "." + name;
    }

    private void jsonService(JsonGenerator json, Outline.Service service) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", service.api().name().getLocalPart());
        json.writeStringField(planned.target().name(), qualified(service.packageName(), service.name()));
        json.writeArrayFieldStart("ports");
        List<ApiService.Port> ports = service.api().ports();
        for (int i = 0; i < ports.size(); i++) {
            ApiService.Port port = ports.get(i);
            json.writeStartObject();
            json.writeStringField("name", port.name());
            json.writeStringField("constant", service.constants().get(i));
            json.writeStringField("protocol", port.speaks());
            json.writeStringField("address", port.address());
            json.writeStringField("interface", outline.nameOf(port.type()));
            json.writeBooleanField("default", port.isDefault());
            Json.strings(json, "asksFor", PolicyAssertion.inWords(port.policy()));
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void jsonInterface(JsonGenerator json, Outline.Interface type) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", type.api().name().getLocalPart());
        json.writeStringField(planned.target().name(), qualified(type.packageName(), type.name()));
        json.writeArrayFieldStart("operations");
        for (Outline.Operation line : type.operations()) {
            ApiOperation operation = line.api();
            json.writeStartObject();
            json.writeStringField("name", operation.name());
            json.writeStringField("signature", line.method());
            json.writeStringField("result", line.result());
            json.writeStringField("soapAction", operation.soapAction());
            if (operation.location() != null) {
                json.writeStringField("location", operation.location());
            }
            Json.strings(json, "asksFor", PolicyAssertion.inWords(operation.policy()));
            json.writeBooleanField("oneWay", operation.output() == null);
            Json.strings(
                    json,
                    "headers",
                    operation.input().headers().stream()
                            .map(header -> header.xmlName().toString())
                            .toList());
            Json.strings(json, "faults", line.faults());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
