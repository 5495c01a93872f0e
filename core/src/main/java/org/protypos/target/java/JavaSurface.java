package org.protypos.target.java;

import java.util.AbstractSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.binding.Designators;
import org.protypos.naming.Subject;
import org.protypos.plan.ApiClass;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.ApiService;
import org.protypos.plan.Plan;
import org.protypos.plan.Property;
import org.protypos.wsdl.PortType;

/** What code sees of a generated API: for each component the signature that code is written against. */
public final class JavaSurface {
    private static final Map<String, String> PRIMITIVES = Map.of(
            "Boolean", "boolean", "Byte", "byte", "Short", "short", "Integer", "int", "Long", "long", "Float", "float",
            "Double", "double");

    /** In a file in which every simple name means something else, every type is called by its full name. */
    private static final Set<String> EVERYTHING = new AbstractSet<>() {
        @Override
        public boolean contains(Object name) {
            return true;
        }

        @Override
        public Iterator<String> iterator() {
            return Collections.emptyIterator();
        }

        @Override
        public int size() {
            return 0;
        }
    };

    private final JavaContext context;
    private final JavaFile file = new JavaFile("", "", Set.of(), EVERYTHING);
    private final JavaTypes types;
    private final Map<String, String> seen = new HashMap<>();

    private JavaSurface(Plan plan) {
        this.context = new JavaContext(plan, EmbeddedRuntime.LIBRARY);
        this.types = new JavaTypes(context, file);
    }

    /**
     * What code sees.
     *
     * @param portTypes the port types of the contract, for the designators of their operations
     * @return signatures by the designators of the components
     */
    public static Map<String, String> of(Plan plan, Iterable<PortType> portTypes) {
        JavaSurface surface = new JavaSurface(plan);
        plan.classes().forEach(surface::type);
        for (PortType portType : portTypes) {
            surface.operations(plan.interfaces(), portType);
        }
        for (ApiService service : plan.services()) {
            String around =
                    Subject.wsdl(Subject.Kind.SERVICE, service.xmlName(), null).designator();
            surface.seen.put(around, "class " + service.packageName() + "." + service.name());
            service.ports().forEach(port -> surface.seen.put(around + "/" + port.xmlName(), port.constant()));
        }
        return surface.seen;
    }

    private void type(ApiClass type) {
        String base = type.base() == null ? "" : " extends " + context.ref(file, type.base());
        seen.put(type.designator(), "class" + base + " " + context.ref(file, type));
        for (Property property : type.properties()) {
            if (property.xmlName() != null) {
                boolean attribute = property.kind() == Property.Kind.ATTRIBUTE;
                String signature = types.given(property) + " " + property.name();
                seen.put(
                        attribute
                                ? Subject.attribute(type.designator(), property.xmlName(), null)
                                        .designator()
                                : Subject.element(type.designator(), property.xmlName(), null)
                                        .designator(),
                        unboxed(signature));
            }
        }
        type.nestedClasses().forEach(this::type);
    }

    /** Code that reads a primitive reads a boxed value as well. */
    private static String unboxed(String signature) {
        int blank = signature.lastIndexOf(' ');
        String type = signature.substring(0, blank);
        return PRIMITIVES.getOrDefault(type, type) + signature.substring(blank);
    }

    private void operations(List<ApiInterface> interfaces, PortType portType) {
        for (ApiInterface type : interfaces) {
            if (!type.xmlName().equals(portType.name())) {
                continue;
            }
            InterfaceEmitter.Signatures signatures = new InterfaceEmitter.Signatures(context, file, type, false);
            for (ApiOperation operation : type.operations()) {
                portType.operations().stream()
                        .filter(declared -> declared.name().equals(operation.xmlName()))
                        .findFirst()
                        .ifPresent(declared -> seen.put(
                                Designators.operation(portType, declared).designator(),
                                signatures.method(operation)
                                        + (operation.resultName() == null
                                                ? ""
                                                : " " + signatures.resultRecord(operation))));
            }
        }
    }
}
