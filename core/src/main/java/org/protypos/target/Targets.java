package org.protypos.target;

import java.util.List;
import java.util.ServiceLoader;

/** The languages that there are: those that {@code META-INF/services} names. */
public final class Targets {
    /** The language when nobody asks for another. */
    public static final String STANDARD = "java";

    private static final List<Target> ALL = ServiceLoader.load(Target.class, Target.class.getClassLoader()).stream()
            .map(ServiceLoader.Provider::get)
            .sorted((one, other) -> one.name().compareTo(other.name()))
            .toList();

    private Targets() {}

    /** All of them, by name. */
    public static List<Target> all() {
        return ALL;
    }

    /** The one of a name, or null. */
    public static Target named(String name) {
        return all().stream()
                .filter(target -> target.name().equals(name))
                .findFirst()
                .orElse(null);
    }

    /** The one in which messages become records. */
    public static Target withRecords() {
        return all().stream().filter(Target::hasRecords).findFirst().orElseThrow();
    }

    /** The one when nobody asks for another. */
    public static Target standard() {
        return named(STANDARD);
    }
}
