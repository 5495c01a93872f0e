package org.protypos.target.csharp.emit;

import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.code.Code;
import org.protypos.target.content.ContentWriting;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpTypes;

/** Says in C# what writes content. */
final class WritingCode extends ContentWriting {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpDialect dialect;
    private final CSharpTypes types;

    WritingCode(CSharpContext context, CSharpFile file, CSharpDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.dialect = dialect;
        this.types = dialect.types();
    }

    @Override
    protected Code each(Property property) {
        return Code.of("foreach ($T item in $L)", types.item(property), dialect.kept(property));
    }

    @Override
    protected Code classItself(PlannedClass type) {
        return Code.of("typeof($T)", context.ref(type));
    }

    @Override
    protected Code attributeValue(Property property) {
        return property.defaultValue() != null && types.constant(property) != null
                ? dialect.kept(property)
                : dialect.member(property);
    }

    @Override
    protected boolean isSelfGuarding(Property property) {
        return isTextOrTree(property) && !property.hasOddText()
                || property.kind() == Member.Kind.WILDCARD
                || property.kind() == Member.Kind.SUBSTITUTABLE
                || property.kind() == Member.Kind.GROUP;
    }

    @Override
    protected void writeInKeptOrder(Content.InAnyOrder<Property> all) {
        file.block("foreach (int part in this.KeptXmlOrder($L))", all.parts().size());
        file.block("switch (part)");
        for (int i = 0; i < all.parts().size(); i++) {
            file.line("case $L:", i);
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
}
