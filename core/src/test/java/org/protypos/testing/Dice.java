package org.protypos.testing;

import java.util.List;
import java.util.Random;

/** What random contracts are decided by. The same seed decides the same. */
final class Dice extends Random {
    private static final long serialVersionUID = 1;

    Dice(long seed) {
        super(seed);
    }

    /** One of several. */
    <T> T of(List<T> all) {
        return all.get(nextInt(all.size()));
    }

    /** True in so many of a hundred cases. */
    boolean chance(int percent) {
        return nextInt(100) < percent;
    }
}
