package org.protypos.target.java.emit;

import java.util.List;
import java.util.stream.Stream;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
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
        this.signatures = new InterfaceEmitter.Signatures(context, type, false);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type, String documents) {
        JavaFile file = context.file(type.packageName(), type.endpoint());
        new EndpointEmitter(context, file, type).write(documents);
        return file.finish();
    }

    private void write(String documents) {
        TypeName api = TypeName.ofContract(type.packageName(), type.name());
        file.doc("Serves an implementation of {@code " + type.name() + "}.");
        file.block(
                "public final class $N extends $T",
                type.endpoint(),
                context.soap(type.isHttp() ? "HttpEndpoint" : "SoapEndpoint"));
        file.line("private final $T implementation;", api);
        file.gap();
        file.block("private $N($T implementation)", type.endpoint(), api);
        file.line("this.implementation = implementation;");
        file.close();
        file.gap().doc("Gives an endpoint that carries operations out by calling {@code implementation}.");
        file.block("public static $N of($T implementation)", type.endpoint(), api);
        file.line("return new $N(implementation);", type.endpoint());
        file.close();
        constant(Code.of(context.xml("XmlTypes")), "types", Code.of("$T.INSTANCE", context.registry()));
        constant(
                Code.of(context.soap("ContractDocuments")),
                "documents",
                Code.of("$T.documents()", TypeName.ofContract(context.plan().rootPackage(), documents)));
        constant(Code.of("String"), "portType", Code.of("$S", type.xmlName() + (type.isHttp() ? " HTTP" : "")));
        if (type.operations().stream().anyMatch(operation -> operation.input().encoded())) {
            truth("isEncoded");
        }
        if (context.plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .anyMatch(port -> port.type() == type && port.isOptimized())) {
            truth("isOptimized");
        }
        if (isAddressed()) {
            truth("isAddressed");
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
        return !ports.isEmpty() && ports.stream().allMatch(PlannedService.Port::isAddressNeeded);
    }

    private void truth(String method) {
        constant(Code.of("boolean"), method, Code.of("true"));
    }

    private void constant(Code result, String method, Code value) {
        file.gap();
        file.line("@Override");
        file.block("protected $T $N()", result, method);
        file.line("return $L;", value);
        file.close();
    }

    /** The operations of an HTTP binding, by number. */
    private void locations() {
        List<PlannedInterface.Located> located = type.located();
        strings(
                "locations",
                located.stream().map(PlannedInterface.Located::location).toList());
        strings("verbs", type.verbs());
        file.gap();
        file.line("@Override");
        file.block("protected $T input(int operation)", context.soap("SoapMessage"));
        file.block("switch (operation)");
        for (int i = 0; i < located.size(); i++) {
            file.line(
                    "case $L: return new $T();",
                    i,
                    signatures.messages(located.get(i).operation().input()));
        }
        file.line("default: throw new IllegalArgumentException(String.valueOf(operation));");
        file.close();
        file.close();
    }

    private void strings(String method, List<String> values) {
        constant(Code.of("String[]"), method, Code.of("new String[] {$L}", Code.literals(values)));
    }

    private void input() {
        TypeName message = context.soap("SoapMessage");
        file.gap();
        file.line("@Override");
        file.block("protected $T input(String namespace, String name, String action)", message);
        if (type.operations().stream().anyMatch(one -> one.recognition().by() == Recognition.By.PARTS)) {
            TypeName list = TypeName.ofLibrary("java.util.List");
            TypeName supplier = TypeName.ofLibrary("java.util.function.Supplier");
            file.line("return input(namespace, name, action, $T::of);", list);
            file.close();
            file.gap();
            file.line("@Override");
            file.block(
                    "protected $T input(String namespace, String name, String action, $T<$T<String>> parts)",
                    message,
                    supplier,
                    list);
        }
        for (PlannedOperation operation : type.operations()) {
            file.block("if ($L)", test(operation.recognition()));
            file.line("return new $T();", signatures.messages(operation.input()));
            file.close();
        }
        file.line("return null;");
        file.close();
    }

    /** The test that tells an operation: {@link Recognition#fits} as code. */
    private static Code test(Recognition known) {
        Code begins = any(known.beginnings().stream()
                .map(first -> Code.of(
                        "name.equals($S) && namespace.equals($S)", first.getLocalPart(), first.getNamespaceURI())));
        Code acts = any(known.actions().stream().map(action -> Code.of("action.equals($S)", action)));
        Code either = known.beginnings().size() > 1 ? Code.of("($L)", begins) : begins;
        return switch (known.by()) {
            case ELEMENT -> begins;
            case BOTH -> Code.of("$L && ($L)", either, acts);
            case OTHERWISE -> Code.of("$L && !($L)", either, acts);
            case PARTS ->
                Code.of(
                        acts.isEmpty() ? "$L && ($LareParts(parts$L))" : "$L && ($L || areParts(parts$L))",
                        either,
                        acts,
                        Code.join(
                                "",
                                known.parts().stream()
                                        .map(part -> Code.of(", $S", part))
                                        .toList()));
            case ACTION -> Code.of("$L || action.isEmpty() && $L", acts, either);
        };
    }

    private static Code any(Stream<Code> tests) {
        return Code.join(" || ", tests.toList());
    }

    private void perform() {
        TypeName message = context.soap("SoapMessage");
        file.gap();
        file.line("@Override");
        file.block("protected $T perform($T input) throws Exception", message, message);
        for (PlannedOperation operation : type.operations()) {
            file.block("if (input instanceof $T message)", signatures.messages(operation.input()));
            file.line("return $N(message);", operation.method());
            file.close();
        }
        file.line("throw new IllegalArgumentException(input.getClass().getName());");
        file.close();
    }

    private void perform(PlannedOperation operation) {
        Code result = operation.output() == null
                ? Code.of(context.soap("SoapMessage"))
                : signatures.messages(operation.output());
        file.gap();
        file.block(
                "private $T $N($T input) throws Exception",
                result,
                operation.method(),
                signatures.messages(operation.input()));
        Code call = Code.of(
                "this.implementation.$N($L)",
                operation.method(),
                Code.join(", ", signatures.values(operation.input(), "input")));
        if (operation.output() == null) {
            file.line("$L;", call);
            file.line("return null;");
        } else if (operation.output().values().isEmpty()) {
            file.line("$L;", call);
            file.line("return $T.of();", result);
        } else {
            file.line("return $T.of($L);", result, call);
        }
        file.close();
    }
}
