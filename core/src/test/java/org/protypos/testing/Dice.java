package org.protypos.testing;

import java.util.List;
import java.util.Random;

/** What random contracts are decided by. The same seed decides the same. */
public final class Dice extends Random {
    private static final long serialVersionUID = 1;

    public Dice(long seed) {
        super(seed);
    }

    /** One of several. */
    public <T> T of(List<T> all) {
        return all.get(nextInt(all.size()));
    }

    /** True in so many of a hundred cases. */
    public boolean chance(int percent) {
        return nextInt(100) < percent;
    }
}
