package org.protypos.target.csharp.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.api.Content;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.ContentReading;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Says in C# what reads content. */
final class ReadingCode extends ContentReading {
    private final CSharpContext context;
    private final CSharpFile file;
    private final CSharpDialect dialect;
    private final CSharpTypes types;
    private final Map<Set<String>, String> starts = new LinkedHashMap<>();

    ReadingCode(CSharpContext context, CSharpFile file, CSharpDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.dialect = dialect;
        this.types = dialect.types();
    }

    @Override
    public void keepText(Property property, String value) {
        if (owner() != null && property.hasOddText()) {
            String there = CSharpTypes.isAlwaysThere(property) ? value : CSharpDialect.writable(property, value);
            String guard = CSharpTypes.isValue(property.type()) ? "" : " && " + value + " != null";
            keep(property, "if (input.IsOdd" + guard + ")", "0", there);
        }
    }

    @Override
    protected void keepLastText(Property property, String list) {
        if (owner() != null && property.hasOddText()) {
            String last = list + "[" + list + ".Count - 1]";
            String there = dialect.there(property.type(), property.nillable(), last);
            keep(property, "if (input.IsOdd)", list + ".Count - 1", there);
        }
    }

    private void keep(Property property, String head, String index, String value) {
        file.block(head);
        file.line(
                "this.KeepXmlText(input, nameof(",
                property.name(),
                "), ",
                index,
                ", ",
                types.print(property.type(), value),
                ");");
        file.close();
    }

    @Override
    protected String list(Property property) {
        return dialect.member(property);
    }

    @Override
    protected String addNil(String list) {
        return list + ".Add(null);";
    }

    @Override
    protected String arrayLength() {
        return "Length";
    }

    @Override
    protected String keepOrder() {
        return "this.KeepXmlOrder(order, came);";
    }

    @Override
    protected String textType() {
        return "string";
    }

    @Override
    protected String parse(Property property, String text) {
        return types.parse(property, text);
    }

    @Override
    protected void readWideChoice(Content.OneOf<Property> choice, String otherwise) {
        file.block("do");
        for (Content<Property> part : choice.parts()) {
            file.block("if (", starts(part), ")");
            readStarted(part);
            file.line("break;");
            file.close();
        }
        if (!otherwise.isEmpty()) {
            file.line(otherwise);
        }
        file.close();
        file.line("while (false);");
    }

    @Override
    protected String readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> "input.Group(new " + context.ref(file, property.group()) + "())";
            case WILDCARD ->
                leaf.wildcard().processing() == Wildcard.Processing.SKIP ? "input.Tree()" : "input.Element()";
            case SUBSTITUTABLE -> "input.Member<" + contentClass(type) + ">()";
            default -> property.defaultValue() == null ? element(property) : elementOr(property, type);
        };
    }

    /** The expression that reads an element which stands for a value of its own when it is empty. */
    private String elementOr(Property property, ValueType type) {
        String standard = CSharpText.literal(property.defaultValue());
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            return "input.Object(" + plain(structured.type()) + ", " + standard + ")";
        }
        return property.hasOddText()
                ? types.parse(property, "input." + CSharpText.capital(source(type, "textOr")) + "(" + standard + ")")
                : element(property);
    }

    private String plain(PlannedClass type) {
        String name = context.ref(file, type);
        return type.isAbstract() ? "(" + name + ")null" : "new " + name + "()";
    }

    private String contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(file, named.content())
                : context.runtime(file, type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    /** The expression that reads the element of a property. */
    String element(Property property) {
        ValueType type = property.type();
        if (type instanceof ValueType.Structured structured) {
            return "input.Object(" + plain(structured.type()) + ")";
        }
        return type instanceof ValueType.Anything ? "input.Any()" : types.parse(property, text(type, "text"));
    }

    @Override
    protected String startNames(Set<String> names, List<Content.Leaf<Property>> leaves) {
        return starts.computeIfAbsent(names, any -> dialect.fields().made("startNames"));
    }

    /** Writes the constants that the tests written so far refer to. */
    void writeConstants() {
        String set = file.type("System.Collections.Generic", "HashSet") + "<string>";
        starts.forEach((names, constant) -> {
            file.gap();
            file.block("private static readonly ", set, " ", constant, " = new ", set);
            names.forEach(name -> file.line(name, ","));
            file.close(";");
        });
        starts.clear();
    }
}
