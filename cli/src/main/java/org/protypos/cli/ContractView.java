package org.protypos.cli;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.generator.PlannedContract;
import org.protypos.plan.ApiFault;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.ApiService;
import org.protypos.plan.Plan;
import org.protypos.plan.Property;
import org.protypos.source.Document;
import org.protypos.target.Target;
import org.protypos.wsdl.PolicyAssertion;

/** What a contract offers, for a person and for a program. */
final class ContractView {
    private final Contract contract;
    private final PlannedContract planned;
    private final Plan plan;
    private final Map<ApiOperation, Target.Signature> signatures;

    ContractView(Contract contract, PlannedContract planned) {
        this.contract = contract;
        this.planned = planned;
        this.plan = planned.plan();
        this.signatures = planned.target().signatures(plan);
    }

    void text(PrintWriter out) {
        documents(out);
        for (ApiService service : plan.services()) {
            service(out, service);
        }
        for (ApiInterface type : plan.interfaces()) {
            operations(out, type);
        }
        out.println(Terminal.bold("types"));
        out.println("  " + plan.classes().size() + " classes and "
                + plan.enums().size() + " enumerations in " + String.join(", ", packages()));
        out.println();
    }

    private List<String> packages() {
        List<String> packages = new ArrayList<>();
        plan.classes().forEach(type -> packages.add(type.packageName()));
        plan.enums().forEach(type -> packages.add(type.packageName()));
        packages.add(plan.rootPackage());
        return packages.stream().distinct().sorted().toList();
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

    private void service(PrintWriter out, ApiService service) {
        out.println(Terminal.bold("service ") + service.name());
        Columns columns = new Columns(2);
        for (ApiService.Port port : service.ports()) {
            columns.row(
                    port.constant(),
                    port.speaks(),
                    port.address(),
                    port.type().name() + (port.isDefault() ? " (default)" : ""));
        }
        columns.print(out);
        for (ApiService.Port port : service.ports()) {
            List<String> asked = PolicyAssertion.inWords(port.policy());
            if (!asked.isEmpty()) {
                out.println("  " + port.constant() + " asks for " + Terminal.plain(String.join(", ", asked)));
            }
        }
        out.println();
    }

    private void operations(PrintWriter out, ApiInterface type) {
        out.println(Terminal.bold("interface ") + type.name() + Terminal.dim("  " + type.packageName()));
        for (ApiOperation operation : type.operations()) {
            Target.Signature signature = signatures.get(operation);
            out.println("  " + Terminal.plain(signature.method()));
            if (!operation.policy().isEmpty()) {
                List<String> asked = PolicyAssertion.inWords(operation.policy());
                out.println(Terminal.dim("    asks for " + Terminal.plain(String.join(", ", asked))));
            }
            if (!signature.result().isEmpty()) {
                out.println(Terminal.dim("    result " + Terminal.plain(signature.result())));
            }
            for (Property header : operation.input().headers()) {
                out.println(Terminal.dim("    header " + header.xmlName().getLocalPart() + " in"));
            }
            if (operation.output() == null) {
                out.println(Terminal.dim("    one-way"));
                continue;
            }
            for (Property header : operation.output().headers()) {
                out.println(Terminal.dim("    header " + header.xmlName().getLocalPart() + " out"));
            }
        }
        if (type.operations().isEmpty()) {
            out.println("  nothing that can be called");
        }
        out.println();
    }

    void json(PrintWriter out) throws IOException {
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
            for (ApiService service : plan.services()) {
                jsonService(json, service);
            }
            json.writeEndArray();
            json.writeArrayFieldStart("interfaces");
            for (ApiInterface type : plan.interfaces()) {
                jsonInterface(json, type);
            }
            json.writeEndArray();
            json.writeObjectFieldStart("types");
            json.writeNumberField("classes", plan.classes().size());
            json.writeNumberField("enumerations", plan.enums().size());
            Json.strings(json, "packages", packages());
            json.writeEndObject();
            Json.findings(json, planned.findings());
        });
    }

    private static void jsonService(JsonGenerator json, ApiService service) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", service.xmlName().getLocalPart());
        json.writeStringField("java", service.packageName() + "." + service.name());
        json.writeArrayFieldStart("ports");
        for (ApiService.Port port : service.ports()) {
            json.writeStartObject();
            json.writeStringField("name", port.xmlName());
            json.writeStringField("constant", port.constant());
            json.writeStringField("protocol", port.speaks());
            json.writeStringField("address", port.address());
            json.writeStringField("interface", port.type().name());
            json.writeBooleanField("default", port.isDefault());
            Json.strings(json, "asksFor", PolicyAssertion.inWords(port.policy()));
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void jsonInterface(JsonGenerator json, ApiInterface type) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", type.xmlName().getLocalPart());
        json.writeStringField("java", type.packageName() + "." + type.name());
        json.writeArrayFieldStart("operations");
        for (ApiOperation operation : type.operations()) {
            json.writeStartObject();
            json.writeStringField("name", operation.xmlName());
            json.writeStringField("signature", signatures.get(operation).method());
            json.writeStringField("result", signatures.get(operation).result());
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
            Json.strings(
                    json,
                    "faults",
                    operation.faults().stream().map(ApiFault::name).toList());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
