package org.protypos.constraint;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;

/** All that the schemas declare, on the spot or by name, each once. */
final class DeclaredComponents {
    private final List<SimpleType> simpleTypes = new ArrayList<>();
    private final List<ComplexType> complexTypes = new ArrayList<>();
    private final List<ElementDeclaration> elements = new ArrayList<>();
    private final List<AttributeDeclaration> attributes = new ArrayList<>();
    private final List<AttributeUse> uses = new ArrayList<>();
    private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Term.Acts acts =
            new Term.Acts(this::element, reference -> {}, reference -> {}, this::group, wildcard -> {});

    private DeclaredComponents() {}

    static DeclaredComponents of(SchemaComponents schema) {
        DeclaredComponents all = new DeclaredComponents();
        schema.types().values().forEach(all::type);
        schema.elements().values().forEach(all::element);
        schema.attributes().values().forEach(all::attribute);
        schema.groups().values().forEach(definition -> all.group(definition.group()));
        schema.attributeGroups().values().forEach(group -> all.attributes(group.attributes()));
        return all;
    }

    List<SimpleType> simpleTypes() {
        return simpleTypes;
    }

    List<ComplexType> complexTypes() {
        return complexTypes;
    }

    /** Global and local ones. */
    List<ElementDeclaration> elements() {
        return elements;
    }

    /** Global and local ones. */
    List<AttributeDeclaration> attributes() {
        return attributes;
    }

    List<AttributeUse> uses() {
        return uses;
    }

    private void type(SchemaType type) {
        if (type == null || !seen.add(type)) {
            return;
        }
        if (type instanceof SimpleType simple) {
            simpleTypes.add(simple);
            anonymous(simple.base());
            simple.members().forEach(this::anonymous);
        } else if (type instanceof ComplexType complex) {
            complexTypes.add(complex);
            if (complex.content() instanceof ComplexType.SimpleContent content) {
                anonymous(content.type());
            } else if (complex.particle() != null) {
                complex.particle().term().act(acts);
            }
            attributes(complex.attributes());
        }
    }

    private void anonymous(TypeReference reference) {
        if (reference != null) {
            type(reference.anonymous());
        }
    }

    private void element(ElementDeclaration element) {
        if (seen.add(element)) {
            elements.add(element);
            anonymous(element.type());
        }
    }

    private void attribute(AttributeDeclaration attribute) {
        if (seen.add(attribute)) {
            attributes.add(attribute);
            anonymous(attribute.type());
        }
    }

    private void attributes(Attributes all) {
        for (AttributeUse use : all.uses()) {
            if (seen.add(use)) {
                uses.add(use);
                if (use.declaration() != null) {
                    attribute(use.declaration());
                }
            }
        }
    }

    private void group(ModelGroup group) {
        if (seen.add(group)) {
            group.particles().forEach(particle -> particle.term().act(acts));
        }
    }
}
