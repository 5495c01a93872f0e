package org.protypos.message.json;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.Builtins;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Wildcard;
import org.protypos.source.Xml;

/**
 * Makes elements of JSON, as the types of a contract say: members become elements called like them, in the order that the
 * contract wants, and an array is one element after the other. {@code @name} is an attribute, {@code #text} the text of
 * an element with attributes, {@code #content} content in an order of its own, or mixed, {@code @xsi:type} the type that stands in
 * the declared one's place, and {@code null} an element that is nil, or {@code @xsi:nil} where it has attributes. A qualified name
 * in a value is written as <code>{namespace}name</code>.
 */
public final class JsonMessageReader {
    static final String TEXT = "#text";
    static final String CONTENT = "#content";
    static final String TYPE = "@xsi:type";
    static final String NIL = "@xsi:nil";

    /** A qualified name in a value, as it is written without prefixes. */
    private static final Pattern EXPANDED = Pattern.compile("(?<!\\S)\\{([^{}\\s]+)\\}(?=[\\p{L}_])");

    private static final List<QName> BUILT_IN = Stream.concat(
                    Stream.of(SchemaComponents.ANY_TYPE),
                    Builtins.names().stream().map(Builtins::name))
            .toList();

    private final Vocabulary vocabulary;
    private final Findings findings;

    /** Whether what is read stands where nobody looks at it: its names are none of the contract. */
    private boolean skipping;

    /**
     * Makes a reader.
     *
     * @param findings is told what has no place in the contract
     */
    public JsonMessageReader(Vocabulary vocabulary, Findings findings) {
        this.vocabulary = vocabulary;
        this.findings = findings;
    }

    private void wrong(JsonValue value, String path, String message, String cure) {
        findings.error("json-value", value.place(), (path.isEmpty() ? "" : path + ": ") + message, cure);
    }

    /**
     * Makes an element.
     *
     * @param name its name
     * @param type its declared type
     * @param path how to call the value when one talks about it
     */
    public MessageElement element(JsonValue value, QName name, TypeModel type, String path) {
        MessageElement element = new MessageElement(name, null);
        fill(element, value, type, path);
        return element;
    }

    /**
     * Makes the wrapper of a call, which no schema declares.
     *
     * @param parts the types of its parts, by name
     */
    public MessageElement wrapper(JsonValue value, QName name, Map<String, TypeModel> parts) {
        MessageElement wrapper = new MessageElement(name, null);
        if (!(value instanceof JsonValue.Members members)) {
            wrong(
                    value,
                    "",
                    "the parts of a call are an object",
                    "give an object with " + String.join(", ", parts.keySet()));
            return wrapper;
        }
        members.members().forEach((part, given) -> {
            if (parts.containsKey(part)) {
                wrapper.add(element(given, new QName(part), parts.get(part), part));
            } else {
                unknown(given, part, "", parts.keySet());
            }
        });
        return wrapper;
    }

    private void unknown(JsonValue value, String key, String path, Collection<String> known) {
        wrong(
                value,
                path,
                "there is no " + key,
                NearestName.of(key, known)
                        .map(near -> "perhaps " + near)
                        .orElse(known.isEmpty() ? "leave it out" : "there is " + String.join(", ", known)));
    }

    private static String inside(String path, String key) {
        return path.isEmpty() ? key : path + "." + key;
    }

    private void fill(MessageElement element, JsonValue value, TypeModel declared, String path) {
        if (value instanceof JsonValue.Nothing) {
            element.prefixes().put("xsi", Xml.XSI);
            element.attributes().put(new QName(Xml.XSI, "nil"), "true");
        } else if (value instanceof JsonValue.Text text) {
            scalar(element, text.text(), text, declared, path);
        } else if (value instanceof JsonValue.Literal literal) {
            scalar(element, fitting(literal, declared.text()), literal, declared, path);
        } else if (value instanceof JsonValue.Members members) {
            members(element, members, declared, path);
        } else {
            wrong(value, path, "an array stands where one value is wanted", "give one value");
        }
    }

    /** JSON writes numbers and truth in one way, a type may want another; a string says how it is to be written. */
    private static String fitting(JsonValue.Literal literal, ValueRule rule) {
        return rule == null ? literal.text() : rule.fitting(literal.text());
    }

    private void scalar(MessageElement element, String text, JsonValue value, TypeModel type, String path) {
        if (type.text() == null && !type.mixed() && !type.isAnything()) {
            List<String> names = names(type);
            wrong(
                    value,
                    path,
                    "\"" + text + "\" stands where an object is wanted",
                    names.isEmpty() ? "give an empty object" : "give an object with " + String.join(", ", names));
        } else {
            element.setText(type.text() != null && type.text().holdsNames() ? prefixed(element, text) : text);
        }
    }

    /** Text in which each qualified name has a prefix that the element declares. */
    private static String prefixed(MessageElement element, String text) {
        return EXPANDED.matcher(text).replaceAll(name -> prefix(element, name.group(1)) + ":");
    }

    private static String prefix(MessageElement element, String namespace) {
        for (Map.Entry<String, String> declared : element.prefixes().entrySet()) {
            if (declared.getValue().equals(namespace)) {
                return declared.getKey();
            }
        }
        String prefix = "q" + (element.prefixes().size() + 1);
        element.prefixes().put(prefix, namespace);
        return prefix;
    }

    private List<String> names(TypeModel type) {
        Set<String> locals = new LinkedHashSet<>();
        vocabulary.elements(type).keySet().forEach(name -> locals.add(name.getLocalPart()));
        List<String> names = new ArrayList<>(locals);
        type.attributes().keySet().forEach(name -> names.add("@" + name.getLocalPart()));
        return names;
    }

    private void members(MessageElement element, JsonValue.Members value, TypeModel declared, String path) {
        TypeModel type = stated(element, value, declared, path);
        List<MessageElement> children = new ArrayList<>();
        value.members().forEach((key, given) -> {
            if (key.equals(TYPE)) {
                return;
            }
            if (key.equals(NIL)) {
                nil(element, given, path);
            } else if (key.startsWith("@")) {
                attribute(element, key.substring(1), given, type, path);
            } else if (key.equals(TEXT)) {
                text(element, given, type, path);
            } else if (key.equals(CONTENT)) {
                content(element, given, type, path);
            } else {
                child(key, given, type, path, children);
            }
        });
        ordered(children, type.content()).forEach(element::add);
    }

    private void nil(MessageElement element, JsonValue given, String path) {
        if (given instanceof JsonValue.Literal literal && literal.text().equals("true")) {
            element.prefixes().put("xsi", Xml.XSI);
            element.attributes().put(new QName(Xml.XSI, "nil"), "true");
        } else if (!(given instanceof JsonValue.Literal literal)
                || !literal.text().equals("false")) {
            wrong(given, inside(path, NIL), "an element is nil or it is not", "give true or false");
        }
    }

    private void text(MessageElement element, JsonValue given, TypeModel type, String path) {
        if (given instanceof JsonValue.Text text) {
            scalar(element, text.text(), given, type, path);
        } else if (given instanceof JsonValue.Literal literal) {
            scalar(element, fitting(literal, type.text()), given, type, path);
        } else {
            wrong(given, inside(path, TEXT), "text is no object and no array", "give a string");
        }
    }

    private void content(MessageElement element, JsonValue given, TypeModel type, String path) {
        if (!(given instanceof JsonValue.Items items)) {
            wrong(given, inside(path, CONTENT), "content is an array", "give strings, and an object for each element");
            return;
        }
        for (JsonValue item : items.items()) {
            if (item instanceof JsonValue.Text text) {
                element.add(text.text());
            } else if (item instanceof JsonValue.Members members) {
                List<MessageElement> children = new ArrayList<>();
                members.members().forEach((key, inner) -> child(key, inner, type, path, children));
                children.forEach(element::add);
            } else {
                wrong(item, inside(path, CONTENT), "content is made of strings and objects", "give one of these");
            }
        }
    }

    /** The type that stands in the declared one's place; its name need not say the namespace when it is the only one. */
    private TypeModel stated(MessageElement element, JsonValue.Members value, TypeModel declared, String path) {
        JsonValue stated = value.members().get(TYPE);
        if (!(stated instanceof JsonValue.Text text)) {
            return declared;
        }
        List<QName> found = named(text.text(), vocabulary.schema().types().keySet(), declared);
        if (found.isEmpty()) {
            found = named(text.text(), BUILT_IN, declared);
        }
        if (found.isEmpty() && skipping && expanded(text.text()) != null) {
            found = List.of(expanded(text.text()));
        }
        if (found.size() != 1) {
            List<String> known = vocabulary.schema().types().keySet().stream()
                    .filter(name -> !vocabulary.type(name).isAbstract()
                            && !declared.isAnything()
                            && vocabulary.derives(vocabulary.type(name), declared, Set.of()))
                    .map(QName::getLocalPart)
                    .sorted()
                    .toList();
            wrong(
                    stated,
                    path,
                    "there is no type " + text.text() + " for it",
                    NearestName.of(text.text(), known)
                            .map(near -> "perhaps " + near)
                            .orElse("there is " + String.join(", ", known)));
            return declared;
        }
        QName name = found.get(0);
        element.prefixes().put("xsi", Xml.XSI);
        if (name.getNamespaceURI().isEmpty()) {
            element.attributes().put(new QName(Xml.XSI, "type"), name.getLocalPart());
        } else {
            element.prefixes().put("t", name.getNamespaceURI());
            element.attributes().put(new QName(Xml.XSI, "type"), "t:" + name.getLocalPart());
        }
        return skipping ? declared : vocabulary.type(name);
    }

    /** Those of some types that a text names and that may stand for a declared one. */
    private List<QName> named(String text, Collection<QName> types, TypeModel declared) {
        return types.stream()
                .filter(name ->
                        name.toString().equals(text) || name.getLocalPart().equals(text))
                .filter(name -> declared.isAnything() || vocabulary.derives(vocabulary.type(name), declared, Set.of()))
                .toList();
    }

    private void attribute(MessageElement element, String key, JsonValue given, TypeModel type, String path) {
        QName name = type.attributes().keySet().stream()
                .filter(known ->
                        known.getLocalPart().equals(key) || known.toString().equals(key))
                .findFirst()
                .orElse(expanded(key) != null ? expanded(key) : type.wildcards().isEmpty() ? null : new QName(key));
        String text = given instanceof JsonValue.Text one
                ? one.text()
                : given instanceof JsonValue.Literal literal ? literal.text() : null;
        if (name == null) {
            unknown(
                    given,
                    "@" + key,
                    path,
                    type.attributes().keySet().stream()
                            .map(known -> "@" + known.getLocalPart())
                            .toList());
        } else if (text == null) {
            wrong(given, inside(path, "@" + key), "an attribute is text", "give a string");
        } else {
            TypeModel.Attribute declared = type.attributes().get(name);
            declared = declared == null ? vocabulary.attribute(name) : declared;
            boolean names = declared != null && declared.rule().holdsNames();
            String written = declared != null && given instanceof JsonValue.Literal literal
                    ? fitting(literal, declared.rule())
                    : text;
            element.attributes().put(name, names ? prefixed(element, written) : written);
        }
    }

    /** The name that a key writes out, as <code>{namespace}name</code>, or null when it is a local name alone. */
    private static QName expanded(String key) {
        int end = key.startsWith("{") ? key.indexOf('}') : -1;
        return end < 0 || end == key.length() - 1 ? null : new QName(key.substring(1, end), key.substring(end + 1));
    }

    private void child(String key, JsonValue given, TypeModel type, String path, List<MessageElement> to) {
        QName name = expanded(key);
        TypeModel inner = null;
        boolean skip = false;
        if (type.isAnything()) {
            name = name == null ? new QName(key) : name;
            inner = skipping || vocabulary.element(name) == null ? type : vocabulary.typeOf(vocabulary.element(name));
        } else {
            QName meant = name == null ? vocabulary.named(type, key) : name;
            ElementDeclaration declaration = vocabulary.elements(type).get(meant);
            if (declaration != null) {
                name = meant;
                inner = vocabulary.typeOf(declaration);
            }
            QName open = name == null ? new QName(key) : name;
            Leaf leaf = inner == null ? ContentModel.anywhere(type.content(), open) : null;
            if (leaf != null) {
                name = open;
                skip = leaf instanceof Leaf.Any any && any.wildcard().processing() == Wildcard.Processing.SKIP;
                inner = skip || vocabulary.element(open) == null
                        ? vocabulary.type(SchemaComponents.ANY_TYPE)
                        : vocabulary.typeOf(vocabulary.element(open));
            }
        }
        if (inner == null) {
            unknown(given, key, path, names(type));
            return;
        }
        boolean around = skipping;
        skipping |= skip;
        int number = 0;
        for (JsonValue one : given instanceof JsonValue.Items items ? items.items() : List.of(given)) {
            String where = inside(path, key) + (given instanceof JsonValue.Items ? "[" + number++ + "]" : "");
            to.add(element(one, name, inner, where));
        }
        skipping = around;
    }

    /**
     * Puts elements into the order that the contract wants; one that it allows stays as it is, and what fits nowhere comes
     * last.
     */
    static List<MessageElement> ordered(List<MessageElement> children, ContentModel model) {
        ContentModel as = model;
        for (MessageElement child : children) {
            ContentModel.Step step = as == null ? null : as.step(child.name());
            as = step == null ? null : step.rest();
        }
        if (as != null && as.isComplete()) {
            return children;
        }
        // The places of those that are to come, in their order, by name: there are many children and few names.
        Map<QName, Deque<Integer>> pending = new LinkedHashMap<>();
        for (int i = 0; i < children.size(); i++) {
            pending.computeIfAbsent(children.get(i).name(), any -> new ArrayDeque<>())
                    .add(i);
        }
        List<MessageElement> ordered = new ArrayList<>();
        ContentModel at = model;
        while (!pending.isEmpty()) {
            QName next = next(pending, at);
            ContentModel.Step step = next == null ? null : at.step(next);
            if (step == null) {
                break;
            }
            ordered.add(children.get(pending.get(next).remove()));
            if (pending.get(next).isEmpty()) {
                pending.remove(next);
            }
            at = step.rest();
        }
        pending.values().stream().flatMap(Deque::stream).sorted().forEach(place -> ordered.add(children.get(place)));
        return ordered;
    }

    /** The name of the first of the pending children that the first leaf takes which takes any. */
    private static QName next(Map<QName, Deque<Integer>> pending, ContentModel at) {
        for (Leaf leaf : ContentModel.next(at)) {
            QName first = null;
            for (QName name : pending.keySet()) {
                boolean earlier = first == null
                        || pending.get(name).peek() < pending.get(first).peek();
                first = earlier && leaf.accepts(name) ? name : first;
            }
            if (first != null) {
                return first;
            }
        }
        return null;
    }
}
