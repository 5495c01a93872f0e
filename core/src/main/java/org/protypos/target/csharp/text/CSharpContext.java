package org.protypos.target.csharp.text;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.classes.Property;
import org.protypos.target.code.TypeName;

/** What the emitters of one contract share: the plan, the place of the runtime, the names in each namespace. */
public final class CSharpContext {
    private final CSharpTypes types;
    private final Plan plan;
    private final String runtime;

    /** The types of each namespace, and the namespaces in it, by their simple names. */
    private final Map<String, Set<String>> inNamespace = new HashMap<>();

    private final Map<String, Set<String>> visible = new ConcurrentHashMap<>();

    /**
     * Makes the context.
     *
     * @param runtime the namespace of the runtime
     */
    public CSharpContext(Plan plan, String runtime) {
        this.plan = plan;
        this.runtime = runtime;
        this.types = new CSharpTypes(this);
        addNamespace(runtime);
        plan.classes().forEach(type -> add(type.packageName(), type.name()));
        plan.enums().forEach(type -> add(type.packageName(), type.name()));
        add(plan.rootPackage(), plan.registry());
        add(plan.rootPackage(), plan.publication());
        for (PlannedInterface type : plan.interfaces()) {
            add(type.packageName(), type.name());
            add(type.packageName(), type.client());
            add(type.packageName(), type.endpoint());
            add(type.packageName(), type.messages());
            for (PlannedOperation operation : type.operations()) {
                if (operation.resultName() != null) {
                    add(type.packageName(), operation.resultName());
                }
            }
        }
        for (PlannedService service : plan.services()) {
            add(service.packageName(), service.name());
        }
        for (PlannedFault fault : plan.faults()) {
            add(fault.packageName(), fault.name());
        }
    }

    private void add(String namespace, String name) {
        if (!inNamespace.containsKey(namespace)) {
            addNamespace(namespace);
        }
        inNamespace.get(namespace).add(name);
    }

    private void addNamespace(String namespace) {
        inNamespace.computeIfAbsent(namespace, any -> new HashSet<>());
        int dot = namespace.lastIndexOf('.');
        if (dot > 0) {
            addNamespace(namespace.substring(0, dot));
            inNamespace.get(namespace.substring(0, dot)).add(namespace.substring(dot + 1));
        }
    }

    /** The types of everything that the plan speaks of. */
    public CSharpTypes types() {
        return types;
    }

    /** What the files are written from. */
    public Plan plan() {
        return plan;
    }

    /** The namespace of the runtime. */
    public String runtime() {
        return runtime;
    }

    /** The simple names that mean something in a namespace: they go before what a file uses from elsewhere. */
    private Set<String> visible(String namespace) {
        return visible.computeIfAbsent(namespace, any -> {
            Set<String> names = new HashSet<>();
            String around = namespace;
            while (true) {
                names.addAll(inNamespace.getOrDefault(around, Set.of()));
                int dot = around.lastIndexOf('.');
                if (dot < 0) {
                    // What stands outside of all namespaces goes before what a file uses, too.
                    inNamespace.keySet().stream()
                            .map(one -> one.split("\\.", 2)[0])
                            .forEach(names::add);
                    return names;
                }
                around = around.substring(0, dot);
            }
        });
    }

    /** A file for one class with everything nested in it. */
    public CSharpFile file(PlannedClass type) {
        Set<String> hidden = new HashSet<>();
        collectHidden(type, hidden);
        Set<String> members = new HashSet<>();
        collectMembers(type, members);
        return new CSharpFile(type.packageName(), type.name(), visible(type.packageName()), hidden, members);
    }

    /** A file for something that nests no class of the contract. */
    public CSharpFile file(String namespace, String name) {
        return new CSharpFile(namespace, name, visible(namespace), Set.of(), Set.of());
    }

    /** A file for the client or the endpoint of an interface, of which the members are called as its operations are. */
    public CSharpFile file(PlannedInterface type, String name, Set<String> more) {
        Set<String> members = new HashSet<>(more);
        for (PlannedOperation operation : type.operations()) {
            members.add(operation.method());
            members.add(operation.asyncMethod());
        }
        return new CSharpFile(type.packageName(), name, visible(type.packageName()), Set.of(), members);
    }

    /** A file that nests classes with made-up names. */
    public CSharpFile file(String namespace, String name, Set<String> nested) {
        return new CSharpFile(namespace, name, visible(namespace), nested, Set.of());
    }

    /** A file for a class of which some members are called as types may be. */
    public CSharpFile fileWithMembers(String namespace, String name, Set<String> members) {
        return new CSharpFile(namespace, name, visible(namespace), Set.of(), members);
    }

    /** Nested types hide others by their simple names, and so do those that a class inherits. */
    private static void collectHidden(PlannedClass type, Set<String> hidden) {
        for (PlannedClass inherited = type; inherited != null; inherited = inherited.base()) {
            inherited.nestedClasses().forEach(nested -> hidden.add(nested.name()));
            inherited.nestedEnums().forEach(nested -> hidden.add(nested.name()));
        }
        type.nestedClasses().forEach(nested -> collectHidden(nested, hidden));
    }

    private static void collectMembers(PlannedClass type, Set<String> members) {
        for (PlannedClass inherited = type; inherited != null; inherited = inherited.base()) {
            for (Property property : inherited.properties()) {
                members.add(property.name());
                if (property.nilName() != null) {
                    members.add(property.nilName());
                }
            }
        }
        type.nestedClasses().forEach(nested -> collectMembers(nested, members));
    }

    /** A class of the contract. */
    public TypeName ref(PlannedClass type) {
        return type.host() == null
                ? TypeName.ofContract(type.packageName(), type.name())
                : ref(type.host()).nested(type.name());
    }

    /** An enumeration of the contract. */
    public TypeName ref(PlannedEnum type) {
        return type.host() == null
                ? TypeName.ofContract(type.packageName(), type.name())
                : ref(type.host()).nested(type.name());
    }

    /** A type of the runtime. */
    public TypeName runtime(String name) {
        return TypeName.ofLibrary(runtime, name);
    }

    /** The class that knows types and elements by name, in expressions. */
    public TypeName registry() {
        return TypeName.ofContract(plan.rootPackage(), plan.registry()).members();
    }
}
