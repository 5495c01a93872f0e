package org.protypos.record;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.api.type.Member;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.RecordText;
import org.protypos.layout.Slot;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;

/** Makes a message of a record. */
public final class RecordReader {
    private static final QName NIL = new QName(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI, "nil");
    private static final QName TYPE = new QName(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI, "type");

    private final RecordLayout layout;
    private final FieldValues values;
    private final Moments moments;
    private final Spelling spelling = new Spelling();

    private RecordReader(RecordLayout layout, FieldValues values) {
        this.layout = layout;
        this.values = values;
        this.moments = new Moments(values);
    }

    /**
     * What a record holds.
     *
     * @param headers the header blocks
     * @param body what stands in the body, or the detail of a fault
     */
    public record Content(List<MessageElement> headers, List<MessageElement> body) {}

    /**
     * Reads a record.
     *
     * @param bytes the record; it has the length that the layout says, or more
     * @param about what it is called when one talks about it
     * @param findings is told what is wrong with it, by offset and field
     */
    public static Content read(RecordLayout layout, byte[] bytes, RecordForm form, String about, Findings findings) {
        RecordLayout.Placed last = layout.varying();
        int least = layout.leastLength();
        FieldValues values = new FieldValues(Arrays.copyOf(bytes, layout.length()), form, findings, about);
        if (last != null && bytes.length >= least) {
            least += values.entries(last) * last.slot().length();
        }
        if (bytes.length < least) {
            findings.error(
                    "record-short",
                    null,
                    about + " has " + bytes.length + " bytes, and " + layout.name() + " has " + least,
                    "write records of the length that the copybook says");
            return new Content(List.of(), List.of());
        }
        return new RecordReader(layout, values).content();
    }

    private Content content() {
        List<MessageElement> headers = new ArrayList<>();
        MessageElement all = new MessageElement(layout.isWrapped() ? layout.body() : new QName("all"), null);
        for (Slot slot : layout.root().children()) {
            if (layout.isHeader(slot)) {
                MessageElement block = new MessageElement(new QName("block"), null);
                slot(block, slot, 0);
                headers.addAll(block.children());
            } else {
                slot(all, slot, 0);
            }
        }
        return new Content(headers, layout.isWrapped() ? List.of(all) : all.children());
    }

    private void fill(MessageElement element, Slot group, int at) {
        for (Slot child : group.children()) {
            slot(element, child, at);
        }
    }

    /** Puts what a slot holds into an element. */
    private void slot(MessageElement element, Slot slot, int group) {
        int at = group + slot.offset();
        switch (slot.kind()) {
            case PRESENCE, COUNT, LENGTH, SELECTOR, AREA, BRANCH, VARIANT -> {}
            case CHOICE -> {
                int chosen = values.number(slot.selector(), at + slot.selector().offset());
                Slot branch = sharing(slot, chosen);
                if (branch != null) {
                    fill(element, branch, at + branch.offset());
                } else if (chosen != 0 && chosen > slot.selector().conditions().size() - 1) {
                    unknown(slot.selector(), at + slot.selector().offset(), chosen);
                }
            }
            case VALUE, MOMENT, DOCUMENT, STRUCTURE, ENTRY, FAMILY -> {
                if (slot.count() != null) {
                    repeated(element, slot, group);
                } else {
                    single(element, slot, group, at);
                }
            }
        }
    }

    private void unknown(Slot selector, int at, int number) {
        values.wrong(
                "record-choice",
                selector,
                at,
                number + " stands for nothing",
                "use a number that has a name in the copybook");
    }

    private static Slot sharing(Slot group, int number) {
        return group.children().stream()
                .filter(slot -> slot.area() != null && slot.ordinal() == number)
                .findFirst()
                .orElse(null);
    }

    private void repeated(MessageElement element, Slot slot, int group) {
        int count = values.number(slot.count(), group + slot.count().offset());
        if (count < 0 || count > slot.times()) {
            values.wrong(
                    "record-count",
                    slot.count(),
                    group + slot.count().offset(),
                    count + " entries are said to be there, and there is room for " + slot.times(),
                    "count the entries that are filled");
            return;
        }
        for (int i = 0; i < count; i++) {
            int at = group + slot.offset() + i * slot.length();
            if (slot.kind() == Slot.Kind.ENTRY) {
                Slot inner = slot.entry();
                single(element, inner, at, at + inner.offset());
            } else {
                value(element, slot, group, at);
            }
        }
    }

    private void single(MessageElement element, Slot slot, int group, int at) {
        String presence = slot.presence() == null
                ? RecordText.PRESENT
                : values.flag(slot.presence(), group + slot.presence().offset());
        boolean absentable = slot.presence() != null
                && slot.presence().conditions().stream()
                        .anyMatch(one -> one.value().equals(RecordText.ABSENT));
        switch (presence) {
            case RecordText.PRESENT -> value(element, slot, group, at);
            case RecordText.NIL -> {
                MessageElement nil = new MessageElement(slot.xmlName(), null);
                nil.attributes().put(NIL, "true");
                element.add(nil);
                attributes(nil, slot, at);
            }
            case RecordText.ABSENT, "" -> {
                if (!absentable) {
                    value(element, slot, group, at);
                }
            }
            default ->
                values.wrong(
                        "record-flag",
                        slot.presence(),
                        group + slot.presence().offset(),
                        "\"" + Printable.of(presence) + "\" says neither that it is there nor that it is not",
                        "move Y, N or Z there");
        }
    }

    private void value(MessageElement element, Slot slot, int group, int at) {
        Member member = slot.member();
        int lengthAt = slot.lengthSlot() == null ? 0 : group + slot.lengthSlot().offset();
        if (member.kind() == Member.Kind.GROUP) {
            fill(element, slot, at);
            return;
        }
        if (slot.kind() == Slot.Kind.DOCUMENT
                && member.kind() != Member.Kind.ATTRIBUTE
                && member.kind() != Member.Kind.TEXT) {
            document(element, slot, at, lengthAt);
            return;
        }
        if (slot.kind() == Slot.Kind.MOMENT || slot.kind() == Slot.Kind.VALUE || slot.kind() == Slot.Kind.DOCUMENT) {
            String text = slot.kind() == Slot.Kind.MOMENT ? moments.get(slot, at) : values.get(slot, at, lengthAt);
            if (text != null) {
                put(element, slot, text);
            }
            return;
        }
        MessageElement child = new MessageElement(member.xmlName(), null);
        element.add(child);
        if (slot.kind() == Slot.Kind.FAMILY) {
            family(child, slot, at);
        } else {
            fill(child, slot, at);
        }
    }

    private void put(MessageElement element, Slot slot, String value) {
        Member member = slot.member();
        String text = FieldValues.kind(slot).isWrittenInWays() ? spelling.of(value, member.facets()) : value;
        boolean name = FieldValues.isNames(slot);
        switch (member.kind()) {
            case ATTRIBUTE -> element.attributes().put(member.xmlName(), name ? allPrefixed(element, text) : text);
            case TEXT -> element.add(name ? allPrefixed(element, text) : text);
            default -> {
                MessageElement child = new MessageElement(member.xmlName(), null);
                element.add(child);
                child.setText(name ? allPrefixed(child, text) : text);
            }
        }
    }

    /** Qualified names, each with a prefix that the element declares. */
    private static String allPrefixed(MessageElement element, String expanded) {
        return Arrays.stream(expanded.strip().split("\\s+"))
                .map(name -> prefixed(element, name))
                .collect(Collectors.joining(" "));
    }

    /** A qualified name with a prefix that the element declares. */
    private static String prefixed(MessageElement element, String expanded) {
        QName name;
        try {
            name = QName.valueOf(expanded.strip());
        } catch (IllegalArgumentException e) {
            return expanded;
        }
        if (name.getNamespaceURI().isEmpty()) {
            return name.getLocalPart();
        }
        for (Map.Entry<String, String> one : element.prefixes().entrySet()) {
            if (one.getValue().equals(name.getNamespaceURI()) && !one.getKey().isEmpty()) {
                return one.getKey() + ":" + name.getLocalPart();
            }
        }
        String prefix = "q";
        for (int i = 2; element.prefixes().containsKey(prefix); i++) {
            prefix = "q" + i;
        }
        element.prefixes().put(prefix, name.getNamespaceURI());
        return prefix + ":" + name.getLocalPart();
    }

    /** The attributes of what is nil: all that it has, beside the type that it says. */
    private void attributes(MessageElement nil, Slot slot, int at) {
        if (slot.kind() == Slot.Kind.FAMILY) {
            Slot variant = sharing(
                    slot, values.number(slot.selector(), at + slot.selector().offset()));
            if (variant != null) {
                state(nil, slot, variant);
                attributes(nil, variant, at + variant.offset());
            }
            return;
        }
        for (Slot child : slot.children()) {
            if (child.member() != null && child.member().kind() == Member.Kind.ATTRIBUTE) {
                single(nil, child, at, at + child.offset());
            }
        }
    }

    private static void state(MessageElement element, Slot slot, Slot variant) {
        if (variant.type() != slot.type()) {
            element.attributes()
                    .put(TYPE, prefixed(element, variant.type().typeName().toString()));
        }
    }

    private void family(MessageElement element, Slot slot, int at) {
        int number = values.number(slot.selector(), at + slot.selector().offset());
        Slot variant = sharing(slot, number == 0 && !slot.type().isAbstract() ? 1 : number);
        if (variant == null) {
            if (number < 1 || number > slot.selector().conditions().size()) {
                unknown(slot.selector(), at + slot.selector().offset(), number);
            }
            return;
        }
        state(element, slot, variant);
        fill(element, variant, at + variant.offset());
    }

    private void document(MessageElement element, Slot slot, int at, int lengthAt) {
        String text = values.document(slot, at, lengthAt);
        if (text == null || text.isBlank()) {
            return;
        }
        Findings own = new Findings();
        MessageElement root = MessageReader.read(slot.name(), text.strip().getBytes(StandardCharsets.UTF_8), own);
        if (root == null || own.hasErrors()) {
            values.wrong("record-document", slot, at, "the text is no XML", "write one element there");
        } else {
            element.add(root);
        }
    }
}
