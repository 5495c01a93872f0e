package org.protypos.runtime.xml;

import org.protypos.runtime.value.Lexical;

/** A message is not well-formed, breaks the contract or passes a limit; says where in the message. */
public final class XmlFormatException extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private static final int MOST = 1_000;

    private final String reason;
    private final int line;
    private final int column;
    private final String path;

    private XmlFormatException(String reason) {
        super(shorten(reason));
        this.reason = getMessage();
        this.line = 1;
        this.column = 1;
        this.path = "";
    }

    XmlFormatException(String message, int line, int column, String path, Throwable cause) {
        super(
                shorten(message) + " (line " + line + ", column " + column
                        + (path.isEmpty() ? "" : ", at " + shorten(path)) + ")",
                cause);
        this.reason = shorten(message);
        this.line = line;
        this.column = column;
        this.path = shorten(path);
    }

    /** What is wrong may quote a message, and who sends one of a few megabytes is not answered with all of them. */
    private static String shorten(String text) {
        return text == null ? null : Lexical.shortened(text, MOST);
    }

    /** A message that is wrong as a whole, at no one place. */
    public static XmlFormatException of(String message) {
        return new XmlFormatException(message);
    }

    /** What is wrong, without the place. */
    public String reason() {
        return reason;
    }

    /** The line in the message, from 1. */
    public int line() {
        return line;
    }

    /** The column in the message, from 1. */
    public int column() {
        return column;
    }

    /** The elements from the root to the place, such as {@code /Envelope/Body/requestBerth}. */
    public String path() {
        return path;
    }
}
