package org.protypos.target.java.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.protypos.target.code.Code;
import org.protypos.target.java.text.JavaFile;

/**
 * Code for lists that are longer than one method can hold (JVM specification, section 4.7.3): in methods of their own, which
 * are written when the method that calls them is finished.
 */
final class Pieces {
    /** So many members fit one method with room to spare. */
    static final int MOST = 150;

    private final JavaFile file;
    private final Map<Code, Runnable> methods = new LinkedHashMap<>();

    Pieces(JavaFile file) {
        this.file = file;
    }

    /**
     * Divides a list.
     *
     * @param result the type of what the methods return
     * @param method what they are called, which their numbers follow
     * @param parameter type and name of their parameter
     * @param body writes the inside of one, for some of the list
     * @param call writes, at once, what calls one
     */
    <T> void divide(
            List<T> all, Code result, String method, Code parameter, Consumer<List<T>> body, Consumer<String> call) {
        for (int from = 0; from < all.size(); from += MOST) {
            List<T> some = all.subList(from, Math.min(all.size(), from + MOST));
            String name = method + "Part" + (from / MOST + 1);
            call.accept(name);
            methods.put(Code.of("private $T $N($L)", result, name, parameter), () -> body.accept(some));
        }
    }

    /** Writes the methods, and those that they call in their turn. */
    void write() {
        while (!methods.isEmpty()) {
            Code head = methods.keySet().iterator().next();
            file.gap();
            file.block("$L", head);
            methods.remove(head).run();
            file.close();
        }
    }
}
