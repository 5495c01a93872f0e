package org.protypos.layout;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.api.type.Member;
import org.protypos.api.type.StructuredType;
import org.protypos.naming.Subject;
import org.protypos.schema.Wildcard;

/**
 * A place in a record: a single field, or a group of those that are in it. Who lays the record out fills it, and nobody
 * changes it after that.
 */
public final class Slot {
    /** What a slot is for. */
    public enum Kind {
        /** Says whether the slot behind it has a value, or is nil. */
        PRESENCE,
        /** Says how many entries of the slot behind it are filled. */
        COUNT,
        /** Says how much of the slot behind it is filled. */
        LENGTH,
        /** Says which of the slots that share the room behind it is meant. */
        SELECTOR,
        /** The room that several slots share. */
        AREA,
        /** A single value. */
        VALUE,
        /** A date or a time as the numbers that it is made of. */
        MOMENT,
        /** XML as text: what has no fixed form. */
        DOCUMENT,
        /** The attributes, text and elements of a structured value. */
        STRUCTURE,
        /** One of several entries, with what is said about it. */
        ENTRY,
        /** One of several contents. */
        CHOICE,
        /** One of the contents of a choice. */
        BRANCH,
        /** A structured value of one of several types. */
        FAMILY,
        /** One of the types of a family. */
        VARIANT
    }

    /** A value that has a name. */
    public static final class Condition {
        private final String wanted;
        private final String value;
        private String name;

        Condition(String wanted, String value) {
            this.wanted = wanted;
            this.value = value;
        }

        /** What it would be called, in words. */
        public String wanted() {
            return wanted;
        }

        /** Gives it its name, once. */
        public void setName(String given) {
            name = given;
        }

        /** Its name. */
        public String name() {
            return name;
        }

        /** The value as the slot holds it. */
        public String value() {
            return value;
        }
    }

    private final Kind kind;
    private final String wanted;
    private final Subject subject;
    private final Picture picture;
    private final List<Slot> children = new ArrayList<>();
    private final List<Condition> conditions = new ArrayList<>();
    private String name;
    private Member member;
    private StructuredType type;
    private Slot presence;
    private Slot count;
    private Slot lengthSlot;
    private Slot selector;
    private Slot area;
    private int times = 1;
    private boolean isComplete;
    private boolean isVarying;
    private boolean isNillable;
    private boolean isOptional;
    private Set<QName> substitutes = Set.of();
    private Wildcard wildcard;
    private boolean isInAnyOrder;
    private int ordinal;
    private final List<Slot> leftOut = new ArrayList<>();
    private final Map<QName, Integer> emptyVariants = new HashMap<>();
    private String remark = "";
    private int offset;
    private int length;

    /**
     * Begins a slot.
     *
     * @param subject the component that it is for, or null for what no component is called by
     * @param picture its form, or null for a group
     */
    Slot(Kind kind, String wanted, Subject subject, Picture picture) {
        this.kind = kind;
        this.wanted = wanted;
        this.subject = subject;
        this.picture = picture;
    }

    /** What it is for. */
    public Kind kind() {
        return kind;
    }

    /** What it would be called, in words. */
    public String wanted() {
        return wanted;
    }

    /** The component that it is for, or null. */
    public Subject subject() {
        return subject;
    }

    /** Its name, alone in the record. */
    public String name() {
        return name;
    }

    /** Gives it its name, once. */
    public void setName(String given) {
        name = given;
    }

    /** Its form; null for a group. */
    public Picture picture() {
        return picture;
    }

    /** What is in a group, in order; slots that share room stand behind that room. */
    public List<Slot> children() {
        return Collections.unmodifiableList(children);
    }

    void add(Slot child) {
        children.add(child);
    }

    /** The values that have names. */
    public List<Condition> conditions() {
        return Collections.unmodifiableList(conditions);
    }

    void add(Condition condition) {
        conditions.add(condition);
    }

    /** The member of the API whose values it holds, or null. */
    public Member member() {
        return member;
    }

    void setMember(Member one) {
        member = one;
    }

    /** The type of a variant, or null. */
    public StructuredType type() {
        return type;
    }

    void setType(StructuredType one) {
        type = one;
    }

    /** The slot that says whether it has a value, or null when it always has. */
    public Slot presence() {
        return presence;
    }

    void setPresence(Slot slot) {
        presence = slot;
    }

    /** The slot that says how many of its entries are filled, or null when there is but one. */
    public Slot count() {
        return count;
    }

    /** Makes it come several times. */
    void repeat(Slot counter, int most, boolean complete) {
        count = counter;
        times = most;
        isComplete = complete;
    }

    /** Whether there is room for as many entries as the contract allows in one place. */
    public boolean isComplete() {
        return isComplete;
    }

    /** How many entries it has room for. */
    public int times() {
        return times;
    }

    /** Whether the record ends with the last of the entries that are there. */
    public boolean isVarying() {
        return isVarying;
    }

    void setVarying(boolean varying) {
        isVarying = varying;
    }

    /** What holds the value of one entry: the last of what is in it, or the slot itself when there is no more in it. */
    public Slot entry() {
        return kind == Kind.ENTRY ? children.get(children.size() - 1) : this;
    }

    /** The slot that says how much of it is filled, or null when blanks at its end mean nothing. */
    public Slot lengthSlot() {
        return lengthSlot;
    }

    void setLengthSlot(Slot slot) {
        lengthSlot = slot;
    }

    /** The slot that says which of several is meant, for choices and families. */
    public Slot selector() {
        return selector;
    }

    void setSelector(Slot slot) {
        selector = slot;
    }

    /** The room that it shares with others, or null. */
    public Slot area() {
        return area;
    }

    void setArea(Slot room) {
        area = room;
    }

    /** By which number the selector means it, for what shares room with others. */
    public int ordinal() {
        return ordinal;
    }

    void setOrdinal(int number) {
        ordinal = number;
    }

    /** Whether an element may be the one of this slot, beside one of its own name: by substitution, or by a wildcard. */
    public boolean takes(QName element) {
        return substitutes.contains(element) || wildcard != null && wildcard.allows(element.getNamespaceURI());
    }

    void setSubstitutes(Set<QName> elements) {
        substitutes = elements;
    }

    void setWildcard(Wildcard allowing) {
        wildcard = allowing;
    }

    /** Whether its elements may come in any order. */
    public boolean isInAnyOrder() {
        return isInAnyOrder;
    }

    void setInAnyOrder() {
        isInAnyOrder = true;
    }

    /** The number of a type of a family that holds nothing, and so has no slot; 0 when there is none of the name. */
    public int emptyVariant(QName name) {
        return emptyVariants.getOrDefault(name, 0);
    }

    void setEmptyVariant(QName name, int number) {
        emptyVariants.put(name, number);
    }

    /** What is in its type and, as a rule says, not in the record. */
    public List<Slot> leftOut() {
        return Collections.unmodifiableList(leftOut);
    }

    void leaveOut(Slot left) {
        leftOut.add(left);
    }

    /** Whether nothing of it need come in content; what stands for no content of its own is nothing anyway. */
    public boolean isEmptiable() {
        return switch (kind) {
            case PRESENCE, COUNT, LENGTH, SELECTOR, AREA -> true;
            case CHOICE -> isOptional;
            default ->
                isOptional
                        || member != null
                                && (member.kind() == Member.Kind.ATTRIBUTE || member.kind() == Member.Kind.TEXT);
        };
    }

    void setOptional() {
        isOptional = true;
    }

    /** Whether its element may be nil. */
    public boolean isNillable() {
        return isNillable;
    }

    void setNillable() {
        isNillable = true;
    }

    /** What is said about it, for who reads the layout. */
    public String remark() {
        return remark;
    }

    void setRemark(String text) {
        remark = text;
    }

    /** The name of its element or attribute, or null. */
    public QName xmlName() {
        return member == null ? null : member.xmlName();
    }

    /** Where its first entry begins, in bytes from the beginning of the group around it. */
    public int offset() {
        return offset;
    }

    /** The length of one entry in bytes. */
    public int length() {
        return length;
    }

    /** The length of all entries. */
    public int wholeLength() {
        return (int) Math.min(Integer.MAX_VALUE, (long) length * times);
    }

    /** Puts it at an offset, and all that is in it behind each other. */
    void place(int at) {
        offset = at;
        if (picture != null) {
            length = picture.length();
            return;
        }
        long end = 0;
        for (Slot child : children) {
            if (child.area != null) {
                child.place(child.area.offset);
            } else {
                child.place((int) Math.min(Integer.MAX_VALUE, end));
                end += child.wholeLength();
            }
        }
        length = (int) Math.min(Integer.MAX_VALUE, end);
    }
}
