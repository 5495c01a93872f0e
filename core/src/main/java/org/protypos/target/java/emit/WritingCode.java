package org.protypos.target.java.emit;

import org.protypos.api.Content;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.content.ContentWriting;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;
import org.protypos.target.java.text.JavaTypes;

/** Says in Java what writes content. */
final class WritingCode extends ContentWriting {
    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;

    WritingCode(JavaContext context, JavaFile file, JavaDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.types = dialect.types();
    }

    @Override
    protected String each(Property property) {
        return "for (" + types.item(property) + " item : this." + JavaDialect.field(property) + ")";
    }

    @Override
    protected String keptText(Property property, String index, String ordinary) {
        return "kept(" + JavaText.literal(JavaDialect.field(property)) + ", " + index + ", " + ordinary + ")";
    }

    @Override
    protected String classItself(PlannedClass type) {
        return context.ref(file, type) + ".class";
    }

    @Override
    protected String attributeValue(Property property) {
        return "this." + JavaDialect.field(property);
    }

    @Override
    protected boolean isSelfGuarding(Property property) {
        return isTextOrTree(property);
    }

    @Override
    protected void writeInKeptOrder(Content.InAnyOrder<Property> all) {
        file.block("for (int part : keptOrder(", String.valueOf(all.parts().size()), "))");
        file.block("switch (part)");
        for (int i = 0; i < all.parts().size(); i++) {
            file.block("case ", String.valueOf(i), ":");
            write(all.parts().get(i));
            file.line("break;");
            file.close();
        }
        file.line("default: break;");
        file.close();
        file.close();
    }
}
