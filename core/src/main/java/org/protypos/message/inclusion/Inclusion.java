package org.protypos.message.inclusion;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Outline;
import org.protypos.message.sample.Samples;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.IdentityConstraint;
import org.protypos.schema.Meaning;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;

/**
 * Whether everything that is valid under one contract is valid under another: walks both from some roots, each pair of
 * declarations and each pair of types once, and tells of all that the one allows and the other does not. The door of this package.
 */
public final class Inclusion {
    private final Pairs pairs;
    private final Map<Elements, Local> ofElements = new IdentityHashMap<>();
    private final Map<TypeModel, Map<TypeModel, Local>> ofTypes = new IdentityHashMap<>();
    private final Map<TypeModel, Map<TypeModel, Local>> families = new IdentityHashMap<>();
    private final Map<Elements, Local> blocked = new IdentityHashMap<>();
    private final Map<TypeModel, List<TypeModel>> derived = new IdentityHashMap<>();
    private Map<SchemaType, List<ComplexType>> children;
    private List<TypeModel> named;

    /** How the walk came to an element. */
    private record Way(Way before, QName name, Supplier<Local.Word> word, Elements elements, QName named, Root root) {
        Way named(QName type) {
            return new Way(before, name, word, elements, type, root);
        }

        /** The outline of a whole message, made of that of the element that the way led to. */
        Outline whole(Outline inside) {
            Outline outline = inside;
            for (Way at = this; at != null; at = at.before) {
                if (outline.type() == null || at.named != null) {
                    outline = outline.of(at.named);
                }
                if (at.before != null) {
                    Local.Word word = at.word.get();
                    outline = Outline.children(word.names(), word.at(), outline);
                }
            }
            return outline;
        }
    }

    /** A walk from some roots. */
    private final class Walk {
        private final List<Gap> gaps = new ArrayList<>();
        private final Deque<Way> open = new ArrayDeque<>();
        private final Set<Elements> seenElements = Collections.newSetFromMap(new IdentityHashMap<>());
        private final Set<Local> seenTypes = Collections.newSetFromMap(new IdentityHashMap<>());

        void go(Collection<Root> roots) {
            for (Root root : roots) {
                push(new Way(null, root.name(), null, pairs.elements(root), null, root));
            }
            while (!open.isEmpty()) {
                Way way = open.poll();
                ofElements
                        .computeIfAbsent(way.elements(), Inclusion.this::elements)
                        .findings()
                        .forEach(finding -> tell(finding, way));
                types(way);
            }
        }

        private void push(Way way) {
            if (seenElements.add(way.elements())) {
                open.add(way);
            }
        }

        private void types(Way way) {
            Elements elements = way.elements();
            if (!elements.typeOfOne.isAbstract()) {
                types(elements.typeOfOne, elements.typeOfOther, way);
            }
            Local family = family(elements);
            if (family == null || !seenTypes.add(family)) {
                return;
            }
            family.findings().forEach(finding -> tell(finding, way));
            for (TypeModel type : derived(elements.typeOfOne)) {
                TypeModel also = pairs.other.type(pairs.toOther(type.name()));
                if (isInstead(type, elements) && also != null && !also.isAbstract()) {
                    types(type, also, way.named(type.name()));
                }
            }
        }

        private void types(TypeModel one, TypeModel other, Way way) {
            Local local = ofTypes.computeIfAbsent(one, any -> new IdentityHashMap<>())
                    .computeIfAbsent(other, any -> Inclusion.this.types(one, other));
            if (seenTypes.add(local)) {
                local.findings().forEach(finding -> tell(finding, way));
                local.inner()
                        .forEach(inner ->
                                push(new Way(way, inner.name(), inner.word(), inner.elements(), null, way.root())));
            }
        }

        private void tell(Local.Finding finding, Way way) {
            List<Clue> clues = new ArrayList<>(finding.clues());
            for (Way at = way; at != null; at = at.before()) {
                Elements elements = at.elements();
                clues.add(Clue.of(elements.one, elements.other, "type", "element"));
                if (at.before() != null) {
                    Elements around = at.before().elements();
                    clues.add(Clue.member(around.typeOfOne, around.typeOfOther, at.name(), false, "type", "element"));
                    clues.add(Clue.of(around.typeOfOne.definition(), around.typeOfOther.definition()));
                }
            }
            Supplier<Outline> outline = finding.outline() == null
                    ? null
                    : () -> way.whole(finding.outline().get());
            gaps.add(new Gap(finding.kind(), finding.words(), clues, way.root(), outline));
        }
    }

    /**
     * Takes two contracts.
     *
     * @param samples makes messages of the one, with as little in them as may be
     * @param namespaces gives for a namespace of the one contract that of the other
     */
    public Inclusion(Vocabulary one, Vocabulary other, Samples samples, UnaryOperator<String> namespaces) {
        this.pairs = new Pairs(one, other, samples, namespaces);
    }

    /** All that messages may be that begin with some roots under the one contract, and may not be under the other. */
    public List<Gap> from(Collection<Root> roots) {
        Walk walk = new Walk();
        walk.go(roots);
        return walk.gaps;
    }

    /** The types that an element may name instead of a type, without that type itself. */
    private List<TypeModel> derived(TypeModel from) {
        // An element of a built-in type may be said to be of any type that extends it. To tell of that helps nobody: a
        // change of xs:decimal would be told of with every type of money that the contract has.
        boolean isBuiltin = !from.isAnything() && from.place() == null && !isAnyText(from);
        return isBuiltin ? List.of() : derived.computeIfAbsent(from, this::collect);
    }

    private static boolean isAnyText(TypeModel type) {
        return Builtins.name("anySimpleType").equals(type.name());
    }

    private List<TypeModel> collect(TypeModel from) {
        List<TypeModel> found = new ArrayList<>();
        if (from.isAnything() || isAnyText(from)) {
            // Where the contract says nothing of the type, messages do.
            named().stream()
                    .filter(type -> type.definition() instanceof SimpleType)
                    .forEach(found::add);
        }
        if (from.isAnything() || from.definition() instanceof SimpleType) {
            named().stream()
                    .filter(type -> type.definition() instanceof ComplexType)
                    .filter(type -> from.isAnything() || type.text() != null)
                    .filter(type -> isInstance(type, from))
                    .forEach(found::add);
            return found;
        }
        Deque<ComplexType> below = new ArrayDeque<>(children().getOrDefault(from.definition(), List.of()));
        while (!below.isEmpty()) {
            ComplexType type = below.poll();
            below.addAll(children().getOrDefault(type, List.of()));
            TypeModel model = pairs.one.type(type.name());
            if (isInstance(model, from)) {
                found.add(model);
            }
        }
        return found;
    }

    private boolean isInstance(TypeModel type, TypeModel from) {
        return !type.isAbstract() && pairs.samples.isPossible(type) && pairs.one.derives(type, from, Set.of());
    }

    /** The types of the one contract that a message can name, built-in ones apart. */
    private List<TypeModel> named() {
        if (named == null) {
            named = pairs.one.schema().types().keySet().stream()
                    .filter(name -> !SchemaComponents.isOriginal(name))
                    .map(pairs.one::type)
                    .toList();
        }
        return named;
    }

    /** The named complex types of the one contract by what they are derived from. */
    private Map<SchemaType, List<ComplexType>> children() {
        if (children == null) {
            children = new IdentityHashMap<>();
            for (SchemaType type : pairs.one.schema().types().values()) {
                if (type instanceof ComplexType complex && !SchemaComponents.isOriginal(complex.name())) {
                    SchemaType base = pairs.one.schema().resolve(complex.base());
                    while (base != null && base.name() != null && SchemaComponents.isOriginal(base.name())) {
                        base = base instanceof ComplexType old
                                ? pairs.one.schema().resolve(old.base())
                                : null;
                    }
                    children.computeIfAbsent(base, any -> new ArrayList<>()).add(complex);
                }
            }
        }
        return children;
    }

    private boolean isInstead(TypeModel type, Elements elements) {
        return elements.one == null || pairs.one.derives(type, elements.typeOfOne, elements.one.block());
    }

    private Local elements(Elements elements) {
        Local found = new Local();
        ElementDeclaration one = elements.one;
        ElementDeclaration other = elements.other;
        TypeModel type = elements.typeOfOne;
        TypeModel also = elements.typeOfOther;
        // What has a fixed value is never nil (XML Schema Part 1, section 3.3.4).
        boolean mayBeNil = one != null && one.nillable() && one.fixedValue() == null;
        if (mayBeNil && !(other.nillable() && other.fixedValue() == null)) {
            found.refused("the element, nil", Outline.nil(), Clue.of(one, other, "nillable"));
        }
        if (!type.isAbstract() && also.isAbstract()) {
            found.refused(
                    "an element of its type",
                    Outline.FREE,
                    Clue.of(type.definition(), also.definition(), "abstract"),
                    Clue.of(one, other, "type"));
        }
        if (one != null) {
            standards(elements, found);
            constraints(one, other, found);
        }
        return found;
    }

    /** What types may be named instead of the declared ones; the same for all elements that block nothing. Null when there are none. */
    private Local family(Elements elements) {
        if (derived(elements.typeOfOne).isEmpty()) {
            return null;
        }
        boolean blocks = elements.one != null
                && !(elements.one.block().isEmpty() && elements.other.block().isEmpty());
        return blocks
                ? blocked.computeIfAbsent(elements, this::instead)
                : families.computeIfAbsent(elements.typeOfOne, any -> new IdentityHashMap<>())
                        .computeIfAbsent(elements.typeOfOther, any -> instead(elements));
    }

    private Local instead(Elements elements) {
        Local found = new Local();
        for (TypeModel type : derived(elements.typeOfOne)) {
            if (isInstead(type, elements)) {
                instead(type, elements, found);
            }
        }
        return found;
    }

    private void instead(TypeModel type, Elements elements, Local found) {
        TypeModel known = pairs.other.type(pairs.toOther(type.name()));
        ElementDeclaration other = elements.other;
        Set<String> blocked = other == null ? Set.of() : other.block();
        if (known == null || known.isAbstract() || !pairs.other.derives(known, elements.typeOfOther, blocked)) {
            found.refused(
                    "an element of the type " + type.name().getLocalPart(),
                    Outline.FREE.of(type.name()),
                    Clue.of(type.definition(), known == null ? null : known.definition(), "abstract", "base"),
                    Clue.of(elements.one, other, "block", "type"),
                    Clue.of(elements.typeOfOne.definition(), elements.typeOfOther.definition(), "block"));
        }
    }

    /** Fixed and default values of elements (XML Schema Part 1, section 3.3.4). */
    private void standards(Elements elements, Local found) {
        ElementDeclaration one = elements.one;
        ElementDeclaration other = elements.other;
        Clue clue = Clue.of(one, other, "fixed", "default");
        ValueRule rule = elements.typeOfOne.text();
        ValueRule also = elements.typeOfOther.text();
        if (rule == null && also == null) {
            mixedStandards(elements, found);
        }
        if (rule == null || also == null) {
            return;
        }
        if (one.fixedValue() != null) {
            boolean taken = also.complaint(one.fixedValue(), null) == null
                    && (other.fixedValue() == null || isSame(also, one.fixedValue(), other.fixedValue()));
            if (!taken) {
                found.refused("the value '" + one.fixedValue() + "'", Outline.text(one.fixedValue()), clue);
            }
        } else if (other.fixedValue() != null) {
            pairs.samples.values(rule, 3).stream()
                    .filter(text -> rule.complaint(text, null) == null && !isSame(also, text, other.fixedValue()))
                    .findFirst()
                    .ifPresent(text -> found.refused("the value '" + text + "'", Outline.text(text), clue));
        }
        String standard = one.fixedValue() != null ? one.fixedValue() : one.defaultValue();
        String otherStandard = other.fixedValue() != null ? other.fixedValue() : other.defaultValue();
        boolean mayBeEmpty = standard != null || rule.complaint("", null) == null;
        // Without a value of its own an empty element is a text like any other.
        if (!mayBeEmpty || standard == null && otherStandard == null) {
            return;
        }
        if (otherStandard == null && also.complaint("", null) != null) {
            found.refused("the element, empty", Outline.text(""), clue);
        } else if (standard == null
                ? otherStandard != null
                : otherStandard == null || !isSame(also, standard, otherStandard)) {
            found.add(
                    Gap.Kind.MEANS_ELSE,
                    "the element, empty, which then means " + AttributeInclusion.quoted(otherStandard) + " rather than "
                            + AttributeInclusion.quoted(standard),
                    () -> Outline.text(""),
                    clue);
        }
    }

    /** Of mixed content a fixed value is all that there may be. */
    private void mixedStandards(Elements elements, Local found) {
        String fixed = elements.other.fixedValue();
        boolean none = fixed == null
                && elements.one.fixedValue() == null
                && elements.one.defaultValue() == null
                && elements.other.defaultValue() == null;
        if (none) {
            return;
        }
        Clue clue = Clue.of(elements.one, elements.other, "fixed", "default");
        if (fixed != null && !fixed.equals(elements.one.fixedValue())) {
            Outline least = content(elements.typeOfOne);
            boolean text = elements.typeOfOne.mixed();
            if (text || !least.children().isEmpty()) {
                found.refused(
                        "other content than '" + fixed + "'",
                        text ? least.with(fixed.equals("text") ? "other" : "text") : least,
                        clue);
            }
        }
        String standard = elements.one.fixedValue() != null ? elements.one.fixedValue() : elements.one.defaultValue();
        String also = fixed != null ? fixed : elements.other.defaultValue();
        boolean mayBeEmpty = content(elements.typeOfOne).children().isEmpty();
        if (mayBeEmpty && !Objects.equals(standard, also)) {
            found.add(
                    Gap.Kind.MEANS_ELSE,
                    "the element, empty, which then means " + AttributeInclusion.quoted(also) + " rather than "
                            + AttributeInclusion.quoted(standard),
                    () -> Outline.children(List.of(), -1, null),
                    clue);
        }
    }

    private static boolean isSame(ValueRule rule, String text, String also) {
        return rule.key(text, null).equals(rule.key(also, null));
    }

    private static void constraints(ElementDeclaration one, ElementDeclaration other, Local found) {
        Set<String> known = new HashSet<>();
        one.constraints().forEach(constraint -> known.add(Meaning.of(constraint)));
        for (IdentityConstraint constraint : other.constraints()) {
            if (!known.contains(Meaning.of(constraint))) {
                found.add(
                        Gap.Kind.REFUSED,
                        "values that the " + constraint.kind() + " "
                                + constraint.name().getLocalPart() + " forbids",
                        null,
                        Clue.of(one, other, "constraints"));
            }
        }
    }

    private Local types(TypeModel one, TypeModel other) {
        Local found = new Local();
        new AttributeInclusion(pairs, one, other, found).compare();
        Clue whole = Clue.of(one.definition(), other.definition(), "content", "mixed", "base");
        if (one.text() != null) {
            text(one, other, whole, found);
            return found;
        }
        if (other.text() != null) {
            elementsToText(one, other, whole, found);
            return found;
        }
        if (one.mixed() && !other.mixed()) {
            found.refused(
                    "text between elements",
                    content(one).with("text"),
                    Clue.of(one.definition(), other.definition(), "mixed"));
        }
        new ContentInclusion(pairs, one, other, found).compare();
        return found;
    }

    /** Just what must be in an element of a type. */
    private Outline content(TypeModel type) {
        Local ignored = new Local();
        List<QName> word = new ContentInclusion(pairs, type, type, ignored).ending(type.content());
        return Outline.children(word, -1, null);
    }

    private void text(TypeModel one, TypeModel other, Clue whole, Local found) {
        if (other.text() != null) {
            new Values(pairs, found)
                    .compare(
                            new Values.Side(one.text(), one.definition()),
                            new Values.Side(other.text(), other.definition()),
                            Outline::text,
                            "the value ",
                            whole);
        } else if (!other.mixed() && !other.isAnything()) {
            pairs.samples.values(one.text(), 4).stream()
                    .filter(text -> !text.isBlank() && one.text().complaint(text, null) == null)
                    .findFirst()
                    .ifPresent(text -> found.refused("the value '" + text + "'", Outline.text(text), whole));
        }
        if (other.text() == null && !other.content().isComplete()) {
            found.refused("an element with text alone", Outline.FREE, whole);
        }
    }

    private void elementsToText(TypeModel one, TypeModel other, Clue whole, Local found) {
        Outline least = content(one);
        boolean holds = !least.children().isEmpty() || !one.particles().isEmpty() && !hasNone(one);
        if (holds) {
            found.refused("elements in it", some(one, least), whole);
        }
        if (least.children().isEmpty() && other.text().complaint("", null) != null) {
            found.refused("the element, empty", least, whole);
        }
        if (one.mixed()) {
            for (String text : Arrays.asList("text", "1", "-")) {
                if (other.text().complaint(text, null) != null) {
                    found.refused("the text '" + text + "'", least.with(text), whole);
                    return;
                }
            }
        }
    }

    private static boolean hasNone(TypeModel type) {
        return ContentModel.next(type.content()).isEmpty();
    }

    /** An element with something in it though nothing has to be. */
    private Outline some(TypeModel type, Outline least) {
        if (!least.children().isEmpty()) {
            return least;
        }
        Local local = new Local();
        new ContentInclusion(pairs, type, TypeModel.undefined(), local).compare();
        return local.findings().stream()
                .map(Local.Finding::outline)
                .filter(Objects::nonNull)
                .map(Supplier::get)
                .filter(outline ->
                        outline.children() != null && !outline.children().isEmpty())
                .findFirst()
                .orElse(least);
    }
}
