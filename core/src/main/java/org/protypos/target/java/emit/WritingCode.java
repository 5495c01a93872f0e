package org.protypos.target.java.emit;

import javax.xml.namespace.QName;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.api.ScalarKind;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Writes the code that writes content: each member where the content model has it. */
final class WritingCode {
    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private PlannedClass owner;

    WritingCode(JavaContext context, JavaFile file) {
        this.context = context;
        this.file = file;
        this.types = new JavaTypes(context, file);
    }

    /** Says whose members the code that follows is about. */
    void setOwner(PlannedClass type) {
        owner = type;
    }

    /** The expression that makes text of a value, in the way the message had it. */
    String printed(Property property, String value, String index) {
        String ordinary = types.print(property.type(), value);
        return owner != null && property.hasOddText()
                ? "kept(" + JavaText.literal(ReadingCode.field(property)) + ", " + index + ", " + ordinary + ")"
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
        String field = "this." + ReadingCode.field(property);
        if (property.isMany()) {
            file.open("if (", field, " != null) {");
            boolean counted = property.hasOddText();
            if (counted) {
                file.line("int index = 0;");
            }
            file.open("for (", types.item(property), " item : ", field, ") {");
            writeValue(property, "item", property.nillable());
            if (counted) {
                file.line("index++;");
            }
            file.close();
            file.close();
            return;
        }
        boolean primitive = JavaTypes.isPrimitive(property);
        if (primitive) {
            writeValue(property, field, false);
            return;
        }
        if (property.nilName() != null) {
            file.open("if (this.", JavaNames.variable(property.nilName()), ") {");
            file.line("out.nil(", ReadingCode.name(property), ");");
            file.next("else if (" + field + " != null) {");
            writeValue(property, field, false);
            file.close();
            return;
        }
        boolean nil = property.nillable();
        boolean selfGuarding = !nil && isSelfGuarding(property);
        if (selfGuarding || nil) {
            writeValue(property, field, nil);
        } else {
            file.open("if (", field, " != null) {");
            writeValue(property, field, false);
            file.close();
        }
    }

    /** Whether the writing method itself leaves out what is null. */
    private static boolean isSelfGuarding(Property property) {
        return property.kind() == Member.Kind.ELEMENT
                && (property.type() instanceof ValueType.Structured
                        || property.type() instanceof ValueType.Anything
                        || property.type() instanceof ValueType.Scalar scalar
                                && (scalar.kind().isText() || scalar.kind() == ScalarKind.QNAME));
    }

    private void writeValue(Property property, String value, boolean nilWhenNull) {
        if (nilWhenNull) {
            file.open("if (", value, " == null) {");
            file.line("out.nil(", ReadingCode.name(property), ");");
            file.next("else {");
            writeValue(property, value, false);
            file.close();
            return;
        }
        switch (property.kind()) {
            case GROUP -> file.line("out.group(", value, ");");
            case WILDCARD, SUBSTITUTABLE -> file.line("out.element(", value, ");");
            default -> writeElement(property, value);
        }
    }

    /** Writes the statement that writes an element. */
    void writeElement(Property property, String value) {
        ValueType type = property.type();
        QName stated = owner == null ? null : property.member().typeName();
        if (stated != null) {
            file.line(
                    "out.typed(",
                    JavaText.literal(stated.getNamespaceURI()),
                    ", ",
                    JavaText.literal(stated.getLocalPart()),
                    ");");
        }
        if (type instanceof ValueType.Structured structured) {
            file.line(
                    "out.object(",
                    ReadingCode.name(property),
                    ", ",
                    value,
                    ", ",
                    context.ref(file, structured.type()),
                    ".class);");
        } else if (type instanceof ValueType.Anything) {
            file.line("out.any(", ReadingCode.name(property), ", ", value, ");");
        } else if (type instanceof ValueType.Items items && items.item().isName()) {
            file.line("out.openChild(", ReadingCode.name(property), ");");
            file.line("out.text(", types.print(type, value), ");");
            file.line("out.close();");
        } else {
            String text = printed(property, value, property.isMany() ? "index" : "0");
            String name = ReadingCode.name(property);
            boolean binary = type.isBinary();
            if (binary) {
                file.open("if (!out.attached(", name, ", ", value, ")) {");
            }
            file.line("out.element(", name, ", ", text, ");");
            if (binary) {
                file.close();
            }
        }
    }

    private void writeAll(Content.InAnyOrder<Property> all) {
        file.open("for (int part : keptOrder(", String.valueOf(all.parts().size()), ")) {");
        file.open("switch (part) {");
        for (int i = 0; i < all.parts().size(); i++) {
            file.open("case ", String.valueOf(i), ": {");
            write(all.parts().get(i));
            file.line("break;");
            file.close();
        }
        file.line("default: break;");
        file.close();
        file.close();
    }

    /** Writes the statement that writes an attribute. */
    void writeAttribute(Property property) {
        String field = "this." + ReadingCode.field(property);
        boolean primitive = JavaTypes.isPrimitive(property);
        boolean plain = property.type() instanceof ValueType.Scalar scalar
                && (scalar.kind().isText() || scalar.kind() == ScalarKind.QNAME);
        String write = "out.attribute(" + ReadingCode.name(property) + ", " + printed(property, field, "0") + ");";
        if (primitive || plain) {
            file.line(write);
        } else {
            file.open("if (", field, " != null) {");
            file.line(write);
            file.close();
        }
    }
}
