package org.protypos.target.java.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.target.Beginning;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.EmbeddedRuntime;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;

/**
 * Writes a beginning of the implementations of port types, for developers to go on with: it is written once, and is theirs
 * from then on.
 */
public final class ScaffoldEmitter {
    private ScaffoldEmitter() {}

    /**
     * A class for each port type that can be served, in the package of its interface.
     *
     * @param embedded whether the runtime is written beside the code
     */
    public static List<Beginning> emit(Plan plan, boolean embedded) {
        JavaContext context = new JavaContext(plan, EmbeddedRuntime.of(plan, embedded));
        return plan.bound().stream().map(type -> emit(context, type)).toList();
    }

    private static String className(Plan plan, PlannedInterface type) {
        return FreeName.of(plan, type.packageName(), List.of(type.name() + "Impl"));
    }

    private static Beginning emit(JavaContext context, PlannedInterface type) {
        String name = className(context.plan(), type);
        JavaFile file = context.file(type, name);
        InterfaceEmitter.Signatures signatures = new InterfaceEmitter.Signatures(context, type, false);
        file.doc("What the service does. This file is yours: it was written once and is not touched again.");
        file.block("public class $N implements $T", name, TypeName.ofContract(type.packageName(), type.name()));
        boolean first = true;
        Map<String, String> methods = new LinkedHashMap<>();
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            List<Code> method = method(signatures, operation, context.soap("CallRefusedException"));
            method.forEach(line -> file.line("$L", line));
            methods.put(operation.method(), Code.join("\n", method).text(file));
        }
        file.close();
        return new Beginning(file.own(), methods, Beginning.METHOD);
    }

    private static List<Code> method(
            InterfaceEmitter.Signatures signatures, PlannedOperation operation, TypeName refusal) {
        return List.of(
                Code.of("@Override"),
                Code.of("public $L {", signatures.method(operation)),
                Code.of("    throw $T.notImplemented($S);", refusal, operation.method() + " is not implemented"),
                Code.of("}"));
    }
}
