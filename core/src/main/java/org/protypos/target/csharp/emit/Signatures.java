package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** How the methods of an interface look, wherever they are written. */
public final class Signatures {
    private final CSharpTypes types;
    private final PlannedInterface owner;

    /** The signatures of an interface. */
    public Signatures(CSharpContext context, PlannedInterface owner) {
        this.types = context.types();
        this.owner = owner;
    }

    /** The type of a parameter or result. */
    public Code type(Property property) {
        return types.of(property);
    }

    /** The parameters of an operation, as they are declared. */
    public Code parameters(PlannedOperation operation) {
        List<Code> parameters = new ArrayList<>();
        List<Property> values = operation.input().values();
        for (int i = 0; i < values.size(); i++) {
            parameters.add(Code.of(
                    "$T $N", types.of(values.get(i)), operation.parameters().get(i)));
        }
        return Code.join(", ", parameters);
    }

    /** The type of what an operation gives, or null for nothing. */
    public Code result(PlannedOperation operation) {
        if (operation.resultName() != null) {
            return Code.of(TypeName.ofContract(owner.packageName(), operation.resultName()));
        }
        return isVoid(operation) ? null : types.of(operation.output().values().get(0));
    }

    static boolean isVoid(PlannedOperation operation) {
        return operation.output() == null || operation.output().values().isEmpty();
    }

    /** The method of an operation, up to its parameters. */
    public Code method(PlannedOperation operation) {
        Code result = result(operation);
        return Code.of(
                "$T $N($L)", result == null ? Code.of("void") : result, operation.method(), parameters(operation));
    }

    /** The type for several results with its properties. */
    public Code results(PlannedOperation operation) {
        List<Code> components = new ArrayList<>();
        List<String> names = resultNames(operation);
        for (int i = 0; i < names.size(); i++) {
            components.add(Code.of("$T $N", types.of(operation.output().values().get(i)), names.get(i)));
        }
        return Code.of("$N($L)", operation.resultName(), Code.join(", ", components));
    }

    Code messages(PlannedMessage message) {
        return Code.of("$T.$N", TypeName.ofContract(owner.packageName(), owner.messages()), message.name());
    }

    /** How to call a message where its own members are asked for. */
    Code staticMessages(PlannedMessage message) {
        return Code.of(
                "$T.$N",
                TypeName.ofContract(owner.packageName(), owner.messages()).members(),
                message.name());
    }

    /** The names of the properties of a type for several results, each once and none like the type itself. */
    public static List<String> resultNames(PlannedOperation operation) {
        List<String> names =
                new ArrayList<>(List.of(operation.resultName(), "Equals", "GetHashCode", "GetType", "ToString"));
        int given = names.size();
        for (Property value : operation.output().values()) {
            String free = value.name();
            for (int number = 2; names.contains(free); number++) {
                free = value.name() + number;
            }
            names.add(free);
        }
        return names.subList(given, names.size());
    }

    /** The values that a message carries, as expressions on it: members of its wrapper or its body, then what is outside of that. */
    static List<Code> values(PlannedMessage message, String on) {
        List<Code> values = new ArrayList<>();
        if (message.wrapper() != null) {
            message.wrapper().elements().forEach(value -> values.add(Code.of("$N.Body.$N", on, value.name())));
        } else if (message.body() != null) {
            values.add(Code.of("$N.Body", on));
        }
        for (int part = 0; part < message.outside().size(); part++) {
            values.add(Code.of("$N.$N", on, MessagesEmitter.outside(message, part)));
        }
        return values;
    }

    /** Writes the documentation of a method: what it does, its parameters, what it gives and what it throws. */
    void document(CSharpFile file, PlannedOperation operation, boolean cancels) {
        file.doc(
                CSharpText.comment(operation.documentation()),
                operation.documentation().isBlank()
                        ? "The operation " + CSharpText.comment(operation.xmlName()) + "."
                        : "");
        List<Property> values = operation.input().values();
        for (int i = 0; i < values.size(); i++) {
            String about = CSharpText.comment(values.get(i).documentation());
            file.tag(
                    "<param name=\"" + operation.parameters().get(i) + "\">",
                    about.isBlank() ? CSharpText.comment(values.get(i).name()) : about,
                    "</param>");
        }
        if (cancels) {
            file.tag("<param name=\"cancellationToken\">", "gives the call up", "</param>");
        }
        for (PlannedFault fault : operation.faults()) {
            file.tag(
                    "<exception cref=\"" + file.reference(TypeName.ofContract(fault.packageName(), fault.name()))
                            + "\">",
                    fault.documentation().isBlank()
                            ? "The fault " + CSharpText.comment(fault.element().getLocalPart()) + "."
                            : CSharpText.comment(fault.documentation()),
                    "</exception>");
        }
    }
}
