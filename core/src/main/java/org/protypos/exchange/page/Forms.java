package org.protypos.exchange.page;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.exchange.call.ValueField;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/**
 * Describes the types of a contract as forms see them: each by a number, with what stands in it and with a value to begin
 * with. Types come as they are asked for, since a contract may have thousands, and some hold themselves.
 */
final class Forms {
    private final ContractCheck check;
    private final Vocabulary vocabulary;
    private final Samples samples;
    private final Map<TypeModel, Integer> numbers = new IdentityHashMap<>();
    private final List<TypeModel> types = new ArrayList<>();

    Forms(Contract contract, ContractCheck check) {
        this.check = check;
        this.vocabulary = check.vocabulary();
        this.samples = new Samples(contract, vocabulary, false);
    }

    /** The number of a type. */
    private int number(TypeModel type) {
        return numbers.computeIfAbsent(type, any -> {
            types.add(type);
            return types.size() - 1;
        });
    }

    /** Writes what a message is made of: the type of its body or its parts, its header blocks and what is attached. */
    void message(WireMessage carried, JsonGenerator out) throws IOException {
        List<WirePart> parts = carried.parts();
        boolean one = !carried.isWrapped() && parts.size() == 1;
        if (one) {
            out.writeNumberField("type", number(vocabulary.type(parts.get(0).type())));
        }
        out.writeArrayFieldStart("parts");
        for (WirePart part : one ? List.<WirePart>of() : parts) {
            field(part.element().getLocalPart(), vocabulary.type(part.type()), 1, 1, null, out);
        }
        out.writeEndArray();
        out.writeArrayFieldStart("header");
        for (WirePart block : carried.blocks()) {
            field(
                    block.element().getLocalPart(),
                    vocabulary.type(block.type()),
                    0,
                    1,
                    block.isGlobal() ? vocabulary.element(block.element()) : null,
                    out);
        }
        out.writeEndArray();
        out.writeArrayFieldStart("attached");
        for (WirePart part : carried.attachments()) {
            out.writeString(part.name());
        }
        out.writeEndArray();
    }

    /**
     * Writes a type.
     *
     * @return whether there is one of this number
     */
    boolean type(int number, JsonGenerator out) throws IOException {
        if (number < 0 || number >= types.size()) {
            return false;
        }
        TypeModel type = types.get(number);
        out.writeStringField("name", type.name() == null ? "" : type.name().getLocalPart());
        out.writeStringField("documentation", documentation(type.definition()));
        out.writeBooleanField("abstract", type.isAbstract());
        out.writeBooleanField("simple", type.definition() instanceof SimpleType);
        out.writeBooleanField("open", type.isAnything() || type.mixed());
        if (type.text() != null) {
            out.writeFieldName("text");
            ValueField.write(vocabulary.schema(), type.definition(), out);
        }
        attributes(type, out);
        derived(type, out);
        out.writeArrayFieldStart("content");
        if (!type.isAnything()) {
            Keys keys = new Keys(vocabulary, type);
            for (Particle particle : type.particles()) {
                particle(particle, 1, keys, out);
            }
        }
        out.writeEndArray();
        out.writeFieldName("sample");
        sample(type, out);
        return true;
    }

    private static String documentation(SchemaType type) {
        if (type instanceof ComplexType complex) {
            return complex.documentation();
        }
        return type instanceof SimpleType simple ? simple.documentation() : "";
    }

    private void attributes(TypeModel type, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart("attributes");
        for (TypeModel.Attribute attribute : type.attributes().values()) {
            out.writeStartObject();
            boolean plain = attribute.name().getNamespaceURI().isEmpty();
            out.writeStringField(
                    "key",
                    "@"
                            + (plain
                                    ? attribute.name().getLocalPart()
                                    : attribute.name().toString()));
            out.writeStringField("name", attribute.name().getLocalPart());
            out.writeBooleanField("required", attribute.required());
            out.writeStringField("fixed", attribute.fixed());
            out.writeFieldName("text");
            ValueField.write(vocabulary.schema(), attribute.type(), out);
            out.writeEndObject();
        }
        out.writeEndArray();
    }

    /** The types that may stand in the place of a type. */
    private void derived(TypeModel type, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart("derived");
        for (Map.Entry<String, QName> one : vocabulary.standIns(type).entrySet()) {
            out.writeStartObject();
            out.writeStringField("name", one.getKey());
            out.writeNumberField("type", number(vocabulary.type(one.getValue())));
            out.writeEndObject();
        }
        out.writeEndArray();
    }

    private void sample(TypeModel type, JsonGenerator out) throws IOException {
        if (type.isAbstract()) {
            out.writeNull();
            return;
        }
        MessageElement element = samples.element(new QName("value"), type);
        JsonText.write(
                JsonMessageWriter.value(vocabulary, check.check(element, type).types(), element), out);
    }

    /** The keys of the elements in a type: some come in several places, and some need their namespace. */
    private static final class Keys {
        private final Vocabulary vocabulary;
        private final TypeModel type;
        private final Map<QName, Integer> places = new LinkedHashMap<>();

        Keys(Vocabulary vocabulary, TypeModel type) {
            this.vocabulary = vocabulary;
            this.type = type;
            for (Leaf leaf : ContentModel.all(type.content())) {
                if (leaf instanceof Leaf.Element element) {
                    for (QName name : element.substitutes()) {
                        places.merge(name, 1, Integer::sum);
                    }
                }
            }
        }

        String of(QName name) {
            return vocabulary.key(type, name);
        }

        boolean comesTwice(QName name) {
            return places.getOrDefault(name, 0) > 1;
        }
    }

    private static int times(int outer, int inner) {
        long product = (long) outer * inner;
        return product > Integer.MAX_VALUE ? Particle.UNBOUNDED : (int) product;
    }

    /** Writes a particle; what a repeated group holds may come as often as the group. */
    private void particle(Particle particle, int around, Keys keys, JsonGenerator out) throws IOException {
        Term term = particle.term();
        int most = times(around, particle.most());
        if (most == 0) {
            return;
        }
        if (term instanceof GroupReference reference) {
            ModelGroup group =
                    vocabulary.schema().groups().get(reference.name()).group();
            particle(new Particle(group, particle.least(), particle.most()), around, keys, out);
        } else if (term instanceof ModelGroup group) {
            group(group, particle.least(), most, keys, out);
        } else if (term instanceof ElementDeclaration element) {
            element(element, particle.least(), most, keys, out);
        } else if (term instanceof ElementReference reference) {
            List<QName> names = List.copyOf(vocabulary.substitutes(vocabulary.element(reference.name())));
            if (names.size() == 1) {
                element(vocabulary.element(names.get(0)), particle.least(), most, keys, out);
            } else if (!names.isEmpty()) {
                startGroup("choice", particle.least(), most, out);
                for (QName name : names) {
                    element(vocabulary.element(name), 1, most, keys, out);
                }
                endGroup(out);
            }
        } else {
            out.writeStartObject();
            out.writeStringField("kind", "any");
            out.writeEndObject();
        }
    }

    private void group(ModelGroup group, int least, int most, Keys keys, JsonGenerator out) throws IOException {
        boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
        startGroup(choice ? "choice" : "sequence", least, most, out);
        for (Particle part : group.particles()) {
            particle(part, most, keys, out);
        }
        endGroup(out);
    }

    private static void startGroup(String kind, int least, int most, JsonGenerator out) throws IOException {
        out.writeStartObject();
        out.writeStringField("kind", kind);
        out.writeBooleanField("optional", least == 0);
        out.writeBooleanField("repeats", most > 1);
        out.writeArrayFieldStart("parts");
    }

    private static void endGroup(JsonGenerator out) throws IOException {
        out.writeEndArray();
        out.writeEndObject();
    }

    private void element(ElementDeclaration element, int least, int most, Keys keys, JsonGenerator out)
            throws IOException {
        int often = keys.comesTwice(element.name()) ? Particle.UNBOUNDED : most;
        field(keys.of(element.name()), vocabulary.typeOf(element), least, often, element, out);
    }

    private void field(String key, TypeModel type, int least, int most, ElementDeclaration element, JsonGenerator out)
            throws IOException {
        out.writeStartObject();
        out.writeStringField("kind", "element");
        out.writeStringField("key", key);
        out.writeStringField("name", key.substring(key.indexOf('}') + 1));
        out.writeNumberField("least", least);
        out.writeNumberField("most", most == Particle.UNBOUNDED ? -1 : most);
        out.writeNumberField("type", number(type));
        out.writeBooleanField("nillable", element != null && element.nillable());
        out.writeStringField("fixed", element == null ? null : element.fixedValue());
        out.writeStringField("documentation", element == null ? "" : element.documentation());
        out.writeEndObject();
    }
}
