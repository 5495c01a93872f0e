package org.protypos.target.java.text;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.protypos.target.SourceFile;
import org.protypos.target.code.CodeFile;
import org.protypos.target.code.LineWrap;
import org.protypos.target.code.TypeName;

/**
 * A Java source file being written: lines with their indentation, and the imports that they turned out to need. A class
 * is called by its simple name where that can only mean it, by its full name otherwise.
 */
public final class JavaFile extends CodeFile<JavaFile> {
    private static final String PARAGRAPH = "\n\n<p>";
    private static final Pattern EMPTY_LINE = Pattern.compile("\n\\s*\n\\s*");

    private static final String HEADER =
            "// " + SourceFile.MARK + " from a service contract. Changes made here are lost.\n";

    private final String packageName;
    private final String name;
    private final Set<String> inPackage;
    private final Set<String> hidden;
    private final Map<String, String> simpleNames = new HashMap<>();

    /**
     * Starts a file.
     *
     * @param inPackage the simple names of all classes in the package
     * @param hidden simple names that mean nested classes somewhere in the file
     */
    public JavaFile(String packageName, String name, Set<String> inPackage, Set<String> hidden) {
        super(0, INDENT + INDENT);
        this.packageName = packageName;
        this.name = name;
        this.inPackage = inPackage;
        this.hidden = hidden;
    }

    @Override
    protected JavaFile self() {
        return this;
    }

    @Override
    public String name(TypeName type) {
        return type.space().isEmpty() ? type.path() : outermost(type) + type.inner();
    }

    private String outermost(TypeName type) {
        String simple = type.outermost();
        String full = type.space() + "." + simple;
        if (hidden.contains(simple) || type.isLikeVariable() && !isClass(JavaContext.root(type.space()))) {
            return full;
        }
        if (type.space().equals(packageName)) {
            return simple;
        }
        if (inPackage.contains(simple)) {
            return full;
        }
        String known = simpleNames.putIfAbsent(simple, full);
        return known == null || known.equals(full) ? simple : full;
    }

    private boolean isClass(String simple) {
        return inPackage.contains(simple) || hidden.contains(simple);
    }

    @Override
    public String literal(String text) {
        return JavaText.literal(text);
    }

    @Override
    public JavaFile block(String template, Object... arguments) {
        return line(template + " {", arguments).shift(1);
    }

    @Override
    public JavaFile orElse(String template, Object... arguments) {
        return shift(-1).block("} " + template, arguments);
    }

    @Override
    public JavaFile indent() {
        return shift(2);
    }

    @Override
    public JavaFile outdent() {
        return shift(-2);
    }

    /** Writes a documentation comment; parts that are empty are left out, the others become paragraphs, as does what an empty line parts. */
    public JavaFile doc(String... paragraphs) {
        StringBuilder text = new StringBuilder();
        for (String paragraph : paragraphs) {
            if (!paragraph.isBlank()) {
                text.append(text.isEmpty() ? "" : PARAGRAPH)
                        .append(EMPTY_LINE.matcher(paragraph.strip()).replaceAll(PARAGRAPH));
            }
        }
        if (text.isEmpty()) {
            return this;
        }
        if (text.indexOf("\n") < 0 && margin() + text.length() <= LineWrap.WIDTH - "/**  */".length()) {
            verbatim("/** " + text + " */");
            return this;
        }
        verbatim("/**");
        for (String part : text.toString().split("\n")) {
            for (String line : LineWrap.words(part.strip(), LineWrap.WIDTH - margin() - " * ".length())) {
                verbatim((" * " + line).stripTrailing());
            }
        }
        verbatim(" */");
        return this;
    }

    /** The finished file. */
    public SourceFile finish() {
        return finish(HEADER);
    }

    /** The finished file, for a developer to go on with: nothing in it says that it is generated. */
    public SourceFile own() {
        return finish("");
    }

    private SourceFile finish(String header) {
        StringBuilder text = new StringBuilder(body().length() + 1024);
        text.append(header).append("package ").append(packageName).append(";\n\n");
        int start = text.length();
        for (String imported : new TreeSet<>(simpleNames.values())) {
            if (!imported.startsWith("java.lang.") || imported.indexOf('.', "java.lang.".length()) > 0) {
                text.append("import ").append(imported).append(";\n");
            }
        }
        text.append(text.length() == start ? "" : "\n").append(body());
        return new SourceFile(packageName.replace('.', '/') + "/" + name + ".java", text.toString());
    }
}
