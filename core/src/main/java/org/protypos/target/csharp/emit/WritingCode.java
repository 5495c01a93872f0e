package org.protypos.target.csharp.emit;

import javax.xml.namespace.QName;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the code that writes content: each member where the content model has it. */
final class WritingCode {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpTypes types;
    private final FieldNames fields;
    private PlannedClass owner;

    WritingCode(CSharpContext context, CSharpFile file, FieldNames fields) {
        this.context = context;
        this.file = file;
        this.types = new CSharpTypes(context, file);
        this.fields = fields;
    }

    /** Says whose members the code that follows is about. */
    void setOwner(PlannedClass type) {
        owner = type;
    }

    /** The expression that makes text of a value, in the way the message had it. */
    String printed(Property property, String value, String index) {
        String ordinary = types.print(property.type(), value);
        return owner != null && property.hasOddText()
                ? "this.KeptXmlText(nameof(" + property.name() + "), " + index + ", " + ordinary + ")"
                : ordinary;
    }

    void write(Content<Property> content) {
        if (content instanceof Content.Leaf<Property> leaf) {
            writeProperty(leaf.member());
        } else if (content instanceof Content.InSequence<Property> sequence) {
            sequence.parts().forEach(this::write);
        } else if (content instanceof Content.OneOf<Property> choice) {
            choice.parts().forEach(this::write);
        } else {
            writeAll((Content.InAnyOrder<Property>) content);
        }
    }

    private void writeProperty(Property property) {
        String member = "this." + property.name();
        if (property.isMany()) {
            String list = "this." + fields.of(property);
            file.open("if (", list, " != null)");
            boolean counted = property.hasOddText();
            if (counted) {
                file.line("int index = 0;");
            }
            file.open("foreach (", types.item(property), " item in ", list, ")");
            if (property.nillable()) {
                nilOr(property, "item", "item" + (CSharpTypes.isValue(property.type()) ? ".Value" : ""));
            } else {
                writeValue(property, "item");
            }
            if (counted) {
                file.line("index++;");
            }
            file.close();
            file.close();
            return;
        }
        String there = ReadingCode.writable(property, member);
        if (CSharpTypes.isAlwaysThere(property)) {
            writeValue(property, member);
        } else if (property.nilName() != null) {
            file.open("if (this.", property.nilName(), ")");
            file.line("output.Nil(", CSharpTypes.name(property), ");");
            file.next("else if (" + member + " != null)");
            writeValue(property, there);
            file.close();
        } else if (property.nillable()) {
            nilOr(property, member, there);
        } else if (isSelfGuarding(property)) {
            writeValue(property, there);
        } else {
            file.open("if (", member, " != null)");
            writeValue(property, there);
            file.close();
        }
    }

    private void nilOr(Property property, String value, String there) {
        file.open("if (", value, " == null)");
        file.line("output.Nil(", CSharpTypes.name(property), ");");
        file.next("else");
        writeValue(property, there);
        file.close();
    }

    /** Whether the writing method itself leaves out what is null. */
    private static boolean isSelfGuarding(Property property) {
        boolean element = property.kind() == Member.Kind.ELEMENT
                && (property.type() instanceof ValueType.Structured
                        || property.type() instanceof ValueType.Anything
                        || property.type() instanceof ValueType.Scalar scalar
                                && (scalar.kind().isText() || scalar.kind() == ScalarKind.QNAME));
        return (element && !property.hasOddText())
                || property.kind() == Member.Kind.WILDCARD
                || property.kind() == Member.Kind.SUBSTITUTABLE
                || property.kind() == Member.Kind.GROUP;
    }

    private void writeValue(Property property, String value) {
        switch (property.kind()) {
            case GROUP -> file.line("output.Group(", value, ");");
            case WILDCARD, SUBSTITUTABLE -> file.line("output.Element(", value, ");");
            default -> writeElement(property, value);
        }
    }

    /** Writes the statement that writes an element. */
    void writeElement(Property property, String value) {
        ValueType type = property.type();
        QName stated = owner == null ? null : property.member().typeName();
        if (stated != null) {
            file.line(
                    "output.Typed(",
                    CSharpText.literal(stated.getNamespaceURI()),
                    ", ",
                    CSharpText.literal(stated.getLocalPart()),
                    ");");
        }
        String name = CSharpTypes.name(property);
        if (type instanceof ValueType.Structured structured) {
            file.line("output.Object(", name, ", ", value, ", typeof(", context.ref(file, structured.type()), "));");
        } else if (type instanceof ValueType.Anything) {
            file.line("output.Any(", name, ", ", value, ");");
        } else if (type instanceof ValueType.Items items && items.item().isName()) {
            file.line("output.OpenChild(", name, ");");
            file.line("output.Text(", types.print(type, value), ");");
            file.line("output.Close();");
        } else {
            String text = printed(property, value, property.isMany() ? "index" : "0");
            if (type.isBinary()) {
                file.open("if (!output.Attached(", name, ", ", value, "))");
            }
            file.line("output.Element(", name, ", ", text, ");");
            if (type.isBinary()) {
                file.close();
            }
        }
    }

    private void writeAll(Content.InAnyOrder<Property> all) {
        if (all.parts().isEmpty()) {
            return;
        }
        file.open(
                "foreach (int part in this.KeptXmlOrder(",
                String.valueOf(all.parts().size()),
                "))");
        file.open("switch (part)");
        for (int i = 0; i < all.parts().size(); i++) {
            file.line("case ", String.valueOf(i), ":");
            file.indent();
            write(all.parts().get(i));
            file.line("break;");
            file.outdent();
        }
        file.line("default:");
        file.line("    break;");
        file.close();
        file.close();
    }

    /** Writes the statement that writes an attribute. */
    void writeAttribute(Property property) {
        String member = "this." + property.name();
        String field = property.defaultValue() != null && types.constant(property) != null
                ? "this." + fields.of(property)
                : member;
        boolean plain = property.type() instanceof ValueType.Scalar scalar
                && (scalar.kind().isText() || scalar.kind() == ScalarKind.QNAME);
        String write = "output.Attribute(" + CSharpTypes.name(property) + ", "
                + printed(property, ReadingCode.writable(property, field), "0") + ");";
        if (CSharpTypes.isAlwaysThere(property) || plain) {
            file.line(write);
        } else {
            file.open("if (", field, " != null)");
            file.line(write);
            file.close();
        }
    }
}
