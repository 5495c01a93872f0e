package org.protypos.target.classes;

import javax.xml.namespace.QName;
import org.protypos.api.ScalarKind;

/** What a property, a parameter or a result holds, in a language that has classes. */
public sealed interface ValueType {
    /** A single value. */
    record Scalar(ScalarKind kind) implements ValueType {}

    /** One of a set of named values. */
    record Enumerated(PlannedEnum type) implements ValueType {}

    /**
     * A value of a type of the target that the contract knows nothing of.
     *
     * @param wire what is written in its place
     * @param type the target's type
     * @param parse what makes it of text, or null for the target's own way
     * @param print what makes text of it, or null likewise
     */
    record Converted(ValueType wire, String type, String parse, String print) implements ValueType {}

    /**
     * A document in text.
     *
     * @param wire the text
     * @param element the root element of the document
     * @param content what that holds
     */
    record Carried(ValueType wire, QName element, PlannedClass content) implements ValueType {}

    /** A structured value. */
    record Structured(PlannedClass type) implements ValueType {}

    /** Values in one text, separated by white space. */
    record Items(ValueType item) implements ValueType {}

    /** What is written: for a value of a type that the contract knows nothing of, what that stands for. */
    default ValueType written() {
        return this instanceof Converted converted
                ? converted.wire()
                : this instanceof Carried carried
                        ? carried.wire()
                        : this instanceof Items items ? new Items(items.item().written()) : this;
    }

    /** Whether values may travel beside the message instead of in it. */
    default boolean isBinary() {
        return this instanceof Scalar scalar
                && (scalar.kind() == ScalarKind.BASE64 || scalar.kind() == ScalarKind.ATTACHMENT);
    }

    /** Whether values are qualified names. */
    default boolean isName() {
        return this instanceof Scalar scalar && scalar.kind() == ScalarKind.QNAME;
    }

    /** Whether qualified names stand in the text of a type that is not made of them. */
    default boolean holdsNames() {
        ValueType written = written();
        return written instanceof Scalar scalar
                ? scalar.kind() == ScalarKind.NAMES
                : written instanceof Items items && items.item().holdsNames();
    }

    /** The built-in type of the items of a list; null when it is none. */
    default String itemBuiltin() {
        if (!(written() instanceof Items items)) {
            return null;
        }
        return (items.item() instanceof Enumerated enumerated
                        ? new Scalar(enumerated.type().base())
                        : items.item())
                .builtin();
    }

    /** The built-in type that values are of when nothing says more. */
    default String builtin() {
        return (written() instanceof Scalar scalar ? scalar.kind() : ScalarKind.STRING)
                .builtin()
                .local();
    }

    /** Whether values can be written in several ways, of which only one is ours. */
    default boolean hasOddText() {
        return this instanceof Items items
                ? items.item().hasOddText()
                : this instanceof Converted
                        || this instanceof Carried
                        || this instanceof Scalar scalar && scalar.kind().isWrittenInWays();
    }

    /** Any content: {@code xs:anyType}. */
    record Anything() implements ValueType {}

    /** An element whose name is left open, with content of a type, or of any type when that is null. */
    record NamedElement(PlannedClass content) implements ValueType {}

    /** An element whose name is left open, with content of some simple type. */
    record NamedSimple() implements ValueType {}
}
