package org.protypos.message.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.IdentityConstraint;

/** Checks what speaks of several values together: keys and references to them, ID and IDREF. */
final class IdentityCheck {
    private final Map<MessageElement, TypeModel> types;
    private final Consumer<Deviation> report;
    private final Map<MessageElement, String> standards = new IdentityHashMap<>();
    private final Map<String, MessageElement> ids = new HashMap<>();
    private final Map<String, MessageElement> references = new LinkedHashMap<>();

    /** For each element with keys the tuples of each key, for the references further out. */
    private final Map<MessageElement, Map<QName, Set<Object>>> keys = new IdentityHashMap<>();

    IdentityCheck(Map<MessageElement, TypeModel> types, Consumer<Deviation> report) {
        this.types = types;
        this.report = report;
    }

    /** Notes the value of an element, which is another than its text when that is empty and there is a default. */
    void value(MessageElement element, ValueRule rule, String text) {
        if (!text.isEmpty() && element.content().isEmpty()) {
            standards.put(element, text);
        }
        value(element, null, rule, text);
    }

    /** Notes the value of an attribute, or of an element when that is null. */
    void value(MessageElement element, QName attribute, ValueRule rule, String text) {
        String builtin = (rule.item() != null ? rule.item() : rule).builtin();
        if (!"ID".equals(builtin) && !"IDREF".equals(builtin)) {
            return;
        }
        for (String one : Lexical.items(text)) {
            if (builtin.equals("ID")) {
                MessageElement owner = attribute == null ? element.parent() : element;
                MessageElement other = ids.putIfAbsent(one, owner);
                if (other != null && other != owner) {
                    deviation(
                            "id-twice",
                            element,
                            attribute,
                            "the ID \"" + one + "\" is there twice",
                            "another ID than that of " + other.path(),
                            null);
                }
            } else {
                references.putIfAbsent(one, element);
            }
        }
    }

    /** Looks at the references once all of the message is known. */
    void finish() {
        references.forEach((id, element) -> {
            if (!ids.containsKey(id)) {
                deviation(
                        "id-missing",
                        element,
                        null,
                        "the IDREF \"" + id + "\" leads nowhere",
                        "an ID that stands in the message",
                        null);
            }
        });
    }

    private void deviation(
            String code, MessageElement at, QName attribute, String came, String expected, Place contract) {
        report.accept(new Deviation(
                code,
                attribute == null ? at.place() : at.place(attribute),
                at.path() + (attribute == null ? "" : "/@" + attribute.getLocalPart()),
                came,
                expected,
                contract));
    }

    /** Checks the constraints of an element of which all content was checked before. */
    void check(MessageElement element, List<IdentityConstraint> constraints) {
        for (IdentityConstraint constraint : constraints) {
            if (!constraint.kind().equals("keyref")) {
                keys.computeIfAbsent(element, any -> new HashMap<>())
                        .put(constraint.name(), tuples(element, constraint));
            }
        }
        for (IdentityConstraint constraint : constraints) {
            if (constraint.kind().equals("keyref")) {
                references(element, constraint);
            }
        }
    }

    private Set<Object> tuples(MessageElement scope, IdentityConstraint constraint) {
        Set<Object> tuples = new HashSet<>();
        for (MessageElement selected :
                KeyPath.of(constraint.selector(), constraint.namespaces()).elements(scope)) {
            List<Object> tuple = tuple(selected, constraint);
            if (tuple.contains(null)) {
                if (constraint.kind().equals("key")) {
                    deviation(
                            "key-missing",
                            selected,
                            null,
                            "a part of the key " + constraint.name().getLocalPart() + " is missing",
                            "values at " + String.join(", ", constraint.fields()),
                            constraint.place());
                }
            } else if (!tuples.add(tuple)) {
                deviation(
                        "key-twice",
                        selected,
                        null,
                        "the value of " + constraint.name().getLocalPart() + " is there twice",
                        "another value than in the elements before",
                        constraint.place());
            }
        }
        return tuples;
    }

    private void references(MessageElement scope, IdentityConstraint constraint) {
        Set<Object> known = new HashSet<>();
        collect(scope, constraint.refer(), known);
        for (MessageElement selected :
                KeyPath.of(constraint.selector(), constraint.namespaces()).elements(scope)) {
            List<Object> tuple = tuple(selected, constraint);
            if (!tuple.contains(null) && !known.contains(tuple)) {
                deviation(
                        "key-unknown",
                        selected,
                        null,
                        "the reference " + constraint.name().getLocalPart() + " leads to no "
                                + constraint.refer().getLocalPart(),
                        "the value of a key in the same element",
                        constraint.place());
            }
        }
    }

    private void collect(MessageElement element, QName key, Set<Object> to) {
        Map<QName, Set<Object>> here = keys.get(element);
        if (here != null && here.containsKey(key)) {
            to.addAll(here.get(key));
        }
        element.children().forEach(child -> collect(child, key, to));
    }

    private List<Object> tuple(MessageElement selected, IdentityConstraint constraint) {
        List<Object> tuple = new ArrayList<>();
        for (String field : constraint.fields()) {
            KeyPath path = KeyPath.of(field, constraint.namespaces());
            Object key = null;
            for (KeyPath.Value value : path.values(selected, this::given)) {
                key = key(value);
            }
            tuple.add(key);
        }
        return tuple;
    }

    /** The attributes that an element does not say, and has all the same by their default (Part 1, section 3.11.4). */
    private Set<QName> given(MessageElement element) {
        TypeModel type = types.get(element);
        Set<QName> given = new HashSet<>();
        if (type != null) {
            type.attributes().forEach((name, attribute) -> {
                if (attribute.standard() != null) {
                    given.add(name);
                }
            });
        }
        return given;
    }

    private Object key(KeyPath.Value value) {
        TypeModel type = types.get(value.element());
        if (value.attribute() == null) {
            String text = standards.getOrDefault(value.element(), value.text());
            return type == null || type.text() == null ? text : type.text().key(text, value.element()::namespaceOf);
        }
        TypeModel.Attribute declared = type == null ? null : type.attributes().get(value.attribute());
        String text = value.text() == null ? declared.standard() : value.text();
        return declared == null ? text : declared.rule().key(text, value.element()::namespaceOf);
    }
}
