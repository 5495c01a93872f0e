package org.protypos.target.classes;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Names for what no component of a contract is called by, and no ledger keeps. */
public final class FreeName {
    private FreeName() {}

    /** A name that none of others has, in capitals or small letters: the one wanted, or that with a number. */
    public static String beside(Collection<String> others, String wanted) {
        return Stream.concat(Stream.of(wanted), IntStream.iterate(2, i -> i + 1).mapToObj(i -> wanted + i))
                .filter(name -> others.stream().noneMatch(name::equalsIgnoreCase))
                .findFirst()
                .orElseThrow();
    }

    /**
     * The first name that nothing generated into a package has, in capitals or small letters.
     *
     * @param wanted the names that would do, the best first; the last gets a number when none is free
     */
    public static String of(Plan plan, String packageName, List<String> wanted) {
        Map<String, String> taken = plan.names().byScope().getOrDefault(packageName, Map.of());
        String last = wanted.get(wanted.size() - 1);
        return Stream.concat(wanted.stream(), IntStream.iterate(2, i -> i + 1).mapToObj(i -> last + i))
                .filter(name -> taken.values().stream().noneMatch(name::equalsIgnoreCase))
                .findFirst()
                .orElseThrow();
    }
}
