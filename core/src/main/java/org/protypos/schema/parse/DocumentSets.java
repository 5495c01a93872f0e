package org.protypos.schema.parse;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.Element;

/**
 * Which schema documents belong together because one includes, redefines or overrides the other, so that one hand made
 * them; what is imported was made by others (XML Schema Part 1, sections 4.2.1 to 4.2.3).
 */
final class DocumentSets {
    private final Map<SourceText, Set<SourceText>> included = new IdentityHashMap<>();
    private final Map<SourceText, SourceText> above = new IdentityHashMap<>();
    private final Map<List<Object>, Element> redefinitions = new HashMap<>();

    /** Notes that a document includes another. */
    void include(SourceText including, SourceText other) {
        included.computeIfAbsent(including, any -> newSet()).add(other);
        SourceText one = top(including);
        SourceText two = top(other);
        if (one != two) {
            above.put(two, one);
        }
    }

    private static Set<SourceText> newSet() {
        return Collections.newSetFromMap(new IdentityHashMap<>());
    }

    private SourceText top(SourceText document) {
        SourceText current = document;
        while (above.containsKey(current)) {
            current = above.get(current);
        }
        return current;
    }

    /** Whether two places stand in documents that belong together. */
    boolean areOne(Place a, Place b) {
        return top(a.source()) == top(b.source());
    }

    /**
     * Notes that a component is redefined.
     *
     * @param redefinition what redefines it
     * @return the redefinition before this one, if it stands in a document that this one's neither includes nor is included
     *     by; else null
     */
    Element redefine(Element redefinition, QName name) {
        String kind = redefinition.name().endsWith("Type") ? "type" : redefinition.name();
        Element before = redefinitions.put(List.of(kind, name), redefinition);
        if (before == null) {
            return null;
        }
        SourceText here = redefinition.document().text();
        SourceText there = before.document().text();
        return reaches(here, there) || reaches(there, here) ? null : before;
    }

    private boolean reaches(SourceText from, SourceText wanted) {
        Set<SourceText> seen = newSet();
        Deque<SourceText> open = new ArrayDeque<>(List.of(from));
        while (!open.isEmpty()) {
            SourceText document = open.pop();
            if (document == wanted) {
                return true;
            }
            if (seen.add(document)) {
                open.addAll(included.getOrDefault(document, Set.of()));
            }
        }
        return false;
    }
}
