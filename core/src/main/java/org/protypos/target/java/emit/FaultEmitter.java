package org.protypos.target.java.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes the exception for a declared fault. */
public final class FaultEmitter {
    private FaultEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedFault fault) {
        JavaFile file = context.file(fault.packageName(), fault.name());
        JavaDialect dialect = new JavaDialect(new JavaTypes(context, file));
        String type = dialect.types().of(fault.detail());
        file.doc(
                JavaText.comment(fault.documentation()),
                "Declared fault: the detail is the element "
                        + JavaText.comment(fault.element().getLocalPart()) + ".");
        file.block("public final class ", fault.name(), " extends ", context.soap(file, "DeclaredFault"));
        file.line("private static final long serialVersionUID = 1L;");
        file.gap();
        file.line("private final transient ", type, " detail;");
        file.gap().doc("A fault for a server to throw.");
        file.block("public ", fault.name(), "(String reason, ", type, " detail)");
        file.line("super(reason);");
        file.line("this.detail = detail;");
        file.close();
        file.gap().doc("A fault that a client received.");
        file.block("public ", fault.name(), "(", context.soap(file, "SoapFault"), " fault, ", type, " detail)");
        file.line("super(fault);");
        file.line("this.detail = detail;");
        file.close();
        file.gap().doc("What the contract says goes with this fault.");
        file.block("public ", type, " getDetail()");
        file.line("return this.detail;");
        file.close();
        file.gap();
        file.line("@Override");
        file.block("protected void writeDetail(", context.xml(file, "XmlOutput"), " out)");
        if (fault.detail().nillable()) {
            file.block("if (this.detail == null)");
            file.line("out.nil(", dialect.name(fault.detail()), ");");
            file.line("return;");
            file.close();
        }
        new WritingCode(context, file, dialect).writeElement(fault.detail(), "this.detail");
        file.close();
        file.close();
        return file.finish();
    }
}
