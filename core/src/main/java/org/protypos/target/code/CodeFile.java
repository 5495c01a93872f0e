package org.protypos.target.code;

/** A source file being written: lines with their indentation, in a language that has lines and blocks. */
public abstract class CodeFile<F extends CodeFile<F>> implements CodeLines, Spelling {
    /** The white space before what stands in a block. */
    protected static final String INDENT = "    ";

    private final StringBuilder body = new StringBuilder(4096);
    private final String further;
    private int depth;

    /**
     * Starts a file.
     *
     * @param depth how many blocks there are around it
     * @param further the white space before the rest of a line that is too long, beside what is before its beginning
     */
    protected CodeFile(int depth, String further) {
        this.depth = depth;
        this.further = further;
    }

    /** The file itself. */
    protected abstract F self();

    /** What has been written. */
    protected final StringBuilder body() {
        return body;
    }

    /** How many characters are before what is written next. */
    protected final int margin() {
        return INDENT.length() * depth;
    }

    private String indentation() {
        return INDENT.repeat(depth);
    }

    @Override
    public final F line(String template, Object... arguments) {
        int start = body.length();
        String indentation = indentation();
        body.append(indentation);
        Code.write(body, this, template, arguments);
        LineWrap.end(body, start, indentation, further);
        return self();
    }

    /** Writes a line as it is, however long. */
    protected final void verbatim(String line) {
        body.append(indentation()).append(line).append('\n');
    }

    /** Writes an empty line. */
    public final F gap() {
        body.append('\n');
        return self();
    }

    @Override
    public abstract F block(String template, Object... arguments);

    @Override
    public abstract F orElse(String template, Object... arguments);

    @Override
    public final F close() {
        return close("");
    }

    /** Closes a block with something behind the brace. */
    public final F close(String behind) {
        shift(-1);
        return line("}" + behind);
    }

    /** Goes on in lines that belong to the one before. */
    public abstract F indent();

    /** Ends such lines. */
    public abstract F outdent();

    /** Goes on so many blocks deeper, or less deep. */
    protected final F shift(int blocks) {
        depth += blocks;
        return self();
    }
}
