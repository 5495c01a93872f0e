package org.protypos.plan;

/** What a property, a parameter or a result holds, in no language's terms. */
public sealed interface ValueType {
    /** A single value. */
    record Scalar(ScalarKind kind) implements ValueType {}

    /** One of a set of named values. */
    record Enumerated(ApiEnum type) implements ValueType {}

    /** A structured value. */
    record Structured(ApiClass type) implements ValueType {}

    /** Values in one text, separated by white space. */
    record Items(ValueType item) implements ValueType {}

    /** Any content: {@code xs:anyType}. */
    record Anything() implements ValueType {}

    /** An element whose name is left open, with content of a type, or of any type when that is null. */
    record NamedElement(ApiClass content) implements ValueType {}

    /** An element whose name is left open, with content of some simple type. */
    record NamedSimple() implements ValueType {}
}
