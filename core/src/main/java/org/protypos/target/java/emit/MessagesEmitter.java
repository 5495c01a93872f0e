package org.protypos.target.java.emit;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
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
        this.signatures = new InterfaceEmitter.Signatures(context, file, owner, false);
        this.context = context;
        this.file = file;
        this.types = new JavaTypes(context, file);
        this.dialect = new JavaDialect(types);
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
        file.block("final class ", type.messages());
        file.line("private ", type.messages(), "() {}");
        for (PlannedOperation operation : type.operations()) {
            emitter.message(operation.input(), operation, List.of());
            if (operation.output() != null) {
                emitter.message(operation.output(), operation, operation.faults());
            }
        }
        file.close();
        return file.finish();
    }

    /**
     * The field that a part outside the body is kept in.
     *
     * @param part its number among {@link PlannedMessage#outside}
     */
    static String field(PlannedMessage message, int part) {
        return JavaNames.variable(message.outsideNames().get(part));
    }

    private void message(PlannedMessage message, PlannedOperation operation, List<PlannedFault> faults) {
        file.gap();
        file.block("static final class ", message.name(), " extends ", context.soap(file, "SoapMessage"));
        if (message.body() != null) {
            file.line(types.of(message.body()), " body;");
        }
        for (int i = 0; i < message.outside().size(); i++) {
            file.line(types.of(message.outside().get(i)), " ", field(message, i), ";");
        }
        made(message, operation);
        if (!message.headers().isEmpty()) {
            headers(message);
        }
        if (message.encoded()) {
            constant("boolean isEncoded()", "true");
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
        String result = input || message.values().isEmpty() ? null : signatures.result(operation);
        List<String> given = operation.parameters();
        if (!input) {
            given = operation.resultName() == null
                    ? List.of("result")
                    : InterfaceEmitter.Signatures.resultNames(message).stream()
                            .map(name -> "result." + name + "()")
                            .toList();
        }
        String parameters = input ? signatures.parameters(operation) : result == null ? "" : result + " result";
        // No parameter is called like this one.
        String local = input ? "input" : "output";
        file.gap();
        file.block("static ", message.name(), " of(", parameters, ")");
        file.line(message.name(), " ", local, " = new ", message.name(), "();");
        if (message.wrapper() != null) {
            file.line(local, ".body = new ", context.ref(file, message.wrapper()), "();");
        }
        List<Property> inBody =
                message.wrapper() == null ? List.of() : message.wrapper().elements();
        int at = 0;
        for (Property value : inBody) {
            file.line(local, ".body.set", value.name(), "(", given.get(at++), ");");
        }
        if (message.wrapper() == null && message.body() != null) {
            file.line(local, ".body = ", given.get(at++), ";");
        }
        for (int part = 0; part < message.outside().size(); part++) {
            file.line(local, ".", field(message, part), " = ", given.get(at++), ";");
        }
        file.line("return ", local, ";");
        file.close();
        if (result != null) {
            String joined = String.join(", ", signatures.values(message, "this"));
            file.gap();
            file.block(result, " result()");
            file.line("return ", operation.resultName() == null ? joined : "new " + result + "(" + joined + ")", ";");
            file.close();
        }
    }

    private void override(String signature) {
        file.gap();
        file.line("@Override");
        file.block("protected ", signature);
    }

    private void constant(String signature, String value) {
        override(signature);
        file.line("return ", value, ";");
        file.close();
    }

    private void form(PlannedMessage message) {
        if (message.form() != WireMessage.Form.ENVELOPE) {
            constant("Form form()", "Form." + message.form());
        }
        if (message.form() == WireMessage.Form.TEXT) {
            constant(
                    "String textPart()",
                    JavaText.literal(message.values().get(0).xmlName().getLocalPart()));
        }
    }

    private void attachments(PlannedMessage message) {
        int first = message.headers().size();
        override("void writeAttachments(" + context.attach(file, "OutgoingPackage") + " out)");
        for (int i = 0; i < message.attachments().size(); i++) {
            String value = "this." + field(message, first + i);
            String type = message.mediaTypes().get(i);
            String declared = type.isEmpty() ? "" : ", " + JavaText.literal(type);
            if (message.form() == WireMessage.Form.ENVELOPE) {
                file.line("out.attach(", part(message, i), ", ", value, declared, ");");
                continue;
            }
            file.block("if (", value, " != null)");
            file.line("out.attach(", part(message, i), ", ", value, declared, ");");
            file.close();
        }
        file.close();
        override("void readAttachments(" + context.soap(file, "AttachedParts") + " in)");
        for (int i = 0; i < message.attachments().size(); i++) {
            file.line("this.", field(message, first + i), " = in.take(", part(message, i), ");");
        }
        file.close();
    }

    private static String part(PlannedMessage message, int attachment) {
        return JavaText.literal(message.attachments().get(attachment).xmlName().getLocalPart());
    }

    private void actions(PlannedMessage message, PlannedOperation operation) {
        if (message.action() == null) {
            return;
        }
        constant("String action()", JavaText.literal(message.action()));
        if (operation.output() == null) {
            constant("boolean isOneWay()", "true");
        }
        if (message == operation.input() && !operation.faultActions().isEmpty()) {
            override("String action(" + context.soap(file, "DeclaredFault") + " fault)");
            for (int i = 0; i < operation.faults().size(); i++) {
                PlannedFault fault = operation.faults().get(i);
                file.block("if (fault instanceof ", file.ref(fault.packageName(), fault.name()), ")");
                file.line("return ", JavaText.literal(operation.faultActions().get(i)), ";");
                file.close();
            }
            file.line("return null;");
            file.close();
        }
    }

    private void headers(PlannedMessage message) {
        override("boolean hasHeaders()");
        StringBuilder any = new StringBuilder();
        for (int i = 0; i < message.headers().size(); i++) {
            any.append(i == 0 ? "" : " || ")
                    .append("this.")
                    .append(field(message, i))
                    .append(" != null");
        }
        file.line("return ", any.toString(), ";");
        file.close();
        override("void writeHeaders(" + context.xml(file, "XmlOutput") + " out)");
        for (int i = 0; i < message.headers().size(); i++) {
            file.block("if (this.", field(message, i), " != null)");
            writing.writeElement(message.headers().get(i), "this." + field(message, i));
            file.close();
        }
        file.close();
        override("boolean takeHeader(" + context.xml(file, "XmlElement") + "<?> block)");
        for (int i = 0; i < message.headers().size(); i++) {
            Property header = message.headers().get(i);
            file.block(
                    "if (block.isNamed(", dialect.name(header), ") && ", pattern(header.type(), "block.value()"), ")");
            file.line("this.", field(message, i), " = ", unwrap(header.type(), "block.value()"), ";");
            file.line("return true;");
            file.close();
        }
        file.line("return false;");
        file.close();
    }

    /** The test that binds {@code found} to the content of an element that was read by its name alone; content of any type needs none. */
    private String pattern(ValueType type, String value) {
        return type instanceof ValueType.Anything
                ? value + " != null"
                : value + " instanceof "
                        + (type instanceof ValueType.Structured structured
                                ? context.ref(file, structured.type())
                                : context.xml(file, "XmlSimple"))
                        + " found";
    }

    /** The expression that makes the value of what {@link #pattern} found. */
    private String unwrap(ValueType type, String value) {
        if (type instanceof ValueType.Scalar scalar) {
            return scalar.kind() == ScalarKind.STRING ? "found.text()" : "(" + types.object(type) + ") found.value()";
        }
        if (type instanceof ValueType.Items items) {
            return items.item() instanceof ValueType.Enumerated enumerated
                    ? "found.values(String.class).stream().map(" + context.ref(file, enumerated.type())
                            + "::find).toList()"
                    : "found.values(" + types.object(items.item()) + ".class)";
        }
        return type instanceof ValueType.Enumerated enumerated
                ? context.ref(file, enumerated.type()) + ".find(found.text().strip())"
                : type instanceof ValueType.Anything ? value : "found";
    }

    private void body(PlannedMessage message) {
        Property body = message.body();
        boolean group = body.kind() == Member.Kind.GROUP;
        override("void writeBody(" + context.xml(file, "XmlOutput") + " out)");
        boolean primitive = JavaTypes.isPrimitive(body);
        if (primitive) {
            writing.writeElement(body, "this.body");
        } else {
            file.block("if (this.body != null)");
            if (group) {
                file.line("out.group(this.body);");
            } else {
                writing.writeElement(body, "this.body");
            }
            if (body.nillable()) {
                file.orElse("else");
                file.line("out.nil(", dialect.name(body), ");");
            }
            file.close();
        }
        file.close();
        override("void readBody(" + context.xml(file, "XmlInput") + " in)");
        if (group) {
            file.line("this.body = in.group(new ", types.of(body), "());");
            file.close();
            return;
        }
        if (message.anyWrapper()) {
            file.line("in.demandAny(", JavaText.literal(body.xmlName().getLocalPart()), ");");
        } else {
            file.line("in.demand(", dialect.name(body), ");");
        }
        String value = reading.element(body.type());
        file.line("this.body = ", body.nillable() ? reading.takeNil(body.type()) + " ? null : " + value : value, ";");
        file.close();
    }

    private void declared(List<PlannedFault> faults) {
        override(context.soap(file, "DeclaredFault") + " declared(" + context.soap(file, "SoapFault") + " fault)");
        for (PlannedFault fault : faults) {
            String detail = "fault.detail(" + dialect.name(fault.detail()) + ")";
            file.block("if (", pattern(fault.detail().type(), detail), ")");
            file.line(
                    "return new ",
                    file.ref(fault.packageName(), fault.name()),
                    "(fault, ",
                    unwrap(fault.detail().type(), detail),
                    ");");
            file.close();
        }
        file.line("return null;");
        file.close();
    }
}
