package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.wire.Recognition;

/** Writes the endpoint of an interface: it hands what comes in to an implementation and what that gives back out. */
public final class EndpointEmitter {
    private static final Set<String> MEMBERS = Set.of(
            "Types",
            "Documents",
            "PortType",
            "IsEncoded",
            "IsOptimized",
            "IsAddressed",
            "Input",
            "Perform",
            "Locations",
            "Verbs",
            "Limits",
            "Serves",
            "Failed",
            "PassedOver",
            "AttachmentLimit");

    private final CSharpContext context;
    private final CSharpFile file;
    private final PlannedInterface type;
    private final Signatures signatures;

    private EndpointEmitter(CSharpContext context, CSharpFile file, PlannedInterface type) {
        this.context = context;
        this.file = file;
        this.type = type;
        this.signatures = new Signatures(context, type);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type, type.endpoint(), MEMBERS);
        new EndpointEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        TypeName api = TypeName.ofContract(type.packageName(), type.name());
        file.doc("Serves an implementation of <see cref=\"" + file.reference(api) + "\"/>.");
        file.block(
                "public sealed class $N : $T",
                type.endpoint(),
                context.runtime(type.isHttp() ? "HttpEndpoint" : "SoapEndpoint"));
        file.line("private readonly $T implementation;", api);
        file.gap().doc("An endpoint that carries operations out by calling an implementation.");
        file.block("public $N($T implementation)", type.endpoint(), api);
        file.line("this.implementation = implementation;");
        file.close();
        constant(Code.of(context.runtime("XmlTypes")), "Types", Code.of("$T.Instance", context.registry()));
        TypeName documents =
                TypeName.ofContract(context.plan().rootPackage(), context.plan().publication());
        constant(Code.of(context.runtime("ContractDocuments")), "Documents", Code.of("$T.Documents()", documents));
        constant(Code.of("string"), "PortType", Code.of("$S", type.xmlName() + (type.isHttp() ? " HTTP" : "")));
        List<PlannedService.Port> ports = context.plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .filter(port -> port.type() == type)
                .toList();
        if (type.operations().stream().anyMatch(operation -> operation.input().encoded())) {
            truth("IsEncoded");
        }
        if (ports.stream().anyMatch(PlannedService.Port::isOptimized)) {
            truth("IsOptimized");
        }
        // A message does not say through which port it came.
        if (!ports.isEmpty() && ports.stream().allMatch(PlannedService.Port::isAddressNeeded)) {
            truth("IsAddressed");
        }
        if (type.isHttp()) {
            locations();
        } else {
            input();
        }
        perform();
        file.close();
    }

    private void truth(String name) {
        constant(Code.of("bool"), name, Code.of("true"));
    }

    private void constant(Code result, String name, Code value) {
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override $T $N", result, name);
        file.block("get");
        file.line("return $L;", value);
        file.close();
        file.close();
    }

    /** The operations of an HTTP binding, by number. */
    private void locations() {
        List<PlannedInterface.Located> located = type.located();
        strings(
                "Locations",
                located.stream().map(PlannedInterface.Located::location).toList());
        strings("Verbs", type.verbs());
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override $T Input(int operation)", context.runtime("SoapMessage"));
        file.block("switch (operation)");
        for (int i = 0; i < located.size(); i++) {
            file.line("case $L:", i);
            file.line(
                    "    return new $T();",
                    signatures.messages(located.get(i).operation().input()));
        }
        file.line("default:");
        file.line("    throw new $T(\"operation\");", TypeName.ofLibrary("System", "ArgumentOutOfRangeException"));
        file.close();
        file.close();
    }

    private void strings(String name, List<String> values) {
        constant(Code.of("string[]"), name, Code.of("new[] { $L }", Code.literals(values)));
    }

    private void input() {
        Code names = Code.of(
                "$T<$T<string>>",
                TypeName.ofLibrary("System", "Func"),
                TypeName.ofLibrary("System.Collections.Generic", "ISet"));
        file.gap().line("/// <inheritdoc/>");
        file.block(
                "protected override $T Input(string space, string name, string action, $T parts)",
                context.runtime("SoapMessage"),
                names);
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
        List<Code> beginnings = known.beginnings().stream()
                .map(first -> Code.of("name == $S && space == $S", first.getLocalPart(), first.getNamespaceURI()))
                .toList();
        boolean several = beginnings.size() > 1;
        Code begins = Code.join(
                " || ",
                beginnings.stream()
                        .map(one -> several ? Code.of("($L)", one) : one)
                        .toList());
        Code acts = Code.join(
                " || ",
                known.actions().stream()
                        .map(action -> Code.of("action == $S", action))
                        .toList());
        Code either = several ? Code.of("($L)", begins) : begins;
        return switch (known.by()) {
            case ELEMENT -> begins;
            case BOTH -> Code.of("$L && ($L)", either, acts);
            case OTHERWISE -> Code.of("$L && !($L)", either, acts);
            case PARTS ->
                Code.of(
                        acts.isEmpty()
                                ? "$L && ($Lparts().SetEquals(new string[] { $L }))"
                                : "$L && ($L || parts().SetEquals(new string[] { $L }))",
                        either,
                        acts,
                        Code.literals(new ArrayList<>(known.parts())));
            case ACTION -> Code.of("$L || (action.Length == 0 && $L)", acts, either);
        };
    }

    private void perform() {
        TypeName message = context.runtime("SoapMessage");
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override $T Perform($T input)", message, message);
        for (PlannedOperation operation : type.operations()) {
            String variable = CSharpNames.field(operation.input().name());
            Code kind = signatures.messages(operation.input());
            file.line("$T $N = input as $T;", kind, variable, kind);
            file.block("if ($N != null)", variable);
            perform(operation, variable);
            file.close();
        }
        file.line("throw new $T(input.GetType().Name);", TypeName.ofLibrary("System", "ArgumentException"));
        file.close();
    }

    private void perform(PlannedOperation operation, String input) {
        Code call = Code.of(
                "this.implementation.$N($L)",
                operation.method(),
                Code.join(", ", Signatures.values(operation.input(), input)));
        if (Signatures.isVoid(operation)) {
            file.line("$L;", call);
        }
        if (operation.output() == null) {
            file.line("return null;");
        } else {
            file.line(
                    "return $T.Of($L);",
                    signatures.staticMessages(operation.output()),
                    Signatures.isVoid(operation) ? Code.NONE : call);
        }
    }
}
