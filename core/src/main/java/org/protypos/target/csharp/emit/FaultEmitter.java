package org.protypos.target.csharp.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the exception for a declared fault. */
public final class FaultEmitter {
    private FaultEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedFault fault) {
        CSharpFile file = context.file(fault.packageName(), fault.name());
        String type = new CSharpTypes(context, file).of(fault.detail());
        file.doc(
                CSharpText.comment(fault.documentation()),
                "Declared fault: the detail is the element "
                        + CSharpText.comment(fault.element().getLocalPart()) + ".");
        file.block("public sealed class ", fault.name(), " : ", context.runtime(file, "DeclaredFaultException"));
        file.doc("A fault for a server to throw.");
        file.line("public ", fault.name(), "(string reason, ", type, " detail)");
        file.line("    : base(reason)");
        file.block();
        file.line("this.Detail = detail;");
        file.close();
        file.gap().doc("A fault that a client received.");
        file.line("public ", fault.name(), "(", context.runtime(file, "SoapFault"), " fault, ", type, " detail)");
        file.line("    : base(fault)");
        file.block();
        file.line("this.Detail = detail;");
        file.close();
        file.gap().doc("What the contract says goes with this fault.");
        file.line("public ", type, " Detail { get; private set; }");
        file.gap().line("/// <inheritdoc/>");
        file.block("protected override void WriteDetail(", context.runtime(file, "XmlOutput"), " output)");
        String written = CSharpDialect.writable(fault.detail(), "this.Detail");
        if (fault.detail().nillable()) {
            file.block("if (this.Detail == null)");
            file.line("output.Nil(", CSharpTypes.name(fault.detail()), ");");
            file.line("return;");
            file.close();
        }
        new WritingCode(context, file, new CSharpDialect(new CSharpTypes(context, file), null))
                .writeElement(fault.detail(), written);
        file.close();
        file.close();
        return file.finish();
    }
}
