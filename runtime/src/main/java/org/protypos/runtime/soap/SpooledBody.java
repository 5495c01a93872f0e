package org.protypos.runtime.soap;

import java.io.IOException;
import java.net.http.HttpResponse.BodySubscriber;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;
import org.protypos.runtime.attach.Spool;

/**
 * Takes the body of an answer, and breaks off as soon as it is longer than allowed. The HTTP client has it at once, before
 * any of it has come: whoever wants it waits for the {@linkplain #whole whole} of it himself.
 */
final class SpooledBody implements BodySubscriber<SpooledBody> {
    private final Spool taken;
    private final CompletableFuture<Spool> whole = new CompletableFuture<>();
    private Flow.Subscription subscription;

    SpooledBody(Spool into) {
        taken = into;
    }

    @Override
    public CompletionStage<SpooledBody> getBody() {
        return CompletableFuture.completedFuture(this);
    }

    /** The body when all of it has come. */
    CompletableFuture<Spool> whole() {
        return whole;
    }

    /** Takes no more of it, unless all has come. */
    void giveUp() {
        if (whole.cancel(false)) {
            stop();
            discard();
        }
    }

    private synchronized void stop() {
        if (subscription != null) {
            subscription.cancel();
        }
    }

    @Override
    public void onSubscribe(Flow.Subscription given) {
        synchronized (this) {
            subscription = given;
        }
        if (whole.isDone()) {
            stop();
        } else {
            given.request(Long.MAX_VALUE);
        }
    }

    @Override
    public void onNext(List<ByteBuffer> buffers) {
        try {
            for (ByteBuffer buffer : buffers) {
                taken.write(buffer);
            }
        } catch (IOException e) {
            stop();
            whole.completeExceptionally(e);
        }
    }

    @Override
    public void onError(Throwable failure) {
        discard();
        whole.completeExceptionally(failure);
    }

    private void discard() {
        try {
            taken.close();
        } catch (IOException e) {
            // What nobody wants any more need not be closed well.
            whole.completeExceptionally(e);
        }
    }

    @Override
    public void onComplete() {
        whole.complete(taken);
    }
}
