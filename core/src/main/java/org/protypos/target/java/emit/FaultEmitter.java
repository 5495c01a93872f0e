package org.protypos.target.java.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.code.Code;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

/** Writes the exception for a declared fault. */
public final class FaultEmitter {
    private FaultEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedFault fault) {
        JavaFile file = context.file(fault.packageName(), fault.name());
        JavaDialect dialect = new JavaDialect(context);
        Code type = dialect.types().of(fault.detail());
        file.doc(
                JavaText.comment(fault.documentation()),
                "Declared fault: the detail is the element "
                        + JavaText.comment(fault.element().getLocalPart()) + ".");
        file.block("public final class $N extends $T", fault.name(), context.soap("DeclaredFault"));
        file.line("private static final long serialVersionUID = 1L;");
        file.gap();
        file.line("private final transient $T detail;", type);
        file.gap().doc("A fault for a server to throw.");
        file.block("public $N(String reason, $T detail)", fault.name(), type);
        file.line("super(reason);");
        file.line("this.detail = detail;");
        file.close();
        file.gap().doc("A fault that a client received.");
        file.block("public $N($T fault, $T detail)", fault.name(), context.soap("SoapFault"), type);
        file.line("super(fault);");
        file.line("this.detail = detail;");
        file.close();
        file.gap().doc("What the contract says goes with this fault.");
        file.block("public $T getDetail()", type);
        file.line("return this.detail;");
        file.close();
        file.gap();
        file.line("@Override");
        file.block("protected void writeDetail($T out)", context.xml("XmlOutput"));
        if (fault.detail().nillable()) {
            file.block("if (this.detail == null)");
            file.line("out.nil($L);", dialect.name(fault.detail()));
            file.line("return;");
            file.close();
        }
        new WritingCode(context, file, dialect).writeElement(fault.detail(), Code.of("this.detail"));
        file.close();
        file.close();
        return file.finish();
    }
}
