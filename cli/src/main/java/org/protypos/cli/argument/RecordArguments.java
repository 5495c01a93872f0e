package org.protypos.cli.argument;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Path;
import org.protypos.record.CodePage;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Messages as records of fixed length: where they are, and in what bytes. */
public final class RecordArguments {
    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Option(
            names = "--record-in",
            paramLabel = "FILE",
            description = "The request as a record of fixed length, as the copybook for it says.")
    private Path in;

    @Option(
            names = "--record-out",
            paramLabel = "FILE",
            description = "Where the record of the status goes, and the record of the answer or the fault behind it.")
    private Path out;

    @Option(
            names = "--code-page",
            paramLabel = "NAME",
            description = "The characters of records: Cp1047, Cp037, Cp1140, ISO-8859-1 or another; ISO-8859-1 if not"
                    + " given.")
    private String codePage;

    @Option(
            names = "--little-endian",
            description = "Binary numbers in records have their least significant byte first.")
    private boolean littleEndian;

    /**
     * Whether messages are records in files.
     *
     * @param elsewhere whether there are records when they are in no files
     */
    public boolean isGiven(boolean elsewhere) {
        if (in == null != (out == null)) {
            throw new ParameterException(
                    spec.commandLine(), "--record-in and --record-out go together: one record in, the answer out");
        }
        if (in == null && !elsewhere && (codePage != null || littleEndian)) {
            throw new ParameterException(
                    spec.commandLine(),
                    (codePage != null ? "--code-page" : "--little-endian") + " is about records: give --record-in too");
        }
        return in != null;
    }

    /** The file of the request. */
    public Path in() {
        return in;
    }

    /** The file for the answer. */
    public Path out() {
        return out;
    }

    /** The bytes of records. */
    public CodePage page() {
        String name = codePage == null ? "ISO-8859-1" : codePage;
        try {
            CodePage page = new CodePage(Charset.forName(name), littleEndian);
            if (page.isUsable()) {
                return page;
            }
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            // Told below, as one that is known and no good is.
        }
        throw new ParameterException(
                spec.commandLine(),
                "--code-page: " + name + " is none in which a digit is a byte; try Cp1047, Cp037, Cp1140, US-ASCII,"
                        + " ISO-8859-1 or UTF-8");
    }
}
