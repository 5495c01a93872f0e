package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.Plan;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;

/** Writes the class that knows types and elements by name, and reads and writes whole documents. */
public final class RegistryEmitter {
    /** So many cases fit one method with room to spare. */
    private static final int CASES_PER_METHOD = 400;

    private final JavaContext context;
    private final JavaFile file;

    private RegistryEmitter(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
    }

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context) {
        Plan plan = context.plan();
        JavaFile file = context.file(plan.rootPackage(), plan.registry());
        new RegistryEmitter(context, file).write(plan);
        return file.finish();
    }

    private void write(Plan plan) {
        TypeName name = context.registry();
        file.doc("Reads and writes documents of the contract: it knows all types and elements by name.");
        file.block("public final class $N extends $T", plan.registry(), context.xml("XmlTypes"));
        file.doc("The one there is; it never changes.");
        file.line("public static final $T INSTANCE = new $T();", name, name);
        file.gap();
        file.line("private $N() {}", plan.registry());
        TypeName object = context.xml("XmlObject");
        Map<QName, Code> types = new LinkedHashMap<>();
        plan.types().forEach((type, value) -> put(types, type, EmptyValue.expression(context, value, type)));
        lookup("type", object, types);
        Map<QName, Code> elements = new LinkedHashMap<>();
        plan.elements().forEach((element, known) -> put(elements, element, EmptyValue.expression(context, known)));
        lookup("element", object, elements);
        TypeName qname = TypeName.ofLibrary("javax.xml.namespace.QName");
        Map<QName, Code> heads = new LinkedHashMap<>();
        plan.heads()
                .forEach((member, head) -> heads.put(
                        member, Code.of("new $T($S, $S)", qname, head.getNamespaceURI(), head.getLocalPart())));
        lookup("head", qname, heads);
        file.close();
    }

    private static void put(Map<QName, Code> cases, QName name, Code empty) {
        if (empty != null) {
            cases.put(name, empty);
        }
    }

    /** A method that finds something by name, in steps: namespace, then so many names at a time. */
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
        List<List<QName>> chunks = new ArrayList<>();
        file.gap();
        file.line("@Override");
        file.block("protected $T $N(String namespace, String name)", result, method);
        file.line("$T found = null;", result);
        file.block("switch (namespace)");
        byNamespace.forEach((namespace, names) -> {
            file.line("case $S:", namespace);
            for (int from = 0; from < names.size(); from += CASES_PER_METHOD) {
                chunks.add(names.subList(from, Math.min(names.size(), from + CASES_PER_METHOD)));
                Code call = Code.of("$N$L(name)", method, chunks.size());
                file.line("    found = $L;", from == 0 ? call : Code.of("found != null ? found : $L", call));
            }
            file.line("    break;");
        });
        file.line("default:");
        file.line("    break;");
        file.close();
        file.line("return found;");
        file.close();
        int number = 0;
        for (List<QName> chunk : chunks) {
            number++;
            file.gap();
            file.block("private static $T $N$L(String name)", result, method, number);
            file.block("switch (name)");
            for (QName name : chunk) {
                file.line("case $S: return $L;", name.getLocalPart(), cases.get(name));
            }
            file.line("default: return null;");
            file.close();
            file.close();
        }
    }
}
