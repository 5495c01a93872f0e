package org.protypos.proof;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.ToldLength;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.naming.Designator;
import org.protypos.naming.Subject;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.facet.FacetStep;
import org.protypos.source.Xml;

/** Says how a contract would have to be corrected for a deviation of one message to be none. */
final class Remedies {
    /** A value that a rule has not. */
    private static final String NONE = "null";

    private static final QName TEXT = new QName(Xml.XSD, "string");

    private final Vocabulary vocabulary;
    private final CheckedMessage checked;

    Remedies(Vocabulary vocabulary, CheckedMessage checked) {
        this.vocabulary = vocabulary;
        this.checked = checked;
    }

    /**
     * A correction of one component.
     *
     * @param on the component
     * @param values what a rule says of it
     * @param reason what the message has that the contract does not say
     */
    record Remedy(String on, Map<String, String> values, String reason) {
        /** What corrections must have in common to be joined: additions stand for themselves. */
        String key() {
            return on + " " + values.getOrDefault("add", "");
        }
    }

    private static Remedy remedy(String on, String reason, String... values) {
        Map<String, String> pairs = new LinkedHashMap<>();
        for (int i = 0; i < values.length; i += 2) {
            pairs.put(values[i], values[i + 1]);
        }
        return on == null ? null : new Remedy(on, pairs, reason);
    }

    /** The correction, or null when none would do. */
    Remedy remedy(Deviation.Cause cause) {
        Component component = cause.lack() == Deviation.Lack.UNKNOWN || cause.lack() == Deviation.Lack.UNKNOWN_ATTRIBUTE
                ? null
                : component(cause);
        String local = cause.name().getLocalPart();
        return switch (cause.lack()) {
            case MISSING ->
                component == null || component.particle() == null
                        ? null
                        : remedy(
                                component.on(),
                                "no " + local,
                                "occurs",
                                occurs(0, component.particle().most()));
            case REPEATED ->
                component == null || component.particle() == null
                        ? null
                        : remedy(
                                component.on(),
                                "more than one " + local,
                                "occurs",
                                occurs(component.particle().least(), Particle.UNBOUNDED));
            case NIL ->
                component == null ? null : remedy(component.declared(), local + " with xsi:nil", "nillable", "true");
            case NAMESPACE -> form(cause, component);
            case UNKNOWN -> added(cause);
            case VALUE -> component == null ? null : value(cause, component);
            case MISSING_ATTRIBUTE -> remedy(attribute(cause), "no attribute " + local, "occurs", "0..1");
            case UNKNOWN_ATTRIBUTE ->
                remedy(
                        typeOf(cause.around()),
                        "the attribute " + local,
                        "add",
                        "@" + cause.name(),
                        "type",
                        TEXT.toString());
            case ATTRIBUTE_VALUE -> attributeValue(cause);
        };
    }

    private static String occurs(int least, int most) {
        return least + ".." + (most == Particle.UNBOUNDED ? "*" : most);
    }

    private Remedy form(Deviation.Cause cause, Component component) {
        QName came = cause.came().name();
        boolean unqualified = came.getNamespaceURI().isEmpty();
        boolean local = component != null
                && component.particle() != null
                && component.particle().term() instanceof ElementDeclaration;
        return local && (unqualified || cause.name().getNamespaceURI().isEmpty())
                ? remedy(
                        component.on(),
                        came.getLocalPart() + " in " + (unqualified ? "no namespace" : "a namespace"),
                        "form",
                        unqualified ? "unqualified" : "qualified")
                : null;
    }

    private Remedy added(Deviation.Cause cause) {
        MessageElement came = cause.came();
        TypeModel around = checked.types().get(cause.around());
        if (around == null || around.text() != null) {
            return null;
        }
        ElementDeclaration global = vocabulary.element(came.name());
        QName type = global != null && global.type() != null && global.type().name() != null
                ? global.type().name()
                : came.children().isEmpty() ? TEXT : new QName(Xml.XSD, "anyType");
        String on = typeOf(cause.around());
        List<MessageElement> siblings = cause.around().children();
        MessageElement before = null;
        boolean repeated = false;
        for (MessageElement sibling : siblings) {
            repeated |= sibling != came && sibling.name().equals(came.name());
            if (sibling == came) {
                break;
            }
            before = sibling.name().equals(came.name()) ? before : sibling;
        }
        boolean own = before != null
                && around.definition() instanceof ComplexType complex
                && particle(complex, before.name()) != null;
        String often = repeated
                        || siblings.stream()
                                        .filter(one -> one.name().equals(came.name()))
                                        .count()
                                > 1
                ? "0..*"
                : "0..1";
        String reason = "the element " + came.name().getLocalPart();
        return own
                ? remedy(
                        on,
                        reason,
                        "add",
                        came.name().toString(),
                        "type",
                        type.toString(),
                        "occurs",
                        often,
                        "after",
                        before.name().toString())
                : remedy(on, reason, "add", came.name().toString(), "type", type.toString(), "occurs", often);
    }

    private Remedy value(Deviation.Cause cause, Component component) {
        TypeModel type = checked.types().get(cause.came());
        String reason = "'" + cause.text() + "' in " + cause.name().getLocalPart();
        Remedy wider = wider(type.text(), type.definition(), component.declared(), cause.text(), reason);
        if (wider != null) {
            return wider;
        }
        if (!(type.definition() instanceof SimpleType simple)) {
            return based(type.definition(), cause.text(), reason);
        }
        String enumeration = enumeration(simple, component.declared());
        return enumeration != null && !cause.text().contains("'")
                ? remedy(enumeration, reason, "add", "'" + cause.text() + "'")
                : remedy(component.declared(), reason, "type", widened(simple, cause.text()));
    }

    /** Of a type with attributes the text is what its simple base says. */
    private Remedy based(SchemaType definition, String text, String reason) {
        SchemaType type = definition;
        while (type instanceof ComplexType complex) {
            SchemaType base = vocabulary.schema().resolve(complex.base());
            if (base instanceof SimpleType simple && complex.name() != null) {
                return remedy(Subject.type(complex.name(), null).designator(), reason, "base", widened(simple, text));
            }
            type = base;
        }
        return null;
    }

    private Remedy attributeValue(Deviation.Cause cause) {
        TypeModel type = checked.types().get(cause.around());
        TypeModel.Attribute attribute = type.attributes().get(cause.name());
        String on = attribute(cause);
        if (attribute == null || on == null || !(attribute.type() instanceof SimpleType simple)) {
            return null;
        }
        String reason =
                "'" + cause.text() + "' in the attribute " + cause.name().getLocalPart();
        Remedy wider = wider(attribute.rule(), simple, on, cause.text(), reason);
        if (wider != null) {
            return wider;
        }
        String enumeration = enumeration(simple, on);
        return enumeration != null
                        && Designator.of(enumeration).isGlobal()
                        && !cause.text().contains("'")
                ? remedy(enumeration, reason, "add", "'" + cause.text() + "'")
                : remedy(on, reason, "type", widened(simple, cause.text()));
    }

    /**
     * The facet that refuses a value, as wide as it must be; null when it is no facet that does, or none of a type that rules can speak
     * of.
     */
    private Remedy wider(ValueRule rule, SchemaType type, String owner, String text, String reason) {
        ValueRule.Complaint complaint = rule == null ? null : rule.complaint(text, prefix -> null);
        FacetStep step = complaint == null ? null : vocabulary.step(complaint.rule());
        String on = step == null ? null : restriction(type, step, owner);
        if (on == null) {
            return null;
        }
        String value = rule.normalized(text);
        return step.map(new FacetStep.Cases<>(
                space -> null,
                matching -> remedy(on, reason, FacetKind.PATTERN.local(), NONE),
                values -> null,
                least -> bound(step.kind(), FacetKind.MIN_INCLUSIVE, value, on, reason),
                most -> bound(step.kind(), FacetKind.MAX_INCLUSIVE, value, on, reason),
                length -> longer(length, ToldLength.in(complaint.message()), on, reason),
                digits -> digits(digits, FacetStep.Digits.of(Lexical.parseDecimal(value)), on, reason)));
    }

    private static Remedy longer(FacetStep.Length length, int had, String on, String reason) {
        if (had < 0) {
            return null;
        }
        FacetKind kind = length.least() > 0 && had < length.least() ? FacetKind.MIN_LENGTH : FacetKind.MAX_LENGTH;
        return length.least() == length.most()
                ? remedy(on, reason, FacetKind.LENGTH.local(), NONE)
                : remedy(on, reason, kind.local(), String.valueOf(had));
    }

    private static Remedy digits(FacetStep.Digits digits, FacetStep.Digits had, String on, String reason) {
        return digits.fraction() < Integer.MAX_VALUE && had.fraction() > digits.fraction()
                ? remedy(on, reason, FacetKind.FRACTION_DIGITS.local(), String.valueOf(had.fraction()))
                : remedy(on, reason, FacetKind.TOTAL_DIGITS.local(), String.valueOf(had.total()));
    }

    /** The bound that lets a value pass; one that shuts it out by being it is replaced. */
    private static Remedy bound(FacetKind kind, FacetKind inclusive, String value, String on, String reason) {
        return kind == inclusive
                ? remedy(on, reason, inclusive.local(), value)
                : remedy(on, reason, kind.local(), NONE, inclusive.local(), value);
    }

    /** How rules speak of the type in a line of restrictions that has a facet, or null. */
    private String restriction(SchemaType type, FacetStep step, String owner) {
        for (SchemaType at = type; at != null; ) {
            List<Facet> facets = at.map(
                    complex -> complex.content() instanceof ComplexType.SimpleContent text ? text.facets() : List.of(),
                    SimpleType::facets);
            if (facets.stream()
                    .anyMatch(facet -> facet.place() != null && facet.place().equals(step.place()))) {
                return at.name() != null
                        ? Subject.type(at.name(), null).designator()
                        : at != type
                                ? null
                                : at instanceof SimpleType
                                        ? Subject.typeOf(owner, null).designator()
                                        : owner;
            }
            TypeReference base = at.base();
            at = base == null ? null : vocabulary.schema().resolve(base);
        }
        return null;
    }

    /** The type that names values, if a value is refused because it is none of them; null for other types. */
    private String enumeration(SimpleType type, String owner) {
        boolean enumerates = type.variety() == SimpleType.Variety.RESTRICTION
                && type.facets().stream().anyMatch(facet -> facet.kind() == FacetKind.ENUMERATION);
        return !enumerates
                ? null
                : type.name() != null
                        ? Subject.type(type.name(), null).designator()
                        : Subject.typeOf(owner, null).designator();
    }

    /** A type that has a value and all that a type has: a wider number, or any text. */
    private String widened(SimpleType type, String text) {
        SchemaType root = type;
        while (root instanceof SimpleType simple && simple.variety() == SimpleType.Variety.RESTRICTION) {
            root = vocabulary.schema().resolve(simple.base());
        }
        String builtin = root == null || root.name() == null ? "" : root.name().getLocalPart();
        BuiltIn known = BuiltIn.of(builtin);
        boolean integral = known != null && known.isWhole();
        String wider = integral && isOf("integer", text)
                ? "integer"
                : (integral || builtin.equals("decimal")) && isOf("decimal", text) ? "decimal" : "string";
        return new QName(Xml.XSD, wider).toString();
    }

    private boolean isOf(String builtin, String text) {
        return vocabulary.type(new QName(Xml.XSD, builtin)).text().complaint(text, prefix -> null) == null;
    }

    /**
     * A component in a contract.
     *
     * @param on how rules speak of it where it stands
     * @param declared how rules speak of its declaration
     * @param particle where it stands with its occurrence, or null for a global element
     */
    private record Component(String on, String declared, Particle particle) {}

    private Component component(Deviation.Cause cause) {
        if (cause.around() == null) {
            String global = Subject.element(cause.name(), null).designator();
            return vocabulary.element(cause.name()) == null ? null : new Component(global, global, null);
        }
        TypeModel model = checked.types().get(cause.around());
        String path = typeOf(cause.around());
        SchemaType type = model == null ? null : model.definition();
        while (path != null && type instanceof ComplexType complex) {
            Particle particle = particle(complex, cause.name());
            if (particle != null) {
                String on = Subject.element(path, cause.name(), null).designator();
                boolean global = particle.term() instanceof ElementReference;
                return new Component(
                        on, global ? Subject.element(cause.name(), null).designator() : on, particle);
            }
            type = complex.base() == null ? null : vocabulary.schema().resolve(complex.base());
            path = type == null || type.name() == null
                    ? null
                    : Subject.type(type.name(), null).designator();
        }
        return null;
    }

    private String attribute(Deviation.Cause cause) {
        TypeModel model = checked.types().get(cause.around());
        String path = typeOf(cause.around());
        SchemaType type = model == null ? null : model.definition();
        while (path != null && type instanceof ComplexType complex) {
            boolean own = complex.attributes().uses().stream()
                    .map(vocabulary.schema()::declaration)
                    .anyMatch(declared -> declared != null && declared.name().equals(cause.name()));
            SchemaType base =
                    complex.base() == null ? null : vocabulary.schema().resolve(complex.base());
            if (own || !complex.attributes().groups().isEmpty() || !(base instanceof ComplexType)) {
                return Subject.attribute(path, cause.name(), null).designator();
            }
            type = base;
            path = base.name() == null ? null : Subject.type(base.name(), null).designator();
        }
        return null;
    }

    /** How rules speak of the type of an element in a message, or null. */
    private String typeOf(MessageElement element) {
        TypeModel model = checked.types().get(element);
        // A simple type has room for neither attributes nor elements.
        if (model == null || !(model.definition() instanceof ComplexType)) {
            return null;
        }
        if (model.name() != null) {
            return Subject.type(model.name(), null).designator();
        }
        MessageElement parent = element.parent();
        if (parent == null || !checked.types().containsKey(parent)) {
            return Subject.element(element.name(), null).designator();
        }
        Component component =
                component(new Deviation.Cause(Deviation.Lack.UNKNOWN, parent, element.name(), element, null));
        return component == null ? null : component.declared();
    }

    /** The particle of a type's own content that is an element of a name, or null. */
    private Particle particle(ComplexType type, QName name) {
        return type.content() instanceof ComplexType.ElementContent content && content.particle() != null
                ? particle(content.particle(), name, new HashSet<>())
                : null;
    }

    private Particle particle(Particle particle, QName name, Set<QName> groups) {
        Term term = particle.term();
        if (term instanceof ElementDeclaration element) {
            return element.name().equals(name) ? particle : null;
        }
        if (term instanceof ElementReference reference) {
            return reference.name().equals(name) ? particle : null;
        }
        if (term instanceof GroupReference reference) {
            return groups.add(reference.name()) && vocabulary.schema().groups().containsKey(reference.name())
                    ? particle(
                            new Particle(
                                    vocabulary
                                            .schema()
                                            .groups()
                                            .get(reference.name())
                                            .group(),
                                    1,
                                    1),
                            name,
                            groups)
                    : null;
        }
        if (term instanceof ModelGroup group) {
            for (Particle part : group.particles()) {
                Particle found = particle(part, name, groups);
                if (found != null) {
                    return found;
                }
            }
        }
        return null;
    }
}
