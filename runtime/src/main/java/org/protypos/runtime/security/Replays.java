package org.protypos.runtime.security;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;

/** Remembers what may come once only, until it is too old to come at all; there is room for so much and no more. */
final class Replays {
    private static final int MOST = 100_000;
    private static final Duration LONGEST = Duration.ofDays(1);

    private final Map<String, Instant> seen = new HashMap<>();

    /**
     * Takes something that tells one message from all others.
     *
     * @param until when the message is refused for its age
     * @throws SecurityException when it has come before, or when too many others have
     */
    synchronized void use(String mark, Instant until) {
        Instant now = Instant.now();
        if (seen.size() >= MOST) {
            seen.values().removeIf(end -> end.isBefore(now));
        }
        if (seen.size() >= MOST) {
            throw new SecurityException("too many calls at once");
        }
        Instant latest = now.plus(LONGEST);
        Instant before = seen.put(mark, until.isAfter(latest) ? latest : until);
        if (before != null && !before.isBefore(now)) {
            throw new SecurityException("the message has come before");
        }
    }
}
