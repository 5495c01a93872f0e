package org.protypos.api.type;

import java.util.List;
import java.util.function.Function;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.facet.FacetStep;

/** What the contract demands of the values of a simple type, from the built-in type on outwards. */
public sealed interface ValueFacets {
    /** Whether this demands more than the kind of value that a target gives the type can hold anyway. */
    boolean demandsMore();

    /** Whether a pattern is part of it, which is about texts: other facets are about what these mean. */
    default boolean isAboutText() {
        return map(new Cases<>(
                builtIn -> false,
                list -> list.item().isAboutText(),
                union -> union.members().stream().anyMatch(ValueFacets::isAboutText),
                narrowed -> narrowed.step().kind() == FacetKind.PATTERN
                        || narrowed.base().isAboutText(),
                fixed -> fixed.base().isAboutText()));
    }

    /** What becomes of it in the case that it is. */
    <R> R map(Cases<R> cases);

    /** What becomes of each of them: whoever knows them all is told by the compiler when there is one more. */
    record Cases<R>(
            Function<OfBuiltIn, R> builtIn,
            Function<ListOf, R> list,
            Function<UnionOf, R> union,
            Function<Narrowed, R> narrowed,
            Function<Fixed, R> fixed) {}

    /** A built-in type. */
    record OfBuiltIn(BuiltIn type) implements ValueFacets {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.builtIn().apply(this);
        }

        @Override
        public boolean demandsMore() {
            return switch (type) {
                case NON_NEGATIVE_INTEGER,
                        POSITIVE_INTEGER,
                        NON_POSITIVE_INTEGER,
                        NEGATIVE_INTEGER,
                        UNSIGNED_LONG,
                        UNSIGNED_INT,
                        UNSIGNED_SHORT,
                        UNSIGNED_BYTE,
                        LANGUAGE,
                        NAME,
                        NC_NAME,
                        NMTOKEN,
                        NMTOKENS,
                        ID,
                        IDREF,
                        IDREFS,
                        ENTITY,
                        ENTITIES -> true;
                case ANY_SIMPLE_TYPE,
                        STRING,
                        NORMALIZED_STRING,
                        TOKEN,
                        BOOLEAN,
                        DECIMAL,
                        INTEGER,
                        LONG,
                        INT,
                        SHORT,
                        BYTE,
                        FLOAT,
                        DOUBLE,
                        DATE_TIME,
                        DATE,
                        TIME,
                        DURATION,
                        G_YEAR,
                        G_YEAR_MONTH,
                        G_MONTH,
                        G_MONTH_DAY,
                        G_DAY,
                        BASE64_BINARY,
                        HEX_BINARY,
                        ANY_URI,
                        QNAME,
                        NOTATION -> false;
            };
        }
    }

    /** Items with white space between. */
    record ListOf(ValueFacets item) implements ValueFacets {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.list().apply(this);
        }

        @Override
        public boolean demandsMore() {
            return item.demandsMore();
        }
    }

    /** Values of any of some types. */
    record UnionOf(List<ValueFacets> members) implements ValueFacets {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.union().apply(this);
        }

        @Override
        public boolean demandsMore() {
            return true;
        }
    }

    /** Values of another type that pass one more demand. */
    record Narrowed(ValueFacets base, FacetStep step) implements ValueFacets {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.narrowed().apply(this);
        }

        @Override
        public boolean demandsMore() {
            return !(step instanceof FacetStep.WhiteSpace) || base.demandsMore();
        }
    }

    /** The one value of another type that a declaration fixes (XML Schema Part 1, sections 3.2.1 and 3.3.1). */
    record Fixed(ValueFacets base, String value) implements ValueFacets {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.fixed().apply(this);
        }

        @Override
        public boolean demandsMore() {
            return true;
        }
    }
}
