package org.protypos.message.sample;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
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
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Term;

/**
 * How deep the shallowest content of each type is: types may contain themselves, and only choices that lead out of the
 * circle end.
 */
final class MinimalDepth {
    /** No content that ends. */
    static final int ENDLESS = 1_000_000;

    private final Vocabulary vocabulary;
    private final Map<TypeModel, Integer> depths = new IdentityHashMap<>();
    private final Map<TypeModel, List<TypeModel>> concrete = new IdentityHashMap<>();

    MinimalDepth(Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
    }

    /** The depth of the shallowest element of a type, abstract types through those derived from them. */
    int of(TypeModel type) {
        if (!depths.containsKey(type)) {
            settle(type);
        }
        return depths.get(type);
    }

    /** Finds the depths of all types that a type leads to: each round may find shallower ones, the last finds none. */
    private void settle(TypeModel start) {
        Set<TypeModel> reached = Collections.newSetFromMap(new IdentityHashMap<>());
        List<TypeModel> open = new ArrayList<>(List.of(start));
        while (!open.isEmpty()) {
            TypeModel type = open.remove(open.size() - 1);
            if (!depths.containsKey(type) && reached.add(type)) {
                concrete(type).forEach(open::add);
                type.particles().forEach(particle -> collect(particle.term(), particle.least(), open));
            }
        }
        reached.forEach(type -> depths.put(type, ENDLESS));
        boolean changed = true;
        while (changed) {
            changed = false;
            for (TypeModel type : reached) {
                int depth = ENDLESS;
                for (TypeModel one : concrete(type)) {
                    depth = Math.min(depth, one == type ? content(one) : depths.get(one));
                }
                if (depth < depths.get(type)) {
                    depths.put(type, depth);
                    changed = true;
                }
            }
        }
    }

    private int content(TypeModel type) {
        int depth = 0;
        for (Particle particle : type.particles()) {
            depth = Math.max(depth, of(particle));
        }
        return Math.min(ENDLESS, depth + 1);
    }

    private void collect(Term term, int least, List<TypeModel> open) {
        if (least == 0) {
            return;
        }
        term.act(new Term.Acts(
                element -> open.add(vocabulary.typeOf(element)),
                reference -> {
                    for (QName name : vocabulary.substitutes(vocabulary.element(reference.name()))) {
                        open.add(vocabulary.typeOf(vocabulary.element(name)));
                    }
                },
                group -> collect(group(group), 1, open),
                model -> model.particles().forEach(particle -> collect(particle.term(), particle.least(), open)),
                wildcard -> {}));
    }

    private ModelGroup group(GroupReference reference) {
        return vocabulary.schema().groups().get(reference.name()).group();
    }

    /** The depth of the shallowest instance of a declaration: one that may be nil can be that, and ends. */
    int of(ElementDeclaration declaration) {
        return declaration.nillable() && declaration.fixedValue() == null ? 1 : of(vocabulary.typeOf(declaration));
    }

    /** The depth that a particle demands; 0 when it demands nothing. */
    int of(Particle particle) {
        return particle.least() == 0 ? 0 : of(particle.term());
    }

    /** The depth of the shallowest instance of a term. */
    int of(Term term) {
        return term.map(
                new Term.Cases<>(this::of, this::ofReference, group -> of(group(group)), this::ofModel, wildcard -> 1));
    }

    private int ofReference(ElementReference reference) {
        int depth = ENDLESS;
        for (QName name : vocabulary.substitutes(vocabulary.element(reference.name()))) {
            depth = Math.min(depth, of(vocabulary.element(name)));
        }
        return depth;
    }

    private int ofModel(ModelGroup group) {
        boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
        int depth = choice && !group.particles().isEmpty() ? ENDLESS : 0;
        for (Particle particle : group.particles()) {
            depth = choice ? Math.min(depth, of(particle)) : Math.max(depth, of(particle));
        }
        return depth;
    }

    /** The types that an element of a type may really have: itself, or what is derived from it when it is abstract. */
    List<TypeModel> concrete(TypeModel type) {
        if (!type.isAbstract()) {
            return List.of(type);
        }
        List<TypeModel> known = concrete.get(type);
        if (known == null) {
            Set<TypeModel> found = new LinkedHashSet<>();
            for (SchemaType candidate : vocabulary.schema().types().values()) {
                TypeModel model =
                        SchemaComponents.isOriginal(candidate.name()) ? null : vocabulary.type(candidate.name());
                if (model != null && !model.isAbstract() && vocabulary.derives(model, type, Set.of())) {
                    found.add(model);
                }
            }
            known = List.copyOf(found);
            concrete.put(type, known);
        }
        return known;
    }
}
