package org.protypos.exchange.bridge;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import org.protypos.layout.RecordLayout;
import org.protypos.output.WholeFile;
import org.protypos.record.HeadRecord;
import org.protypos.record.RecordForm;
import org.protypos.record.StatusRecord;

/**
 * A program that finds requests as files of a folder and leaves its answers there: {@code R0000001.req} becomes {@code
 * R0000001.ans}. Both are gone when the answer has been taken.
 */
public final class FolderProgram implements RecordProgram {
    private static final int PAUSE = 20;

    private final Path folder;
    private final RecordForm form;
    private final Duration patience;
    private final AtomicInteger last = new AtomicInteger();

    /**
     * Begins.
     *
     * @param patience how long an answer may take
     */
    public FolderProgram(Path folder, RecordForm form, Duration patience) {
        this.folder = folder;
        this.form = form;
        this.patience = patience;
    }

    @Override
    public Reply ask(HeadRecord head, byte[] record) throws IOException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.write(head.bytes(form));
        all.write(record);
        Path request;
        Path answer;
        do {
            String name = String.format(Locale.ROOT, "R%07d", last.incrementAndGet());
            request = folder.resolve(name + FolderBridge.REQUEST);
            answer = folder.resolve(name + FolderBridge.ANSWER);
        } while (Files.exists(request) || Files.exists(answer));
        WholeFile.write(request, all.toByteArray());
        Reply reply = awaited(answer);
        Files.deleteIfExists(request);
        Files.delete(answer);
        return reply;
    }

    /** The answer when all of it is there: a program may write it bit by bit. */
    private Reply awaited(Path answer) throws IOException {
        long end = System.nanoTime() + patience.toNanos();
        IOException unfinished = new IOException("the program gave no answer within " + patience.toSeconds() + " s");
        while (System.nanoTime() < end) {
            if (Files.exists(answer)) {
                if (Files.size(answer) > RecordLayout.LARGEST + StatusRecord.size()) {
                    throw new IOException("the answer is longer than any record");
                }
                try {
                    Reply reply = Reply.read(new ByteArrayInputStream(Files.readAllBytes(answer)), form);
                    if (reply != null) {
                        return reply;
                    }
                } catch (IOException e) {
                    unfinished = e;
                }
            }
            try {
                Thread.sleep(PAUSE);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("nobody waits for the answer any more", e);
            }
        }
        throw unfinished;
    }

    @Override
    public void close() {
        // There is nothing to end: the folder is the caller's.
    }
}
