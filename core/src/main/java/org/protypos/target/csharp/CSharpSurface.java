package org.protypos.target.csharp;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
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
import org.protypos.target.csharp.emit.Signatures;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpTypes;
import org.protypos.target.csharp.text.EmbeddedRuntime;

/** What source sees of generated C#. */
final class CSharpSurface {
    private static final Spelling FULL = new FullNames(false);
    private static final Set<Surface.Audience> BOTH = EnumSet.allOf(Surface.Audience.class);
    private static final Set<Surface.Audience> CALLER = EnumSet.of(Surface.Audience.CALLER);
    private static final Set<Surface.Audience> IMPLEMENTER = EnumSet.of(Surface.Audience.IMPLEMENTER);
    private static final Set<Surface.Audience> NOBODY = EnumSet.noneOf(Surface.Audience.class);

    private final CSharpContext context;
    private final CSharpTypes types;
    private final Surface surface = new Surface();

    private CSharpSurface(Plan plan) {
        this.context = new CSharpContext(plan, EmbeddedRuntime.LIBRARY);
        this.types = context.types();
    }

    /** What source sees. */
    static Surface of(Plan plan) {
        CSharpSurface csharp = new CSharpSurface(plan);
        plan.classes().forEach(csharp::type);
        plan.enums().forEach(csharp::named);
        plan.interfaces().forEach(csharp::operations);
        plan.services().forEach(csharp::service);
        return csharp.surface;
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
            String shown = name + " : " + context.ref(base).full();
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

    private void member(String name, PlannedClass declaring, Property property) {
        String designator = property.designator(declaring);
        if (property.xmlName() != null) {
            surface.name(designator, property.name());
        }
        String slot = name + "." + property.name();
        gone(designator, slot, slot + ": " + types.of(property).text(FULL), BOTH);
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

    /** A {@code switch} over constants need not know all of them: it has a default, or gives nothing. */
    private void named(PlannedEnum type, String designator) {
        String name = context.ref(type).full();
        declared(designator, name, type.name(), BOTH);
        for (PlannedEnum.Constant constant : type.constants()) {
            String value = Subject.value(designator, constant.value(), null).designator();
            surface.name(value, constant.name());
            gone(value, name + "." + constant.name(), name + "." + constant.name(), BOTH);
        }
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
        Signatures signatures = new Signatures(context, type);
        for (PlannedOperation operation : type.operations()) {
            operation(type, operation, signatures, operation.api().subject().designator());
        }
    }

    private void operation(
            PlannedInterface type, PlannedOperation operation, Signatures signatures, String designator) {
        surface.name(designator, operation.method());
        String name = type.packageName() + "." + type.name();
        String slot = name + "." + operation.method();
        String given = Code.join(
                        ", ",
                        operation.input().values().stream()
                                .map(signatures::type)
                                .toList())
                .text(FULL);
        Code what = signatures.result(operation);
        String result = what == null ? "void" : what.text(FULL);
        // Callers may name what they give.
        String named = signatures.parameters(operation).text(FULL);
        gone(designator, slot + " called", "called " + slot + "(" + named + "): " + result, CALLER);
        add(
                designator,
                slot + " implemented",
                "implemented " + slot + "(" + given + "): " + result,
                IMPLEMENTER,
                IMPLEMENTER);
        if (operation.asyncMethod() != null) {
            gone(
                    designator,
                    slot + " async",
                    type.packageName() + "." + type.client() + "." + operation.asyncMethod() + "(" + named + ")",
                    CALLER);
        }
        for (PlannedFault fault : operation.faults()) {
            String thrown = fault.packageName() + "." + fault.name();
            String of = designator + " fault " + fault.element();
            gone(of, slot + " throws " + thrown, slot + " throws " + thrown, CALLER);
            String detail = Subject.element(fault.element(), null).designator();
            declared(detail, thrown, fault.name(), BOTH);
            gone(
                    detail,
                    thrown + ".Detail",
                    thrown + ".Detail: " + signatures.type(fault.detail()).text(FULL),
                    BOTH);
        }
        if (operation.resultName() != null) {
            results(operation, signatures, designator, type.packageName() + "." + operation.resultName());
        }
    }

    private void results(PlannedOperation operation, Signatures signatures, String designator, String type) {
        String output = designator + " output";
        gone(output, "class " + type, "class " + type, BOTH);
        List<String> names = Signatures.resultNames(operation);
        List<String> made = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            String component =
                    signatures.type(operation.output().values().get(i)).text(FULL);
            made.add(component);
            gone(output, type + "." + names.get(i), type + "." + names.get(i) + ": " + component, CALLER);
        }
        gone(output, "new " + type, "new " + type + "(" + String.join(", ", made) + ")", IMPLEMENTER);
    }
}
