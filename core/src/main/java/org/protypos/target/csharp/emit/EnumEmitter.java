package org.protypos.target.csharp.emit;

import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;

/** Writes an enum for a simple type that names its values. */
public final class EnumEmitter {
    private EnumEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedEnum type) {
        CSharpFile file = context.file(type.packageName(), type.name());
        write(file, type);
        return file.finish();
    }

    static void write(CSharpFile file, PlannedEnum type) {
        file.doc(
                CSharpText.comment(type.documentation()),
                type.documentation().isBlank() ? "The values of " + type.name() + "." : "");
        file.block("public enum $N", type.name());
        int last = type.constants().size() - 1;
        for (int i = 0; i <= last; i++) {
            PlannedEnum.Constant constant = type.constants().get(i);
            if (i > 0) {
                file.gap();
            }
            file.doc(
                    CSharpText.comment(constant.documentation()),
                    constant.documentation().isBlank()
                            ? constant.value().isBlank()
                                    ? "A value of white space, or none at all."
                                    : "The value "
                                            + CSharpText.comment(
                                                    constant.value().strip()) + "."
                            : "");
            file.line(i == last ? "$N" : "$N,", constant.name());
        }
        file.close();
    }
}
