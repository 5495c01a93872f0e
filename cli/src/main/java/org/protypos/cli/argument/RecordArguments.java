package org.protypos.cli.argument;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.protypos.record.ByteFiles;
import org.protypos.record.FolderFiles;
import org.protypos.record.RecordForm;
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

    @Option(
            names = "--byte-files",
            paramLabel = "DIR",
            description = "Where the files are that records name, by a rule with file: true; those of answers are put"
                    + " there.")
    private Path files;

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
