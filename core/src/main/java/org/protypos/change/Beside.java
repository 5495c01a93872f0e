package org.protypos.change;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.Supplier;

/** Finds something out beside something else, in a thread with as much room as contracts may need that nest deep. */
public final class Beside<T> {
    private static final long STACK_BYTES = 512L << 20;

    private final CompletableFuture<T> result;

    private Beside(CompletableFuture<T> result) {
        this.result = result;
    }

    /** Begins. */
    public static <T> Beside<T> begin(Supplier<T> work) {
        return new Beside<>(CompletableFuture.supplyAsync(work, task -> {
            Thread thread = new Thread(null, task, "beside", STACK_BYTES);
            thread.setDaemon(true);
            thread.start();
        }));
    }

    /** What was found out; waits for it. What went wrong there goes wrong here. */
    public T result() {
        try {
            return result.join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof RuntimeException own) {
                throw own;
            }
            if (e.getCause() instanceof Error own) {
                throw own;
            }
            throw e;
        }
    }
}
