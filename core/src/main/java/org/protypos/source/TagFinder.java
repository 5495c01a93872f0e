package org.protypos.source;

/**
 * Walks over the text of a document beside the parser and finds where each start tag begins, for parsers tell only
 * roughly. Tags that an entity brings in do not stand in the text; they count as standing where the entity was used.
 */
public final class TagFinder {
    private final String text;
    private int at;
    private int last;

    /** Starts at the beginning of a text. */
    public TagFinder(String text) {
        this.text = text;
    }

    /** The offset of the next start tag, in a text in which each tag stands. */
    public int next() {
        last = Math.max(0, nextTag());
        at = tagEnd(last);
        return last;
    }

    /** The offset of the next start tag, which must be of this name. */
    public int next(String prefix, String name) {
        int start = nextTag();
        if (start >= 0 && isTag(start, prefix, name)) {
            last = start;
            at = tagEnd(start);
        }
        return last;
    }

    private boolean isTag(int start, String prefix, String name) {
        int from = start + 1;
        if (!prefix.isEmpty()) {
            if (!text.startsWith(prefix, from) || text.charAt(from + prefix.length()) != ':') {
                return false;
            }
            from += prefix.length() + 1;
        }
        int end = from + name.length();
        return text.startsWith(name, from)
                && end < text.length()
                && (text.charAt(end) <= ' ' || text.charAt(end) == '>' || text.charAt(end) == '/');
    }

    private int nextTag() {
        int open = text.indexOf('<', at);
        while (open >= 0 && open + 1 < text.length()) {
            char c = text.charAt(open + 1);
            if (c != '!' && c != '?' && c != '/') {
                return open;
            }
            at = behind(open, c);
            open = text.indexOf('<', at);
        }
        return -1;
    }

    private int behind(int open, char c) {
        if (c == '?') {
            return after("?>", open);
        }
        if (text.startsWith("<!--", open)) {
            return after("-->", open + 4);
        }
        if (text.startsWith("<![CDATA[", open)) {
            return after("]]>", open);
        }
        return c == '!' ? doctypeEnd(open) : after(">", open);
    }

    private int after(String end, int from) {
        int found = text.indexOf(end, from);
        return found < 0 ? text.length() : found + end.length();
    }

    /** A document type declaration ends at the bracket behind its internal subset. */
    private int doctypeEnd(int open) {
        int i = open + 2;
        boolean subset = false;
        while (i < text.length()) {
            char c = text.charAt(i);
            if (c == '"' || c == '\'') {
                i = after(String.valueOf(c), i + 1);
            } else if (text.startsWith("<!--", i)) {
                i = after("-->", i + 4);
            } else {
                subset = c == '[' || subset && c != ']';
                i++;
                if (c == '>' && !subset) {
                    return i;
                }
            }
        }
        return i;
    }

    private int tagEnd(int start) {
        int i = start + 1;
        while (i < text.length() && text.charAt(i) != '>') {
            char c = text.charAt(i);
            i = c == '"' || c == '\'' ? after(String.valueOf(c), i + 1) : i + 1;
        }
        return i;
    }
}
