package org.protypos.api.type;

import org.protypos.naming.Subject;

/** What a member, a parameter or a result holds. */
public sealed interface ApiValue {
    /** A single value. */
    record Scalar(ScalarKind kind) implements ApiValue {}

    /** One of a set of named values. */
    record Enumerated(EnumeratedType type) implements ApiValue {}

    /** A structured value. */
    record Structured(StructuredType type) implements ApiValue {}

    /** Values in one text, separated by white space. */
    record Items(ApiValue item) implements ApiValue {}

    /**
     * A value of a simple type that has a name: it holds what that says, and somebody may want all of the type's values to be
     * something else.
     *
     * @param type the type as rules speak of it
     * @param value what the type says
     */
    record OfType(Subject type, ApiValue value) implements ApiValue {}

    /**
     * A value of a restriction that says nothing but how white space is treated.
     *
     * @param base what is restricted
     * @param text the kind of text that it is in place of another
     */
    record Respaced(ApiValue base, ScalarKind text) implements ApiValue {}

    /** Any content: {@code xs:anyType}. */
    record Anything() implements ApiValue {}

    /** An element whose name is left open, with content of a type, or of any type when that is null. */
    record NamedElement(StructuredType content) implements ApiValue {}

    /** An element whose name is left open, with content of some simple type. */
    record NamedSimple() implements ApiValue {}

    /** What it is, whatever its type is called. */
    default ApiValue plain() {
        if (this instanceof OfType named) {
            return named.value.plain();
        }
        if (this instanceof Respaced respaced) {
            ApiValue base = respaced.base.plain();
            return base instanceof Scalar scalar && scalar.kind.isText() ? new Scalar(respaced.text) : base;
        }
        return this instanceof Items items ? new Items(items.item.plain()) : this;
    }

    /** Whether it is one value of a simple type, or several in one text. */
    default boolean isSimple() {
        ApiValue plain = plain();
        return plain instanceof Scalar || plain instanceof Enumerated || plain instanceof Items;
    }

    /** The structured type of its values, or null. */
    default StructuredType structure() {
        return this instanceof Structured structured ? structured.type : null;
    }
}
