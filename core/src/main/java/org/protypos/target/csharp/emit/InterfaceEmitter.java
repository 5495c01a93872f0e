package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.Property;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.CSharpText;

/** Writes the interface of a port type, which client and server share, and the types for operations with several results. */
public final class InterfaceEmitter {
    private InterfaceEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type.packageName(), type.name());
        Signatures signatures = new Signatures(context, type);
        file.doc(
                CSharpText.comment(type.documentation()),
                "Port type " + CSharpText.comment(type.xmlName().getLocalPart()) + " of namespace "
                        + CSharpText.comment(type.xmlName().getNamespaceURI()) + ".");
        file.block("public interface $N", type.name());
        boolean first = true;
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            signatures.document(file, operation, false);
            file.line("$L;", signatures.method(operation));
        }
        file.close();
        return file.finish();
    }

    /** The types for operations with several results. */
    public static List<SourceFile> results(CSharpContext context, PlannedInterface type) {
        List<SourceFile> files = new ArrayList<>();
        for (PlannedOperation operation : type.operations()) {
            if (operation.resultName() != null) {
                files.add(result(context, type, operation));
            }
        }
        return files;
    }

    private static SourceFile result(CSharpContext context, PlannedInterface type, PlannedOperation operation) {
        CSharpFile file = context.file(type.packageName(), operation.resultName());
        Signatures signatures = new Signatures(context, type);
        List<Property> values = operation.output().values();
        List<String> names = Signatures.resultNames(operation);
        List<Code> parameters = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            parameters.add(Code.of("$T $N", signatures.type(values.get(i)), parameter(names.get(i))));
        }
        file.doc("What " + CSharpText.comment(operation.method()) + " gives.");
        String self = operation.resultName();
        file.block("public sealed class $N : $T<$N>", self, TypeName.ofLibrary("System", "IEquatable"), self);
        file.doc("What the operation is to give.");
        file.block("public $N($L)", operation.resultName(), Code.join(", ", parameters));
        names.forEach(name -> file.line("this.$N = $N;", name, parameter(name)));
        file.close();
        for (int i = 0; i < names.size(); i++) {
            String about = CSharpText.comment(values.get(i).documentation());
            file.gap().doc(about.isBlank() ? "One of the results." : about);
            file.line("public $T $N { get; private set; }", signatures.type(values.get(i)), names.get(i));
        }
        comparing(file, context, self, names);
        file.gap().line("/// <inheritdoc/>");
        file.block("public override string ToString()");
        TypeName description = context.runtime("XmlDescription");
        file.line("$T description = new $T($S);", description, description, self);
        names.forEach(name -> file.line("description.Add($S, this.$N);", name, name));
        file.line("return description.Finish();");
        file.close();
        file.close();
        return file.finish();
    }

    private static void comparing(CSharpFile file, CSharpContext context, String self, List<String> names) {
        TypeName members = context.runtime("Members").members();
        file.gap().line("/// <inheritdoc/>");
        file.block("public bool Equals($N other)", self);
        Code same = Code.join(
                " && ",
                names.stream()
                        .map(name -> Code.of("$T.AreEqual(this.$N, other.$N)", members, name, name))
                        .toList());
        file.line("return !object.ReferenceEquals(other, null) && $L;", same);
        file.close();
        file.gap().line("/// <inheritdoc/>");
        file.block("public override bool Equals(object other)");
        file.line("return this.Equals(other as $N);", self);
        file.close();
        file.gap().line("/// <inheritdoc/>");
        file.block("public override int GetHashCode()");
        file.line("int hash = 0;");
        file.block("unchecked");
        names.forEach(name -> file.line("hash = 31 * hash + $T.Hash(this.$N);", members, name));
        file.close();
        file.line("return hash;");
        file.close();
    }

    private static String parameter(String name) {
        return CSharpNames.field(name);
    }
}
