package org.protypos.target.java;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.api.type.Member;
import org.protypos.naming.Subject;
import org.protypos.target.Surface;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.FullNames;
import org.protypos.target.code.Spelling;
import org.protypos.target.java.emit.InterfaceEmitter;
import org.protypos.target.java.text.EmbeddedRuntime;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaTypes;

/** What source sees of generated Java. */
public final class JavaSurface {
    private static final Map<String, String> PRIMITIVES = Map.of(
            "Boolean", "boolean", "Byte", "byte", "Short", "short", "Integer", "int", "Long", "long", "Float", "float",
            "Double", "double");

    private static final Spelling FULL = new FullNames(true);

    private static final Set<Surface.Audience> BOTH = EnumSet.allOf(Surface.Audience.class);
    private static final Set<Surface.Audience> CALLER = EnumSet.of(Surface.Audience.CALLER);
    private static final Set<Surface.Audience> IMPLEMENTER = EnumSet.of(Surface.Audience.IMPLEMENTER);
    private static final Set<Surface.Audience> NOBODY = EnumSet.noneOf(Surface.Audience.class);

    private final JavaContext context;
    private final JavaTypes types;
    private final Surface surface = new Surface();

    private JavaSurface(Plan plan) {
        this.context = new JavaContext(plan, EmbeddedRuntime.LIBRARY);
        this.types = context.types();
    }

    /** What source sees. */
    public static Surface of(Plan plan) {
        JavaSurface java = new JavaSurface(plan);
        plan.classes().forEach(java::type);
        plan.enums().forEach(java::named);
        plan.interfaces().forEach(java::operations);
        plan.services().forEach(java::service);
        return java.surface;
    }

    private void add(
            String designator, String slot, String shown, Set<Surface.Audience> gone, Set<Surface.Audience> come) {
        surface.add(shown, new Surface.Symbol(designator, slot, shown, gone, come));
    }

    private void gone(String designator, String slot, String shown, Set<Surface.Audience> breaks) {
        add(designator, slot, shown, breaks, NOBODY);
    }

    private void service(PlannedService service) {
        String around =
                Subject.wsdl(Subject.Kind.SERVICE, service.xmlName(), null).designator();
        String name = service.packageName() + "." + service.name();
        declared(around, name, service.name(), CALLER);
        for (PlannedService.Port port : service.ports()) {
            String designator = around + "/" + port.xmlName();
            surface.name(designator, port.constant());
            gone(designator, name + "." + port.surface(), name + "." + port.surface(), CALLER);
        }
    }

    private void declared(String designator, String qualified, String simple, Set<Surface.Audience> breaks) {
        surface.name(designator, simple);
        gone(designator, "class " + qualified, "class " + qualified, breaks);
    }

    private void type(PlannedClass type) {
        String name = context.ref(type).full();
        declared(type.designator(), name, type.name(), BOTH);
        if (!type.isAbstract()) {
            gone(type.designator(), "new " + name, "new " + name + "()", BOTH);
        }
        for (PlannedClass base = type.base(); base != null; base = base.base()) {
            String shown = name + " extends " + context.ref(base).full();
            gone(type.designator(), shown, shown, BOTH);
        }
        for (PlannedClass declaring = type; declaring != null; declaring = declaring.base()) {
            for (Property property : declaring.properties()) {
                member(name, declaring, property);
            }
        }
        type.nestedEnums().forEach(this::named);
        type.nestedClasses().forEach(this::type);
    }

    /** A member as code sees it in a class, be it its own or inherited: what it sets gives the class that declares it. */
    private void member(String name, PlannedClass declaring, Property property) {
        String designator = property.designator(declaring);
        if (property.xmlName() != null) {
            surface.name(designator, property.name());
        }
        String slot = name + "." + property.name();
        Code given = property.isUnwrapped() ? types.of(property) : types.given(property);
        gone(designator, slot, slot + ": " + unboxed(given), BOTH);
        gone(
                designator,
                slot + " set",
                slot + " is set to " + unboxed(types.of(property)) + " and gives "
                        + context.ref(declaring).full(),
                BOTH);
        if (property.isMany() && property.kind() != Member.Kind.ATTRIBUTE_WILDCARD) {
            gone(designator, slot + " add", slot + " is added to", BOTH);
        }
        if (property.nilName() != null) {
            gone(designator, slot + " nil", name + "." + property.nilName(), BOTH);
        }
        ValueType value = property.type() instanceof ValueType.Items items ? items.item() : property.type();
        if (value instanceof ValueType.Enumerated enumerated
                && enumerated.type().xmlType() == null) {
            named(enumerated.type(), Subject.typeOf(designator, null).designator());
        }
    }

    private void named(PlannedEnum type) {
        if (type.xmlType() != null) {
            named(type, Subject.type(type.xmlType(), null).designator());
        }
    }

    /** A {@code switch} over constants that gives a value must know all of them. */
    private void named(PlannedEnum type, String designator) {
        String name = context.ref(type).full();
        declared(designator, name, type.name(), BOTH);
        for (PlannedEnum.Constant constant : type.constants()) {
            String value = Subject.value(designator, constant.value(), null).designator();
            surface.name(value, constant.name());
            add(value, name + "." + constant.name(), name + "." + constant.name(), BOTH, BOTH);
        }
    }

    /** Code that reads a primitive reads a boxed value as well. */
    private static String unboxed(Code type) {
        String text = type.text(FULL);
        return PRIMITIVES.getOrDefault(text, text);
    }

    private void operations(PlannedInterface type) {
        String around =
                Subject.wsdl(Subject.Kind.PORT_TYPE, type.xmlName(), null).designator();
        String name = type.packageName() + "." + type.name();
        declared(around, name, type.name(), BOTH);
        if (type.binding()) {
            gone(around, "class client of " + name, "class " + type.packageName() + "." + type.client(), CALLER);
            gone(
                    around,
                    "class endpoint of " + name,
                    "class " + type.packageName() + "." + type.endpoint(),
                    IMPLEMENTER);
        }
        InterfaceEmitter.Signatures signatures = new InterfaceEmitter.Signatures(context, type, false);
        Map<String, List<PlannedOperation>> namesakes =
                type.operations().stream().collect(Collectors.groupingBy(PlannedOperation::method));
        for (PlannedOperation operation : type.operations()) {
            String designator = operation.api().subject().designator();
            operation(type, operation, signatures, designator);
            overloads(type, operation, namesakes.get(operation.method()), signatures, designator);
        }
    }

    private void operation(
            PlannedInterface type,
            PlannedOperation operation,
            InterfaceEmitter.Signatures signatures,
            String designator) {
        surface.name(designator, operation.method());
        String name = type.packageName() + "." + type.name();
        String slot = name + "." + operation.method();
        List<Code> parameters =
                operation.input().values().stream().map(signatures::type).toList();
        String called =
                slot + "(" + parameters.stream().map(JavaSurface::unboxed).collect(Collectors.joining(", ")) + ")";
        gone(designator, slot + " called", "called " + called + ": " + unboxed(signatures.result(operation)), CALLER);
        add(
                designator,
                slot + " implemented",
                "implemented " + slot + "(" + Code.join(", ", parameters).text(FULL) + "): "
                        + signatures.result(operation).text(FULL),
                IMPLEMENTER,
                IMPLEMENTER);
        if (operation.asyncMethod() != null) {
            gone(
                    designator,
                    slot + " async",
                    type.packageName() + "." + type.client() + "." + operation.asyncMethod()
                            + called.substring(slot.length()),
                    CALLER);
        }
        for (PlannedFault fault : operation.faults()) {
            String thrown = fault.packageName() + "." + fault.name();
            String of = designator + " fault " + fault.element();
            add(of, slot + " throws " + thrown, slot + " throws " + thrown, BOTH, CALLER);
            String detail = Subject.element(fault.element(), null).designator();
            declared(detail, thrown, fault.name(), BOTH);
            gone(
                    detail,
                    thrown + ".detail",
                    thrown + ".detail: " + signatures.type(fault.detail()).text(FULL),
                    BOTH);
        }
        if (operation.resultName() != null) {
            record(operation, signatures, designator, name + "." + operation.resultName());
        }
    }

    private void record(
            PlannedOperation operation, InterfaceEmitter.Signatures signatures, String designator, String record) {
        String output = designator + " output";
        gone(output, "class " + record, "class " + record, BOTH);
        List<String> components = InterfaceEmitter.Signatures.resultNames(operation.output());
        List<String> made = new ArrayList<>();
        for (int i = 0; i < components.size(); i++) {
            String component =
                    unboxed(signatures.type(operation.output().values().get(i)));
            made.add(component);
            gone(output, record + "." + components.get(i), record + "." + components.get(i) + ": " + component, CALLER);
        }
        gone(output, "new " + record, "new " + record + "(" + String.join(", ", made) + ")", IMPLEMENTER);
    }

    /** A call that only one method took may be taken by another, or by two. */
    private void overloads(
            PlannedInterface type,
            PlannedOperation operation,
            List<PlannedOperation> namesakes,
            InterfaceEmitter.Signatures signatures,
            String designator) {
        for (PlannedOperation other : namesakes) {
            boolean meant = other != operation
                    && areAlike(operation.input().values(), other.input().values(), signatures);
            if (meant) {
                String shown = type.packageName() + "." + type.name() + "." + operation.method() + " beside one with "
                        + Code.join(
                                        ", ",
                                        other.input().values().stream()
                                                .map(signatures::type)
                                                .toList())
                                .text(FULL);
                add(designator, shown, shown, NOBODY, CALLER);
            }
        }
    }

    private static boolean isPrimitive(Property property) {
        return !property.isMany() && JavaTypes.isPrimitive(property);
    }

    private static boolean areAlike(
            List<Property> some, List<Property> others, InterfaceEmitter.Signatures signatures) {
        if (some.size() != others.size() || some.isEmpty()) {
            return false;
        }
        for (int i = 0; i < some.size(); i++) {
            boolean primitive = isPrimitive(some.get(i));
            if (primitive != isPrimitive(others.get(i))) {
                return false;
            }
        }
        return true;
    }
}
