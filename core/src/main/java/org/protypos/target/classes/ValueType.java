package org.protypos.target.classes;

import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.api.type.ScalarKind;

/** What a property, a parameter or a result holds, in a language that has classes. */
public sealed interface ValueType {
    /** What becomes of it in the case that it is. */
    <R> R map(Cases<R> cases);

    /** What is written: for a value of a type that the contract knows nothing of, what that stands for. */
    default ValueType written() {
        return this;
    }

    /** Whether values may travel beside the message instead of in it. */
    default boolean isBinary() {
        return false;
    }

    /** Whether values are qualified names. */
    default boolean isName() {
        return false;
    }

    /** Whether values can be written in several ways, of which only one is ours. */
    default boolean hasOddText() {
        return false;
    }

    /** Whether qualified names stand in the text of a type that is not made of them. */
    default boolean holdsNames() {
        ValueType written = written();
        return written instanceof Scalar scalar
                ? scalar.kind() == ScalarKind.NAMES
                : written instanceof Items items && items.item().holdsNames();
    }

    /** Whether its text, whatever stands in it, is read with the prefixes around it. */
    default boolean needsPrefixes() {
        return holdsNames() || written() instanceof Items items && items.item().isName();
    }

    /** What its text is made of: a built-in type, which a star follows for a list of it. */
    default String form() {
        if (!(written() instanceof Items items)) {
            return builtin();
        }
        ValueType item = items.item() instanceof Enumerated enumerated
                ? new Scalar(enumerated.type().base())
                : items.item();
        return item.builtin() + "*";
    }

    /** The built-in type that values are of when nothing says more. */
    default String builtin() {
        return (written() instanceof Scalar scalar ? scalar.kind() : ScalarKind.STRING)
                .builtin()
                .local();
    }

    /** What becomes of each of them: whoever knows them all is told by the compiler when there is one more. */
    record Cases<R>(
            Function<Scalar, R> scalar,
            Function<Enumerated, R> enumerated,
            Function<Converted, R> converted,
            Function<Carried, R> carried,
            Function<Items, R> items,
            Function<Structured, R> structured,
            Function<Anything, R> anything,
            Function<NamedElement, R> namedElement,
            Function<NamedSimple, R> namedSimple) {
        /** The cases of types whose values are text in a message, for who is never asked for the others. */
        public static <R> Cases<R> ofText(
                Function<Scalar, R> scalar,
                Function<Enumerated, R> enumerated,
                Function<Converted, R> converted,
                Function<Carried, R> carried,
                Function<Items, R> items) {
            return new Cases<>(
                    scalar,
                    enumerated,
                    converted,
                    carried,
                    items,
                    Cases::noText,
                    Cases::noText,
                    Cases::noText,
                    Cases::noText);
        }

        private static <R> R noText(ValueType type) {
            throw new IllegalArgumentException(type + " has no text");
        }
    }

    /** A single value. */
    record Scalar(ScalarKind kind) implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.scalar().apply(this);
        }

        @Override
        public boolean isBinary() {
            return kind == ScalarKind.BASE64 || kind == ScalarKind.ATTACHMENT;
        }

        @Override
        public boolean isName() {
            return kind == ScalarKind.QNAME;
        }

        @Override
        public boolean hasOddText() {
            return kind.isWrittenInWays();
        }
    }

    /** One of a set of named values. */
    record Enumerated(PlannedEnum type) implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.enumerated().apply(this);
        }
    }

    /** A value that is of somebody's own type, or a document, and stands in a message as text of a simple type. */
    sealed interface Shaped extends ValueType {
        /** What is written in its place. */
        Scalar wire();

        /** What it is, for a message about a text that is none. */
        String described();

        /** The kind of text that it is made of: with white space as the simple type wants it. */
        default ScalarKind source() {
            return wire().kind().isText() ? wire().kind() : ScalarKind.TOKEN;
        }

        @Override
        default ValueType written() {
            return wire();
        }

        @Override
        default boolean hasOddText() {
            return true;
        }
    }

    /**
     * A value of a type of the target that the contract knows nothing of.
     *
     * @param wire what is written in its place
     * @param type the target's type
     * @param parse what makes it of text, or null for the target's own way
     * @param print what makes text of it, or null likewise
     */
    record Converted(Scalar wire, String type, String parse, String print) implements Shaped {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.converted().apply(this);
        }

        @Override
        public String described() {
            return type;
        }
    }

    /**
     * A document in text.
     *
     * @param wire the text
     * @param element the root element of the document
     * @param content what that holds
     */
    record Carried(Scalar wire, QName element, PlannedClass content) implements Shaped {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.carried().apply(this);
        }

        @Override
        public String described() {
            return "document with <" + element.getLocalPart() + ">";
        }
    }

    /** Values in one text, separated by white space. */
    record Items(ValueType item) implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.items().apply(this);
        }

        @Override
        public ValueType written() {
            return new Items(item.written());
        }

        @Override
        public boolean hasOddText() {
            return item.hasOddText();
        }
    }

    /** A structured value. */
    record Structured(PlannedClass type) implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.structured().apply(this);
        }
    }

    /** Any content: {@code xs:anyType}. */
    record Anything() implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.anything().apply(this);
        }
    }

    /** An element whose name is left open, with content of a type, or of any type when that is null. */
    record NamedElement(PlannedClass content) implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.namedElement().apply(this);
        }
    }

    /** An element whose name is left open, with content of some simple type. */
    record NamedSimple() implements ValueType {
        @Override
        public <R> R map(Cases<R> cases) {
            return cases.namedSimple().apply(this);
        }
    }
}
