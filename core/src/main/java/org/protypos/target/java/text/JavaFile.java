package org.protypos.target.java.text;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.protypos.target.LineWrap;
import org.protypos.target.SourceFile;
import org.protypos.target.Words;
import org.protypos.target.content.CodeLines;

/**
 * A Java source file being written: lines with their indentation, and the imports that they turned out to need. A class
 * is called by its simple name where that can only mean it, by its full name otherwise.
 */
public final class JavaFile implements CodeLines {
    private static final String INDENT = "    ";
    private static final String HEADER =
            "// " + SourceFile.MARK + " from a service contract. Changes made here are lost.\n";

    private final String packageName;
    private final String name;
    private final Set<String> inPackage;
    private final Set<String> hidden;
    private final Map<String, String> simpleNames = new HashMap<>();
    private final Set<String> imports = new TreeSet<>();
    private final StringBuilder body = new StringBuilder(4096);
    private int depth;

    /**
     * Starts a file.
     *
     * @param inPackage the simple names of all classes in the package
     * @param hidden simple names that mean nested classes somewhere in the file
     */
    public JavaFile(String packageName, String name, Set<String> inPackage, Set<String> hidden) {
        this.packageName = packageName;
        this.name = name;
        this.inPackage = inPackage;
        this.hidden = hidden;
    }

    /** How to call a class that stands in no other, given by package and simple name. */
    public String ref(String ofPackage, String simple) {
        if (hidden.contains(simple)) {
            return ofPackage + "." + simple;
        }
        if (ofPackage.equals(packageName)) {
            return simple;
        }
        String full = ofPackage + "." + simple;
        if (inPackage.contains(simple)) {
            return full;
        }
        String known = simpleNames.putIfAbsent(simple, full);
        if (known != null) {
            return known.equals(full) ? simple : full;
        }
        imports.add(full);
        return simple;
    }

    /** How to call a class of the platform. */
    public String ref(String full) {
        int dot = full.lastIndexOf('.');
        return ref(full.substring(0, dot), full.substring(dot + 1));
    }

    @Override
    public JavaFile line(String... parts) {
        LineWrap.append(body, INDENT.repeat(depth), INDENT + INDENT, parts);
        return this;
    }

    private JavaFile comment(String text) {
        body.append(INDENT.repeat(depth)).append(text.stripTrailing()).append('\n');
        return this;
    }

    /** Writes an empty line. */
    public JavaFile gap() {
        body.append('\n');
        return this;
    }

    @Override
    public JavaFile block(String... head) {
        String[] parts = Arrays.copyOf(head, head.length + 1);
        parts[head.length] = " {";
        line(parts);
        depth++;
        return this;
    }

    @Override
    public JavaFile close() {
        return close("");
    }

    /** Closes a block with something behind the brace. */
    public JavaFile close(String behind) {
        depth--;
        return line("}", behind);
    }

    @Override
    public JavaFile orElse(String head) {
        depth--;
        return block("} ", head);
    }

    /** Goes on in lines that belong to the one before. */
    public JavaFile indent() {
        depth += 2;
        return this;
    }

    /** Ends such lines. */
    public JavaFile outdent() {
        depth -= 2;
        return this;
    }

    /** Writes a documentation comment; parts that are empty are left out, the others become paragraphs. */
    public JavaFile doc(String... paragraphs) {
        boolean first = true;
        StringBuilder text = new StringBuilder();
        for (String paragraph : paragraphs) {
            if (!paragraph.isBlank()) {
                text.append(first ? "" : "\n\n<p>").append(paragraph.strip());
                first = false;
            }
        }
        if (text.isEmpty()) {
            return this;
        }
        if (text.indexOf("\n") < 0 && INDENT.length() * depth + text.length() <= LineWrap.WIDTH - "/**  */".length()) {
            return comment("/** " + text + " */");
        }
        comment("/**");
        for (String part : text.toString().split("\n")) {
            for (String line :
                    LineWrap.words(part.strip(), LineWrap.WIDTH - INDENT.length() * depth - " * ".length())) {
                comment(" * " + line);
            }
        }
        return comment(" */");
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
        StringBuilder text = new StringBuilder(body.length() + 1024);
        text.append(header).append("package ").append(packageName).append(";\n\n");
        int start = text.length();
        // Some names were asked for and not written in the end.
        Set<String> written = Words.in(body.toString(), simpleNames.keySet());
        for (String imported : imports) {
            boolean known = imported.startsWith("java.lang.") && imported.indexOf('.', "java.lang.".length()) < 0;
            if (!known && written.contains(imported.substring(imported.lastIndexOf('.') + 1))) {
                text.append("import ").append(imported).append(";\n");
            }
        }
        text.append(text.length() == start ? "" : "\n").append(body);
        return new SourceFile(packageName.replace('.', '/') + "/" + name + ".java", text.toString());
    }
}
