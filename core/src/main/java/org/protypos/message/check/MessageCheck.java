package org.protypos.message.check;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Wildcard;
import org.protypos.source.Xml;

/** The check of one message (XML Schema Part 1, chapter 5). */
final class MessageCheck {
    private static final int MOST_DEVIATIONS = 200;

    /** The wrapper of a call has no type in the contract; nothing but elements stands in it. */
    private final TypeModel wrapperType = TypeModel.undefined();

    private final Vocabulary vocabulary;
    private final AttributeCheck attributes;
    private final List<Deviation> deviations = new ArrayList<>();
    private final Map<MessageElement, TypeModel> types = new IdentityHashMap<>();
    private final IdentityCheck identities = new IdentityCheck(types, this::report);

    MessageCheck(Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
        this.attributes = new AttributeCheck(vocabulary, identities, this::report);
    }

    /** Checks a message of which the root is an element that the contract declares globally. */
    CheckedMessage root(MessageElement root) {
        ElementDeclaration declaration = vocabulary.element(root.name());
        TypeModel stated = declaration == null ? stated(root) : null;
        if (declaration != null && declaration.isAbstract()) {
            deviation(
                    "abstract-element",
                    root,
                    "<" + root.name().getLocalPart() + "> is abstract and cannot stand in a message",
                    "an element of its substitution group",
                    declaration.place());
        } else if (declaration != null) {
            element(root, declaration);
        } else if (stated != null) {
            content(root, null, stated);
        } else {
            undeclared(root);
        }
        return end();
    }

    /** Checks an element against a type, whatever its name. */
    CheckedMessage element(MessageElement element, TypeModel type) {
        content(element, null, actual(element, type, Set.of(), type.place()));
        return end();
    }

    /**
     * Checks the wrapper of a remote procedure call.
     *
     * @param parts the types of the elements in it, by their local names; they are in no namespace
     */
    CheckedMessage wrapper(MessageElement wrapper, Map<String, TypeModel> parts) {
        types.put(wrapper, wrapperType);
        Set<String> came = new LinkedHashSet<>();
        for (MessageElement child : wrapper.children()) {
            String name = child.name().getLocalPart();
            TypeModel type = child.name().getNamespaceURI().isEmpty() ? parts.get(name) : null;
            if (type != null && came.add(name)) {
                if (child.isNil()) {
                    deviation(
                            "not-nillable",
                            child,
                            "<" + name + "> is nil",
                            "content, for a part of a call is never nil",
                            type.place());
                }
                content(child, null, actual(child, type, Set.of(), type.place()));
            } else {
                deviation(
                        "unexpected-element",
                        child,
                        "<" + wrapper.name().getLocalPart() + "> may not hold <" + name + ">"
                                + (came.contains(name) ? " twice" : ""),
                        "an element without a namespace for each part: " + String.join(", ", parts.keySet()),
                        null);
            }
        }
        for (String part : parts.keySet()) {
            if (!came.contains(part)) {
                deviation("missing-element", wrapper, "the part " + part + " is missing", "<" + part + ">", null);
            }
        }
        return end();
    }

    private CheckedMessage end() {
        identities.finish();
        return new CheckedMessage(List.copyOf(deviations), types);
    }

    private void deviation(String code, MessageElement at, String came, String expected, Place contract) {
        deviation(code, at, came, expected, contract, null);
    }

    private void deviation(
            String code, MessageElement at, String came, String expected, Place contract, Deviation.Cause cause) {
        report(new Deviation(code, at.place(), at.path(), came, expected, contract, cause));
    }

    /** What the contract would have to say otherwise of an element that it declares. */
    private Deviation.Cause about(
            Deviation.Lack lack, MessageElement element, ElementDeclaration declaration, String text) {
        return declaration == null
                ? null
                : new Deviation.Cause(lack, parentOf(element), declaration.name(), element, text);
    }

    /** The element around, if its type is known. */
    private MessageElement parentOf(MessageElement element) {
        return element.parent() != null && types.containsKey(element.parent()) ? element.parent() : null;
    }

    private void report(Deviation deviation) {
        if (deviations.size() < MOST_DEVIATIONS) {
            deviations.add(deviation);
        }
    }

    private void undeclared(MessageElement root) {
        List<String> locals = new ArrayList<>();
        Place place = null;
        for (ElementDeclaration declaration : vocabulary.schema().elements().values()) {
            locals.add(declaration.name().getLocalPart());
            if (declaration.name().getLocalPart().equals(root.name().getLocalPart())) {
                place = declaration.place();
            }
        }
        String space = root.name().getNamespaceURI().isEmpty()
                ? "no namespace"
                : "namespace " + root.name().getNamespaceURI();
        String expected = place != null
                ? "the element of this name that the contract declares, which is of another namespace"
                : NearestName.of(root.name().getLocalPart(), locals)
                        .map(name -> "an element that the contract declares, such as <" + name + ">")
                        .orElse("an element that the contract declares globally");
        deviation(
                "unknown-element",
                root,
                "the contract declares no element " + root.name().getLocalPart() + " of " + space,
                expected,
                place);
    }

    /** The type that an element names, or null; what it says of itself by attributes of the instance namespace is checked. */
    private TypeModel stated(MessageElement element) {
        String nil = element.attribute(Xml.XSI, "nil");
        ValueRule.Complaint complaint =
                nil == null ? null : ValueRule.of("boolean").complaint(nil, null);
        if (complaint != null) {
            deviation("value", element, "xsi:nil: " + complaint.message(), "xsi:nil that says true or false", null);
        }
        String stated = element.attribute(Xml.XSI, "type");
        if (stated == null) {
            return null;
        }
        QName name = element.resolve(stated.strip());
        TypeModel type = name == null ? null : vocabulary.type(name);
        if (type == null) {
            deviation(
                    "unknown-type",
                    element,
                    "xsi:type names " + stated.strip() + ", a type that the contract does not have",
                    "a type of the contract",
                    null);
        }
        return type;
    }

    private void element(MessageElement element, ElementDeclaration declaration) {
        TypeModel type = vocabulary.typeOf(declaration);
        content(element, declaration, actual(element, type, declaration.block(), declaration.place()));
        if (!declaration.constraints().isEmpty()) {
            identities.check(element, declaration.constraints());
        }
    }

    /** The type that an element is of: the declared one, or what it names instead (XML Schema Part 1, section 2.6.1). */
    private TypeModel actual(MessageElement element, TypeModel declared, Set<String> blocked, Place place) {
        TypeModel stated = stated(element);
        if (stated == null || vocabulary.derives(stated, declared, blocked)) {
            return stated == null ? declared : stated;
        }
        deviation(
                "foreign-type",
                element,
                "xsi:type names " + named(stated) + ", which may not stand for " + named(declared),
                "a type derived from " + named(declared),
                place);
        return declared;
    }

    private static String named(TypeModel type) {
        return type.isAnything()
                ? "anyType"
                : type.name() == null ? "the type declared" : type.name().getLocalPart();
    }

    private void content(MessageElement element, ElementDeclaration declaration, TypeModel type) {
        types.put(element, type);
        if (type.isAbstract()) {
            deviation(
                    "abstract-type",
                    element,
                    "the type " + named(type) + " is abstract",
                    "xsi:type with a type derived from it",
                    type.place());
        }
        attributes.check(element, type);
        if (declaration != null && !declaration.nillable() && element.attribute(Xml.XSI, "nil") != null) {
            notNillable(element, declaration);
        }
        if (element.isNil()) {
            nil(element, declaration);
        } else if (type.text() != null) {
            simple(element, declaration, type);
        } else {
            elements(element, type);
            if (declaration != null
                    && declaration.fixedValue() != null
                    && !element.content().isEmpty()) {
                fixedMixed(element, declaration);
            }
        }
    }

    /** Where nothing can be nil, the attribute has no place, whatever it says (XML Schema Part 1, section 3.3.4, clause 3.1 for elements). */
    private void notNillable(MessageElement element, ElementDeclaration declaration) {
        boolean nil = element.isNil();
        deviation(
                "not-nillable",
                element,
                "<" + element.name().getLocalPart() + "> " + (nil ? "is nil" : "says xsi:nil"),
                (nil ? "content" : "no xsi:nil") + ", for the element is not nillable",
                declaration.place(),
                about(Deviation.Lack.NIL, element, declaration, null));
    }

    private void nil(MessageElement element, ElementDeclaration declaration) {
        if (declaration != null && declaration.fixedValue() != null) {
            deviation(
                    "fixed-value",
                    element,
                    "<" + element.name().getLocalPart() + "> is nil",
                    "\"" + declaration.fixedValue() + "\", for a fixed value is never nil",
                    declaration.place());
        }
        if (!element.content().isEmpty()) {
            deviation("nil-content", element, "an element that is nil has content", "no content", null);
        }
    }

    private void simple(MessageElement element, ElementDeclaration declaration, TypeModel type) {
        for (MessageElement child : element.children()) {
            deviation(
                    "unexpected-element",
                    child,
                    "<" + child.name().getLocalPart() + "> stands where only text may be",
                    "text of type " + named(type),
                    declaration == null ? type.place() : declaration.place());
        }
        String text = element.text();
        if (text.isEmpty() && declaration != null && declaration.standing() != null) {
            text = declaration.standing();
        }
        Place expectedAt = declaration == null ? type.place() : declaration.place();
        ValueRule.Complaint complaint = type.text().complaint(text, element::namespaceOf);
        if (complaint != null) {
            Place facet = vocabulary.place(complaint.rule());
            deviation(
                    "value",
                    element,
                    complaint.message(),
                    "a value of " + described(type.definition()),
                    facet != null ? facet : expectedAt,
                    about(Deviation.Lack.VALUE, element, declaration, text));
        } else if (declaration != null && declaration.fixedValue() != null) {
            Object fixed = type.text().key(declaration.fixedValue(), element::namespaceOf);
            if (!fixed.equals(type.text().key(text, element::namespaceOf))) {
                deviation(
                        "fixed-value",
                        element,
                        "\"" + text + "\" is another value than the one fixed",
                        "\"" + declaration.fixedValue() + "\"",
                        declaration.place());
            }
        }
        identities.value(element, type.text(), text);
    }

    static String described(SchemaType type) {
        return type.name() == null
                ? "the type declared there"
                : "type " + type.name().getLocalPart();
    }

    private void fixedMixed(MessageElement element, ElementDeclaration declaration) {
        if (!element.children().isEmpty() || !element.text().equals(declaration.fixedValue())) {
            deviation(
                    "fixed-value",
                    element,
                    "the content is another than the text that is fixed",
                    "\"" + declaration.fixedValue() + "\"",
                    declaration.place());
        }
    }

    private void elements(MessageElement element, TypeModel type) {
        ContentModel model = type.content();
        boolean excused = false;
        boolean textTold = type.mixed();
        for (Object item : element.content()) {
            if (item instanceof MessageElement child) {
                ContentModel.Step step = model.step(child.name());
                if (step == null) {
                    step = model.skipTo(child.name());
                    if (step == null || !excused) {
                        unexpected(child, new Expectation(element, type, model), type);
                    }
                    excused = step == null;
                }
                if (step != null) {
                    model = step.rest();
                    instance(child, step.leaf());
                } else {
                    misplaced(child, type);
                }
            } else if (!textTold && !Lexical.isBlank((String) item)) {
                textTold = true;
                deviation(
                        "unexpected-text",
                        element,
                        "\"" + cut(Lexical.collapse((String) item)) + "\" stands between elements",
                        "elements alone, as " + described(type.definition()) + " is not mixed",
                        type.place());
            }
        }
        if (!textTold
                && type.isEmpty()
                && !element.content().isEmpty()
                && element.children().isEmpty()) {
            deviation(
                    "unexpected-text",
                    element,
                    "white space stands in <" + element.name().getLocalPart() + ">",
                    "nothing at all, as " + described(type.definition()) + " is empty",
                    type.place());
        }
        // What is wrong at the end was told before when something strange came in its place.
        if (!excused && !model.isComplete()) {
            Expectation expected = new Expectation(element, type, model);
            deviation(
                    "missing-element",
                    element,
                    "<" + element.name().getLocalPart() + "> ends too early",
                    expected.text(),
                    expected.place(),
                    expected.missing());
        }
    }

    /** What has no place is still checked as far as its declaration can be told by its name. */
    private void misplaced(MessageElement child, TypeModel type) {
        Leaf any = ContentModel.anywhere(type.content(), child.name());
        if (any != null) {
            instance(child, any);
        }
    }

    static String cut(String text) {
        return Lexical.shortened(text, 40);
    }

    private void unexpected(MessageElement child, Expectation expected, TypeModel type) {
        Place place = expected.place();
        deviation(
                "unexpected-element",
                child,
                expected.why(child),
                expected.text(),
                place == null ? type.place() : place,
                expected.cause(child));
    }

    private void instance(MessageElement child, Leaf leaf) {
        leaf.act(
                expected -> element(
                        child,
                        expected.declaration().name().equals(child.name())
                                ? expected.declaration()
                                : vocabulary.element(child.name())),
                any -> open(child, any.wildcard()));
    }

    private void open(MessageElement child, Wildcard wildcard) {
        if (wildcard.processing() == Wildcard.Processing.SKIP) {
            return;
        }
        ElementDeclaration declaration = vocabulary.element(child.name());
        if (declaration != null && !declaration.isAbstract()) {
            element(child, declaration);
            return;
        }
        TypeModel stated = stated(child);
        if (stated != null) {
            content(child, null, stated);
            return;
        }
        if (wildcard.processing() == Wildcard.Processing.STRICT) {
            deviation(
                    "unknown-element",
                    child,
                    "the contract declares no element " + child.name().getLocalPart() + " of "
                            + Expectation.space(child.name()),
                    "an element that the contract declares globally",
                    wildcard.place());
            return;
        }
        child.children().forEach(inner -> open(inner, wildcard));
    }
}
