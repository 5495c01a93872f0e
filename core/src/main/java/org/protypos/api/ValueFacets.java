package org.protypos.api;

import java.util.List;
import org.protypos.schema.FacetStep;

/** What the contract demands of the values of a simple type, from the built-in type on outwards. */
public sealed interface ValueFacets {
    /** Whether this demands more than the kind of value that a target gives the type can hold anyway. */
    boolean demandsMore();

    /** A built-in type. */
    record Builtin(String name) implements ValueFacets {
        @Override
        public boolean demandsMore() {
            return switch (name) {
                case "nonNegativeInteger",
                        "positiveInteger",
                        "nonPositiveInteger",
                        "negativeInteger",
                        "unsignedLong",
                        "unsignedInt",
                        "unsignedShort",
                        "unsignedByte",
                        "language",
                        "Name",
                        "NCName",
                        "NMTOKEN",
                        "NMTOKENS",
                        "ID",
                        "IDREF",
                        "IDREFS",
                        "ENTITY",
                        "ENTITIES" -> true;
                default -> false;
            };
        }
    }

    /** Items with white space between. */
    record ListOf(ValueFacets item) implements ValueFacets {
        @Override
        public boolean demandsMore() {
            return item.demandsMore();
        }
    }

    /** Values of any of some types. */
    record UnionOf(List<ValueFacets> members) implements ValueFacets {
        @Override
        public boolean demandsMore() {
            return true;
        }
    }

    /** Values of another type that pass one more demand. */
    record Narrowed(ValueFacets base, FacetStep step) implements ValueFacets {
        @Override
        public boolean demandsMore() {
            return !(step instanceof FacetStep.WhiteSpace) || base.demandsMore();
        }
    }
}
