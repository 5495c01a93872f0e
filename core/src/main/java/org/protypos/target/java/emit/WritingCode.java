package org.protypos.target.java.emit;

import org.protypos.api.type.Content;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.code.Code;
import org.protypos.target.content.ContentWriting;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaTypes;

/** Says in Java what writes content. */
final class WritingCode extends ContentWriting {
    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final JavaDialect dialect;

    WritingCode(JavaContext context, JavaFile file, JavaDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.types = dialect.types();
        this.dialect = dialect;
    }

    @Override
    protected Code each(Property property) {
        return Code.of("for ($T item : this.$N)", types.item(property), dialect.field(property));
    }

    @Override
    protected Code classItself(PlannedClass type) {
        return Code.of("$T.class", context.ref(type));
    }

    @Override
    protected Code attributeValue(Property property) {
        return dialect.member(property);
    }

    @Override
    protected boolean isSelfGuarding(Property property) {
        return isTextOrTree(property);
    }

    @Override
    protected void writeInKeptOrder(Content.InAnyOrder<Property> all) {
        file.block("for (int part : keptOrder($L))", all.parts().size());
        file.block("switch (part)");
        for (int i = 0; i < all.parts().size(); i++) {
            file.block("case $L:", i);
            write(all.parts().get(i));
            file.line("break;");
            file.close();
        }
        file.line("default: break;");
        file.close();
        file.close();
    }
}
