package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the class that knows types, elements and values by name, and reads and writes whole documents. */
public final class RegistryEmitter {
    private static final Set<String> MEMBERS =
            Set.of(("Instance ToXml Find NewOfType NewOfElement SubstitutionHead Read Write"
                            + " FromElement ToElement InText AsText ElementContent HeadOf ComplexType HoldsNames TypeOrBuiltin Standing Equals"
                            + " GetHashCode GetType ToString MemberwiseClone Finalize ReferenceEquals")
                    .split(" "));

    private final CSharpContext context;
    private final CSharpFile file;

    private RegistryEmitter(CSharpContext context, CSharpFile file) {
        this.context = context;
        this.file = file;
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context) {
        Plan plan = context.plan();
        CSharpFile file = context.fileWithMembers(plan.rootPackage(), plan.registry(), members(plan));
        new RegistryEmitter(context, file).write(plan);
        return file.finish();
    }

    /** All that the class has, with the methods for the single namespaces. */
    private static Set<String> members(Plan plan) {
        Set<String> members = new HashSet<>(MEMBERS);
        long namespaces = Stream.concat(plan.types().keySet().stream(), plan.elements().keySet().stream())
                .map(QName::getNamespaceURI)
                .distinct()
                .count();
        for (String lookup : List.of("NewOfType", "NewOfElement", "SubstitutionHead")) {
            for (int number = 1; number <= namespaces; number++) {
                members.add(lookup + number);
            }
        }
        return members;
    }

    private void write(Plan plan) {
        String name = plan.registry();
        file.doc("Reads and writes documents of the contract: it knows all types and elements by name.");
        file.block("public sealed class $N : $T", name, context.runtime("XmlTypes"));
        file.doc("The one there is; it never changes.");
        file.line("public static readonly $N Instance = new $N();", name, name);
        file.gap();
        file.block("private $N()", name);
        file.close();
        for (PlannedEnum type : enums(plan)) {
            values(type);
        }
        TypeName object = context.runtime("XmlObject");
        Map<QName, Code> types = new LinkedHashMap<>();
        plan.types().forEach((type, value) -> put(types, type, EmptyValue.expression(context, value, type)));
        lookup("NewOfType", object, types);
        Map<QName, Code> elements = new LinkedHashMap<>();
        plan.elements().forEach((element, known) -> put(elements, element, EmptyValue.expression(context, known)));
        lookup("NewOfElement", object, elements);
        Map<QName, Code> heads = new LinkedHashMap<>();
        plan.heads()
                .forEach((member, head) ->
                        heads.put(member, CSharpTypes.xname(head.getNamespaceURI(), head.getLocalPart())));
        lookup("SubstitutionHead", TypeName.ofLibrary("System.Xml.Linq", "XName"), heads);
        file.close();
    }

    private static List<PlannedEnum> enums(Plan plan) {
        List<PlannedEnum> all = new ArrayList<>(plan.enums());
        plan.classes().forEach(type -> collect(type, all));
        return all;
    }

    private static void collect(PlannedClass type, List<PlannedEnum> all) {
        all.addAll(type.nestedEnums());
        type.nestedClasses().forEach(nested -> collect(nested, all));
    }

    /** The texts of the values of an enumeration, both ways. */
    private void values(PlannedEnum type) {
        TypeName name = context.ref(type);
        TypeName statics = context.ref(type).members();
        file.gap().doc("The value as it is written in XML.");
        file.block("public static string ToXml($T value)", name);
        file.block("switch (value)");
        for (PlannedEnum.Constant constant : type.constants()) {
            file.line("case $T.$N:", statics, constant.name());
            file.line("    return $S;", constant.value());
        }
        file.line("default:");
        file.line("    throw new $T(\"value\");", TypeName.ofLibrary("System", "ArgumentOutOfRangeException"));
        file.close();
        file.close();
        file.gap().doc("Finds the value that is written so in XML, and tells whether there is one.");
        file.block("public static bool Find(string text, out $T value)", name);
        file.block("switch (text)");
        for (PlannedEnum.Constant constant : type.constants()) {
            file.line("case $S:", constant.value());
            file.line("    value = $T.$N;", statics, constant.name());
            file.line("    return true;");
        }
        file.line("default:");
        file.line("    value = default($T);", name);
        file.line("    return false;");
        file.close();
        file.close();
    }

    private static void put(Map<QName, Code> cases, QName name, Code empty) {
        if (empty != null) {
            cases.put(name, empty);
        }
    }

    /** A method that finds something by name: namespace first. */
    private void lookup(String method, TypeName result, Map<QName, Code> cases) {
        if (cases.isEmpty()) {
            return;
        }
        Map<String, List<QName>> byNamespace = new LinkedHashMap<>();
        for (QName name : cases.keySet()) {
            byNamespace
                    .computeIfAbsent(name.getNamespaceURI(), any -> new ArrayList<>())
                    .add(name);
        }
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override $T $N(string space, string name)", result, method);
        file.block("switch (space)");
        int number = 0;
        for (String namespace : byNamespace.keySet()) {
            file.line("case $S:", namespace);
            file.line("    return $N$L(name);", method, ++number);
        }
        file.line("default:");
        file.line("    return null;");
        file.close();
        file.close();
        number = 0;
        for (List<QName> names : byNamespace.values()) {
            file.gap();
            file.block("private static $T $N$L(string name)", result, method, ++number);
            file.block("switch (name)");
            for (QName name : names) {
                file.line("case $S:", name.getLocalPart());
                file.line("    return $L;", cases.get(name));
            }
            file.line("default:");
            file.line("    return null;");
            file.close();
            file.close();
        }
    }
}
