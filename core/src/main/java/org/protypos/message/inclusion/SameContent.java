package org.protypos.message.inclusion;

import java.util.HashSet;
import java.util.List;
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

/** Whether two content models are written alike, name by name: then they need not be walked. Most of two versions of a contract is alike. */
final class SameContent {
    private final Pairs pairs;
    private final TypeModel one;
    private final TypeModel other;
    private final Set<QName> groups = new HashSet<>();

    SameContent(Pairs pairs, TypeModel one, TypeModel other) {
        this.pairs = pairs;
        this.one = one;
        this.other = other;
    }

    boolean isSame() {
        return areSame(one.particles(), other.particles());
    }

    private boolean areSame(List<Particle> some, List<Particle> others) {
        if (some.size() != others.size()) {
            return false;
        }
        for (int i = 0; i < some.size(); i++) {
            Particle mine = some.get(i);
            Particle theirs = others.get(i);
            if (mine.least() != theirs.least() || mine.most() != theirs.most() || !isSame(mine.term(), theirs.term())) {
                return false;
            }
        }
        return true;
    }

    /** Wildcards are walked, for what they let in depends on all of both contracts. */
    private boolean isSame(Term mine, Term theirs) {
        if (mine instanceof ElementDeclaration element) {
            return theirs instanceof ElementDeclaration also
                    && pairs.toOther(element.name()).equals(also.name());
        }
        if (mine instanceof ElementReference reference) {
            return theirs instanceof ElementReference also
                    && pairs.toOther(reference.name()).equals(also.name())
                    && substitutes(pairs.one, reference, true).equals(substitutes(pairs.other, also, false));
        }
        if (mine instanceof GroupReference reference) {
            return theirs instanceof GroupReference also
                    && (!groups.add(reference.name())
                            || isSame(
                                    pairs.one
                                            .schema()
                                            .groups()
                                            .get(reference.name())
                                            .group(),
                                    pairs.other
                                            .schema()
                                            .groups()
                                            .get(also.name())
                                            .group()))
                    && pairs.toOther(reference.name()).equals(also.name());
        }
        return mine instanceof ModelGroup group
                && theirs instanceof ModelGroup also
                && group.compositor() == also.compositor()
                && areSame(group.particles(), also.particles());
    }

    private Set<QName> substitutes(Vocabulary vocabulary, ElementReference reference, boolean translated) {
        Set<QName> names = new HashSet<>();
        vocabulary
                .substitutes(vocabulary.element(reference.name()))
                .forEach(name -> names.add(translated ? pairs.toOther(name) : name));
        return names;
    }
}
