package org.protypos.schema;

import java.util.List;
import java.util.Set;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.facet.Facet;
import org.protypos.source.Xml;

/**
 * A complex type definition (XML Schema Part 1, section 3.4).
 *
 * @param name its name, or null
 * @param isAbstract whether only types derived from it may be used
 * @param mixed whether text may stand between its elements
 * @param derivation how it is derived from its base
 * @param base its base type; {@code xs:anyType} when none is named
 * @param content what stands between the tags
 * @param attributes its attributes
 * @param block the kinds of derivation that may not stand in for it
 */
public record ComplexType(
        QName name,
        boolean isAbstract,
        boolean mixed,
        Derivation derivation,
        TypeReference base,
        Content content,
        Attributes attributes,
        Set<String> block,
        String documentation,
        Place place)
        implements SchemaType {
    @Override
    public <R> R map(Function<ComplexType, R> complex, Function<SimpleType, R> simple) {
        return complex.apply(this);
    }

    private static final QName ENCODED_ARRAY = new QName(Xml.SOAP_ENCODING, "Array");

    /** Whether it is an array of the SOAP encoding (SOAP 1.1, section 5.4.2): it holds items under any name. */
    public boolean isEncodedArray() {
        return derivation == Derivation.RESTRICTION && ENCODED_ARRAY.equals(base.name());
    }

    /** How a type is derived from its base (XML Schema Part 1, section 2.2.1.1). */
    public enum Derivation {
        /** By adding to it. */
        EXTENSION,
        /** By narrowing it. */
        RESTRICTION
    }

    /** The model of its elements; null when it has none, or text of a simple type. */
    public Particle particle() {
        return content instanceof ElementContent elements ? elements.particle() : null;
    }

    /** What stands between the tags. */
    public sealed interface Content {}

    /**
     * Elements, or nothing.
     *
     * @param particle the content model, or null when it is empty
     */
    public record ElementContent(Particle particle) implements Content {}

    /**
     * Text of a simple type.
     *
     * @param type the type that a restriction narrows the text to, or null
     * @param facets the facets that a restriction adds
     */
    public record SimpleContent(TypeReference type, List<Facet> facets) implements Content {}
}
