package org.protypos.target.cobol;

import java.util.List;
import java.util.Map;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;
import org.protypos.target.SourceFile;

/**
 * Writes a program that calls the operations of an interface, for a developer to go on with: for each operation the place where
 * the request is filled in, the call, and the places to work with the answer and with each fault.
 */
final class ProgramEmitter {
    private final CobolFile file;
    private final Map<RecordLayout, String> members;

    private ProgramEmitter(CobolFile file, Map<RecordLayout, String> members) {
        this.file = file;
        this.members = members;
    }

    /**
     * The program.
     *
     * @param program its name
     * @param about the interface, as the contract calls it
     * @param members the members of all records of the interface, in the order of its operations
     */
    static SourceFile emit(String program, String about, Map<RecordLayout, String> members) {
        CobolFile file = new CobolFile(program + ".cbl", false);
        new ProgramEmitter(file, members).write(program, about);
        return file.finish();
    }

    private List<RecordLayout> requests() {
        return members.keySet().stream()
                .filter(record -> record.part() == RecordLayout.Part.REQUEST)
                .toList();
    }

    private List<RecordLayout> answers(RecordLayout request) {
        return members.keySet().stream()
                .filter(record -> record.operation() == request.operation() && record != request)
                .toList();
    }

    private void write(String program, String about) {
        file.comment("Calls the operations of " + about + ". It is yours: it is written once.");
        file.heading("IDENTIFICATION DIVISION.");
        file.heading("PROGRAM-ID. " + program + ".");
        file.heading("DATA DIVISION.");
        file.heading("WORKING-STORAGE SECTION.");
        file.heading("COPY " + CobolApi.STATUS + ".");
        members.values().forEach(member -> file.heading("COPY " + member + "."));
        int longest = members.keySet().stream()
                .filter(record -> record.part() != RecordLayout.Part.REQUEST)
                .mapToInt(RecordLayout::length)
                .max()
                .orElse(1);
        file.heading("01  SERVICE-OPERATION        PIC X(64).");
        file.heading("01  SERVICE-REQUEST-LENGTH   PIC S9(9) BINARY.");
        file.heading("01  SERVICE-ANSWER-LENGTH    PIC S9(9) BINARY.");
        file.heading("01  SERVICE-ANSWER           PIC X(" + longest + ").");
        file.gap();
        file.heading("PROCEDURE DIVISION.");
        file.heading("MAIN-LINE.");
        requests().forEach(request -> file.line(0, "PERFORM " + paragraph(request) + "."));
        file.line(0, "STOP RUN.");
        requests().forEach(this::operation);
    }

    private static String paragraph(RecordLayout request) {
        return request.name().replaceFirst("-REQUEST[0-9]*$", "") + "-CALL";
    }

    private void operation(RecordLayout request) {
        List<RecordLayout> answers = answers(request);
        file.gap();
        file.heading(paragraph(request) + ".");
        file.line(0, "INITIALIZE " + request.name() + ".");
        file.comment("Fill in " + request.name() + " here.");
        file.line(0, "MOVE \"" + request.operation().name() + "\" TO SERVICE-OPERATION.");
        file.line(0, "MOVE LENGTH OF " + request.name());
        file.line(4, "TO SERVICE-REQUEST-LENGTH.");
        file.line(0, "MOVE LENGTH OF SERVICE-ANSWER TO SERVICE-ANSWER-LENGTH.");
        file.line(0, "CALL \"" + CallRoutine.NAME + "\" USING SERVICE-OPERATION");
        file.line(4, "SERVICE-REQUEST-LENGTH " + request.name());
        file.line(4, "SERVICE-ANSWER-LENGTH SERVICE-ANSWER " + StatusLayout.NAME + ".");
        file.line(0, "EVALUATE TRUE");
        file.line(4, "WHEN CALL-DONE");
        answers.stream()
                .filter(answer -> answer.part() == RecordLayout.Part.RESPONSE)
                .forEach(this::taken);
        file.comment("Work with the answer here.");
        file.line(8, "CONTINUE");
        for (RecordLayout fault : answers) {
            if (fault.part() == RecordLayout.Part.FAULT) {
                file.line(4, "WHEN CALL-FAULT AND CALL-ANSWER");
                file.line(8, "= \"" + fault.name() + "\"");
                taken(fault);
                file.comment("Work with the fault here.");
                file.line(8, "CONTINUE");
            }
        }
        file.line(4, "WHEN OTHER");
        file.line(8, "DISPLAY CALL-RESULT \" \" CALL-REASON");
        file.line(0, "END-EVALUATE.");
    }

    private void taken(RecordLayout answer) {
        file.line(8, "MOVE SERVICE-ANSWER (1:" + answer.length() + ")");
        file.line(12, "TO " + answer.name());
    }
}
