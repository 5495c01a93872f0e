package org.protypos.target.content;

import javax.xml.namespace.QName;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.Dialect.Callee;

/**
 * Writes the code that writes content: the members one after the other in the order of the content model. What is decided
 * about a message is decided here; a language says it in its own words.
 */
public abstract class ContentWriting {
    private final CodeLines lines;
    private final Dialect dialect;
    private final Content.Cases<Property, Void> cases = new Content.Cases<>(
            sequence -> writeParts(sequence),
            choice -> writeParts(choice),
            all -> {
                if (!all.parts().isEmpty()) {
                    writeInKeptOrder(all);
                }
                return null;
            },
            leaf -> writeProperty(leaf.member()));
    private PlannedClass owner;

    /** Writes members that a dialect names, by statements that are written to lines. */
    protected ContentWriting(CodeLines lines, Dialect dialect) {
        this.lines = lines;
        this.dialect = dialect;
    }

    /** Says whose members the code that follows is about. */
    public final void setOwner(PlannedClass type) {
        owner = type;
    }

    /** The head of a loop over the values of a property, each called {@code item}. */
    protected abstract String each(Property property);

    /** The text of a value as the message had it, if that is known, and its ordinary text if not. */
    protected abstract String keptText(Property property, String index, String ordinary);

    /** What stands for a class itself. */
    protected abstract String classItself(PlannedClass type);

    /** Where the value of an attribute is, which says whether it was set where it has a default. */
    protected abstract String attributeValue(Property property);

    /** Whether the method of the output for a property leaves out what is null. */
    protected abstract boolean isSelfGuarding(Property property);

    /** Writes a statement that writes the parts in the order in which they came, by {@link #write}. */
    protected abstract void writeInKeptOrder(Content.InAnyOrder<Property> all);

    private String output(String method, String... arguments) {
        return dialect.call(Callee.OUTPUT, method, arguments);
    }

    /** The expression that makes text of a value, in the way the message had it. */
    public final String printed(Property property, String value, String index) {
        String ordinary = dialect.print(property.type(), value);
        return owner != null && property.hasOddText() ? keptText(property, index, ordinary) : ordinary;
    }

    /** Writes what writes content. */
    public final void write(Content<Property> content) {
        content.choose(cases);
    }

    private Void writeParts(Content<Property> content) {
        content.parts().forEach(this::write);
        return null;
    }

    private Void writeProperty(Property property) {
        if (property.isMany()) {
            writeEach(property);
            return null;
        }
        String member = dialect.member(property);
        String there = dialect.there(property.type(), property.isAbsentable(), member);
        if (dialect.isAlwaysThere(property)) {
            writeValue(property, member);
        } else if (property.nilName() != null) {
            lines.block("if (", dialect.nilFlag(property), ")");
            writeNil(property);
            lines.orElse("else if (" + member + " != null)");
            writeValue(property, there);
            lines.close();
        } else if (property.nillable()) {
            nilOr(property, member, there);
        } else if (isSelfGuarding(property)) {
            writeValue(property, there);
        } else {
            lines.block("if (", member, " != null)");
            writeValue(property, there);
            lines.close();
        }
        return null;
    }

    private void writeEach(Property property) {
        lines.block("if (", dialect.kept(property), " != null)");
        boolean counted = property.hasOddText();
        if (counted) {
            lines.line("int index = 0;");
        }
        lines.block(each(property));
        if (property.nillable()) {
            nilOr(property, "item", dialect.there(property.type(), true, "item"));
        } else {
            writeValue(property, "item");
        }
        if (counted) {
            lines.line("index++;");
        }
        lines.close();
        lines.close();
    }

    private void nilOr(Property property, String value, String there) {
        lines.block("if (", value, " == null)");
        writeNil(property);
        lines.orElse("else");
        writeValue(property, there);
        lines.close();
    }

    private void writeNil(Property property) {
        lines.line(output("nil", dialect.name(property)), ";");
    }

    private void writeValue(Property property, String value) {
        switch (property.kind()) {
            case GROUP -> lines.line(output("group", value), ";");
            case WILDCARD, SUBSTITUTABLE -> lines.line(output("element", value), ";");
            default -> writeElement(property, value);
        }
    }

    /** Writes the statement that writes an element. */
    public final void writeElement(Property property, String value) {
        ValueType type = property.type();
        QName stated = owner == null ? null : property.member().typeName();
        if (stated != null) {
            lines.line(
                    output("typed", dialect.literal(stated.getNamespaceURI()), dialect.literal(stated.getLocalPart())),
                    ";");
        }
        String name = dialect.name(property);
        if (type instanceof ValueType.Structured structured) {
            lines.line(output("object", name, value, classItself(structured.type())), ";");
        } else if (type instanceof ValueType.Anything) {
            lines.line(output("any", name, value), ";");
        } else if (type instanceof ValueType.Items items && items.item().isName()) {
            lines.line(output("openChild", name), ";");
            lines.line(output("text", dialect.print(type, value)), ";");
            lines.line(output("close"), ";");
        } else {
            String text = printed(property, value, property.isMany() ? "index" : "0");
            if (type.isBinary()) {
                lines.block("if (!", output("attached", name, value), ")");
            }
            lines.line(output("element", name, text), ";");
            if (type.isBinary()) {
                lines.close();
            }
        }
    }

    /** Whether the values of a type are texts or names, which the output leaves out when they are null. */
    protected static boolean isTextOrName(ValueType type) {
        return type instanceof ValueType.Scalar scalar && (scalar.kind().isText() || scalar.kind() == ScalarKind.QNAME);
    }

    /** Whether a property is an element whose values the output leaves out when they are null. */
    protected static boolean isTextOrTree(Property property) {
        return property.kind() == Member.Kind.ELEMENT
                && (property.type() instanceof ValueType.Structured
                        || property.type() instanceof ValueType.Anything
                        || isTextOrName(property.type()));
    }

    /** Writes the statement that writes an attribute. */
    public final void writeAttribute(Property property) {
        String value = attributeValue(property);
        String there = dialect.there(property.type(), property.isAbsentable(), value);
        String write = output("attribute", dialect.name(property), printed(property, there, "0")) + ";";
        if (dialect.isAlwaysThere(property) || isTextOrName(property.type())) {
            lines.line(write);
        } else {
            lines.block("if (", value, " != null)");
            lines.line(write);
            lines.close();
        }
    }
}
