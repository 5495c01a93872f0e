package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
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
        Signatures signatures = new Signatures(context, file, type, true);
        file.doc(
                JavaText.comment(type.documentation()),
                "Port type " + JavaText.comment(type.xmlName().getLocalPart()) + " of namespace "
                        + JavaText.comment(type.xmlName().getNamespaceURI()) + ".");
        file.block("public interface ", type.name());
        boolean first = true;
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            file.doc(JavaText.comment(operation.documentation()));
            file.line(signatures.method(operation), ";");
        }
        for (PlannedOperation operation : type.operations()) {
            if (operation.resultName() != null) {
                result(file, signatures, operation);
            }
        }
        file.close();
        return file.finish();
    }

    private static void result(JavaFile file, Signatures signatures, PlannedOperation operation) {
        file.gap().doc("What {@code " + operation.method() + "} gives.");
        file.line("record ", signatures.resultRecord(operation), " {}");
    }

    /** How the methods of an interface look, wherever they are written. */
    public static final class Signatures {
        private final JavaFile file;
        private final JavaTypes types;
        private final PlannedInterface owner;
        private final boolean inside;

        /**
         * Makes the writer.
         *
         * @param inside whether the signatures stand in the interface itself
         */
        public Signatures(JavaContext context, JavaFile file, PlannedInterface owner, boolean inside) {
            this.inside = inside;
            this.file = file;
            this.types = new JavaTypes(context, file);
            this.owner = owner;
        }

        public String type(Property property) {
            return types.of(property);
        }

        /** The call that gives the value of a property. */
        String get(Property property) {
            return types.get(property);
        }

        String parameters(PlannedOperation operation) {
            List<String> parameters = new ArrayList<>();
            List<Property> values = operation.input().values();
            for (int i = 0; i < values.size(); i++) {
                parameters.add(
                        types.of(values.get(i)) + " " + operation.parameters().get(i));
            }
            return String.join(", ", parameters);
        }

        /** The type that carries several results, with its components. */
        public String resultRecord(PlannedOperation operation) {
            List<String> components = new ArrayList<>();
            List<Property> values = operation.output().values();
            List<String> names = resultNames(operation.output());
            for (int i = 0; i < values.size(); i++) {
                components.add(types.of(values.get(i)) + " " + names.get(i));
            }
            return operation.resultName() + "(" + String.join(", ", components) + ")";
        }

        /** The names of the components of a result type, each once. */
        public static List<String> resultNames(PlannedMessage output) {
            List<String> names = new ArrayList<>();
            for (Property value : output.values()) {
                String name = JavaNames.component(JavaDialect.field(value));
                String free = name;
                for (int number = 2; names.contains(free); number++) {
                    free = name + number;
                }
                names.add(free);
            }
            return names;
        }

        /** The values that a message carries, as expressions: members of its wrapper or its body, then what is outside. */
        List<String> values(PlannedMessage message, String on) {
            List<String> values = new ArrayList<>();
            if (message.wrapper() != null) {
                message.wrapper().elements().forEach(value -> values.add(on + ".body." + get(value)));
            } else if (message.body() != null) {
                values.add(on + ".body");
            }
            for (int part = 0; part < message.outside().size(); part++) {
                values.add(on + "." + MessagesEmitter.field(message, part));
            }
            return values;
        }

        public String result(PlannedOperation operation) {
            if (operation.resultName() != null) {
                return inside
                        ? operation.resultName()
                        : file.ref(owner.packageName(), owner.name()) + "." + operation.resultName();
            }
            return operation.output() == null || operation.output().values().isEmpty()
                    ? "void"
                    : types.of(operation.output().values().get(0));
        }

        String boxedResult(PlannedOperation operation) {
            return switch (result(operation)) {
                case "void" -> "Void";
                case "boolean" -> "Boolean";
                case "byte" -> "Byte";
                case "short" -> "Short";
                case "int" -> "Integer";
                case "long" -> "Long";
                case "float" -> "Float";
                case "double" -> "Double";
                default -> result(operation);
            };
        }

        public String method(PlannedOperation operation) {
            String faults = operation.faults().stream().map(this::fault).collect(Collectors.joining(", "));
            return result(operation) + " " + operation.method() + "(" + parameters(operation) + ")"
                    + (faults.isEmpty() ? "" : " throws " + faults);
        }

        String fault(PlannedFault fault) {
            return file.ref(fault.packageName(), fault.name());
        }

        String messages(PlannedMessage message) {
            return file.ref(owner.packageName(), owner.messages()) + "." + message.name();
        }
    }
}
