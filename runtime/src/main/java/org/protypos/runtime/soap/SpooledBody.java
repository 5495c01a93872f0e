package org.protypos.runtime.soap;

import java.io.IOException;
import java.net.http.HttpResponse.BodySubscriber;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;
import org.protypos.runtime.attach.Spool;

/** Takes the body of an answer, and breaks off as soon as it is longer than allowed. */
final class SpooledBody implements BodySubscriber<Spool> {
    private final Spool taken;
    private final CompletableFuture<Spool> body = new CompletableFuture<>();
    private Flow.Subscription subscription;

    SpooledBody(Spool into) {
        taken = into;
    }

    @Override
    public CompletionStage<Spool> getBody() {
        return body;
    }

    @Override
    public void onSubscribe(Flow.Subscription given) {
        subscription = given;
        given.request(Long.MAX_VALUE);
    }

    @Override
    public void onNext(List<ByteBuffer> buffers) {
        try {
            for (ByteBuffer buffer : buffers) {
                taken.write(buffer);
            }
        } catch (IOException e) {
            subscription.cancel();
            body.completeExceptionally(e);
        }
    }

    @Override
    public void onError(Throwable failure) {
        try {
            taken.close();
        } catch (IOException e) {
            failure.addSuppressed(e);
        }
        body.completeExceptionally(failure);
    }

    @Override
    public void onComplete() {
        body.complete(taken);
    }
}
