package org.protypos.runtime.xml;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.namespace.QName;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.check.Violation;

/**
 * A value with XML content: the Java side of {@code xs:anyType}, and so the root of every generated type.
 *
 * <p>Subclasses say how their own attributes and content are read and written. What they inherit comes first, as
 * XML Schema Part 1, section 3.4.2 appends the content of an extension to that of its base.
 */
public abstract class XmlObject {
    private boolean typeStated;
    private boolean nil;
    private Notes notes;

    /** For generated types and for the values of this package. */
    protected XmlObject() {}

    /** The schema type this class stands for, or null where the type has no name. */
    protected QName xmlType() {
        return null;
    }

    /** Takes the declared attributes off the start tag at which the input stands. */
    protected void readAttributes(XmlInput in) {}

    /** Reads all between the start tag at which the input stands and its end tag, and moves past that. */
    protected void readBody(XmlInput in) {
        in.enter();
        readElements(in);
        in.leave();
    }

    /** Reads the child elements in the order the schema gives. */
    protected void readElements(XmlInput in) {}

    /** Adds the attributes to the start tag just opened. */
    protected void writeAttributes(XmlOutput out) {}

    /** Writes the content between start tag and end tag. */
    protected void writeBody(XmlOutput out) {
        writeElements(out);
    }

    /** Writes the child elements in the order the schema gives. */
    protected void writeElements(XmlOutput out) {}

    /**
     * Gives an empty value for an element that the type itself declares in its mixed content.
     *
     * @return a value to be filled, or null when the type declares no such element or its type is abstract
     */
    protected XmlObject inner(String namespace, String name) {
        return null;
    }

    /** Prefixes that values inside use, with their namespaces: they are declared on the element. */
    Map<String, String> localPrefixes() {
        return notes == null ? Map.of() : notes.prefixes();
    }

    /** Names the members and their values for {@link #toString()}. */
    protected void describe(Description to) {}

    /** Checks the members; what they inherit comes first. */
    protected void check(Violations to) {}

    /**
     * Checks this value and all in it against the contract: required members, occurrence, choices, facets and fixed
     * values.
     *
     * @return what is wrong, each naming the member; empty when nothing is
     */
    public final List<Violation> violations() {
        return new Violations().of(this);
    }

    /** Whether a list has anything in it. */
    protected static boolean isThere(List<?> values) {
        return values != null && !values.isEmpty();
    }

    /** Whether the element carries {@code xsi:nil="true"}: present, and said to have no content. */
    public final boolean nil() {
        return nil;
    }

    /**
     * Marks the element as nil, or takes the mark away. Attributes may stand beside it, content may not.
     *
     * @param value whether {@code xsi:nil="true"} is written
     */
    public final void markNil(boolean value) {
        nil = value;
    }

    /**
     * The values of complex types that stand for child elements of a simple type, because the message named with
     * {@code xsi:type} a type that extends it: they have the attributes that the simple type has no place for. They are
     * written again as long as the elements keep their places and values.
     *
     * @param element the local name of the elements
     * @return the values in the order of the elements; those that are of their declared type are not among them
     */
    public final List<XmlObject> extended(String element) {
        return notes == null ? List.of() : notes.extensions(element);
    }

    final Notes notesIfAny() {
        return notes;
    }

    /** What the element stands for when it is empty, or null for nothing but that. */
    final String standing() {
        return notes == null ? null : notes.standing();
    }

    final Notes notes() {
        if (notes == null) {
            notes = new Notes();
        }
        return notes;
    }

    /**
     * Remembers how the message wrote a value: if it did so out of the ordinary, or if a pattern is about that.
     *
     * @param in the input from which the value was just read
     * @param member the member
     * @param index the place in a list, otherwise 0
     * @param ordinary how the value would be written without this
     */
    protected final void keepText(XmlInput in, String member, int index, String ordinary) {
        String written = in.writtenText();
        in.cursor.affordNotes(this, 1, ordinary.length() + written.length());
        notes().keep(member, index, ordinary, written);
    }

    /** How to write a value: as the message wrote it if it still has that value, in the ordinary way otherwise. */
    protected final String kept(String member, int index, String ordinary) {
        String kept = notes == null ? null : notes.text(member, index, ordinary);
        return kept == null ? ordinary : kept;
    }

    /** How to write a value: as the message wrote it if it still has that value, as the patterns of its type want it otherwise. */
    protected final String kept(String member, int index, String ordinary, ValueRule rule) {
        String kept = notes == null ? null : notes.text(member, index, ordinary);
        return kept == null ? rule.fitting(ordinary) : kept;
    }

    /** Remembers the order of parts that may come in any order. */
    protected final void keepOrder(int[] parts, int count) {
        for (int i = 1; i < count; i++) {
            if (parts[i] < parts[i - 1]) {
                notes().keepOrder(parts, count);
                return;
            }
        }
    }

    /** The order in which to write so many parts that may come in any order. */
    protected final int[] keptOrder(int count) {
        return (notes == null ? new Notes() : notes).order(count);
    }

    /** Whether the message named the type although it is the declared one; kept so that it is written again. */
    final boolean typeStated() {
        return typeStated;
    }

    final void stateType() {
        typeStated = true;
    }

    /** Equal when of the same class with equal members. */
    @Override
    public boolean equals(Object other) {
        return other instanceof XmlObject that
                && that.getClass() == getClass()
                && that.nil == nil
                && extensions(that).equals(extensions(this));
    }

    private static List<XmlObject> extensions(XmlObject of) {
        return of.notes == null ? List.of() : of.notes.extensions(null);
    }

    @Override
    public int hashCode() {
        return nil ? 1 : 0;
    }

    /** Whether two members are equal; arrays are when their bytes are, also inside lists. */
    protected static boolean same(Object a, Object b) {
        if (a instanceof List<?> left && b instanceof List<?> right) {
            boolean equal = left.size() == right.size();
            for (int i = 0; equal && i < left.size(); i++) {
                equal = same(left.get(i), right.get(i));
            }
            return equal;
        }
        return isEmpty(a) ? isEmpty(b) : Objects.deepEquals(a, b);
    }

    /** A list that nobody has asked for yet is as good as an empty one. */
    private static boolean isEmpty(Object value) {
        return value == null || value instanceof Collection<?> many && many.isEmpty();
    }

    /** The hash code of a member, in line with {@link #same}. */
    protected static int hash(Object value) {
        if (value instanceof List<?> list) {
            int hash = 0;
            for (Object item : list) {
                hash = 31 * hash + hash(item);
            }
            return hash;
        }
        return value instanceof byte[] bytes ? Arrays.hashCode(bytes) : isEmpty(value) ? 0 : value.hashCode();
    }

    @Override
    public final String toString() {
        Description description = new Description(getClass().getSimpleName());
        if (nil) {
            description.member("nil", true);
        }
        describe(description);
        return description.text();
    }
}
