package org.protypos.message.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;

/**
 * What may still come in an element (XML Schema Part 1, section 3.8.4). A model never changes: each element that comes
 * leads to the model of what may come after it. Models that were asked before are remembered, so that long messages cost
 * one look for each element.
 */
public abstract class ContentModel {
    /** Nothing may come. */
    public static final ContentModel EMPTY = new ContentModel(true) {
        @Override
        Step find(QName name) {
            return null;
        }

        @Override
        public void next(Consumer<Leaf> to) {
            // nothing comes next
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            // nor later
        }
    };

    private final Map<QName, Step> known = new HashMap<>();

    private final boolean complete;

    private ContentModel(boolean complete) {
        this.complete = complete;
    }

    /**
     * What an element leads to.
     *
     * @param leaf the part of the contract's content model that the element is an instance of
     * @param rest what may come after it
     */
    public record Step(Leaf leaf, ContentModel rest) {}

    /** Whether the element around may end here. */
    public final boolean isComplete() {
        return complete;
    }

    abstract Step find(QName name);

    /** Gives all that may come next. */
    public abstract void next(Consumer<Leaf> to);

    /** Where an element of a name leads, or null when it may not come. */
    public final Step step(QName name) {
        if (known.containsKey(name)) {
            return known.get(name);
        }
        Step step = find(name);
        known.put(name, step);
        return step;
    }

    /** Where an element of a name leads when whatever must come before it is passed over, or null. */
    public Step skipTo(QName name) {
        return step(name);
    }

    private static Step either(Step a, Step b) {
        if (a == null || b == null) {
            return a == null ? b : a;
        }
        return new Step(a.leaf(), choice(List.of(a.rest(), b.rest())));
    }

    /** Some place of a whole model where an element of a name may come, or null. */
    public static Leaf anywhere(ContentModel model, QName name) {
        Leaf[] found = new Leaf[1];
        model.leaves(leaf -> {
            if (found[0] == null && leaf.accepts(name)) {
                found[0] = leaf;
            }
        });
        return found[0];
    }

    /** All that may come next, in the order of the contract. */
    public static List<Leaf> next(ContentModel model) {
        Set<Leaf> leaves = new LinkedHashSet<>();
        model.next(leaves::add);
        return List.copyOf(leaves);
    }

    /** All that may come anywhere in a whole model. */
    public static List<Leaf> all(ContentModel model) {
        List<Leaf> leaves = new ArrayList<>();
        model.leaves(leaves::add);
        return leaves;
    }

    /** The local names of the elements that may come anywhere in a whole model. */
    public static List<String> names(ContentModel model) {
        List<String> names = new ArrayList<>();
        model.leaves(leaf -> {
            if (leaf instanceof Leaf.Element element) {
                names.add(element.declaration().name().getLocalPart());
            }
        });
        return names;
    }

    /** Gives all leaves, whether they may come next or later. */
    abstract void leaves(Consumer<Leaf> to);

    static ContentModel leaf(Leaf leaf) {
        return new One(leaf);
    }

    static ContentModel sequence(ContentModel first, ContentModel then) {
        return first == EMPTY ? then : then == EMPTY ? first : new Sequence(first, then);
    }

    static ContentModel choice(List<ContentModel> models) {
        List<ContentModel> flat = new ArrayList<>();
        for (ContentModel model : models) {
            for (ContentModel one : model instanceof Choice choice ? choice.models : List.of(model)) {
                if (flat.stream().noneMatch(other -> other == one)) {
                    flat.add(one);
                }
            }
        }
        for (ContentModel model : models) {
            if (model instanceof Choice choice && choice.models.size() == flat.size()) {
                return choice;
            }
        }
        return flat.size() == 1 ? flat.get(0) : new Choice(List.copyOf(flat));
    }

    static ContentModel repeated(ContentModel model, int least, int most) {
        if (most == 0 || model == EMPTY) {
            return EMPTY;
        }
        return least == 1 && most == 1 ? model : new Repeated(model, model.isComplete() ? 0 : least, most);
    }

    static ContentModel all(List<ContentModel> models) {
        return models.isEmpty() ? EMPTY : new All(models);
    }

    private static final class One extends ContentModel {
        private final Leaf leaf;

        One(Leaf leaf) {
            super(false);
            this.leaf = leaf;
        }

        @Override
        Step find(QName name) {
            return leaf.accepts(name) ? new Step(leaf, EMPTY) : null;
        }

        @Override
        public void next(Consumer<Leaf> to) {
            to.accept(leaf);
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            to.accept(leaf);
        }
    }

    private static final class Sequence extends ContentModel {
        private final ContentModel first;
        private final ContentModel then;

        Sequence(ContentModel first, ContentModel then) {
            super(first.isComplete() && then.isComplete());
            this.first = first;
            this.then = then;
        }

        @Override
        Step find(QName name) {
            Step here = first.step(name);
            Step step = here == null ? null : new Step(here.leaf(), sequence(here.rest(), then));
            return first.isComplete() ? either(step, then.step(name)) : step;
        }

        @Override
        public Step skipTo(QName name) {
            Step here = first.skipTo(name);
            return here == null ? then.skipTo(name) : new Step(here.leaf(), sequence(here.rest(), then));
        }

        @Override
        public void next(Consumer<Leaf> to) {
            first.next(to);
            if (first.isComplete()) {
                then.next(to);
            }
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            first.leaves(to);
            then.leaves(to);
        }
    }

    private static final class Choice extends ContentModel {
        private final List<ContentModel> models;

        Choice(List<ContentModel> models) {
            super(models.stream().anyMatch(ContentModel::isComplete));
            this.models = models;
        }

        @Override
        Step find(QName name) {
            Step step = null;
            for (ContentModel model : models) {
                step = either(step, model.step(name));
            }
            return step;
        }

        @Override
        public Step skipTo(QName name) {
            for (ContentModel model : models) {
                Step here = model.skipTo(name);
                if (here != null) {
                    return here;
                }
            }
            return null;
        }

        @Override
        public void next(Consumer<Leaf> to) {
            models.forEach(model -> model.next(to));
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            models.forEach(model -> model.leaves(to));
        }
    }

    private static final class Repeated extends ContentModel {
        private final ContentModel model;
        private final int least;
        private final int most;
        private ContentModel oneLess;

        Repeated(ContentModel model, int least, int most) {
            super(least == 0);
            this.model = model;
            this.least = least;
            this.most = most;
        }

        @Override
        Step find(QName name) {
            Step here = model.step(name);
            return here == null ? null : new Step(here.leaf(), sequence(here.rest(), oneLess()));
        }

        private ContentModel oneLess() {
            if (oneLess == null) {
                boolean endless = most == Integer.MAX_VALUE;
                oneLess = endless && least == 0
                        ? this
                        : repeated(model, Math.max(0, least - 1), endless ? most : most - 1);
            }
            return oneLess;
        }

        @Override
        public Step skipTo(QName name) {
            Step here = model.skipTo(name);
            return here == null ? null : new Step(here.leaf(), sequence(here.rest(), oneLess()));
        }

        @Override
        public void next(Consumer<Leaf> to) {
            model.next(to);
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            model.leaves(to);
        }
    }

    private static final class All extends ContentModel {
        private final List<ContentModel> models;

        All(List<ContentModel> models) {
            super(models.stream().allMatch(ContentModel::isComplete));
            this.models = models;
        }

        @Override
        Step find(QName name) {
            for (ContentModel model : models) {
                Step here = model.step(name);
                if (here != null) {
                    List<ContentModel> others = new ArrayList<>(models);
                    others.remove(model);
                    if (here.rest() != EMPTY) {
                        others.add(here.rest());
                    }
                    return new Step(here.leaf(), all(others));
                }
            }
            return null;
        }

        @Override
        public void next(Consumer<Leaf> to) {
            models.forEach(model -> model.next(to));
        }

        @Override
        void leaves(Consumer<Leaf> to) {
            models.forEach(model -> model.leaves(to));
        }
    }
}
