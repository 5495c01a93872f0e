package org.protypos.exchange;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.protypos.runtime.soap.SoapGuard;

/** Breaks answers that are to be broken, on their way out. */
final class Breaker implements SoapGuard {
    private final ThreadLocal<PlannedAnswer.Broken> next = new ThreadLocal<>();

    void next(PlannedAnswer.Broken broken) {
        next.set(broken);
    }

    @Override
    public void request(byte[] envelope, String charset) {
        next.remove();
    }

    @Override
    public byte[] answer(byte[] envelope) {
        PlannedAnswer.Broken broken = next.get();
        next.remove();
        if (broken == null) {
            return envelope;
        }
        return switch (broken) {
            case TRUNCATED -> Arrays.copyOf(envelope, envelope.length / 2);
            case HTML -> "<html><body>Please log in.</body></html>".getBytes(StandardCharsets.UTF_8);
            case EMPTY -> new byte[0];
        };
    }
}
