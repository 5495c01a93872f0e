package org.protypos.record;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.layout.RecordLayout;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.Xml;

/** Takes messages through the records of a contract and back, to see what becomes of them. */
public final class RecordTrip {
    private final RecordForm form = new RecordForm(StandardCharsets.UTF_8, false, new InMemory());
    private final List<RecordLayout> records;
    private final Findings findings;

    /** Bytes in files that nobody needs when the trip is over. */
    private static final class InMemory implements ByteFiles {
        private final Map<String, byte[]> files = new HashMap<>();

        @Override
        public byte[] read(String name) {
            return files.get(name);
        }

        @Override
        public String keep(byte[] bytes) {
            String name = String.valueOf(files.size());
            files.put(name, bytes);
            return name;
        }

        @Override
        public void forget(String name) {
            files.remove(name);
        }
    }

    /**
     * Begins.
     *
     * @param findings is told what has no room
     */
    public RecordTrip(List<RecordLayout> records, Findings findings) {
        this.records = records;
        this.findings = findings;
    }

    /**
     * Takes a message there and back.
     *
     * @param message an envelope, or an element that has a record
     * @return the message as it came back
     */
    public byte[] again(byte[] message) {
        MessageElement root = MessageReader.read("message", message, findings);
        MessageElement after = root == null ? null : taken(root);
        if (after == null) {
            return message;
        }
        likened(root, after);
        emptied(MessageReader.read("message", message, findings), root, after);
        return MessageText.compact(after).getBytes(StandardCharsets.UTF_8);
    }

    /** Records hold values: one that is the same in other letters is written as it came. */
    private static void likened(MessageElement before, MessageElement after) {
        after.attributes().replaceAll((name, text) -> {
            String came = before.attributes().get(name);
            return came != null && isSame(came, text) ? came : text;
        });
        List<MessageElement> came = before.children();
        List<MessageElement> come = after.children();
        if (come.isEmpty() && came.isEmpty() && isSame(before.text(), after.text())) {
            after.setText(before.text());
        }
        if (came.stream()
                        .map(MessageElement::name)
                        .toList()
                        .equals(come.stream().map(MessageElement::name).toList())
                && before.text().isBlank()
                && after.text().isEmpty()) {
            // Nor do records hold the white space between elements.
            after.content().clear();
            Iterator<MessageElement> next = come.iterator();
            before.content().forEach(item -> {
                if (item instanceof String text) {
                    after.add(text);
                } else {
                    after.add(next.next());
                }
            });
        }
        for (int i = 0; i < Math.min(came.size(), come.size()); i++) {
            if (came.get(i).name().equals(come.get(i).name())) {
                likened(came.get(i), come.get(i));
            }
        }
    }

    /** Nor do they tell what was left empty from the default that it stands for. */
    private static void emptied(MessageElement before, MessageElement given, MessageElement after) {
        List<MessageElement> came = before.children();
        List<MessageElement> come = after.children();
        if (before.content().isEmpty() && given.text().equals(after.text()) && come.isEmpty()) {
            after.content().clear();
        }
        for (int i = 0; i < Math.min(came.size(), come.size()); i++) {
            if (came.get(i).name().equals(come.get(i).name())) {
                emptied(came.get(i), given.children().get(i), come.get(i));
            }
        }
    }

    private static boolean isSame(String came, String come) {
        String one = came.strip();
        String other = come.strip();
        if (other.equals("true") || other.equals("false")) {
            return one.equals(other) || one.equals(other.equals("true") ? "1" : "0");
        }
        if (one.matches("[+-]?[0-9.]{1,60}") && other.matches("[+-]?[0-9.]{1,60}")) {
            try {
                return new BigDecimal(one).compareTo(new BigDecimal(other)) == 0;
            } catch (NumberFormatException e) {
                return false;
            }
        }
        return one.equals(other)
                || one.matches("[0-9a-fA-F]+") && one.equalsIgnoreCase(other)
                || one.contains(":") && withoutZeros(one).equals(withoutZeros(other));
    }

    /** A time without the zeros behind its seconds. */
    private static String withoutZeros(String time) {
        return time.replaceAll("(:\\d\\d)\\.(?:0+|(\\d*[1-9])0*)(?=$|[Z+-])", "$1.$2")
                .replaceAll("\\.(?=$|[Z+-])", "");
    }

    private MessageElement taken(MessageElement root) {
        if (!root.name().getLocalPart().equals("Envelope")) {
            RecordReader.Content content =
                    content(List.of(), List.of(root), isKnown(root) ? null : stated(root), false);
            return content == null || content.body().isEmpty()
                    ? null
                    : content.body().get(0);
        }
        List<MessageElement> headers = EnvelopeParts.inside(root, "Header");
        List<MessageElement> body = EnvelopeParts.inside(root, "Body");
        if (headers.isEmpty() && body.isEmpty()) {
            // That there is nothing is said by the status of a call.
            return root;
        }
        MessageElement detail = body.isEmpty() ? null : detail(body.get(0));
        QName type = EnvelopeParts.sections(root, "Body").stream()
                .map(RecordTrip::stated)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
        RecordReader.Content content = content(headers, detail == null ? body : detail.children(), type, true);
        return content == null
                ? null
                : copied(root, element -> switch (element.name().getLocalPart()) {
                    case "Header" -> element.parent() == root ? content.headers() : null;
                    case "Body" -> element.parent() == root && detail == null ? content.body() : null;
                    default -> element == detail ? content.body() : null;
                });
    }

    private static long headersOf(RecordLayout layout, List<MessageElement> headers) {
        return layout.root().children().stream()
                .filter(slot -> layout.isHeader(slot)
                        && headers.stream().anyMatch(header -> header.name().equals(slot.xmlName())))
                .count();
    }

    private static MessageElement detail(MessageElement first) {
        return !first.name().getLocalPart().equals("Fault")
                ? null
                : first.children().stream()
                        .filter(child -> child.name().getLocalPart().equalsIgnoreCase("detail"))
                        .findFirst()
                        .orElse(null);
    }

    private boolean isKnown(MessageElement element) {
        return records.stream().anyMatch(record -> element.name().equals(record.body()));
    }

    /** The type that an element says it is of, or null. */
    private static QName stated(MessageElement element) {
        String type = element.attribute(Xml.XSI, "type");
        return type == null ? null : element.resolve(type.strip());
    }

    /**
     * What comes back of what stands in a message.
     *
     * @param type the type that tells the record when no element does, or null
     * @param enveloped whether it stands in an envelope
     */
    private RecordReader.Content content(
            List<MessageElement> headers, List<MessageElement> body, QName type, boolean enveloped) {
        QName first = body.isEmpty() ? null : body.get(0).name();
        // Several messages may have one body: it is the one that has a place for the most headers.
        RecordLayout layout = records.stream()
                .filter(one -> type == null ? first != null && first.equals(one.body()) : one.isOf(type, enveloped))
                .max(Comparator.comparingLong(one -> headersOf(one, headers)))
                .orElse(null);
        if (layout == null) {
            findings.error(
                    "record-unknown",
                    null,
                    first == null ? "the message has nothing in it" : "there is no record for " + first.getLocalPart(),
                    "");
            return null;
        }
        byte[] record = RecordWriter.write(layout, headers, body, form, layout.name(), findings);
        return findings.hasErrors() ? null : RecordReader.read(layout, record, form, layout.name(), findings);
    }

    /** What stands in place of the children of an element. */
    private interface Replaced {
        /** The children, or null for those that it has. */
        List<MessageElement> in(MessageElement element);
    }

    private static MessageElement copied(MessageElement element, Replaced replaced) {
        MessageElement copy = new MessageElement(element.name(), element.place());
        copy.prefixes().putAll(element.prefixes());
        copy.attributes().putAll(element.attributes());
        List<MessageElement> children = replaced.in(element);
        if (children != null) {
            children.forEach(copy::add);
        } else if (element.children().isEmpty()) {
            copy.setText(element.text());
        } else {
            element.children().forEach(child -> copy.add(copied(child, replaced)));
        }
        return copy;
    }
}
