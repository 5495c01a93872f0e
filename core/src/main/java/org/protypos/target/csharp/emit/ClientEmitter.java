package org.protypos.target.csharp.emit;

import java.util.Set;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;

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
        this.signatures = new Signatures(context, type);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type, type.client(), Set.of());
        new ClientEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        TypeName api = TypeName.ofContract(type.packageName(), type.name());
        TypeName connection = context.runtime(type.isHttp() ? "HttpConnection" : "SoapConnection");
        Code port = Code.of("$T<$T>", context.runtime(type.isHttp() ? "HttpPort" : "SoapPort"), api);
        TypeName settings = context.runtime("SoapSettings");
        file.doc("Calls a service that offers <see cref=\"" + file.reference(api)
                + "\"/>. Each operation can also be called without waiting. Safe for use by several threads.");
        file.block("public sealed class $N : $T", type.client(), api);
        file.line("private readonly $T connection;", connection);
        Code standard = defaultPort();
        if (standard != null) {
            file.gap().doc("A client for the default port at the address in the contract.");
            file.constructor(Code.of("public $N()", type.client()), Code.of("this($L, null)", standard));
            file.gap().doc("A client for the default port.");
            file.tag("<param name=\"settings\">", "address, time limit and the like; a copy is taken", "</param>");
            file.constructor(
                    Code.of("public $N($T settings)", type.client(), settings),
                    Code.of("this($L, settings)", standard));
        }
        file.gap().doc("A client for a port.");
        file.tag("<param name=\"port\">", "the port", "</param>");
        file.tag("<param name=\"settings\">", "address, time limit and the like; a copy is taken", "</param>");
        file.block("public $N($T port, $T settings = null)", type.client(), port, settings);
        file.line("this.connection = new $T(port, settings, $T.Instance);", connection, context.registry());
        file.close();
        for (PlannedOperation operation : type.operations()) {
            call(operation);
            if (operation.asyncMethod() != null) {
                callLater(operation);
            }
        }
        file.close();
    }

    private Code defaultPort() {
        for (PlannedService service : context.plan().services()) {
            for (PlannedService.Port port : service.ports()) {
                if (port.type() == type && port.isDefault()) {
                    return Code.of(
                            "$T.$N",
                            TypeName.ofContract(service.packageName(), service.name())
                                    .members(),
                            port.constant());
                }
            }
        }
        return null;
    }

    /**
     * The call of an operation.
     *
     * @param method the method of the connection
     * @param more a template for what follows the arguments
     */
    private Code call(PlannedOperation operation, String method, String more) {
        return Code.of(
                "this.connection.$N($S, $S, $T.Of($L), $N" + more,
                method,
                operation.method(),
                type.isHttp() ? operation.location() : operation.soapAction(),
                signatures.staticMessages(operation.input()),
                Code.names(operation.parameters()),
                operation.output() == null ? "null" : "output");
    }

    private void output(PlannedOperation operation) {
        if (operation.output() != null) {
            Code message = signatures.messages(operation.output());
            file.line("$T output = new $T();", message, message);
        }
    }

    private void call(PlannedOperation operation) {
        file.gap();
        signatures.document(file, operation, false);
        file.block("public $L", signatures.method(operation));
        output(operation);
        file.line("$L", call(operation, "Call", ");"));
        if (!Signatures.isVoid(operation)) {
            file.line("return output.Result();");
        }
        file.close();
    }

    private void callLater(PlannedOperation operation) {
        TypeName token = TypeName.ofLibrary("System.Threading", "CancellationToken");
        TypeName task = TypeName.ofLibrary("System.Threading.Tasks", "Task");
        Code result = signatures.result(operation);
        Code parameters = signatures.parameters(operation);
        file.gap();
        signatures.document(file, operation, true);
        file.block(
                "public async $T $N($L$T cancellationToken = default($T))",
                result == null ? task : Code.of("$T<$T>", task, result),
                operation.asyncMethod(),
                parameters.isEmpty() ? Code.NONE : Code.of("$L, ", parameters),
                token,
                token);
        output(operation);
        file.line("await $L", call(operation, "CallAsync", ", cancellationToken).ConfigureAwait(false);"));
        if (result != null) {
            file.line("return output.Result();");
        }
        file.close();
    }
}
