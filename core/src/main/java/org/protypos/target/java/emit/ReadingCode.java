package org.protypos.target.java.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.content.ContentReading;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaTypes;

/** Says in Java what reads content. */
final class ReadingCode extends ContentReading {
    private final JavaContext context;
    private final JavaFile file;
    private final JavaTypes types;
    private final Map<String, Set<String>> starts = new LinkedHashMap<>();
    private final Pieces pieces;
    private int labels;

    ReadingCode(JavaContext context, JavaFile file, JavaDialect dialect) {
        super(file, dialect);
        this.context = context;
        this.file = file;
        this.types = dialect.types();
        this.pieces = new Pieces(file);
    }

    @Override
    public void keepText(Property property, Code value) {
        if (owner() != null && property.hasOddText()) {
            Code index = property.isMany() ? Code.of("$L.size() - 1", list(property)) : Code.of("0");
            file.block("if (input.$N())", property.isWrittenByPattern() ? "isWritten" : "isOdd");
            file.line(
                    "keepText(input, $S, $L, $L);",
                    context.field(property.name()),
                    index,
                    types.print(property.type(), value));
            file.close();
        }
    }

    @Override
    protected void keepLastText(Property property, Code list) {
        keepText(property, Code.of("$L.get($L.size() - 1)", list, list));
    }

    @Override
    protected Code list(Property property) {
        return Code.of("$N()", accessor("get", property));
    }

    @Override
    protected Code addNil(Code list) {
        return Code.of("$L.add(null);", list);
    }

    @Override
    protected String arrayLength() {
        return "length";
    }

    @Override
    protected Code keepOrder() {
        return Code.of("keepOrder(order, came);");
    }

    @Override
    protected Code textType() {
        return Code.of("String");
    }

    @Override
    protected Code parse(Property property, Code text) {
        return types.parse(property.type(), text);
    }

    @Override
    protected void readWideChoice(Content.OneOf<Property> choice, Code otherwise) {
        int number = ++labels;
        Code label = Code.of("choice$L", number);
        file.block("$L:", label);
        if (choice.parts().size() <= Pieces.MOST) {
            readBranches(choice.parts(), Code.of("break $L;", label));
        } else {
            pieces.divide(
                    choice.parts(),
                    Code.of("boolean"),
                    "readChoice" + number,
                    Code.of("$T input", context.xml("XmlInput")),
                    parts -> {
                        readBranches(parts, Code.of("return true;"));
                        file.line("return false;");
                    },
                    name -> {
                        file.block("if ($N(input))", name);
                        file.line("break $L;", label);
                        file.close();
                    });
        }
        if (!otherwise.isEmpty()) {
            file.line("$L", otherwise);
        }
        file.close();
    }

    private void readBranches(List<Content<Property>> parts, Code end) {
        for (Content<Property> part : parts) {
            file.block("if ($L)", starts(part));
            readStarted(part);
            file.line("$L", end);
            file.close();
        }
    }

    /** Writes the methods that read the branches for which the choices written so far were too wide. */
    void writePieces() {
        pieces.write();
    }

    @Override
    protected Code readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> Code.of("input.group(new $T())", context.ref(property.group()));
            case WILDCARD ->
                leaf.wildcard().processing() == Wildcard.Processing.SKIP
                        ? Code.of("input.wholeTree()")
                        : Code.of("input.element()");
            case SUBSTITUTABLE -> Code.of("input.member($T.class)", contentClass(type));
            default -> element(property);
        };
    }

    /** The expression that reads the element of a property, which may stand for a value of its own when it is empty. */
    Code element(Property property) {
        String standard = property.defaultValue();
        ValueType type = property.type();
        if (standard == null) {
            return element(type);
        }
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            return Code.of(
                    "input.object($T.class, $L, $S)", context.ref(structured.type()), fresh(structured), standard);
        }
        return property.hasOddText()
                ? types.parse(type, Code.of("input.$N($S)", source(type, "textOr"), standard))
                : element(type);
    }

    private Code fresh(ValueType.Structured type) {
        return type.type().isAbstract() ? Code.of("null") : Code.of("new $T()", context.ref(type.type()));
    }

    private TypeName contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(named.content())
                : context.xml(type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    /** The expression that reads an element with content of a type. */
    private Code element(ValueType type) {
        if (type instanceof ValueType.Structured structured) {
            return Code.of("input.object($T.class, $L)", context.ref(structured.type()), fresh(structured));
        }
        return type instanceof ValueType.Anything ? Code.of("input.any()") : types.parse(type, text(type, "text"));
    }

    static String accessor(String verb, Property property) {
        return verb + property.name();
    }

    @Override
    protected String startNames(Set<String> names, List<Content.Leaf<Property>> leaves) {
        String constant = starts.entrySet().stream()
                .filter(known -> known.getValue().equals(names))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseGet(() -> FreeName.beside(starts.keySet(), constantOf(leaves)));
        starts.put(constant, names);
        return constant;
    }

    private static String constantOf(List<Content.Leaf<Property>> leaves) {
        String first = leaves.stream()
                .filter(leaf -> leaf.member().kind() == Member.Kind.ELEMENT)
                .findFirst()
                .map(leaf -> leaf.member().xmlName().getLocalPart())
                .orElse("nothing");
        return new JavaNames().constantName(first) + "_AND_OTHERS";
    }

    /** Writes the constants that the tests written so far refer to. */
    void writeConstants() {
        starts.forEach((constant, names) -> {
            file.gap();
            file.line(
                    "private static final $T<String> $N = $T.of(",
                    TypeName.ofLibrary("java.util.Set"),
                    constant,
                    TypeName.ofLibrary("java.util.Set"));
            file.indent();
            int left = names.size();
            for (String name : names) {
                file.line(--left == 0 ? "$S);" : "$S,", name);
            }
            file.outdent();
        });
        starts.clear();
    }
}
