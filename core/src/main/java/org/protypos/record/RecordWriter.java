package org.protypos.record;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Member;
import org.protypos.diagnostic.Findings;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.RecordText;
import org.protypos.layout.Slot;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;

/** Makes a record of a message. */
public final class RecordWriter {
    private static final String XSI = XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI;

    private final RecordLayout layout;
    private final FieldValues values;
    private final Moments moments;
    private final Findings findings;
    private final String about;

    private RecordWriter(RecordLayout layout, FieldValues values, Findings findings, String about) {
        this.layout = layout;
        this.values = values;
        this.moments = new Moments(values);
        this.findings = findings;
        this.about = about;
    }

    /** The children of an element, of which the next is the one that comes first and is not taken. */
    private static final class Children {
        private final List<MessageElement> all;
        private final Set<MessageElement> taken = new HashSet<>();
        private int next;

        Children(List<MessageElement> all) {
            this.all = all;
        }

        MessageElement next() {
            while (next < all.size() && taken.contains(all.get(next))) {
                next++;
            }
            return next < all.size() ? all.get(next) : null;
        }

        MessageElement named(QName name, boolean anywhere) {
            if (anywhere) {
                return all.stream()
                        .filter(child -> !taken.contains(child) && child.name().equals(name))
                        .findFirst()
                        .orElse(null);
            }
            MessageElement child = next();
            return child != null && child.name().equals(name) ? child : null;
        }

        void take(MessageElement child) {
            taken.add(child);
        }
    }

    /**
     * Writes a record. Elements of the message that are empty and stand for their default are given it.
     *
     * @param headers the header blocks of the message
     * @param body what stands in its body, or the detail of a fault
     * @param about what the record is called when one talks about it
     * @param findings is told what has no place in it
     * @return the record, of the length of the layout, or of what is there where it ends with the last of its entries
     */
    public static byte[] write(
            RecordLayout layout,
            List<MessageElement> headers,
            List<MessageElement> body,
            RecordForm form,
            String about,
            Findings findings) {
        byte[] record = new byte[layout.length()];
        FieldValues values = new FieldValues(record, form, findings, about);
        new RecordWriter(layout, values, findings, about).write(headers, body);
        if (findings.hasErrors()) {
            values.forget();
        }
        RecordLayout.Placed last = layout.varying();
        return last == null
                ? record
                : Arrays.copyOf(
                        record,
                        last.offset() + values.entries(last) * last.slot().length());
    }

    private void write(List<MessageElement> headers, List<MessageElement> body) {
        layout.root().children().forEach(slot -> clear(slot, 0));
        Children blocks = new Children(headers);
        MessageElement wrapper = layout.isWrapped() && !body.isEmpty() ? body.get(0) : null;
        Children content = new Children(kept(layout.root(), wrapper == null ? body : wrapper.children()));
        for (Slot slot : layout.root().children()) {
            boolean header = layout.isHeader(slot);
            put(
                    slot,
                    0,
                    wrapper,
                    header ? blocks : content,
                    header || layout.root().isInAnyOrder());
        }
        leftover(content, layout.root().name());
    }

    private void clear(Slot slot, int group) {
        for (int i = 0; i < slot.times(); i++) {
            int at = group + slot.offset() + i * slot.length();
            if (slot.area() != null) {
                continue;
            }
            if (slot.picture() != null) {
                values.clear(slot, at);
            }
            slot.children().forEach(child -> clear(child, at));
        }
    }

    private void leftover(Children children, String where) {
        for (MessageElement child = children.next(); child != null; child = children.next()) {
            findings.error(
                    "record-left-out",
                    null,
                    about + ": the element " + child.name().getLocalPart() + " has no place in " + where,
                    "generate the records from the contract that the message follows");
            children.take(child);
        }
    }

    private void fill(Slot group, int at, MessageElement element, Children children) {
        for (Slot slot : group.children()) {
            put(slot, at, element, children, group.isInAnyOrder());
        }
    }

    private void put(Slot slot, int group, MessageElement element, Children children, boolean anywhere) {
        switch (slot.kind()) {
            case PRESENCE, COUNT, LENGTH, SELECTOR, AREA, BRANCH, VARIANT -> {}
            case CHOICE -> choice(slot, group + slot.offset(), element, children);
            case VALUE, MOMENT, DOCUMENT, STRUCTURE, ENTRY, FAMILY -> {
                if (slot.count() != null) {
                    repeated(slot, group, children, anywhere);
                } else {
                    single(slot, group, element, children, anywhere);
                }
            }
        }
    }

    private void choice(Slot slot, int at, MessageElement element, Children children) {
        MessageElement next = children.next();
        for (Slot branch : slot.children()) {
            if (branch.area() != null && next != null && canStart(branch, next)) {
                values.putNumber(slot.selector(), at + slot.selector().offset(), branch.ordinal());
                branch.children().forEach(child -> clear(child, at + branch.offset()));
                fill(branch, at + branch.offset(), element, children);
                return;
            }
        }
    }

    /** Whether content of a group may begin with an element: one that must come lets nothing behind it be the first. */
    private static boolean canStart(Slot group, MessageElement next) {
        for (Slot slot : group.children()) {
            if (slot.kind() == Slot.Kind.CHOICE) {
                if (slot.children().stream().anyMatch(branch -> branch.area() != null && canStart(branch, next))) {
                    return true;
                }
            } else if (slot.member() != null && takes(slot, next)) {
                return true;
            }
            if (!slot.isEmptiable() && !group.isInAnyOrder()) {
                return false;
            }
        }
        return false;
    }

    private static boolean takes(Slot slot, MessageElement next) {
        Member member = slot.member();
        return switch (member.kind()) {
            case ELEMENT -> member.xmlName().equals(next.name());
            case GROUP -> canStart(slot.entry(), next);
            case SUBSTITUTABLE, WILDCARD -> slot.takes(next.name());
            case MIXED -> true;
            case ATTRIBUTE, TEXT, ATTRIBUTE_WILDCARD -> false;
        };
    }

    private void repeated(Slot slot, int group, Children children, boolean anywhere) {
        Member member = slot.member();
        Slot inner = slot.entry();
        int inside = slot.kind() == Slot.Kind.ENTRY ? inner.offset() : 0;
        int count = 0;
        for (MessageElement next = found(inner, children, anywhere);
                next != null;
                next = found(inner, children, anywhere)) {
            if (count == slot.times() && slot.isComplete()) {
                // More of them may not come here: they are of what is around, which repeats as well.
                break;
            }
            if (count == slot.times()) {
                int all = count;
                int last = group + slot.offset() + (count - 1) * slot.length();
                for (; next != null; next = found(inner, children, anywhere)) {
                    if (member.kind() == Member.Kind.GROUP) {
                        fill(inner, last + inside, null, children);
                    }
                    children.take(next);
                    all++;
                }
                values.wrong(
                        "record-overflow",
                        slot,
                        group + slot.offset(),
                        all + " entries, and there is room for " + slot.times(),
                        "give it more room: times: " + all + " in a rule, below cobol:");
                break;
            }
            int at = group + slot.offset() + count * slot.length();
            if (member.kind() == Member.Kind.GROUP) {
                fill(inner, at + inside, null, children);
                if (children.next() == next) {
                    break;
                }
            } else {
                children.take(next);
                int around = slot.kind() == Slot.Kind.ENTRY ? at : group;
                element(inner, around, at + inside, next);
            }
            count++;
        }
        values.putNumber(slot.count(), group + slot.count().offset(), count);
    }

    private static MessageElement found(Slot slot, Children children, boolean anywhere) {
        Member member = slot.member();
        if (member.kind() == Member.Kind.ELEMENT) {
            return children.named(member.xmlName(), anywhere);
        }
        MessageElement next = children.next();
        return next != null && takes(slot, next) ? next : null;
    }

    private void single(Slot slot, int group, MessageElement element, Children children, boolean anywhere) {
        Member member = slot.member();
        int at = group + slot.offset();
        if (member.kind() == Member.Kind.ATTRIBUTE || member.kind() == Member.Kind.TEXT) {
            String text = member.kind() == Member.Kind.TEXT
                    ? element == null ? null : element.text()
                    : element == null ? null : element.attributes().get(member.xmlName());
            presence(slot, group, text == null ? RecordText.ABSENT : RecordText.PRESENT);
            if (text != null) {
                text(slot, group, at, text, element);
            }
            return;
        }
        if (member.kind() == Member.Kind.GROUP) {
            fill(slot, at, element, children);
            return;
        }
        MessageElement next = found(slot, children, anywhere);
        if (next == null) {
            presence(slot, group, RecordText.ABSENT);
            return;
        }
        children.take(next);
        element(slot, group, at, next);
    }

    private void presence(Slot slot, int group, String flag) {
        if (slot.presence() != null) {
            values.putFlag(slot.presence(), group + slot.presence().offset(), flag);
        }
    }

    /** Puts an element into the slot that is for it. */
    private void element(Slot slot, int group, int at, MessageElement element) {
        if (element.isNil() && slot.isNillable()) {
            presence(slot, group, RecordText.NIL);
            nil(slot, at, element);
            return;
        }
        presence(slot, group, RecordText.PRESENT);
        String standard = slot.member() == null ? null : slot.member().defaultValue();
        if (standard != null && element.content().isEmpty()) {
            // What is empty stands for its default, and a field holds values (XML Schema Part 1, section 3.3.4).
            element.setText(standard);
        }
        switch (slot.kind()) {
            case VALUE, MOMENT -> {
                text(slot, group, at, element.text(), element);
                rest(slot, at, element, Set.of());
            }
            case DOCUMENT -> text(slot, group, at, MessageText.compact(standing(element)), element);
            case FAMILY -> {
                Slot variant = variant(slot, at, element);
                if (variant != null) {
                    whole(variant, at + variant.offset(), element);
                }
            }
            default -> whole(slot, at, element);
        }
    }

    /** What is nil holds nothing, and has its attributes all the same (XML Schema Part 1, section 3.4.4). */
    private void nil(Slot slot, int at, MessageElement element) {
        if (slot.kind() == Slot.Kind.FAMILY) {
            Slot variant = variant(slot, at, element);
            if (variant != null) {
                nil(variant, at + variant.offset(), element);
            }
            return;
        }
        for (Slot child : slot.children()) {
            if (child.member() != null && child.member().kind() == Member.Kind.ATTRIBUTE) {
                single(child, at, element, new Children(List.of()), false);
            }
        }
        rest(slot, at, element, attributes(slot));
    }

    private void whole(Slot slot, int at, MessageElement element) {
        Children children = new Children(kept(slot, element.children()));
        fill(slot, at, element, children);
        leftover(children, slot.name());
        rest(slot, at, element, attributes(slot));
    }

    /** The elements without those that a rule leaves out; a wildcard that is left out leaves out none that has a place. */
    private static List<MessageElement> kept(Slot group, List<MessageElement> elements) {
        if (group.leftOut().isEmpty()) {
            return elements;
        }
        return elements.stream()
                .filter(element ->
                        group.leftOut().stream().noneMatch(left -> takes(left, element)) || has(group, element.name()))
                .toList();
    }

    private static boolean has(Slot group, QName name) {
        return group.children().stream()
                .anyMatch(slot -> name.equals(slot.xmlName())
                        || slot.kind() == Slot.Kind.CHOICE && has(slot, name)
                        || slot.kind() == Slot.Kind.BRANCH && has(slot, name)
                        || slot.kind() == Slot.Kind.ENTRY && has(slot, name)
                        || slot.member() != null && slot.member().kind() == Member.Kind.GROUP && has(slot, name));
    }

    private static Set<QName> attributes(Slot group) {
        Set<QName> names = new HashSet<>();
        group.leftOut().forEach(slot -> names.add(slot.xmlName()));
        for (Slot slot : group.children()) {
            if (slot.member() != null && slot.member().kind() == Member.Kind.ATTRIBUTE) {
                names.add(slot.xmlName());
            }
        }
        return names;
    }

    /** Tells what else an element says that the slot has no place for: attributes, and the type of a value. */
    private void rest(Slot slot, int at, MessageElement element, Set<QName> known) {
        for (QName name : element.attributes().keySet()) {
            boolean ofInstance = name.getNamespaceURI().equals(XSI);
            if (!ofInstance && !known.contains(name) || ofInstance && isValue(slot) && isNews(slot, element, name)) {
                values.wrong(
                        "record-left-out",
                        slot,
                        at,
                        "the attribute " + name.getLocalPart() + " of "
                                + element.name().getLocalPart() + " has no place in the record",
                        "");
            }
        }
    }

    private static boolean isValue(Slot slot) {
        return slot.kind() == Slot.Kind.VALUE || slot.kind() == Slot.Kind.MOMENT;
    }

    /** Whether an attribute says a type of a value that the contract does not say. */
    private static boolean isNews(Slot slot, MessageElement element, QName attribute) {
        if (!attribute.getLocalPart().equals("type")) {
            return false;
        }
        QName type = element.resolve(element.attributes().get(attribute).strip());
        Member member = slot.member();
        ApiValue value = member.value().plain();
        boolean builtin = value instanceof ApiValue.Scalar scalar
                && new QName(
                                XMLConstants.W3C_XML_SCHEMA_NS_URI,
                                scalar.kind().builtin().local())
                        .equals(type);
        boolean named =
                member.shapedAs() != null && member.shapedAs().designator().equals("~" + type);
        return !builtin && !named && !Objects.equals(type, member.typeName());
    }

    /** The element with all prefixes that are declared around it, so that it can stand alone. */
    private static MessageElement standing(MessageElement element) {
        for (MessageElement around = element.parent(); around != null; around = around.parent()) {
            around.prefixes().forEach(element.prefixes()::putIfAbsent);
        }
        return element;
    }

    private void text(Slot slot, int group, int at, String text, MessageElement element) {
        if (slot.kind() == Slot.Kind.MOMENT) {
            moments.put(slot, at, text.strip());
            return;
        }
        String value = text;
        if (FieldValues.isNames(slot) && element != null) {
            value = Arrays.stream(text.strip().split("\\s+"))
                    .map(name -> {
                        QName resolved = name.isEmpty() ? null : element.resolve(name);
                        return resolved == null ? name : resolved.toString();
                    })
                    .collect(Collectors.joining(" "));
        }
        values.put(
                slot,
                at,
                slot.lengthSlot() == null ? 0 : group + slot.lengthSlot().offset(),
                value);
    }

    /** Says which type of a family an element is of: the room for that, or null when it holds nothing or is not known. */
    private Slot variant(Slot slot, int at, MessageElement element) {
        String said = element.attribute(XSI, "type");
        QName type = said == null ? slot.type().typeName() : element.resolve(said.strip());
        Slot variant = slot.children().stream()
                .filter(one -> one.area() != null && one.type().typeName().equals(type))
                .findFirst()
                .orElse(null);
        int number = variant != null ? variant.ordinal() : slot.emptyVariant(type);
        if (number == 0) {
            values.wrong(
                    "record-choice",
                    slot,
                    at,
                    "the type " + (type == null ? said : type.getLocalPart()) + " is none that the record knows",
                    "generate the records from the contract that the message follows");
            return null;
        }
        values.putNumber(slot.selector(), at + slot.selector().offset(), number);
        if (variant != null) {
            variant.children().forEach(child -> clear(child, at + variant.offset()));
        }
        return variant;
    }
}
