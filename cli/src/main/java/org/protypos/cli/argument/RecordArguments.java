package org.protypos.cli.argument;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.record.ByteFiles;
import org.protypos.record.FolderFiles;
import org.protypos.record.RecordForm;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Messages as records of fixed length: where they are, and in what bytes. */
public final class RecordArguments implements Described {
    private CommandSpec spec;
    private Path in;
    private Path out;
    private String codePage;
    private boolean littleEndian;
    private Path files;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(
                        Path.class,
                        "--record-in",
                        "FILE",
                        "The request as a record of fixed length, as the copybook for it says.")
                .into(value -> in = value);
        syntax.option(
                        Path.class,
                        "--record-out",
                        "FILE",
                        "Where the record of the status goes, and the record of the answer or the fault behind it.")
                .into(value -> out = value);
        syntax.option(
                        String.class,
                        "--code-page",
                        "NAME",
                        "The characters of records: Cp1047, Cp037, Cp1140, ISO-8859-1 or another; ISO-8859-1 if not"
                                + " given.")
                .into(value -> codePage = value);
        syntax.flag("--little-endian", "Binary numbers in records have their least significant byte first.")
                .into(value -> littleEndian = value);
        syntax.option(
                        Path.class,
                        "--byte-files",
                        "DIR",
                        "Where the files are that records name, by a rule with file: true; those of answers are put"
                                + " there.")
                .into(value -> files = value);
    }

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
        String idle = codePage != null ? "--code-page" : littleEndian ? "--little-endian" : "--byte-files";
        if (in == null && !elsewhere && (codePage != null || littleEndian || files != null)) {
            throw new ParameterException(spec.commandLine(), idle + " is about records: give --record-in too");
        }
        if (files != null && !Files.isDirectory(files)) {
            throw new ParameterException(spec.commandLine(), "--byte-files: there is no folder " + files);
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
    public RecordForm form() {
        String name = codePage == null ? "ISO-8859-1" : codePage;
        try {
            RecordForm form = new RecordForm(
                    Charset.forName(name), littleEndian, files == null ? ByteFiles.NONE : new FolderFiles(files));
            if (form.isUsable()) {
                return form;
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
