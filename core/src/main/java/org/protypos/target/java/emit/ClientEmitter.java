package org.protypos.target.java.emit;

import java.util.stream.Collectors;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
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
        this.signatures = new InterfaceEmitter.Signatures(context, file, type, false);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type) {
        JavaFile file = context.file(type, type.client());
        new ClientEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        String api = file.ref(type.packageName(), type.name());
        String connection = context.soap(file, connection());
        file.doc("Calls a service that offers {@code " + type.name()
                + "}. Each operation can also be called without waiting. Safe for use by several threads.");
        file.block("public final class ", type.client(), " implements ", api);
        file.line("private final ", connection, " connection;");
        file.gap();
        file.block("private ", type.client(), "(", connection, " connection)");
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

    private void connecting(String api, String connection) {
        String settings = file.ref("java.util.function.UnaryOperator") + "<" + context.soap(file, "SoapSettings") + ">";
        String port = context.soap(file, type.isHttp() ? "HttpPort" : "SoapPort") + "<" + api + ">";
        String standard = defaultPort();
        if (standard != null) {
            file.gap().doc("Gives a client for the default port at the address in the contract.");
            file.block("public static ", type.client(), " connect()");
            file.line("return connect(", standard, ", with -> with);");
            file.close();
            file.gap()
                    .doc("Gives a client for the default port; {@code with} changes address, time limit and the like.");
            file.block("public static ", type.client(), " connect(", settings, " with)");
            file.line("return connect(", standard, ", with);");
            file.close();
        }
        file.gap().doc("Gives a client for a port at the address in the contract.");
        file.block("public static ", type.client(), " connect(", port, " port)");
        file.line("return connect(port, with -> with);");
        file.close();
        file.gap().doc("Gives a client for a port; {@code with} changes address, time limit and the like.");
        file.block("public static ", type.client(), " connect(", port, " port, ", settings, " with)");
        String registry = file.ref(context.plan().rootPackage(), context.plan().registry());
        file.line("return new ", type.client(), "(", connection, ".to(port, with, ", registry, ".INSTANCE));");
        file.close();
        file.gap()
                .doc("Gives a client that differs in some setting, for one call or more: address, headers and the like."
                        + " This one stays as it is.");
        file.block("public ", type.client(), " with(", settings, " with)");
        file.line("return new ", type.client(), "(this.connection.with(with));");
        file.close();
    }

    private String defaultPort() {
        for (PlannedService service : context.plan().services()) {
            for (PlannedService.Port port : service.ports()) {
                if (port.type() == type && port.isDefault()) {
                    return file.ref(service.packageName(), service.name()) + "." + port.constant();
                }
            }
        }
        return null;
    }

    private static boolean isVoid(PlannedOperation operation) {
        return operation.output() == null || operation.output().values().isEmpty();
    }

    /** The message of a request. */
    private String made(PlannedOperation operation) {
        return signatures.messages(operation.input()) + ".of(" + String.join(", ", operation.parameters()) + ")";
    }

    private String action(PlannedOperation operation) {
        return JavaText.literal(operation.method()) + ", "
                + JavaText.literal(type.isHttp() ? operation.location() : operation.soapAction());
    }

    private void call(PlannedOperation operation) {
        file.gap().doc(JavaText.comment(operation.documentation()));
        file.line("@Override");
        file.block("public ", signatures.method(operation));
        String output = "null";
        if (operation.output() != null) {
            String message = signatures.messages(operation.output());
            file.line(message, " output = new ", message, "();");
            output = "output";
        }
        String call = "(" + action(operation) + ", " + made(operation) + ", " + output + ");";
        if (operation.faults().isEmpty()) {
            file.line("this.connection.callPlain", call);
        } else {
            file.block("try");
            file.line("this.connection.call", call);
            String faults = operation.faults().stream()
                    .map(signatures::fault)
                    .distinct()
                    .collect(Collectors.joining(" | "));
            file.orElse("catch (" + faults + " e)");
            file.line("throw e;");
            file.orElse("catch (" + context.soap(file, "DeclaredFault") + " e)");
            file.line("throw ", context.soap(file, connection()), ".unexpected(e);");
            file.close();
        }
        if (!isVoid(operation)) {
            file.line("return output.result();");
        }
        file.close();
    }

    private void callLater(PlannedOperation operation) {
        String future = file.ref("java.util.concurrent.CompletableFuture");
        file.gap()
                .doc(
                        JavaText.comment(operation.documentation()),
                        "Does not wait: the future fails as {@code " + operation.method()
                                + "} does, and can be cancelled.");
        file.block(
                "public ",
                future,
                "<",
                signatures.boxedResult(operation),
                "> ",
                operation.asyncMethod(),
                "(",
                signatures.parameters(operation),
                ")");
        String output = operation.output() == null ? "null" : "new " + signatures.messages(operation.output()) + "()";
        String result = isVoid(operation) ? "output -> null" : signatures.messages(operation.output()) + "::result";
        file.line(
                "return this.connection.callLater(",
                action(operation),
                ", ",
                made(operation),
                ", ",
                output,
                ", ",
                result,
                ");");
        file.close();
    }
}
