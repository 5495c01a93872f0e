package org.protypos.message.inclusion;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.ElementDeclaration;

/** Two contracts side by side: what is of the one and what is of the other, and what is known of both together. */
final class Pairs {
    final Vocabulary one;
    final Vocabulary other;
    final Samples samples;
    private final UnaryOperator<String> namespaces;
    private final ValueInclusion values;
    private final Map<Object, Map<Object, Elements>> elements = new IdentityHashMap<>();
    private final Map<ValueRule, Map<ValueRule, ValueInclusion.Outcome>> outcomes = new IdentityHashMap<>();

    /**
     * Takes two contracts.
     *
     * @param samples makes messages of the one
     * @param namespaces gives for a namespace of the one contract that of the other
     */
    Pairs(Vocabulary one, Vocabulary other, Samples samples, UnaryOperator<String> namespaces) {
        this.one = one;
        this.other = other;
        this.samples = samples;
        this.namespaces = namespaces;
        this.values = new ValueInclusion(one, other, samples);
    }

    /** The name in the other contract of what has a name in the one. */
    QName toOther(QName name) {
        String namespace = namespaces.apply(name.getNamespaceURI());
        return namespace.equals(name.getNamespaceURI()) ? name : new QName(namespace, name.getLocalPart());
    }

    String toOther(String namespace) {
        return namespaces.apply(namespace);
    }

    Elements elements(ElementDeclaration declared, ElementDeclaration also) {
        return elements.computeIfAbsent(declared, any -> new IdentityHashMap<>())
                .computeIfAbsent(also, any -> new Elements(declared, also, one.typeOf(declared), other.typeOf(also)));
    }

    /** An element that no schema declares, of types of both. */
    Elements elements(TypeModel type, TypeModel also) {
        return elements.computeIfAbsent(type, any -> new IdentityHashMap<>())
                .computeIfAbsent(also, any -> new Elements(null, null, type, also));
    }

    /** An element that is declared in the one contract, or in neither. */
    Elements elements(Root root) {
        return root.one() != null && root.other() != null
                ? elements(root.one(), root.other())
                : elements(root.typeOfOne(), root.typeOfOther());
    }

    ValueInclusion.Outcome values(ValueRule rule, ValueRule also) {
        return outcomes.computeIfAbsent(rule, any -> new HashMap<>())
                .computeIfAbsent(also, any -> values.of(rule, also));
    }
}
