package org.protypos.target.java.emit;

import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;

/** Writes the class that holds the contract's documents for a server to publish. */
public final class DocumentsEmitter {
    /** A string constant holds 65,535 bytes; a character takes three at most. */
    private static final int PIECE = 16_000;

    private DocumentsEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, String name, List<String> documents) {
        JavaFile file = context.file(context.plan().rootPackage(), name);
        TypeName holder = context.soap("ContractDocuments");
        file.doc("The documents of the contract, for a server to show.");
        file.block("public final class $N", name);
        file.line("private $N() {}", name);
        file.gap().doc("The documents, the one to start from first.");
        file.block("public static $T documents()", holder);
        file.line("return $T.of(", holder);
        file.indent();
        for (int i = 0; i < documents.size(); i++) {
            file.line(i == documents.size() - 1 ? "document$L());" : "document$L(),", i);
        }
        file.outdent();
        file.close();
        for (int i = 0; i < documents.size(); i++) {
            document(file, i, documents.get(i));
        }
        file.close();
        return file.finish();
    }

    private static void document(JavaFile file, int number, String text) {
        file.gap();
        file.block("private static String[] document$L()", number);
        file.block("return new String[]");
        for (int from = 0; from < text.length(); from += PIECE) {
            file.line("$S,", text.substring(from, Math.min(text.length(), from + PIECE)));
        }
        file.close(";");
        file.close();
    }
}
