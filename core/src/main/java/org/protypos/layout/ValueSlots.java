package org.protypos.layout;

import java.util.List;
import java.util.Map;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.EnumeratedType;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.naming.Subject;

/** The slots for what holds no other members: single values, lists in one text, and what stays XML. */
final class ValueSlots {
    /** Makes slots, as long as a record has room for more. */
    interface Maker {
        Slot slot(Slot.Kind kind, String wanted, Subject subject, Picture picture);
    }

    private final Rooms rooms;
    private final List<Runnable> told;
    private final Maker maker;

    /**
     * Makes slots of a record.
     *
     * @param told takes what is to be told of rooms that nobody has chosen
     */
    ValueSlots(Rooms rooms, List<Runnable> told, Maker maker) {
        this.rooms = rooms;
        this.told = told;
        this.maker = maker;
    }

    /** The slot for several values in one text. */
    Slot list(Member member) {
        return maker.slot(Slot.Kind.VALUE, member.name(), member.subject(), Picture.text(rooms.list(member, told)));
    }

    /** The slot for one of some values, each a condition of its own. */
    Slot enumerated(Member member, EnumeratedType type) {
        String wanted = member.name();
        int longest = type.values().stream()
                .mapToInt(value -> value.text().length())
                .max()
                .orElse(1);
        if (type.base() == ScalarKind.QNAME) {
            // Names stand in records with their namespaces, which the values as they are written do not have.
            return maker.slot(Slot.Kind.VALUE, wanted, member.subject(), Picture.text(Rooms.NAME));
        }
        Slot slot = maker.slot(Slot.Kind.VALUE, wanted, member.subject(), Picture.text(Math.max(1, longest)));
        for (EnumeratedType.Value value : type.values()) {
            if (!value.text().isEmpty()) {
                slot.add(new Slot.Condition(wanted + " " + value.text(), value.text()));
            }
        }
        return slot;
    }

    /** The slot for a single value; what says how long it is goes into the group before it. */
    Slot scalar(Slot group, Member member, ApiValue.Scalar scalar) {
        String wanted = member.name();
        Map<String, Picture> parts = rooms.parts(member, scalar.kind());
        if (!parts.isEmpty()) {
            Slot moment = maker.slot(Slot.Kind.MOMENT, wanted, member.subject(), null);
            parts.forEach(
                    (name, picture) -> moment.add(maker.slot(Slot.Kind.VALUE, wanted + " " + name, null, picture)));
            return moment;
        }
        Rooms.Form form = rooms.form(member, scalar, told);
        Slot length = form.hasLength() ? lengthOf(group, wanted, form.picture().size()) : null;
        Slot slot = maker.slot(Slot.Kind.VALUE, wanted, member.subject(), form.picture());
        slot.setLengthSlot(length);
        form.conditions().forEach((name, value) -> slot.add(new Slot.Condition(wanted + " " + name, value)));
        slot.setRemark(form.remark());
        return slot;
    }

    /** A slot that says how much of another is filled. */
    Slot lengthOf(Slot group, String wanted, int most) {
        Slot length = maker.slot(Slot.Kind.LENGTH, wanted + " len", null, Picture.counting(most));
        group.add(length);
        return length;
    }

    /** The slot for what has no form of its own: XML. */
    Slot document(Slot group, Member member) {
        int room = rooms.document(member, told);
        Slot length = lengthOf(group, member.name(), room);
        Slot slot = maker.slot(Slot.Kind.DOCUMENT, member.name(), member.subject(), Picture.text(room));
        slot.setLengthSlot(length);
        slot.setRemark("XML");
        return slot;
    }
}
