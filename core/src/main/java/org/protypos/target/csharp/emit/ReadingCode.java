package org.protypos.target.csharp.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.api.type.Content;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ContentReading;
import org.protypos.target.content.ContentWriting;
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
    public void keepText(Property property, Code value) {
        if (owner() != null && property.hasOddText()) {
            Code there = CSharpTypes.isAlwaysThere(property) ? value : CSharpDialect.writable(property, value);
            Code head = CSharpTypes.isValue(property.type())
                    ? Code.of("if (input.$N)", kept(property))
                    : Code.of("if (input.$N && $L != null)", kept(property), value);
            keep(property, head, ContentWriting.FIRST, there);
        }
    }

    @Override
    protected void keepLastText(Property property, Code list) {
        if (owner() != null && property.hasOddText()) {
            Code last = Code.of("$L[$L.Count - 1]", list, list);
            Code there = dialect.there(property.type(), property.nillable(), last);
            keep(property, Code.of("if (input.$N)", kept(property)), Code.of("$L.Count - 1", list), there);
        }
    }

    /** What the input says when the text of a value is to be kept. */
    private static String kept(Property property) {
        return property.isWrittenByPattern() ? "IsWritten" : "IsOdd";
    }

    private void keep(Property property, Code head, Code index, Code value) {
        file.block("$L", head);
        file.line(
                "this.KeepXmlText(input, nameof($N), $L, $L);",
                property.name(),
                index,
                types.print(property.type(), value));
        file.close();
    }

    @Override
    protected Code list(Property property) {
        return dialect.member(property);
    }

    @Override
    protected Code addNil(Code list) {
        return Code.of("$L.Add(null);", list);
    }

    @Override
    protected String arrayLength() {
        return "Length";
    }

    @Override
    protected Code keepOrder() {
        return Code.of("this.KeepXmlOrder(order, came);");
    }

    @Override
    protected Code textType() {
        return Code.of("string");
    }

    @Override
    protected Code parse(Property property, Code text) {
        return types.parse(property, text);
    }

    @Override
    protected void readWideChoice(Content.OneOf<Property> choice, Code otherwise) {
        file.block("do");
        for (Content<Property> part : choice.parts()) {
            file.block("if ($L)", starts(part));
            readStarted(part);
            file.line("break;");
            file.close();
        }
        if (!otherwise.isEmpty()) {
            file.line("$L", otherwise);
        }
        file.close();
        file.line("while (false);");
    }

    @Override
    protected Code readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> Code.of("input.Group(new $T())", context.ref(property.group()));
            case WILDCARD ->
                leaf.wildcard().processing() == Wildcard.Processing.SKIP
                        ? Code.of("input.Tree()")
                        : Code.of("input.Element()");
            case SUBSTITUTABLE -> Code.of("input.Member<$T>()", contentClass(type));
            default -> element(property);
        };
    }

    /** The expression that reads the element of a property, which may stand for a value of its own when it is empty. */
    Code element(Property property) {
        String standard = property.defaultValue();
        ValueType type = property.type();
        if (standard == null) {
            return plainElement(property);
        }
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            return Code.of("input.Object($L, $S)", plain(structured.type()), standard);
        }
        return property.hasOddText()
                ? types.parse(property, Code.of("input.$N($S)", CSharpText.capital(source(type, "textOr")), standard))
                : plainElement(property);
    }

    private Code plain(PlannedClass type) {
        TypeName name = context.ref(type);
        return type.isAbstract() ? Code.of("($T)null", name) : Code.of("new $T()", name);
    }

    private TypeName contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(named.content())
                : context.runtime(type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    private Code plainElement(Property property) {
        ValueType type = property.type();
        if (type instanceof ValueType.Structured structured) {
            return Code.of("input.Object($L)", plain(structured.type()));
        }
        return type instanceof ValueType.Anything ? Code.of("input.Any()") : types.parse(property, text(type, "text"));
    }

    @Override
    protected String startNames(Set<String> names, List<Content.Leaf<Property>> leaves) {
        return starts.computeIfAbsent(names, any -> dialect.fields().made("startNames"));
    }

    /** Writes the constants that the tests written so far refer to. */
    void writeConstants() {
        Code set = Code.of("$T<string>", TypeName.ofLibrary("System.Collections.Generic", "HashSet"));
        starts.forEach((names, constant) -> {
            file.gap();
            file.block("private static readonly $T $N = new $T", set, constant, set);
            names.forEach(name -> file.line("$S,", name));
            file.close(";");
        });
        starts.clear();
    }
}
