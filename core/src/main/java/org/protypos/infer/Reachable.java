package org.protypos.infer;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** The declarations and structures that documents use, in the order in which one meets them. */
record Reachable(List<Declaration> declarations, Collection<Structure> structures) {
    static Reachable of(Observations seen) {
        List<Declaration> declarations = new ArrayList<>();
        Set<Structure> structures = new LinkedHashSet<>();
        Deque<Structure> todo = new ArrayDeque<>();
        for (Declaration global : seen.globals.values()) {
            declarations.add(global);
            todo.add(global.plain());
            visit(todo, seen, declarations, structures);
        }
        seen.types.values().forEach(type -> todo.add(type.merged()));
        visit(todo, seen, declarations, structures);
        return new Reachable(declarations, structures);
    }

    private static void visit(
            Deque<Structure> todo, Observations seen, List<Declaration> declarations, Set<Structure> structures) {
        while (!todo.isEmpty()) {
            Structure structure = todo.pop();
            if (!structures.add(structure)) {
                continue;
            }
            List<Structure> inner = new ArrayList<>();
            for (Declaration child : structure.children.values()) {
                if (Observations.isForeign(structure, child.name.getNamespaceURI())) {
                    // It is declared globally, where all that stands there is known.
                    continue;
                }
                declarations.add(child);
                inner.add(child.plain());
                child.types.stream()
                        .filter(seen.types::containsKey)
                        .forEach(type -> inner.add(seen.types.get(type).merged()));
            }
            for (int i = inner.size() - 1; i >= 0; i--) {
                todo.push(inner.get(i));
            }
        }
    }
}
