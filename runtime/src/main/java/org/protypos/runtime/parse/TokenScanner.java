package org.protypos.runtime.parse;

import javax.xml.stream.XMLStreamException;

/** Reads names, values and text (XML 1.0, sections 2.3, 2.4, 2.7, 3.3.3 and 4.1). */
abstract class TokenScanner extends CharWindow {
    final Symbols symbols;
    final ScannedText text = new ScannedText();

    TokenScanner(Symbols symbols) {
        this.symbols = symbols;
    }

    /** The name of the element around. */
    abstract String around();

    /** Passes over characters that mean nothing but themselves. */
    private void passPlain() {
        char[] from = buffer;
        int last = end;
        int next = at + 1;
        while (next < last && (Characters.isPlain(from[next]) || from[next] == ' ')) {
            next++;
        }
        at = next;
    }

    final Symbols.Name name() throws XMLStreamException {
        mark = at;
        long hash = symbols.hash();
        boolean ascii = true;
        while (at < end || more()) {
            char c = buffer[at];
            if (!Characters.isNameCharacter(c)) {
                if (c < 128) {
                    break;
                }
                ascii = false;
                if (!Characters.isName(c) && !Character.isSurrogate(c)) {
                    break;
                }
            }
            hash = symbols.next(hash, c);
            at++;
        }
        int start = mark;
        mark = -1;
        boolean sound = at > start && (ascii ? Characters.isNameStart(buffer[start]) : isName(start));
        Symbols.Name name = sound ? symbols.find(buffer, start, at - start, hash) : null;
        if (name == null) {
            throw wrong(
                    at == end
                            ? "it ends where a name is expected"
                            : at == start
                                    ? "a name is expected, not \"" + buffer[at] + "\""
                                    : "\"" + new String(buffer, start, at - start) + "\" is no name");
        }
        return name;
    }

    final boolean isName(int start) {
        int point = Character.codePointAt(buffer, start, at);
        boolean sound = Characters.isNameStart(point);
        for (int i = start; i < at; i += Character.charCount(point)) {
            point = Character.codePointAt(buffer, i, at);
            sound &= Characters.isName(point);
        }
        return sound;
    }

    /** The text up to the next tag, comment or instruction, with all CDATA sections in it. */
    final int text() throws XMLStreamException {
        text.begin();
        int run = at;
        while (true) {
            if (at == end) {
                text.add(buffer, run, at);
                if (!more()) {
                    throw wrong("it ends inside <" + around() + ">");
                }
                run = at;
            }
            char c = buffer[at];
            if (Characters.isPlain(c)) {
                text.seeMark();
                passPlain();
            } else if (c == '<') {
                if (at + 1 < end && buffer[at + 1] != '!') {
                    break;
                }
                text.add(buffer, run, at);
                boolean section = isAt("<![CDATA[");
                if (section) {
                    section();
                }
                run = at;
                if (!section) {
                    break;
                }
            } else if (c == '\n') {
                at++;
                newLine();
            } else if (c == ' ' || c == '\t') {
                at++;
            } else {
                run = special(c, run);
            }
        }
        text.end(buffer, run, at);
        return CHARACTERS;
    }

    /** Takes a character that is more than itself; gives where the next run begins. */
    final int special(char c, int run) throws XMLStreamException {
        switch (c) {
            case '\r' -> {
                text.add(buffer, run, at);
                lineEnd();
                text.add('\n');
                return at;
            }
            case '&' -> {
                text.add(buffer, run, at);
                text.add(reference());
                return at;
            }
            case ']' -> {
                text.add(buffer, run, at);
                if (isAt("]]>")) {
                    throw wrong("\"]]>\" stands in text");
                }
                text.seeMark();
                run = at;
            }
            default -> {
                legal(c);
                text.seeMark();
            }
        }
        at++;
        return run;
    }

    final void section() throws XMLStreamException {
        at += "<![CDATA[".length();
        int run = at;
        while (true) {
            if (at == end) {
                text.add(buffer, run, at);
                if (!more()) {
                    throw wrong("it ends inside a CDATA section");
                }
                run = at;
            }
            char c = buffer[at];
            if (c == ']') {
                text.add(buffer, run, at);
                if (isAt("]]>")) {
                    at += 3;
                    return;
                }
                run = at;
                text.seeMark();
                at++;
            } else if (c == '\r') {
                text.add(buffer, run, at);
                lineEnd();
                text.add('\n');
                run = at;
            } else {
                at++;
                if (c == '\n') {
                    newLine();
                } else if (!Characters.isSpace(c)) {
                    legal(c);
                    text.seeMark();
                }
            }
        }
    }

    /** The value of an attribute (XML 1.0, section 3.3.3: as if it were of the type CDATA). */
    final String value() throws XMLStreamException {
        if (!has(1) || buffer[at] != '"' && buffer[at] != '\'') {
            throw wrong("an attribute's value begins with a quotation mark");
        }
        char quote = buffer[at++];
        text.begin();
        int run = at;
        while (true) {
            if (at == end) {
                text.add(buffer, run, at);
                if (!more()) {
                    throw wrong("it ends inside the value of an attribute");
                }
                run = at;
            }
            char c = buffer[at];
            if (c == quote) {
                String value = text.finished(buffer, run, at);
                at++;
                return value;
            }
            if (Characters.isPlain(c) || c == ' ') {
                passPlain();
            } else if (c == '&') {
                text.add(buffer, run, at);
                text.add(reference());
                run = at;
            } else if (Characters.isSpace(c)) {
                text.add(buffer, run, at);
                if (c == '\t') {
                    at++;
                } else {
                    lineEndOf(c);
                }
                text.add(' ');
                run = at;
            } else if (c == '<') {
                throw wrong("\"<\" stands in the value of an attribute");
            } else {
                legal(c);
                at++;
            }
        }
    }

    final void lineEndOf(char c) throws XMLStreamException {
        if (c == '\r') {
            lineEnd();
        } else {
            at++;
            newLine();
        }
    }

    /** What a reference stands for; only the predefined entities are declared (XML 1.0, sections 4.1 and 4.6). */
    final int reference() throws XMLStreamException {
        at++;
        int point;
        if (has(1) && buffer[at] == '#') {
            point = number();
        } else {
            String entity = name().text;
            point = switch (entity) {
                case "lt" -> '<';
                case "gt" -> '>';
                case "amp" -> '&';
                case "apos" -> '\'';
                case "quot" -> '"';
                default -> throw wrong("the entity " + entity + " is not declared");
            };
        }
        need(";", "at the end of a reference");
        return point;
    }

    final int number() throws XMLStreamException {
        at++;
        boolean hex = has(1) && buffer[at] == 'x';
        at += hex ? 1 : 0;
        int point = -1;
        while (has(1)) {
            char c = buffer[at];
            int digit = c < 128 ? Character.digit(c, hex ? 16 : 10) : -1;
            if (digit < 0) {
                break;
            }
            point = Math.min((point < 0 ? 0 : point) * (hex ? 16 : 10) + digit, 0x110000);
            at++;
        }
        if (point < 0 || !Characters.isLegal(point)) {
            throw wrong("a reference to a character names none");
        }
        return point;
    }

    @Override
    public final String getText() {
        return text.text(buffer);
    }

    @Override
    public final boolean isWhiteSpace() {
        return text.isBlank();
    }
}
