package org.protypos.message.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.source.Xml;

/**
 * Compares what two messages say (XML Information Set): prefixes, the order of attributes and the white space that the
 * schema gives no meaning are left aside, qualified names inside values are compared by their namespaces.
 */
public final class InfosetComparison {
    private static final int MOST_DIFFERENCES = 50;
    private static final int SHOWN_TEXT = 60;

    private final Vocabulary vocabulary;
    private final Map<MessageElement, TypeModel> types;
    private final List<Deviation> differences = new ArrayList<>();

    private InfosetComparison(Vocabulary vocabulary, Map<MessageElement, TypeModel> types) {
        this.vocabulary = vocabulary;
        this.types = types;
    }

    /**
     * Compares a message with what came out of it.
     *
     * @param types the types of the elements of the first message, as far as it has any
     * @return where they differ, with places in the first message; {@code came} says what became of it, {@code expected}
     *     what stood there
     */
    public static List<Deviation> compare(
            MessageElement before, MessageElement after, Vocabulary vocabulary, Map<MessageElement, TypeModel> types) {
        InfosetComparison comparison = new InfosetComparison(vocabulary, types);
        comparison.elements(before, after);
        return comparison.differences;
    }

    private void differ(String code, MessageElement at, Place place, String path, String came, String expected) {
        if (differences.size() < MOST_DIFFERENCES) {
            TypeModel type = types.get(at);
            differences.add(new Deviation(code, place, path, came, expected, type == null ? null : type.place()));
        }
    }

    private void elements(MessageElement before, MessageElement after) {
        if (!before.name().equals(after.name())) {
            differ("changed", before, before.place(), before.path(), "it became " + after.name(), "" + before.name());
            return;
        }
        TypeModel type = types.get(before);
        attributes(before, after, type);
        ValueRule rule = type == null ? null : type.text();
        if (rule != null && before.children().isEmpty()) {
            String was = rule.expandedText(before.text(), before::namespaceOf);
            String is = rule.expandedText(after.text(), after::namespaceOf);
            if (!was.equals(is)) {
                differ("changed", before, before.place(), before.path(), became(is), quoted(was));
            }
            return;
        }
        boolean openText = type == null || type.mixed();
        content(before, after, openText);
    }

    private static String became(String text) {
        return text == null ? "it is gone" : text.isEmpty() ? "it became empty" : "it became " + quoted(text);
    }

    private static String quoted(String value) {
        String text = value.replace("\n", "\\n").replace("\t", "\\t");
        return text.length() > SHOWN_TEXT ? "\"" + text.substring(0, SHOWN_TEXT - 3) + "...\"" : "\"" + text + "\"";
    }

    private void attributes(MessageElement before, MessageElement after, TypeModel type) {
        for (Map.Entry<QName, String> attribute : before.attributes().entrySet()) {
            QName name = attribute.getKey();
            String now = after.attributes().get(name);
            String was = comparable(name, attribute.getValue(), type, before::namespaceOf);
            String is = now == null ? null : comparable(name, now, type, after::namespaceOf);
            if (!was.equals(is)) {
                differ(
                        now == null ? "lost" : "changed",
                        before,
                        before.place(name),
                        before.path() + "/@" + name.getLocalPart(),
                        became(is),
                        quoted(was));
            }
        }
        for (QName name : after.attributes().keySet()) {
            if (!before.attributes().containsKey(name)) {
                differ(
                        "added",
                        before,
                        before.place(),
                        before.path() + "/@" + name.getLocalPart(),
                        "an attribute came out that had not gone in",
                        "no attribute " + name.getLocalPart());
            }
        }
    }

    private String comparable(QName name, String value, TypeModel type, UnaryOperator<String> namespaces) {
        if (name.getNamespaceURI().equals(Xml.XSI)) {
            return switch (name.getLocalPart()) {
                case "type" -> ValueRule.of("QName").expandedText(value, namespaces);
                case "nil" ->
                    String.valueOf(value.strip().equals("1") || value.strip().equals("true"));
                default -> value.strip().replaceAll("\\s+", " ");
            };
        }
        TypeModel.Attribute declared = type == null ? null : type.attributes().get(name);
        declared = declared == null && type != null ? vocabulary.attribute(name) : declared;
        return declared == null ? value : declared.rule().expandedText(value, namespaces);
    }

    private static List<Object> significant(MessageElement element, boolean openText) {
        return openText ? element.content() : new ArrayList<>(element.children());
    }

    private void content(MessageElement before, MessageElement after, boolean openText) {
        List<Object> was = significant(before, openText);
        List<Object> is = significant(after, openText);
        int common = Math.min(was.size(), is.size());
        for (int i = 0; i < common; i++) {
            Object one = was.get(i);
            Object other = is.get(i);
            if (one instanceof MessageElement child && other instanceof MessageElement counterpart) {
                if (!child.name().equals(counterpart.name())) {
                    differ(
                            "changed",
                            child,
                            child.place(),
                            child.path(),
                            "<" + counterpart.name().getLocalPart() + "> came out at this place",
                            "<" + child.name().getLocalPart() + ">");
                    return;
                }
                elements(child, counterpart);
            } else if (!Objects.equals(one, other)) {
                Object shown = other instanceof MessageElement gone
                        ? "<" + gone.name().getLocalPart() + ">"
                        : quoted("" + other);
                differ(
                        "changed",
                        before,
                        before.place(),
                        before.path(),
                        "in its place came " + shown,
                        one instanceof MessageElement child
                                ? "<" + child.name().getLocalPart() + ">"
                                : quoted("" + one));
                return;
            }
        }
        for (int i = common; i < was.size(); i++) {
            if (was.get(i) instanceof MessageElement child) {
                differ(
                        "lost",
                        child,
                        child.place(),
                        child.path(),
                        "it is gone",
                        "<" + child.name().getLocalPart() + ">");
            } else {
                differ("lost", before, before.place(), before.path(), "text is gone", quoted("" + was.get(i)));
            }
        }
        for (int i = common; i < is.size(); i++) {
            String more = is.get(i) instanceof MessageElement child
                    ? "<" + child.name().getLocalPart() + ">"
                    : quoted("" + is.get(i));
            differ("added", before, before.place(), before.path(), more + " came out that had not gone in", "");
        }
    }
}
