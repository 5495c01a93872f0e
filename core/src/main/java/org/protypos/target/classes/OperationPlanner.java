package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.Collection;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.ApiFault;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiMessage;
import org.protypos.api.ApiOperation;
import org.protypos.api.type.Member;
import org.protypos.api.type.Origin;
import org.protypos.api.type.StructuredType;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;

/** Turns operations into methods, their messages into classes, and faults into exceptions. */
final class OperationPlanner {
    private final PackageNames packages;
    private final Naming naming;
    private final ClassRules rules;
    private final TypePlanner types;
    private final Map<ApiFault, PlannedFault> faults = new IdentityHashMap<>();
    private final List<PlannedFault> allFaults = new ArrayList<>();

    OperationPlanner(PackageNames packages, Naming naming, TypePlanner types) {
        this.packages = packages;
        this.naming = naming;
        this.rules = types.rules();
        this.types = types;
    }

    List<PlannedFault> faults() {
        return List.copyOf(allFaults);
    }

    /**
     * Plans an operation of an interface.
     *
     * @param methods in which methods get their names
     * @param stems what the names of the classes of other operations begin with; this one's is added
     */
    PlannedOperation plan(ApiInterface type, ApiOperation operation, NameScope methods, Collection<String> stems) {
        Subject subject = operation.subject();
        String method = methods.claim(subject, rules.methodName(operation.name()), "");
        // Methods that rules name may differ in their first letter alone.
        String plain = FreeName.beside(stems, rules.typeName(method));
        stems.add(plain);
        boolean apart = !isTooLarge(operation.input());
        if (!apart) {
            types.shapes().tooMany(subject);
        }
        PlannedMessage input = message(operation.input(), plain + "Input", apart);
        PlannedMessage output = operation.output() == null
                ? null
                : message(operation.output(), plain + "Output", apart && !isTooLarge(operation.output()));
        List<PlannedFault> declared = new ArrayList<>();
        operation.faults().forEach(fault -> declared.add(planned(fault)));
        return new PlannedOperation(
                method,
                types.shapes().isAsync(subject) ? methods.make(method + "Async", "") : null,
                parameters(subject, input),
                input,
                output,
                output != null && output.values().size() > 1 ? resultName(type, plain) : null,
                List.copyOf(declared),
                operation);
    }

    /** Whether an element that could be taken apart has more members than a method can have parameters. */
    private boolean isTooLarge(ApiMessage message) {
        StructuredType wrapper = message.wrapper();
        return wrapper != null
                && wrapper.origin() != Origin.PARTS
                && wrapper.elements().size() > rules.mostParameters();
    }

    private String resultName(ApiInterface type, String operation) {
        String wanted = operation + "Result";
        return rules.nestsInInterfaces()
                ? wanted
                : packages.scope(packages.of(type.name().getNamespaceURI())).make(wanted, "");
    }

    /**
     * Plans a message.
     *
     * @param apart whether an element with structure in it may be taken apart
     */
    private PlannedMessage message(ApiMessage message, String name, boolean apart) {
        StructuredType parts = parts(message);
        if (parts != null) {
            String packageName = packages.of(parts.name().getNamespaceURI());
            types.partsClass(parts, packageName, name + "Parts");
        }
        StructuredType wrapper = apart || parts != null ? message.wrapper() : null;
        return new PlannedMessage(
                name,
                message.body() == null ? null : property(message.body(), types.value(message.body())),
                wrapper == null ? null : types.filled(wrapper),
                message.headers().stream().map(this::beside).toList(),
                message.attachments().stream().map(this::beside).toList(),
                outsideNames(message),
                message);
    }

    /** A name for each part outside the body, told apart by number where parts in different places have one name. */
    private List<String> outsideNames(ApiMessage message) {
        List<String> names = new ArrayList<>();
        message.headers().forEach(part -> names.add(FreeName.beside(names, rules.memberName("header " + part.name()))));
        message.attachments()
                .forEach(part -> names.add(FreeName.beside(names, rules.memberName("attachment " + part.name()))));
        return List.copyOf(names);
    }

    /** The type that is made of parts of the message, or null. */
    private static StructuredType parts(ApiMessage message) {
        StructuredType body =
                message.body() == null ? null : message.body().value().structure();
        return body != null && body.origin() == Origin.PARTS ? body : null;
    }

    /** A part that stands beside the body, as the contract has it. */
    private Property beside(Member part) {
        return property(part, types.value(part).written());
    }

    private Property property(Member part, ValueType value) {
        return new Property(rules.memberName(part.name()), null, value, Property.Access.PLAIN, part);
    }

    private List<String> parameters(Subject operation, PlannedMessage input) {
        NameScope names = naming.scope(operation.designator(), rules.reservedParameters());
        names.expect(expected -> input.values()
                .forEach(value -> expected.wants(parameter(operation, value), parameterName(input, value))));
        List<String> parameters = new ArrayList<>();
        for (Property value : input.values()) {
            parameters.add(names.claim(parameter(operation, value), parameterName(input, value), ""));
        }
        return List.copyOf(parameters);
    }

    private static Subject parameter(Subject operation, Property value) {
        return operation.inside(Subject.Kind.PARAMETER, value.xmlName().getLocalPart(), operation.place());
    }

    private String parameterName(PlannedMessage input, Property value) {
        return rules.parameterName(
                value == input.body() ? value.name() : value.xmlName().getLocalPart());
    }

    private PlannedFault planned(ApiFault fault) {
        PlannedFault known = faults.get(fault);
        if (known == null) {
            QName message = fault.message();
            String packageName = packages.of(message.getNamespaceURI());
            String local = message.getLocalPart().replaceFirst("(?<=.)(Message|Msg)$", "");
            Property detail = beside(fault.detail());
            String name = packages.scope(packageName).claim(fault.subject(), rules.exceptionName(local), "Exception");
            known = new PlannedFault(packageName, name, detail.xmlName(), detail, fault.documentation());
            faults.put(fault, known);
            allFaults.add(known);
        }
        return known;
    }
}
