package org.protypos.exchange.bridge;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.protypos.record.HeadRecord;
import org.protypos.record.RecordForm;

/**
 * A program that reads requests from its standard input and writes answers to its standard output: begun for each request, or kept
 * for all of them, one after the other. What it writes to its standard error goes where ours goes.
 */
public final class ProcessProgram implements RecordProgram {
    /** Where a program that knows files alone finds its input and its output. */
    private static final Map<String, String> FILES = Map.of("DD_NEXTREQ", "/dev/stdin", "DD_NEXTANS", "/dev/stdout");

    /** So many run beside each other at most. */
    private static final int MOST = 32;

    private final List<String> command;
    private final RecordForm form;
    private final boolean kept;
    private final Duration patience;
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "program-watch");
        thread.setDaemon(true);
        return thread;
    });
    private final Semaphore free = new Semaphore(MOST);
    private Running running;

    /**
     * Begins.
     *
     * @param command what the shell of this machine is to run
     * @param kept whether it stays for the next request
     * @param patience how long an answer may take
     */
    public ProcessProgram(String command, RecordForm form, boolean kept, Duration patience) {
        boolean windows = System.getProperty("os.name", "").startsWith("Windows");
        this.command = windows ? List.of("cmd", "/c", command) : List.of("sh", "-c", command);
        this.form = form;
        this.kept = kept;
        this.patience = patience;
    }

    /** A program that runs. */
    private record Running(Process process, InputStream in) {
        void kill() {
            process.descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        }
    }

    private Running started() throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT);
        FILES.forEach(builder.environment()::putIfAbsent);
        Process process = builder.start();
        return new Running(process, new BufferedInputStream(process.getInputStream()));
    }

    @Override
    public Reply ask(HeadRecord head, byte[] record) throws IOException {
        if (!kept) {
            free.acquireUninterruptibly();
            try {
                Running once = started();
                try {
                    return answered(once, head, record, true);
                } finally {
                    ended(once);
                }
            } finally {
                free.release();
            }
        }
        synchronized (this) {
            if (running == null || !running.process().isAlive()) {
                running = started();
            }
            try {
                return answered(running, head, record, false);
            } catch (IOException e) {
                // What it would write next answers nobody.
                running.kill();
                running = null;
                throw e;
            }
        }
    }

    /** One that has answered has done its work, but may still have something to put away. */
    private void ended(Running once) {
        ScheduledFuture<?> late = watch.schedule(once::kill, patience.toMillis(), TimeUnit.MILLISECONDS);
        once.process().onExit().thenRun(() -> late.cancel(false));
    }

    private Reply answered(Running asked, HeadRecord head, byte[] record, boolean last) throws IOException {
        AtomicBoolean late = new AtomicBoolean();
        ScheduledFuture<?> limit = watch.schedule(
                () -> {
                    late.set(true);
                    asked.kill();
                },
                patience.toMillis(),
                TimeUnit.MILLISECONDS);
        // It may begin to answer before it has read all.
        Thread writer = new Thread(() -> write(asked, head, record, last), "program-input");
        writer.setDaemon(true);
        writer.start();
        try {
            Reply reply = Reply.read(asked.in(), form);
            if (reply == null) {
                throw new IOException("the program ended without an answer" + status(asked.process()));
            }
            return reply;
        } catch (IOException e) {
            throw late.get()
                    ? new IOException("the program gave no answer within " + patience.toSeconds() + " s", e)
                    : e;
        } finally {
            limit.cancel(false);
        }
    }

    private static String status(Process process) {
        try {
            return process.waitFor(1, TimeUnit.SECONDS) ? ", with status " + process.exitValue() : "";
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return "";
        }
    }

    private void write(Running asked, HeadRecord head, byte[] record, boolean last) {
        OutputStream out = asked.process().getOutputStream();
        try {
            out.write(head.bytes(form));
            out.write(record);
            out.flush();
            if (last) {
                out.close();
            }
        } catch (IOException e) {
            // Who does not read has an answer all the same, or none, which is told.
            return;
        }
    }

    @Override
    public synchronized void close() {
        watch.shutdownNow();
        if (running != null) {
            running.kill();
        }
    }
}
