package org.protypos.target.cobol;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;
import org.protypos.target.Beginning;

/**
 * Writes programs for a developer to go on with: one that calls the operations of an interface, and one that answers them. Each
 * operation has a paragraph, with the places to fill in and to work.
 */
final class ProgramEmitter {
    private static final String PARAGRAPH = "(?m)^ {7}%s\\.";
    private static final String FREE_PARAGRAPH = "(?mi)^ *%s\\.";

    private final CobolFile file;
    private final String program;
    private final Map<RecordLayout, String> members;
    private final Map<String, String> paragraphs = new LinkedHashMap<>();

    private ProgramEmitter(String program, Map<RecordLayout, String> members) {
        this.file = new CobolFile(program + ".cbl", false);
        this.program = program;
        this.members = members;
    }

    /**
     * The program that calls.
     *
     * @param program its name
     * @param about the interface, as the contract calls it
     * @param members the members of all records of the interface, in the order of its operations
     */
    static Beginning client(String program, String about, Map<RecordLayout, String> members) {
        ProgramEmitter emitter = new ProgramEmitter(program, members);
        emitter.file.comment("Calls the operations of " + about + ". It is yours: it is written once.");
        emitter.data();
        emitter.calls();
        return new Beginning(emitter.file.finish(), emitter.paragraphs, PARAGRAPH);
    }

    /** The program that answers, likewise. */
    static Beginning server(String program, String about, Map<RecordLayout, String> members) {
        ProgramEmitter emitter = new ProgramEmitter(program, members);
        emitter.file.comment("Answers the operations of " + about + ". It is yours: it is written once.");
        emitter.data();
        emitter.answers();
        return new Beginning(emitter.file.finish(), emitter.paragraphs, PARAGRAPH);
    }

    /** A program in free form, and its paragraphs likewise. */
    static Beginning free(Beginning fixed) {
        Map<String, String> paragraphs = new LinkedHashMap<>(fixed.methods());
        paragraphs.replaceAll((name, text) -> CobolFile.free(text));
        return new Beginning(CobolFile.free(fixed.file()), paragraphs, FREE_PARAGRAPH);
    }

    private List<RecordLayout> requests() {
        return members.keySet().stream()
                .filter(record -> record.part() == RecordLayout.Part.REQUEST)
                .toList();
    }

    /** The records of the response, if there is one, and of all faults. */
    private List<RecordLayout> answers(RecordLayout request) {
        return members.keySet().stream()
                .filter(record -> record.operation() == request.operation() && record != request)
                .toList();
    }

    private void data() {
        file.heading("IDENTIFICATION DIVISION.");
        file.heading("PROGRAM-ID. " + program + ".");
        file.heading("DATA DIVISION.");
        file.heading("WORKING-STORAGE SECTION.");
        file.heading("COPY " + CobolApi.STATUS + ".");
        members.values().forEach(member -> file.heading("COPY " + member + "."));
        file.heading("01  SERVICE-OPERATION        PIC X(64).");
        file.heading("01  SERVICE-REQUEST-LENGTH   PIC S9(9) BINARY.");
        file.heading("01  SERVICE-REQUEST          PIC X(" + longest(true) + ").");
        file.heading("01  SERVICE-ANSWER-LENGTH    PIC S9(9) BINARY.");
        file.heading("01  SERVICE-ANSWER           PIC X(" + longest(false) + ").");
        file.gap();
        file.heading("PROCEDURE DIVISION.");
        file.heading("MAIN-LINE.");
    }

    private int longest(boolean request) {
        return members.keySet().stream()
                .filter(record -> (record.part() == RecordLayout.Part.REQUEST) == request)
                .mapToInt(RecordLayout::length)
                .max()
                .orElse(1);
    }

    private static String named(RecordLayout request, String what) {
        return request.name().replaceFirst("-REQUEST([0-9]*)$", "$1") + what;
    }

    /** Calls a routine with all that it shares with a program. */
    private void call(Routine routine) {
        file.line(0, "CALL \"" + routine + "\" USING SERVICE-OPERATION");
        file.line(4, "SERVICE-REQUEST-LENGTH SERVICE-REQUEST");
        file.line(4, "SERVICE-ANSWER-LENGTH SERVICE-ANSWER " + StatusLayout.NAME + ".");
    }

    private void calls() {
        file.line(0, "MOVE LENGTH OF SERVICE-ANSWER TO SERVICE-ANSWER-LENGTH.");
        requests().forEach(request -> file.line(0, "PERFORM " + named(request, "-CALL") + "."));
        file.line(0, "STOP RUN.");
        requests().forEach(request -> paragraph(named(request, "-CALL"), () -> called(request)));
    }

    private void paragraph(String name, Runnable content) {
        file.gap();
        int from = file.length();
        file.heading(name + ".");
        content.run();
        paragraphs.put(name, file.since(from));
    }

    private void called(RecordLayout request) {
        List<RecordLayout> answers = answers(request);
        file.line(0, "INITIALIZE " + request.name() + ".");
        file.comment("Fill in " + request.name() + " here.");
        file.line(0, "MOVE \"" + request.name() + "\" TO SERVICE-OPERATION.");
        file.line(0, "MOVE " + request.name() + " TO SERVICE-REQUEST.");
        file.line(0, "MOVE LENGTH OF " + request.name());
        file.line(4, "TO SERVICE-REQUEST-LENGTH.");
        call(Routine.CALLSERV);
        file.line(0, "EVALUATE TRUE");
        file.line(4, "WHEN CALL-DONE");
        answers.stream()
                .filter(answer -> answer.part() == RecordLayout.Part.RESPONSE)
                .forEach(this::taken);
        file.comment("Work with the answer here.");
        file.line(8, "CONTINUE");
        for (RecordLayout fault : answers) {
            if (fault.part() == RecordLayout.Part.FAULT) {
                isFault(fault);
                taken(fault);
                file.comment("Work with the fault here.");
                file.line(8, "CONTINUE");
            }
        }
        file.line(4, "WHEN CALL-KEPT");
        file.line(8, "CONTINUE");
        file.line(4, "WHEN OTHER");
        file.line(8, "DISPLAY CALL-RESULT \" \" CALL-REASON");
        file.line(0, "END-EVALUATE.");
    }

    private void isFault(RecordLayout fault) {
        file.line(4, "WHEN CALL-FAULT AND CALL-ANSWER");
        file.line(8, "= \"" + fault.name() + "\"");
    }

    private void taken(RecordLayout answer) {
        file.line(8, "MOVE SERVICE-ANSWER (1:" + answer.length() + ")");
        file.line(12, "TO " + answer.name());
    }

    private void answers() {
        file.line(0, "MOVE LENGTH OF SERVICE-REQUEST TO SERVICE-REQUEST-LENGTH.");
        file.line(0, "MOVE LENGTH OF SERVICE-ANSWER TO SERVICE-ANSWER-LENGTH.");
        file.line(0, "PERFORM TAKE-NEXT-REQUEST.");
        file.line(0, "PERFORM UNTIL SERVICE-OPERATION = SPACES");
        file.line(4, "EVALUATE SERVICE-OPERATION");
        for (RecordLayout request : requests()) {
            file.line(8, "WHEN \"" + request.name() + "\"");
            file.line(12, "PERFORM " + named(request, "-SERVE"));
        }
        file.line(8, "WHEN OTHER");
        file.line(12, "SET CALL-REFUSED TO TRUE");
        file.line(12, "MOVE \"no such operation\" TO CALL-REASON");
        file.line(4, "END-EVALUATE");
        file.line(4, "PERFORM TAKE-NEXT-REQUEST");
        file.line(0, "END-PERFORM.");
        file.line(0, "STOP RUN.");
        file.gap();
        file.heading("TAKE-NEXT-REQUEST.");
        call(Routine.NEXTSERV);
        requests().forEach(request -> paragraph(named(request, "-SERVE"), () -> served(request)));
    }

    private void served(RecordLayout request) {
        List<RecordLayout> answers = answers(request);
        file.line(0, "MOVE SERVICE-REQUEST (1:" + request.length() + ")");
        file.line(4, "TO " + request.name() + ".");
        answers.forEach(answer -> file.line(0, "INITIALIZE " + answer.name() + "."));
        file.line(0, "SET CALL-DONE TO TRUE.");
        RecordLayout response = answers.stream()
                .filter(answer -> answer.part() == RecordLayout.Part.RESPONSE)
                .findFirst()
                .orElse(null);
        file.comment("Do the work here" + (response == null ? "." : ", and fill in " + response.name() + "."));
        for (RecordLayout fault : answers) {
            if (fault.part() == RecordLayout.Part.FAULT) {
                file.comment("A fault: fill in " + fault.name() + ", and");
                file.comment("    SET CALL-FAULT TO TRUE");
                file.comment("    MOVE \"" + fault.name() + "\" TO CALL-ANSWER");
            }
        }
        file.line(0, "EVALUATE TRUE");
        file.line(4, "WHEN CALL-DONE");
        if (response == null) {
            file.line(8, "CONTINUE");
        } else {
            file.line(8, "MOVE \"" + response.name() + "\"");
            file.line(12, "TO CALL-ANSWER");
            given(response);
        }
        for (RecordLayout fault : answers) {
            if (fault.part() == RecordLayout.Part.FAULT) {
                isFault(fault);
                given(fault);
            }
        }
        file.line(4, "WHEN OTHER");
        file.line(8, "CONTINUE");
        file.line(0, "END-EVALUATE.");
    }

    private void given(RecordLayout answer) {
        file.line(8, "MOVE " + answer.name() + " TO SERVICE-ANSWER");
        file.line(8, "MOVE LENGTH OF " + answer.name());
        file.line(12, "TO CALL-ANSWER-LENGTH");
    }
}
