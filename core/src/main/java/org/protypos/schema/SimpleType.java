package org.protypos.schema;

import java.util.List;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.facet.Facet;

/**
 * A simple type definition (XML Schema Part 2, section 4.1).
 *
 * @param name its name, or null
 * @param variety how it comes about
 * @param base the type restricted, or the item type of a list; null for a union and for a built-in type
 * @param members the member types of a union
 * @param facets the facets of a restriction
 */
public record SimpleType(
        QName name,
        Variety variety,
        TypeReference base,
        List<TypeReference> members,
        List<Facet> facets,
        String documentation,
        Place place)
        implements SchemaType {
    @Override
    public <R> R map(Function<ComplexType, R> complex, Function<SimpleType, R> simple) {
        return simple.apply(this);
    }

    /** Which built-in type it is; only one that is built in is any. */
    public BuiltIn builtIn() {
        return BuiltIn.of(name.getLocalPart());
    }

    /** How a simple type comes about. */
    public enum Variety {
        /** It is built in (XML Schema Part 2, section 3). */
        BUILT_IN,
        /** It restricts another. */
        RESTRICTION,
        /** It is a list of items. */
        LIST,
        /** It is a union of others. */
        UNION
    }
}
