package org.protypos.target;

import java.util.Set;
import org.protypos.api.Api;

/**
 * A language that code is generated in. Each is a package of its own that names its target in {@code META-INF/services}; nothing
 * outside of it knows the language.
 */
public interface Target {
    /** How commands and files speak of it: small letters. */
    String name();

    /** How people speak of it. */
    String title();

    /** What is a name in it. */
    TargetNames rules();

    /** What it has code for. */
    Set<Product> products();

    /** Whether messages become records of fixed length in it. */
    default boolean hasRecords() {
        return rules().hasRecords();
    }

    /** What compiles and runs its code on this machine. */
    Toolchain toolchain();

    /** Puts an API into its terms. */
    LoweredApi lower(Api api, Wishes wishes);
}
