package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.protypos.api.type.Member;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpTypes;
import org.protypos.wire.WireMessage;

/** Writes the messages of an interface as they travel: what client and endpoint read and write. */
public final class MessagesEmitter {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final CSharpDialect dialect;
    private final ReadingCode reading;
    private final WritingCode writing;
    private final Signatures signatures;
    private boolean first;

    private MessagesEmitter(CSharpContext context, CSharpFile file, PlannedInterface owner) {
        this.signatures = new Signatures(context, owner);
        this.context = context;
        this.file = file;
        this.types = context.types();
        this.dialect = new CSharpDialect(types, null);
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
        file.block("internal static class $N", type.messages());
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
        file.block("internal sealed class $N : $T", message.name(), context.runtime("SoapMessage"));
        boolean any = false;
        if (message.body() != null) {
            file.line("internal $T Body { get; set; }", types.of(message.body()));
            any = true;
        }
        for (int i = 0; i < message.outside().size(); i++) {
            if (any) {
                file.gap();
            }
            any = true;
            file.line("internal $T $N { get; set; }", types.of(message.outside().get(i)), outside(message, i));
        }
        first = !any;
        made(message, operation);
        if (!message.headers().isEmpty()) {
            headers(message);
        }
        if (message.encoded()) {
            constant("bool IsEncoded", Code.of("true"));
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
        Code result = input ? null : signatures.result(operation);
        // No parameter is called like this one.
        String local = input ? "input" : "output";
        List<Code> values = Signatures.values(message, local);
        List<Code> given;
        if (input) {
            given = operation.parameters().stream()
                    .map(name -> Code.of("$N", name))
                    .toList();
        } else if (operation.resultName() == null) {
            given = values.stream().map(value -> Code.of("result")).toList();
        } else {
            given = Signatures.resultNames(operation).stream()
                    .map(name -> Code.of("result.$N", name))
                    .toList();
        }
        begin();
        Code none = result == null ? Code.NONE : Code.of("$T result", result);
        Code parameters = input ? signatures.parameters(operation) : none;
        file.block("internal static $N Of($L)", message.name(), parameters);
        file.line("$N $N = new $N();", message.name(), local, message.name());
        if (message.wrapper() != null) {
            file.line("$N.Body = new $T();", local, context.ref(message.wrapper()));
        }
        for (int i = 0; i < values.size(); i++) {
            file.line("$L = $L;", values.get(i), given.get(i));
        }
        file.line("return $N;", local);
        file.close();
        if (result != null) {
            Code joined = Code.join(", ", Signatures.values(message, "this"));
            begin();
            file.block("internal $T Result()", result);
            file.line("return $L;", operation.resultName() == null ? joined : Code.of("new $T($L)", result, joined));
            file.close();
        }
    }

    private void begin() {
        if (!first) {
            file.gap();
        }
        first = false;
    }

    private void override(String template, Object... arguments) {
        begin();
        file.block("public override " + template, arguments);
    }

    private void constant(String signature, Code value) {
        override(signature);
        value(value);
    }

    private void value(Code value) {
        file.block("get");
        file.line("return $L;", value);
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
            TypeName type = context.runtime("MessageForm");
            override("$T Form", type);
            value(Code.of("$T.$N", type, form));
        }
        if (message.form() == WireMessage.Form.TEXT) {
            constant(
                    "string TextPart",
                    Code.of("$S", message.values().get(0).xmlName().getLocalPart()));
        }
    }

    private void attachments(PlannedMessage message) {
        int firstPart = message.headers().size();
        override("void WriteAttachments($T output)", context.runtime("OutgoingPackage"));
        for (int i = 0; i < message.attachments().size(); i++) {
            Code value = Code.of("this.$N", outside(message, firstPart + i));
            String type = message.mediaTypes().get(i);
            Code declared = type.isEmpty() ? Code.NONE : Code.of(", $S", type);
            boolean guarded = message.form() != WireMessage.Form.ENVELOPE;
            if (guarded) {
                file.block("if ($L != null)", value);
            }
            file.line("output.Attach($L, $L$L);", part(message, i), value, declared);
            if (guarded) {
                file.close();
            }
        }
        file.close();
        override("void ReadAttachments($T input)", context.runtime("AttachedParts"));
        for (int i = 0; i < message.attachments().size(); i++) {
            file.line("this.$N = input.Take($L);", outside(message, firstPart + i), part(message, i));
        }
        file.close();
    }

    private static Code part(PlannedMessage message, int attachment) {
        return Code.of("$S", message.attachments().get(attachment).xmlName().getLocalPart());
    }

    private void actions(PlannedMessage message, PlannedOperation operation) {
        if (message.action() == null) {
            return;
        }
        constant("string Action", Code.of("$S", message.action()));
        if (operation.output() == null) {
            constant("bool IsOneWay", Code.of("true"));
        }
        if (message == operation.input() && !operation.faultActions().isEmpty()) {
            override("string FaultAction($T fault)", context.runtime("DeclaredFaultException"));
            for (int i = 0; i < operation.faults().size(); i++) {
                PlannedFault fault = operation.faults().get(i);
                file.block("if (fault is $T)", TypeName.ofContract(fault.packageName(), fault.name()));
                file.line("return $S;", operation.faultActions().get(i));
                file.close();
            }
            file.line("return null;");
            file.close();
        }
    }

    private void headers(PlannedMessage message) {
        List<Code> any = IntStream.range(0, message.headers().size())
                .mapToObj(i -> Code.of("this.$N != null", outside(message, i)))
                .toList();
        constant("bool HasHeaders", Code.join(" || ", any));
        override("void WriteHeaders($T output)", context.runtime("XmlOutput"));
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            Code value = Code.of("this.$N", outside(message, i));
            file.block("if ($L != null)", value);
            writing.writeElement(header, CSharpDialect.writable(header, value));
            file.close();
        }
        file.close();
        override("bool TakeHeader($T<$T> block)", context.runtime("XmlElement"), context.runtime("XmlObject"));
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            String found = "found";
            file.block(
                    "if (block.Name == $L)",
                    CSharpTypes.xname(
                            header.xmlName().getNamespaceURI(), header.xmlName().getLocalPart()));
            TypeName wanted = content(header.type());
            file.line("$T $N = block.Value as $T;", wanted, found, wanted);
            file.block("if ($N != null)", found);
            Code into = Code.of("this.$N", outside(message, i));
            take(header, found, value -> file.line("$L = $L;", into, value).line("return true;"));
            file.close();
            file.close();
        }
        file.line("return false;");
        file.close();
    }

    /** The type of what an element holds that was read by its name alone. */
    private TypeName content(ValueType type) {
        return type instanceof ValueType.Structured structured
                ? context.ref(structured.type())
                : context.runtime(type instanceof ValueType.Anything ? "XmlTree" : "XmlSimple");
    }

    /** Writes what takes the value out of an element that was read by its name alone, and goes on when there is one. */
    private void take(Property property, String found, Consumer<Code> then) {
        ValueType type = property.type();
        // What an empty element stands for is its value, not its text.
        Code text = Code.of(property.defaultValue() == null ? "$N.Text" : "(string)$N.Value", found);
        if (type instanceof ValueType.Enumerated enumerated) {
            String value = found + "Value";
            file.line("$T $N;", context.ref(enumerated.type()), value);
            file.block(
                    "if ($T.Find($T.Collapse($L), out $N))",
                    context.registry(),
                    context.runtime("Lexical").members(),
                    text,
                    value);
            then.accept(Code.of("$N", value));
            file.close();
            return;
        }
        if (type instanceof ValueType.Items items && items.item() instanceof ValueType.Enumerated enumerated) {
            takeAll(enumerated, found, then);
            return;
        }
        then.accept(unwrap(type, found, text));
    }

    /** Takes a list of named values, if all of them are known. */
    private void takeAll(ValueType.Enumerated enumerated, String found, Consumer<Code> then) {
        TypeName name = context.ref(enumerated.type());
        Code list = types.list(Code.of(name));
        String all = found + "Values";
        String known = found + "Known";
        file.line("$T $N = new $T();", list, all, list);
        file.line("bool $N = true;", known);
        file.block("foreach (string item in $N.ValuesOf<string>())", found);
        file.line("$T itemValue;", name);
        file.line("$N &= $T.Find(item, out itemValue);", known, context.registry());
        file.line("$N.Add(itemValue);", all);
        file.close();
        file.block("if ($N)", known);
        then.accept(Code.of("$N", all));
        file.close();
    }

    /** The expression for the value in an element that was read by its name alone. */
    private Code unwrap(ValueType type, String found, Code text) {
        if (type instanceof ValueType.Scalar scalar) {
            return switch (scalar.kind()) {
                case STRING -> text;
                case ATTACHMENT ->
                    Code.of(
                            "$T.Of((byte[])$N.Value)",
                            context.runtime("Attachment").members(),
                            found);
                default -> Code.of("($T)$N.Value", types.object(type), found);
            };
        }
        if (type instanceof ValueType.Items items) {
            return Code.of("$N.ValuesOf<$T>()", found, types.object(items.item()));
        }
        return Code.of(type instanceof ValueType.Anything ? "$N.Element" : "$N", found);
    }

    private void body(PlannedMessage message) {
        Property body = message.body();
        boolean group = body.kind() == Member.Kind.GROUP;
        override("void WriteBody($T output)", context.runtime("XmlOutput"));
        if (CSharpTypes.isAlwaysThere(body)) {
            writing.writeElement(body, Code.of("this.Body"));
        } else {
            file.block("if (this.Body != null)");
            if (group) {
                file.line("output.Group(this.Body);");
            } else {
                writing.writeElement(body, CSharpDialect.writable(body, Code.of("this.Body")));
            }
            if (body.nillable()) {
                file.orElse("else");
                file.line("output.Nil($L);", dialect.name(body));
            }
            file.close();
        }
        file.close();
        override("void ReadBody($T input)", context.runtime("XmlInput"));
        if (group) {
            file.line("this.Body = input.Group(new $T());", types.of(body));
            file.close();
            return;
        }
        if (message.anyWrapper()) {
            file.line("input.DemandAny($S);", body.xmlName().getLocalPart());
        } else {
            file.line("input.Demand($L);", dialect.name(body));
        }
        Code value = reading.element(body);
        if (body.nillable()) {
            file.block("if (!$L)", reading.takeNil(body.type()));
            file.line("this.Body = $L;", value);
            file.close();
        } else {
            file.line("this.Body = $L;", value);
        }
        file.close();
    }

    private void declared(List<PlannedFault> faults) {
        override("$T Declared($T fault)", context.runtime("DeclaredFaultException"), context.runtime("SoapFault"));
        List<String> named = new ArrayList<>();
        for (PlannedFault fault : faults) {
            String found = FreeName.beside(
                    named, CSharpNames.field(fault.name().replaceFirst("(?<=.)Exception$", "")) + "Detail");
            named.add(found);
            TypeName wanted = content(fault.detail().type());
            TypeName exception = TypeName.ofContract(fault.packageName(), fault.name());
            file.line("$T $N = fault.DetailOf<$T>($L);", wanted, found, wanted, dialect.name(fault.detail()));
            file.block("if ($N != null)", found);
            take(fault.detail(), found, detail -> file.line("return new $T(fault, $L);", exception, detail));
            file.close();
        }
        file.line("return null;");
        file.close();
    }
}
