package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

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
        String name = file.ref(plan.rootPackage(), plan.registry());
        file.doc("Reads and writes documents of the contract: it knows all types and elements by name.");
        file.block("public final class ", plan.registry(), " extends ", context.xml(file, "XmlTypes"));
        file.doc("The one there is; it never changes.");
        file.line("public static final ", name, " INSTANCE = new ", name, "();");
        file.gap();
        file.line("private ", plan.registry(), "() {}");
        String object = context.xml(file, "XmlObject");
        Map<QName, String> types = new LinkedHashMap<>();
        plan.types().forEach((type, value) -> put(types, type, value, type));
        lookup("type", object, types);
        Map<QName, String> elements = new LinkedHashMap<>();
        plan.elements().forEach((element, value) -> put(elements, element, value, null));
        lookup("element", object, elements);
        String qname = file.ref("javax.xml.namespace.QName");
        Map<QName, String> heads = new LinkedHashMap<>();
        plan.heads()
                .forEach((member, head) -> heads.put(
                        member,
                        "new " + qname + "(" + JavaText.literal(head.getNamespaceURI()) + ", "
                                + JavaText.literal(head.getLocalPart()) + ")"));
        lookup("head", qname, heads);
        file.close();
    }

    private void put(Map<QName, String> cases, QName name, ValueType value, QName simpleType) {
        String empty = EmptyValue.expression(context, file, value, simpleType);
        if (empty != null) {
            cases.put(name, empty);
        }
    }

    /** A method that finds something by name, in steps: namespace, then so many names at a time. */
    private void lookup(String method, String result, Map<QName, String> cases) {
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
        file.block("protected ", result, " ", method, "(String namespace, String name)");
        file.line(result, " found = null;");
        file.block("switch (namespace)");
        byNamespace.forEach((namespace, names) -> {
            file.line("case ", JavaText.literal(namespace), ":");
            for (int from = 0; from < names.size(); from += CASES_PER_METHOD) {
                chunks.add(names.subList(from, Math.min(names.size(), from + CASES_PER_METHOD)));
                String call = method + chunks.size() + "(name)";
                file.line("    found = ", from == 0 ? call : "found != null ? found : " + call, ";");
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
            file.block("private static ", result, " ", method, String.valueOf(number), "(String name)");
            file.block("switch (name)");
            for (QName name : chunk) {
                file.line("case ", JavaText.literal(name.getLocalPart()), ": return ", cases.get(name), ";");
            }
            file.line("default: return null;");
            file.close();
            file.close();
        }
    }
}
