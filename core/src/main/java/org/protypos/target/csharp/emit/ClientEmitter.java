package org.protypos.target.csharp.emit;

import java.util.Set;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;

/** Writes the client of an interface. */
public final class ClientEmitter {
    private final CSharpContext context;
    private final CSharpFile file;
    private final PlannedInterface type;
    private final Signatures signatures;

    private ClientEmitter(CSharpContext context, CSharpFile file, PlannedInterface type) {
        this.context = context;
        this.file = file;
        this.type = type;
        this.signatures = new Signatures(context, file, type);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type, type.client(), Set.of());
        new ClientEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        String api = file.contractType(type.packageName(), type.name());
        String connection = context.runtime(file, type.isHttp() ? "HttpConnection" : "SoapConnection");
        String port = context.runtime(file, type.isHttp() ? "HttpPort" : "SoapPort") + "<" + api + ">";
        String settings = context.runtime(file, "SoapSettings");
        file.doc("Calls a service that offers <see cref=\"" + api
                + "\"/>. Each operation can also be called without waiting. Safe for use by several threads.");
        file.block("public sealed class ", type.client(), " : ", api);
        file.line("private readonly ", connection, " connection;");
        String standard = defaultPort();
        if (standard != null) {
            file.gap().doc("A client for the default port at the address in the contract.");
            file.constructor("public " + type.client() + "()", "this(" + standard + ", null)");
            file.gap().doc("A client for the default port.");
            file.tag("<param name=\"settings\">", "address, time limit and the like; a copy is taken", "</param>");
            file.constructor(
                    "public " + type.client() + "(" + settings + " settings)", "this(" + standard + ", settings)");
        }
        file.gap().doc("A client for a port.");
        file.tag("<param name=\"port\">", "the port", "</param>");
        file.tag("<param name=\"settings\">", "address, time limit and the like; a copy is taken", "</param>");
        file.block("public ", type.client(), "(", port, " port, ", settings, " settings = null)");
        file.line("this.connection = new ", connection, "(port, settings, ", context.registry(file), ".Instance);");
        file.close();
        for (PlannedOperation operation : type.operations()) {
            call(operation);
            if (operation.asyncMethod() != null) {
                callLater(operation);
            }
        }
        file.close();
    }

    private String defaultPort() {
        for (PlannedService service : context.plan().services()) {
            for (PlannedService.Port port : service.ports()) {
                if (port.type() == type && port.isDefault()) {
                    return file.contractStatics(service.packageName(), service.name()) + "." + port.constant();
                }
            }
        }
        return null;
    }

    private String call(PlannedOperation operation, String method, String more) {
        String target = CSharpText.literal(type.isHttp() ? operation.location() : operation.soapAction());
        return "this.connection." + method + "(" + CSharpText.literal(operation.method()) + ", " + target + ", "
                + signatures.staticMessages(operation.input()) + ".Of(" + String.join(", ", operation.parameters())
                + "), "
                + (operation.output() == null ? "null" : "output") + more + ");";
    }

    private void output(PlannedOperation operation) {
        if (operation.output() != null) {
            String message = signatures.messages(operation.output());
            file.line(message, " output = new ", message, "();");
        }
    }

    private void call(PlannedOperation operation) {
        file.gap();
        signatures.document(operation, false);
        file.block("public ", signatures.method(operation));
        output(operation);
        file.line(call(operation, "Call", ""));
        if (!Signatures.isVoid(operation)) {
            file.line("return output.Result();");
        }
        file.close();
    }

    private void callLater(PlannedOperation operation) {
        String token = file.type("System.Threading", "CancellationToken");
        String task = file.type("System.Threading.Tasks", "Task");
        String result = signatures.result(operation);
        String parameters = signatures.parameters(operation);
        file.gap();
        signatures.document(operation, true);
        file.block(
                "public async ",
                result == null ? task : task + "<" + result + ">",
                " ",
                operation.asyncMethod(),
                "(",
                parameters.isEmpty() ? "" : parameters + ", ",
                token,
                " cancellationToken = default(",
                token,
                "))");
        output(operation);
        file.line(
                "await ",
                call(operation, "CallAsync", ", cancellationToken").replaceFirst(";$", ".ConfigureAwait(false);"));
        if (result != null) {
            file.line("return output.Result();");
        }
        file.close();
    }
}
