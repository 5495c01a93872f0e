package org.protypos.message.inclusion;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.Term;

/**
 * A content model that is elements one after the other, none of them under a name that another has too. Most are, and two of them are
 * compared element by element.
 */
final class FlatContent {
    private final Vocabulary vocabulary;
    private final List<Item> items = new ArrayList<>();
    private final Map<QName, Integer> places = new HashMap<>();
    private boolean flat = true;

    /**
     * An element with how often it comes.
     *
     * @param names what may stand for it, itself among them if it can be
     */
    record Item(ElementDeclaration declaration, Set<QName> names, int least, int most) {}

    private FlatContent(Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
    }

    /** The content of a type, or null when it is another model. */
    static FlatContent of(TypeModel type, Vocabulary vocabulary) {
        FlatContent content = new FlatContent(vocabulary);
        type.particles().forEach(particle -> content.take(particle, new HashSet<>()));
        return content.flat ? content : null;
    }

    private void take(Particle particle, Set<QName> groups) {
        Term term = particle.term();
        boolean once = particle.least() == 1 && particle.most() == 1;
        if (term instanceof ElementDeclaration element) {
            add(element, Set.of(element.name()), particle);
        } else if (term instanceof ElementReference reference) {
            ElementDeclaration element = vocabulary.element(reference.name());
            add(element, vocabulary.substitutes(element), particle);
        } else if (term instanceof GroupReference reference && once && groups.add(reference.name())) {
            take(new Particle(vocabulary.schema().groups().get(reference.name()).group(), 1, 1), groups);
        } else if (term instanceof ModelGroup group
                && once
                && (group.compositor() == ModelGroup.Compositor.SEQUENCE
                        || group.particles().size() == 1)) {
            group.particles().forEach(part -> take(part, groups));
        } else {
            flat = false;
        }
    }

    private void add(ElementDeclaration element, Set<QName> names, Particle particle) {
        if (particle.most() > 0) {
            for (QName name : names) {
                flat &= places.putIfAbsent(name, items.size()) == null;
            }
            items.add(new Item(element, new LinkedHashSet<>(names), particle.least(), particle.most()));
        }
    }

    List<Item> items() {
        return items;
    }

    /** Which of the items a name is one of, or -1. */
    int place(QName name) {
        return places.getOrDefault(name, -1);
    }

    /** The declaration of an element of a name at an item. */
    ElementDeclaration declaration(Item item, QName name) {
        return item.declaration().name().equals(name) ? item.declaration() : vocabulary.element(name);
    }
}
