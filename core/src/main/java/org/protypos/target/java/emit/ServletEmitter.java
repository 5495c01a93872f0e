package org.protypos.target.java.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;

/** Writes the adapter that serves the endpoint of an interface in a servlet container. */
public final class ServletEmitter {
    private ServletEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedInterface type) {
        JavaFile file = context.file(type.packageName(), type.servlet());
        TypeName api = TypeName.ofContract(type.packageName(), type.name());
        file.doc(
                "Serves an implementation of {@code " + type.name() + "} inside a servlet container.",
                "A container makes servlets by itself: derive one with a constructor that hands the implementation on, and"
                        + " map it to its path with everything beneath.");
        file.block("public class $N extends $T", type.servlet(), context.servlet("EndpointServlet"));
        file.line("private static final long serialVersionUID = 1L;");
        file.gap().doc("Gives a servlet that carries operations out by calling {@code implementation}.");
        file.block("public $N($T implementation)", type.servlet(), api);
        file.line("super($T.of(implementation));", TypeName.ofContract(type.packageName(), type.endpoint()));
        file.close();
        file.close();
        return file.finish();
    }
}
