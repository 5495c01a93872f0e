package org.protypos.constraint;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;

/**
 * Whether a type goes with the one that it is derived from, and an element with the head of its substitution group (XML
 * Schema Part 1, sections 3.3.6 and 3.4.6). A restriction is judged by what it lets through and not by how it is written,
 * as later editions of the standard do.
 */
final class DerivationConstraints {
    /** No more pairs of states are walked; what is not told by then is not told. */
    private static final int MOST_PAIRS = 5_000;

    private final Vocabulary vocabulary;
    private final MarkupConstraints markup;
    private final Findings findings;

    /** Where a walk through both models is. */
    private record At(ContentModel own, ContentModel base) {}

    DerivationConstraints(Vocabulary vocabulary, MarkupConstraints markup, Findings findings) {
        this.vocabulary = vocabulary;
        this.markup = markup;
        this.findings = findings;
    }

    void check(ComplexType type) {
        TypeModel base = vocabulary.type(type.base());
        if (base != null && base.isAnything()) {
            ofAnything(type);
        }
        if (base == null || base.isAnything() || type.place() == null || type.isEncodedArray()) {
            return;
        }
        TypeModel own = vocabulary.type(TypeReference.to(type));
        boolean extension = type.derivation() == ComplexType.Derivation.EXTENSION;
        ended(type, type.base(), extension ? "extension" : "restriction");
        if (type.content() instanceof ComplexType.SimpleContent content) {
            if (!extension) {
                text(type, content, base);
            }
        } else if (base.text() == null && extension) {
            extended(type, base);
        } else if (base.text() == null) {
            restricted(type, own, base);
        }
    }

    /** What is made of anything has no text of its own to speak of, and no end behind which something could be added. */
    private void ofAnything(ComplexType type) {
        if (type.content() instanceof ComplexType.SimpleContent content && content.type() == null) {
            findings.warning(
                    "base-kind",
                    type.base().place(),
                    "the text of " + Told.name(type) + " is of xs:anyType, which is not text alone",
                    "name a type such as xs:string");
        } else if (type.derivation() == ComplexType.Derivation.EXTENSION && type.particle() != null) {
            findings.warning(
                    "base-kind",
                    type.base().place(),
                    Told.name(type)
                            + " adds elements behind those of xs:anyType, which may be any: where they begin cannot be told",
                    "leave out xs:complexContent and xs:extension: the type is taken for one that has these elements alone");
        }
    }

    void check(SimpleType type) {
        switch (type.variety()) {
            case RESTRICTION -> ended(type, type.base(), "restriction");
            case LIST -> ended(type, type.base(), "list");
            case UNION -> type.members().forEach(member -> ended(type, member, "union"));
            case BUILT_IN -> {
                // The standard keeps itself.
            }
        }
    }

    /** Says that a type is made of one that is final for it. */
    private void ended(SchemaType type, TypeReference base, String way) {
        SchemaType from = vocabulary.schema().resolve(base);
        if (from != null && from.place() != null && markup.finals(from.place()).contains(way)) {
            findings.warning(
                    "base-final",
                    base.place(),
                    Told.name(from) + " is final: no " + way + " is made of it" + Told.at(from.place(), base.place()),
                    "name another type, or let final out there");
        }
    }

    private void text(ComplexType type, ComplexType.SimpleContent content, TypeModel base) {
        if (base.definition() instanceof SimpleType) {
            findings.warning(
                    "base-kind",
                    type.base().place(),
                    "simple content is restricted of a complex type only",
                    "use xs:extension for attributes, or xs:simpleType for facets");
        } else if (content.type() != null
                && base.text() != null
                && base.definition() instanceof ComplexType from
                && !vocabulary.derives(vocabulary.type(content.type()), textOf(from), Set.of())) {
            Told.wider(
                    findings, type, content.type().place(), "the text is of a type from which this one is not derived");
        }
    }

    /** The simple type that the text of a type is of, its own facets aside. */
    private TypeModel textOf(ComplexType type) {
        ComplexType at = type;
        while (at.content() instanceof ComplexType.SimpleContent content) {
            TypeReference next = content.type() != null ? content.type() : at.base();
            if (vocabulary.schema().resolve(next) instanceof ComplexType further) {
                at = further;
            } else {
                return vocabulary.type(next);
            }
        }
        return vocabulary.type(at.base());
    }

    private void extended(ComplexType type, TypeModel base) {
        boolean adds = type.particle() != null && holds(type.particle());
        boolean extended = base.mixed() || base.particles().stream().anyMatch(this::holds);
        if (!extended || !adds && !type.mixed()) {
            return;
        }
        if (type.mixed() != base.mixed()) {
            findings.warning(
                    "mixed-unlike",
                    type.place(),
                    Told.name(type) + (type.mixed() ? " has" : " has no") + " text between its elements, and its base "
                            + (base.mixed() ? "has" : "has none"),
                    "say mixed=\"" + base.mixed() + "\"");
        }
        boolean any = base.particles().stream().anyMatch(this::isAll);
        if (adds && (any || isAll(type.particle()))) {
            findings.warning(
                    "all-extended",
                    type.place(),
                    "elements are added to an xs:all, which stands alone in a type",
                    "use xs:sequence in both types");
        }
    }

    /** Whether there is anything in a particle: a sequence of nothing is no content. */
    private boolean holds(Particle particle) {
        ModelGroup group = vocabulary.schema().group(particle.term());
        return group == null || !group.particles().isEmpty();
    }

    private boolean isAll(Particle particle) {
        ModelGroup group = vocabulary.schema().group(particle.term());
        return group != null
                && group.compositor() == ModelGroup.Compositor.ALL
                && !group.particles().isEmpty();
    }

    private void restricted(ComplexType type, TypeModel own, TypeModel base) {
        if (own.mixed() && !base.mixed()) {
            Told.wider(findings, type, type.place(), "no text stands between the elements");
        }
        Deque<At> open = new ArrayDeque<>();
        Map<ContentModel, Set<ContentModel>> seen = new IdentityHashMap<>();
        Set<Leaf> told = Collections.newSetFromMap(new IdentityHashMap<>());
        push(new At(own.content(), base.content()), open, seen);
        boolean ended = false;
        for (int walked = 0; !open.isEmpty() && walked < MOST_PAIRS; walked++) {
            At at = open.poll();
            if (!ended && at.own().isComplete() && !at.base().isComplete()) {
                ended = true;
                Told.wider(findings, type, type.place(), at.base().demanded().expected() + " must come");
            }
            for (Leaf leaf : ContentModel.next(at.own())) {
                for (QName name : names(leaf)) {
                    ContentModel.Step mine = at.own().step(name);
                    ContentModel.Step theirs = at.base().step(name);
                    if (mine == null || mine.leaf() != leaf) {
                        continue;
                    }
                    String wrong = theirs == null ? "may not come at that point" : unlike(name, leaf, theirs.leaf());
                    if (wrong != null && told.add(leaf)) {
                        String what = leaf instanceof Leaf.Element
                                ? "<" + name.getLocalPart() + "> "
                                : "an element of " + Told.namespace(name.getNamespaceURI()) + " ";
                        Told.wider(findings, type, leaf.place(), what + wrong);
                    }
                    if (theirs != null) {
                        push(new At(mine.rest(), theirs.rest()), open, seen);
                    }
                }
            }
        }
    }

    private static void push(At at, Deque<At> open, Map<ContentModel, Set<ContentModel>> seen) {
        if (seen.computeIfAbsent(at.own(), any -> Collections.newSetFromMap(new IdentityHashMap<>()))
                .add(at.base())) {
            open.add(at);
        }
    }

    private static List<QName> names(Leaf leaf) {
        return leaf.map(element -> List.copyOf(element.substitutes()), any -> Told.probes(any.wildcard()).stream()
                .filter(any.wildcard()::allows)
                .map(namespace -> new QName(namespace, "anything"))
                .toList());
    }

    /** What the base says otherwise of what may come, or null. */
    private String unlike(QName name, Leaf own, Leaf base) {
        return own.map(
                mine -> base.map(theirs -> unlike(name, mine.declaration(), theirs.declaration()), any -> null),
                mine -> base.map(
                        theirs -> "is a certain one",
                        any -> mine.wildcard()
                                                .processing()
                                                .compareTo(any.wildcard().processing())
                                        > 0
                                ? "is checked more strictly"
                                : null));
    }

    private String unlike(QName name, ElementDeclaration own, ElementDeclaration base) {
        if (own == base || !name.equals(own.name()) || !name.equals(base.name())) {
            return null;
        }
        if (own.nillable() && !base.nillable()) {
            return "is not nillable";
        }
        TypeModel type = vocabulary.typeOf(base);
        if (base.fixedValue() != null
                && type.text() != null
                && (own.fixedValue() == null
                        || !type.text()
                                .key(base.fixedValue(), null)
                                .equals(type.text().key(own.fixedValue(), null)))) {
            return "is always \"" + base.fixedValue() + "\"";
        }
        TypeModel mine = vocabulary.typeOf(own);
        return type.isAnything() || !mine.isAnything() && vocabulary.isDerived(mine, type, Set.of("extension"))
                ? null
                : "is of another type, from which its own is not derived by restriction";
    }

    /** Whether a global element may stand for the head of its substitution group. */
    void check(ElementDeclaration element) {
        ElementDeclaration head =
                element.substitutionHead() == null ? null : vocabulary.element(element.substitutionHead());
        if (head == null) {
            return;
        }
        if (leadsToItself(element)) {
            findings.warning(
                    "substitution-circle",
                    element.place(),
                    "the element " + element.name().getLocalPart() + " stands for itself by way of "
                            + head.name().getLocalPart(),
                    "let one of them stand for no other");
            return;
        }
        TypeModel type = vocabulary.typeOf(element);
        TypeModel wanted = vocabulary.typeOf(head);
        if (!wanted.isAnything() && (type.isAnything() || !vocabulary.isDerived(type, wanted, Set.of()))) {
            findings.warning(
                    "substitution-type",
                    element.place(),
                    "the element " + element.name().getLocalPart() + " cannot stand for "
                            + head.name().getLocalPart() + ": its type is not derived from that of the other",
                    "derive the type, or leave substitutionGroup out");
        } else if (!wanted.isAnything() && !vocabulary.isDerived(type, wanted, markup.finals(head.place()))) {
            findings.warning(
                    "base-final",
                    element.place(),
                    head.name().getLocalPart() + " is final: no element of a type that is derived so stands for it"
                            + Told.at(head.place(), element.place()),
                    "leave substitutionGroup out, or final there");
        }
    }

    private boolean leadsToItself(ElementDeclaration element) {
        Set<QName> seen = new HashSet<>();
        ElementDeclaration at = element;
        while (at != null && at.substitutionHead() != null && seen.add(at.name())) {
            at = vocabulary.element(at.substitutionHead());
        }
        return at != null && at.substitutionHead() != null && at.name().equals(element.name());
    }
}
