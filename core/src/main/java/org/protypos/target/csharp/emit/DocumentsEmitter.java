package org.protypos.target.csharp.emit;

import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;

/** Writes the class that holds the contract's documents for a server to publish. */
public final class DocumentsEmitter {
    /** Longer literals are hard on editors. */
    private static final int PIECE = 2_000;

    private DocumentsEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, String name, List<String> documents) {
        CSharpFile file = context.file(context.plan().rootPackage(), name);
        TypeName holder = context.runtime("ContractDocuments");
        file.doc("The documents of the contract, for a server to show.");
        file.block("public static class $N", name);
        file.doc("The documents, the one to start from first.");
        file.block("public static $T Documents()", holder);
        file.line("return new $T(", holder);
        file.indent();
        for (int i = 0; i < documents.size(); i++) {
            file.line(i == documents.size() - 1 ? "Document$L);" : "Document$L,", i + 1);
        }
        file.outdent();
        file.close();
        for (int i = 0; i < documents.size(); i++) {
            document(file, i + 1, documents.get(i));
        }
        file.close();
        return file.finish();
    }

    private static void document(CSharpFile file, int number, String text) {
        file.gap();
        file.line("private const string Document$L =", number);
        file.indent();
        for (int from = 0; from < text.length(); from += PIECE) {
            int to = Math.min(text.length(), from + PIECE);
            file.line(to == text.length() ? "$S;" : "$S +", text.substring(from, to));
        }
        if (text.isEmpty()) {
            file.line("\"\";");
        }
        file.outdent();
    }
}
