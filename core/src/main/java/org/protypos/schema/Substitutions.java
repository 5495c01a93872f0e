package org.protypos.schema;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/**
 * What may stand for what: types for those that they are derived from, elements for the heads of their groups. Asks the
 * definitions alone, for the content of a type may depend on what stands for its elements.
 */
public final class Substitutions {
    private final SchemaComponents schema;
    private final Map<QName, Set<QName>> known = new HashMap<>();

    /** Asks the components of a sound contract. */
    public Substitutions(SchemaComponents schema) {
        this.schema = schema;
    }

    /**
     * The names of the elements that may stand where a global element is referred to, itself first unless it is abstract
     * (XML Schema Part 1, section 3.3.6).
     */
    public Set<QName> of(ElementDeclaration head) {
        return known.computeIfAbsent(head.name(), any -> find(head));
    }

    private Set<QName> find(ElementDeclaration head) {
        Set<QName> names = new LinkedHashSet<>();
        if (!head.isAbstract()) {
            names.add(head.name());
        }
        if (head.block().contains("substitution")) {
            return names;
        }
        SchemaType wanted = schema.resolve(schema.typeOf(head));
        Set<QName> seen = new HashSet<>();
        Deque<QName> open = new ArrayDeque<>();
        pushMembers(head.name(), open);
        while (!open.isEmpty()) {
            QName member = open.pop();
            if (seen.add(member)) {
                ElementDeclaration element = schema.elements().get(member);
                if (!element.isAbstract() && derives(schema.resolve(schema.typeOf(element)), wanted, head.block())) {
                    names.add(member);
                }
                pushMembers(member, open);
            }
        }
        return names;
    }

    /** The first member goes on top. */
    private void pushMembers(QName head, Deque<QName> open) {
        List<QName> members = schema.substitutions().getOrDefault(head, List.of());
        for (int i = members.size() - 1; i >= 0; i--) {
            open.push(members.get(i));
        }
    }

    /**
     * Whether a type may stand for another (XML Schema Part 1, sections 3.4.6 and 3.14.6); null is {@code xs:anyType}.
     *
     * @param blocked the kinds of derivation that may not be on the way, beside those that the other type blocks
     */
    public boolean derives(SchemaType type, SchemaType from, Set<String> blocked) {
        if (from instanceof ComplexType complex && !complex.block().isEmpty()) {
            Set<String> all = new HashSet<>(blocked);
            all.addAll(complex.block());
            return isDerived(type, from, all);
        }
        return isDerived(type, from, blocked);
    }

    /**
     * Whether a type is another or is derived from it, whether or not it may stand in its place; null is {@code xs:anyType}.
     *
     * @param barred the kinds of derivation that may not be on the way
     */
    public boolean isDerived(SchemaType type, SchemaType from, Set<String> barred) {
        if (type == from || from == null && barred.isEmpty()) {
            return true;
        }
        SchemaType current = type;
        while (current instanceof ComplexType complex) {
            if (complex == from) {
                return true;
            }
            boolean extension = complex.derivation() == ComplexType.Derivation.EXTENSION;
            if (barred.contains(extension ? "extension" : "restriction")) {
                return false;
            }
            current = schema.resolve(complex.base());
        }
        return current == from
                || current instanceof SimpleType simple
                        && !barred.contains("restriction")
                        && derivesSimply(simple, from, Collections.newSetFromMap(new IdentityHashMap<>()));
    }

    /** Whether some complex type of the contract, with attributes beside its text, may stand for a simple type. */
    public boolean isExtended(SimpleType type, ElementDeclaration head) {
        return schema.types().values().stream().anyMatch(other -> isExtension(other, type))
                || of(head).stream()
                        .map(member ->
                                schema.resolve(schema.typeOf(schema.elements().get(member))))
                        .anyMatch(other -> isExtension(other, type));
    }

    private boolean isExtension(SchemaType type, SimpleType of) {
        return type instanceof ComplexType complex
                && complex.content() instanceof ComplexType.SimpleContent
                && derives(type, of, Set.of());
    }

    private boolean derivesSimply(SimpleType type, SchemaType from, Set<SchemaType> unions) {
        if (from == null || type == from || isSimpleRoot(from)) {
            return true;
        }
        if (from instanceof SimpleType union && union.variety() == SimpleType.Variety.UNION && unions.add(union)) {
            for (TypeReference member : union.members()) {
                if (derivesSimply(type, schema.resolve(member), unions)) {
                    return true;
                }
            }
        }
        SimpleType current = type;
        while (current.variety() == SimpleType.Variety.RESTRICTION
                && current.base() != null
                && schema.resolve(current.base()) instanceof SimpleType base) {
            if (base == from) {
                return true;
            }
            current = base;
        }
        return current.variety() == SimpleType.Variety.BUILT_IN && builtinDerives(current, from);
    }

    private static boolean isSimpleRoot(SchemaType type) {
        return type.name() != null && type.name().equals(Builtins.name("anySimpleType"));
    }

    private static boolean builtinDerives(SimpleType type, SchemaType from) {
        return from instanceof SimpleType other
                && other.variety() == SimpleType.Variety.BUILT_IN
                && Builtins.derives(type.name().getLocalPart(), other.name().getLocalPart());
    }
}
