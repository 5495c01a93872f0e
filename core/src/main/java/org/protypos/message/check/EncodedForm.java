package org.protypos.message.check;

import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.soap.EncodedMessage;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.source.Xml;
import org.protypos.wire.WireMessage;

/**
 * Brings what stands in the body of a message into the SOAP encoding (SOAP 1.1, sections 4.1.1 and 5): it says that it is encoded,
 * each value says its type, and an array says what is in it.
 */
public final class EncodedForm {
    private static final QName TYPE = new QName(Xml.XSI, "type");
    private static final QName ARRAY_TYPE = new QName(Xml.SOAP_ENCODING, "arrayType");

    private final MessageElement envelope;
    private final Vocabulary vocabulary;

    private EncodedForm(MessageElement envelope, Vocabulary vocabulary) {
        this.envelope = envelope;
        this.vocabulary = vocabulary;
    }

    /**
     * Marks what stands in the body of an envelope, and all in it; a message that is not encoded stays as it is.
     */
    public static void mark(MessageElement envelope, WireMessage carried, Vocabulary vocabulary) {
        if (!carried.isEncoded()) {
            return;
        }
        envelope.prefixes().putIfAbsent("xsi", Xml.XSI);
        envelope.prefixes().putIfAbsent("enc", Xml.SOAP_ENCODING);
        EncodedForm form = new EncodedForm(envelope, vocabulary);
        Map<String, TypeModel> types = vocabulary.types(carried.parts());
        for (MessageElement element : EnvelopeParts.body(envelope, carried)) {
            element.attributes().put(new QName(envelope.name().getNamespaceURI(), "encodingStyle"), Xml.SOAP_ENCODING);
            for (MessageElement part : carried.isWrapped() ? element.children() : List.of(element)) {
                TypeModel type = types.get(part.name().getLocalPart());
                if (type != null) {
                    form.value(part, type);
                }
            }
        }
    }

    /**
     * The same message as it would be without the encoding: what is said once stands where it is referred to, and what only serves
     * the encoding is gone.
     *
     * @return a copy; the message itself when it is not encoded, or when its references lead nowhere or in circles
     */
    public static MessageElement literal(MessageElement envelope, WireMessage carried, Vocabulary vocabulary) {
        if (envelope == null || !carried.isEncoded() || EnvelopeParts.reason(envelope) != null) {
            return envelope;
        }
        Literal copies = new Literal();
        copies.collect(envelope);
        MessageElement copy = copies.copy(envelope, 1);
        if (copy == null) {
            return envelope;
        }
        types(copy, carried, vocabulary);
        return copy;
    }

    /**
     * The types of what stands in the body of a literal message that was encoded: those that values say, else the declared ones, which
     * need not be said any more and are taken off.
     */
    public static Map<MessageElement, TypeModel> types(
            MessageElement envelope, WireMessage carried, Vocabulary vocabulary) {
        Map<MessageElement, TypeModel> found = new IdentityHashMap<>();
        EncodedForm form = new EncodedForm(envelope, vocabulary);
        Map<String, TypeModel> types = vocabulary.types(carried.parts());
        for (MessageElement element : EnvelopeParts.body(envelope, carried)) {
            for (MessageElement part : carried.isWrapped() ? element.children() : List.of(element)) {
                form.plain(part, types.get(part.name().getLocalPart()), found);
            }
        }
        return found;
    }

    private void plain(MessageElement element, TypeModel declared, Map<MessageElement, TypeModel> found) {
        if (declared == null) {
            return;
        }
        String stated = element.attribute(Xml.XSI, "type");
        QName name = stated == null ? null : element.resolve(stated.strip());
        TypeModel known = name == null ? null : vocabulary.type(name);
        TypeModel type = known == null ? declared : known;
        if (known == declared) {
            element.attributes().remove(TYPE);
        }
        found.put(element, type);
        QName item = item(type);
        if (item != null) {
            element.children().forEach(child -> plain(child, vocabulary.type(item), found));
            return;
        }
        Map<QName, ElementDeclaration> elements = type.isAnything() ? Map.of() : vocabulary.elements(type);
        for (MessageElement child : element.children()) {
            ElementDeclaration declaration = elements.get(child.name());
            plain(child, declaration == null ? null : vocabulary.typeOf(declaration), found);
        }
    }

    /** Copies a message, and puts what it refers to where it does (SOAP 1.1, section 5.4.1). */
    private static final class Literal {
        /** References may multiply what they refer to: a message may grow tenfold, and by so many elements. */
        private static final int MOST_MORE = 100_000;

        private static final int MOST_PREFIXES = 2_000_000;

        private final Map<String, MessageElement> targets = new HashMap<>();
        private final Set<MessageElement> open = Collections.newSetFromMap(new IdentityHashMap<>());
        private int count;
        private long mostElements = MOST_MORE;
        private int prefixes;
        private long characters;

        void collect(MessageElement element) {
            mostElements += 10;
            String id = element.attributes().get(new QName("id"));
            if (id != null) {
                targets.putIfAbsent("#" + id, element);
            }
            element.children().forEach(this::collect);
        }

        /** The copy, or null when there is none. */
        MessageElement copy(MessageElement element, int depth) {
            boolean tooMuch = ++count > mostElements
                    || prefixes > MOST_PREFIXES
                    || characters > XmlLimits.DEFAULT.bytes()
                    || depth > MessageReader.MOST_DEPTH;
            MessageElement from = tooMuch ? null : target(element);
            if (from == null || !open.add(from)) {
                return null;
            }
            MessageElement copy = new MessageElement(element.name(), element.place());
            // What is taken from elsewhere may use prefixes that are declared there.
            for (MessageElement at = from; at != null && (at == from || from != element); at = at.parent()) {
                at.prefixes().forEach(copy.prefixes()::putIfAbsent);
            }
            prefixes += copy.prefixes().size();
            from.attributes().forEach((name, value) -> {
                if (!serves(from, name, value)) {
                    copy.attributes().put(name, value);
                }
            });
            boolean body = from.name().getLocalPart().equals("Body") && EnvelopeParts.isOfSoap(from);
            Set<MessageElement> independent = body
                    ? EncodedMessage.independent(
                            from.children(), (one, name) -> one.attribute(name.getNamespaceURI(), name.getLocalPart()))
                    : Set.of();
            for (Object item : from.content()) {
                if (!(item instanceof MessageElement child)) {
                    characters += ((String) item).length();
                    copy.add((String) item);
                } else if (!independent.contains(child)) {
                    MessageElement inner = copy(child, depth + 1);
                    if (inner == null) {
                        return null;
                    }
                    copy.add(inner);
                }
            }
            open.remove(from);
            return body ? copy : spread(from, copy);
        }

        /**
         * The copy of an array with its members where they say that they are, and with what is nil before and between them (SOAP 1.1,
         * sections 5.4.2.1 and 5.4.2.2); null where they say what cannot be.
         */
        private MessageElement spread(MessageElement array, MessageElement copy) {
            String type = array.attribute(Xml.SOAP_ENCODING, "arrayType");
            String offset = array.attribute(Xml.SOAP_ENCODING, "offset");
            List<MessageElement> before = array.children();
            if (offset == null
                    && before.stream().allMatch(one -> one.attribute(Xml.SOAP_ENCODING, "position") == null)) {
                return copy;
            }
            List<MessageElement> members = copy.children();
            SortedMap<Integer, MessageElement> placed = new TreeMap<>();
            int next = offset == null ? 0 : place(offset, type);
            for (int i = 0; i < members.size(); i++) {
                String position = before.get(i).attribute(Xml.SOAP_ENCODING, "position");
                int at = position == null ? next : place(position, type);
                if (at < 0 || placed.put(at, members.get(i)) != null) {
                    return null;
                }
                next = at + 1;
            }
            copy.content().clear();
            for (int i = 0; !placed.isEmpty() && i <= placed.lastKey(); i++) {
                MessageElement member = placed.get(i);
                if (member == null) {
                    if (++count > mostElements) {
                        return null;
                    }
                    member = new MessageElement(members.get(0).name(), array.place());
                    member.attributes().put(new QName(Xml.XSI, "nil"), "true");
                }
                copy.add(member);
            }
            return copy;
        }

        /** How many members stand before a place; below 0 for what is none. */
        private static int place(String said, String arrayType) {
            try {
                return EncodedMessage.place(said, arrayType);
            } catch (XmlFormatException e) {
                return -1;
            }
        }

        /** Whether an attribute only serves the encoding: also one that says of a value that it is of one of its types. */
        private static boolean serves(MessageElement element, QName name, String value) {
            QName stated = name.equals(TYPE) ? element.resolve(value.strip()) : null;
            return stated != null && stated.getNamespaceURI().equals(Xml.SOAP_ENCODING)
                    || name.equals(new QName("id"))
                    || name.getNamespaceURI().equals(Xml.SOAP_ENCODING)
                    || name.getLocalPart().equals("encodingStyle");
        }

        /** What an element refers to, over as many references as there are; the element itself when it is none; null for nothing. */
        private MessageElement target(MessageElement element) {
            MessageElement target = element;
            for (String href = reference(target); href != null; href = reference(target)) {
                target = targets.get(href);
                if (target == null || ++count > mostElements) {
                    return null;
                }
            }
            return target;
        }

        private static String reference(MessageElement element) {
            String href = element.attribute("", "href");
            return href != null && href.startsWith("#") ? href : null;
        }
    }

    private void value(MessageElement element, TypeModel declared) {
        String stated = element.attribute(Xml.XSI, "type");
        QName name = stated == null ? declared.name() : element.resolve(stated.strip());
        TypeModel known = stated == null || name == null ? declared : vocabulary.type(name);
        TypeModel type = known == null ? declared : known;
        if (stated == null && name != null) {
            element.attributes().put(TYPE, written(name));
        }
        if (element.isNil()) {
            return;
        }
        QName item = item(type);
        if (item != null) {
            element.attributes()
                    .put(ARRAY_TYPE, written(item) + "[" + element.children().size() + "]");
            TypeModel itemType = vocabulary.type(item);
            element.children().forEach(child -> value(child, itemType));
            return;
        }
        Map<QName, ElementDeclaration> elements = type.isAnything() ? Map.of() : vocabulary.elements(type);
        for (MessageElement child : element.children()) {
            ElementDeclaration declaration = elements.get(child.name());
            if (declaration != null) {
                value(child, vocabulary.typeOf(declaration));
            }
        }
    }

    /** Whether what is of a type is an array of the encoding: what its members are called says nothing (SOAP 1.1, section 5.4.2). */
    public static boolean isArray(TypeModel type) {
        return type != null && type.definition() instanceof ComplexType complex && complex.isEncodedArray();
    }

    /** The type of the items of an array, or null for what is none. */
    private QName item(TypeModel type) {
        if (isArray(type)) {
            for (AttributeUse use :
                    ((ComplexType) type.definition()).attributes().uses()) {
                if (use.arrayItem() != null && vocabulary.type(use.arrayItem()) != null) {
                    return use.arrayItem();
                }
            }
        }
        return null;
    }

    /** A name with a prefix that the envelope declares. */
    private String written(QName name) {
        String namespace = name.getNamespaceURI();
        if (namespace.isEmpty()) {
            return name.getLocalPart();
        }
        for (Map.Entry<String, String> declared : envelope.prefixes().entrySet()) {
            if (namespace.equals(declared.getValue()) && !declared.getKey().isEmpty()) {
                return declared.getKey() + ":" + name.getLocalPart();
            }
        }
        String prefix = namespace.equals(Xml.XSD) ? "xs" : "t";
        while (envelope.prefixes().containsKey(prefix)) {
            prefix += "1";
        }
        envelope.prefixes().put(prefix, namespace);
        return prefix + ":" + name.getLocalPart();
    }
}
