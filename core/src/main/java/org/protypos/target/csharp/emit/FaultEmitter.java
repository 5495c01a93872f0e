package org.protypos.target.csharp.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.code.Code;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;

/** Writes the exception for a declared fault. */
public final class FaultEmitter {
    private FaultEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedFault fault) {
        CSharpFile file = context.file(fault.packageName(), fault.name());
        CSharpDialect dialect = new CSharpDialect(context.types(), null);
        Code type = dialect.types().of(fault.detail());
        file.doc(
                CSharpText.comment(fault.documentation()),
                "Declared fault: the detail is the element "
                        + CSharpText.comment(fault.element().getLocalPart()) + ".");
        file.block("public sealed class $N : $T", fault.name(), context.runtime("DeclaredFaultException"));
        file.doc("A fault for a server to throw.");
        file.line("public $N(string reason, $T detail)", fault.name(), type);
        file.line("    : base(reason)");
        file.open();
        file.line("this.Detail = detail;");
        file.close();
        file.gap().doc("A fault that a client received.");
        file.line("public $N($T fault, $T detail)", fault.name(), context.runtime("SoapFault"), type);
        file.line("    : base(fault)");
        file.open();
        file.line("this.Detail = detail;");
        file.close();
        file.gap().doc("What the contract says goes with this fault.");
        file.line("public $T Detail { get; private set; }", type);
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override void WriteDetail($T output)", context.runtime("XmlOutput"));
        Code written = CSharpDialect.writable(fault.detail(), Code.of("this.Detail"));
        if (fault.detail().nillable()) {
            file.block("if (this.Detail == null)");
            file.line("output.Nil($L);", dialect.name(fault.detail()));
            file.line("return;");
            file.close();
        }
        new WritingCode(context, file, dialect).writeElement(fault.detail(), written);
        file.close();
        file.close();
        return file.finish();
    }
}
