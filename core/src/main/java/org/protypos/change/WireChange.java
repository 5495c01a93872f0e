package org.protypos.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.inclusion.Clue;
import org.protypos.message.inclusion.Gap;
import org.protypos.message.inclusion.Inclusion;
import org.protypos.message.inclusion.Root;
import org.protypos.naming.Designator;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;

/**
 * Decides for whom differences of types break something on the wire: by whether all messages that the one contract lets its side send
 * are messages of the other, both ways.
 */
final class WireChange {
    private final WireSide before;
    private final WireSide after;
    private final Namespaces namespaces;
    private final Blame blame;

    /**
     * What a message begins with.
     *
     * @param message the designator of the message, or of the element that is one
     * @param carried the message in which it stands, or null when it stands alone
     * @param part the part that it is, or null
     */
    record Place(String message, WireMessage carried, WirePart part) {}

    WireChange(WireSide before, WireSide after, Namespaces namespaces, Blame blame) {
        this.before = before;
        this.after = after;
        this.namespaces = namespaces;
        this.blame = blame;
    }

    /** What messages of one way begin with in both contracts, and what is refused in them. */
    private record Found(Collection<Root> roots, List<Gap> gaps) {}

    private record Way(Found requests, Found answers) {}

    /** Both ways at once: each has a view of both contracts of its own. */
    void judge() {
        WireSide newOnes = after.again();
        WireSide oldOnes = before.again();
        Beside<Way> back = Beside.begin(() -> way(newOnes, oldOnes, false));
        Way forth = way(before, after, true);
        Way other = back.result();
        Witnesses toNew = new Witnesses(before, after, namespaces, true);
        Witnesses toOld = new Witnesses(newOnes, oldOnes, namespaces, false);
        tell(forth.requests().gaps(), Reader.OLD_CLIENTS, toNew);
        tell(other.answers().gaps(), Reader.OLD_CLIENTS, toOld);
        tell(other.requests().gaps(), Reader.OLD_SERVERS, toOld);
        tell(forth.answers().gaps(), Reader.OLD_SERVERS, toNew);
        addressedOtherwise();
        begunOtherwise(forth.requests(), Reader.OLD_CLIENTS, toNew);
        begunOtherwise(forth.answers(), Reader.OLD_SERVERS, toNew);
        begunOtherwise(other.requests(), Reader.OLD_SERVERS, toOld);
        begunOtherwise(other.answers(), Reader.OLD_CLIENTS, toOld);
        gone(toNew);
    }

    private Way way(WireSide one, WireSide other, boolean toNew) {
        Inclusion inclusion = new Inclusion(
                one.vocabulary(), other.vocabulary(), one.samples(), toNew ? namespaces::toNew : namespaces::toOld);
        return new Way(
                found(inclusion, roots(one, other, toNew, true)), found(inclusion, roots(one, other, toNew, false)));
    }

    private static Found found(Inclusion inclusion, Collection<Root> roots) {
        return new Found(roots, inclusion.from(roots));
    }

    /** What an action is made of may be the name of a port type (WS-Addressing 1.0 Metadata, section 4.4.4). */
    private void addressedOtherwise() {
        inBoth(before, after, (designator, operation, also) -> {
            actionOf(designator + " input", operation.request(), also.request());
            if (operation.answer() != null && also.answer() != null) {
                actionOf(designator + " output", operation.answer(), also.answer());
            }
        });
    }

    /** Is given an operation of one contract with its designator, and as the other contract has it. */
    private interface Pair {
        void take(String designator, WireOperation operation, WireOperation also);
    }

    private static void inBoth(WireSide one, WireSide other, Pair pair) {
        Map<String, WireSide.Carried> others = other.operations();
        one.operations().forEach((way, carried) -> {
            WireSide.Carried also = others.get(way);
            if (also != null) {
                pair.take(carried.designator(), carried.operation(), also.operation());
            }
        });
    }

    private void actionOf(String designator, WireMessage message, WireMessage also) {
        if (message.action() == null
                || also.action() == null
                || message.action().equals(also.action())) {
            return;
        }
        String around = Renames.operation(designator);
        Told told = blame.find(List.of(
                suspect(designator, "action"),
                suspect(around, "name"),
                suspect(Designator.of(around).around(), "name")));
        if (told != null) {
            told.breaks(EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS), "the action is another: " + also.action());
        }
    }

    /** A message of which the element is called otherwise is another, however much what is in it is the same. */
    private void begunOtherwise(Found found, Reader reader, Witnesses witnesses) {
        for (Root root : found.roots()) {
            if (root.one() == null
                    || root.other() == null
                    || root.other().name().equals(renamed(root.name(), witnesses.isForth()))) {
                continue;
            }
            Told told =
                    blame.find(List.of(suspect(witnesses.one().old(root.name().toString()), "name")));
            if (told != null) {
                told.breaks(witnesses.begunOtherwise(root, reader), true);
            }
        }
    }

    /** Without operations each element is a message of its own; one that is gone is refused. */
    private void gone(Witnesses witnesses) {
        if (before.hasOperations() || after.hasOperations()) {
            return;
        }
        for (ElementDeclaration element :
                before.vocabulary().schema().elements().values()) {
            QName there = renamed(element.name(), true);
            Told told = blame.find(List.of(suspect(element.name().toString())));
            if (!element.isAbstract() && after.element(there) == null && told != null) {
                for (Reader reader : List.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS)) {
                    told.breaks(witnesses.gone(element.name(), reader), true);
                }
            }
        }
    }

    private static Blame.Suspect suspect(String designator, String... facts) {
        return new Blame.Suspect(designator, List.of(facts));
    }

    private QName renamed(QName name, boolean toNew) {
        String namespace = name.getNamespaceURI();
        return new QName(toNew ? namespaces.toNew(namespace) : namespaces.toOld(namespace), name.getLocalPart());
    }

    /** What requests, or answers, of both contracts begin with. */
    private Collection<Root> roots(WireSide one, WireSide other, boolean toNew, boolean requests) {
        List<Root> roots = new ArrayList<>();
        if (!before.hasOperations() && !after.hasOperations()) {
            alone(one, other, toNew, roots);
            return roots;
        }
        inBoth(one, other, (of, operation, also) -> {
            if (requests) {
                message(of + " input", operation.request(), also.request(), one, other, toNew, roots);
            } else {
                if (operation.answer() != null && also.answer() != null) {
                    message(of + " output", operation.answer(), also.answer(), one, other, toNew, roots);
                }
                operation.faults().forEach(fault -> also.faults()
                        .forEach(same -> fault.details().forEach(detail -> same.details().stream()
                                .filter(part -> part.element().equals(renamed(detail.element(), toNew)))
                                .forEach(part -> add(
                                        new Place(of + " fault " + detail.element(), null, detail),
                                        detail,
                                        part,
                                        one,
                                        other,
                                        roots)))));
            }
        });
        Map<String, Operation> unbound = other.unbound();
        one.unbound().forEach((designator, operation) -> {
            Operation also = unbound.get(designator);
            if (also != null && requests) {
                unbound(designator + " input", operation.input(), also.input(), one, other, toNew, roots);
            } else if (also != null) {
                unbound(designator + " output", operation.output(), also.output(), one, other, toNew, roots);
                operation.faults().forEach(fault -> also.faults()
                        .forEach(same -> unbound(designator + " fault", fault, same, one, other, toNew, roots)));
            }
        });
        return roots;
    }

    /** What a message begins with that no binding carries: its parts, each by itself. */
    private void unbound(
            String designator,
            Operation.Use use,
            Operation.Use same,
            WireSide one,
            WireSide other,
            boolean toNew,
            List<Root> roots) {
        for (Message.Part part : one.parts(use)) {
            for (Message.Part also : other.parts(same)) {
                boolean isElement = part.element() != null && also.element() != null;
                if (isElement && also.element().equals(renamed(part.element(), toNew))) {
                    ElementDeclaration declared = one.element(part.element());
                    ElementDeclaration there = other.element(also.element());
                    roots.add(new Root(
                            part.element(),
                            declared,
                            there,
                            one.vocabulary().typeOf(declared),
                            other.vocabulary().typeOf(there),
                            new Place(designator, null, null)));
                } else if (part.type() != null
                        && also.type() != null
                        && part.name().equals(also.name())) {
                    roots.add(new Root(
                            new QName(part.name()),
                            null,
                            null,
                            one.vocabulary().type(part.type()),
                            other.vocabulary().type(also.type()),
                            new Place(designator, null, null)));
                }
            }
        }
    }

    private void alone(WireSide one, WireSide other, boolean toNew, List<Root> roots) {
        for (ElementDeclaration element : one.vocabulary().schema().elements().values()) {
            ElementDeclaration also = other.element(renamed(element.name(), toNew));
            if (also != null && !element.isAbstract()) {
                String designator =
                        one.old(Subject.element(element.name(), null).designator());
                roots.add(new Root(
                        element.name(),
                        element,
                        also,
                        one.vocabulary().typeOf(element),
                        other.vocabulary().typeOf(also),
                        new Place(designator, null, null)));
            }
        }
        if (!one.vocabulary().schema().elements().isEmpty()) {
            return;
        }
        for (SchemaType type : one.vocabulary().schema().types().values()) {
            QName there = renamed(type.name(), toNew);
            if (!SchemaComponents.isOriginal(type.name()) && other.vocabulary().type(there) != null) {
                roots.add(new Root(
                        type.name(),
                        null,
                        null,
                        one.vocabulary().type(type.name()),
                        other.vocabulary().type(there),
                        new Place(one.old(Subject.type(type.name(), null).designator()), null, null)));
            }
        }
    }

    private void message(
            String designator,
            WireMessage message,
            WireMessage also,
            WireSide one,
            WireSide other,
            boolean toNew,
            List<Root> roots) {
        for (WirePart part : message.parts()) {
            also.parts().stream()
                    .filter(same -> part.isGlobal() == same.isGlobal())
                    .filter(same -> part.isGlobal()
                            ? same.element().equals(renamed(part.element(), toNew)) || isRenamed(part, same, one, other)
                            : same.name().equals(part.name()))
                    .findFirst()
                    .ifPresent(same -> add(new Place(designator, message, part), part, same, one, other, roots));
        }
        for (WirePart block : message.blocks()) {
            also.blocks().stream()
                    .filter(same -> same.element().equals(renamed(block.element(), toNew)))
                    .findFirst()
                    .ifPresent(same -> add(new Place(designator, message, block), block, same, one, other, roots));
        }
    }

    /** Whether the element of the one is that of the other under another name. */
    private static boolean isRenamed(WirePart part, WirePart same, WireSide one, WireSide other) {
        return one.old(part.element().toString())
                .equals(other.old(same.element().toString()));
    }

    private static void add(Place place, WirePart part, WirePart same, WireSide one, WireSide other, List<Root> roots) {
        ElementDeclaration declared = part.isGlobal() ? one.element(part.element()) : null;
        ElementDeclaration also = same.isGlobal() ? other.element(same.element()) : null;
        roots.add(new Root(
                part.element(),
                declared,
                also,
                one.vocabulary().type(part.type()),
                other.vocabulary().type(same.type()),
                place));
    }

    private void tell(List<Gap> gaps, Reader reader, Witnesses witnesses) {
        for (Gap gap : gaps) {
            Told told = reason(gap, witnesses);
            if (told != null && told.isShown(reader, gap.kind() != Gap.Kind.MEANS_ELSE)) {
                continue;
            }
            Evidence evidence = witnesses.of(gap, reader);
            if (evidence != null) {
                Told reason = told == null ? blame.add(unnamed(gap, witnesses)) : told;
                reason.breaks(evidence, gap.kind() != Gap.Kind.MEANS_ELSE);
            }
        }
    }

    private Told reason(Gap gap, Witnesses witnesses) {
        for (Clue clue : gap.clues()) {
            Set<Blame.Suspect> suspects = new LinkedHashSet<>();
            clue(clue, witnesses, suspects);
            Told told = blame.find(suspects);
            if (told != null) {
                return told;
            }
        }
        Told told = blame.find(ofMessage(gap));
        return told != null ? told : blame.inside(suspects(gap, witnesses));
    }

    /** What is refused though nothing that is said of a component is said otherwise: then that is the difference. */
    private Told unnamed(Gap gap, Witnesses witnesses) {
        for (Blame.Suspect suspect : suspects(gap, witnesses)) {
            Item was = before.inventory().items().get(suspect.designator());
            Item is = after.inventory().items().get(suspect.designator());
            if (was != null || is != null) {
                boolean forth = witnesses.isForth();
                return new Told(
                        Difference.Change.CHANGED,
                        (was == null ? is : was).kind().text(),
                        suspect.designator(),
                        "what it allows",
                        forth ? gap.words() : null,
                        forth ? null : gap.words(),
                        was == null ? null : was.place(),
                        is == null ? null : is.place());
            }
        }
        return new Told(
                Difference.Change.CHANGED,
                "message",
                ((Place) gap.root().of()).message(),
                "what it allows",
                gap.words(),
                null,
                null,
                null);
    }

    /** The components that may be the reason for a gap, as the old contract calls them. */
    private static List<Blame.Suspect> suspects(Gap gap, Witnesses witnesses) {
        Set<Blame.Suspect> suspects = new LinkedHashSet<>();
        gap.clues().forEach(clue -> clue(clue, witnesses, suspects));
        suspects.addAll(ofMessage(gap));
        return List.copyOf(suspects);
    }

    private static List<Blame.Suspect> ofMessage(Gap gap) {
        Place place = (Place) gap.root().of();
        List<Blame.Suspect> suspects = new ArrayList<>(List.of(suspect(place.message(), "content")));
        if (place.part() != null) {
            suspects.add(suspect(place.message(), "type of part " + place.part().name()));
            suspects.add(suspect(place.message() + " header " + place.part().element()));
        }
        return suspects;
    }

    private static void clue(Clue clue, Witnesses witnesses, Set<Blame.Suspect> to) {
        clue(clue, clue.one(), witnesses.one(), witnesses, to);
        clue(clue, clue.other(), witnesses.other(), witnesses, to);
    }

    private static void clue(Clue clue, Object component, WireSide side, Witnesses witnesses, Set<Blame.Suspect> to) {
        if (component instanceof SchemaType type) {
            for (SchemaType one : side.chain(type)) {
                String designator = side.inventory().designator(one);
                if (designator == null) {
                    continue;
                }
                if (clue.member() != null) {
                    String member = clue.isAttribute()
                            ? Subject.attribute(designator, clue.member(), null).designator()
                            : Subject.element(designator, clue.member(), null).designator();
                    to.add(new Blame.Suspect(witnesses.one().old(member), clue.facts()));
                    to.add(new Blame.Suspect(witnesses.other().old(member), clue.facts()));
                    if (clue.isAttribute()) {
                        to.add(new Blame.Suspect(
                                witnesses.one().old(SchemaInventory.attribute(clue.member())), clue.facts()));
                    }
                } else {
                    if (clue.value() != null) {
                        to.add(suspect(
                                Subject.value(designator, clue.value(), null).designator()));
                    }
                    to.add(new Blame.Suspect(designator, clue.facts()));
                }
            }
        } else if (component != null) {
            String designator = side.inventory().designator(component);
            if (designator != null) {
                to.add(new Blame.Suspect(designator, clue.facts()));
            }
        }
    }
}
