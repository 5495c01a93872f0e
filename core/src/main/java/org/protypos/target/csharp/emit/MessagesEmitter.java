package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;
import org.protypos.wire.WireMessage;

/** Writes the messages of an interface as they travel: what client and endpoint read and write. */
public final class MessagesEmitter {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final ReadingCode reading;
    private final WritingCode writing;
    private final Signatures signatures;
    private boolean first;

    private MessagesEmitter(CSharpContext context, CSharpFile file, PlannedInterface owner) {
        this.signatures = new Signatures(context, file, owner);
        this.context = context;
        this.file = file;
        this.types = new CSharpTypes(context, file);
        CSharpDialect dialect = new CSharpDialect(types, null);
        this.reading = new ReadingCode(context, file, dialect);
        this.writing = new WritingCode(context, file, dialect);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        Set<String> nested = new LinkedHashSet<>();
        for (PlannedOperation operation : type.operations()) {
            nested.add(operation.input().name());
            if (operation.output() != null) {
                nested.add(operation.output().name());
            }
        }
        CSharpFile file = context.file(type.packageName(), type.messages(), nested);
        MessagesEmitter emitter = new MessagesEmitter(context, file, type);
        file.doc("The messages of " + type.name() + " on the wire.");
        file.block("internal static class ", type.messages());
        boolean first = true;
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            emitter.message(operation.input(), operation, List.of());
            if (operation.output() != null) {
                file.gap();
                emitter.message(operation.output(), operation, operation.faults());
            }
        }
        file.close();
        return file.finish();
    }

    /**
     * The property that a part outside the body is kept in.
     *
     * @param part its number among {@link PlannedMessage#outside}
     */
    static String outside(PlannedMessage message, int part) {
        return message.outsideNames().get(part);
    }

    private void message(PlannedMessage message, PlannedOperation operation, List<PlannedFault> faults) {
        file.block("internal sealed class ", message.name(), " : ", context.runtime(file, "SoapMessage"));
        boolean any = false;
        if (message.body() != null) {
            file.line("internal ", types.of(message.body()), " Body { get; set; }");
            any = true;
        }
        for (int i = 0; i < message.outside().size(); i++) {
            if (any) {
                file.gap();
            }
            any = true;
            file.line("internal ", types.of(message.outside().get(i)), " ", outside(message, i), " { get; set; }");
        }
        first = !any;
        made(message, operation);
        if (!message.headers().isEmpty()) {
            headers(message);
        }
        if (message.encoded()) {
            constant("bool IsEncoded", "true");
        }
        form(message);
        if (!message.attachments().isEmpty()) {
            attachments(message);
        }
        actions(message, operation);
        if (message.body() != null) {
            body(message);
        }
        if (!faults.isEmpty()) {
            declared(faults);
        }
        file.close();
    }

    /** Writes what makes a message of the values that it carries, and takes these out again. */
    private void made(PlannedMessage message, PlannedOperation operation) {
        boolean input = message == operation.input();
        String result = input ? null : signatures.result(operation);
        // No parameter is called like this one.
        String local = input ? "input" : "output";
        List<String> values = Signatures.values(message, local);
        List<String> given = operation.parameters();
        if (!input) {
            List<String> names = operation.resultName() == null ? List.of() : Signatures.resultNames(operation);
            given = values.stream()
                    .map(value -> names.isEmpty() ? "result" : "result." + names.get(values.indexOf(value)))
                    .toList();
        }
        begin();
        String parameters = input ? signatures.parameters(operation) : result == null ? "" : result + " result";
        file.block("internal static ", message.name(), " Of(", parameters, ")");
        file.line(message.name(), " ", local, " = new ", message.name(), "();");
        if (message.wrapper() != null) {
            file.line(local, ".Body = new ", context.ref(file, message.wrapper()), "();");
        }
        for (int i = 0; i < values.size(); i++) {
            file.line(values.get(i), " = ", given.get(i), ";");
        }
        file.line("return ", local, ";");
        file.close();
        if (result != null) {
            String joined = String.join(", ", Signatures.values(message, "this"));
            begin();
            file.block("internal ", result, " Result()");
            file.line("return ", operation.resultName() == null ? joined : "new " + result + "(" + joined + ")", ";");
            file.close();
        }
    }

    private void begin() {
        if (!first) {
            file.gap();
        }
        first = false;
    }

    private void override(String signature) {
        begin();
        file.block("public override ", signature);
    }

    private void constant(String signature, String value) {
        override(signature);
        file.block("get");
        file.line("return ", value, ";");
        file.close();
        file.close();
    }

    private void form(PlannedMessage message) {
        String form =
                switch (message.form()) {
                    case ENVELOPE -> null;
                    case FIELDS -> "Fields";
                    case REPLACED -> "Replaced";
                    case DOCUMENT -> "Document";
                    case TEXT -> "Text";
                    case BYTES -> "Bytes";
                };
        if (form != null) {
            String type = context.runtime(file, "MessageForm");
            constant(type + " Form", type + "." + form);
        }
        if (message.form() == WireMessage.Form.TEXT) {
            constant(
                    "string TextPart",
                    CSharpText.literal(message.values().get(0).xmlName().getLocalPart()));
        }
    }

    private void attachments(PlannedMessage message) {
        int firstPart = message.headers().size();
        override("void WriteAttachments(" + context.runtime(file, "OutgoingPackage") + " output)");
        for (int i = 0; i < message.attachments().size(); i++) {
            String value = "this." + outside(message, firstPart + i);
            String type = message.mediaTypes().get(i);
            String declared = type.isEmpty() ? "" : ", " + CSharpText.literal(type);
            boolean guarded = message.form() != WireMessage.Form.ENVELOPE;
            if (guarded) {
                file.block("if (", value, " != null)");
            }
            file.line("output.Attach(", part(message, i), ", ", value, declared, ");");
            if (guarded) {
                file.close();
            }
        }
        file.close();
        override("void ReadAttachments(" + context.runtime(file, "AttachedParts") + " input)");
        for (int i = 0; i < message.attachments().size(); i++) {
            file.line("this.", outside(message, firstPart + i), " = input.Take(", part(message, i), ");");
        }
        file.close();
    }

    private static String part(PlannedMessage message, int attachment) {
        return CSharpText.literal(
                message.attachments().get(attachment).xmlName().getLocalPart());
    }

    private void actions(PlannedMessage message, PlannedOperation operation) {
        if (message.action() == null) {
            return;
        }
        constant("string Action", CSharpText.literal(message.action()));
        if (operation.output() == null) {
            constant("bool IsOneWay", "true");
        }
        if (message == operation.input() && !operation.faultActions().isEmpty()) {
            override("string FaultAction(" + context.runtime(file, "DeclaredFaultException") + " fault)");
            for (int i = 0; i < operation.faults().size(); i++) {
                PlannedFault fault = operation.faults().get(i);
                file.block("if (fault is ", file.contractType(fault.packageName(), fault.name()), ")");
                file.line("return ", CSharpText.literal(operation.faultActions().get(i)), ";");
                file.close();
            }
            file.line("return null;");
            file.close();
        }
    }

    private void headers(PlannedMessage message) {
        String any = IntStream.range(0, message.headers().size())
                .mapToObj(i -> "this." + outside(message, i) + " != null")
                .collect(Collectors.joining(" || "));
        constant("bool HasHeaders", any);
        override("void WriteHeaders(" + context.runtime(file, "XmlOutput") + " output)");
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            String value = "this." + outside(message, i);
            file.block("if (", value, " != null)");
            writing.writeElement(header, CSharpDialect.writable(header, value));
            file.close();
        }
        file.close();
        override("bool TakeHeader(" + context.runtime(file, "XmlElement") + "<" + context.runtime(file, "XmlObject")
                + "> block)");
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            String found = "found";
            file.block(
                    "if (block.Name == ",
                    types.xname(
                            header.xmlName().getNamespaceURI(), header.xmlName().getLocalPart()),
                    ")");
            String wanted = content(header.type());
            file.line(wanted, " ", found, " = block.Value as ", wanted, ";");
            file.block("if (", found, " != null)");
            String into = "this." + outside(message, i);
            take(header.type(), found, value -> file.line(into, " = ", value, ";")
                    .line("return true;"));
            file.close();
            file.close();
        }
        file.line("return false;");
        file.close();
    }

    /** The type of what an element holds that was read by its name alone. */
    private String content(ValueType type) {
        return type instanceof ValueType.Structured structured
                ? context.ref(file, structured.type())
                : context.runtime(file, type instanceof ValueType.Anything ? "XmlTree" : "XmlSimple");
    }

    /** Writes what takes the value out of an element that was read by its name alone, and goes on when there is one. */
    private void take(ValueType type, String found, Consumer<String> then) {
        if (type instanceof ValueType.Enumerated enumerated) {
            String name = context.ref(file, enumerated.type());
            file.line(name, " ", found, "Value;");
            file.block(
                    "if (",
                    context.registry(file),
                    ".Find(",
                    context.statics(file, "Lexical"),
                    ".Collapse(",
                    found,
                    ".Text), out ",
                    found,
                    "Value))");
            then.accept(found + "Value");
            file.close();
            return;
        }
        if (type instanceof ValueType.Items items && items.item() instanceof ValueType.Enumerated enumerated) {
            takeAll(enumerated, found, then);
            return;
        }
        then.accept(unwrap(type, found));
    }

    /** Takes a list of named values, if all of them are known. */
    private void takeAll(ValueType.Enumerated enumerated, String found, Consumer<String> then) {
        String name = context.ref(file, enumerated.type());
        String all = found + "Values";
        file.line(types.list(name), " ", all, " = new ", types.list(name), "();");
        file.line("bool ", found, "Known = true;");
        file.block("foreach (string item in ", found, ".ValuesOf<string>())");
        file.line(name, " itemValue;");
        file.line(found, "Known &= ", context.registry(file), ".Find(item, out itemValue);");
        file.line(all, ".Add(itemValue);");
        file.close();
        file.block("if (", found, "Known)");
        then.accept(all);
        file.close();
    }

    /** The expression for the value in an element that was read by its name alone. */
    private String unwrap(ValueType type, String found) {
        if (type instanceof ValueType.Scalar scalar) {
            return scalar.kind() == ScalarKind.STRING
                    ? found + ".Text"
                    : scalar.kind() == ScalarKind.ATTACHMENT
                            ? context.statics(file, "Attachment") + ".Of((byte[])" + found + ".Value)"
                            : "(" + types.object(type) + ")" + found + ".Value";
        }
        if (type instanceof ValueType.Items items) {
            return found + ".ValuesOf<" + types.object(items.item()) + ">()";
        }
        if (type instanceof ValueType.Anything) {
            return found + ".Element";
        }
        return found;
    }

    private void body(PlannedMessage message) {
        Property body = message.body();
        boolean group = body.kind() == Member.Kind.GROUP;
        override("void WriteBody(" + context.runtime(file, "XmlOutput") + " output)");
        if (CSharpTypes.isAlwaysThere(body)) {
            writing.writeElement(body, "this.Body");
        } else {
            file.block("if (this.Body != null)");
            if (group) {
                file.line("output.Group(this.Body);");
            } else {
                writing.writeElement(body, CSharpDialect.writable(body, "this.Body"));
            }
            if (body.nillable()) {
                file.orElse("else");
                file.line("output.Nil(", CSharpTypes.name(body), ");");
            }
            file.close();
        }
        file.close();
        override("void ReadBody(" + context.runtime(file, "XmlInput") + " input)");
        if (group) {
            file.line("this.Body = input.Group(new ", types.of(body), "());");
            file.close();
            return;
        }
        if (message.anyWrapper()) {
            file.line("input.DemandAny(", CSharpText.literal(body.xmlName().getLocalPart()), ");");
        } else {
            file.line("input.Demand(", CSharpTypes.name(body), ");");
        }
        String value = reading.element(body);
        if (body.nillable()) {
            file.block("if (!", reading.takeNil(body.type()), ")");
            file.line("this.Body = ", value, ";");
            file.close();
        } else {
            file.line("this.Body = ", value, ";");
        }
        file.close();
    }

    private void declared(List<PlannedFault> faults) {
        override(context.runtime(file, "DeclaredFaultException") + " Declared(" + context.runtime(file, "SoapFault")
                + " fault)");
        List<String> named = new ArrayList<>();
        for (PlannedFault fault : faults) {
            String found = FreeName.beside(
                    named, CSharpNames.field(fault.name().replaceFirst("(?<=.)Exception$", "")) + "Detail");
            named.add(found);
            String wanted = content(fault.detail().type());
            String exception = file.contractType(fault.packageName(), fault.name());
            file.line(wanted, " ", found, " = fault.DetailOf<", wanted, ">(", CSharpTypes.name(fault.detail()), ");");
            file.block("if (", found, " != null)");
            take(fault.detail().type(), found, detail -> file.line("return new ", exception, "(fault, ", detail, ");"));
            file.close();
        }
        file.line("return null;");
        file.close();
    }
}
