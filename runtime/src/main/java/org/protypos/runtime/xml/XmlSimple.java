package org.protypos.runtime.xml;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.namespace.QName;
import org.protypos.runtime.value.Lexical;
import org.protypos.runtime.value.XmlDateTime;

/**
 * A value of a simple type where the contract allows any type: the text together with the name of its type, as
 * {@code xsi:type} gives it.
 */
public final class XmlSimple extends XmlObject {
    /** Stands for the built-in type of text in which names may stand. */
    private static final String NAMES = "names";

    /** Stands behind the built-in type of the items of a list. */
    private static final String LIST = "*";

    private final QName type;
    private final String builtin;
    private String text = "";
    private QName name;
    private Map<String, String> prefixes = Map.of();

    private XmlSimple(QName type, String builtin) {
        this.type = type;
        this.builtin = builtin;
    }

    /**
     * Gives an empty value of a simple type, to be filled from a message.
     *
     * @param namespace the namespace of the type's name
     * @param name the type's local name
     * @param builtin the local name of the built-in type it comes from; for a list that of its items, with a star behind it
     */
    public static XmlSimple empty(String namespace, String name, String builtin) {
        return new XmlSimple(new QName(namespace, name), builtin);
    }

    /**
     * Gives an empty value of a simple type in whose text qualified names may stand, as in a list or a union of them.
     *
     * @param namespace the namespace of the type's name
     * @param name the type's local name
     */
    public static XmlSimple emptyWithNames(String namespace, String name) {
        return new XmlSimple(new QName(namespace, name), NAMES);
    }

    /** A value of {@code xs:string}. */
    public static XmlSimple of(String value) {
        return builtin("string", value);
    }

    /** A value of {@code xs:boolean}. */
    public static XmlSimple of(boolean value) {
        return builtin("boolean", Lexical.print(value));
    }

    /** A value of {@code xs:int}. */
    public static XmlSimple of(int value) {
        return builtin("int", Lexical.print(value));
    }

    /** A value of {@code xs:long}. */
    public static XmlSimple of(long value) {
        return builtin("long", Lexical.print(value));
    }

    /** A value of {@code xs:double}. */
    public static XmlSimple of(double value) {
        return builtin("double", Lexical.print(value));
    }

    /** A value of {@code xs:decimal}. */
    public static XmlSimple of(BigDecimal value) {
        return builtin("decimal", Lexical.print(value));
    }

    /** A value of {@code xs:integer}. */
    public static XmlSimple of(BigInteger value) {
        return builtin("integer", Lexical.print(value));
    }

    /** A value of {@code xs:dateTime}. */
    public static XmlSimple of(XmlDateTime value) {
        return builtin("dateTime", value.text());
    }

    /** A value of {@code xs:QName}. */
    public static XmlSimple of(QName value) {
        XmlSimple simple = builtin("QName", value.getLocalPart());
        simple.name = value;
        return simple;
    }

    /**
     * A value of any simple type.
     *
     * @param type the name of the type, which {@code xsi:type} will show
     * @param text the value as it stands in the message
     */
    public static XmlSimple of(QName type, String text) {
        XmlSimple simple = new XmlSimple(type, "string");
        simple.text = Objects.requireNonNull(text, "text");
        return simple;
    }

    private static XmlSimple builtin(String name, String text) {
        XmlSimple simple = empty(Names.XSD, name, name);
        simple.text = Objects.requireNonNull(text, "text");
        return simple;
    }

    boolean holdsNames() {
        return isName() || builtin.equals(NAMES);
    }

    private boolean isName() {
        return builtin.equals("QName") || builtin.equals("NOTATION");
    }

    @Override
    Map<String, String> localPrefixes() {
        return prefixes;
    }

    /** The name of the type. */
    public QName type() {
        return type;
    }

    /** The value as it stands in the message. */
    public String text() {
        return text;
    }

    /**
     * The value in the Java type that stands for the built-in type: {@code Integer} for {@code xs:int} and so on, text
     * where the built-in type has no Java type of its own.
     *
     * @throws IllegalArgumentException when the text is not of the type
     */
    public Object value() {
        return name != null
                ? name
                : builtin.equals(NAMES) || isName() || isList() ? meant() : Lexical.parse(builtin, meant());
    }

    /** The text, or what an empty one stands for. */
    private String meant() {
        return text.isEmpty() && standing() != null ? standing() : text;
    }

    private boolean isList() {
        return builtin.endsWith(LIST);
    }

    /**
     * The values of a list, each in the Java type that stands for the built-in type of the items; names as they are meant where
     * they stand.
     *
     * @param type that Java type
     * @throws IllegalArgumentException when a text is not of the type
     */
    public <T> List<T> values(Class<T> type) {
        List<T> values = new ArrayList<>();
        for (String item : Lexical.items(meant())) {
            values.add(type.cast(type == QName.class ? named(item) : parsed(item)));
        }
        return values;
    }

    private Object parsed(String item) {
        return isList() ? Lexical.parse(builtin.substring(0, builtin.length() - LIST.length()), item) : item;
    }

    private QName named(String item) {
        int colon = item.indexOf(':');
        String prefix = colon < 0 ? "" : item.substring(0, colon);
        return new QName(prefixes.getOrDefault(prefix, ""), item.substring(colon + 1), prefix);
    }

    /** Whether a text is a value of the built-in type that this one comes from. */
    boolean accepts(String written) {
        try {
            if (isList()) {
                for (String item : Lexical.items(written)) {
                    parsed(item);
                }
            } else {
                Lexical.parse(builtin, written);
            }
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    @Override
    protected QName xmlType() {
        return type;
    }

    @Override
    protected void readBody(XmlInput in) {
        if (isName()) {
            String body = in.body();
            name = body.isEmpty() && standing() != null ? null : in.toQName(body);
            text = name == null ? "" : name.getLocalPart();
            return;
        }
        text = in.body();
        if (builtin.equals(NAMES)) {
            prefixes = in.prefixesIn(text, true);
            return;
        }
        if (!accepts(meant())) {
            in.refuse(text, type.getLocalPart());
        }
    }

    @Override
    protected void writeBody(XmlOutput out) {
        out.text(name != null ? out.name(name) : text);
    }

    @Override
    protected void describe(Description to) {
        to.member(type.getLocalPart(), name != null ? name : text);
    }

    @Override
    public boolean equals(Object other) {
        return super.equals(other)
                && ((XmlSimple) other).type.equals(type)
                && ((XmlSimple) other).text.equals(text)
                && Objects.equals(((XmlSimple) other).name, name);
    }

    @Override
    public int hashCode() {
        return Objects.hash(type, text, name);
    }
}
