package org.protypos.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.naming.NameScope;
import org.protypos.naming.Subject;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;
import org.protypos.source.Xml;

/** Gives one class its members from the definition of its complex type. */
final class ClassPlanner {
    private static final QName CONTENT_TYPE = new QName(Xml.MEDIA, "contentType");

    private final TypePlanner types;
    private final ApiClass type;

    ClassPlanner(TypePlanner types, ApiClass type) {
        this.types = types;
        this.type = type;
    }

    void fill(ComplexType complex) {
        if (complex.isEncodedArray()) {
            array(complex);
            return;
        }
        ApiClass base = types.base(complex);
        Subject subject = new Subject(Subject.Kind.TYPE, type.designator(), complex.place());
        String documentation = types.shapes().documentation(subject, types.documentation(complex));
        type.describe(base, complex.isAbstract(), complex.mixed(), documentation);
        type.memberNames = base == null ? types.members(type) : types.members(type, base);
        type.memberNames.expect(expected -> expectMembers(complex, expected));
        content(complex, base);
        attributes(complex.attributes(), base);
    }

    /** An array holds items of one type under any name (SOAP 1.1, section 5.4.2). */
    private void array(ComplexType complex) {
        type.describe(null, complex.isAbstract(), false, complex.documentation());
        type.memberNames = types.members(type);
        TypeReference item = arrayItem(complex);
        type.setArrayItem(item.name() == null ? SchemaComponents.ANY_TYPE : item.name());
        Property property = new Property(
                type.memberNames.make("Item", ""),
                Property.Kind.ELEMENT,
                new QName("item"),
                types.value(item, new Owner(type, new QName("item"))),
                Property.Cardinality.MANY,
                true,
                null,
                null,
                "",
                types.facets().of(item));
        type.addElement(property);
        types.nameType(type, property, item);
        Wildcard any = new Wildcard(List.of("##any"), "", Wildcard.Processing.LAX, complex.place());
        type.setContent(new Content.Leaf(property, 0, Particle.UNBOUNDED, any));
    }

    private TypeReference arrayItem(ComplexType complex) {
        for (AttributeUse use : complex.attributes().uses()) {
            if (use.arrayItem() != null) {
                return TypeReference.to(use.arrayItem(), use.place());
            }
        }
        if (complex.content() instanceof ComplexType.ElementContent content
                && content.particle() != null
                && content.particle().term() instanceof ModelGroup group
                && group.particles().size() == 1
                && group.particles().get(0).term() instanceof ElementDeclaration element) {
            return types.schema().typeOf(element);
        }
        return TypeReference.to(SchemaComponents.ANY_TYPE, complex.place());
    }

    /** Whether the content is binary of some media type (Describing Media Content of Binary Data in XML, section 3.1). */
    private static boolean hasMediaType(ComplexType complex) {
        return complex.attributes().uses().stream().anyMatch(use -> CONTENT_TYPE.equals(use.reference()));
    }

    private void content(ComplexType complex, ApiClass base) {
        if (complex.content() instanceof ComplexType.SimpleContent content) {
            SchemaType simple = types.schema().resolve(complex.base());
            if (simple instanceof SimpleType) {
                type.setSimple(new Property(
                        type.memberNames.make(unnamed(type, "text"), "Value"),
                        Property.Kind.TEXT,
                        null,
                        types.withAttachments(
                                types.value(complex.base(), new Owner(type, new QName("value"))),
                                hasMediaType(complex)),
                        Property.Cardinality.REQUIRED,
                        false,
                        null,
                        null,
                        "",
                        types.facets().of(complex.base())));
            } else {
                type.narrowText(types.facets().ofRestriction(content));
            }
            return;
        }
        ComplexType.ElementContent elements = (ComplexType.ElementContent) complex.content();
        boolean restriction = base != null && complex.derivation() == ComplexType.Derivation.RESTRICTION;
        if (type.isMixed()) {
            if (base == null || !base.isMixed()) {
                type.setMixedText(new Property(
                        type.memberNames.make(unnamed(type, "text"), "Content"),
                        Property.Kind.MIXED,
                        null,
                        new ValueType.Anything(),
                        Property.Cardinality.MANY,
                        false,
                        null,
                        null,
                        ""));
            }
            if (elements.particle() != null) {
                inner(elements.particle().term(), new HashSet<>());
            }
        } else if (!restriction && elements.particle() != null) {
            type.setContent(new ContentPlanner(types, type).plan(elements.particle()));
        }
    }

    /** Gathers the elements that mixed content declares itself; global ones are known by name anyway. */
    private void inner(Term term, Set<QName> groups) {
        if (term instanceof ElementDeclaration element) {
            type.addInner(element.name(), types.value(types.schema().typeOf(element), new Owner(type, element.name())));
        } else if (term instanceof ModelGroup group) {
            group.particles().forEach(particle -> inner(particle.term(), groups));
        } else if (term instanceof GroupReference reference && groups.add(reference.name())) {
            inner(types.schema().groups().get(reference.name()).group(), groups);
        }
    }

    private void attributes(Attributes attributes, ApiClass base) {
        List<AttributeUse> uses = new ArrayList<>();
        List<Wildcard> wildcards = new ArrayList<>();
        collect(attributes, uses, wildcards, new HashSet<>());
        Set<QName> known = new HashSet<>();
        for (ApiClass inherited = base; inherited != null; inherited = inherited.base()) {
            inherited.attributes().forEach(property -> known.add(property.xmlName()));
        }
        for (AttributeUse use : uses) {
            AttributeDeclaration declared = types.schema().declaration(use);
            if (use.use() != AttributeUse.Use.PROHIBITED && known.add(declared.name())) {
                type.addAttribute(attribute(use, declared));
            }
        }
        if (!wildcards.isEmpty()) {
            type.setOtherAttributes(wildcards.size() == 1 ? wildcards.get(0) : anything(wildcards.get(0)));
        }
        if (!wildcards.isEmpty() && type.otherAttributesProperty() == null) {
            type.setAttributeWildcard(new Property(
                    type.memberNames.make(unnamed(type, "@any"), "OtherAttributes"),
                    Property.Kind.ATTRIBUTE_WILDCARD,
                    null,
                    new ValueType.Anything(),
                    Property.Cardinality.MANY,
                    false,
                    null,
                    null,
                    ""));
        }
    }

    /** Several wildcards hold together (XML Schema Part 1, section 3.4.2); we take what any of them takes. */
    private static Wildcard anything(Wildcard one) {
        return new Wildcard(List.of("##any"), one.targetNamespace(), one.processing(), one.place());
    }

    /** Gathers the attributes and wildcards of groups with the others. */
    private void collect(Attributes attributes, List<AttributeUse> uses, List<Wildcard> wildcards, Set<QName> seen) {
        if (attributes.wildcard() != null) {
            wildcards.add(attributes.wildcard());
        }
        uses.addAll(attributes.uses());
        for (Attributes.GroupUse group : attributes.groups()) {
            AttributeGroup definition = types.schema().attributeGroups().get(group.name());
            if (definition != null && seen.add(group.name())) {
                collect(definition.attributes(), uses, wildcards, seen);
            }
        }
    }

    /** Who will want names among the members: elements at any depth of groups, and attributes. */
    private void expectMembers(ComplexType complex, NameScope.Expected expected) {
        if (complex.content() instanceof ComplexType.ElementContent content && content.particle() != null) {
            expectElements(content.particle().term(), expected, new HashSet<>());
        }
        List<AttributeUse> uses = new ArrayList<>();
        collect(complex.attributes(), uses, new ArrayList<>(), new HashSet<>());
        for (AttributeUse use : uses) {
            QName name = types.schema().declaration(use).name();
            expected.wants(
                    Subject.attribute(type.designator(), name, use.place()),
                    types.rules().memberName(name.getLocalPart()));
        }
    }

    private void expectElements(Term term, NameScope.Expected expected, Set<QName> groups) {
        if (term instanceof ModelGroup group) {
            group.particles().forEach(particle -> expectElements(particle.term(), expected, groups));
        } else if (term instanceof GroupReference reference && groups.add(reference.name())) {
            expectElements(types.schema().groups().get(reference.name()).group(), expected, groups);
        } else if (term instanceof ElementDeclaration element) {
            expectElement(element.name(), expected);
        } else if (term instanceof ElementReference reference) {
            expectElement(reference.name(), expected);
        }
    }

    private void expectElement(QName name, NameScope.Expected expected) {
        expected.wants(
                Subject.element(type.designator(), name, null), types.rules().memberName(name.getLocalPart()));
    }

    private Property attribute(AttributeUse use, AttributeDeclaration declared) {
        String local = declared.name().getLocalPart();
        String standard = use.defaultValue() != null
                ? use.defaultValue()
                : use.fixedValue() != null
                        ? use.fixedValue()
                        : declared.defaultValue() != null ? declared.defaultValue() : declared.fixedValue();
        boolean required = use.use() == AttributeUse.Use.REQUIRED;
        Subject subject = Subject.attribute(type.designator(), declared.name(), use.place());
        ValueType value = types.shaped(
                subject, declared.type(), new Owner(use.reference() == null ? type : null, declared.name()));
        Property.Cardinality cardinality = required ? Property.Cardinality.REQUIRED : Property.Cardinality.OPTIONAL;
        return new Property(
                type.memberNames.claim(subject, types.rules().memberName(local), "Attribute"),
                Property.Kind.ATTRIBUTE,
                declared.name(),
                value,
                cardinality,
                false,
                null,
                required ? null : standard,
                types.shapes().documentation(subject, declared.documentation()),
                types.facets().of(declared.type()),
                types.shapes().access(subject, value, cardinality, !required && standard == null));
    }

    private static Subject unnamed(ApiClass type, String what) {
        return Subject.unnamed(Subject.Kind.MEMBER, type.designator(), what, null);
    }
}
