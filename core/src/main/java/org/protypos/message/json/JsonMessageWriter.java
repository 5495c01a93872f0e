package org.protypos.message.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.source.Xml;

/** Writes elements as JSON, the way {@link JsonMessageReader} reads them. */
public final class JsonMessageWriter {
    private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9][0-9]*)(\\.[0-9]+)?([eE][+-]?[0-9]+)?");

    private final Vocabulary vocabulary;
    private final Map<MessageElement, TypeModel> types;

    /**
     * Makes a writer.
     *
     * @param types the types of elements as a check has found them; what has none is written as text and elements
     */
    public JsonMessageWriter(Vocabulary vocabulary, Map<MessageElement, TypeModel> types) {
        this.vocabulary = vocabulary;
        this.types = types;
    }

    /** The value of an element. */
    public static JsonValue value(Vocabulary vocabulary, Map<MessageElement, TypeModel> types, MessageElement element) {
        StringWriter text = new StringWriter();
        try (JsonGenerator out = new JsonFactory().createGenerator(text)) {
            new JsonMessageWriter(vocabulary, types).write(element, out);
        } catch (IOException e) {
            throw new IllegalStateException("text in memory can be written", e);
        }
        return JsonText.parse(new SourceText("value", text.toString()), new Findings());
    }

    /** Writes the value of an element. */
    public void write(MessageElement element, JsonGenerator out) throws IOException {
        TypeModel type = types.get(element);
        boolean isNil = element.isNil();
        if (isNil
                && element.content().isEmpty()
                && element.attributes().keySet().stream().allMatch(JsonMessageWriter::saysNothing)) {
            out.writeNull();
            return;
        }
        boolean plain = element.attributes().isEmpty();
        if (plain && element.children().isEmpty() && (type == null || type.text() != null)) {
            scalar(element, type, out);
            return;
        }
        out.writeStartObject();
        attributes(element, type, out);
        if (isNil) {
            out.writeBooleanField(JsonMessageReader.NIL, true);
        }
        if (isNil && element.content().isEmpty()) {
            out.writeEndObject();
            return;
        }
        if (type != null && type.text() != null || element.children().isEmpty() && !Lexical.isBlank(element.text())) {
            out.writeFieldName(JsonMessageReader.TEXT);
            scalar(element, type, out);
        } else if (element.content().stream().anyMatch(item -> item instanceof String text && !Lexical.isBlank(text))) {
            mixed(element, out);
        } else {
            children(element, type, out);
        }
        out.writeEndObject();
    }

    private static boolean saysNothing(QName attribute) {
        return attribute.getNamespaceURI().equals(Xml.XSI)
                && !attribute.getLocalPart().equals("type");
    }

    private void attributes(MessageElement element, TypeModel type, JsonGenerator out) throws IOException {
        for (Map.Entry<QName, String> attribute : element.attributes().entrySet()) {
            QName name = attribute.getKey();
            if (name.equals(new QName(Xml.XSI, "type"))) {
                QName stated = element.resolve(attribute.getValue().strip());
                out.writeStringField(JsonMessageReader.TYPE, stated == null ? attribute.getValue() : key(stated));
            } else if (!name.getNamespaceURI().equals(Xml.XSI)) {
                out.writeStringField(
                        "@" + (name.getNamespaceURI().isEmpty() ? name.getLocalPart() : name.toString()),
                        attribute(element, type, name, attribute.getValue()));
            }
        }
    }

    private String attribute(MessageElement element, TypeModel type, QName name, String value) {
        TypeModel.Attribute declared = type == null ? null : type.attributes().get(name);
        declared = declared == null ? vocabulary.attribute(name) : declared;
        return declared != null && declared.rule().holdsNames()
                ? declared.rule().expandedText(value, element::namespaceOf)
                : value;
    }

    /** The name of a type: the local one, unless a type of another namespace has the same. */
    private String key(QName type) {
        boolean alone = vocabulary.schema().types().keySet().stream()
                .noneMatch(other -> other.getLocalPart().equals(type.getLocalPart()) && !other.equals(type));
        return alone && vocabulary.type(type) != null ? type.getLocalPart() : type.toString();
    }

    private void mixed(MessageElement element, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart(JsonMessageReader.CONTENT);
        for (Object item : element.content()) {
            if (item instanceof MessageElement child) {
                out.writeStartObject();
                out.writeFieldName(vocabulary.key(types.get(element), child.name()));
                write(child, out);
                out.writeEndObject();
            } else if (!Lexical.isBlank((String) item) || isMixed(element)) {
                out.writeString((String) item);
            }
        }
        out.writeEndArray();
    }

    private boolean isMixed(MessageElement element) {
        TypeModel type = types.get(element);
        return type == null || type.isAnything() || type.mixed();
    }

    private void children(MessageElement element, TypeModel type, JsonGenerator out) throws IOException {
        Map<String, List<MessageElement>> byKey = new LinkedHashMap<>();
        for (MessageElement child : element.children()) {
            byKey.computeIfAbsent(vocabulary.key(types.get(element), child.name()), any -> new ArrayList<>())
                    .add(child);
        }
        List<MessageElement> grouped =
                byKey.values().stream().flatMap(List::stream).toList();
        List<MessageElement> back =
                type == null || type.isAnything() ? grouped : JsonMessageReader.ordered(grouped, type.content());
        if (!back.equals(element.children())) {
            // Members alone would come back in another order.
            mixed(element, out);
            return;
        }
        for (Map.Entry<String, List<MessageElement>> member : byKey.entrySet()) {
            out.writeFieldName(member.getKey());
            List<MessageElement> some = member.getValue();
            values(some, some.size() > 1 || repeats(type, some.get(0).name()), out);
        }
    }

    private void values(List<MessageElement> elements, boolean inArray, JsonGenerator out) throws IOException {
        if (!inArray) {
            write(elements.get(0), out);
            return;
        }
        out.writeStartArray();
        for (MessageElement element : elements) {
            write(element, out);
        }
        out.writeEndArray();
    }

    /**
     * Writes elements that stand beside each other in an envelope as an object: what has one name under that, in an array when there
     * are several; under its local name, unless another has the same in another namespace.
     */
    public void section(List<MessageElement> elements, JsonGenerator out) throws IOException {
        Map<QName, List<MessageElement>> byName = new LinkedHashMap<>();
        elements.forEach(element ->
                byName.computeIfAbsent(element.name(), any -> new ArrayList<>()).add(element));
        Map<String, Long> named =
                byName.keySet().stream().collect(Collectors.groupingBy(QName::getLocalPart, Collectors.counting()));
        out.writeStartObject();
        for (Map.Entry<QName, List<MessageElement>> member : byName.entrySet()) {
            String local = member.getKey().getLocalPart();
            out.writeFieldName(named.get(local) > 1 ? member.getKey().toString() : local);
            values(member.getValue(), member.getValue().size() > 1, out);
        }
        out.writeEndObject();
    }

    private boolean repeats(TypeModel type, QName name) {
        return type != null
                && type.particles().stream().anyMatch(particle -> repeats(particle, name, false, new HashSet<>()));
    }

    private boolean repeats(Particle particle, QName name, boolean inside, Set<QName> groups) {
        boolean many = inside || particle.repeats();
        return particle.term()
                .map(new Term.Cases<>(
                        element -> many && element.name().equals(name),
                        reference -> many && stands(reference.name(), name),
                        group -> groups.add(group.name())
                                && vocabulary.schema().groups().containsKey(group.name())
                                && repeats(
                                        new Particle(
                                                vocabulary
                                                        .schema()
                                                        .groups()
                                                        .get(group.name())
                                                        .group(),
                                                particle.least(),
                                                particle.most()),
                                        name,
                                        many,
                                        groups),
                        model -> model.particles().stream().anyMatch(part -> repeats(part, name, many, groups)),
                        wildcard -> false));
    }

    /** Whether an element may stand where a name refers to. */
    private boolean stands(QName reference, QName name) {
        ElementDeclaration head = vocabulary.element(reference);
        return reference.equals(name)
                || head != null && vocabulary.substitutes(head).contains(name);
    }

    /** Numbers and booleans that JSON writes alike are no strings. */
    private void scalar(MessageElement element, TypeModel type, JsonGenerator out) throws IOException {
        if (type != null && type.text() != null && type.text().holdsNames()) {
            out.writeString(type.text().expandedText(element.text(), element::namespaceOf));
            return;
        }
        String text = element.text();
        String builtin = type == null ? "" : builtin(type.definition());
        if (isNumber(builtin) && NUMBER.matcher(text).matches()) {
            out.writeNumber(text);
        } else if (builtin.equals("boolean") && (text.equals("true") || text.equals("false"))) {
            out.writeBoolean(text.equals("true"));
        } else {
            out.writeString(text);
        }
    }

    private static boolean isNumber(String builtin) {
        BuiltIn type = BuiltIn.of(builtin);
        return type != null && type.isNumber();
    }

    private String builtin(SchemaType definition) {
        SchemaType type = definition;
        while (type != null) {
            if (type.name() != null && type.name().getNamespaceURI().equals(Xml.XSD)) {
                return type.name().getLocalPart();
            }
            boolean several = type instanceof SimpleType simple && simple.variety() != SimpleType.Variety.RESTRICTION;
            type = several || type.base() == null ? null : vocabulary.schema().resolve(type.base());
        }
        return "";
    }
}
