package org.protypos.target.java.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.api.Content;
import org.protypos.api.Member;
import org.protypos.schema.Wildcard;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;
import org.protypos.target.content.ContentReading;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaNames;
import org.protypos.target.java.text.JavaText;
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
    public void keepText(Property property, String value) {
        if (owner() != null && property.hasOddText()) {
            String index = property.isMany() ? list(property) + ".size() - 1" : "0";
            file.block("if (in.isOdd())");
            file.line(
                    "keepText(in, ",
                    JavaText.literal(JavaDialect.field(property)),
                    ", ",
                    index,
                    ", ",
                    types.print(property.type(), value),
                    ");");
            file.close();
        }
    }

    @Override
    protected void keepLastText(Property property, String list) {
        keepText(property, list + ".get(" + list + ".size() - 1)");
    }

    @Override
    protected String list(Property property) {
        return accessor("get", property) + "()";
    }

    @Override
    protected String addNil(String list) {
        return list + ".add(null);";
    }

    @Override
    protected String arrayLength() {
        return "length";
    }

    @Override
    protected String keepOrder() {
        return "keepOrder(order, came);";
    }

    @Override
    protected String textType() {
        return "String";
    }

    @Override
    protected String parse(Property property, String text) {
        return types.parse(property.type(), text);
    }

    @Override
    protected void readWideChoice(Content.OneOf<Property> choice, String otherwise) {
        int number = ++labels;
        String label = "choice" + number;
        file.block(label, ":");
        if (choice.parts().size() <= Pieces.MOST) {
            readBranches(choice.parts(), "break " + label + ";");
        } else {
            pieces.divide(
                    choice.parts(),
                    "boolean",
                    "readChoice" + number,
                    context.xml(file, "XmlInput") + " in",
                    parts -> {
                        readBranches(parts, "return true;");
                        file.line("return false;");
                    },
                    name -> {
                        file.block("if (", name, "(in))");
                        file.line("break ", label, ";");
                        file.close();
                    });
        }
        if (!otherwise.isEmpty()) {
            file.line(otherwise);
        }
        file.close();
    }

    private void readBranches(List<Content<Property>> parts, String end) {
        for (Content<Property> part : parts) {
            file.block("if (", starts(part), ")");
            readStarted(part);
            file.line(end);
            file.close();
        }
    }

    /** Writes the methods that read the branches for which the choices written so far were too wide. */
    void writePieces() {
        pieces.write();
    }

    @Override
    protected String readExpression(Content.Leaf<Property> leaf) {
        Property property = leaf.member();
        ValueType type = property.type();
        return switch (property.kind()) {
            case GROUP -> "in.group(new " + context.ref(file, property.group()) + "())";
            case WILDCARD -> leaf.wildcard().processing() == Wildcard.Processing.SKIP ? "in.tree()" : "in.element()";
            case SUBSTITUTABLE -> "in.member(" + contentClass(type) + ".class)";
            default -> property.defaultValue() == null ? element(type) : elementOr(property, type);
        };
    }

    /** The expression that reads an element which stands for a value of its own when it is empty. */
    private String elementOr(Property property, ValueType type) {
        String standard = JavaText.literal(property.defaultValue());
        if (type instanceof ValueType.Structured structured && structured.type().isSimple()) {
            String name = context.ref(file, structured.type());
            String plain = structured.type().isAbstract() ? "null" : "new " + name + "()";
            return "in.object(" + name + ".class, " + plain + ", " + standard + ")";
        }
        return property.hasOddText()
                ? types.parse(type, "in." + source(type, "textOr") + "(" + standard + ")")
                : element(type);
    }

    private String contentClass(ValueType type) {
        return type instanceof ValueType.NamedElement named && named.content() != null
                ? context.ref(file, named.content())
                : context.xml(file, type instanceof ValueType.NamedSimple ? "XmlSimple" : "XmlObject");
    }

    /** The expression that reads an element with content of a type. */
    String element(ValueType type) {
        if (type instanceof ValueType.Structured structured) {
            String name = context.ref(file, structured.type());
            return "in.object(" + name + ".class, " + (structured.type().isAbstract() ? "null" : "new " + name + "()")
                    + ")";
        }
        return type instanceof ValueType.Anything ? "in.any()" : types.parse(type, text(type, "text"));
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
                    "private static final ",
                    file.ref("java.util.Set"),
                    "<String> ",
                    constant,
                    " = ",
                    file.ref("java.util.Set"),
                    ".of(");
            file.indent();
            int left = names.size();
            for (String name : names) {
                file.line(name, --left == 0 ? ");" : ",");
            }
            file.outdent();
        });
        starts.clear();
    }
}
