package org.protypos.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.IdentityConstraint;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Substitutions;
import org.protypos.schema.TypeReference;

/** Turns the types of a contract into classes and enumerations, names first and members after. */
final class TypePlanner {
    static final Comparator<QName> BY_NAME =
            Comparator.comparing(QName::getNamespaceURI).thenComparing(QName::getLocalPart);

    private static final int LONGEST_FILE = 240;
    private static final int WIDEST_CHARACTER = 2;

    private final SchemaComponents schema;
    private final PackageNames packages;
    private final Naming naming;
    private final NameRules rules;
    private final SimpleTypePlanner simples;
    private final FacetPlanner facets;
    private final ShapePlanner shapes;
    private final Substitutions substitutions;
    private final boolean optimized;
    private final boolean encoded;
    private final Map<QName, ApiClass> classesByType = new LinkedHashMap<>();
    private final Map<QName, ApiEnum> enumsByType = new LinkedHashMap<>();
    private final Map<SchemaType, ApiClass> anonymousClasses = new IdentityHashMap<>();
    private final Map<SchemaType, ApiEnum> anonymousEnums = new IdentityHashMap<>();
    private final Map<ApiClass, ComplexType> unfilled = new IdentityHashMap<>();
    private final Map<SchemaType, String> remarks = new IdentityHashMap<>();
    private final List<ApiClass> topClasses = new ArrayList<>();
    private final List<ApiClass> existing = new ArrayList<>();
    private final List<ApiEnum> topEnums = new ArrayList<>();

    /**
     * Plans the types of a schema.
     *
     * @param optimized whether messages are optimized, so that any binary content may be large
     * @param encoded whether messages are in the SOAP encoding, so that values say their types
     */
    TypePlanner(
            SchemaComponents schema,
            PackageNames packages,
            Naming naming,
            ShapePlanner shapes,
            boolean optimized,
            boolean encoded) {
        this.shapes = shapes;
        this.optimized = optimized;
        this.encoded = encoded;
        this.schema = schema;
        this.substitutions = new Substitutions(schema);
        this.packages = packages;
        this.naming = naming;
        this.rules = naming.rules();
        this.simples = new SimpleTypePlanner(schema, naming, shapes);
        this.facets = new FacetPlanner(schema);
    }

    SchemaComponents schema() {
        return schema;
    }

    FacetPlanner facets() {
        return facets;
    }

    ShapePlanner shapes() {
        return shapes;
    }

    NameRules rules() {
        return rules;
    }

    /** A scope for the members of a class. */
    NameScope members(ApiClass type) {
        return apart(naming.scope(type.packageName() + "." + type.name(), rules.reservedMembers()), type);
    }

    /** A scope for the members of a class beside those that it inherits. */
    NameScope members(ApiClass type, ApiClass base) {
        return apart(base.memberNames.within(type.packageName() + "." + type.name()), type);
    }

    private NameScope apart(NameScope members, ApiClass type) {
        if (rules.membersShareNamesWithTypes()) {
            members.exclude(type.name());
        }
        return members;
    }

    /** Where the types that are nested in a class get their names. */
    private NameScope nestedIn(ApiClass place) {
        return rules.membersShareNamesWithTypes() ? place.memberNames : place.nestedNames();
    }

    List<ApiClass> topClasses() {
        return topClasses;
    }

    List<ApiEnum> topEnums() {
        return topEnums;
    }

    /** Plans all global types and elements. */
    void plan() {
        for (QName name : sorted(schema.types())) {
            nameType(name, schema.types().get(name));
        }
        for (QName name : sorted(schema.elements())) {
            nameElement(schema.elements().get(name));
        }
        for (ApiClass type : List.copyOf(topClasses)) {
            fill(type);
        }
        for (ApiClass type : List.copyOf(existing)) {
            fill(type);
        }
    }

    /** Says in each package who will want a name there. */
    void announce() {
        for (QName name : schema.types().keySet()) {
            SchemaType type = schema.types().get(name);
            Subject subject = Subject.type(name, type.place());
            if (!SchemaComponents.isOriginal(name)
                    && (type instanceof ComplexType || simples.isEnumeration((SimpleType) type))
                    && isGenerated(subject, type)) {
                packages.announce(subject, name);
            }
        }
        for (ElementDeclaration element : schema.elements().values()) {
            SchemaType anonymous =
                    element.type() == null ? null : element.type().anonymous();
            if (anonymous instanceof ComplexType
                    || anonymous instanceof SimpleType simple && simples.isEnumeration(simple)) {
                packages.announce(Subject.element(element.name(), element.place()), element.name());
            }
        }
    }

    /** Whether a type becomes a class or an enumeration of ours. */
    private boolean isGenerated(Subject subject, SchemaType type) {
        return !naming.isOmitted(subject)
                && shapes.existing(subject) == null
                && !(type instanceof SimpleType && shapes.isConverted(subject));
    }

    private static List<QName> sorted(Map<QName, ?> table) {
        return table.keySet().stream().sorted(BY_NAME).toList();
    }

    private void nameType(QName name, SchemaType type) {
        boolean original = SchemaComponents.isOriginal(name);
        String local = name.getLocalPart().replace('#', '-');
        Subject subject = Subject.type(name, type.place());
        boolean omitted = naming.isOmitted(subject) && !original;
        if (type instanceof ComplexType complex && !omitted) {
            ApiClass planned =
                    topClass(subject, name.getNamespaceURI(), local, "Type", original ? null : name, complex);
            classesByType.put(name, planned);
        } else if (type instanceof SimpleType simple
                && simples.isEnumeration(simple)
                && !omitted
                && !shapes.isConverted(subject)) {
            enumsByType.put(name, topEnum(subject, name.getNamespaceURI(), local, "Type", name, simple));
        }
    }

    private void nameElement(ElementDeclaration element) {
        SchemaType anonymous = element.type() == null ? null : element.type().anonymous();
        QName name = element.name();
        if (anonymous instanceof ComplexType complex) {
            remarks.put(complex, withConstraints(element.documentation(), element));
            Subject subject = Subject.element(name, element.place());
            anonymousClasses.put(
                    complex, topClass(subject, name.getNamespaceURI(), name.getLocalPart(), "Element", null, complex));
        } else if (anonymous instanceof SimpleType simple && simples.isEnumeration(simple)) {
            Subject subject = Subject.element(name, element.place());
            anonymousEnums.put(
                    simple, topEnum(subject, name.getNamespaceURI(), name.getLocalPart(), "Element", null, simple));
        }
    }

    /** What the contract says about an element, with what its identity constraints demand. */
    static String withConstraints(String documentation, ElementDeclaration element) {
        StringBuilder text = new StringBuilder(documentation);
        for (IdentityConstraint constraint : element.constraints()) {
            text.append(text.isEmpty() ? "" : "\n\n").append(constraint.inWords());
        }
        return text.toString();
    }

    /** What the contract says about a type; for the anonymous one of a global element also about that. */
    String documentation(ComplexType type) {
        String about = remarks.getOrDefault(type, "");
        return about.isEmpty() || type.documentation().isEmpty()
                ? about + type.documentation()
                : about + "\n\n" + type.documentation();
    }

    private ApiClass topClass(
            Subject subject, String namespace, String local, String suffix, QName xmlType, ComplexType complex) {
        String full = shapes.existing(subject);
        String packageName = full == null ? packages.of(namespace) : full.substring(0, full.lastIndexOf('.'));
        String name = full == null
                ? packages.scope(packageName).claim(subject, rules.typeName(local), suffix)
                : full.substring(full.lastIndexOf('.') + 1);
        ApiClass planned =
                new ApiClass(packageName, name, null, xmlType, subject.designator(), hosted(packageName, name));
        planned.setInterfaces(shapes.interfaces(subject));
        unfilled.put(planned, complex);
        (full == null ? topClasses : existing).add(planned);
        return planned;
    }

    /** The names of what is nested in a class, of which its own is none. */
    private NameScope hosted(String packageName, String name) {
        NameScope nested = naming.scope(packageName + "." + name, rules.reservedTypes());
        nested.make(name, "");
        return nested;
    }

    /** A class for the parts of a message, which has no type in the contract. */
    ApiClass partsClass(String packageName, String wanted) {
        String name = packages.scope(packageName).make(wanted, "");
        ApiClass planned = new ApiClass(packageName, name, null, null, name, hosted(packageName, name));
        planned.describe(null, false, false, "");
        planned.memberNames = members(planned);
        topClasses.add(planned);
        return planned;
    }

    private ApiEnum topEnum(
            Subject subject, String namespace, String local, String suffix, QName xmlType, SimpleType simple) {
        String full = shapes.existing(subject);
        String packageName = full == null ? packages.of(namespace) : full.substring(0, full.lastIndexOf('.'));
        String name = full == null
                ? packages.scope(packageName).claim(subject, rules.typeName(local), suffix)
                : full.substring(full.lastIndexOf('.') + 1);
        ApiEnum planned = simples.enumeration(simple, packageName, name, null, xmlType, subject);
        if (full == null) {
            topEnums.add(planned);
        }
        return planned;
    }

    /** Gives a class its members, its base first. */
    private ApiClass fill(ApiClass type) {
        ComplexType complex = unfilled.remove(type);
        if (complex != null) {
            new ClassPlanner(this, type).fill(complex);
        }
        return type;
    }

    /** The class of the base of a type, filled; null when the base is {@code xs:anyType} or simple. */
    ApiClass base(ComplexType type) {
        SchemaType base = schema.resolve(type.base());
        if (base instanceof ComplexType left && isLeftOut(left)) {
            shapes.needed(Subject.type(left.name(), left.place()), type);
            return null;
        }
        return base instanceof ComplexType complex && !type.base().name().equals(SchemaComponents.ANY_TYPE)
                ? fill(classesByType.get(type.base().name()))
                : null;
    }

    /** Keeps the name of a simple type for messages that say the types of their values. */
    void nameType(ApiClass owner, Property property, TypeReference reference) {
        ValueType written = property.type().written();
        boolean simple = written instanceof ValueType.Scalar
                || written instanceof ValueType.Enumerated
                || written instanceof ValueType.Items;
        if (encoded && simple && reference.name() != null) {
            owner.setTypeName(property, reference.name());
        }
    }

    /**
     * What an element holds in its place, as it is shaped: binary content that the contract gives a media type, or all of it when messages
     * are optimized, need not fit into memory (Describing Media Content of Binary Data in XML, section 3.2).
     *
     * @param owner whom the type belongs to if it is anonymous
     */
    ValueType elementValue(ElementDeclaration element, Subject subject, Owner owner) {
        return withAttachments(shaped(subject, schema.typeOf(element), owner), element.expectedContentTypes() != null);
    }

    /** The type, or an attachment in place of plain binary content if there is one to be. */
    ValueType withAttachments(ValueType type, boolean typed) {
        boolean binary = type instanceof ValueType.Scalar scalar && scalar.kind() == ScalarKind.BASE64;
        return binary && (typed || optimized) ? new ValueType.Scalar(ScalarKind.ATTACHMENT) : type;
    }

    /**
     * What a reference to a type holds.
     *
     * @param owner whom the type belongs to if it is anonymous
     */
    ValueType value(TypeReference reference, Owner owner) {
        if (SchemaComponents.ANY_TYPE.equals(reference.name())) {
            return new ValueType.Anything();
        }
        SchemaType type = schema.resolve(reference);
        if (type instanceof ComplexType complex) {
            return isLeftOut(complex)
                    ? new ValueType.Anything()
                    : new ValueType.Structured(
                            complex.name() != null
                                    ? classesByType.get(complex.name())
                                    : anonymousClass(complex, owner));
        }
        return simple((SimpleType) type, type.name() == null ? owner : Owner.global(type.name()));
    }

    private boolean isLeftOut(ComplexType type) {
        return type.name() != null
                && !SchemaComponents.isOriginal(type.name())
                && naming.isOmitted(Subject.type(type.name(), type.place()));
    }

    /**
     * What a member holds, as it is shaped.
     *
     * @param subject the member
     * @param owner whom the type belongs to if it is anonymous
     */
    ValueType shaped(Subject subject, TypeReference reference, Owner owner) {
        return shapes.isConverted(subject)
                ? shapes.value(subject, plain(reference, owner), this)
                : value(reference, owner);
    }

    /** What a reference to a type holds when no class or enumeration is to be made for it. */
    private ValueType plain(TypeReference reference, Owner owner) {
        return schema.resolve(reference) instanceof SimpleType simple && simples.isEnumeration(simple)
                ? simples.text(simple)
                : value(reference, owner);
    }

    /** What a global element holds, or null when there is no such element. */
    ValueType elementContent(QName name) {
        ElementDeclaration element = schema.elements().get(name);
        return element == null ? null : value(schema.typeOf(element), Owner.global(name));
    }

    private ApiClass anonymousClass(ComplexType complex, Owner owner) {
        ApiClass known = anonymousClasses.get(complex);
        if (known == null) {
            known = nestedClass(
                    owner.host(), subject(owner, complex.place()), owner.name().getLocalPart());
            anonymousClasses.put(complex, known);
            unfilled.put(known, complex);
            fill(known);
        }
        return known;
    }

    private static Subject subject(Owner owner, Place place) {
        return Subject.typeOf(owner.host().designator() + "/" + owner.name(), place);
    }

    /** A class nested in another, for a type that is defined there. */
    private ApiClass nestedClass(ApiClass host, Subject subject, String owner) {
        String wanted = rules.nestedTypeName(owner);
        ApiClass place = room(host, wanted);
        String name = nestedIn(place).claim(subject, wanted, "");
        return nested(place, name, subject.designator().replaceFirst("/~0$", ""));
    }

    /** A class nested in another, for a group that repeats; rules speak of what is in it as of the members of the type around. */
    ApiClass groupClass(ApiClass host, Subject subject, String owner) {
        String wanted = rules.nestedTypeName(owner);
        ApiClass place = room(host, wanted);
        return nested(place, nestedIn(place).make(subject, wanted), host.designator());
    }

    private static ApiClass nested(ApiClass place, String name, String designator) {
        NameScope around = place.nestedNames();
        ApiClass planned = new ApiClass(
                place.packageName(), name, place, null, designator, around.within(place.packageName() + "." + name));
        place.addNested(planned);
        return planned;
    }

    /** A nested class is a file that carries the names of all its hosts: deep ones move out to the outermost. */
    private static ApiClass room(ApiClass host, String name) {
        int length = name.length();
        ApiClass outermost = host;
        for (ApiClass around = host; around != null; around = around.host()) {
            length += around.name().length() + 1;
            outermost = around;
        }
        return length * WIDEST_CHARACTER <= LONGEST_FILE || host.host() == null ? host : outermost;
    }

    /** What may stand for what. */
    Substitutions substitutions() {
        return substitutions;
    }

    private ValueType simple(SimpleType type, Owner owner) {
        if (type.name() == null) {
            return unshaped(type, owner);
        }
        Subject subject = Subject.type(type.name(), type.place());
        if (simples.isEnumeration(type) && (shapes.isConverted(subject) || naming.isOmitted(subject))) {
            return shapes.value(subject, simples.text(type), this);
        }
        return shapes.value(subject, unshaped(type, owner), this);
    }

    private ValueType unshaped(SimpleType type, Owner owner) {
        if (simples.isEnumeration(type)) {
            ApiEnum known = type.name() != null ? enumsByType.get(type.name()) : anonymousEnums.get(type);
            if (known == null) {
                known = anonymousEnum(type, owner);
                anonymousEnums.put(type, known);
            }
            return new ValueType.Enumerated(known);
        }
        return switch (type.variety()) {
            case BUILT_IN -> simples.builtin(type);
            case LIST -> new ValueType.Items(value(type.base(), owner));
            case UNION -> new ValueType.Scalar(simples.united(type));
            case RESTRICTION -> simples.narrowed(type, value(type.base(), owner));
        };
    }

    private ApiEnum anonymousEnum(SimpleType type, Owner owner) {
        ApiClass host = owner.host();
        if (host == null) {
            QName name = owner.name();
            return topEnum(
                    Subject.typeOf(Subject.element(name, null).designator(), type.place()),
                    name.getNamespaceURI(),
                    name.getLocalPart(),
                    "Item",
                    null,
                    type);
        }
        String wanted = rules.nestedTypeName(owner.name().getLocalPart());
        ApiClass place = room(host, wanted);
        Subject subject = subject(owner, type.place());
        String name = nestedIn(place).claim(subject, wanted, "");
        ApiEnum nested = simples.enumeration(type, place.packageName(), name, place, null, subject);
        place.addNested(nested);
        return nested;
    }

    /** What a named type became. */
    Map<QName, ValueType> namedTypes() {
        Map<QName, ValueType> types = new LinkedHashMap<>();
        for (QName name : sorted(schema.types())) {
            if (!SchemaComponents.isOriginal(name) && !naming.isOmitted(Subject.type(name, null))) {
                types.put(name, value(TypeReference.to(name, null), Owner.global(name)));
            }
        }
        return types;
    }

    /** What each global element holds; abstract elements hold nothing. */
    Map<QName, ValueType> globalElements() {
        Map<QName, ValueType> elements = new LinkedHashMap<>();
        for (QName name : sorted(schema.elements())) {
            ElementDeclaration element = schema.elements().get(name);
            if (!element.isAbstract()) {
                elements.put(name, value(schema.typeOf(element), Owner.global(name)));
            }
        }
        return elements;
    }
}
