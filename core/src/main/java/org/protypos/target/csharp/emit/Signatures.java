package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** How the methods of an interface look, wherever they are written. */
public final class Signatures {
    private final CSharpFile file;
    private final CSharpTypes types;
    private final PlannedInterface owner;

    /** Writes the signatures of an interface into a file. */
    public Signatures(CSharpContext context, CSharpFile file, PlannedInterface owner) {
        this.file = file;
        this.types = new CSharpTypes(context, file);
        this.owner = owner;
    }

    /** The type of a parameter or result. */
    public String type(Property property) {
        return types.of(property);
    }

    /** The parameters of an operation, as they are declared. */
    public String parameters(PlannedOperation operation) {
        List<String> parameters = new ArrayList<>();
        List<Property> values = operation.input().values();
        for (int i = 0; i < values.size(); i++) {
            parameters.add(
                    types.of(values.get(i)) + " " + operation.parameters().get(i));
        }
        return String.join(", ", parameters);
    }

    /** The type of what an operation gives, or null for nothing. */
    public String result(PlannedOperation operation) {
        if (operation.resultName() != null) {
            return file.contractType(owner.packageName(), operation.resultName());
        }
        return isVoid(operation) ? null : types.of(operation.output().values().get(0));
    }

    static boolean isVoid(PlannedOperation operation) {
        return operation.output() == null || operation.output().values().isEmpty();
    }

    /** The method of an operation, up to its parameters. */
    public String method(PlannedOperation operation) {
        String result = result(operation);
        return (result == null ? "void" : result) + " " + operation.method() + "(" + parameters(operation) + ")";
    }

    /** The type for several results with its properties. */
    public String results(PlannedOperation operation) {
        List<String> components = new ArrayList<>();
        List<String> names = resultNames(operation);
        for (int i = 0; i < names.size(); i++) {
            components.add(types.of(operation.output().values().get(i)) + " " + names.get(i));
        }
        return operation.resultName() + "(" + String.join(", ", components) + ")";
    }

    String fault(PlannedFault fault) {
        return file.contractType(fault.packageName(), fault.name());
    }

    String messages(PlannedMessage message) {
        return file.contractType(owner.packageName(), owner.messages()) + "." + message.name();
    }

    /** How to call a message where its own members are asked for. */
    String staticMessages(PlannedMessage message) {
        return file.contractStatics(owner.packageName(), owner.messages()) + "." + message.name();
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
    static List<String> values(PlannedMessage message, String on) {
        List<String> values = new ArrayList<>();
        if (message.wrapper() != null) {
            message.wrapper().elements().forEach(value -> values.add(on + ".Body." + value.name()));
        } else if (message.body() != null) {
            values.add(on + ".Body");
        }
        for (int part = 0; part < message.outside().size(); part++) {
            values.add(on + "." + MessagesEmitter.outside(message, part));
        }
        return values;
    }

    /** Writes the documentation of a method: what it does, its parameters, what it gives and what it throws. */
    void document(PlannedOperation operation, boolean cancels) {
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
                    "<exception cref=\"" + fault(fault) + "\">",
                    fault.documentation().isBlank()
                            ? "The fault " + CSharpText.comment(fault.element().getLocalPart()) + "."
                            : CSharpText.comment(fault.documentation()),
                    "</exception>");
        }
    }
}
