package org.protypos.target.java.text;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedMessage;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.TypeName;

/** What the emitters of one contract share: the plan, the place of the runtime, the names in each package. */
public final class JavaContext {
    private final JavaTypes types;
    private final Plan plan;
    private final String runtime;
    private final Map<String, Set<String>> inPackage = new HashMap<>();
    private final Set<String> typesAndPackages = new HashSet<>();

    /**
     * Makes the context.
     *
     * @param runtime the package of the runtime
     */
    public JavaContext(Plan plan, String runtime) {
        this.plan = plan;
        this.runtime = runtime;
        this.types = new JavaTypes(this);
        typesAndPackages.add(root(runtime));
        plan.classes().forEach(type -> add(type.packageName(), type.name()));
        plan.enums().forEach(type -> add(type.packageName(), type.name()));
        add(plan.rootPackage(), plan.registry());
        for (PlannedInterface type : plan.interfaces()) {
            add(type.packageName(), type.name());
            add(type.packageName(), type.client());
            add(type.packageName(), type.endpoint());
            add(type.packageName(), type.messages());
        }
        for (PlannedService service : plan.services()) {
            add(service.packageName(), service.name());
        }
        for (PlannedFault fault : plan.faults()) {
            add(fault.packageName(), fault.name());
        }
    }

    private void add(String packageName, String name) {
        typesAndPackages.add(root(packageName));
        typesAndPackages.add(name);
        inPackage.computeIfAbsent(packageName, any -> new HashSet<>()).add(name);
    }

    /**
     * The field of a class for a member. It is not called like the beginning of a package, nor like a class that begins
     * with a small letter: in expressions the names of types would lead to the field (Java Language Specification, 6.4.2).
     */
    public String field(String memberName) {
        String name = JavaNames.variable(memberName);
        return typesAndPackages.contains(name) ? name + "_" : name;
    }

    /**
     * The field that a part outside the body of a message is kept in.
     *
     * @param part its number among {@link PlannedMessage#outside}
     */
    public String field(PlannedMessage message, int part) {
        return field(message.outsideNames().get(part));
    }

    /** Where the full names of the types in a package begin. */
    static String root(String packageName) {
        int dot = packageName.indexOf('.');
        return dot < 0 ? packageName : packageName.substring(0, dot);
    }

    /** The types of everything that the plan speaks of. */
    public JavaTypes types() {
        return types;
    }

    /** What the files are written from. */
    public Plan plan() {
        return plan;
    }

    /** A file for one class with everything nested in it. */
    public JavaFile file(PlannedClass type) {
        Set<String> hidden = new HashSet<>();
        collectHidden(type, hidden);
        return new JavaFile(type.packageName(), type.name(), names(type.packageName()), hidden);
    }

    /** A file for something that nests no class of the contract. */
    public JavaFile file(String packageName, String name) {
        return new JavaFile(packageName, name, names(packageName), Set.of());
    }

    /** A file for an interface or for what implements it: the types of its results hide others of their names. */
    public JavaFile file(PlannedInterface type, String name) {
        Set<String> results = type.operations().stream()
                .map(PlannedOperation::resultName)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        return file(type.packageName(), name, results);
    }

    /** A file that nests classes with made-up names. */
    public JavaFile file(String packageName, String name, Set<String> nested) {
        return new JavaFile(packageName, name, names(packageName), nested);
    }

    private Set<String> names(String packageName) {
        return inPackage.getOrDefault(packageName, Set.of());
    }

    /** Nested classes hide others by their simple names, and so do those that a class inherits. */
    private static void collectHidden(PlannedClass type, Set<String> hidden) {
        for (PlannedClass inherited = type; inherited != null; inherited = inherited.base()) {
            inherited.nestedClasses().forEach(nested -> hidden.add(nested.name()));
            inherited.nestedEnums().forEach(nested -> hidden.add(nested.name()));
        }
        type.nestedClasses().forEach(nested -> collectHidden(nested, hidden));
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

    /** The class that knows types and elements by name. */
    public TypeName registry() {
        return TypeName.ofContract(plan.rootPackage(), plan.registry());
    }

    /** A class of the runtime's XML part. */
    public TypeName xml(String name) {
        return TypeName.ofLibrary(runtime + ".xml", name);
    }

    /** A class of the runtime's values. */
    TypeName value(String name) {
        return TypeName.ofLibrary(runtime + ".value", name);
    }

    /** A class of the runtime's checks. */
    public TypeName check(String name) {
        return TypeName.ofLibrary(runtime + ".check", name);
    }

    /** A class of the runtime's attachments. */
    public TypeName attach(String name) {
        return TypeName.ofLibrary(runtime + ".attach", name);
    }

    /** A class of the runtime's part for servlet containers. */
    public TypeName servlet(String name) {
        return TypeName.ofLibrary(runtime + ".servlet", name);
    }

    /** A class of the runtime's SOAP part. */
    public TypeName soap(String name) {
        return TypeName.ofLibrary(runtime + ".soap", name);
    }
}
