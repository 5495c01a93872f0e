package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;
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
        this.signatures = new Signatures(context, file, type);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type, type.endpoint(), MEMBERS);
        new EndpointEmitter(context, file, type).write();
        return file.finish();
    }

    private void write() {
        String api = file.contractType(type.packageName(), type.name());
        file.doc("Serves an implementation of <see cref=\"" + api + "\"/>.");
        file.block(
                "public sealed class ",
                type.endpoint(),
                " : ",
                context.runtime(file, type.isHttp() ? "HttpEndpoint" : "SoapEndpoint"));
        file.line("private readonly ", api, " implementation;");
        file.gap().doc("An endpoint that carries operations out by calling an implementation.");
        file.block("public ", type.endpoint(), "(", api, " implementation)");
        file.line("this.implementation = implementation;");
        file.close();
        constant(context.runtime(file, "XmlTypes"), "Types", context.registry(file) + ".Instance");
        String documents =
                file.contractType(context.plan().rootPackage(), context.plan().publication());
        constant(context.runtime(file, "ContractDocuments"), "Documents", documents + ".Documents()");
        constant("string", "PortType", CSharpText.literal(type.xmlName() + (type.isHttp() ? " HTTP" : "")));
        List<PlannedService.Port> ports = context.plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .filter(port -> port.type() == type)
                .toList();
        if (type.operations().stream().anyMatch(operation -> operation.input().encoded())) {
            constant("bool", "IsEncoded", "true");
        }
        if (ports.stream().anyMatch(PlannedService.Port::isOptimized)) {
            constant("bool", "IsOptimized", "true");
        }
        // A message does not say through which port it came.
        if (!ports.isEmpty() && ports.stream().allMatch(PlannedService.Port::isAddressed)) {
            constant("bool", "IsAddressed", "true");
        }
        if (type.isHttp()) {
            locations();
        } else {
            input();
        }
        perform();
        file.close();
    }

    private void constant(String result, String name, String value) {
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override ", result, " ", name);
        file.block("get");
        file.line("return ", value, ";");
        file.close();
        file.close();
    }

    /** The operations of an HTTP binding, by number. */
    private void locations() {
        constant("string[]", "Locations", strings(type.operations().stream().map(PlannedOperation::location)));
        constant("string[]", "Verbs", strings(type.verbs().stream()));
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override ", context.runtime(file, "SoapMessage"), " Input(int operation)");
        file.block("switch (operation)");
        for (int i = 0; i < type.operations().size(); i++) {
            file.line("case ", String.valueOf(i), ":");
            file.line(
                    "    return new ",
                    signatures.messages(type.operations().get(i).input()),
                    "();");
        }
        file.line("default:");
        file.line("    throw new ", file.type("System", "ArgumentOutOfRangeException"), "(\"operation\");");
        file.close();
        file.close();
    }

    private static String strings(Stream<String> values) {
        return values.map(CSharpText::literal).collect(Collectors.joining(", ", "new[] { ", " }"));
    }

    private void input() {
        String names =
                file.type("System", "Func") + "<" + file.type("System.Collections.Generic", "ISet") + "<string>>";
        file.gap().line("/// <inheritdoc/>");
        file.block(
                "protected override ",
                context.runtime(file, "SoapMessage"),
                " Input(string space, string name, string action, ",
                names,
                " parts)");
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
        List<String> beginnings = known.beginnings().stream()
                .map(first -> "name == " + CSharpText.literal(first.getLocalPart()) + " && space == "
                        + CSharpText.literal(first.getNamespaceURI()))
                .toList();
        boolean several = beginnings.size() > 1;
        String begins =
                beginnings.stream().map(one -> several ? "(" + one + ")" : one).collect(Collectors.joining(" || "));
        String acts = known.actions().stream()
                .map(action -> "action == " + CSharpText.literal(action))
                .collect(Collectors.joining(" || "));
        String either = several ? "(" + begins + ")" : begins;
        return switch (known.by()) {
            case ELEMENT -> begins;
            case BOTH -> either + " && (" + acts + ")";
            case PARTS ->
                either + " && (" + (acts.isEmpty() ? "" : acts + " || ") + "parts().SetEquals(new string[] { "
                        + CSharpTypes.literals(new ArrayList<>(known.parts())) + " }))";
            case ACTION -> acts + " || (action.Length == 0 && " + either + ")";
        };
    }

    private void perform() {
        String message = context.runtime(file, "SoapMessage");
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override ", message, " Perform(", message, " input)");
        for (PlannedOperation operation : type.operations()) {
            String variable = CSharpNames.field(operation.input().name());
            String kind = signatures.messages(operation.input());
            file.line(kind, " ", variable, " = input as ", kind, ";");
            file.block("if (", variable, " != null)");
            perform(operation, variable);
            file.close();
        }
        file.line("throw new ", file.type("System", "ArgumentException"), "(input.GetType().Name);");
        file.close();
    }

    private void perform(PlannedOperation operation, String input) {
        String call = "this.implementation." + operation.method() + "("
                + String.join(", ", Signatures.values(operation.input(), input)) + ")";
        if (Signatures.isVoid(operation)) {
            file.line(call, ";");
        }
        if (operation.output() == null) {
            file.line("return null;");
        } else {
            file.line(
                    "return ",
                    signatures.staticMessages(operation.output()),
                    ".Of(",
                    Signatures.isVoid(operation) ? "" : call,
                    ");");
        }
    }
}
