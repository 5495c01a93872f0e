package org.protypos.message.inclusion;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.sample.Outline;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Wildcard;

/**
 * Walks two content models together: the product of their automata, each pair of states once (XML Schema Part 1, section
 * 3.8.4). Where the other refuses what the one allows the walk goes on as if it had not, so that all that is refused is found.
 */
final class ContentInclusion {
    /** No more pairs of states are walked. */
    private static final int MOST_PAIRS = 20_000;

    /** No message is made with more of one element; where more must be there, none is shown. */
    private static final int LONGEST_WORD = 5_000;

    private final Pairs pairs;
    private final TypeModel one;
    private final TypeModel other;
    private final Local found;
    private final Map<ContentModel, Map<ContentModel, boolean[]>> seen = new IdentityHashMap<>();
    private final Deque<At> open = new ArrayDeque<>();
    private final Set<Object> told = new HashSet<>();
    private final Map<ContentModel, List<QName>> endings = new IdentityHashMap<>();
    private final Set<Elements> inner = Collections.newSetFromMap(new IdentityHashMap<>());
    private int walked;

    /**
     * Where the walk is.
     *
     * @param isRefused whether something was refused on the way
     */
    private record At(ContentModel one, ContentModel other, boolean isRefused, At before, QName name) {
        List<QName> word() {
            List<QName> word = new ArrayList<>();
            for (At at = this; at.before != null; at = at.before) {
                word.add(0, at.name);
            }
            return word;
        }
    }

    ContentInclusion(Pairs pairs, TypeModel one, TypeModel other, Local found) {
        this.pairs = pairs;
        this.one = one;
        this.other = other;
        this.found = found;
    }

    void compare() {
        FlatContent mine = FlatContent.of(one, pairs.one);
        FlatContent theirs = mine == null ? null : FlatContent.of(other, pairs.other);
        if (theirs != null && areInOrder(mine, theirs)) {
            flat(mine, theirs);
            return;
        }
        if (new SameContent(pairs, one, other).isSame()) {
            same();
            return;
        }
        push(new At(one.content(), other.content(), false, null, null));
        while (!open.isEmpty() && walked < MOST_PAIRS) {
            At at = open.poll();
            if (at.one().isComplete() && !at.other().isComplete()) {
                missing(at, List.of());
            }
            names(at).forEach((name, leaf) -> step(at, name, leaf));
        }
        if (!open.isEmpty()) {
            found.add(Gap.Kind.UNDECIDED, "what may stand in it in large numbers", null, whole());
        }
    }

    /** Where both models say the same, only what stands in them is left to compare. */
    private void same() {
        for (Leaf leaf : ContentModel.all(one.content())) {
            if (leaf instanceof Leaf.Element element) {
                for (QName name : element.substitutes()) {
                    ElementDeclaration declared = declaration(element, name);
                    boolean possible = pairs.samples.isPossible(pairs.one.typeOf(declared));
                    Leaf theirs = possible ? ContentModel.anywhere(other.content(), pairs.toOther(name)) : null;
                    if (theirs instanceof Leaf.Element) {
                        inner(name, declared, declaredThere(name, theirs), () -> wordWith(name));
                    }
                }
            }
        }
    }

    /** Whether what both hold comes in one order. */
    private boolean areInOrder(FlatContent mine, FlatContent theirs) {
        int last = -1;
        for (FlatContent.Item item : mine.items()) {
            int place = -1;
            for (QName name : item.names()) {
                int found = theirs.place(pairs.toOther(name));
                if (found >= 0 && place >= 0 && found != place) {
                    return false;
                }
                place = found >= 0 ? found : place;
            }
            if (place >= 0 && place <= last) {
                return false;
            }
            last = Math.max(last, place);
        }
        return true;
    }

    private void flat(FlatContent mine, FlatContent theirs) {
        Set<Integer> met = new HashSet<>();
        for (int i = 0; i < mine.items().size(); i++) {
            FlatContent.Item item = mine.items().get(i);
            for (QName name : item.names()) {
                ElementDeclaration declared = mine.declaration(item, name);
                int place = theirs.place(pairs.toOther(name));
                if (place >= 0) {
                    met.add(place);
                }
                if (pairs.samples.isPossible(pairs.one.typeOf(declared))) {
                    flat(mine, i, name, place < 0 ? null : theirs.items().get(place), theirs);
                }
            }
        }
        for (int i = 0; i < theirs.items().size(); i++) {
            FlatContent.Item item = theirs.items().get(i);
            if (item.least() > 0 && !met.contains(i)) {
                found.refused(
                        "an element without <" + item.declaration().name().getLocalPart() + ">",
                        () -> Outline.children(word(mine, -1, null, 0).names(), -1, null),
                        member(item.declaration().name(), "occurs"),
                        whole());
            }
        }
    }

    /** One element of the one model, and where the other has it, or null. */
    private void flat(FlatContent mine, int at, QName name, FlatContent.Item also, FlatContent theirs) {
        FlatContent.Item item = mine.items().get(at);
        ElementDeclaration declared = mine.declaration(item, name);
        String local = "<" + name.getLocalPart() + ">";
        if (also == null || item.most() > also.most()) {
            int times = also == null ? 1 : also.most() + 1;
            if (times > LONGEST_WORD) {
                found.add(
                        Gap.Kind.REFUSED, local + " more than " + also.most() + " times", null, member(name, "occurs"));
            } else {
                found.refused(
                        times > 1 ? local + " " + times + " times" : local,
                        () -> Outline.children(word(mine, at, name, times).names(), -1, null),
                        member(name, "occurs"),
                        Clue.of(declared, pairs.other.element(pairs.toOther(name)), "stands for", "abstract"),
                        whole());
            }
        }
        if (also == null) {
            return;
        }
        if (item.least() < also.least() && told.add(also)) {
            found.refused(
                    "an element " + (item.least() == 0 ? "without " : "with too few ") + local,
                    () -> Outline.children(word(mine, -1, null, 0).names(), -1, null),
                    member(name, "occurs"),
                    whole());
        }
        inner(name, declared, theirs.declaration(also, pairs.toOther(name)), () -> word(mine, at, name, 1));
    }

    /** The shortest word, with one name in it at least so many times. */
    private Local.Word word(FlatContent mine, int at, QName name, int times) {
        List<QName> word = new ArrayList<>();
        int place = -1;
        for (int i = 0; i < mine.items().size(); i++) {
            FlatContent.Item item = mine.items().get(i);
            if (i == at) {
                place = word.size();
                word.addAll(Collections.nCopies(Math.max(times, Math.min(LONGEST_WORD, item.least())), name));
            } else if (item.least() > 0) {
                word.addAll(Collections.nCopies(Math.min(LONGEST_WORD, item.least()), easiest(mine, item)));
            }
        }
        return new Local.Word(word, place);
    }

    private QName easiest(FlatContent mine, FlatContent.Item item) {
        QName best = easiest(item.names(), name -> mine.declaration(item, name));
        return best == null ? item.declaration().name() : best;
    }

    /** Of several names the one of the shallowest element that can be complete, or null. */
    private QName easiest(Collection<QName> names, Function<QName, ElementDeclaration> declared) {
        QName best = null;
        int least = Integer.MAX_VALUE;
        for (QName name : names) {
            TypeModel type = pairs.one.typeOf(declared.apply(name));
            if (pairs.samples.isPossible(type) && pairs.samples.depth(type) < least) {
                least = pairs.samples.depth(type);
                best = name;
            }
        }
        return best;
    }

    /** The shortest word in which a name stands. */
    private Local.Word wordWith(QName wanted) {
        At at = nearest(one.content(), state -> state.step(wanted) != null);
        return at == null
                ? new Local.Word(List.of(wanted), 0)
                : word(at, wanted, at.one().step(wanted).rest());
    }

    /** The shortest way from a state of the one to a state of some kind, or null. */
    private At nearest(ContentModel from, Predicate<ContentModel> wanted) {
        Deque<At> ways = new ArrayDeque<>(List.of(new At(from, null, false, null, null)));
        Set<ContentModel> reached = Collections.newSetFromMap(new IdentityHashMap<>());
        while (!ways.isEmpty() && reached.size() < MOST_PAIRS) {
            At at = ways.poll();
            if (wanted.test(at.one())) {
                return at;
            }
            for (Leaf leaf : ContentModel.next(at.one())) {
                QName name = easiest(leaf);
                ContentModel.Step step = name == null ? null : at.one().step(name);
                if (step != null && reached.add(step.rest())) {
                    ways.add(new At(step.rest(), null, false, at, name));
                }
            }
        }
        return null;
    }

    private Local.Word word(At at, QName name, ContentModel rest) {
        List<QName> word = at.word();
        int place = word.size();
        word.add(name);
        word.addAll(ending(rest));
        return new Local.Word(word, place);
    }

    private Clue whole() {
        return Clue.of(one.definition(), other.definition(), "order");
    }

    private void push(At at) {
        boolean[] known = seen.computeIfAbsent(at.one(), any -> new IdentityHashMap<>())
                .computeIfAbsent(at.other(), any -> new boolean[2]);
        // What was reached with nothing refused tells more than what was not.
        if (!known[0] && !known[at.isRefused() ? 1 : 0]) {
            known[at.isRefused() ? 1 : 0] = true;
            walked++;
            open.add(at);
        }
    }

    /** The elements that the one allows next: those that it names, and of what a wildcard lets in one of each kind. */
    private Map<QName, Leaf> names(At at) {
        Map<QName, Leaf> names = new LinkedHashMap<>();
        List<Leaf> next = ContentModel.next(at.one());
        for (Leaf leaf : next) {
            if (leaf instanceof Leaf.Element element) {
                element.substitutes().stream()
                        .filter(name -> pairs.samples.isPossible(pairs.one.typeOf(declaration(element, name))))
                        .forEach(name -> names.putIfAbsent(name, leaf));
            }
        }
        Set<Wildcard> asked = new HashSet<>();
        for (Leaf leaf : next) {
            if (leaf instanceof Leaf.Any any && asked.add(any.wildcard().anywhere())) {
                strangers(any.wildcard(), at.other()).stream()
                        .filter(name -> !names.containsKey(name))
                        .forEach(name -> names.put(name, leaf));
            }
        }
        return names;
    }

    private ElementDeclaration declaration(Leaf.Element leaf, QName name) {
        return leaf.declaration().name().equals(name) ? leaf.declaration() : pairs.one.element(name);
    }

    private Set<QName> strangers(Wildcard wildcard, ContentModel state) {
        List<Wildcard> others = new ArrayList<>();
        Set<QName> names = new LinkedHashSet<>();
        for (Leaf leaf : ContentModel.next(state)) {
            leaf.map(element -> names.addAll(element.substitutes()), any -> others.add(any.wildcard()));
        }
        for (String namespace : Namespaces.of(pairs, List.of(wildcard), others)) {
            names.add(new QName(namespace, "other"));
        }
        boolean skipped = wildcard.processing() == Wildcard.Processing.SKIP;
        names.addAll((skipped ? pairs.other : pairs.one).schema().elements().keySet());
        names.removeIf(name -> !wildcard.allows(name.getNamespaceURI()) || !isAllowed(name, wildcard));
        return names;
    }

    /** Whether something of a name can stand where a wildcard is: what must be declared is, and can be complete. */
    private boolean isAllowed(QName name, Wildcard wildcard) {
        ElementDeclaration known = pairs.one.element(name);
        if (wildcard.processing() == Wildcard.Processing.SKIP || known == null) {
            return wildcard.processing() != Wildcard.Processing.STRICT;
        }
        return !known.isAbstract() && pairs.samples.isPossible(pairs.one.typeOf(known));
    }

    private void step(At at, QName name, Leaf leaf) {
        ContentModel.Step mine = at.one().step(name);
        if (mine == null) {
            return;
        }
        ContentModel.Step theirs = at.other().step(pairs.toOther(name));
        if (theirs != null) {
            inner(at, name, mine, theirs.leaf());
            push(new At(mine.rest(), theirs.rest(), at.isRefused(), at, name));
            return;
        }
        ContentModel.Step later = at.other().skipTo(pairs.toOther(name));
        if (later != null) {
            missing(at, List.of(name));
            inner(at, name, mine, later.leaf());
            push(new At(mine.rest(), later.rest(), true, at, name));
        } else {
            unexpected(at, name, leaf, mine.rest());
            push(new At(mine.rest(), at.other(), true, at, name));
        }
    }

    /** The other demands something before what comes next, or before the end. */
    private void missing(At at, List<QName> next) {
        Leaf demanded = at.other().demanded();
        if (demanded == null || !told.add(demanded)) {
            return;
        }
        Supplier<Outline> outline = () -> {
            List<QName> word = at.word();
            word.addAll(next);
            ContentModel state =
                    next.isEmpty() ? at.one() : at.one().step(next.get(0)).rest();
            word.addAll(ending(state));
            return Outline.children(word, -1, null);
        };
        if (demanded instanceof Leaf.Element element) {
            found.refused(
                    "an element without " + element.expected(),
                    outline,
                    member(element.declaration().name(), "occurs"),
                    whole());
        } else {
            found.refused(
                    "an element without " + demanded.expected(),
                    outline,
                    Clue.of(one.definition(), other.definition(), "any element", "order"));
        }
    }

    private Clue member(QName name, String fact) {
        return Clue.member(one, other, name, false, fact);
    }

    private void unexpected(At at, QName name, Leaf leaf, ContentModel after) {
        Leaf.Element declared = leaf.map(element -> element, any -> null);
        boolean wild = declared == null;
        if (!told.add(wild ? leaf : name)) {
            return;
        }
        String words = "<" + name.getLocalPart() + ">"
                + (wild && !name.getNamespaceURI().isEmpty() ? " of " + name.getNamespaceURI() : "");
        Supplier<Outline> outline = () -> Outline.children(word(at, name, after).names(), -1, null);
        if (wild) {
            found.refused(words, outline, Clue.of(one.definition(), other.definition(), "any element", "order"));
        } else {
            found.refused(words, outline, member(name, "occurs"), head(declared, name), whole());
        }
    }

    /** What stands for another element is refused because of itself, or of what it stands for. */
    private Clue head(Leaf.Element leaf, QName name) {
        ElementDeclaration declared = declaration(leaf, name);
        return Clue.of(declared, pairs.other.element(pairs.toOther(name)), "stands for", "abstract");
    }

    private void inner(At at, QName name, ContentModel.Step mine, Leaf theirs) {
        ElementDeclaration declared = mine.leaf() instanceof Leaf.Element element
                ? declaration(element, name)
                : processing(mine.leaf()) == Wildcard.Processing.SKIP ? null : pairs.one.element(name);
        ElementDeclaration also = declaredThere(name, theirs);
        boolean strict = theirs instanceof Leaf.Any && processing(theirs) == Wildcard.Processing.STRICT;
        if (also == null && !strict || also != null && also.isAbstract() && theirs instanceof Leaf.Any && !strict) {
            return;
        }
        if (also == null || also.isAbstract() || declared == null && isNarrow(pairs.other.typeOf(also))) {
            if (told.add(declared == null ? mine.leaf() : name)) {
                found.refused(
                        "<" + name.getLocalPart() + "> of " + name.getNamespaceURI(),
                        () -> Outline.children(word(at, name, mine.rest()).names(), -1, null),
                        Clue.of(declared, also),
                        Clue.of(one.definition(), other.definition(), "any element"));
            }
            return;
        }
        if (declared != null) {
            inner(name, declared, also, () -> word(at, name, mine.rest()));
        }
    }

    private void inner(QName name, ElementDeclaration declared, ElementDeclaration also, Supplier<Local.Word> word) {
        Elements elements = pairs.elements(declared, also);
        if (inner.add(elements)) {
            found.add(name, word, elements);
        }
    }

    private ElementDeclaration declaredThere(QName name, Leaf theirs) {
        QName there = pairs.toOther(name);
        return theirs instanceof Leaf.Element element
                ? element.declaration().name().equals(there) ? element.declaration() : pairs.other.element(there)
                : processing(theirs) == Wildcard.Processing.SKIP ? null : pairs.other.element(there);
    }

    private static Wildcard.Processing processing(Leaf leaf) {
        return leaf instanceof Leaf.Any any ? any.wildcard().processing() : null;
    }

    /** Whether a type refuses an element that says no more than some text. */
    private boolean isNarrow(TypeModel type) {
        return type.text() != null ? type.text().complaint("text", null) != null : !type.mixed();
    }

    /** The shortest way from a state of the one to its end. */
    List<QName> ending(ContentModel from) {
        return endings.computeIfAbsent(from, state -> {
            At end = nearest(state, ContentModel::isComplete);
            return end == null ? List.of() : end.word();
        });
    }

    private QName easiest(Leaf leaf) {
        return leaf.map(
                element -> easiest(element.substitutes(), name -> declaration(element, name)),
                any -> easiest(any.wildcard()));
    }

    private QName easiest(Wildcard wildcard) {
        for (String namespace : Namespaces.of(pairs, List.of(wildcard), List.of())) {
            QName name = new QName(namespace, "other");
            if (wildcard.allows(namespace) && isAllowed(name, wildcard)) {
                return name;
            }
        }
        return pairs.one.schema().elements().keySet().stream()
                .filter(name -> wildcard.allows(name.getNamespaceURI()) && isAllowed(name, wildcard))
                .findFirst()
                .orElse(null);
    }
}
