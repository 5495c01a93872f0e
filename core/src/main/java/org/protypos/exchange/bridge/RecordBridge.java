package org.protypos.exchange.bridge;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.BiConsumer;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.record.HeadRecord;
import org.protypos.record.RecordForm;
import org.protypos.record.StatusRecord;
import org.protypos.runtime.soap.SoapSettings;

/**
 * Carries records to a service and back, any number of them, one after the other: before each request stands a head that says
 * what it is, and for each comes a status, with the record of the answer behind it. May be used by several threads.
 */
public final class RecordBridge {
    private final Map<String, Line> lines = new LinkedHashMap<>();
    private final ContractCheck check;
    private final RecordForm form;

    /** One operation and the ways to it: as many as there are threads that use one. */
    private record Line(String operation, RecordMessages messages, Supplier<Caller> ways, Queue<Caller> free) {
        String record() {
            return messages.request().name();
        }

        Caller.Answer call(String request) {
            Caller caller = free.poll();
            caller = caller == null ? ways.get() : caller;
            try {
                return caller.call(request);
            } finally {
                free.add(caller);
            }
        }
    }

    /**
     * Begins.
     *
     * @param records the records of the contract
     * @param operations the operations that can be called; the first of a name is
     * @param with the settings of all connections
     */
    public RecordBridge(
            List<RecordLayout> records,
            List<CalledOperation> operations,
            ContractCheck check,
            RecordForm form,
            UnaryOperator<SoapSettings> with) {
        this.check = check;
        this.form = form;
        for (CalledOperation operation : operations) {
            RecordMessages messages = new RecordMessages(records, operation, form);
            String name = operation.operation().name();
            if (messages.request() != null) {
                Line line = new Line(
                        name, messages, () -> new Caller(operation, check, with), new ConcurrentLinkedQueue<>());
                lines.putIfAbsent(name, line);
                lines.putIfAbsent(line.record(), line);
            }
        }
    }

    /**
     * Carries all requests of a file, and writes the answers to another.
     *
     * @param told is told the operation and the result of each, when it has been carried
     * @throws IOException when a file fails, or the first ends inside a record; what was answered until then is written
     */
    public void carry(Path requests, Path answers, BiConsumer<String, String> told) throws IOException {
        Path part = answers.resolveSibling(answers.getFileName() + ".part");
        try (InputStream in = new BufferedInputStream(Files.newInputStream(requests))) {
            // A new file, so that nothing is written to where a link of its name would lead.
            Files.deleteIfExists(part);
            try (OutputStream out =
                    new BufferedOutputStream(Files.newOutputStream(part, StandardOpenOption.CREATE_NEW))) {
                carry(in, out, told);
            } finally {
                // What was answered has been done, also when what comes behind it cannot be read.
                Files.move(part, answers, StandardCopyOption.REPLACE_EXISTING);
            }
        }
    }

    /**
     * Carries all that comes.
     *
     * @param told is told the operation and the result of each, when it has been carried
     * @throws IOException when a stream fails, or ends inside a record
     */
    public void carry(InputStream in, OutputStream out, BiConsumer<String, String> told) throws IOException {
        for (byte[] head = in.readNBytes(HeadRecord.size()); head.length > 0; head = in.readNBytes(HeadRecord.size())) {
            HeadRecord said = head.length < HeadRecord.size() ? null : HeadRecord.of(head, form);
            if (said == null || said.length() > RecordLayout.LARGEST) {
                refuse(out, "", "what should be CALL-HEAD is none", told);
                throw new EOFException("what should be CALL-HEAD is none; nothing behind it was read");
            }
            byte[] record = in.readNBytes(said.length());
            if (record.length < said.length()) {
                throw new EOFException("the input ends inside the record of " + said.operation());
            }
            one(said, record, out, told);
            // Who waits for the answer has sent nothing more.
            if (in.available() == 0) {
                out.flush();
            }
        }
        out.flush();
    }

    private void refuse(OutputStream out, String operation, String why, BiConsumer<String, String> told)
            throws IOException {
        out.write(new StatusRecord(StatusLayout.REQUEST, operation, "", 0, why).bytes(form));
        told.accept(operation, StatusLayout.REQUEST + " " + why);
    }

    private void one(HeadRecord said, byte[] record, OutputStream out, BiConsumer<String, String> told)
            throws IOException {
        Line line = lines.get(said.operation());
        if (line == null) {
            refuse(out, said.operation(), "there is no operation " + said.operation(), told);
        } else if (!line.messages().request().fits(record.length)) {
            refuse(
                    out,
                    line.record(),
                    "the record has " + record.length + " bytes, and "
                            + line.messages().request().name() + " has "
                            + line.messages().request().length(),
                    told);
        } else {
            RecordMessages.Answered answered = carried(line, record);
            out.write(answered.status());
            out.write(answered.record());
            told.accept(
                    line.operation(), answered.result() + (answered.reason().isEmpty() ? "" : " " + answered.reason()));
        }
    }

    private RecordMessages.Answered carried(Line line, byte[] record) {
        Findings wrong = new Findings();
        MessageElement request;
        synchronized (check) {
            request = line.messages().request(record, check, line.operation(), wrong);
        }
        return wrong.hasErrors()
                ? line.messages().refused(wrong.sorted())
                : line.messages().answer(line.call(MessageText.of(request)), line.operation(), wrong);
    }
}
