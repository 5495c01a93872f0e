package org.protypos.target.java;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.Plan;
import org.protypos.target.FreeName;
import org.protypos.target.SourceFile;

/**
 * Writes a beginning of the implementations of port types, for developers to go on with: it is written once, and is theirs
 * from then on.
 */
final class ScaffoldEmitter {
    private ScaffoldEmitter() {}

    /**
     * A class for each port type that can be served, in the package of its interface.
     *
     * @param embedded whether the runtime is written beside the code
     */
    static Map<ApiInterface, SourceFile> emit(Plan plan, boolean embedded) {
        JavaContext context = new JavaContext(plan, EmbeddedRuntime.of(plan, embedded));
        Map<ApiInterface, SourceFile> files = new LinkedHashMap<>();
        for (ApiInterface type : plan.bound()) {
            files.put(type, emit(context, type));
        }
        return files;
    }

    private static String className(Plan plan, ApiInterface type) {
        return FreeName.of(plan, type.packageName(), List.of(type.name() + "Impl"));
    }

    private static SourceFile emit(JavaContext context, ApiInterface type) {
        String name = className(context.plan(), type);
        JavaFile file = context.file(type, name);
        InterfaceEmitter.Signatures signatures = new InterfaceEmitter.Signatures(context, file, type, false);
        file.doc("What the service does. This file is yours: it was written once and is not touched again.");
        file.open("public class ", name, " implements ", file.ref(type.packageName(), type.name()), " {");
        boolean first = true;
        for (ApiOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            method(signatures, operation).forEach(file::line);
        }
        file.close();
        return file.own();
    }

    private static List<String> method(InterfaceEmitter.Signatures signatures, ApiOperation operation) {
        return List.of(
                "@Override",
                "public " + signatures.method(operation) + " {",
                "    throw new UnsupportedOperationException(" + JavaText.literal(operation.method()) + ");",
                "}");
    }

    /** The methods of an implementation, by name. */
    static Map<String, String> methods(Plan plan, boolean embedded, ApiInterface type) {
        JavaContext context = new JavaContext(plan, EmbeddedRuntime.of(plan, embedded));
        JavaFile file = context.file(type, className(context.plan(), type));
        InterfaceEmitter.Signatures signatures = new InterfaceEmitter.Signatures(context, file, type, false);
        Map<String, String> methods = new LinkedHashMap<>();
        for (ApiOperation operation : type.operations()) {
            methods.put(
                    operation.method(), method(signatures, operation).stream().collect(Collectors.joining("\n")));
        }
        return methods;
    }
}
