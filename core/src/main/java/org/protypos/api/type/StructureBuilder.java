package org.protypos.api.type;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
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

/** Gives one structured type its members from the definition of its complex type. */
final class StructureBuilder {
    private static final QName CONTENT_TYPE = new QName(Xml.MEDIA, "contentType");

    private final TypeBuilder types;
    private final StructuredType type;

    StructureBuilder(TypeBuilder types, StructuredType type) {
        this.types = types;
        this.type = type;
    }

    void fill(ComplexType complex) {
        if (complex.isEncodedArray()) {
            array(complex);
            return;
        }
        StructuredType base = types.base(complex);
        Subject subject = new Subject(Subject.Kind.TYPE, type.designator(), complex.place());
        String documentation = types.remarks().of(subject, types.documentation(complex));
        type.describe(base, complex.isAbstract(), complex.mixed(), documentation);
        type.setMentioned(each -> mentions(complex, each));
        content(complex, base);
        attributes(complex.attributes(), base);
    }

    /** An array holds items of one type under any name (SOAP 1.1, section 5.4.2). */
    private void array(ComplexType complex) {
        type.describe(null, complex.isAbstract(), false, complex.documentation());
        TypeReference item = arrayItem(complex);
        type.setArrayItem(item.name() == null ? SchemaComponents.ANY_TYPE : item.name());
        ApiValue value = types.value(item, new Scope(type, new QName("item")));
        Member member = new Member(
                null,
                "Item",
                Member.Kind.ELEMENT,
                new QName("item"),
                value,
                null,
                Member.Cardinality.MANY,
                true,
                null,
                "",
                types.facets().of(item),
                types.typeName(value, item));
        type.addElement(member);
        type.setContent(new Content.Leaf<>(member, 0, Particle.UNBOUNDED, Wildcard.anything(complex.place())));
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

    private void content(ComplexType complex, StructuredType base) {
        if (complex.content() instanceof ComplexType.SimpleContent content) {
            SchemaType simple = types.schema().resolve(complex.base());
            if (simple instanceof SimpleType) {
                ApiValue value = types.withAttachments(
                        types.value(complex.base(), new Scope(type, new QName("value"))), hasMediaType(complex));
                type.setSimple(new Member(
                        unnamed("text"),
                        "Value",
                        Member.Kind.TEXT,
                        null,
                        value,
                        null,
                        Member.Cardinality.REQUIRED,
                        false,
                        null,
                        "",
                        types.facets().of(complex.base()),
                        null));
            } else {
                type.narrowText(types.facets().ofRestriction(complex, content));
            }
            return;
        }
        Particle particle = complex.particle();
        boolean restriction = base != null && complex.derivation() == ComplexType.Derivation.RESTRICTION;
        if (type.isMixed()) {
            if (base == null || !base.isMixed()) {
                type.setMixedText(Member.plain(
                        unnamed("text"),
                        "Content",
                        Member.Kind.MIXED,
                        null,
                        new ApiValue.Anything(),
                        Member.Cardinality.MANY));
            }
            if (particle != null) {
                inner(particle.term(), new HashSet<>());
            }
        } else if (restriction) {
            type.narrowElements(new NarrowingBuilder(types, base).elements(complex));
        } else if (particle != null) {
            type.setContent(new ContentBuilder(types, type).build(particle));
        }
    }

    /** Gathers the elements that mixed content declares itself; global ones are known by name anyway. */
    private void inner(Term term, Set<QName> groups) {
        if (term instanceof ElementDeclaration element) {
            ApiValue value = types.value(types.schema().typeOf(element), new Scope(type, element.name()));
            type.addInner(element.name(), ApiElement.of(element, value));
        } else if (term instanceof ModelGroup group) {
            group.particles().forEach(particle -> inner(particle.term(), groups));
        } else if (term instanceof GroupReference reference && groups.add(reference.name())) {
            inner(types.schema().groups().get(reference.name()).group(), groups);
        }
    }

    private void attributes(Attributes attributes, StructuredType base) {
        List<AttributeUse> uses = new ArrayList<>();
        List<Wildcard> wildcards = new ArrayList<>();
        collect(attributes, uses, wildcards, new HashSet<>());
        Map<QName, Member> inherited = new HashMap<>();
        for (StructuredType from = base; from != null; from = from.base()) {
            from.attributes().forEach(member -> inherited.putIfAbsent(member.xmlName(), member));
        }
        type.narrowAttributes(new NarrowingBuilder(types, base).attributes(uses, inherited));
        Set<QName> known = new HashSet<>(inherited.keySet());
        for (AttributeUse use : uses) {
            AttributeDeclaration declared = types.schema().declaration(use);
            if (use.use() != AttributeUse.Use.PROHIBITED && known.add(declared.name())) {
                type.addAttribute(attribute(use, declared));
            }
        }
        if (!wildcards.isEmpty()) {
            type.setOtherAttributes(wildcards.size() == 1 ? wildcards.get(0) : anything(wildcards.get(0)));
        }
        if (!wildcards.isEmpty() && !type.takesOtherAttributes()) {
            type.setAttributeWildcard(Member.plain(
                    unnamed("@any"),
                    "OtherAttributes",
                    Member.Kind.ATTRIBUTE_WILDCARD,
                    null,
                    new ApiValue.Anything(),
                    Member.Cardinality.MANY));
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

    /** Each name that the definition mentions: elements at any depth of groups, and attributes. */
    private void mentions(ComplexType complex, BiConsumer<Subject, String> each) {
        if (complex.content() instanceof ComplexType.ElementContent content && content.particle() != null) {
            mentionsElements(content.particle().term(), each, new HashSet<>());
        }
        List<AttributeUse> uses = new ArrayList<>();
        collect(complex.attributes(), uses, new ArrayList<>(), new HashSet<>());
        for (AttributeUse use : uses) {
            QName name = types.schema().declaration(use).name();
            each.accept(Subject.attribute(type.designator(), name, use.place()), name.getLocalPart());
        }
    }

    private void mentionsElements(Term term, BiConsumer<Subject, String> each, Set<QName> groups) {
        term.act(new Term.Acts(
                element -> mentionsElement(element.name(), each),
                reference -> mentionsElement(reference.name(), each),
                group -> {
                    if (groups.add(group.name())) {
                        mentionsElements(
                                types.schema().groups().get(group.name()).group(), each, groups);
                    }
                },
                model -> model.particles().forEach(particle -> mentionsElements(particle.term(), each, groups)),
                wildcard -> {}));
    }

    private void mentionsElement(QName name, BiConsumer<Subject, String> each) {
        each.accept(Subject.element(type.designator(), name, null), name.getLocalPart());
    }

    private Member attribute(AttributeUse use, AttributeDeclaration declared) {
        String standard = use.defaultValue() != null
                ? use.defaultValue()
                : use.fixedValue() != null
                        ? use.fixedValue()
                        : declared.defaultValue() != null ? declared.defaultValue() : declared.fixedValue();
        boolean required = use.use() == AttributeUse.Use.REQUIRED;
        Subject subject = Subject.attribute(type.designator(), declared.name(), use.place());
        return new Member(
                subject,
                declared.name().getLocalPart(),
                Member.Kind.ATTRIBUTE,
                declared.name(),
                types.value(declared.type(), new Scope(use.reference() == null ? type : null, declared.name())),
                subject,
                required ? Member.Cardinality.REQUIRED : Member.Cardinality.OPTIONAL,
                false,
                required ? null : standard,
                types.remarks().of(subject, declared.documentation()),
                types.facets().of(declared.type(), use.fixedBy(declared)),
                null);
    }

    private Subject unnamed(String what) {
        return Subject.unnamed(Subject.Kind.MEMBER, type.designator(), what, null);
    }
}
