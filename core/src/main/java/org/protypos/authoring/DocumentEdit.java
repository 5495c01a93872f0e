package org.protypos.authoring;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.XmlText;

/** Puts text into a document, so that every other byte of it stays as it is. */
public final class DocumentEdit {
    private static final Pattern TAG = Pattern.compile(
            "<!--.*?-->|<!\\[CDATA\\[.*?]]>|<\\?.*?\\?>|<(/?)(?:[^\"'>/]++|\"[^\"]*+\"|'[^']*+'|/(?!>))*+(/?)>",
            Pattern.DOTALL);
    private static final Pattern BESIDE = Pattern.compile("((?:[ \t]*<!--(?:(?!-->)[^\n])*-->)*)[ \t]*\r?\n");
    private static final Pattern ENCODING = Pattern.compile("<\\?xml[^>]*encoding\\s*=\\s*[\"']([^\"']+)");

    private final Document document;
    private final String text;
    private final List<Insert> inserts = new ArrayList<>();
    private final Map<Element, StringBuilder> appended = new LinkedHashMap<>();

    /** Text that comes to stand between others. */
    private record Insert(int from, int to, String text) {}

    /** Begins. */
    public DocumentEdit(Document document) {
        this.document = document;
        this.text = document.text().text();
    }

    /** Where an element ends: its end tag, or itself when it has none. */
    private record End(int from, int to, boolean isEmpty) {}

    private End end(Element element) {
        Matcher tag = TAG.matcher(text);
        int depth = 0;
        int at = element.place().offset();
        while (tag.find(at)) {
            at = tag.end();
            if (tag.group(1) == null) {
                continue;
            }
            boolean closes = !tag.group(1).isEmpty();
            boolean empty = !tag.group(2).isEmpty();
            if (depth == 0 && empty) {
                return new End(tag.start(), tag.end(), true);
            }
            depth += closes ? -1 : empty ? 0 : 1;
            if (depth == 0) {
                return new End(tag.start(), tag.end(), false);
            }
        }
        throw new IllegalStateException("a document that was read has the ends of its elements");
    }

    /**
     * Puts lines at the end of an element, indented like what stands in it.
     *
     * @param lines the lines, each level indented by two blanks
     */
    public void append(Element element, String lines) {
        appended.computeIfAbsent(element, none -> new StringBuilder()).append(lines);
    }

    /** Puts lines at the end of an element, before what has been put there already. */
    public void appendFirst(Element element, String lines) {
        appended.computeIfAbsent(element, none -> new StringBuilder()).insert(0, lines);
    }

    private void appended(Element element, String lines) {
        End end = end(element);
        if (end.isEmpty()) {
            openAndClose(element, end.to(), lines);
        } else {
            before(element, end.from(), lines);
        }
    }

    /** Puts lines behind an element and what is remarked beside it, indented like it. */
    public void after(Element element, String lines) {
        int end = end(element).to();
        Matcher beside = BESIDE.matcher(text).region(end, text.length());
        int at = beside.lookingAt() ? beside.end(1) : end;
        String added = lineEnd() + indented(lines, indentation(element.place().offset()), unit());
        inserts.add(
                new Insert(at, at, added.substring(0, added.length() - lineEnd().length())));
    }

    /** Puts lines before an element, indented like it. */
    public void before(Element element, String lines) {
        String base = indentation(element.place().offset());
        int at = element.place().offset();
        String added = indented(lines, base, unit());
        inserts.add(new Insert(at, at, added.substring(base.length()) + base));
    }

    /** Gives an attribute a value, whether the element has it or not. */
    public void set(Element element, String attribute, String value) {
        int start = element.place().offset();
        Matcher tag = TAG.matcher(text);
        tag.find(start);
        String escaped = XmlText.escaped(value, true);
        Matcher there = written(attribute, start, tag.end());
        if (there.find()) {
            inserts.add(new Insert(there.start(1), there.end(1), "\"" + escaped + "\""));
            return;
        }
        int end = tag.end() - (tag.group(2).isEmpty() ? 1 : 2);
        while (Character.isWhitespace(text.charAt(end - 1))) {
            end--;
        }
        inserts.add(new Insert(end, end, " " + attribute + "=\"" + escaped + "\""));
    }

    private Matcher written(String attribute, int start, int end) {
        return Pattern.compile("\\s+" + Pattern.quote(attribute) + "\\s*=\\s*(\"[^\"]*\"|'[^']*')")
                .matcher(text)
                .region(start, end);
    }

    /** Takes an attribute away, if the element has it. */
    public void remove(Element element, String attribute) {
        int start = element.place().offset();
        Matcher tag = TAG.matcher(text);
        tag.find(start);
        Matcher there = written(attribute, start, tag.end());
        if (there.find()) {
            inserts.add(new Insert(there.start(), there.end(), ""));
        }
    }

    /**
     * Takes an element away.
     *
     * @return its lines, each level indented by two blanks, to be put elsewhere
     */
    public String cut(Element element) {
        int start = element.place().offset();
        int end = end(element).to();
        String base = indentation(start);
        StringBuilder lines = new StringBuilder();
        for (String line : text.substring(start, end).split("\r?\n")) {
            String rest = line.startsWith(base) ? line.substring(base.length()) : line.stripLeading();
            String plain = rest.stripLeading();
            int level = (rest.length() - plain.length()) / unit().length();
            lines.append("  ".repeat(level)).append(plain).append('\n');
        }
        int lineStart = text.lastIndexOf('\n', start - 1) + 1;
        int lineEnd = text.indexOf('\n', end) + 1;
        boolean alone = lineEnd > 0
                && text.substring(lineStart, start).isBlank()
                && text.substring(end, lineEnd).isBlank();
        inserts.add(alone ? new Insert(lineStart, lineEnd, "") : new Insert(start, end, ""));
        return lines.toString();
    }

    /** Makes another element of one: its tags get another local name. */
    public void rename(Element element, String local) {
        int start = element.place().offset();
        renameTag(start + 1, element.name(), local);
        End end = end(element);
        if (!end.isEmpty()) {
            renameTag(end.from() + 2, element.name(), local);
        }
    }

    private void renameTag(int name, String old, String local) {
        int at = text.indexOf(old, name);
        inserts.add(new Insert(at, at + old.length(), local));
    }

    /** The element is written without an end: it gets one. */
    private void openAndClose(Element element, int end, String lines) {
        String base = indentation(element.place().offset());
        String tag = text.substring(element.place().offset() + 1).split("[\\s/>]", 2)[0];
        String inside = indented(lines, base + unit(), unit());
        int slash = text.lastIndexOf('/', end);
        inserts.add(new Insert(slash, end, ">" + lineEnd() + inside + base + "</" + tag + ">"));
    }

    private void before(Element element, int end, String lines) {
        String base = element.children().isEmpty()
                ? indentation(element.place().offset()) + unit()
                : indentation(element.children().get(0).place().offset());
        String added = indented(lines, base, unit());
        int lineStart = text.lastIndexOf('\n', end - 1) + 1;
        boolean alone = text.substring(lineStart, end).isBlank();
        if (alone) {
            inserts.add(new Insert(lineStart, lineStart, added));
        } else {
            inserts.add(new Insert(
                    end, end, lineEnd() + added + indentation(element.place().offset())));
        }
    }

    private String lineEnd() {
        return text.contains("\r\n") ? "\r\n" : "\n";
    }

    /** The white space before what stands first on its line. */
    private String indentation(int offset) {
        int lineStart = text.lastIndexOf('\n', offset - 1) + 1;
        int at = lineStart;
        while (at < offset && (text.charAt(at) == ' ' || text.charAt(at) == '\t')) {
            at++;
        }
        return text.substring(lineStart, at);
    }

    /** By how much the document indents. */
    private String unit() {
        for (Element child : document.root().children()) {
            String indentation = indentation(child.place().offset());
            if (!indentation.isEmpty()) {
                return indentation;
            }
        }
        return "  ";
    }

    private String indented(String lines, String base, String unit) {
        StringBuilder indented = new StringBuilder();
        for (String line : lines.split("\n")) {
            String plain = line.stripLeading();
            int level = (line.length() - plain.length()) / 2;
            if (!plain.isEmpty()) {
                indented.append(base).append(unit.repeat(level)).append(plain);
            }
            indented.append(lineEnd());
        }
        return indented.toString();
    }

    /** The bytes of the document with what was put into it; null when its encoding is not known or cannot write that. */
    public byte[] bytes() {
        Charset charset = charset();
        if (charset == null) {
            return null;
        }
        appended.forEach((element, lines) -> appended(element, lines.toString()));
        appended.clear();
        byte[] old = document.bytes();
        int mark = old.length - text.getBytes(charset).length;
        List<Insert> ordered = new ArrayList<>(inserts);
        // What is put before something that is replaced comes first.
        ordered.sort(Comparator.comparingInt(Insert::from).thenComparingInt(Insert::to));
        StringBuilder changed = new StringBuilder();
        int at = 0;
        for (Insert insert : ordered) {
            changed.append(text, at, insert.from()).append(insert.text());
            at = insert.to();
        }
        changed.append(text, at, text.length());
        try {
            ByteBuffer encoded = charset.newEncoder().encode(CharBuffer.wrap(changed));
            byte[] bytes = new byte[mark + encoded.remaining()];
            System.arraycopy(old, 0, bytes, 0, mark);
            encoded.get(bytes, mark, encoded.remaining());
            return bytes;
        } catch (CharacterCodingException e) {
            return null;
        }
    }

    /** The encoding in which the text of the document gives its bytes again, but for a mark before them. */
    private Charset charset() {
        List<Charset> tried =
                new ArrayList<>(List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE));
        Matcher declared = ENCODING.matcher(text);
        if (declared.lookingAt() && Charset.isSupported(declared.group(1))) {
            tried.add(0, Charset.forName(declared.group(1)));
        }
        byte[] old = document.bytes();
        for (Charset charset : tried) {
            if (charset.canEncode()) {
                byte[] again = text.getBytes(charset);
                int mark = old.length - again.length;
                if (mark >= 0 && mark <= 3 && Arrays.equals(old, mark, old.length, again, 0, again.length)) {
                    return charset;
                }
            }
        }
        return null;
    }
}
