package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaTypes;
import org.protypos.wire.WireMessage;

/** Writes the messages of an interface as they travel: what client and endpoint read and write. */
public final class MessagesEmitter {
    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final ReadingCode reading;
    private final JavaDialect dialect;
    private final WritingCode writing;
    private final InterfaceEmitter.Signatures signatures;

    private MessagesEmitter(JavaContext context, JavaFile file, PlannedInterface owner) {
        this.signatures = new InterfaceEmitter.Signatures(context, owner, false);
        this.context = context;
        this.file = file;
        this.types = context.types();
        this.dialect = new JavaDialect(context);
        this.reading = new ReadingCode(context, file, dialect);
        this.writing = new WritingCode(context, file, dialect);
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type) {
        // What messages inherit hides a class of the contract that is called the same.
        Set<String> nested = new LinkedHashSet<>(Set.of("Form"));
        for (PlannedOperation operation : type.operations()) {
            nested.add(operation.input().name());
            if (operation.output() != null) {
                nested.add(operation.output().name());
            }
        }
        JavaFile file = context.file(type.packageName(), type.messages(), nested);
        MessagesEmitter emitter = new MessagesEmitter(context, file, type);
        file.doc("The messages of {@code " + type.name() + "} on the wire.");
        file.block("final class $N", type.messages());
        file.line("private $N() {}", type.messages());
        for (PlannedOperation operation : type.operations()) {
            emitter.message(operation.input(), operation, List.of());
            if (operation.output() != null) {
                emitter.message(operation.output(), operation, operation.faults());
            }
        }
        file.close();
        return file.finish();
    }

    private void message(PlannedMessage message, PlannedOperation operation, List<PlannedFault> faults) {
        file.gap();
        file.block("static final class $N extends $T", message.name(), context.soap("SoapMessage"));
        if (message.body() != null) {
            file.line("$T body;", types.of(message.body()));
        }
        for (int i = 0; i < message.outside().size(); i++) {
            file.line("$T $N;", types.of(message.outside().get(i)), context.field(message, i));
        }
        made(message, operation);
        if (!message.headers().isEmpty()) {
            headers(message);
        }
        if (message.encoded()) {
            constant("boolean isEncoded()", Code.of("true"));
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

    /** Writes what makes a message of the values that it carries, and takes these out of it again. */
    private void made(PlannedMessage message, PlannedOperation operation) {
        boolean input = message == operation.input();
        Code result = input || message.values().isEmpty() ? null : signatures.result(operation);
        List<Code> given;
        if (input) {
            given = operation.parameters().stream()
                    .map(name -> Code.of("$N", name))
                    .toList();
        } else if (operation.resultName() == null) {
            given = List.of(Code.of("result"));
        } else {
            given = InterfaceEmitter.Signatures.resultNames(message).stream()
                    .map(name -> Code.of("result.$N()", name))
                    .toList();
        }
        Code none = result == null ? Code.NONE : Code.of("$T result", result);
        Code parameters = input ? signatures.parameters(operation) : none;
        // No parameter is called like this one.
        String local = input ? "input" : "output";
        file.gap();
        file.block("static $N of($L)", message.name(), parameters);
        file.line("$N $N = new $N();", message.name(), local, message.name());
        if (message.wrapper() != null) {
            file.line("$N.body = new $T();", local, context.ref(message.wrapper()));
        }
        List<Property> inBody =
                message.wrapper() == null ? List.of() : message.wrapper().elements();
        int at = 0;
        for (Property value : inBody) {
            file.line("$N.body.set$N($L);", local, value.name(), given.get(at++));
        }
        if (message.wrapper() == null && message.body() != null) {
            file.line("$N.body = $L;", local, given.get(at++));
        }
        for (int part = 0; part < message.outside().size(); part++) {
            file.line("$N.$N = $L;", local, context.field(message, part), given.get(at++));
        }
        file.line("return $N;", local);
        file.close();
        if (result != null) {
            Code joined = Code.join(", ", signatures.values(message, "this"));
            file.gap();
            file.block("$T result()", result);
            file.line("return $L;", operation.resultName() == null ? joined : Code.of("new $T($L)", result, joined));
            file.close();
        }
    }

    private void override(String template, Object... arguments) {
        file.gap();
        file.line("@Override");
        file.block("protected " + template, arguments);
    }

    private void constant(String signature, Code value) {
        override(signature);
        file.line("return $L;", value);
        file.close();
    }

    private void form(PlannedMessage message) {
        if (message.form() != WireMessage.Form.ENVELOPE) {
            constant("Form form()", Code.of("Form.$N", message.form().name()));
        }
        if (message.form() == WireMessage.Form.TEXT) {
            constant(
                    "String textPart()",
                    Code.of("$S", message.values().get(0).xmlName().getLocalPart()));
        }
    }

    private void attachments(PlannedMessage message) {
        int first = message.headers().size();
        override("void writeAttachments($T out)", context.attach("OutgoingPackage"));
        for (int i = 0; i < message.attachments().size(); i++) {
            Code value = Code.of("this.$N", context.field(message, first + i));
            String type = message.mediaTypes().get(i);
            Code declared = type.isEmpty() ? Code.NONE : Code.of(", $S", type);
            if (message.form() == WireMessage.Form.ENVELOPE) {
                file.line("out.attach($L, $L$L);", part(message, i), value, declared);
                continue;
            }
            file.block("if ($L != null)", value);
            file.line("out.attach($L, $L$L);", part(message, i), value, declared);
            file.close();
        }
        file.close();
        override("void readAttachments($T input)", context.soap("AttachedParts"));
        for (int i = 0; i < message.attachments().size(); i++) {
            file.line("this.$N = input.take($L);", context.field(message, first + i), part(message, i));
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
        constant("String action()", Code.of("$S", message.action()));
        if (operation.output() == null) {
            constant("boolean isOneWay()", Code.of("true"));
        }
        if (message == operation.input() && !operation.faultActions().isEmpty()) {
            override("String action($T fault)", context.soap("DeclaredFault"));
            for (int i = 0; i < operation.faults().size(); i++) {
                PlannedFault fault = operation.faults().get(i);
                file.block("if (fault instanceof $T)", TypeName.ofContract(fault.packageName(), fault.name()));
                file.line("return $S;", operation.faultActions().get(i));
                file.close();
            }
            file.line("return null;");
            file.close();
        }
    }

    private void headers(PlannedMessage message) {
        override("boolean hasHeaders()");
        List<Code> any = new ArrayList<>();
        for (int i = 0; i < message.headers().size(); i++) {
            any.add(Code.of("this.$N != null", context.field(message, i)));
        }
        file.line("return $L;", Code.join(" || ", any));
        file.close();
        override("void writeHeaders($T out)", context.xml("XmlOutput"));
        for (int i = 0; i < message.headers().size(); i++) {
            file.block("if (this.$N != null)", context.field(message, i));
            writing.writeElement(message.headers().get(i), Code.of("this.$N", context.field(message, i)));
            file.close();
        }
        file.close();
        override("boolean takeHeader($T<?> block)", context.xml("XmlElement"));
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            file.block(
                    "if (block.isNamed($L) && $L)",
                    dialect.name(header),
                    pattern(header.type(), Code.of("block.value()")));
            file.line("this.$N = $L;", context.field(message, i), unwrap(header, Code.of("block.value()")));
            file.line("return true;");
            file.close();
        }
        file.line("return false;");
        file.close();
    }

    /** The test that binds {@code found} to the content of an element that was read by its name alone; content of any type needs none. */
    private Code pattern(ValueType type, Code value) {
        if (type instanceof ValueType.Anything) {
            return Code.of("$L != null", value);
        }
        return Code.of(
                "$L instanceof $T found",
                value,
                type instanceof ValueType.Structured structured
                        ? context.ref(structured.type())
                        : context.xml("XmlSimple"));
    }

    /** The expression that makes the value of what {@link #pattern} found. */
    private Code unwrap(Property property, Code value) {
        ValueType type = property.type();
        // What an empty element stands for is its value, not its text.
        Code text = Code.of(property.defaultValue() == null ? "found.text()" : "((String) found.value())");
        if (type instanceof ValueType.Scalar scalar) {
            return scalar.kind() == ScalarKind.STRING ? text : Code.of("($T) found.value()", types.object(type));
        }
        if (type instanceof ValueType.Items items) {
            return items.item() instanceof ValueType.Enumerated enumerated
                    ? Code.of(
                            "found.values(String.class).stream().map($T::find).toList()",
                            context.ref(enumerated.type()))
                    : Code.of("found.values($T.class)", types.object(items.item()));
        }
        if (type instanceof ValueType.Enumerated enumerated) {
            return Code.of("$T.find($L.strip())", context.ref(enumerated.type()), text);
        }
        return type instanceof ValueType.Anything ? value : Code.of("found");
    }

    private void body(PlannedMessage message) {
        Property body = message.body();
        boolean group = body.kind() == Member.Kind.GROUP;
        override("void writeBody($T out)", context.xml("XmlOutput"));
        boolean primitive = JavaTypes.isPrimitive(body);
        if (primitive) {
            writing.writeElement(body, Code.of("this.body"));
        } else {
            file.block("if (this.body != null)");
            if (group) {
                file.line("out.group(this.body);");
            } else {
                writing.writeElement(body, Code.of("this.body"));
            }
            if (body.nillable()) {
                file.orElse("else");
                file.line("out.nil($L);", dialect.name(body));
            }
            file.close();
        }
        file.close();
        override("void readBody($T input)", context.xml("XmlInput"));
        if (group) {
            file.line("this.body = input.group(new $T());", types.of(body));
            file.close();
            return;
        }
        if (message.anyWrapper()) {
            file.line("input.demandAny($S);", body.xmlName().getLocalPart());
        } else {
            file.line("input.demand($L);", dialect.name(body));
        }
        Code value = reading.element(body);
        file.line(
                "this.body = $L;",
                body.nillable() ? Code.of("$L ? null : $L", reading.takeNil(body.type()), value) : value);
        file.close();
    }

    private void declared(List<PlannedFault> faults) {
        override("$T declared($T fault)", context.soap("DeclaredFault"), context.soap("SoapFault"));
        for (PlannedFault fault : faults) {
            Code detail = Code.of("fault.detail($L)", dialect.name(fault.detail()));
            file.block("if ($L)", pattern(fault.detail().type(), detail));
            file.line(
                    "return new $T(fault, $L);",
                    TypeName.ofContract(fault.packageName(), fault.name()),
                    unwrap(fault.detail(), detail));
            file.close();
        }
        file.line("return null;");
        file.close();
    }
}
