package org.protypos.authoring;

import org.protypos.source.XmlText;

/** Writes an XML document as a careful person would: two spaces of indentation, namespaces below each other. */
public final class Markup {
    private static final int WIDTH = 110;

    private static final String DECLARATION = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n";

    private final StringBuilder text = new StringBuilder();
    private final boolean isDocument;
    private int depth;

    private Markup(boolean isDocument) {
        this.isDocument = isDocument;
    }

    /** Begins a document; the attributes of its root stand below each other. */
    public static Markup document() {
        Markup markup = new Markup(true);
        markup.text.append(DECLARATION);
        return markup;
    }

    /** Begins lines that come to stand in a document. */
    public static Markup fragment() {
        return new Markup(false);
    }

    /**
     * Opens an element that others stand in.
     *
     * @param attributes names and values by turns; one whose value is null is left out
     */
    public Markup open(String tag, String... attributes) {
        tag(tag, attributes, ">", isDocument && depth == 0);
        depth++;
        return this;
    }

    /** Closes the element that was opened last. */
    public Markup close(String tag) {
        depth--;
        indent().append("</").append(tag).append(">\n");
        return this;
    }

    /** Writes an element that holds nothing. */
    public Markup empty(String tag, String... attributes) {
        tag(tag, attributes, "/>", false);
        return this;
    }

    /** Writes an element that holds text; long text is broken into lines. */
    public Markup text(String tag, String content) {
        indent().append('<').append(tag).append('>');
        String escaped = XmlText.escaped(content, false);
        if (2 * depth + 2 * tag.length() + 5 + escaped.length() <= WIDTH && escaped.indexOf('\n') < 0) {
            text.append(escaped);
        } else {
            text.append('\n');
            for (String line : escaped.split("\n")) {
                wrapped(line.strip());
            }
            indent();
        }
        text.append("</").append(tag).append(">\n");
        return this;
    }

    /** Leaves a line empty. */
    public Markup gap() {
        text.append('\n');
        return this;
    }

    private void wrapped(String line) {
        int width = Math.max(40, WIDTH - 2 * depth - 2);
        String rest = line;
        while (rest.length() > width) {
            int space = rest.lastIndexOf(' ', width);
            int end = space > 0 ? space : rest.indexOf(' ');
            if (end < 0) {
                break;
            }
            indent().append("  ").append(rest, 0, end).append('\n');
            rest = rest.substring(end + 1);
        }
        indent().append("  ").append(rest).append('\n');
    }

    private void tag(String tag, String[] attributes, String end, boolean below) {
        indent().append('<').append(tag);
        String between = " ";
        for (int i = 0; i < attributes.length; i += 2) {
            if (attributes[i + 1] != null) {
                text.append(between).append(attributes[i]).append("=\"");
                text.append(XmlText.escaped(attributes[i + 1], true)).append('"');
                between = below ? "\n" + " ".repeat(tag.length() + 2) : " ";
            }
        }
        text.append(end).append('\n');
    }

    private StringBuilder indent() {
        return text.append("  ".repeat(depth));
    }

    @Override
    public String toString() {
        return text.toString();
    }
}
