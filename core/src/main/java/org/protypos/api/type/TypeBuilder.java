package org.protypos.api.type;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Renaming;
import org.protypos.naming.Subject;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Substitutions;
import org.protypos.schema.TypeReference;

/** Builds the types of the API from those of a schema: all are there first, and get what they hold after. */
public final class TypeBuilder {
    /** The order of names: by namespace, then by what stands after it. */
    public static final Comparator<QName> BY_NAME = TypeBuilder::compare;

    private final SchemaComponents schema;
    private final Renaming renaming;
    private final Remarks remarks;
    private final Findings findings;
    private final SimpleTypeBuilder simples;
    private final FacetBuilder facets;
    private final Substitutions substitutions;
    private final boolean optimized;
    private final boolean encoded;
    private final Map<QName, StructuredType> structures = new LinkedHashMap<>();
    private final Map<QName, EnumeratedType> enumerations = new LinkedHashMap<>();
    private final Map<SchemaType, StructuredType> anonymousStructures = new IdentityHashMap<>();
    private final Map<SchemaType, EnumeratedType> anonymousEnumerations = new IdentityHashMap<>();
    private final Map<StructuredType, ComplexType> unfilled = new IdentityHashMap<>();
    private final Map<SchemaType, Subject> subjects = new IdentityHashMap<>();
    private final Map<SimpleType, ApiValue> simpleValues = new IdentityHashMap<>();
    private final Map<SchemaType, String> aboutElements = new IdentityHashMap<>();
    private final List<NamedType> globalTypes = new ArrayList<>();

    /**
     * Builds the types of a schema.
     *
     * @param schema the types and elements of the contract
     * @param renaming what is to be left out
     * @param remarks what is said about components
     * @param findings takes what is to be said about how they become types
     * @param optimized whether messages are optimized, so that any binary content may be large
     * @param encoded whether messages are in the SOAP encoding, so that values say their types
     */
    public TypeBuilder(
            SchemaComponents schema,
            Renaming renaming,
            Remarks remarks,
            Findings findings,
            boolean optimized,
            boolean encoded) {
        this.schema = schema;
        this.renaming = renaming;
        this.remarks = remarks;
        this.findings = findings;
        this.optimized = optimized;
        this.encoded = encoded;
        this.substitutions = new Substitutions(schema);
        this.simples = new SimpleTypeBuilder(schema, remarks);
        this.facets = new FacetBuilder(schema);
    }

    SchemaComponents schema() {
        return schema;
    }

    FacetBuilder facets() {
        return facets;
    }

    /** What is said about components. */
    public Remarks remarks() {
        return remarks;
    }

    /** What may stand for what. */
    Substitutions substitutions() {
        return substitutions;
    }

    /** The types of global types and then of elements, in the order of their names. */
    public List<NamedType> globalTypes() {
        return List.copyOf(globalTypes);
    }

    /** Builds all global types and elements. */
    public void build() {
        for (QName name : sorted(schema.types())) {
            announceType(name, schema.types().get(name));
        }
        for (QName name : sorted(schema.elements())) {
            announceElement(schema.elements().get(name));
        }
        for (NamedType type : globalTypes) {
            if (type instanceof StructuredType structured) {
                fill(structured);
            }
        }
    }

    private static int compare(QName one, QName other) {
        int order = one.getNamespaceURI().compareTo(other.getNamespaceURI());
        return order != 0 ? order : one.getLocalPart().compareTo(other.getLocalPart());
    }

    private static List<QName> sorted(Map<QName, ?> table) {
        return table.keySet().stream().sorted(BY_NAME).toList();
    }

    private void announceType(QName name, SchemaType type) {
        if (isLeftOut(type)) {
            return;
        }
        Subject subject = subject(type);
        if (type instanceof ComplexType complex) {
            structures.put(name, structure(Origin.TYPE, subject, name, complex));
        } else if (type instanceof SimpleType simple && simples.isEnumeration(simple)) {
            EnumeratedType enumeration = simples.enumeration(simple, Origin.TYPE, subject, null, name);
            enumerations.put(name, enumeration);
            globalTypes.add(enumeration);
        }
    }

    private void announceElement(ElementDeclaration element) {
        SchemaType anonymous = element.type() == null ? null : element.type().anonymous();
        QName name = element.name();
        Subject subject = Subject.element(name, element.place());
        if (anonymous instanceof ComplexType complex) {
            aboutElements.put(complex, Remarks.withConstraints(element.documentation(), element));
            anonymousStructures.put(complex, structure(Origin.ELEMENT, subject, name, complex));
        } else if (anonymous instanceof SimpleType simple && simples.isEnumeration(simple)) {
            EnumeratedType enumeration = simples.enumeration(simple, Origin.ELEMENT, subject, null, name);
            anonymousEnumerations.put(simple, enumeration);
            globalTypes.add(enumeration);
        }
    }

    /** What the contract says about a type; for the anonymous one of a global element also about that. */
    String documentation(ComplexType type) {
        return Remarks.joined(aboutElements.getOrDefault(type, ""), type.documentation());
    }

    private StructuredType structure(Origin origin, Subject subject, QName name, ComplexType complex) {
        StructuredType structure = new StructuredType(origin, subject, null, name);
        unfilled.put(structure, complex);
        globalTypes.add(structure);
        return structure;
    }

    /** Gives a type what it holds, its base first. */
    private StructuredType fill(StructuredType type) {
        ComplexType complex = unfilled.remove(type);
        if (complex != null) {
            new StructureBuilder(this, type).fill(complex);
        }
        return type;
    }

    /** The base of a type, filled; null when that is {@code xs:anyType} or simple. */
    StructuredType base(ComplexType type) {
        SchemaType base = schema.resolve(type.base());
        if (base instanceof ComplexType left && isLeftOut(left)) {
            findings.error(
                    "type-needed",
                    type.place(),
                    "this type is derived from " + renaming.shown(subject(left)) + ", which a rule leaves out",
                    "leave this type out too, or neither");
            return null;
        }
        return base instanceof ComplexType && !type.base().name().equals(SchemaComponents.ANY_TYPE)
                ? fill(structures.get(type.base().name()))
                : null;
    }

    /** The name of a simple type where messages say the types of their values; null elsewhere. */
    QName typeName(ApiValue value, TypeReference reference) {
        return encoded && value.isSimple() ? reference.name() : null;
    }

    /**
     * What an element holds in its place: binary content that the contract gives a media type, or all of it when messages are optimized,
     * need not fit into memory (Describing Media Content of Binary Data in XML, section 3.2).
     *
     * @param scope whom the type belongs to if it is anonymous
     */
    public ApiValue elementValue(ElementDeclaration element, Scope scope) {
        return withAttachments(value(schema.typeOf(element), scope), element.expectedContentTypes() != null);
    }

    /** The value, or an attachment in place of plain binary content if there is one to be. */
    ApiValue withAttachments(ApiValue value, boolean typed) {
        boolean binary = value.plain() instanceof ApiValue.Scalar scalar && scalar.kind() == ScalarKind.BASE64;
        return binary && (typed || optimized) ? new ApiValue.Scalar(ScalarKind.ATTACHMENT) : value;
    }

    /**
     * What a reference to a type holds.
     *
     * @param scope whom the type belongs to if it is anonymous
     */
    public ApiValue value(TypeReference reference, Scope scope) {
        if (SchemaComponents.ANY_TYPE.equals(reference.name())) {
            return new ApiValue.Anything();
        }
        SchemaType type = schema.resolve(reference);
        return type.map(
                complex -> structured(complex, scope),
                simple -> simple(simple, simple.name() == null ? scope : Scope.global(simple.name())));
    }

    private ApiValue structured(ComplexType complex, Scope scope) {
        return isLeftOut(complex)
                ? new ApiValue.Anything()
                : new ApiValue.Structured(
                        complex.name() != null ? structures.get(complex.name()) : anonymous(complex, scope));
    }

    private boolean isLeftOut(SchemaType type) {
        return type.name() != null && !SchemaComponents.isOriginal(type.name()) && renaming.isOmitted(subject(type));
    }

    /** A named type as rules speak of it. */
    private Subject subject(SchemaType type) {
        return subjects.computeIfAbsent(type, any -> Subject.type(type.name(), type.place()));
    }

    private StructuredType anonymous(ComplexType complex, Scope scope) {
        StructuredType known = anonymousStructures.get(complex);
        if (known == null) {
            known = new StructuredType(Origin.MEMBER, subject(scope, complex.place()), scope.host(), scope.name());
            anonymousStructures.put(complex, known);
            unfilled.put(known, complex);
            fill(known);
        }
        return known;
    }

    private static Subject subject(Scope scope, Place place) {
        return Subject.typeOf(scope.host().designator() + "/" + scope.name(), place);
    }

    private ApiValue simple(SimpleType type, Scope scope) {
        if (type.name() == null) {
            return simples.isEnumeration(type)
                    ? new ApiValue.Enumerated(anonymousEnumeration(type, scope))
                    : unnamed(type, scope);
        }
        ApiValue known = simpleValues.get(type);
        if (known == null) {
            known = new ApiValue.OfType(subject(type), named(type, scope));
            simpleValues.put(type, known);
        }
        return known;
    }

    private ApiValue named(SimpleType type, Scope scope) {
        if (!simples.isEnumeration(type)) {
            return unnamed(type, scope);
        }
        return isLeftOut(type) ? simples.text(type) : new ApiValue.Enumerated(enumerations.get(type.name()));
    }

    /** What a simple type is made of, whatever its values are called. */
    private ApiValue unnamed(SimpleType type, Scope scope) {
        return switch (type.variety()) {
            case BUILT_IN -> SimpleTypeBuilder.builtin(type);
            case LIST -> new ApiValue.Items(value(type.base(), scope));
            case UNION -> new ApiValue.Scalar(simples.united(type));
            case RESTRICTION -> SimpleTypeBuilder.narrowed(type, value(type.base(), scope));
        };
    }

    private EnumeratedType anonymousEnumeration(SimpleType type, Scope scope) {
        EnumeratedType known = anonymousEnumerations.get(type);
        if (known == null) {
            QName name = scope.name();
            known = scope.host() != null
                    ? simples.enumeration(type, Origin.MEMBER, subject(scope, type.place()), scope.host(), name)
                    : simples.enumeration(
                            type,
                            Origin.ITEM,
                            Subject.typeOf(Subject.element(name, null).designator(), type.place()),
                            null,
                            name);
            anonymousEnumerations.put(type, known);
        }
        return known;
    }

    /** What each named type holds. */
    public Map<QName, ApiValue> namedTypes() {
        Map<QName, ApiValue> types = new LinkedHashMap<>();
        for (QName name : sorted(schema.types())) {
            if (!SchemaComponents.isOriginal(name) && !isLeftOut(schema.types().get(name))) {
                types.put(name, value(TypeReference.to(name, null), Scope.global(name)));
            }
        }
        return types;
    }

    /** The global elements. */
    public Map<QName, ApiElement> globalElements() {
        Map<QName, ApiElement> elements = new LinkedHashMap<>();
        for (QName name : sorted(schema.elements())) {
            ElementDeclaration element = schema.elements().get(name);
            elements.put(name, ApiElement.of(element, value(schema.typeOf(element), Scope.global(name))));
        }
        return elements;
    }
}
