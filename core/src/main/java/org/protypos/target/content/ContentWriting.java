package org.protypos.target.content;

import javax.xml.namespace.QName;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.CodeLines;
import org.protypos.target.content.Dialect.Callee;

/**
 * Writes the code that writes content: the members one after the other in the order of the content model. What is decided
 * about a message is decided here; a language says it in its own words.
 */
// The cases hold methods of the class below, and none is called before that is there.
@SuppressWarnings("this-escape")
public abstract class ContentWriting {
    /** The index of the only value of a property. */
    public static final Code FIRST = Code.of("0");

    private static final Code ITEM = Code.of("item");

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
    private ContentChecking rules;

    /** Writes members that a dialect names, by statements that are written to lines. */
    protected ContentWriting(CodeLines lines, Dialect dialect) {
        this.lines = lines;
        this.dialect = dialect;
    }

    /** Says whose members the code that follows is about, and what has the rules of their values. */
    public final void setOwner(PlannedClass type, ContentChecking checking) {
        owner = type;
        rules = checking;
    }

    /** The head of a loop over the values of a property, each called {@code item}. */
    protected abstract Code each(Property property);

    /** What stands for a class itself. */
    protected abstract Code classItself(PlannedClass type);

    /** Where the value of an attribute is, which says whether it was set where it has a default. */
    protected abstract Code attributeValue(Property property);

    /** Whether the method of the output for a property leaves out what is null. */
    protected abstract boolean isSelfGuarding(Property property);

    /** Writes a statement that writes the parts in the order in which they came, by {@link #write}. */
    protected abstract void writeInKeptOrder(Content.InAnyOrder<Property> all);

    private Code output(String method) {
        return dialect.call(Callee.OUTPUT, method, Code.NONE);
    }

    private Code output(String method, String template, Object... arguments) {
        return dialect.call(Callee.OUTPUT, method, Code.of(template, arguments));
    }

    /** The expression that makes text of a value, in the way the message had it or a pattern wants it. */
    public final Code printed(Property property, Code value, Code index) {
        Code ordinary = dialect.print(property.type(), value);
        if (owner == null || !property.hasOddText()) {
            return ordinary;
        }
        return property.isWrittenByPattern()
                ? dialect.keptText(property, index, ordinary, rules.rule(property))
                : dialect.keptText(property, index, ordinary);
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
        Code member = dialect.member(property);
        Code there = dialect.there(property.type(), property.isAbsentable(), member);
        if (dialect.isAlwaysThere(property)) {
            writeValue(property, member);
        } else if (property.nilName() != null) {
            lines.block("if ($L)", dialect.nilFlag(property));
            writeNil(property);
            lines.orElse("else if ($L != null)", member);
            writeValue(property, there);
            lines.close();
        } else if (property.nillable()) {
            nilOr(property, member, there);
        } else if (isSelfGuarding(property)) {
            writeValue(property, there);
        } else {
            lines.block("if ($L != null)", member);
            writeValue(property, there);
            lines.close();
        }
        return null;
    }

    private void writeEach(Property property) {
        lines.block("if ($L != null)", dialect.kept(property));
        boolean counted = property.hasOddText();
        if (counted) {
            lines.line("int index = 0;");
        }
        lines.block("$L", each(property));
        if (property.nillable()) {
            nilOr(property, ITEM, dialect.there(property.type(), true, ITEM));
        } else {
            writeValue(property, ITEM);
        }
        if (counted) {
            lines.line("index++;");
        }
        lines.close();
        lines.close();
    }

    private void nilOr(Property property, Code value, Code there) {
        lines.block("if ($L == null)", value);
        writeNil(property);
        lines.orElse("else");
        writeValue(property, there);
        lines.close();
    }

    private void writeNil(Property property) {
        lines.line("$L;", output("nil", "$L", dialect.name(property)));
    }

    private void writeValue(Property property, Code value) {
        switch (property.kind()) {
            case GROUP -> lines.line("$L;", output("group", "$L", value));
            case WILDCARD, SUBSTITUTABLE -> lines.line("$L;", output("element", "$L", value));
            default -> writeElement(property, value);
        }
    }

    /** Writes the statement that writes an element. */
    public final void writeElement(Property property, Code value) {
        ValueType type = property.type();
        QName stated = owner == null ? null : property.member().typeName();
        if (stated != null) {
            lines.line("$L;", output("typed", "$S, $S", stated.getNamespaceURI(), stated.getLocalPart()));
        }
        Code name = dialect.name(property);
        if (type instanceof ValueType.Structured structured) {
            lines.line("$L;", output("object", "$L, $L, $L", name, value, classItself(structured.type())));
        } else if (type instanceof ValueType.Anything) {
            lines.line("$L;", output("any", "$L, $L", name, value));
        } else if (type instanceof ValueType.Items items && items.item().isName()) {
            lines.line("$L;", output("openChild", "$L", name));
            lines.line("$L;", output("text", "$L", dialect.print(type, value)));
            lines.line("$L;", output("close"));
        } else {
            Code text = printed(property, value, property.isMany() ? Code.of("index") : FIRST);
            if (type.isBinary()) {
                lines.block("if (!$L)", output("attached", "$L, $L", name, value));
            }
            lines.line("$L;", output("element", "$L, $L", name, text));
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
        Code value = attributeValue(property);
        Code there = dialect.there(property.type(), property.isAbsentable(), value);
        Code write =
                Code.of("$L;", output("attribute", "$L, $L", dialect.name(property), printed(property, there, FIRST)));
        if (dialect.isAlwaysThere(property) || isTextOrName(property.type())) {
            lines.line("$L", write);
        } else {
            lines.block("if ($L != null)", value);
            lines.line("$L", write);
            lines.close();
        }
    }
}
