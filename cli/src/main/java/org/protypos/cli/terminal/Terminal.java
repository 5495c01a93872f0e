package org.protypos.cli.terminal;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.Setting;
import org.protypos.target.Toolchain;

/** Where a command writes: results to one side, messages to the other, in colour only where a person looks. */
public final class Terminal {
    /** Set by the launcher, which alone can tell on every Java version whether a person looks. */
    private static final boolean READ = Boolean.getBoolean("protypos.terminal");

    private static final boolean COLOUR = READ && System.getenv("NO_COLOR") == null;

    private static final int WIDTH = 120;
    private static final int NARROWEST = 60;
    /** What stands for a character that is not shown. */
    static final char INSTEAD = '\ufffd';

    private final PrintWriter out;
    private final PrintWriter err;

    /** Joins the two streams of a program. */
    public Terminal(PrintWriter out, PrintWriter err) {
        this.out = out;
        this.err = err;
    }

    /** Whether a person reads the results in a terminal. */
    public static boolean isRead() {
        return READ;
    }

    /** How many lines the terminal has. */
    public int height() {
        return size(0, 24);
    }

    /** How many letters a line has room for. */
    public int width() {
        return Math.max(NARROWEST, size(1, WIDTH));
    }

    /** What the launcher has seen of the terminal: its lines and its columns. */
    private static int size(int part, int otherwise) {
        String[] size = System.getProperty("protypos.size", "").strip().split(" ");
        return size.length == 2 && size[part].matches("[1-9][0-9]{0,3}") ? Integer.parseInt(size[part]) : otherwise;
    }

    /** Where results go. */
    public PrintWriter out() {
        return out;
    }

    /** Where messages go. */
    public PrintWriter err() {
        return err;
    }

    /** Says what is wrong and how to mend it. */
    public void problem(String message, String cure) {
        err.println(red("error") + ": " + message);
        if (!cure.isEmpty()) {
            err.println("  " + cure);
        }
        err.flush();
    }

    /** Tells of one of several things that go on at the same time. */
    public synchronized void line(String about, String what) {
        out.println(plain(about + ": " + what));
        out.flush();
    }

    /** Whether a toolchain lacks something on this machine; says what and how to get it. */
    public boolean isLacking(Toolchain toolchain) {
        Toolchain.Missing missing = toolchain.missing();
        if (missing != null) {
            problem(missing.what(), missing.cure());
        }
        return missing != null;
    }

    /** Tells why a command did nothing: as one JSON document, or on the side of messages. */
    public void refuse(List<Finding> findings, String consequence, boolean json) throws IOException {
        if (json) {
            Json.print(out, document -> Json.findings(document, findings));
            return;
        }
        new FindingPrinter(err).print(findings);
        problem(FindingPrinter.summary(findings) + ": " + consequence, "");
    }

    /** A text that stands out. */
    public static String bold(String text) {
        return paint("1", text);
    }

    /** A text that steps back. */
    public static String dim(String text) {
        return paint("2", text);
    }

    /** A text that says what failed. */
    public static String red(String text) {
        return paint("1;31", text);
    }

    /** A text that warns. */
    public static String yellow(String text) {
        return paint("1;33", text);
    }

    /** A text that names a thing. */
    public static String cyan(String text) {
        return paint("36", text);
    }

    private static String paint(String code, String text) {
        return COLOUR ? "\u001b[" + code + "m" + text + "\u001b[0m" : text;
    }

    /** How many there are of something, such as {@code 2 schemas}. */
    public static String counted(long count, String what) {
        return count + " " + what + (count == 1 ? "" : "s");
    }

    /** A text in which settings are called as options say them. */
    public static String options(String text) {
        return Setting.in(text, word -> "--" + word);
    }

    /** Contract text may hold characters that a terminal would obey. */
    public static String plain(String text) {
        return Printable.without(text, INSTEAD);
    }
}
