package org.protypos.target.java;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.plan.Plan;
import org.protypos.plan.ScalarKind;
import org.protypos.plan.ValueType;
import org.protypos.target.SourceFile;

/** Writes the class that knows types and elements by name, and reads and writes whole documents. */
final class RegistryEmitter {
    /** So many cases fit one method with room to spare. */
    private static final int CASES_PER_METHOD = 400;

    private final JavaContext context;
    private final JavaFile file;

    private RegistryEmitter(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
    }

    static SourceFile emit(JavaContext context) {
        Plan plan = context.plan();
        JavaFile file = context.file(plan.rootPackage(), plan.registry());
        new RegistryEmitter(context, file).write(plan);
        return file.finish();
    }

    private void write(Plan plan) {
        String name = file.ref(plan.rootPackage(), plan.registry());
        file.doc("Reads and writes documents of the contract: it knows all types and elements by name.");
        file.open("public final class ", plan.registry(), " extends ", context.xml(file, "XmlTypes"), " {");
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
        if (value instanceof ValueType.Structured structured) {
            if (!structured.type().isAbstract()) {
                cases.put(name, "new " + context.ref(file, structured.type()) + "()");
            }
        } else if (value instanceof ValueType.Anything) {
            cases.put(name, "new " + context.xml(file, "XmlTree") + "()");
        } else {
            String builtin = builtin(value);
            String namespace = simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI();
            String local = simpleType == null ? builtin : simpleType.getLocalPart();
            cases.put(
                    name,
                    context.xml(file, "XmlSimple") + ".empty(" + JavaText.literal(namespace) + ", "
                            + JavaText.literal(local) + ", \"" + builtin + "\")");
        }
    }

    private static String builtin(ValueType value) {
        ScalarKind kind = value instanceof ValueType.Scalar scalar ? scalar.kind() : ScalarKind.STRING;
        return switch (kind) {
            case STRING -> "string";
            case NORMALIZED -> "normalizedString";
            case TOKEN -> "token";
            case BOOLEAN -> "boolean";
            case BYTE -> "byte";
            case UNSIGNED_BYTE -> "unsignedByte";
            case SHORT -> "short";
            case UNSIGNED_SHORT -> "unsignedShort";
            case INT -> "int";
            case UNSIGNED_INT -> "unsignedInt";
            case LONG -> "long";
            case INTEGER -> "integer";
            case DECIMAL -> "decimal";
            case FLOAT -> "float";
            case DOUBLE -> "double";
            case DATE_TIME -> "dateTime";
            case DATE -> "date";
            case TIME -> "time";
            case DURATION -> "duration";
            case YEAR -> "gYear";
            case YEAR_MONTH -> "gYearMonth";
            case MONTH -> "gMonth";
            case MONTH_DAY -> "gMonthDay";
            case DAY -> "gDay";
            case HEX -> "hexBinary";
            case BASE64 -> "base64Binary";
            case QNAME -> "QName";
        };
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
        file.open("protected ", result, " ", method, "(String namespace, String name) {");
        file.line(result, " found = null;");
        file.open("switch (namespace) {");
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
            file.open("private static ", result, " ", method, String.valueOf(number), "(String name) {");
            file.open("switch (name) {");
            for (QName name : chunk) {
                file.line("case ", JavaText.literal(name.getLocalPart()), ": return ", cases.get(name), ";");
            }
            file.line("default: return null;");
            file.close();
            file.close();
        }
    }
}
