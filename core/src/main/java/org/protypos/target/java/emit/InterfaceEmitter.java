package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.List;
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
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes the interface of a port type, which client and server share. */
public final class InterfaceEmitter {
    private InterfaceEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type) {
        JavaFile file = context.file(type, type.name());
        Signatures signatures = new Signatures(context, type, true);
        file.doc(
                JavaText.comment(type.documentation()),
                "Port type " + JavaText.comment(type.xmlName().getLocalPart()) + " of namespace "
                        + JavaText.comment(type.xmlName().getNamespaceURI()) + ".");
        file.block("public interface $N", type.name());
        boolean first = true;
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            file.doc(JavaText.comment(operation.documentation()));
            file.line("$L;", signatures.method(operation));
        }
        for (PlannedOperation operation : type.operations()) {
            if (operation.resultName() != null) {
                result(file, context, signatures, operation);
            }
        }
        file.close();
        return file.finish();
    }

    private static void result(JavaFile file, JavaContext context, Signatures signatures, PlannedOperation operation) {
        file.gap().doc("What {@code " + operation.method() + "} gives.");
        List<Property> values = operation.output().values();
        if (values.stream().noneMatch(InterfaceEmitter::isBytes)) {
            file.line("record $L {}", signatures.resultRecord(operation));
            return;
        }
        List<String> names = Signatures.resultNames(operation.output());
        TypeName arrays = TypeName.ofLibrary("java.util.Arrays");
        file.block("record $L", signatures.resultRecord(operation));
        file.line("/** Equal when what it holds is, bytes by their values. */");
        file.line("@Override");
        file.block("public boolean equals(Object other)");
        file.line(
                "return other instanceof $N that && $T.deepEquals(new Object[] {$L}, new Object[] {$L});",
                operation.resultName(),
                arrays,
                held("this", values, names),
                held("that", values, names));
        file.close();
        file.gap().line("@Override");
        file.block("public int hashCode()");
        file.line("return $T.deepHashCode(new Object[] {$L});", arrays, held("this", values, names));
        file.close();
        file.gap().line("@Override");
        file.block("public String toString()");
        file.line(
                "$T text = new $T($S);",
                context.xml("Description"),
                context.xml("Description"),
                operation.resultName());
        names.forEach(name -> file.line("text.member($S, this.$N);", name, name));
        file.line("return text.text();");
        file.close();
        file.close();
    }

    private static boolean isBytes(Property property) {
        ValueType type = property.type() instanceof ValueType.Items items ? items.item() : property.type();
        return type instanceof ValueType.Scalar scalar
                && (scalar.kind() == ScalarKind.BASE64 || scalar.kind() == ScalarKind.HEX);
    }

    /** What comparing looks into: arrays in arrays, but not in lists. */
    private static Code held(String on, List<Property> values, List<String> names) {
        List<Code> held = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            Property value = values.get(i);
            boolean many = value.isMany() || value.type() instanceof ValueType.Items;
            Code one = Code.of("$N.$N", on, names.get(i));
            held.add(many && isBytes(value) ? Code.of("$L == null ? null : $L.toArray()", one, one) : one);
        }
        return Code.join(", ", held);
    }

    /** How the methods of an interface look, wherever they are written. */
    public static final class Signatures {
        private final JavaContext context;
        private final JavaTypes types;
        private final PlannedInterface owner;
        private final boolean inside;

        /**
         * Makes the writer.
         *
         * @param inside whether the signatures stand in the interface itself
         */
        public Signatures(JavaContext context, PlannedInterface owner, boolean inside) {
            this.context = context;
            this.inside = inside;
            this.types = context.types();
            this.owner = owner;
        }

        public Code type(Property property) {
            return types.of(property);
        }

        /** The call that gives the value of a property. */
        Code get(Property property) {
            return types.get(property);
        }

        Code parameters(PlannedOperation operation) {
            List<Code> parameters = new ArrayList<>();
            List<Property> values = operation.input().values();
            for (int i = 0; i < values.size(); i++) {
                parameters.add(Code.of(
                        "$T $N", types.of(values.get(i)), operation.parameters().get(i)));
            }
            return Code.join(", ", parameters);
        }

        /** The type that carries several results, with its components. */
        public Code resultRecord(PlannedOperation operation) {
            List<Code> components = new ArrayList<>();
            List<Property> values = operation.output().values();
            List<String> names = resultNames(operation.output());
            for (int i = 0; i < values.size(); i++) {
                components.add(Code.of("$T $N", types.of(values.get(i)), names.get(i)));
            }
            return Code.of("$N($L)", operation.resultName(), Code.join(", ", components));
        }

        /** The names of the components of a result type, each once. */
        public static List<String> resultNames(PlannedMessage output) {
            List<String> names = new ArrayList<>();
            for (Property value : output.values()) {
                String name = JavaNames.component(JavaNames.variable(value.name()));
                String free = name;
                for (int number = 2; names.contains(free); number++) {
                    free = name + number;
                }
                names.add(free);
            }
            return names;
        }

        /** The values that a message carries, as expressions: members of its wrapper or its body, then what is outside. */
        List<Code> values(PlannedMessage message, String on) {
            List<Code> values = new ArrayList<>();
            if (message.wrapper() != null) {
                message.wrapper().elements().forEach(value -> values.add(Code.of("$N.body.$L", on, get(value))));
            } else if (message.body() != null) {
                values.add(Code.of("$N.body", on));
            }
            for (int part = 0; part < message.outside().size(); part++) {
                values.add(Code.of("$N.$N", on, context.field(message, part)));
            }
            return values;
        }

        public Code result(PlannedOperation operation) {
            if (operation.resultName() != null) {
                return inside
                        ? Code.of("$N", operation.resultName())
                        : Code.of(
                                "$T.$N",
                                TypeName.ofContract(owner.packageName(), owner.name()),
                                operation.resultName());
            }
            return operation.output() == null || operation.output().values().isEmpty()
                    ? Code.of("void")
                    : types.of(operation.output().values().get(0));
        }

        /** The type of the result where an object is needed. */
        Code boxedResult(PlannedOperation operation) {
            if (operation.resultName() != null) {
                return result(operation);
            }
            return operation.output() == null || operation.output().values().isEmpty()
                    ? Code.of("Void")
                    : types.boxed(operation.output().values().get(0));
        }

        public Code method(PlannedOperation operation) {
            List<Code> faults = operation.faults().stream().map(this::fault).toList();
            return Code.of(
                    "$T $N($L)$L",
                    result(operation),
                    operation.method(),
                    parameters(operation),
                    faults.isEmpty() ? Code.NONE : Code.of(" throws $L", Code.join(", ", faults)));
        }

        Code fault(PlannedFault fault) {
            return Code.of(TypeName.ofContract(fault.packageName(), fault.name()));
        }

        Code messages(PlannedMessage message) {
            return Code.of("$T.$N", TypeName.ofContract(owner.packageName(), owner.messages()), message.name());
        }
    }
}
