package org.protypos.target.java.emit;

import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

/** Writes the class that holds the contract's documents for a server to publish. */
public final class DocumentsEmitter {
    /** A string constant holds 65,535 bytes; a character takes three at most. */
    private static final int PIECE = 16_000;

    private DocumentsEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, String name, List<String> documents) {
        JavaFile file = context.file(context.plan().rootPackage(), name);
        String holder = context.soap(file, "ContractDocuments");
        file.doc("The documents of the contract, for a server to show.");
        file.block("public final class ", name);
        file.line("private ", name, "() {}");
        file.gap().doc("The documents, the one to start from first.");
        file.block("public static ", holder, " documents()");
        file.line("return ", holder, ".of(");
        file.indent();
        for (int i = 0; i < documents.size(); i++) {
            file.line("document", String.valueOf(i), "()", i == documents.size() - 1 ? ");" : ",");
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
        file.block("private static String[] document", String.valueOf(number), "()");
        file.block("return new String[]");
        for (int from = 0; from < text.length(); from += PIECE) {
            file.line(JavaText.literal(text.substring(from, Math.min(text.length(), from + PIECE))), ",");
        }
        file.close(";");
        file.close();
    }
}
