package org.protypos.message.sample;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.check.KeyPath;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.IdentityConstraint;

/** Makes the values of a sample fit each other: keys differ, references lead to what is there. */
final class SampleKeys {
    private static final int MOST_VARIANTS = 300;

    private final SampleBuilder builder;
    private final Vocabulary vocabulary;
    private final Map<QName, List<List<String>>> tuples = new HashMap<>();
    private final Map<String, QName> ids = new LinkedHashMap<>();

    SampleKeys(SampleBuilder builder, Vocabulary vocabulary) {
        this.builder = builder;
        this.vocabulary = vocabulary;
    }

    void settle(MessageElement root) {
        for (int round = 0; round < 2; round++) {
            constraints(root, false);
            constraints(root, true);
        }
        collectIds(root);
        references(root);
    }

    private void constraints(MessageElement element, boolean references) {
        element.children().forEach(child -> constraints(child, references));
        ElementDeclaration declaration = builder.declarations().get(element);
        if (declaration == null) {
            return;
        }
        for (IdentityConstraint constraint : declaration.constraints()) {
            if (constraint.kind().equals("keyref") == references) {
                if (references) {
                    refer(element, constraint);
                } else {
                    distinguish(element, constraint);
                }
            }
        }
    }

    private static List<KeyPath.Value> fields(MessageElement selected, IdentityConstraint constraint) {
        List<KeyPath.Value> fields = new ArrayList<>();
        for (String field : constraint.fields()) {
            List<KeyPath.Value> values =
                    KeyPath.of(field, constraint.namespaces()).values(selected);
            fields.add(values.isEmpty() ? null : values.get(values.size() - 1));
        }
        return fields;
    }

    private static List<String> texts(List<KeyPath.Value> fields) {
        List<String> texts = new ArrayList<>();
        fields.forEach(field -> texts.add(field.text()));
        return texts;
    }

    private void distinguish(MessageElement scope, IdentityConstraint constraint) {
        Set<List<String>> seen = new HashSet<>();
        List<List<String>> all = new ArrayList<>();
        for (MessageElement selected :
                KeyPath.of(constraint.selector(), constraint.namespaces()).elements(scope)) {
            List<KeyPath.Value> fields = fields(selected, constraint);
            if (fields.contains(null)) {
                continue;
            }
            for (int variant = 1; variant < MOST_VARIANTS && seen.contains(texts(fields)); variant++) {
                vary(fields, variant);
            }
            seen.add(texts(fields));
            all.add(texts(fields));
        }
        tuples.put(constraint.name(), all);
    }

    private void vary(List<KeyPath.Value> fields, int variant) {
        for (KeyPath.Value field : fields) {
            SampleBuilder.Slot slot = builder.slot(field.element(), field.attribute());
            if (slot != null && !slot.fixed()) {
                set(field, builder.values().value(slot.rule(), slot.hint(), variant));
                return;
            }
        }
    }

    private static void set(KeyPath.Value field, String text) {
        if (field.attribute() == null) {
            field.element().setText(text);
        } else {
            field.element().attributes().put(field.attribute(), text);
        }
    }

    private void refer(MessageElement scope, IdentityConstraint constraint) {
        List<List<String>> known = tuples.getOrDefault(constraint.refer(), List.of());
        // One that has not as many values as what it refers to is not told apart by them; the contract is at fault
        // then.
        if (known.isEmpty() || known.get(0).size() != constraint.fields().size()) {
            return;
        }
        for (MessageElement selected :
                KeyPath.of(constraint.selector(), constraint.namespaces()).elements(scope)) {
            List<KeyPath.Value> fields = fields(selected, constraint);
            if (fields.contains(null) || known.contains(texts(fields))) {
                continue;
            }
            for (int i = 0; i < fields.size(); i++) {
                set(fields.get(i), known.get(0).get(i));
            }
        }
    }

    private void collectIds(MessageElement element) {
        visit(element, (attribute, slot, text) -> {
            if ("ID".equals(slot.rule().builtin())) {
                ids.put(text, attribute);
            }
        });
        element.children().forEach(this::collectIds);
    }

    private interface Visit {
        void value(QName attribute, SampleBuilder.Slot slot, String text);
    }

    private void visit(MessageElement element, Visit visit) {
        SampleBuilder.Slot own = builder.slot(element, null);
        if (own != null) {
            visit.value(null, own, element.text());
        }
        for (Map.Entry<QName, String> attribute :
                List.copyOf(element.attributes().entrySet())) {
            SampleBuilder.Slot slot = builder.slot(element, attribute.getKey());
            if (slot != null) {
                visit.value(attribute.getKey(), slot, attribute.getValue());
            }
        }
    }

    /** Lets each IDREF lead to the first ID; where a message has none, an attribute gives it one if it can. */
    private void references(MessageElement element) {
        visit(element, (attribute, slot, text) -> {
            if (SampleBuilder.isReference(slot.rule()) && !ids.isEmpty() && !ids.containsKey(text)) {
                set(
                        new KeyPath.Value(element, attribute),
                        ids.keySet().iterator().next());
            }
        });
        element.children().forEach(this::references);
    }
}
