package org.protypos.layout;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.api.ApiFault;
import org.protypos.api.ApiMessage;
import org.protypos.api.ApiOperation;
import org.protypos.api.type.ApiElement;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.NamedType;
import org.protypos.api.type.StructuredType;
import org.protypos.naming.Subject;
import org.protypos.schema.Particle;
import org.protypos.schema.Wildcard;

/**
 * Lays out the messages of an API as records of fixed length. What has no bound in the contract gets room by a rule or by
 * custom; what has no fixed form at all is text that holds its XML. The door of this package.
 */
public final class LayoutBuilder {
    /** So deep is unfolded what is not in a circle, and less deep when a record becomes too large. */
    private static final int[] DEPTHS = {24, 10, 7, 5, 4, 3, 2, 1};

    private static final int MOST_SLOTS = 1_500;
    /** Of a schema with many elements few are documents, and nobody says which. */
    private static final int MANY_ELEMENTS = 60;

    private static final int FEW_SLOTS = 300;
    private static final int MOST_VARIANTS = 99;
    /** Level numbers end with 49, and each group has one of its own. */
    private static final int MOST_LEVELS = 46;

    private final Rooms rooms;
    private final ValueSlots values;
    private final Map<StructuredType, List<StructuredType>> derived = new HashMap<>();
    private final Map<QName, Set<QName>> substitutes = new HashMap<>();
    private final Map<QName, ApiElement> elements;
    private final Map<Member, Wildcard> wildcards = new HashMap<>();
    private final Deque<StructuredType> open = new ArrayDeque<>();
    private final Deque<Slot> structures = new ArrayDeque<>();
    private final List<Runnable> told = new ArrayList<>();
    private int depth;
    private int slots;
    private final int most;

    /** A record becomes larger than one can be. */
    private static final class TooLarge extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooLarge() {
            super(null, null, false, false);
        }
    }

    /**
     * Begins.
     *
     * @param rooms how much room is given to what has no bound
     */
    public LayoutBuilder(Api api, Rooms rooms) {
        this.rooms = rooms;
        this.values = new ValueSlots(rooms, told, this::slot);
        this.most = api.interfaces().isEmpty() && api.elements().size() > MANY_ELEMENTS ? FEW_SLOTS : MOST_SLOTS;
        this.elements = api.elements();
        api.elements().forEach((name, element) -> {
            Set<QName> heads = new HashSet<>();
            for (QName head = name; head != null && heads.add(head); head = headOf(api, head)) {
                substitutes.computeIfAbsent(head, any -> new LinkedHashSet<>()).add(name);
            }
        });
        for (NamedType type : api.globalTypes()) {
            if (type instanceof StructuredType structured) {
                for (StructuredType base = structured.base(); base != null; base = base.base()) {
                    derived.computeIfAbsent(base, any -> new ArrayList<>()).add(structured);
                }
            }
        }
    }

    private static QName headOf(Api api, QName element) {
        ApiElement declared = api.elements().get(element);
        return declared == null ? null : declared.head();
    }

    /** The record for the request or the answer of an operation. */
    public RecordLayout message(String name, RecordLayout.Part part, ApiOperation operation, ApiMessage message) {
        Slot root = laidOut(() -> {
            Slot record = new Slot(Slot.Kind.STRUCTURE, name, null, null);
            message.headers()
                    .forEach(header ->
                            member(record, header, 1, 1, header.cardinality() != Member.Cardinality.REQUIRED));
            if (message.wrapper() != null) {
                structure(record, message.wrapper());
            } else if (message.body() != null) {
                member(record, message.body(), 1, 1, false);
            }
            message.attachments()
                    .forEach(attached ->
                            told.add(() -> rooms.leftOut(attached, "parts that travel beside the message")));
            return record;
        });
        return new RecordLayout(name, part, root, operation, message, null);
    }

    /** The record for the detail of a fault. */
    public RecordLayout fault(String name, ApiOperation operation, ApiFault fault) {
        Slot root = laidOut(() -> {
            Slot record = new Slot(Slot.Kind.STRUCTURE, name, null, null);
            // Of what is in one record among others, the element says more than that it is a detail.
            Member detail = fault.detail();
            QName element = detail.xmlName();
            member(record, element == null ? detail : detail.called(element.getLocalPart()), 1, 1, false);
            return record;
        });
        return new RecordLayout(name, RecordLayout.Part.FAULT, root, operation, null, fault);
    }

    /** The record for a global element. */
    public RecordLayout element(String name, QName element, ApiElement declared) {
        Member member = member(element, declared);
        Slot root = laidOut(() -> {
            Slot record = new Slot(Slot.Kind.STRUCTURE, name, null, null);
            member(record, member, 1, 1, false);
            return record;
        });
        return new RecordLayout(name, RecordLayout.Part.ELEMENT, root, null, null, null);
    }

    private static Member member(QName element, ApiElement declared) {
        return new Member(
                Subject.element(element, null),
                element.getLocalPart(),
                Member.Kind.ELEMENT,
                element,
                declared.value(),
                null,
                Member.Cardinality.REQUIRED,
                declared.nillable(),
                null,
                "",
                null,
                null);
    }

    private Slot laidOut(Supplier<Slot> made) {
        for (int i = 0; ; i++) {
            depth = DEPTHS[i];
            slots = 0;
            told.clear();
            open.clear();
            structures.clear();
            try {
                Slot root = made.get();
                unempty(root);
                root.place(0);
                fix(root, true);
                if ((root.length() > RecordLayout.LARGEST || levels(root) > MOST_LEVELS) && i < DEPTHS.length - 1) {
                    continue;
                }
                told.forEach(Runnable::run);
                return root;
            } catch (TooLarge e) {
                if (i == DEPTHS.length - 1) {
                    throw new IllegalStateException("a record of one level is not too large", e);
                }
            }
        }
    }

    /** What varies has to be the last of a record: whatever comes behind it would move. */
    private void fix(Slot group, boolean last) {
        List<Slot> children = group.children();
        for (int i = 0; i < children.size(); i++) {
            Slot child = children.get(i);
            boolean isLast = last && i == children.size() - 1 && child.area() == null;
            if (child.isVarying() && !isLast) {
                child.setVarying(false);
                told.add(() -> rooms.cannotVary(child.member()));
            }
            fix(child, isLast && child.count() == null);
        }
    }

    private static int levels(Slot slot) {
        return 1
                + slot.children().stream().mapToInt(LayoutBuilder::levels).max().orElse(0);
    }

    private Slot slot(Slot.Kind kind, String wanted, Subject subject, Picture picture) {
        if (++slots > most && depth > 1) {
            throw new TooLarge();
        }
        return new Slot(kind, wanted, subject, picture);
    }

    /** What a type holds, with what it inherits. */
    private void structure(Slot group, StructuredType type) {
        open.push(type);
        // A group that repeats has no element of its own.
        structures.push(type.isGroup() ? structures.peek() : group);
        List<StructuredType> chain = new ArrayList<>();
        for (StructuredType part = type; part != null; part = part.base()) {
            chain.add(0, part);
        }
        Set<String> attributes = new HashSet<>();
        for (StructuredType part : chain) {
            for (Member attribute : part.attributes()) {
                if (attributes.add(String.valueOf(attribute.xmlName()))) {
                    member(group, attribute, 1, 1, false);
                }
            }
            if (part.attributeWildcard() != null) {
                told.add(() -> rooms.leftOut(part.attributeWildcard(), "attributes that the contract does not name"));
            }
        }
        for (StructuredType part : chain) {
            if (part.text() != null && !part.isMixed()) {
                member(group, part.text(), 1, 1, false);
            }
            if (part.content() != null) {
                content(group, part.content(), false);
            }
        }
        structures.pop();
        open.pop();
    }

    private void content(Slot group, Content<Member> content, boolean optional) {
        content.choose(new Content.Cases<Member, Void>(
                sequence -> {
                    sequence.parts().forEach(part -> content(group, part, optional || sequence.optional()));
                    return null;
                },
                choice -> {
                    choice(group, choice, optional || choice.optional());
                    return null;
                },
                all -> {
                    group.setInAnyOrder();
                    all.parts().forEach(part -> content(group, part, optional || all.optional()));
                    return null;
                },
                leaf -> {
                    wildcards.put(leaf.member(), leaf.wildcard());
                    member(group, leaf.member(), leaf.least(), leaf.most(), optional || leaf.least() == 0);
                    return null;
                }));
    }

    /** One of several: a number says which, and all share the same room. */
    private void choice(Slot group, Content.OneOf<Member> choice, boolean optional) {
        List<Content<Member>> parts = choice.parts();
        if (parts.size() == 1) {
            content(group, parts.get(0), optional);
            return;
        }
        if (parts.isEmpty()) {
            return;
        }
        String wanted = firstName(parts.get(0)) + " or " + firstName(parts.get(1));
        choice(group, wanted, parts, optional, optional || choice.isEmptiable());
    }

    private void choice(Slot group, String wanted, List<Content<Member>> parts, boolean optional, boolean emptiable) {
        Slot selector = slot(Slot.Kind.SELECTOR, wanted + " choice", null, new Picture(Usage.ZONED, 2, 0, false));
        if (parts.size() > MOST_VARIANTS) {
            parts.forEach(part -> content(group, part, true));
            return;
        }
        Slot chosen = slot(Slot.Kind.CHOICE, wanted, null, null);
        selector.add(new Slot.Condition(wanted + " none", "0"));
        List<Slot> branches = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            Slot branch = slot(Slot.Kind.BRANCH, firstName(parts.get(i)) + " part", null, null);
            selector.add(new Slot.Condition(firstName(parts.get(i)) + " chosen", String.valueOf(i + 1)));
            content(branch, parts.get(i), false);
            branches.add(branch);
        }
        share(chosen, selector, branches);
        chosen.setRemark("one of " + parts.size());
        if (emptiable) {
            chosen.setOptional();
        }
        if (!optional) {
            selector.setRemark("says which");
        }
        group.add(chosen);
    }

    /** Puts what shares room into a group: what says which is meant, the room, and all that share it. */
    private void share(Slot group, Slot selector, List<Slot> sharing) {
        int longest = 1;
        for (Slot one : sharing) {
            one.place(0);
            longest = Math.max(longest, one.length());
        }
        Slot area = slot(Slot.Kind.AREA, group.wanted() + " area", null, Picture.bytes(longest));
        group.setSelector(selector);
        group.add(selector);
        group.add(area);
        for (int i = 0; i < sharing.size(); i++) {
            Slot one = sharing.get(i);
            one.setArea(area);
            one.setOrdinal(i + 1);
            // A group of nothing cannot stand in a record; its number says enough.
            if (!one.children().isEmpty()) {
                group.add(one);
            } else if (one.type() != null) {
                group.setEmptyVariant(one.type().typeName(), i + 1);
            }
        }
    }

    private static String firstName(Content<Member> content) {
        if (content instanceof Content.Leaf<Member> leaf) {
            return leaf.member().name();
        }
        return content.parts().isEmpty() ? "nothing" : firstName(content.parts().get(0));
    }

    private void member(Slot group, Member member, int least, int most, boolean optional) {
        if (!structures.isEmpty() && rooms.isLeftOut(member)) {
            structures.peek().leaveOut(standing(new Slot(Slot.Kind.VALUE, member.name(), null, null), member));
            told.add(() -> rooms.leftOut(member));
            return;
        }
        if (member.kind() == Member.Kind.ATTRIBUTE_WILDCARD) {
            told.add(() -> rooms.leftOut(member, "attributes that the contract does not name"));
            return;
        }
        // In any order a choice could be anywhere.
        List<Content<Member>> others = group.isInAnyOrder() ? List.of() : alternatives(member);
        if (member.cardinality() == Member.Cardinality.MANY) {
            many(group, member, others, optional ? 0 : least, most);
            return;
        }
        if (!others.isEmpty()) {
            choice(group, member.name(), others, optional, optional);
            return;
        }
        // What is in a choice is optional among the members of its type, and not in the content that was chosen.
        boolean attribute = member.kind() == Member.Kind.ATTRIBUTE || member.kind() == Member.Kind.TEXT;
        single(group, member, optional || attribute && member.cardinality() == Member.Cardinality.OPTIONAL);
    }

    private void single(Slot group, Member member, boolean absentable) {
        Slot presence = null;
        if (absentable || member.nillable()) {
            presence = presence(member, absentable);
            group.add(presence);
        }
        Slot value = value(group, member);
        value.setPresence(presence);
        if (absentable) {
            value.setOptional();
        }
        group.add(value);
    }

    private Slot presence(Member member, boolean absentable) {
        Slot presence = slot(Slot.Kind.PRESENCE, member.name() + " ind", null, Picture.text(1));
        presence.add(new Slot.Condition(member.name() + " present", RecordText.PRESENT));
        if (absentable) {
            presence.add(new Slot.Condition(member.name() + " absent", RecordText.ABSENT));
        }
        if (member.nillable()) {
            presence.add(new Slot.Condition(member.name() + " nil", RecordText.NIL));
        }
        return presence;
    }

    /** The elements of which one stands where a substitution group may; empty when it has to be XML. */
    private List<Content<Member>> alternatives(Member member) {
        if (member.kind() != Member.Kind.SUBSTITUTABLE || open.size() >= depth) {
            return List.of();
        }
        List<Content<Member>> all = new ArrayList<>();
        for (QName name : substitutes.getOrDefault(member.xmlName(), Set.of())) {
            ApiElement element = elements.get(name);
            StructuredType type = element.value().plain().structure();
            if (type != null && (type.isMixed() || open.contains(type))) {
                return List.of();
            }
            if (!element.isAbstract()) {
                all.add(new Content.Leaf<>(member(name, element), 1, 1, null));
            }
        }
        return all.size() < 2 || all.size() > MOST_VARIANTS ? List.of() : all;
    }

    private void many(Slot group, Member member, List<Content<Member>> others, int least, int most) {
        int times = rooms.times(member, most == Particle.UNBOUNDED ? Integer.MAX_VALUE : most, told);
        Slot count = slot(Slot.Kind.COUNT, member.name() + " count", null, Picture.counting(times));
        group.add(count);
        Slot entry = slot(Slot.Kind.ENTRY, member.name() + " entry", null, null);
        if (others.isEmpty()) {
            single(entry, member, false);
        } else {
            entry.add(oneOf(member, others));
        }
        Slot repeated = entry.children().size() == 1 ? entry.children().get(0) : entry;
        repeated.repeat(count, times, times == most);
        repeated.setVarying(rooms.isVarying(member));
        if (least == 0 || member.repeated() != null && member.repeated().isEmptiable()) {
            repeated.setOptional();
        }
        if (others.isEmpty()) {
            repeated.setMember(member);
        }
        group.add(repeated);
    }

    /** One of the elements of a substitution group, as a group of content that holds nothing else. */
    private Slot oneOf(Member member, List<Content<Member>> others) {
        Slot one = slot(Slot.Kind.STRUCTURE, member.name(), member.subject(), null);
        choice(one, member.name(), others, false, false);
        one.setMember(member.asGroup());
        return one;
    }

    /** The slot for a value; what says how much of it is filled goes into the group before it. */
    private Slot value(Slot group, Member member) {
        ApiValue value = member.value().plain();
        Slot slot = member.kind() == Member.Kind.ELEMENT
                        || member.kind() == Member.Kind.ATTRIBUTE
                        || member.kind() == Member.Kind.TEXT
                        || member.kind() == Member.Kind.GROUP
                ? known(group, member, value)
                : null;
        if (slot == null) {
            slot = values.document(group, member);
        }
        if (member.nillable()) {
            slot.setNillable();
        }
        return standing(slot, member);
    }

    /** The slot as one that stands for a member, and takes what that may be. */
    private Slot standing(Slot slot, Member member) {
        slot.setMember(member);
        slot.setWildcard(wildcards.get(member));
        if (member.kind() == Member.Kind.SUBSTITUTABLE) {
            slot.setSubstitutes(substitutes.getOrDefault(member.xmlName(), Set.of(member.xmlName())));
        }
        return slot;
    }

    /** The slot for a value of which the form is known, or null when it is not. */
    private Slot known(Slot group, Member member, ApiValue value) {
        StructuredType type = value.structure();
        if (type != null) {
            // The text of an element can stand for it; a group that repeats is no element, and holds at most such
            // texts.
            boolean unfolds = type.isGroup() || !type.isMixed() && !open.contains(type) && open.size() < depth;
            if (!unfolds) {
                return null;
            }
            List<StructuredType> others = member.kind() == Member.Kind.ELEMENT && !type.isGroup()
                    ? derived.getOrDefault(type, List.of())
                    : List.of();
            if (others.size() > MOST_VARIANTS) {
                return null;
            }
            return others.isEmpty() ? plain(member, type) : family(member, type, others);
        }
        if (value instanceof ApiValue.Enumerated enumerated) {
            return values.enumerated(member, enumerated.type());
        }
        if (value instanceof ApiValue.Scalar scalar) {
            return values.scalar(group, member, scalar);
        }
        if (value instanceof ApiValue.Items) {
            return values.list(member);
        }
        return null;
    }

    private Slot plain(Member member, StructuredType type) {
        Slot group = slot(Slot.Kind.STRUCTURE, member.name(), member.subject(), null);
        structure(group, type);
        group.setType(type);
        unempty(group);
        return group;
    }

    /** What is empty in the contract is a byte in a record, which has no fields of no length. */
    private void unempty(Slot group) {
        if (group.children().isEmpty()) {
            group.add(slot(Slot.Kind.AREA, group.wanted() + " empty", null, Picture.text(1)));
        }
    }

    private Slot family(Member member, StructuredType type, List<StructuredType> others) {
        List<StructuredType> all = new ArrayList<>();
        all.add(type);
        all.addAll(others);
        all.removeIf(one -> one.isAbstract() || one.isMixed() || one.typeName() == null);
        if (all.isEmpty()) {
            return null;
        }
        String wanted = member.name();
        Slot group = slot(Slot.Kind.FAMILY, wanted, member.subject(), null);
        Slot selector = slot(Slot.Kind.SELECTOR, wanted + " type", null, new Picture(Usage.ZONED, 2, 0, false));
        List<Slot> variants = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            StructuredType one = all.get(i);
            String name = one.typeName().getLocalPart();
            selector.add(new Slot.Condition(wanted + " is " + name, String.valueOf(i + 1)));
            Slot variant = slot(Slot.Kind.VARIANT, name, null, null);
            variant.setType(one);
            // The declared type is in a circle with itself when another of its family holds it.
            open.push(type);
            structure(variant, one);
            open.pop();
            variants.add(variant);
        }
        group.setType(type);
        share(group, selector, variants);
        return group;
    }
}
