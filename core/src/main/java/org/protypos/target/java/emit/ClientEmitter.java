package org.protypos.target.java.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

/** Writes the client of an interface. */
public final class ClientEmitter {
    private final JavaContext context;
    private final JavaFile file;
    private final PlannedInterface type;
    private final InterfaceEmitter.Signatures signatures;

    private ClientEmitter(JavaContext context, JavaFile file, PlannedInterface type) {
        this.context = context;
        this.file = file;
        this.type = type;
        this.signatures = new InterfaceEmitter.Signatures(context, type, false);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type) {
        JavaFile file = context.file(type, type.client());
        new ClientEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        TypeName api = TypeName.ofContract(type.packageName(), type.name());
        TypeName connection = context.soap(connection());
        file.doc("Calls a service that offers {@code " + type.name()
                + "}. Each operation can also be called without waiting. Safe for use by several threads.");
        file.block("public final class $N implements $T", type.client(), api);
        file.line("private final $T connection;", connection);
        file.gap();
        file.block("private $N($T connection)", type.client(), connection);
        file.line("this.connection = connection;");
        file.close();
        connecting(api, connection);
        for (PlannedOperation operation : type.operations()) {
            call(operation);
            if (operation.asyncMethod() != null) {
                callLater(operation);
            }
        }
        file.close();
    }

    private String connection() {
        return type.isHttp() ? "HttpConnection" : "SoapConnection";
    }

    private void connecting(TypeName api, TypeName connection) {
        Code settings =
                Code.of("$T<$T>", TypeName.ofLibrary("java.util.function.UnaryOperator"), context.soap("SoapSettings"));
        Code port = Code.of("$T<$T>", context.soap(type.isHttp() ? "HttpPort" : "SoapPort"), api);
        Code standard = defaultPort();
        if (standard != null) {
            file.gap().doc("Gives a client for the default port at the address in the contract.");
            file.block("public static $N connect()", type.client());
            file.line("return connect($L, with -> with);", standard);
            file.close();
            file.gap()
                    .doc("Gives a client for the default port; {@code with} changes address, time limit and the like.");
            file.block("public static $N connect($T with)", type.client(), settings);
            file.line("return connect($L, with);", standard);
            file.close();
        }
        file.gap().doc("Gives a client for a port at the address in the contract.");
        file.block("public static $N connect($T port)", type.client(), port);
        file.line("return connect(port, with -> with);");
        file.close();
        file.gap().doc("Gives a client for a port; {@code with} changes address, time limit and the like.");
        file.block("public static $N connect($T port, $T with)", type.client(), port, settings);
        file.line("return new $N($T.to(port, with, $T.INSTANCE));", type.client(), connection, context.registry());
        file.close();
        file.gap()
                .doc("Gives a client that differs in some setting, for one call or more: address, headers and the like."
                        + " This one stays as it is.");
        file.block("public $N with($T with)", type.client(), settings);
        file.line("return new $N(this.connection.with(with));", type.client());
        file.close();
    }

    private Code defaultPort() {
        for (PlannedService service : context.plan().services()) {
            for (PlannedService.Port port : service.ports()) {
                if (port.type() == type && port.isDefault()) {
                    return Code.of(
                            "$T.$N", TypeName.ofContract(service.packageName(), service.name()), port.constant());
                }
            }
        }
        return null;
    }

    private static boolean isVoid(PlannedOperation operation) {
        return operation.output() == null || operation.output().values().isEmpty();
    }

    /** The message of a request. */
    private Code made(PlannedOperation operation) {
        return Code.of("$T.of($L)", signatures.messages(operation.input()), Code.names(operation.parameters()));
    }

    private Code action(PlannedOperation operation) {
        return Code.of("$S, $S", operation.method(), type.isHttp() ? operation.location() : operation.soapAction());
    }

    private void call(PlannedOperation operation) {
        file.gap().doc(JavaText.comment(operation.documentation()));
        file.line("@Override");
        file.block("public $L", signatures.method(operation));
        Code output = Code.of("null");
        if (operation.output() != null) {
            Code message = signatures.messages(operation.output());
            file.line("$T output = new $T();", message, message);
            output = Code.of("output");
        }
        Code call = Code.of("($L, $L, $L);", action(operation), made(operation), output);
        if (operation.faults().isEmpty()) {
            file.line("this.connection.callPlain$L", call);
        } else {
            file.block("try");
            file.line("this.connection.call$L", call);
            Code faults = Code.join(
                    " | ",
                    operation.faults().stream()
                            .map(signatures::fault)
                            .distinct()
                            .toList());
            file.orElse("catch ($L e)", faults);
            file.line("throw e;");
            file.orElse("catch ($T e)", context.soap("DeclaredFault"));
            file.line("throw $T.unexpected(e);", context.soap(connection()));
            file.close();
        }
        if (!isVoid(operation)) {
            file.line("return output.result();");
        }
        file.close();
    }

    private void callLater(PlannedOperation operation) {
        TypeName future = TypeName.ofLibrary("java.util.concurrent.CompletableFuture");
        file.gap()
                .doc(
                        JavaText.comment(operation.documentation()),
                        "Does not wait: the future fails as {@code " + operation.method()
                                + "} does, and can be cancelled.");
        file.block(
                "public $T<$T> $N($L)",
                future,
                signatures.boxedResult(operation),
                operation.asyncMethod(),
                signatures.parameters(operation));
        Code output = operation.output() == null
                ? Code.of("null")
                : Code.of("new $T()", signatures.messages(operation.output()));
        Code result = isVoid(operation)
                ? Code.of("output -> null")
                : Code.of("$T::result", signatures.messages(operation.output()));
        file.line(
                "return this.connection.callLater($L, $L, $L, $L);",
                action(operation),
                made(operation),
                output,
                result);
        file.close();
    }
}
