package org.protypos.target.java.emit;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;
import org.protypos.wire.Recognition;

/** Writes the endpoint of an interface: it hands what comes in to an implementation and what that gives back out. */
public final class EndpointEmitter {
    private final JavaContext context;
    private final JavaFile file;
    private final PlannedInterface type;
    private final InterfaceEmitter.Signatures signatures;

    private EndpointEmitter(JavaContext context, JavaFile file, PlannedInterface type) {
        this.context = context;
        this.file = file;
        this.type = type;
        this.signatures = new InterfaceEmitter.Signatures(context, file, type, false);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type, String documents) {
        JavaFile file = context.file(type.packageName(), type.endpoint());
        new EndpointEmitter(context, file, type).write(documents);
        return file.finish();
    }

    private void write(String documents) {
        String api = file.ref(type.packageName(), type.name());
        file.doc("Serves an implementation of {@code " + type.name() + "}.");
        file.block(
                "public final class ",
                type.endpoint(),
                " extends ",
                context.soap(file, type.isHttp() ? "HttpEndpoint" : "SoapEndpoint"));
        file.line("private final ", api, " implementation;");
        file.gap();
        file.block("private ", type.endpoint(), "(", api, " implementation)");
        file.line("this.implementation = implementation;");
        file.close();
        file.gap().doc("Gives an endpoint that carries operations out by calling {@code implementation}.");
        file.block("public static ", type.endpoint(), " of(", api, " implementation)");
        file.line("return new ", type.endpoint(), "(implementation);");
        file.close();
        constant(
                context.xml(file, "XmlTypes"),
                "types",
                file.ref(context.plan().rootPackage(), context.plan().registry()) + ".INSTANCE");
        constant(
                context.soap(file, "ContractDocuments"),
                "documents",
                file.ref(context.plan().rootPackage(), documents) + ".documents()");
        constant("String", "portType", JavaText.literal(type.xmlName() + (type.isHttp() ? " HTTP" : "")));
        if (type.operations().stream().anyMatch(operation -> operation.input().encoded())) {
            constant("boolean", "isEncoded", "true");
        }
        if (context.plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .anyMatch(port -> port.type() == type && port.isOptimized())) {
            constant("boolean", "isOptimized", "true");
        }
        if (isAddressed()) {
            constant("boolean", "isAddressed", "true");
        }
        if (type.isHttp()) {
            locations();
        } else {
            input();
        }
        perform();
        for (PlannedOperation operation : type.operations()) {
            perform(operation);
        }
        file.close();
    }

    /** Whether all ports ask for addressing: a message does not say through which one it came. */
    private boolean isAddressed() {
        List<PlannedService.Port> ports = context.plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .filter(port -> port.type() == type)
                .toList();
        return !ports.isEmpty() && ports.stream().allMatch(PlannedService.Port::isAddressed);
    }

    private void constant(String result, String method, String value) {
        file.gap();
        file.line("@Override");
        file.block("protected ", result, " ", method, "()");
        file.line("return ", value, ";");
        file.close();
    }

    /** The operations of an HTTP binding, by number. */
    private void locations() {
        constant("String[]", "locations", strings(type.operations().stream().map(PlannedOperation::location)));
        constant("String[]", "verbs", strings(type.verbs().stream()));
        file.gap();
        file.line("@Override");
        file.block("protected ", context.soap(file, "SoapMessage"), " input(int operation)");
        file.block("switch (operation)");
        for (int i = 0; i < type.operations().size(); i++) {
            file.line(
                    "case ",
                    String.valueOf(i),
                    ": return new ",
                    signatures.messages(type.operations().get(i).input()),
                    "();");
        }
        file.line("default: throw new IllegalArgumentException(String.valueOf(operation));");
        file.close();
        file.close();
    }

    private static String strings(Stream<String> values) {
        return values.map(JavaText::literal).collect(Collectors.joining(", ", "new String[] {", "}"));
    }

    private void input() {
        String message = context.soap(file, "SoapMessage");
        file.gap();
        file.line("@Override");
        file.block("protected ", message, " input(String namespace, String name, String action)");
        if (type.operations().stream().anyMatch(one -> one.recognition().by() == Recognition.By.PARTS)) {
            String names =
                    file.ref("java.util.function", "Supplier") + "<" + file.ref("java.util", "List") + "<String>>";
            file.line("return input(namespace, name, action, ", file.ref("java.util", "List"), "::of);");
            file.close();
            file.gap();
            file.line("@Override");
            file.block(
                    "protected ", message, " input(String namespace, String name, String action, ", names, " parts)");
        }
        for (PlannedOperation operation : type.operations()) {
            file.block("if (", test(operation.recognition()), ")");
            file.line("return new ", signatures.messages(operation.input()), "();");
            file.close();
        }
        file.line("return null;");
        file.close();
    }

    /** The test that tells an operation: {@link Recognition#fits} as code. */
    private static String test(Recognition known) {
        String begins = known.beginnings().stream()
                .map(first -> "name.equals(" + JavaText.literal(first.getLocalPart()) + ") && namespace.equals("
                        + JavaText.literal(first.getNamespaceURI()) + ")")
                .collect(Collectors.joining(" || "));
        String acts = known.actions().stream()
                .map(action -> "action.equals(" + JavaText.literal(action) + ")")
                .collect(Collectors.joining(" || "));
        String either = known.beginnings().size() > 1 ? "(" + begins + ")" : begins;
        return switch (known.by()) {
            case ELEMENT -> begins;
            case BOTH -> either + " && (" + acts + ")";
            case PARTS ->
                either + " && (" + (acts.isEmpty() ? "" : acts + " || ") + "areParts(parts"
                        + known.parts().stream()
                                .map(part -> ", " + JavaText.literal(part))
                                .collect(Collectors.joining())
                        + "))";
            case ACTION -> acts + " || action.isEmpty() && " + either;
        };
    }

    private void perform() {
        String message = context.soap(file, "SoapMessage");
        file.gap();
        file.line("@Override");
        file.block("protected ", message, " perform(", message, " input) throws Exception");
        for (PlannedOperation operation : type.operations()) {
            file.block("if (input instanceof ", signatures.messages(operation.input()), " message)");
            file.line("return ", operation.method(), "(message);");
            file.close();
        }
        file.line("throw new IllegalArgumentException(input.getClass().getName());");
        file.close();
    }

    private void perform(PlannedOperation operation) {
        String result = operation.output() == null
                ? context.soap(file, "SoapMessage")
                : signatures.messages(operation.output());
        file.gap();
        file.block(
                "private ",
                result,
                " ",
                operation.method(),
                "(",
                signatures.messages(operation.input()),
                " input) throws Exception");
        String call = "this.implementation." + operation.method() + "("
                + String.join(", ", signatures.values(operation.input(), "input")) + ")";
        if (operation.output() == null) {
            file.line(call, ";");
            file.line("return null;");
        } else if (operation.output().values().isEmpty()) {
            file.line(call, ";");
            file.line("return ", result, ".of();");
        } else {
            file.line("return ", result, ".of(", call, ");");
        }
        file.close();
    }
}
